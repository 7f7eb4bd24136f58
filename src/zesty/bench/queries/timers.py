"""The timers that run in a workshop, each with how long it has left by the server's clock."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from wheelend.procedure.warmline import clock
from zesty.bench.models import State, Timer, TimerChange, TimerKind
from zesty.elements.prepared import Prepared
from zesty.people.models import Workshop


@dataclass(frozen=True)
class Running:
    """A timer that was not stopped."""

    pk: int
    job_id: int
    unit_id: int
    by_id: int
    index: int
    kind: str
    words: str
    where: str
    ends_at: datetime
    lengthened: int
    rung: bool

    def left_s(self, now: datetime) -> float:
        """Seconds until it ends; below nothing when it is over."""
        return (self.ends_at - now).total_seconds()


@dataclass(frozen=True)
class Shown:
    """A timer as a page shows it at one moment."""

    timer: Running
    left: int
    clock: str
    ends: str

    @property
    def over(self) -> bool:
        """Whether its time is over."""
        return self.left <= 0


_ASKED = (
    "pk", "job_id", "unit_id", "by_id", "unit__order", "unit__name", "job__vehicle__name", "kind", "words",
    "seconds", "at",
)  # fmt: skip


_OF_OPEN_JOBS: Prepared[Any] = Prepared(
    lambda workshop: Timer.objects.filter(workshop=workshop, job__state=State.OPEN).values_list(
        *_ASKED, named=True
    ),
    "workshop",
)


def running(workshop: Workshop) -> list[Running]:
    """Every timer of the workshop's open jobs that was not stopped, the next to end first."""
    rows = _OF_OPEN_JOBS.ask(workshop=workshop.pk)
    changes: dict[int, list[TimerChange]] = {row.pk: [] for row in rows}
    if changes:
        for change in TimerChange.objects.filter(timer__in=changes):
            changes[change.timer_id].append(change)
    found = (_running(row, changes[row.pk]) for row in rows)
    return sorted((one for one in found if one), key=lambda one: one.ends_at)


def shown(workshop: Workshop, now: datetime, job_id: int = 0) -> list[Shown]:
    """The running timers as they stand now, those of one job first."""
    found = sorted(running(workshop), key=lambda one: one.job_id != job_id)
    return [_shown(one, now) for one in found]


def _shown(one: Running, now: datetime) -> Shown:
    left = one.left_s(now)
    words = f"{one.ends_at:%H:%M}" if left > 0 else f"over since {one.ends_at:%H:%M}"
    return Shown(one, max(0, int(left)), clock(max(0.0, left)), words)


def _running(row: Any, changes: list[TimerChange]) -> Running | None:
    kinds = {change.kind for change in changes}
    if "stopped" in kinds:
        return None
    label = str(TimerKind(row.kind).label)
    more = sum(one.seconds for one in changes if one.kind == "lengthened")
    return Running(
        pk=row.pk, job_id=row.job_id, unit_id=row.unit_id, by_id=row.by_id, index=row.unit__order,
        kind=row.kind, words=f"{label}: {row.words}" if row.words else label,
        where=f"{row.job__vehicle__name}, {row.unit__name}",
        ends_at=row.at + timedelta(seconds=row.seconds + more),
        lengthened=more, rung="rung" in kinds,
    )  # fmt: skip
