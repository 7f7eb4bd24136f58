"""Reads of spec cards."""

from decimal import Decimal

from django.db.models import Max, Prefetch, QuerySet
from django.http import Http404

from wheelend.procedure.setting import Aim, SettingCard
from wheelend.quantity import LENGTH, parse
from wheelend.verdict import Limits
from zesty.cards.models import CardVersion, SpecCard
from zesty.drawings.section import Part
from zesty.people.models import Workshop

AIM_WORDS = ("middle", "low", "high")


def cards_of(workshop: Workshop) -> QuerySet[SpecCard]:
    """All cards of a workshop with their newest version's number."""
    return SpecCard.objects.filter(workshop=workshop).annotate(newest=Max("versions__number"))


def card_of(workshop: Workshop, card_id: int) -> SpecCard:
    """One card with all its versions, newest first. Raises Http404 for another workshop's."""
    versions = CardVersion.objects.select_related("made_by").prefetch_related("stack")
    card = (
        SpecCard.objects.filter(workshop=workshop, pk=card_id)
        .prefetch_related(Prefetch("versions", versions))
        .first()
    )
    if card is None:
        raise Http404
    return card


def parts_of(version: CardVersion) -> tuple[Part, ...]:
    """A version's stack as the drawing wants it."""
    return tuple(
        Part(
            kind=part.kind,
            name=part.name,
            width_mm=_float(part.width_mm),
            bore_mm=_float(part.bore_mm),
            outside_mm=_float(part.outside_mm),
            way_round=part.way_round,
            counts=part.counts,
        )
        for part in version.stack.all()
    )


def setting_card(version: CardVersion, aim: str | None = None) -> SettingCard:
    """What a version says of the setting; `aim` is the job's own where it has one."""
    return SettingCard(
        effect=version.effect,
        limits=Limits(float(version.low_mm), float(version.high_mm)),
        aim=_aim(aim or version.aim),
        max_shims=version.max_shims,
        nut_torque_N_m=float(version.nut_torque_N_m),
    )


def clocks_of(version: CardVersion) -> tuple[str, ...]:
    """The clock positions that a version asks for."""
    return tuple(clock.strip() for clock in version.clocks.split(",") if clock.strip())


def _aim(words: str) -> Aim:
    return words if words in AIM_WORDS else float(parse(words, LENGTH))


def _float(value: Decimal | None) -> float | None:
    return None if value is None else float(value)
