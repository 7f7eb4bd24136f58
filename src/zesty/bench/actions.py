"""Verbs of the bench. Each is one transaction; a job is worked on by one of them at a time."""

from collections.abc import Iterable, Sequence
from datetime import datetime
from fractions import Fraction
from uuid import UUID, uuid4

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from wheelend.wrench import wrench_setting
from zesty.bench.models import (
    BoltTick,
    ChoiceChange,
    ChoiceName,
    Job,
    LockRecord,
    LockTry,
    Reading,
    ReadingKind,
    SeatMove,
    TakeIn,
    Trial,
    TrialMark,
    TrialShim,
)
from zesty.cards.actions import fit_card
from zesty.cards.models import SpecCard
from zesty.cards.queries import bolt_laps, family, lock_card
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.actions import log_usage
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop
from zesty.stores.actions import count_cycle, swap
from zesty.stores.models import Gauge, Wrench
from zesty.stores.queries import core_wrench

READ_AGAIN = "read again after taking back"


@transaction.atomic
def open_job(workshop: Workshop, user: User, wheel_end: WheelEnd, *, card: SpecCard) -> Job:
    """Start a job on a wheel end, pinned to the newest version of its card."""
    # The workshop's row keeps two starts from taking the same number.
    Workshop.objects.select_for_update().get(pk=workshop.pk)
    standing = wheel_end.jobs.filter(closed_at=None).first()
    if standing:
        raise Refused(f"Job {standing.number} is open on this wheel end already.")
    version = card.versions.first()
    fit_card(wheel_end, card)
    highest = Job.objects.filter(workshop=workshop).aggregate(Max("number"))["number__max"] or 0
    return Job.objects.create(
        workshop=workshop,
        number=highest + 1,
        wheel_end=wheel_end,
        card_version=version,
        opened_by=user,
    )


@transaction.atomic
def take_in(
    job: Job, user: User, *, complaint: str, usage: Typed | None, made_safe: bool
) -> TakeIn:
    """Write down the complaint, the counter, and that it was made safe."""
    _hold_open(job)
    entry = None
    if usage:
        day = timezone.localdate()
        entry = log_usage(job.wheel_end.vehicle, user, usage=usage, on=day)
    return TakeIn.objects.create(
        job=job, by=user, complaint=complaint, usage=entry, made_safe=made_safe
    )


@transaction.atomic
def begin_trial(
    job: Job,
    user: User,
    *,
    pack: Sequence[Typed],
    gauge: Gauge,
    dial_place: str,
    turned: bool,
    nut_torque: Typed,
    as_found: bool,
    after: int,
    token: UUID,
    pack_right: Sequence[Typed] = (),
    closed: bool = False,
) -> Trial:
    """A pack is fitted under one dial set-up; a new series of readings begins."""
    _hold_open(job)
    again = Trial.objects.filter(job=job, token=token).first()
    if again:
        return again
    latest = job.trials.last()
    if (latest.number if latest else 0) != after:
        raise Refused(f"Trial {latest.number} has begun meanwhile; look at it first.", "pack")
    two_sided = family(job.card_version).sides == 2
    if two_sided and not closed:
        raise Refused("Close and bolt both sides before the first reading, then tick it.", "closed")
    sides = {"left": pack, "right": pack_right if two_sided else ()}
    for name, shims in sides.items():
        if len(shims) > job.card_version.max_shims:
            most = job.card_version.max_shims
            raise Refused(
                f"{len(shims)} shims are more than the {most} that the card allows.",
                "pack" if name == "left" else "pack_right",
            )
    _move_shims(job, latest, [*sides["left"], *sides["right"]], as_found=as_found)
    trial = Trial.objects.create(
        job=job,
        number=after + 1,
        gauge=gauge,
        dial_place=dial_place,
        turned=turned,
        nut_torque=nut_torque.text,
        nut_torque_N_m=nut_torque.value,
        by=user,
        token=token,
    )
    TrialShim.objects.bulk_create(
        TrialShim(trial=trial, side=side, typed=shim.text, thickness_mm=shim.value)
        for side, shims in sides.items()
        for shim in shims
    )
    return trial


def _move_shims(job: Job, latest: Trial | None, pack: Iterable[Typed], *, as_found: bool) -> None:
    """Keep the tray true: it holds what is loose, and nothing that is on a shaft."""
    if latest is None and as_found:
        return
    fitted = [Typed(shim.typed, shim.thickness_mm) for shim in latest.shims.all()] if latest else []
    put_in: list[Typed] = []
    for shim in pack:
        same = next((old for old in fitted if old.value == shim.value), None)
        if same:
            fitted.remove(same)
        else:
            put_in.append(shim)
    swap(job.workshop, put_in=put_in, taken_out=fitted)


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
    _hold_open(job)
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
    _hold_open(job)
    _still_stands(reading)
    return Reading.objects.create(
        trial=reading.trial,
        kind=ReadingKind.WITHDRAWN,
        clock=reading.clock,
        corrects=reading,
        reason=reason,
        by=user,
    )


@transaction.atomic
def set_aside(job: Job, user: User, *, trial: int, aside: bool, reason: str) -> TrialMark:
    """Say that a trial does not count, or counts again, and why.

    The pack of the latest trial stays on the shaft, so a new series of the same pack begins.
    """
    _hold_open(job)
    marked = job.trials.filter(number=trial).first()
    if marked is None:
        raise Refused(f"There is no trial {trial} in this job.")
    mark = TrialMark.objects.create(trial=marked, by=user, aside=aside, reason=reason)
    if aside and marked == job.trials.last():
        _again(marked, user)
    return mark


