"""Verbs that change the stores."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from django.db import IntegrityError, connection, transaction
from django.db.models import F
from django.utils import timezone

from wheelend.errors import BadInput
from wheelend.procedure.allowed import check_facts
from wheelend.procedure.figures import SHIMS_OF_ONE, THICKNESSES
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import User, Workshop
from zesty.stores.models import (
    Calibration,
    Confirmation,
    Equipment,
    Instrument,
    InstrumentKind,
    Lubricant,
    Shim,
)
from zesty.stores.queries import facts_of, instrument_of


def hold_tray(workshop: Workshop) -> None:
    """Let one at a time change many rows of a tray: whoever comes second waits, and none for ever."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(%s, %s)", [_TRAY, workshop.pk])


_TRAY = 5261


@transaction.atomic
def add_shims(workshop: Workshop, *, nominal: Typed, measured: Typed | None, count: int) -> Shim:
    """Put shims in the tray; the same thickness again adds up."""
    shim, made = Shim.objects.select_for_update().get_or_create(
        workshop=workshop,
        nominal_mm=nominal.value,
        measured_mm=measured.value if measured else None,
        defaults={"nominal": nominal.text, "measured": measured.text if measured else ""},
    )
    if made and Shim.objects.filter(workshop=workshop).count() > THICKNESSES:
        raise Refused(
            f"A tray holds at most {THICKNESSES} thicknesses; take out what you never use.",
            "nominal",
        )
    if shim.count + count > SHIMS_OF_ONE:
        raise Refused(
            f"{shim.count + count} of one thickness are too many; count them again.", "count"
        )
    shim.count += count
    shim.save(update_fields=["count"])
    return shim


@dataclass(frozen=True)
class Count:
    """How many shims of a thickness there are."""

    nominal: Typed
    measured: Typed | None
    count: int

    @property
    def key(self) -> tuple[Decimal, Decimal | None]:
        """What makes it a row of its own in a tray."""
        return self.nominal.value, self.measured.value if self.measured else None


@transaction.atomic
def put_counts(workshop: Workshop, counts: Sequence[Count]) -> None:
    """Say how many shims of some thicknesses there are, whether they were in the tray before or not."""
    hold_tray(workshop)
    tray = {
        (one.nominal_mm, one.measured_mm): one for one in Shim.objects.filter(workshop=workshop)
    }
    said = {one.key: one for one in counts}
    new = [one for key, one in said.items() if key not in tray]
    if len(tray) + len(new) > THICKNESSES:
        raise Refused(
            f"With these the tray has {len(tray) + len(new)} thicknesses; it holds {THICKNESSES}."
        )
    for key, one in said.items():
        if key in tray:
            tray[key].count = one.count
    Shim.objects.bulk_update([tray[key] for key in said if key in tray], ["count"])
    Shim.objects.bulk_create(
        Shim(workshop=workshop, nominal=one.nominal.text, nominal_mm=one.nominal.value, count=one.count,
             measured=one.measured.text if one.measured else "",
             measured_mm=one.measured.value if one.measured else None)
        for one in new
    )  # fmt: skip


@transaction.atomic
def count_shims(workshop: Workshop, *, shim_id: int, count: int) -> None:
    """Say how many there are, after counting."""
    if not Shim.objects.filter(workshop=workshop, pk=shim_id).update(count=count):
        raise Refused("That shim is no longer in the tray; reload the page.")


@dataclass(frozen=True)
class Fitted:
    """One shim on its way between tray and pack: as typed, what it counts as, which of the tray's."""

    typed: str
    thickness_mm: Decimal
    shim_id: int | None = None


def recognised(tray: Iterable[Shim], shim: Typed) -> Fitted:
    """A shim that was typed, as the tray knows it: by its mark or by its measure.

    What was measured counts, so a shim typed by its mark takes the measured thickness.
    """
    rows = [row for row in tray if shim.value in (row.nominal_mm, row.measured_mm)]
    rows.sort(key=lambda row: (row.count == 0, row.nominal != shim.text, row.pk))
    if not rows:
        return Fitted(shim.text, shim.value)
    return Fitted(rows[0].nominal, rows[0].thickness_mm, rows[0].pk)


