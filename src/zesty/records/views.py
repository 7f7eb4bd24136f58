"""Close, and the sheet."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.template.loader import render_to_string
from django.utils import timezone

from zesty.bench.queries.jobfile import job_file
from zesty.elements.answers import UNUSABLE
from zesty.elements.refused import Refused
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES
from zesty.records import actions, queries
from zesty.records.models import SignOff
from zesty.records.printing import pdf


@roles(BENCH_ROLES)
def close(request: HttpRequest, job_id: int) -> HttpResponse:
    """What is proven and what is not; POST signs."""
    file = job_file(request.member.workshop, job_id)
    refusal = ""
    if request.method == "POST":
        try:
            actions.sign_off(file.job.pk, request.member)
            return redirect("records:close", file.job.pk)
        except Refused as refused:
            refusal = refused.sentence
    context = {
        "page": queries.close_page(file),
        "refusal": refusal,
        "may_sign": request.member.may(BENCH_ROLES) and file.job.closed_at is None,
    }
    return render(request, "records/close.html", context, status=UNUSABLE if refusal else 200)


def sheet(request: HttpRequest, job_id: int) -> HttpResponse:
    """The sheet: as it was signed, or as a draft."""
    file = job_file(request.member.workshop, job_id)
    signed = SignOff.objects.filter(job=file.job).first()
    if signed:
        html = signed.sheet_html
    else:
        context = queries.sheet_context(file, request.member, timezone.now())
        html = render_to_string("records/sheet.html", {**context, "draft": True})
    answer = HttpResponse(pdf(html), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="job-{file.job.number}.pdf"'
    return answer
