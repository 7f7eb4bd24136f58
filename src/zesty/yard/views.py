"""The yard, a vehicle, and the start of a job."""

from uuid import uuid4

from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse

from wheelend.arrangements import arrangement
from zesty.bench.actions.jobs import open_job
from zesty.bench.models import Purpose
from zesty.cards.queries import cards_of
from zesty.elements.answers import UNUSABLE, carry_out, posts
from zesty.elements.refused import Refused
from zesty.fleet.actions import add_vehicle, log_usage
from zesty.fleet.forms import LifeEventForm, LifePartForm, UsageForm, VehicleForm
from zesty.fleet.life import add_life_part, shown_parts, write_event
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES, FLEET_ROLES
from zesty.records import rechecks
from zesty.stages.timers import timers_shown
from zesty.yard import queries
from zesty.yard.forms import StartForm

_LONGEST_SEARCH = 60


def yard(request: HttpRequest) -> HttpResponse:
    """Vehicles with open work in front, the others behind, a page at a time."""
    page = queries.yard(
        request.member.workshop,
        search=request.GET.get("find", "").replace("\0", "").strip()[:_LONGEST_SEARCH],
        show=request.GET.get("show", "") if request.GET.get("show") in ("open", "due") else "",
        work=_number(request.GET.get("work")),
        rest=_number(request.GET.get("rest")),
    )
    more = timers_shown(request)
    return render(
        request,
        "yard/yard.html",
        {"page": page, "may_add": request.member.may(FLEET_ROLES), **more},
    )


def _number(text: str | None) -> int:
    return int(text) if text and text.isascii() and text.isdigit() and len(text) < 6 else 1


@roles(FLEET_ROLES)
def new_vehicle(request: HttpRequest) -> HttpResponse:
    """Add a vehicle to the yard."""
    form = VehicleForm(request.POST or None)
    if request.method == "POST" and carry_out(form, add_vehicle, request.member.workshop):
        return redirect("yard:yard")
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "yard/new_vehicle.html", {"form": form}, status=status)


@roles(FLEET_ROLES)
def vehicle(request: HttpRequest, vehicle_id: int) -> HttpResponse:
    """One vehicle; POST writes its counter down."""
    found = queries.vehicle_of(request.member.workshop, vehicle_id)
    form = UsageForm(request.POST or None)
    if request.method == "POST" and carry_out(form, log_usage, found, request.user):
        return redirect("yard:vehicle", found.pk)
    context = {
        "vehicle": found,
        "drawing": queries.drawing_of(found),
        "rows": queries.wheel_end_rows(found),
        "rechecks": rechecks.open_rechecks(request.member.workshop, found.wheel_ends.all()),
        "ended": queries.ended_jobs(found, _number(request.GET.get("page"))),
        "form": form,
        "may_log": request.member.may(FLEET_ROLES),
        "may_start": request.member.may(BENCH_ROLES),
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "yard/vehicle.html", context, status=status)


@roles(BENCH_ROLES)
def parts(request: HttpRequest) -> HttpResponse:
    """Parts with a limited life; POST adds one."""
    form = LifePartForm(request.POST or None)
    if request.method == "POST" and carry_out(form, add_life_part, request.member.workshop):
        return redirect("yard:parts")
    return _parts_page(request, form, None, UNUSABLE if request.method == "POST" else 200)


@posts(lambda: reverse("yard:parts"))
@roles(BENCH_ROLES)
def part_event(request: HttpRequest) -> HttpResponse:
    """A part is fitted, taken off or checked for cracks."""
    workshop = request.member.workshop
    form = LifeEventForm(request.POST, workshop=workshop)
    if carry_out(form, write_event, workshop, request.user):
        return redirect("yard:parts")
    return _parts_page(request, None, form, UNUSABLE)


def _parts_page(
    request: HttpRequest, form: LifePartForm | None, event: LifeEventForm | None, status: int
) -> HttpResponse:
    workshop = request.member.workshop
    context = {
        "shown": shown_parts(workshop),
        "form": form or LifePartForm(),
        "event": event or LifeEventForm(workshop=workshop),
        "may_write": request.member.may(BENCH_ROLES),
    }
    return render(request, "yard/parts.html", context, status=status)


@posts(lambda vehicle_id, **_: reverse("yard:vehicle", args=[vehicle_id]))
@roles(BENCH_ROLES)
def start_recheck(request: HttpRequest, vehicle_id: int, recheck_id: int) -> HttpResponse:
    """The short job of looking again: read, compare, wheel fasteners."""
    workshop = request.member.workshop
    found = rechecks.open_recheck(workshop, vehicle_id, recheck_id)
    standing = queries.open_job_on(found.wheel_end)
    if standing:
        return redirect("stages:job", standing.pk)
    card = found.wheel_end.fitment.card
    job = open_job(
        workshop, request.user, [found.wheel_end], card=card, token=uuid4(), purpose=Purpose.RECHECK
    )
    return redirect("stages:job", job.pk)


@roles(BENCH_ROLES)
def start(request: HttpRequest, wheel_end_id: int) -> HttpResponse:
    """Start a job on a wheel end, and on the other of its axle where that is wanted."""
    workshop = request.member.workshop
    wheel_end = queries.wheel_end_of(workshop, wheel_end_id)
    standing = queries.open_job_on(wheel_end)
    if standing:
        return redirect("stages:job", standing.pk)
    cards = cards_of(workshop)
    fitted = getattr(wheel_end, "fitment", None)
    form = StartForm(
        request.POST or None, cards=cards, initial={"card": fitted.card_id if fitted else None}
    )
    others = queries.others_of_axle(wheel_end)
    alike = queries.alike_of_vehicle(wheel_end)
    if request.method == "POST" and form.is_valid():
        said = form.cleaned_data
        more = {"all": others, "every": alike}.get(said["ends"], [])
        ends = [wheel_end, *more]
        try:
            job = open_job(workshop, request.user, ends, card=said["card"], token=said["token"])
            return redirect("stages:job", job.pk)
        except Refused as refused:
            form.add_error(None, refused.sentence)
    whole_axle = bool(fitted and arrangement(fitted.card.arrangement).unit == "axle")
    context = {
        "wheel_end": wheel_end,
        "form": form,
        "others": [] if whole_axle else others,
        "whole_axle": whole_axle,
        "alike": alike if len(alike) > len(others) else [],
        "drawing": queries.drawing_of(queries.vehicle_of(workshop, wheel_end.vehicle_id)),
        "has_cards": cards.exists(),
        "may_start": request.member.may(BENCH_ROLES),
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "yard/start.html", context, status=status)
