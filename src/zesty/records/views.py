"""The sheets."""

from django.http import Http404, HttpRequest, HttpResponse
from django.template.loader import render_to_string
from django.utils import timezone
from django.views.decorators.http import require_GET

from zesty.bench.queries.jobfile import JobFile, judging, member_job
from zesty.records import queries
from zesty.records.actions import printed
from zesty.records.models import SignOff
from zesty.records.printing import pdf


@require_GET
def sheet(request: HttpRequest, job_id: int) -> HttpResponse:
    """The sheet of the job as it stands: as it was signed, or a draft."""
    file = member_job(request.member, job_id)
    if file.job.state == "signed":
        signed = SignOff.objects.filter(job=file.job).last()
        if signed:
            return _pdf(file, printed(signed))
    with judging(f"The sheet of {file.job} can't be made: "):
        statement = queries.closing_of(file).statement
        context = queries.sheet_context(file, request.member, timezone.now(), statement)
        html = render_to_string("records/sheet.html", {**context, "draft": True})
    return _pdf(file, pdf(html))


@require_GET
def old_sheet(request: HttpRequest, job_id: int, sheet_id: int) -> HttpResponse:
    """One signed sheet of a job, also from before it was reopened."""
    file = member_job(request.member, job_id)
    signed = SignOff.objects.filter(job=file.job, pk=sheet_id).first()
    if signed is None:
        raise Http404
    return _pdf(file, printed(signed))


def _pdf(file: JobFile, content: bytes) -> HttpResponse:
    answer = HttpResponse(content, content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="job-{file.job.number}.pdf"'
    return answer
