"""Verbs of the records: signing off."""

from django.db import transaction
from django.template.loader import render_to_string
from django.utils import timezone

import wheelend
from wheelend.card.lookagain import look_again
from zesty.bench.actions.jobs import end
from zesty.bench.actions.log import hold_open
from zesty.bench.models import Purpose, State
from zesty.bench.queries.jobfile import JobFile
from zesty.elements.refused import Refused
from zesty.people.models import CARD_ROLES, Membership
from zesty.records.models import Recheck, SheetPdf, SignOff, Statement
from zesty.records.printing import pdf
from zesty.records.queries import closing_of, facts_json, sheet_context


@transaction.atomic
def sign_off(
    file: JobFile,
    member: Membership,
    *,
    reason: str = "",
    handover: str = "",
    saw: str | None = None,
) -> SignOff:
    """Close a job on its facts, and keep its sheet as it is now. `file` was loaded and held.

    `saw` is the digest of what was looked at; None: what stands now. What is open can only be signed
    as not set, by a lead, with a reason.
    """
    hold_open(file)
    if saw is not None and saw != file.digest:
        raise Refused(
            "Something was written since this page was shown: look at it, then sign again."
        )
    _not_the_second(file, member)
    closing = closing_of(file)
    statement = closing.statement
    if statement == "not_set":
        _only_as_not_set(closing.blocking[0].name, closing.blocking[0].fact, member, reason)
    at = timezone.now()
    context = sheet_context(file, member, at, statement, reason)
    if handover:
        context["handover"] = handover
    signed = SignOff.objects.create(
        workshop=member.workshop,
        job=file.job,
        number=SignOff.objects.filter(job=file.job).count() + 1,
        by=member.user,
        by_name=str(member.user),
        role=member.role,
        at=at,
        core_version=wheelend.__version__,
        statement=statement,
        reason=reason,
        saw=file.digest,
        facts=facts_json(closing) | ({"handover": handover} if handover else {}),
        sheet_html=render_to_string("records/sheet.html", context),
    )
    _plan_rechecks(signed, file)
    end(file.job, at, State.SIGNED)
    return signed


def _plan_rechecks(signed: SignOff, file: JobFile) -> None:
    """Make the rechecks of a job that was signed, and close those that it did or made needless."""
    ends = [place.wheel_end for place in file.places]
    Recheck.objects.filter(wheel_end__in=ends, done_at=None).update(
        done_by=file.job, done_at=signed.at
    )
    if file.job.purpose == Purpose.RECHECK or signed.statement == Statement.NOT_SET:
        return
    counter = next((row.typed for row in reversed(file.entries) if row.step == "usage"), "")
    Recheck.objects.bulk_create(
        Recheck(
            workshop_id=file.job.workshop_id, sign_off=signed, wheel_end=place.wheel_end,
            planned_on=signed.at.date(), usage=counter, every_days=again.days,
            every_usage=again.usage if counter else "",
        )
        for unit in file.units
        if (again := look_again(unit.card))
        for place in unit.places
    )  # fmt: skip


def _only_as_not_set(name: str, fact: str, member: Membership, reason: str) -> None:
    if not member.may(CARD_ROLES):
        raise Refused(
            f"Not ready to sign. {name}: {fact}. A lead can sign it as not set.", "reason"
        )
    if not reason:
        raise Refused(f"{name}: {fact}. It can be signed as not set, with a reason.", "reason")


def _not_the_second(file: JobFile, member: Membership) -> None:
    for unit in file.units:
        for row in unit.progress.of_kind("second"):
            if row.state == "done" and any(e.by == member.user.pk for e in row.at.entries):
                raise Refused(
                    "You checked this as the second person; another account signs it off."
                )


def printed(signed: SignOff) -> bytes:
    """A signed sheet as PDF: made once, then kept."""
    kept = SheetPdf.objects.filter(sign_off=signed).first()
    if kept is None:
        kept, _ = SheetPdf.objects.get_or_create(
            sign_off=signed, defaults={"content": pdf(signed.sheet_html)}
        )
    return bytes(kept.content)
