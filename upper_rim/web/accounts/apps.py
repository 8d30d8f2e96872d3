from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "upper_rim.web.accounts"
    label = "rim_accounts"
