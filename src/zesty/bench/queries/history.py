"""What a workshop's past jobs know: the packs that a card's hubs needed, how its readings scatter."""

from collections import defaultdict
from collections.abc import Iterator

from django.db.models import Sum

from wheelend.card import CHOICES, Card
from wheelend.methods.judgement import Usual
from wheelend.methods.shims.history import Scatter, scatter_of, usual_of
from wheelend.procedure.asking.apart import base_of
from wheelend.wording import mm
from zesty.bench.models import Entry, State
from zesty.cards.offers import Offer
from zesty.people.models import Workshop

_PACKS, _READINGS = 120, 1200
"""How far back history is looked at, in rows."""


def usual_packs(workshop_id: int, card_id: int) -> Usual | None:
    """What hubs of a card needed: the last pack of each unit that was signed here."""
    rows = (
        Entry.objects.filter(
            workshop=workshop_id, kind="pack", corrected_by=None, by__isnull=False,
            job__state=State.SIGNED, unit__card_version__card=card_id,
        )
        .annotate(total=Sum("shims__thickness_mm"))
        .order_by("-pk")
        .values_list("unit", "closing", "station", "total")[:_PACKS]
    )  # fmt: skip
    last: dict[int, int] = {}
    packs: dict[int, dict[str, float]] = defaultdict(dict)
    for unit, closing, station, total in rows:
        if last.setdefault(unit, closing) == closing:
            packs[unit].setdefault(station, float(total or 0))
    return usual_of([sum(stations.values()) for stations in packs.values()])


def own_scatter(workshop: Workshop, arrangement: str, dial_at: str) -> Scatter | None:
    """How a workshop's readings of a family scatter, with the dial at one kind of place."""
    rows = (
        Entry.objects.filter(
            workshop=workshop, kind__in=("in", "out"), corrected_by=None, by__isnull=False,
            unit__card_version__card__arrangement=arrangement, facts__dial_at=dial_at,
        )
        .order_by("-pk")
        .values_list("unit", "closing", "step", "round", "place", "kind", "value", "facts__resolution_mm")
    )[:_READINGS]  # fmt: skip
    series: dict[tuple[object, ...], dict[str, dict[str, float]]] = defaultdict(dict)
    dial: dict[tuple[object, ...], float] = {}
    for unit, closing, step, number, place, kind, value, resolution in rows:
        key = (unit, closing, step, number)
        if base_of(place) == place:
            series[key].setdefault(place, {})[kind] = float(value)
            dial[key] = float(resolution or 0.01)
    return scatter_of((_plays(read), dial[key]) for key, read in series.items())


def _plays(read: dict[str, dict[str, float]]) -> list[float]:
    return [abs(pair["out"] - pair["in"]) for pair in read.values() if len(pair) == 2]


def scatter_offer(workshop: Workshop, card: Card) -> Iterator[Offer]:
    """The shop's own scatter, for a card that might say it."""
    dial_at = card.chosen("dial_at")
    found = own_scatter(workshop, card.arrangement.key, dial_at)
    if found is None or found.deviation_mm <= 0:
        return
    says = mm(found.deviation_mm, 0.0001)
    where = CHOICES["dial_at"].options[dial_at].partition(",")[2].strip() or dial_at
    words = (
        f"Your own readings here scatter by {says}: {found.series} series of this family, {where}."
    )
    yield Offer("repeatability", says, words)
