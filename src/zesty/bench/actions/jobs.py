"""A job as a whole: opened on wheel ends, its card changed, abandoned, closed, opened again."""

from collections.abc import Sequence
from datetime import datetime
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Max
from django.utils import timezone

from wheelend.arrangements import Arrangement, arrangement
from wheelend.arrangements.model import EVERY_CLAMP
from zesty.bench.actions.log import add, hold_open
from zesty.bench.models import Entry, Job, State, Unit, UnitPlace
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.cards.actions import fit_card
from zesty.cards.models import SpecCard
from zesty.elements.refused import Refused
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop


@transaction.atomic
def open_job(
    workshop: Workshop,
    user: User,
    wheel_ends: Sequence[WheelEnd],
    *,
    card: SpecCard,
    token: UUID,
    purpose: str = "service",
) -> Job:
    """Start a job on wheel ends, each pinned to the newest version of the card.

    An arrangement that takes both ends of an axle as one opens the axle, from either wheel.
    """
    hold_numbers(workshop)
    again = Job.objects.filter(workshop=workshop, token=token).first()
    if again:
        return again
    family = arrangement(card.arrangement)
    units = _units(family, wheel_ends)
    _check_free([end for ends in units for end in ends])
    highest = Job.objects.filter(workshop=workshop).aggregate(Max("number"))["number__max"] or 0
    job = Job.objects.create(
        workshop=workshop, number=highest + 1, vehicle=wheel_ends[0].vehicle, purpose=purpose,
        opened_by=user, opened_by_name=str(user), token=token,
    )  # fmt: skip
    for ends in units:
        add_unit(job, family, ends, card)
    return job


def hold_numbers(workshop: Workshop) -> None:
    """Keep two starts from taking the same number; whoever only writes in the workshop goes on."""
    Workshop.objects.select_for_update(no_key=True).get(pk=workshop.pk)


def _units(family: Arrangement, wheel_ends: Sequence[WheelEnd]) -> list[list[WheelEnd]]:
    if family.unit == "wheel_end":
        return [[end] for end in dict.fromkeys(wheel_ends)]
    axles = dict.fromkeys((end.vehicle_id, end.axle) for end in wheel_ends)
    return [
        list(WheelEnd.objects.filter(vehicle_id=vehicle, axle=axle).order_by("side"))
        for vehicle, axle in axles
    ]


def _check_free(wheel_ends: Sequence[WheelEnd]) -> None:
    standing = (
        UnitPlace.objects.select_related("unit__job", "wheel_end")
        .filter(wheel_end__in=wheel_ends, is_open=True)
        .first()
    )
    if standing:
        raise Refused(f"Job {standing.unit.job.number} is open on {standing.wheel_end} already.")


def add_unit(job: Job, family: Arrangement, ends: Sequence[WheelEnd], card: SpecCard) -> Unit:
    """One more unit of a job, standing on these wheel ends."""
    version = card.versions.first()
    name = str(ends[0]) if len(ends) == 1 else f"axle {ends[0].axle}"
    order = (job.units.aggregate(Max("order"))["order__max"] or 0) + 1
    unit = Unit.objects.create(
        workshop_id=job.workshop_id, job=job, order=order, name=name, card_version=version
    )
    stations = family.stations if len(ends) > 1 else ("main",)
    for end in ends:
        station = end.side if end.side in stations else stations[0]
        try:
            with transaction.atomic():
                UnitPlace.objects.create(
                    workshop_id=job.workshop_id, unit=unit, wheel_end=end, station=station
                )
        except IntegrityError:
            raise Refused(f"Another job was opened on {end} meanwhile.") from None
        fit_card(end, card)
    return unit


@transaction.atomic
def join(file: JobFile, wheel_end: WheelEnd, *, card: SpecCard) -> Unit:
    """Take another wheel end of the vehicle into the job."""
    hold_open(file)
    if wheel_end.vehicle_id != file.job.vehicle_id:
        raise Refused("That wheel end is on another vehicle.")
    family = arrangement(card.arrangement)
    (ends,) = _units(family, [wheel_end])
    _check_free(ends)
    return add_unit(file.job, family, ends, card)


