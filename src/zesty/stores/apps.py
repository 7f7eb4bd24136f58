from django.apps import AppConfig


class StoresConfig(AppConfig):
    name = "zesty.stores"