@transaction.atomic
def swap(workshop: Workshop, *, put_in: Sequence[Fitted], taken_out: Sequence[Fitted]) -> None:
    """Move shims between tray and pack; the tray is locked once, in one order.

    What comes out goes back where it came from. What goes in leaves its row: a shim from elsewhere
    is real all the same.
    """
    if not put_in and not taken_out:
        return
    hold_tray(workshop)
    tray = list(Shim.objects.select_for_update().filter(workshop=workshop).order_by("pk"))
    changed: dict[int, Shim] = {}
    for shim, change in [*((one, 1) for one in taken_out), *((one, -1) for one in put_in)]:
        row = _row_of(tray, shim, change)
        if row is None and change > 0:
            row = Shim(workshop=workshop, nominal=shim.typed, nominal_mm=shim.thickness_mm)
            row.save()
            tray.append(row)
        if row is not None:
            row.count = max(row.count + change, 0)
            changed[row.pk] = row
    Shim.objects.bulk_update(changed.values(), ["count"])


def _row_of(tray: list[Shim], shim: Fitted, change: int) -> Shim | None:
    same = [row for row in tray if row.thickness_mm == shim.thickness_mm]
    own = [row for row in same if row.pk == shim.shim_id]
    there = [row for row in (*own, *same) if change > 0 or row.count > 0]
    return there[0] if there else None


@dataclass(frozen=True)
class Papers:
    """What a calibration says: its day, its certificate, and the doubt that it leaves (k = 2)."""

    on: date
    certificate: str = ""
    doubt: Typed | None = None
    reason: str = ""


@transaction.atomic
def add_instrument(
    workshop: Workshop,
    *,
    kind: str,
    name: str,
    resolution: Typed | None = None,
    low: Typed | None = None,
    high: Typed | None = None,
    accuracy_percent: Decimal | None = None,
    multiplier: Decimal = Decimal(1),
    papers: Papers | None = None,
    by: User | None = None,
    reported: bool = False,
) -> Instrument:
    """An instrument for the bench, with its papers where it has any."""
    if low and high and low.value > high.value:
        raise Refused(f"{high.text} is below {low.text}; swap them.", "high")
    try:
        with transaction.atomic():
            made = Instrument.objects.create(
                workshop=workshop, kind=kind, name=name, multiplier=multiplier,
                resolution=resolution.text if resolution else "",
                resolution_value=resolution.value if resolution else None,
                low=low.text if low else "", low_value=low.value if low else None,
                high=high.text if high else "", high_value=high.value if high else None,
                accuracy_percent=accuracy_percent,
            )  # fmt: skip
    except IntegrityError:
        raise Refused(f"There is a “{name}” already; give another name.", "name") from None
    if papers:
        _written(made, papers, by=by, reported=reported)
    _check_figures(made)
    return made


def _check_figures(made: Instrument) -> None:
    """What the stores could not show, and no entry could hold, is not kept."""
    try:
        check_facts(facts_of(instrument_of(made.pk), timezone.localdate()))
    except BadInput as bad:
        wrong = str(bad).removeprefix("facts.")
        raise Refused(f"No instrument has such figures: {wrong}.", "name") from None


def add_gauge(
    workshop: Workshop, *, name: str, resolution: Typed, calibration: Typed | None,
    by: User | None = None, reported: bool = False,
) -> Instrument:  # fmt: skip
    """A dial gauge for the bench."""
    papers = Papers(timezone.localdate(), doubt=calibration) if calibration else None
    return add_instrument(
        workshop, kind=InstrumentKind.DIAL, name=name, resolution=resolution, papers=papers,
        by=by, reported=reported,
    )  # fmt: skip


def add_meter(
    workshop: Workshop, *, kind: str, name: str, resolution: Typed | None, doubt: Typed | None,
    calibrated_on: date | None, by: User | None = None, reported: bool = False,
) -> Instrument:  # fmt: skip
    """A torque meter, a scale, a thermometer or a feeler gauge for the bench."""
    if doubt and not calibrated_on:
        raise Refused(
            "A certificate has a day: give the day it was calibrated on.", "calibrated_on"
        )
    papers = Papers(calibrated_on, doubt=doubt) if calibrated_on else None
    return add_instrument(
        workshop, kind=kind, name=name, resolution=resolution, papers=papers, by=by,
        reported=reported,
    )  # fmt: skip


