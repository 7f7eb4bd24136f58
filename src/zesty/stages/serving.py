"""One way of serving every stage: load, write, judge, draw. A POST loads its job once."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.forms import Form
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.urls import reverse

from wheelend.methods import line_at
from wheelend.procedure.slips import Question
from zesty.bench.actions.log import Held
from zesty.bench.forms import form_for
from zesty.bench.queries.cautions import unseen
from zesty.bench.queries.figures import where_it_stands
from zesty.bench.queries.frame import Page, page_of
from zesty.bench.queries.jobfile import JobFile, UnitFile, judging, member_job
from zesty.bench.queries.unjudged import bare_log
from zesty.elements.answers import UNUSABLE
from zesty.elements.refused import Refused, Unjudged
from zesty.people.models import BENCH_ROLES, CARD_ROLES
from zesty.stages.registry import scene_of
from zesty.stages.timers import timers_shown


@dataclass(frozen=True)
class Asking:
    """A question about what was typed: the field it stands in, the answers, all else as it was sent,
    and where each answer would stand."""

    field: str
    held: dict[str, str]
    options: tuple[dict[str, str], ...]
    where: str = ""


_TYPED = ("value", "pack", "text", "reason")
"""Fields in which a person types."""

Act = Callable[[JobFile, UnitFile], JobFile]


def show(
    request: HttpRequest, file: JobFile, unit: UnitFile, stage: str, **more: Any
) -> HttpResponse:
    """The page of a stage, or its inside where htmx asks; the bare log where a rule fails on it."""
    try:
        with judging():
            return _stage_page(request, file, unit, stage, more)
    except Unjudged as unjudged:
        return _bare_page(request, file, unit, stage, str(unjudged))


def _bare_page(
    request: HttpRequest, file: JobFile, unit: UnitFile, stage: str, why: str
) -> HttpResponse:
    may_write = request.member.may(BENCH_ROLES) and file.job.is_open
    log = bare_log(file, unit, stage, why)
    inside = request.htmx and not request.htmx.history_restore_request
    template = "bench/unjudged.html" if inside else "bench/unjudged_page.html"
    return render(request, template, {"log": log, "may_write": may_write, "token": uuid4()})


def _stage_page(
    request: HttpRequest, file: JobFile, unit: UnitFile, stage: str, more: dict[str, Any]
) -> HttpResponse:
    if stage not in {one.key for one in unit.card.arrangement.stages}:
        raise Http404
    form: Form | None = more.pop("form", None)
    at = more.pop("at", None) or _asked_for(request)
    place = more.pop("place", "") or request.GET.get("place", "")[:20]
    page = page_of(file, unit, stage, scene_of(file, unit, stage, place), at=at, place=place)
    may_write = request.member.may(BENCH_ROLES) and file.job.is_open
    if form is None and page.row and may_write:
        form = form_for(file, unit, page.row, initial=_initial(page))
    context = {
        "page": page, "form": form, "may_write": may_write, "panel": "", "question": None,
        "refusal": "", "reason": "", "handover": "", "asked": {},
        "cautions": unseen(file, page.cautions),
        "may_reopen": request.member.may(CARD_ROLES),
        **timers_shown(request, file.job.pk, _timer_url(file, unit, stage)), **more,
    }  # fmt: skip
    refused = bool(more.get("question") or more.get("refusal") or (form and form.errors))
    inside = request.htmx and not request.htmx.history_restore_request
    template = "bench/stage.html" if inside else "bench/page.html"
    return render(request, template, context, status=UNUSABLE if refused else 200)


def _timer_url(file: JobFile, unit: UnitFile, stage: str) -> str:
    if not file.job.is_open:
        return ""
    return reverse("stages:start_timer", args=[file.job.pk, unit.index, stage])


def _asked_for(request: HttpRequest) -> tuple[str, str] | None:
    step = request.GET.get("step", "")
    return (step, request.GET.get("station", "")) if step else None


def _initial(page: Page) -> dict[str, Any]:
    """What a form starts from besides its place: the plan's pack, the identical pack."""
    more = page.scene.more
    if more.get("identical") is not None:
        return {"pack": more["identical"]}
    plan = more.get("plan")
    if page.row and page.row.step.entry == "pack" and plan:
        return {"pack": plan[0].typed}
    if more.get("slot"):
        return {"place": more["slot"].place, "round": more["slot"].round}
    if page.listed and page.listed.due:
        return {"place": page.listed.due.key}
    return {"from_here": True} if more.get("first") else {}


