"""Verbs that change the stores."""

from collections.abc import Iterable
from datetime import date
from decimal import Decimal

from django.db import IntegrityError, transaction
from django.db.models import F

from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import Workshop
from zesty.stores.models import Gauge, Shim, Wrench


@transaction.atomic
def add_shims(workshop: Workshop, *, nominal: Typed, measured: Typed | None, count: int) -> Shim:
    """Put shims in the tray; the same thickness again adds up."""
    shim, _ = Shim.objects.select_for_update().get_or_create(
        workshop=workshop,
        nominal_mm=nominal.value,
        measured_mm=measured.value if measured else None,
        defaults={"nominal": nominal.text, "measured": measured.text if measured else ""},
    )
    shim.count = F("count") + count
    shim.save(update_fields=["count"])
    return shim


@transaction.atomic
def put_count(workshop: Workshop, *, nominal: Typed, measured: Typed | None, count: int) -> None:
    """Say how many shims of a thickness there are, whether it was in the tray before or not."""
    shim = add_shims(workshop, nominal=nominal, measured=measured, count=0)
    Shim.objects.filter(pk=shim.pk).update(count=count)


@transaction.atomic
def count_shims(workshop: Workshop, *, shim_id: int, count: int) -> None:
    """Say how many there are, after counting."""
    if not Shim.objects.filter(workshop=workshop, pk=shim_id).update(count=count):
        raise Refused("That shim is no longer in the tray; reload the page.")


@transaction.atomic
def swap(workshop: Workshop, put_in: Iterable[Typed], taken_out: Iterable[Typed]) -> None:
    """Move shims between tray and pack.

    What comes out goes into the tray. What goes in leaves it where it was there: a shim from
    elsewhere is real all the same.
    """
    for shim in taken_out:
        row = _of_thickness(workshop, shim.value)
        if row:
            Shim.objects.filter(pk=row.pk).update(count=F("count") + 1)
        else:
            add_shims(workshop, nominal=shim, measured=None, count=1)
    for shim in put_in:
        row = _of_thickness(workshop, shim.value, loose=True)
        if row:
            Shim.objects.filter(pk=row.pk).update(count=F("count") - 1)


def _of_thickness(workshop: Workshop, value: Decimal, *, loose: bool = False) -> Shim | None:
    rows = Shim.objects.select_for_update().filter(workshop=workshop)
    return next(
        (row for row in rows if row.thickness_mm == value and (row.count > 0 or not loose)), None
    )


def add_gauge(
    workshop: Workshop, *, name: str, resolution: Typed, calibration: Typed | None
) -> Gauge:
    """A dial gauge for the bench."""
    try:
        with transaction.atomic():
            return Gauge.objects.create(
                workshop=workshop,
                name=name,
                resolution=resolution.text,
                resolution_mm=resolution.value,
                calibration=calibration.text if calibration else "",
                calibration_mm=calibration.value if calibration else Decimal(0),
            )
    except IntegrityError:
        raise Refused(f"There is a gauge “{name}” already; give another name.", "name") from None


def add_wrench(
    workshop: Workshop,
    *,
    name: str,
    low: Typed,
    high: Typed,
    accuracy_percent: Decimal,
    calibrated_on: date,
    multiplier: Decimal,
) -> Wrench:
    """A torque wrench for the bench."""
    if low.value > high.value:
        raise Refused(f"{high.text} is below {low.text}; swap them.", "high")
    try:
        with transaction.atomic():
            return Wrench.objects.create(
                workshop=workshop,
                name=name,
                low=low.text,
                low_N_m=low.value,
                high=high.text,
                high_N_m=high.value,
                accuracy_percent=accuracy_percent,
                calibrated_on=calibrated_on,
                multiplier=multiplier,
            )
    except IntegrityError:
        raise Refused(f"There is a wrench “{name}” already; give another name.", "name") from None


@transaction.atomic
def calibrate(workshop: Workshop, *, wrench_id: int, on: date) -> None:
    """A wrench came back from calibration; its cycles count from nothing again."""
    if not Wrench.objects.filter(workshop=workshop, pk=wrench_id).update(
        calibrated_on=on, cycles=0
    ):
        raise Refused("That wrench is no longer there; reload the page.")


def count_cycle(wrench: Wrench) -> None:
    """One more time that it clicked."""
    Wrench.objects.filter(pk=wrench.pk).update(cycles=F("cycles") + 1)
