from django.apps import AppConfig


class YardConfig(AppConfig):
    name = "zesty.yard"
