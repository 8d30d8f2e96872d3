from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "upper_rim.web.jobs"
    label = "rim_jobs"
