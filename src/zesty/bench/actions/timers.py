"""Timers of a job: started, lengthened, stopped; and who may ring."""

from datetime import timedelta
from uuid import UUID, uuid4

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

from wheelend.procedure.asking.level import settles
from wheelend.procedure.asking.warmth import warmed
from wheelend.procedure.progress import Row
from zesty.bench.actions.log import hold_open
from zesty.bench.models import Timer, TimerChange, TimerKind
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.timers import Running, running
from zesty.elements.refused import Refused
from zesty.people.models import User, Workshop

MOST_RUNNING = 12
"""Of one job at once."""
_OTHERS_AFTER = timedelta(seconds=30)
"""Where nobody's page who started it has rung by then, any page of the workshop does."""


def start(
    file: JobFile, unit: UnitFile, user: User, *, kind: str, seconds: int, words: str, token: UUID
) -> Timer:
    """Start a timer; the same token again is the same timer. Refused in an ended job."""
    hold_open(file)
    mine = Timer.objects.filter(job=file.job)
    here = mine.filter(token=token).first()
    if here:
        return here
    if sum(one.job_id == file.job.pk for one in running(file.job.workshop)) >= MOST_RUNNING:
        raise Refused(f"{MOST_RUNNING} timers run in this job; stop one that is no longer needed.")
    return Timer.objects.create(
        workshop=file.job.workshop, job=file.job, unit=unit.unit, kind=kind, seconds=seconds,
        words=words, by=user, token=token,
    )  # fmt: skip


def lengthen(
    workshop: Workshop, pk: int, user: User, *, seconds: int, reason: str, token: UUID
) -> None:
    """Give a timer more time, for a reason. One that had run out runs that long from now."""
    one = _running(workshop, pk)
    late = max(0, -one.left_s(timezone.now()))
    _change(workshop, pk, user, "lengthened", seconds=late + seconds, reason=reason, token=token)


def stop(workshop: Workshop, pk: int, user: User, *, reason: str, token: UUID) -> None:
    """End a timer; before its time is over it needs a reason."""
    one = _running(workshop, pk)
    if one.left_s(timezone.now()) > 0 and not reason:
        raise Refused("Say why it is stopped before its time is over.", "reason")
    _change(workshop, pk, user, "stopped", reason=reason, token=token)


def ring(workshop: Workshop, pk: int, user: User) -> bool:
    """Whether this page rings: the first that asks, of whoever started it; later on, anybody's."""
    now = timezone.now()
    try:
        found = _running(workshop, pk)
    except Refused:
        return False
    too_soon = found.ends_at if found.by_id == user.pk else found.ends_at + _OTHERS_AFTER
    if found.rung or now < too_soon:
        return False
    try:
        with transaction.atomic():
            _change(workshop, pk, user, "rung")
    except IntegrityError:
        return False
    return True


def follow(file: JobFile, unit: UnitFile, user: User, row: Row) -> None:
    """Timers that what was written starts or ends: how long a ring drops in, and oil that settles."""
    if row.step.entry not in ("warmth", "level"):
        return
    kind = TimerKind.COOLING if row.step.entry == "warmth" else TimerKind.SETTLING
    now = unit.progress.row(row.step.id, row.station)
    left = _wanted(now) if now else None
    if kind is TimerKind.SETTLING and left is not None and _mine(file, unit, kind):
        return
    for one in _mine(file, unit, kind):
        _change(file.job.workshop, one.pk, user, "stopped", reason="it went on")
    if left is not None and left >= 1:
        start(file, unit, user, kind=kind, seconds=int(left), words="", token=uuid4())


def _wanted(row: Row) -> float | None:
    """Seconds of the timer that this step needs now."""
    if row.step.entry == "warmth":
        found = warmed(row.at)
        return None if row.settled else found.left_s(timezone.now().timestamp())
    return settles(row.at)


def _mine(file: JobFile, unit: UnitFile, kind: str) -> list[Running]:
    return [
        one
        for one in running(file.job.workshop)
        if one.unit_id == unit.unit.pk and one.kind == kind
    ]


def _running(workshop: Workshop, pk: int) -> Running:
    found = next((one for one in running(workshop) if one.pk == pk), None)
    if found is None:
        get_object_or_404(Timer, workshop=workshop, pk=pk)
        raise Refused("That timer has been stopped already, or its job has ended.")
    return found


def _change(
    workshop: Workshop, pk: int, user: User, kind: str, *,
    seconds: int = 0, reason: str = "", token: UUID | None = None,
) -> None:  # fmt: skip
    token = token or uuid4()
    if TimerChange.objects.filter(timer_id=pk, token=token).exists():
        return
    TimerChange.objects.create(
        workshop=workshop,
        timer_id=pk,
        kind=kind,
        seconds=seconds,
        reason=reason,
        by=user,
        token=token,
    )
