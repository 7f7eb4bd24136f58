"""What is read on the dial: written, corrected, taken back."""

from uuid import UUID

from django.db import transaction

from zesty.bench.actions.holding import hold_open
from zesty.bench.models import (
    Job,
    Reading,
    ReadingKind,
    Trial,
)
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import User

READ_AGAIN = "read again after taking back"


@transaction.atomic
def read(
    job: Job, user: User, *, value: Typed, clock: str, push: str, trial: int, token: UUID
) -> Reading:
    """Write down one dial reading."""
    series = _current(job, trial)
    return _write(series, user, push, clock, token, value)


@transaction.atomic
def find(job: Job, user: User, *, kind: str, trial: int, token: UUID) -> Reading:
    """Write down that no reading is possible: bound, or free without play."""
    return _write(_current(job, trial), user, kind, "", token, None)


def _write(
    trial: Trial, user: User, kind: str, clock: str, token: UUID, value: Typed | None
) -> Reading:
    again = Reading.objects.filter(trial=trial, token=token).first()
    if again:
        return again
    tail = _tail(trial, kind, clock)
    if tail and tail.kind != ReadingKind.WITHDRAWN:
        raise Refused(
            f"{_place(tail)} has {tail} already, by {tail.by}. Tap it to correct it.", "value"
        )
    return Reading.objects.create(
        trial=trial,
        kind=kind,
        clock=clock,
        typed=value.text if value else "",
        value_mm=value.value if value else None,
        corrects=tail,
        reason=READ_AGAIN if tail else "",
        by=user,
        token=token,
    )


@transaction.atomic
def correct(job: Job, user: User, reading: Reading, *, value: Typed, reason: str) -> Reading:
    """Put another value in a reading's place; the old row stays."""
    hold_open(job)
    _still_stands(reading)
    return Reading.objects.create(
        trial=reading.trial,
        kind=reading.kind,
        clock=reading.clock,
        typed=value.text,
        value_mm=value.value,
        corrects=reading,
        reason=reason,
        by=user,
    )


@transaction.atomic
def take_back(job: Job, user: User, reading: Reading, *, reason: str) -> Reading:
    """Take a reading back; the row stays, and its place is free again."""
    hold_open(job)
    _still_stands(reading)
    return Reading.objects.create(
        trial=reading.trial,
        kind=ReadingKind.WITHDRAWN,
        clock=reading.clock,
        corrects=reading,
        reason=reason,
        by=user,
    )


def _current(job: Job, number: int) -> Trial:
    """The trial that is on the dial now, if it is the one the person meant."""
    hold_open(job)
    latest = job.trials.last()
    if latest is None:
        raise Refused("No pack is fitted yet: begin a trial first.")
    if latest.number != number:
        raise Refused(
            f"This was for trial {number}, but trial {latest.number} has begun meanwhile. "
            "Nothing was written.",
            "value",
        )
    return latest


def _tail(trial: Trial, kind: str, clock: str) -> Reading | None:
    """The latest row of a place: its root, or what corrected it last."""
    row = trial.readings.filter(kind=kind, clock=clock, corrects=None).select_related("by").first()
    while row:
        after = Reading.objects.filter(corrects=row).select_related("by").first()
        if after is None:
            return row
        row = after
    return None


def _still_stands(reading: Reading) -> None:
    after = Reading.objects.filter(corrects=reading).select_related("by").first()
    if after:
        raise Refused(f"{after.by} corrected this reading meanwhile, to {after}.", "value")


def _place(reading: Reading) -> str:
    if reading.kind in (ReadingKind.IN, ReadingKind.OUT):
        return f"{reading.get_kind_display().capitalize()} at {reading.clock} o'clock"
    return f"Trial {reading.trial.number}"
