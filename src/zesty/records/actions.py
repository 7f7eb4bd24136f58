"""Verbs of the records: signing off."""

from django.db import transaction
from django.template.loader import render_to_string
from django.utils import timezone

import wheelend
from wheelend.procedure.claims import missing, statement
from zesty.bench.actions import close
from zesty.bench.queries.jobfile import job_file
from zesty.elements.refused import Refused
from zesty.people.models import Membership
from zesty.records.models import SignOff
from zesty.records.queries import facts_json, facts_of, sheet_context


@transaction.atomic
def sign_off(job_id: int, member: Membership) -> SignOff:
    """Close a job on its facts, and keep its sheet as it is now."""
    at = timezone.now()
    job = job_file(member.workshop, job_id).job
    close(job, at)
    # Read again under the lock, so that what is signed is what is written.
    file = job_file(member.workshop, job_id)
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
