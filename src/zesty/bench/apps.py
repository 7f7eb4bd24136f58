from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "zesty.bench"

    def ready(self) -> None:
        """The cards' editor shows what past jobs know."""
        from zesty.bench.queries.history import scatter_offer  # noqa: PLC0415  models come first
        from zesty.cards.offers import tell  # noqa: PLC0415  models come first

        tell(scatter_offer)
