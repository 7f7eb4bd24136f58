"""Take in, and torque and lock."""

from typing import Any

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone

from wheelend.procedure.cautions import ALWAYS
from zesty.bench import actions
from zesty.bench.forms import LockForm, PlaceForm, SeatForm, TakeInForm, TickForm
from zesty.bench.queries.jobfile import JobFile, member_job
from zesty.bench.queries.lock_page import lock_page
from zesty.bench.queries.set_page import section_view
from zesty.bench.queries.stages import head
from zesty.drawings.section import section
from zesty.elements.answers import UNUSABLE, carry_out
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES
from zesty.stores.models import Wrench


def _may_write(request: HttpRequest, file: JobFile) -> bool:
    return request.member.may(BENCH_ROLES) and file.job.closed_at is None


@roles(BENCH_ROLES)
def take_in(request: HttpRequest, job_id: int) -> HttpResponse:
    """What the driver says; made safe."""
    file = member_job(request.member, job_id)
    log = file.job.wheel_end.vehicle.usage_log.first()
    latest = file.take_in
    initial = {"complaint": latest.complaint, "made_safe": latest.made_safe} if latest else {}
    form = TakeInForm(request.POST or None, initial=initial, unit=log.unit if log else "km")
    if request.method == "POST" and carry_out(form, actions.take_in, file.job, request.user):
        done = form.cleaned_data["made_safe"]
        return redirect("bench:set" if done else "bench:take_in", file.job.pk)
    found = file.assess()
    view = section_view(file, found)
    context = {
        "head": head(file, "take_in", found),
        "form": form,
        "section": section(view),
        "section_narrow": section(view, width=358, narrow=True),
        "last_usage": log,
        "always": ALWAYS,
        "may_write": _may_write(request, file),
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "bench/take_in.html", context, status=status)


@roles(BENCH_ROLES)
def lock(request: HttpRequest, job_id: int) -> HttpResponse:
    """Torque reached and lock."""
    file = member_job(request.member, job_id)
    form = LockForm(request.POST or None, initial=_lock_initial(file), wrenches=_wrenches(request))
    return _lock_answer(request, file, {"form": form}, form, actions.record_lock)


@roles(BENCH_ROLES)
def seat(request: HttpRequest, job_id: int) -> HttpResponse:
    """One repeat of seating."""
    file = member_job(request.member, job_id)
    form = SeatForm(request.POST or None)
    return _lock_answer(request, file, {"seat_form": form}, form, actions.seat)


@roles(BENCH_ROLES)
def place(request: HttpRequest, job_id: int) -> HttpResponse:
    """The angle on to the next lock place."""
    file = member_job(request.member, job_id)
    form = PlaceForm(request.POST or None)
    return _lock_answer(request, file, {"place_form": form}, form, actions.try_place)


@roles(BENCH_ROLES)
def tick(request: HttpRequest, job_id: int) -> HttpResponse:
    """One wheel bolt drawn down."""
    file = member_job(request.member, job_id)
    form = TickForm(request.POST or None)
    return _lock_answer(request, file, {"tick_form": form}, form, actions.tick_bolt)


def _lock_answer(
    request: HttpRequest, file: JobFile, forms: dict[str, Form], form: Form, action: Any
) -> HttpResponse:
    if request.method == "POST" and carry_out(form, action, file.job, request.user):
        return redirect("bench:lock", file.job.pk)
    wrenches = _wrenches(request)
    context = {
        "page": lock_page(file, list(wrenches), timezone.localdate()),
        "form": LockForm(initial=_lock_initial(file), wrenches=wrenches),
        "seat_form": SeatForm(),
        "place_form": PlaceForm(initial={"torque": file.job.card_version.nut_torque}),
        "tick_form": TickForm(),
        "may_write": _may_write(request, file),
        **forms,
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "bench/lock.html", context, status=status)


def _lock_initial(file: JobFile) -> dict[str, Any]:
    wrench = file.lock.wrench_id if file.lock else None
    return {"lock": file.job.card_version.lock, "wrench": wrench}


def _wrenches(request: HttpRequest) -> Any:
    return Wrench.objects.filter(workshop=request.member.workshop)
