from django.apps import AppConfig


class CardsConfig(AppConfig):
    name = "zesty.cards"