@transaction.atomic
def change_card(file: JobFile, unit: UnitFile, user: User, *, card: SpecCard, reason: str) -> Entry:
    """Another card for a unit, for a reason; what was written stays, judged by the new one."""
    hold_open(file)
    version = card.versions.first()
    if version.pk == unit.unit.card_version_id:
        raise Refused("That is the card that it has.", "card")
    family = arrangement(card.arrangement)
    if family.unit != unit.card.arrangement.unit:
        raise Refused(
            f"“{card.name}” covers {_covers(family)}, and this job was opened on "
            f"{_covers(unit.card.arrangement)}; abandon it and open another.",
            "card",
        )
    before = [row for row in file.entries if row.unit_id == unit.unit.pk and row.step == "card"]
    entry = add(
        file, user, unit=unit.unit, step="card", kind="card", typed=str(version), reason=reason,
        corrects=before[-1] if before else None,
    )  # fmt: skip
    Unit.objects.filter(pk=unit.unit.pk).update(card_version=version)
    for place in unit.places:
        fit_card(place.wheel_end, card)
    return entry


def _covers(family: Arrangement) -> str:
    return "a whole axle" if family.unit == "axle" else "one wheel end"


@transaction.atomic
def abandon(file: JobFile, *, reason: str) -> None:
    """End a job without a sheet, for a reason; what was written stays, and the wheel ends are free."""
    hold_open(file)
    end(file.job, timezone.now(), State.ABANDONED, reason)


def end(job: Job, at: datetime, state: str, reason: str = "") -> None:
    """Close a job; from then on nothing is written in it."""
    Job.objects.filter(pk=job.pk).update(state=state, state_reason=reason, ended_at=at)
    UnitPlace.objects.filter(unit__job=job).update(is_open=False)
    job.state, job.state_reason, job.ended_at = state, reason, at


TOUCHED = {
    "setting": "the nut, the shims or a bearing",
    "bolts": "wheel bolts or plate bolts only",
    "paper": "nothing: only what was written",
}
"""What may have been touched since a job was signed."""


@transaction.atomic
def reopen(file: JobFile, user: User, *, reason: str, touched: str) -> JobFile:
    """Open a job again. What was touched needs new evidence before it can be claimed.

    Where nut, shims or a part moved, the closing of that clamp has ended.
    """
    if file.job.is_open:
        raise Refused(f"Job {file.job.number} is open already.")
    _check_free([place.wheel_end for place in file.places])
    times = len([row for row in file.entries if row.kind == "touched" and row.unit_id is None])
    rows = [
        add(
            file, user, step="reopen", kind="touched", round=times + 1, typed=touched, reason=reason
        )
    ]
    for unit in file.units:
        if touched == "setting":
            rows += _opened(file, unit, user, reason)
        elif touched == "bolts":
            rows += _bolts_undone(file, unit, user, reason)
    Job.objects.filter(pk=file.job.pk).update(state=State.OPEN, ended_at=None)
    try:
        with transaction.atomic():
            UnitPlace.objects.filter(unit__job=file.job).update(is_open=True)
    except IntegrityError:
        raise Refused(f"Another job was opened there meanwhile; {file.job} stays closed.") from None
    file.job.state, file.job.ended_at = State.OPEN, None
    return file.with_entries(rows)


def _opened(file: JobFile, unit: UnitFile, user: User, reason: str) -> list[Entry]:
    """The opening of the setting's clamp: the work goes on with the same pack unless it is changed.

    Where only taking it apart opens it, it was apart again.
    """
    clamp = unit.card.arrangement.setting_clamp.key
    openings = [step for step in unit.progress.steps if step.opens]
    chosen = next((s for s in openings if s.clamp == clamp and s.entry == "opening"), None)
    step = chosen or next((s for s in openings if s.clamp == EVERY_CLAMP), None)
    if step is None:
        return []
    row = unit.progress.row(step.id, "")
    said = {"kind": "pick", "typed": "change"} if chosen else {"kind": "done"}
    return [
        add(
            file, user, unit=unit.unit, clamp=step.clamp, closing=unit.progress.closing_of(clamp),
            step=step.id, reason=f"reopened: {reason}", round=row.at.next_round if row else 1, **said,
        )
    ]  # fmt: skip


def _bolts_undone(file: JobFile, unit: UnitFile, user: User, reason: str) -> list[Entry]:
    """Bolt rows of the wheel's rings no longer count: each was touched."""
    rows = []
    for row in unit.progress.of_kind("bolts"):
        if row.step.closes:
            continue
        for entry in row.at.entries:
            old = file.entry(entry.id)
            rows.append(
                add(
                    file, user, unit=unit.unit, clamp=old.clamp, closing=old.closing,
                    round=old.round, step=old.step, station=old.station, place=old.place,
                    kind="withdrawn", corrects=old, reason=f"reopened: {reason}",
                )
            )  # fmt: skip
    return rows