def add_wrench(
    workshop: Workshop,
    *,
    name: str,
    low: Typed,
    high: Typed,
    accuracy_percent: Decimal,
    calibrated_on: date,
    multiplier: Decimal,
    by: User | None = None,
    reported: bool = False,
) -> Instrument:
    """A torque wrench for the bench."""
    return add_instrument(
        workshop, kind=InstrumentKind.WRENCH, name=name, low=low, high=high,
        accuracy_percent=accuracy_percent, papers=Papers(calibrated_on), multiplier=multiplier,
        by=by, reported=reported,
    )  # fmt: skip


@transaction.atomic
def calibrate(
    workshop: Workshop, *, instrument_id: int, on: date, certificate: str = "",
    doubt: Typed | None = None, reason: str = "", by: User | None = None, reported: bool = False,
) -> Calibration:  # fmt: skip
    """An instrument came back from calibration. Reported by a technician, a lead confirms it."""
    # Held: two at once must not both be the last one.
    held = Instrument.objects.select_for_update().filter(workshop=workshop, pk=instrument_id)
    instrument = held.first()
    if instrument is None:
        raise Refused("That instrument is no longer there; reload the page.")
    return _written(instrument, Papers(on, certificate, doubt, reason), by=by, reported=reported)


def _written(
    instrument: Instrument, papers: Papers, *, by: User | None, reported: bool
) -> Calibration:
    if papers.on > timezone.localdate():
        raise Refused(
            f"{papers.on:%d %b %Y} has not come yet; give the day on the certificate.", "on"
        )
    last = instrument.calibrations.first()
    if last and papers.on < last.on and not papers.reason:
        raise Refused(
            f"{instrument} was calibrated {last.on:%d %b %Y} already; say why an earlier day holds.",
            "reason",
        )
    doubt = papers.doubt
    made = Calibration.objects.create(
        workshop_id=instrument.workshop_id, instrument=instrument, on=papers.on, by=by,
        certificate=papers.certificate, reason=papers.reason, reported=reported,
        doubt=doubt.text if doubt else "", doubt_value=doubt.value if doubt else None,
    )  # fmt: skip
    if not reported:
        _counts_from_now(instrument.pk)
    return made


@transaction.atomic
def confirm(workshop: Workshop, *, calibration_id: int, by: User) -> None:
    """A lead saw the papers of a reported calibration: it counts."""
    found = Calibration.objects.filter(workshop=workshop, pk=calibration_id, reported=True)
    calibration = found.first()
    if calibration is None:
        raise Refused("That report is no longer there; reload the page.")
    if calibration.by_id == by.pk:
        raise Refused("You reported it yourself; another lead or the owner looks at its papers.")
    # The instrument is held, for a row of papers can't be: they are only added to.
    Instrument.objects.select_for_update().get(pk=calibration.instrument_id)
    _, made = Confirmation.objects.get_or_create(
        calibration=calibration, defaults={"workshop": workshop, "by": by}
    )
    if made:
        _counts_from_now(calibration.instrument_id)


def _counts_from_now(instrument_id: int) -> None:
    """The cycles of a wrench count from its calibration."""
    Instrument.objects.filter(pk=instrument_id).update(cycles=0)


def count_cycle(instrument: Instrument) -> None:
    """One more time that a wrench clicked."""
    Instrument.objects.filter(pk=instrument.pk).update(cycles=F("cycles") + 1)


def add_equipment(workshop: Workshop, *, kind: str, name: str, figure: Typed) -> Equipment:
    """A machine with the figure that limits it. Refused where the name is taken."""
    try:
        with transaction.atomic():
            return Equipment.objects.create(
                workshop=workshop, kind=kind, name=name, figure=figure.text, value=figure.value
            )
    except IntegrityError:
        raise Refused(f"“{name}” is in the shed already; give it another name.", "name") from None


def add_lubricant(workshop: Workshop, *, density: Typed | None, **said: Any) -> Lubricant:
    """A grease or an oil; the same name again says anew what is left of it."""
    name = said.pop("name")
    columns = {**said, "density": density.text if density else ""}
    found, _ = Lubricant.objects.update_or_create(workshop=workshop, name=name, defaults=columns)
    return found


def take_away(workshop: Workshop, *, what: str, pk: int) -> None:
    """A machine or a lubricant is no longer here; what was written with it stays."""
    table = {"equipment": Equipment, "lubricant": Lubricant}[what]
    table.objects.filter(workshop=workshop, pk=pk).delete()
