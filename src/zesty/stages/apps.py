from django.apps import AppConfig


class StagesConfig(AppConfig):
    name = "zesty.stages"
