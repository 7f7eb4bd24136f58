"""The setting stage: the page, and one view for each thing that is entered there."""

from typing import Any

from django.forms import Form
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_POST

from wheelend.quantity import unit_of
from zesty.bench import actions
from zesty.bench.forms import (
    AsideForm,
    ChoiceForm,
    CorrectForm,
    FindingForm,
    ReadingForm,
    TrialForm,
)
from zesty.bench.models import DialPlace, Reading, Trial
from zesty.bench.queries.jobfile import JobFile, member_job, standing
from zesty.bench.queries.set_page import fitted_packs, set_page
from zesty.cards.queries import trial_torque
from zesty.elements.answers import after, carry_out
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES
from zesty.stores.models import Gauge

Forms = dict[str, Form]
PANELS = ("entry", "pack", "choice", "correct", "aside")


def setting(request: HttpRequest, job_id: int) -> HttpResponse:
    """The page; `?panel=` opens the pack, a choice or a correction in place of the entry."""
    file = member_job(request.member, job_id)
    return _page(request, file, request.GET.get("panel", ""), {})


@require_POST
@roles(BENCH_ROLES)
def reading(request: HttpRequest, job_id: int) -> HttpResponse:
    """One dial reading."""
    file = member_job(request.member, job_id)
    form = ReadingForm(request.POST, unit=_unit(file))
    return _answer(request, file, "entry", {"entry_form": form}, form, actions.read)


@require_POST
@roles(BENCH_ROLES)
def finding(request: HttpRequest, job_id: int) -> HttpResponse:
    """Bound, or free without play."""
    file = member_job(request.member, job_id)
    form = FindingForm(request.POST)
    return _answer(request, file, "entry", {"finding_form": form}, form, actions.find)


@require_POST
@roles(BENCH_ROLES)
def trial(request: HttpRequest, job_id: int) -> HttpResponse:
    """Another pack, or another dial set-up."""
    file = member_job(request.member, job_id)
    form = TrialForm(request.POST, gauges=_gauges(request))
    return _answer(request, file, "pack", {"trial_form": form}, form, actions.begin_trial)


@require_POST
@roles(BENCH_ROLES)
def choice(request: HttpRequest, job_id: int) -> HttpResponse:
    """Another choice than the card's, with its reason."""
    file = member_job(request.member, job_id)
    form = ChoiceForm(request.POST)
    return _answer(request, file, "choice", {"choice_form": form}, form, actions.choose)


@require_POST
@roles(BENCH_ROLES)
def aside(request: HttpRequest, job_id: int) -> HttpResponse:
    """A trial does not count, or counts again."""
    file = member_job(request.member, job_id)
    form = AsideForm(request.POST)
    return _answer(request, file, "aside", {"aside_form": form}, form, actions.set_aside)


@require_POST
@roles(BENCH_ROLES)
def correct(request: HttpRequest, job_id: int, reading_id: int) -> HttpResponse:
    """Another value in a reading's place."""
    file = member_job(request.member, job_id)
    old = _reading(file, reading_id)
    form = CorrectForm(request.POST, unit=unit_of(old.trial.gauge.resolution))
    forms: Forms = {"correct_form": form}
    return _answer(request, file, "correct", forms, form, actions.correct, old, correcting=old)


@require_POST
@roles(BENCH_ROLES)
def take_back(request: HttpRequest, job_id: int, reading_id: int) -> HttpResponse:
    """Undo the last entry."""
    file = member_job(request.member, job_id)
    old = _reading(file, reading_id)
    form = Form(request.POST)
    return _answer(
        request, file, "entry", {"finding_form": form}, form, actions.take_back, old,
        reason="taken back at the bench",
    )  # fmt: skip


def _answer(
    request: HttpRequest,
    file: JobFile,
    panel: str,
    forms: Forms,
    form: Form,
    action: Any,
    *arguments: object,
    correcting: Reading | None = None,
    **named: object,
) -> HttpResponse:
    done = carry_out(form, action, file.job, request.user, *arguments, **named)

    def page() -> HttpResponse:
        fresh = member_job(request.member, file.job.pk)
        if done:
            return _page(request, fresh, "", {})
        return _page(request, fresh, panel, forms, correcting)

    return after(request, done, page, reverse("bench:set", args=[file.job.pk]))


def _page(
    request: HttpRequest,
    file: JobFile,
    panel: str,
    forms: Forms,
    correcting: Reading | None = None,
) -> HttpResponse:
    page = set_page(file)
    may_write = request.member.may(BENCH_ROLES) and file.job.closed_at is None
    if panel == "correct" and correcting is None:
        correcting = _reading(file, _number(request.GET.get("reading")))
    if page.first or panel not in PANELS:
        panel = "pack" if page.first else "entry"
    context = {
        "page": page,
        "panel": panel,
        "may_write": may_write,
        "correcting": correcting,
        "gauges": _gauges(request),
        **(_fresh_forms(request, file, page, correcting) | forms if may_write else {}),
    }
    template = "bench/set/stage.html" if request.htmx else "bench/set.html"
    return render(request, template, context)


def _fresh_forms(
    request: HttpRequest, file: JobFile, page: Any, correcting: Reading | None
) -> Forms:
    trial = file.trial
    number = trial.number if trial else 0
    entry = {"clock": page.due_clock, "push": page.due_push, "trial": number}
    correction = CorrectForm(
        initial={"value": correcting.typed if correcting else "", "reason": "misread"},
        unit=page.unit,
    )
    return {
        "entry_form": ReadingForm(initial=entry, unit=page.unit),
        "finding_form": FindingForm(initial={"trial": number}),
        "trial_form": TrialForm(initial=_set_up(file), gauges=_gauges(request)),
        "choice_form": ChoiceForm(initial={"what": "aim", "value": file.aim}),
        "aside_form": AsideForm(initial=_to_mark(request)),
        "correct_form": correction,
    }


def _to_mark(request: HttpRequest) -> dict[str, Any]:
    """The trial that the panel was opened for."""
    return {
        "trial": _number(request.GET.get("trial")),
        "aside": request.GET.get("aside") != "0",
    }


def _set_up(file: JobFile) -> dict[str, Any]:
    """The next trial is set up like the last one; the first as the card says."""
    trial = file.trial
    if trial is None:
        last_used = Trial.objects.filter(job__workshop=file.job.workshop).order_by("pk").last()
        return {
            "gauge": last_used.gauge_id if last_used else None,
            "dial_place": DialPlace.AXIS,
            "nut_torque": trial_torque(file.job.card_version),
            "as_found": True,
            "after": 0,
        }
    left, right = fitted_packs(file)
    return {
        "pack": left,
        "pack_right": right,
        "gauge": trial.gauge_id,
        "dial_place": trial.dial_place,
        "turned": trial.turned,
        "nut_torque": trial.nut_torque,
        "after": trial.number,
    }


def _gauges(request: HttpRequest) -> Any:
    return Gauge.objects.filter(workshop=request.member.workshop).order_by("resolution_mm", "name")


def _unit(file: JobFile) -> str:
    return unit_of(file.trial.gauge.resolution) if file.trial else "mm"


def _number(text: str | None) -> int:
    return int(text) if text and text.isdigit() else 0


def _reading(file: JobFile, reading_id: int) -> Reading:
    """A standing reading of any trial of the job."""
    for one in file.trials:
        for row in standing(one):
            if row.pk == reading_id:
                return row
    raise Http404
