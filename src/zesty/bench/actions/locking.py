"""The nut: seated, brought to its place, locked; bolts drawn down."""

from fractions import Fraction
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from wheelend.wrench import wrench_setting
from zesty.bench.actions.holding import hold_open
from zesty.bench.models import (
    BoltTick,
    Job,
    LockRecord,
    LockTry,
    SeatMove,
)
from zesty.cards.queries import bolt_laps, lock_card
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import User
from zesty.stores.actions import count_cycle
from zesty.stores.models import Wrench
from zesty.stores.queries import core_wrench


@transaction.atomic
def seat(job: Job, user: User, *, move: Typed, token: UUID) -> SeatMove:
    """The nut was torqued again while the hub was turned; how far it moved."""
    hold_open(job)
    again = SeatMove.objects.filter(job=job, token=token).first()
    return again or SeatMove.objects.create(
        job=job, by=user, typed=move.text, deg=move.value, token=token
    )


@transaction.atomic
def try_place(job: Job, user: User, *, torque: Typed, to_next: Typed, token: UUID) -> LockTry:
    """The nut at its torque, and the angle on to the next lock place."""
    hold_open(job)
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
    hold_open(job)
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
    hold_open(job)
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
