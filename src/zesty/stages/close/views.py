"""Signing off."""

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from zesty.bench.queries.frame import stage_url
from zesty.bench.queries.jobfile import member_job
from zesty.elements.refused import Refused
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES
from zesty.records.actions import sign_off
from zesty.stages.serving import show

_LONGEST = 200
_LONGEST_NOTE = 1000


@require_POST
@roles(BENCH_ROLES)
def sign(request: HttpRequest, job_id: int) -> HttpResponse:
    """Sign a job off as what its claims allow."""
    reason = " ".join(request.POST.get("reason", "").split())[:_LONGEST]
    handover = request.POST.get("handover", "").strip()[:_LONGEST_NOTE]
    refusal = ""
    with transaction.atomic():
        file = member_job(request.member, job_id, hold=True)
        try:
            with transaction.atomic():
                sign_off(file, request.member, reason=reason, handover=handover)
        except Refused as refused:
            refusal = refused.sentence
    unit = file.units[0]
    stage = unit.card.arrangement.stages[-1].key
    if refusal:
        return show(request, file, unit, stage, refusal=refusal, reason=reason)
    return redirect(stage_url(file, unit, stage))