def _again(trial: Trial, user: User) -> None:
    packs: dict[str, list[Typed]] = {"left": [], "right": []}
    for shim in trial.shims.all():
        packs[shim.side].append(Typed(shim.typed, shim.thickness_mm))
    begin_trial(
        trial.job,
        user,
        pack=packs["left"],
        pack_right=packs["right"],
        closed=True,
        gauge=trial.gauge,
        dial_place=trial.dial_place,
        turned=trial.turned,
        nut_torque=Typed(trial.nut_torque, trial.nut_torque_N_m),
        as_found=False,
        after=trial.number,
        token=uuid4(),
    )


@transaction.atomic
def choose(job: Job, user: User, *, what: str, value: str, reason: str) -> ChoiceChange:
    """Choose otherwise than the card does, for a reason."""
    _hold_open(job)
    if what == ChoiceName.LOCK_POLICY and value == "torque_window":
        card = lock_card(job.card_version)
        if card.torque_limits is None or card.torque_per_deg is None:
            raise Refused("The card gives no torque window; a lead can add one.", "value")
    return ChoiceChange.objects.create(job=job, by=user, what=what, value=value, reason=reason)


@transaction.atomic
def seat(job: Job, user: User, *, move: Typed, token: UUID) -> SeatMove:
    """The nut was torqued again while the hub was turned; how far it moved."""
    _hold_open(job)
    again = SeatMove.objects.filter(job=job, token=token).first()
    return again or SeatMove.objects.create(
        job=job, by=user, typed=move.text, deg=move.value, token=token
    )


@transaction.atomic
def try_place(job: Job, user: User, *, torque: Typed, to_next: Typed, token: UUID) -> LockTry:
    """The nut at its torque, and the angle on to the next lock place."""
    _hold_open(job)
    again = LockTry.objects.filter(job=job, token=token).first()
    if again:
        return again
    per_turn = lock_card(job.card_version).per_turn
    if per_turn is None:
        raise Refused("The card says nothing of lock places; a lead can add them.")
    step = Fraction(360, per_turn)
    if to_next.value >= step:
        raise Refused(
            f"{to_next.text} is not below the step of {float(step):g} deg between places.",
            "to_next",
        )
    return LockTry.objects.create(
        job=job,
        by=user,
        to_next=to_next.text,
        torque=torque.text,
        torque_N_m=torque.value,
        token=token,
    )


@transaction.atomic
def tick_bolt(job: Job, user: User, *, lap: int, bolt: int) -> BoltTick:
    """One bolt is drawn down; bolts go in the star order, and a pass is finished before the next."""
    _hold_open(job)
    version = job.card_version
    laps = bolt_laps(version)
    done = {(tick.lap, tick.bolt) for tick in job.bolt_ticks.all()}
    if (lap, bolt) in done:
        return job.bolt_ticks.get(lap=lap, bolt=bolt)
    due = next(
        ((n, b) for n, one in enumerate(laps, 1) for b in one.order if (n, b) not in done), None
    )
    if due != (lap, bolt):
        said = f"bolt {due[1]} of pass {due[0]} is next" if due else "all bolts are done"
        raise Refused(f"Not bolt {bolt} of pass {lap}: {said}.")
    return BoltTick.objects.create(job=job, by=user, lap=lap, bolt=bolt)


@transaction.atomic
def record_lock(
    job: Job,
    user: User,
    *,
    torque: Typed,
    lock: str,
    done: bool,
    note: str,
    token: UUID,
    wrench: Wrench | None = None,
    lengthened: bool = False,
) -> LockRecord:
    """Write down the torque reached at the lock place, with which wrench, and the lock."""
    _hold_open(job)
    again = LockRecord.objects.filter(job=job, token=token).first()
    if again:
        return again
    if not job.trials.exists():
        raise Refused("Nothing is set yet: no pack was fitted and read.")
    flags: list[str] = []
    if wrench:
        fit = core_wrench(wrench, timezone.localdate(), lengthened=lengthened)
        flags = list(wrench_setting(float(torque.value), fit).flags)
        count_cycle(wrench)
    return LockRecord.objects.create(
        job=job,
        by=user,
        torque=torque.text,
        torque_N_m=torque.value,
        lock=lock,
        done=done,
        wrench=wrench,
        wrench_flags=flags,
        note=note,
        token=token,
    )


def close(job: Job, at: datetime) -> None:
    """Close a job; from then on nothing is written in it."""
    held = _hold_open(job)
    held.closed_at = job.closed_at = at
    held.save(update_fields=["closed_at"])


def reopen(job: Job) -> None:
    """Open a closed job again; refused while other work is open on its wheel end."""
    held = Job.objects.select_for_update().get(pk=job.pk)
    other = Job.objects.filter(wheel_end=held.wheel_end, closed_at=None).first()
    if held.closed_at is None:
        raise Refused(f"Job {held.number} is open already.")
    if other:
        raise Refused(f"Job {other.number} is open on this wheel end; close it first.")
    held.closed_at = job.closed_at = None
    held.save(update_fields=["closed_at"])


def _hold_open(job: Job) -> Job:
    held = Job.objects.select_for_update().get(pk=job.pk)
    if held.closed_at:
        raise Refused(f"Job {held.number} was signed off; nothing more can be written in it.")
    return held


def _current(job: Job, number: int) -> Trial:
    """The trial that is on the dial now, if it is the one the person meant."""
    _hold_open(job)
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
