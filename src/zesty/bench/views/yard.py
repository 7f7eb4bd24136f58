"""The yard, a vehicle, and the start of a job."""

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from zesty.bench import actions
from zesty.bench.forms import StartForm
from zesty.bench.queries import yard as queries
from zesty.bench.queries.jobfile import member_job
from zesty.bench.queries.stages import current_stage, stage_url
from zesty.cards.queries import cards_of
from zesty.elements.answers import UNUSABLE, carry_out
from zesty.fleet.actions import add_vehicle, log_usage
from zesty.fleet.forms import UsageForm, VehicleForm
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES, FLEET_ROLES


def yard(request: HttpRequest) -> HttpResponse:
    """Every vehicle from above, with open work on its wheel ends."""
    vehicles = queries.yard(request.member.workshop)
    may_add = request.member.may(FLEET_ROLES)
    return render(request, "bench/yard.html", {"vehicles": vehicles, "may_add": may_add})


@roles(FLEET_ROLES)
def new_vehicle(request: HttpRequest) -> HttpResponse:
    """Add a vehicle to the yard."""
    form = VehicleForm(request.POST or None)
    if request.method == "POST" and carry_out(form, add_vehicle, request.member.workshop):
        return redirect("bench:yard")
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "bench/new_vehicle.html", {"form": form}, status=status)


@roles(FLEET_ROLES)
def vehicle(request: HttpRequest, vehicle_id: int) -> HttpResponse:
    """One vehicle; POST writes its counter down."""
    found = queries.vehicle_of(request.member.workshop, vehicle_id)
    form = UsageForm(request.POST or None)
    if request.method == "POST" and carry_out(form, log_usage, found, request.user):
        return redirect("bench:vehicle", found.pk)
    context = {
        "vehicle": found,
        "drawing": queries.drawing_of(found),
        "rows": queries.wheel_end_rows(found),
        "form": form,
        "may_log": request.member.may(FLEET_ROLES),
        "may_start": request.member.may(BENCH_ROLES),
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "bench/vehicle.html", context, status=status)


@roles(BENCH_ROLES)
def start(request: HttpRequest, wheel_end_id: int) -> HttpResponse:
    """Start a job on a wheel end."""
    wheel_end = queries.wheel_end_of(request.member.workshop, wheel_end_id)
    standing = wheel_end.jobs.filter(closed_at=None).first()
    if standing:
        return redirect("bench:job", standing.pk)
    cards = cards_of(request.member.workshop)
    fitted = getattr(wheel_end, "fitment", None)
    form = StartForm(
        request.POST or None, cards=cards, initial={"card": fitted.card_id if fitted else None}
    )
    workshop = request.member.workshop
    if request.method == "POST" and carry_out(
        form, actions.open_job, workshop, request.user, wheel_end
    ):
        return redirect("bench:job", wheel_end.jobs.first().pk)
    return _start_page(request, form, wheel_end=wheel_end, has_cards=cards.exists())


def _start_page(request: HttpRequest, form: Form, **context: object) -> HttpResponse:
    status = UNUSABLE if request.method == "POST" else 200
    may_start = request.member.may(BENCH_ROLES)
    context |= {"form": form, "may_start": may_start}
    return render(request, "bench/start.html", context, status=status)


def job(request: HttpRequest, job_id: int) -> HttpResponse:
    """On to the stage where a job stands."""
    file = member_job(request.member, job_id)
    return redirect(stage_url(file, current_stage(file, file.assess())))
