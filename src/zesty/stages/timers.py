"""Timers: started at a stage, shown wherever work is done, lengthened or stopped for a reason."""

from collections.abc import Callable
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import Resolver404, resolve, reverse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from zesty.bench.actions import timers
from zesty.bench.forms.timers import LengthenForm, StopForm, TimerForm
from zesty.bench.models import Timer
from zesty.bench.queries.jobfile import member_job
from zesty.bench.queries.timers import shown
from zesty.elements.answers import UNUSABLE, posts
from zesty.elements.refused import Refused
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES

_TYPED = ("kind", "minutes", "words", "reason")


def timers_shown(
    request: HttpRequest, job_id: int = 0, start_at: str = "", **more: Any
) -> dict[str, Any]:
    """What the list of running timers needs; `start_at` is where another of the job is started."""
    return {
        "start_timer": start_at,
        "timer_kinds": TimerForm.base_fields["kind"].choices,
        "timers": shown(request.member.workshop, timezone.now(), job_id),
        "timer_job": job_id,
        "may_time": request.member.may(BENCH_ROLES),
        "timer_token": uuid4(),
        "ringing": 0,
        "wrong": "",
        "wrong_at": None,
        "typed": dict.fromkeys(_TYPED, ""),
        **more,
    }


@require_GET
def running(request: HttpRequest) -> HttpResponse:
    """The running timers, for a page that asks seldom."""
    return _list(request)


def _list(request: HttpRequest, status: int = 200, **more: Any) -> HttpResponse:
    job_id, start_at = _asked_from(request)
    context = timers_shown(request, job_id, start_at, **more)
    return render(request, "bench/timers.html", context, status=status)


def _asked_from(request: HttpRequest) -> tuple[int, str]:
    """The stage whose page asks: its job, and where it starts a timer. Nothing on other pages."""
    said = request.POST.get("at") or request.GET.get("at", "")
    try:
        found = resolve(said)
    except Resolver404:
        return 0, ""
    if found.view_name != "stages:start_timer":
        return 0, ""
    return found.kwargs["job_id"], said


@posts(lambda job_id, index, stage: reverse("stages:page", args=[job_id, index, stage]))
@roles(BENCH_ROLES)
def start(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """Start a timer of this wheel end."""
    member_job(request.member, job_id).unit(index)
    form = TimerForm(request.POST)

    def act() -> None:
        file = member_job(request.member, job_id, hold=True)
        said = form.cleaned_data
        timers.start(
            file, file.unit(index), request.user, kind=said["kind"],
            seconds=max(1, round(said["minutes"].value)), words=said["words"], token=said["token"],
        )  # fmt: skip

    return _done(request, form, act, reverse("stages:page", args=[job_id, index, stage]), 0)


@require_POST
@roles(BENCH_ROLES)
def lengthen(request: HttpRequest, timer_id: int) -> HttpResponse:
    """Give a timer more time."""
    get_object_or_404(Timer, workshop=request.member.workshop, pk=timer_id)
    form = LengthenForm(request.POST)

    def act() -> None:
        said = form.cleaned_data
        timers.lengthen(
            request.member.workshop, timer_id, request.user, reason=said["reason"],
            seconds=max(1, round(said["minutes"].value)), token=said["token"],
        )  # fmt: skip

    return _done(request, form, act, reverse("yard:yard"), timer_id)


@require_POST
@roles(BENCH_ROLES)
def stop(request: HttpRequest, timer_id: int) -> HttpResponse:
    """Stop a timer."""
    get_object_or_404(Timer, workshop=request.member.workshop, pk=timer_id)
    form = StopForm(request.POST)

    def act() -> None:
        said = form.cleaned_data
        timers.stop(
            request.member.workshop,
            timer_id,
            request.user,
            reason=said["reason"],
            token=said["token"],
        )

    return _done(request, form, act, reverse("yard:yard"), timer_id)


@require_POST
@roles(BENCH_ROLES)
def ring(request: HttpRequest, timer_id: int) -> HttpResponse:
    """Its time is over: the list, and whether it rings here."""
    rings = timers.ring(request.member.workshop, timer_id, request.user)
    return _list(request, ringing=timer_id if rings else 0)


def _done(
    request: HttpRequest, form: Form, act: Callable[[], None], to: str, timer_id: int
) -> HttpResponse:
    """Do it and show the list; what is refused comes back in it, with what was typed."""
    wrong = next((str(errors[0]) for errors in form.errors.values()), "")
    if not wrong:
        try:
            with transaction.atomic():
                act()
        except Refused as refused:
            wrong = refused.sentence
    if not request.htmx and not wrong:
        return redirect(to)
    if not wrong:
        return _list(request)
    typed = {name: request.POST.get(name, "") for name in _TYPED}
    return _list(request, UNUSABLE, wrong=wrong, wrong_at=timer_id, typed=typed)
