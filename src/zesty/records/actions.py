"""Verbs of the records: signing off."""

from django.db import transaction
from django.template.loader import render_to_string
from django.utils import timezone

import wheelend
from wheelend.procedure.claims import missing, statement
from zesty.bench.actions import close, reopen
from zesty.bench.queries.jobfile import job_file, member_job
from zesty.elements.refused import Refused
from zesty.people.models import Membership
from zesty.records.models import Reopening, SecondCheck, SignOff
from zesty.records.queries import facts_json, facts_of, sheet_context, valid_check, workers


@transaction.atomic
def sign_off(job_id: int, member: Membership) -> SignOff:
    """Close a job on its facts, and keep its sheet as it is now."""
    at = timezone.now()
    job = job_file(member.workshop, job_id).job
    close(job, at)
    # Read again under the lock, so that what is signed is what is written.
    file = member_job(member, job_id)
    check = valid_check(file)
    if file.job.card_version.second_person and check and check.by == member.user:
        raise Refused("You checked this as the second person; another account signs it off.")
    facts = facts_of(file)
    lacking = missing(facts)
    if lacking:
        names = "; ".join(f"{claim.name.lower()}: {claim.fact}" for claim in lacking)
        raise Refused(f"Not ready to sign. {names}.")
    return SignOff.objects.create(
        job=job,
        by=member.user,
        role=member.role,
        at=at,
        core_version=wheelend.__version__,
        statement=statement(facts),
        facts=facts_json(facts),
        sheet_html=render_to_string("records/sheet.html", sheet_context(file, member, at)),
    )


@transaction.atomic
def check(job_id: int, member: Membership) -> SecondCheck:
    """A second person, who did none of the work, checks the setting."""
    file = job_file(member.workshop, job_id)
    if file.job.closed_at:
        raise Refused("This job is signed off.")
    if member.user_id in workers(file):
        raise Refused("You worked on this job: the second person must be another account.")
    if not file.trials:
        raise Refused("There is nothing to check yet.")
    return SecondCheck.objects.create(
        job=file.job, by=member.user, role=member.role, at=timezone.now()
    )


@transaction.atomic
def reopen_job(job_id: int, member: Membership, *, reason: str) -> Reopening:
    """Open a signed job again; its sheet stays as it was."""
    job = job_file(member.workshop, job_id).job
    reopen(job)
    return Reopening.objects.create(job=job, by=member.user, at=timezone.now(), reason=reason)
