"""Packs on the shaft: trials begun, and set aside."""

from collections.abc import Iterable, Sequence
from uuid import UUID, uuid4

from django.db import transaction

from zesty.bench.actions.holding import hold_open
from zesty.bench.models import (
    Job,
    Trial,
    TrialMark,
    TrialShim,
)
from zesty.cards.queries import family
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import User
from zesty.stores.actions import swap
from zesty.stores.models import Gauge


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
    hold_open(job)
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
def set_aside(job: Job, user: User, *, trial: int, aside: bool, reason: str) -> TrialMark:
    """Say that a trial does not count, or counts again, and why.

    The pack of the latest trial stays on the shaft, so a new series of the same pack begins.
    """
    hold_open(job)
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
