"""Verbs that change the fleet."""

from datetime import date

from django.db import IntegrityError, transaction

from wheelend.quantity import unit_of
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.models import Side, UsageEntry, Vehicle, WheelEnd
from zesty.people.models import User, Workshop


@transaction.atomic
def add_vehicle(
    workshop: Workshop, *, name: str, kind: str, axles: int, air_braked: bool
) -> Vehicle:
    """A vehicle with two wheel ends on every axle."""
    try:
        with transaction.atomic():
            vehicle = Vehicle.objects.create(
                workshop=workshop, name=name, kind=kind, air_braked=air_braked
            )
    except IntegrityError:
        raise Refused(f"“{name}” is in the yard already; give it another name.", "name") from None
    WheelEnd.objects.bulk_create(
        WheelEnd(workshop=workshop, vehicle=vehicle, axle=axle, side=side)
        for axle in range(1, axles + 1)
        for side in Side.values
    )
    return vehicle


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
