from django.apps import AppConfig


class SitesConfig(AppConfig):
    name = "upper_rim.web.sites"
    label = "rim_sites"
