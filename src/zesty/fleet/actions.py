"""Verbs that change the fleet."""

from datetime import date
from typing import Any

from django.db import IntegrityError, transaction

from wheelend.quantity import unit_of
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.models import DECK, Kind, Side, UsageEntry, Vehicle, WheelEnd
from zesty.people.models import User, Workshop


@transaction.atomic
def add_vehicle(
    workshop: Workshop, *, name: str, kind: str, axles: int, deck: int = 0, **traits: Any
) -> Vehicle:
    """A vehicle with its wheel ends: two on every axle, one on a motorcycle's, and a deck's spindles."""
    if deck and kind != Kind.MOWER:
        raise Refused(f"A {Kind(kind).label} has no deck; leave its spindles at 0.", "deck")
    try:
        with transaction.atomic():
            vehicle = Vehicle.objects.create(workshop=workshop, name=name, kind=kind, **traits)
    except IntegrityError:
        raise Refused(f"“{name}” is in the yard already; give it another name.", "name") from None
    sides = [Side.CENTRE] if kind == Kind.MOTORCYCLE else [Side.LEFT, Side.RIGHT]
    places = [(axle, side) for axle in range(1, axles + 1) for side in sides]
    places += [(DECK, side) for side in _SPINDLES[deck]]
    WheelEnd.objects.bulk_create(
        WheelEnd(workshop=workshop, vehicle=vehicle, axle=axle, side=side) for axle, side in places
    )
    return vehicle


_SPINDLES: dict[int, list[Side]] = {
    0: [],
    1: [Side.CENTRE],
    2: [Side.LEFT, Side.RIGHT],
    3: [Side.LEFT, Side.CENTRE, Side.RIGHT],
}


@transaction.atomic
def log_usage(vehicle: Vehicle, user: User, *, usage: Typed, on: date) -> UsageEntry:
    """Write down how far a vehicle had gone on a day."""
    unit = unit_of(usage.text)
    before = vehicle.usage_log.filter(unit=unit, on__lte=on).first()
    if before and usage.value < before.value:
        raise Refused(
            f"{usage.text} is less than the {before.typed} of {before.on:%d %b %Y}; "
            "check the counter, or the day.",
            "usage",
        )
    # The same counter twice on one day says nothing new, however often it is sent.
    entry, _ = UsageEntry.objects.get_or_create(
        vehicle=vehicle,
        on=on,
        value=usage.value,
        unit=unit,
        defaults={"typed": usage.text, "entered_by": user},
    )
    return entry