def carry_out(
    request: HttpRequest, job_id: int, index: int, stage: str, act: Act, **more: Any
) -> HttpResponse:
    """Load the job and hold it, do one thing, and show where it stands then.

    What is refused, or held with a question, comes back on the same page with what was typed.
    """
    kept = more.pop("kept", {})
    file: JobFile | None = None
    try:
        with transaction.atomic():
            file = member_job(request.member, job_id, hold=True)
            done = act(file, file.unit(index))
            _still_judged(done, index)
    except (Refused, Held) as stopped:
        if file is None:
            raise
        trouble = _trouble(stopped)
        return _again(request, file, file.unit(index), stage, trouble, {**more, **kept})
    return go_on(request, done, index, stage)


def _trouble(stopped: Refused | Held) -> dict[str, Any]:
    if isinstance(stopped, Held):
        return {"question": stopped.asked}
    return {"refusal": stopped.sentence}


def _still_judged(file: JobFile, index: int) -> None:
    """What can't be shown can't be written: it is judged before it is kept."""
    try:
        with judging():
            unit = file.unit(index)
            due = unit.progress.due
            _ = line_at(unit.bench, unit.judgement, due) if due else unit.claims
    except Unjudged as unjudged:
        raise Refused(
            f"Nothing was written: with this no page could be shown. {unjudged}"
        ) from None


def _again(
    request: HttpRequest, file: JobFile, unit: UnitFile, stage: str,
    trouble: dict[str, Any], more: dict[str, Any],
) -> HttpResponse:  # fmt: skip
    form = more.pop("form", None)
    if "refusal" in trouble and not any(request.POST.get(name) for name in _TYPED):
        # Nothing typed would be lost: better the step that is due now than the one of an old page.
        return show(request, file, unit, stage, **trouble, **more)
    at = (form.row.step.id, form.row.station) if form is not None and hasattr(form, "row") else None
    if form is not None and form.data:
        more["place"] = form.data.get("place", "")[:20]
    if form is not None and "question" in trouble:
        trouble["asking"] = _asking(request, trouble["question"])
    if form is not None and "refusal" in trouble:
        form.add_error(None, trouble["refusal"])
        form.aim_at_now()
    return show(request, file, unit, stage, form=form, at=at, **trouble, **more)


def _asking(request: HttpRequest, question: Question) -> Asking:
    """The answers to a question about a slip: what it may mean, and what was typed."""
    field = "pack" if "pack" in request.POST else "value"
    typed = request.POST.get(field, "")
    held = {
        name: str(value)
        for name, value in request.POST.items()
        if name not in (field, "sure", "csrfmiddlewaretoken")
    }
    meant = [question.typed]
    values = [*question.options, *meant]
    if field == "pack":
        values = [typed.replace(question.typed.split()[0], one.split()[0], 1) for one in values]
    options = tuple(
        {"value": value, "words": words}
        for value, words in zip(values, [*question.options, *meant], strict=True)
    )
    return Asking(field, held, options, where_it_stands(question))


def go_on(request: HttpRequest, file: JobFile, index: int, stage: str) -> HttpResponse:
    """Show the stage where the work goes on: the same one while something is due in it."""
    unit = file.unit(index)
    stage = next_stage(file, unit, stage)
    to = reverse("stages:page", args=[file.job.pk, index, stage])
    if not request.htmx:
        return HttpResponseRedirect(to)
    request.GET = request.GET.__class__("", mutable=True)
    answer = show(request, file, unit, stage)
    answer["HX-Push-Url"] = to
    return answer


def next_stage(file: JobFile, unit: UnitFile, stage: str = "") -> str:
    """Where the work on a unit goes on; the first stage where no rule can tell."""
    stages = unit.card.arrangement.stages
    try:
        with judging():
            progress = unit.progress
            if stage not in {one.key for one in stages}:
                return progress.current_stage
            if progress.due_in(stage) is None and file.job.is_open and progress.due:
                return progress.due.step.stage
            return stage
    except Unjudged:
        return stages[0].key
