"""Verbs that change spec cards: a change is always a new version."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction

from zesty.cards.models import CardVersion, Fitment, SpecCard, StackPart
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop


@transaction.atomic
def new_card(
    workshop: Workshop,
    user: User,
    *,
    name: str,
    arrangement: str,
    stack: Sequence[dict[str, Any]],
    **says: Any,
) -> SpecCard:
    """A card with its first version."""
    try:
        with transaction.atomic():
            card = SpecCard.objects.create(workshop=workshop, name=name, arrangement=arrangement)
    except IntegrityError:
        raise Refused(f"There is a card “{name}” already; give another name.", "name") from None
    new_version(card, user, follows=0, stack=stack, **says)
    return card


@transaction.atomic
def new_version(
    card: SpecCard, user: User, *, follows: int, stack: Sequence[dict[str, Any]], **says: Any
) -> CardVersion:
    """The next version of a card; `follows` is the version that was edited."""
    SpecCard.objects.select_for_update().get(pk=card.pk)
    newest = card.versions.first()
    number = newest.number if newest else 0
    if number != follows:
        raise Refused(
            f"{newest.made_by} made version {number} while you edited version {follows}; "
            "read it, then enter your change again."
        )
    return add_version(card, user, number=number + 1, stack=stack, **says)


@transaction.atomic
def add_version(
    card: SpecCard,
    user: User,
    *,
    number: int,
    stack: Sequence[dict[str, Any]],
    made_at: datetime | None = None,
    **says: Any,
) -> CardVersion:
    """A version under a number of its own, as an import brings it."""
    columns: dict[str, Any] = {"made_at": made_at} if made_at else {}
    for key, value in says.items():
        columns |= _columns(key, value)
    version = CardVersion.objects.create(card=card, number=number, made_by=user, **columns)
    StackPart.objects.bulk_create(
        StackPart(version=version, order=order, **_part(part))
        for order, part in enumerate(stack, 1)
    )
    return version


def fit_card(wheel_end: WheelEnd, card: SpecCard) -> None:
    """Say which card a wheel end is serviced by."""
    Fitment.objects.update_or_create(wheel_end=wheel_end, defaults={"card": card})


def _part(part: dict[str, Any]) -> dict[str, Any]:
    columns: dict[str, Any] = {}
    for key, value in part.items():
        columns |= _columns(key, value)
    return columns


_SUFFIX = {"nut_torque": "N_m"}
_AS_TYPED = ("pitch", "torque_low", "torque_high", "torque_per_deg", "bolt_torque",
             "hands_radius", "spread", "contact_angle")  # fmt: skip
"""Quantities that are kept as typed only, and may be left out."""

_SIZES = ("width", "bore", "outside", "low", "high", "nut_torque")


def _columns(key: str, value: Any) -> dict[str, Any]:
    """A typed quantity fills two columns: as typed, and the number."""
    if key in _AS_TYPED:
        return {key: value.text if value else ""}
    if key not in _SIZES:
        return {key: value}
    number = f"{key}_{_SUFFIX.get(key, 'mm')}"
    if not isinstance(value, Typed):
        return {key: "", number: None}
    return {key: value.text, number: value.value}
