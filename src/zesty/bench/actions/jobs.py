"""A job as a whole: opened, taken in, choices, closed, reopened."""

from datetime import datetime

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from zesty.bench.actions.holding import hold_open
from zesty.bench.models import (
    ChoiceChange,
    ChoiceName,
    Job,
    TakeIn,
)
from zesty.cards.actions import fit_card
from zesty.cards.models import SpecCard
from zesty.cards.queries import lock_card
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.actions import log_usage
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop


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
    hold_open(job)
    entry = None
    if usage:
        day = timezone.localdate()
        entry = log_usage(job.wheel_end.vehicle, user, usage=usage, on=day)
    return TakeIn.objects.create(
        job=job, by=user, complaint=complaint, usage=entry, made_safe=made_safe
    )


@transaction.atomic
def choose(job: Job, user: User, *, what: str, value: str, reason: str) -> ChoiceChange:
    """Choose otherwise than the card does, for a reason."""
    hold_open(job)
    if what == ChoiceName.LOCK_POLICY and value == "torque_window":
        card = lock_card(job.card_version)
        if card.torque_limits is None or card.torque_per_deg is None:
            raise Refused("The card gives no torque window; a lead can add one.", "value")
    return ChoiceChange.objects.create(job=job, by=user, what=what, value=value, reason=reason)


def close(job: Job, at: datetime) -> None:
    """Close a job; from then on nothing is written in it."""
    held = hold_open(job)
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
