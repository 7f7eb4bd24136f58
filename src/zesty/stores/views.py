"""The shim tray and the gauges."""

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone

from zesty.elements.answers import UNUSABLE, carry_out
from zesty.people.guard import roles
from zesty.people.models import STORES_ROLES
from zesty.stores import actions, queries
from zesty.stores.forms import CalibratedForm, CountForm, GaugeForm, ShimForm, WrenchForm


@roles(STORES_ROLES)
def tray(request: HttpRequest) -> HttpResponse:
    """The tray; POST adds shims."""
    form = ShimForm(request.POST or None)
    if request.method == "POST" and carry_out(form, actions.add_shims, request.member.workshop):
        return redirect("stores:tray")
    return _page(request, shim_form=form)


@roles(STORES_ROLES)
def count(request: HttpRequest) -> HttpResponse:
    """Correct a count after counting."""
    form = CountForm(request.POST or None)
    if request.method == "POST" and carry_out(form, actions.count_shims, request.member.workshop):
        return redirect("stores:tray")
    return _page(request, count_form=form)


@roles(STORES_ROLES)
def gauges(request: HttpRequest) -> HttpResponse:
    """Add a gauge."""
    form = GaugeForm(request.POST or None)
    if request.method == "POST" and carry_out(form, actions.add_gauge, request.member.workshop):
        return redirect("stores:tray")
    return _page(request, gauge_form=form)


@roles(STORES_ROLES)
def wrenches(request: HttpRequest) -> HttpResponse:
    """Add a torque wrench."""
    form = WrenchForm(request.POST or None)
    if request.method == "POST" and carry_out(form, actions.add_wrench, request.member.workshop):
        return redirect("stores:tray")
    return _page(request, wrench_form=form)


@roles(STORES_ROLES)
def calibrated(request: HttpRequest) -> HttpResponse:
    """A wrench is back from calibration."""
    form = CalibratedForm(request.POST or None)
    if request.method == "POST" and carry_out(form, actions.calibrate, request.member.workshop):
        return redirect("stores:tray")
    return _page(request, calibrated_form=form)


def _page(
    request: HttpRequest,
    shim_form: Form | None = None,
    gauge_form: Form | None = None,
    count_form: Form | None = None,
    wrench_form: Form | None = None,
    calibrated_form: Form | None = None,
) -> HttpResponse:
    workshop, today = request.member.workshop, timezone.localdate()
    context = {
        "rows": queries.tray_rows(workshop),
        "gauges": queries.gauges_of(workshop),
        "shim_form": shim_form or ShimForm(),
        "gauge_form": gauge_form or GaugeForm(),
        "count_form": count_form,
        "wrenches": queries.wrench_rows(workshop, today),
        "wrench_form": wrench_form or WrenchForm(initial={"calibrated_on": today}),
        "calibrated_form": calibrated_form,
        "today": today,
        "may_edit": request.member.may(STORES_ROLES),
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "stores/tray.html", context, status=status)
