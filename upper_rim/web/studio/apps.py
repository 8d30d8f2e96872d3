from django.apps import AppConfig


class StudioConfig(AppConfig):
    name = "upper_rim.web.studio"
    label = "rim_studio"
