"""Close, check, reopen, and the sheet."""

from collections.abc import Callable

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.template.loader import render_to_string
from django.utils import timezone
from django.views.decorators.http import require_POST

from zesty.bench.queries.jobfile import JobFile, member_job
from zesty.elements.answers import UNUSABLE, carry_out
from zesty.elements.refused import Refused
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES, CARD_ROLES
from zesty.records import actions, queries
from zesty.records.forms import ReopenForm
from zesty.records.models import SignOff
from zesty.records.printing import pdf


@roles(BENCH_ROLES)
def close(request: HttpRequest, job_id: int) -> HttpResponse:
    """What is proven and what is not; POST signs."""
    file = member_job(request.member, job_id)
    if request.method == "POST":
        return _do(request, file, lambda: actions.sign_off(file.job.pk, request.member))
    return _page(request, file)


@require_POST
@roles(CARD_ROLES)
def check(request: HttpRequest, job_id: int) -> HttpResponse:
    """A second person has checked it."""
    file = member_job(request.member, job_id)
    return _do(request, file, lambda: actions.check(file.job.pk, request.member))


@require_POST
@roles(CARD_ROLES)
def reopen(request: HttpRequest, job_id: int) -> HttpResponse:
    """A signed job is opened again."""
    file = member_job(request.member, job_id)
    form = ReopenForm(request.POST)
    if carry_out(form, actions.reopen_job, file.job.pk, request.member):
        return redirect("records:close", file.job.pk)
    return _page(request, file, form=form)


def _do(request: HttpRequest, file: JobFile, action: Callable[[], object]) -> HttpResponse:
    try:
        action()
    except Refused as refused:
        return _page(request, file, refusal=refused.sentence)
    return redirect("records:close", file.job.pk)


def _page(
    request: HttpRequest, file: JobFile, refusal: str = "", form: ReopenForm | None = None
) -> HttpResponse:
    is_open = file.job.closed_at is None
    context = {
        "page": queries.close_page(file),
        "refusal": refusal,
        "reopen_form": form or ReopenForm(),
        "may_sign": request.member.may(BENCH_ROLES) and is_open,
        "may_check": request.member.may(CARD_ROLES) and is_open,
        "may_reopen": request.member.may(CARD_ROLES) and not is_open,
    }
    status = UNUSABLE if refusal or form else 200
    return render(request, "records/close.html", context, status=status)


def sheet(request: HttpRequest, job_id: int) -> HttpResponse:
    """The sheet of the job as it stands: as it was signed, or a draft."""
    file = member_job(request.member, job_id)
    signed = SignOff.objects.filter(job=file.job).last() if file.job.closed_at else None
    if signed:
        return _pdf(file, signed.sheet_html)
    context = queries.sheet_context(file, request.member, timezone.now())
    return _pdf(file, render_to_string("records/sheet.html", {**context, "draft": True}))


def old_sheet(request: HttpRequest, job_id: int, sheet_id: int) -> HttpResponse:
    """One signed sheet of a job, also from before it was reopened."""
    file = member_job(request.member, job_id)
    signed = SignOff.objects.filter(job=file.job, pk=sheet_id).first()
    if signed is None:
        raise Http404
    return _pdf(file, signed.sheet_html)


def _pdf(file: JobFile, html: str) -> HttpResponse:
    answer = HttpResponse(pdf(html), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="job-{file.job.number}.pdf"'
    return answer
