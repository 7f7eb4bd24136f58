"""Looks after first use: planned when a job is signed, due by day or by counter, done in a short job."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from fractions import Fraction

from django.shortcuts import get_object_or_404
from django.utils import timezone

from wheelend.card.lookagain import look_again
from wheelend.quantity import USAGE, parse, unit_of
from wheelend.recheck import Due, Point, recheck
from zesty.bench.models import Purpose
from zesty.bench.queries.jobfile import JobFile
from zesty.fleet.models import UsageEntry, WheelEnd
from zesty.people.models import Workshop
from zesty.records.models import Recheck


@dataclass(frozen=True)
class RecheckRow:
    """One recheck as it is shown: when it is due, by what, and in how many days."""

    recheck: Recheck
    due: Due

    @property
    def is_late(self) -> bool:
        """Whether its day has passed."""
        return self.due.days_left < 0

    @property
    def words(self) -> str:
        """When, in words."""
        day = f"{self.due.due_on:%d %b %Y}".lstrip("0")
        by = f", by {self.recheck.every_usage} run" if self.due.by == "usage" else ""
        left = self.due.days_left
        when = f"{-left} days late" if left < 0 else "today" if left == 0 else f"in {left} days"
        return f"recheck {self.recheck.wheel_end}: {day}{by}, {when}"


def due_rows(rechecks: Iterable[Recheck], today: date) -> tuple[RecheckRow, ...]:
    """Rechecks that are open, the most urgent first."""
    found = list(rechecks)
    vehicles = {one.wheel_end.vehicle_id for one in found}
    logs: dict[int, list[UsageEntry]] = {}
    for entry in UsageEntry.objects.filter(vehicle__in=vehicles):
        logs.setdefault(entry.vehicle_id, []).append(entry)
    rows = [
        RecheckRow(one, _due(one, logs.get(one.wheel_end.vehicle_id, []), today)) for one in found
    ]
    return tuple(sorted(rows, key=lambda row: row.due.days_left))


def _due(one: Recheck, log: Sequence[UsageEntry], today: date) -> Due:
    unit = unit_of(one.usage) if one.usage else ""
    usable = bool(one.every_usage) and unit_of(one.every_usage) == unit
    points: list[Point] = [
        (entry.on, Fraction(entry.value))
        for entry in log
        if entry.unit == unit and entry.on <= today
    ]
    return recheck(
        one.planned_on,
        parse(one.usage, USAGE) if one.usage else Fraction(0),
        points,
        today,
        every_days=one.every_days,
        every_usage=parse(one.every_usage, USAGE) if usable else None,
    )


def open_rechecks(
    workshop: Workshop, wheel_ends: Iterable[WheelEnd] | None = None
) -> tuple[RecheckRow, ...]:
    """What is still to be looked at, of a workshop or of some wheel ends."""
    found = Recheck.objects.filter(workshop=workshop, done_at=None).select_related(
        "wheel_end__vehicle", "sign_off__job"
    )
    if wheel_ends is not None:
        found = found.filter(wheel_end__in=list(wheel_ends))
    return due_rows(found, timezone.localdate())


def open_recheck(workshop: Workshop, vehicle_id: int, recheck_id: int) -> Recheck:
    """One that is still to be done. Raises Http404 for another workshop's, or one that was done."""
    found = Recheck.objects.select_related("wheel_end__fitment__card", "wheel_end__vehicle")
    return get_object_or_404(
        found, workshop=workshop, pk=recheck_id, wheel_end__vehicle=vehicle_id, done_at=None
    )


def due_by_vehicle(workshop: Workshop, within_days: int = 14) -> dict[int, tuple[RecheckRow, ...]]:
    """What is due soon or late, by vehicle."""
    found: dict[int, tuple[RecheckRow, ...]] = {}
    for row in open_rechecks(workshop):
        if row.due.days_left <= within_days:
            vehicle = row.recheck.wheel_end.vehicle_id
            found[vehicle] = (*found.get(vehicle, ()), row)
    return found


def planned_words(file: JobFile, at: datetime) -> tuple[str, ...]:
    """What the sheet says of each unit: what to look at, and when."""
    said = []
    for unit in file.units:
        again = look_again(unit.card)
        if again is None or file.job.purpose == Purpose.RECHECK:
            continue
        due = recheck(at.date(), Fraction(0), [], at.date(), every_days=again.days)
        ours = " (the shop’s own rule: the card names no time)" if again.is_ours else ""
        after = f" or after {again.usage}, whichever comes first" if again.usage else ""
        said.append(
            f"{unit.unit.name.capitalize()}: look again by {due.due_on:%d %b %Y}{after}: {again.what}{ours}."
        )
    return tuple(said)
