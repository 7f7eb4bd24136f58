from django.apps import AppConfig


class RecordsConfig(AppConfig):
    name = "zesty.records"
