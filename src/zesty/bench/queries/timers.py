"""The timers that run in a workshop, each with how long it has left by the server's clock."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from wheelend.procedure.warmline import clock
from zesty.bench.models import State, Timer, TimerKind
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


def running(workshop: Workshop) -> list[Running]:
    """Every timer of the workshop's open jobs that was not stopped, the next to end first."""
    rows = (
        Timer.objects.filter(workshop=workshop, job__state=State.OPEN)
        .select_related("job__vehicle", "unit")
        .prefetch_related("changes")
    )
    found = (_running(row) for row in rows if not _has(row, "stopped"))
    return sorted(found, key=lambda one: one.ends_at)


def shown(workshop: Workshop, now: datetime, job_id: int = 0) -> list[Shown]:
    """The running timers as they stand now, those of one job first."""
    found = sorted(running(workshop), key=lambda one: one.job_id != job_id)
    return [_shown(one, now) for one in found]


def _shown(one: Running, now: datetime) -> Shown:
    left = one.left_s(now)
    words = f"{one.ends_at:%H:%M}" if left > 0 else f"over since {one.ends_at:%H:%M}"
    return Shown(one, max(0, int(left)), clock(max(0.0, left)), words)


def _has(row: Timer, kind: str) -> bool:
    return any(change.kind == kind for change in row.changes.all())


def _running(row: Timer) -> Running:
    label = str(TimerKind(row.kind).label)
    more = sum(one.seconds for one in row.changes.all() if one.kind == "lengthened")
    return Running(
        pk=row.pk, job_id=row.job_id, unit_id=row.unit_id, by_id=row.by_id, index=row.unit.order,
        kind=row.kind, words=f"{label}: {row.words}" if row.words else label,
        where=f"{row.job.vehicle}, {row.unit.name}",
        ends_at=row.at + timedelta(seconds=row.seconds + more),
        lengthened=more, rung=_has(row, "rung"),
    )  # fmt: skip
