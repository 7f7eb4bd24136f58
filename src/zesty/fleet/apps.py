from django.apps import AppConfig


class FleetConfig(AppConfig):
    name = "zesty.fleet"
