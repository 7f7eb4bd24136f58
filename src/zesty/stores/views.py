"""The shim tray and the gauges."""

from collections.abc import Callable

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone

from zesty.elements.answers import UNUSABLE, carry_out
from zesty.people.guard import roles
from zesty.people.models import CARD_ROLES, STORES_ROLES
from zesty.stores import actions, queries
from zesty.stores.forms import (
    CalibratedForm,
    ConfirmForm,
    CountForm,
    GaugeForm,
    MeterForm,
    ShimForm,
    WrenchForm,
)


@roles(STORES_ROLES)
def tray(request: HttpRequest) -> HttpResponse:
    """The tray; POST adds shims."""
    return _enter(request, "shim_form", ShimForm(request.POST or None), actions.add_shims)


@roles(STORES_ROLES)
def count(request: HttpRequest) -> HttpResponse:
    """Correct a count after counting."""
    return _enter(request, "count_form", CountForm(request.POST or None), actions.count_shims)


@roles(STORES_ROLES)
def gauges(request: HttpRequest) -> HttpResponse:
    """Add a gauge."""
    form = GaugeForm(request.POST or None)
    return _enter(request, "gauge_form", form, actions.add_gauge, **_who(request))


@roles(STORES_ROLES)
def wrenches(request: HttpRequest) -> HttpResponse:
    """Add a torque wrench."""
    form = WrenchForm(request.POST or None)
    return _enter(request, "wrench_form", form, actions.add_wrench, **_who(request))


@roles(STORES_ROLES)
def meters(request: HttpRequest) -> HttpResponse:
    """Add a torque meter, a scale, a thermometer or a feeler gauge."""
    form = MeterForm(request.POST or None)
    return _enter(request, "meter_form", form, actions.add_meter, **_who(request))


@roles(STORES_ROLES)
def calibrated(request: HttpRequest) -> HttpResponse:
    """An instrument is back from calibration: a lead writes it, a technician reports it."""
    kind = queries.kind_of(request.member.workshop, request.POST.get("instrument_id", ""))
    form = CalibratedForm(request.POST or None, kind=kind)
    return _enter(request, "calibrated_form", form, actions.calibrate, **_who(request))


@roles(CARD_ROLES)
def confirmed(request: HttpRequest) -> HttpResponse:
    """A lead saw the papers of what was reported."""
    form = ConfirmForm(request.POST or None)
    return _enter(request, "confirm_form", form, actions.confirm, by=request.user)


def _who(request: HttpRequest) -> dict[str, object]:
    """Who writes papers, and whether a lead must still see them."""
    return {"by": request.user, "reported": not request.member.may(CARD_ROLES)}


def _enter(
    request: HttpRequest, name: str, form: Form, action: Callable[..., object], **more: object
) -> HttpResponse:
    """Carry one form of the page out; the page again where it is not sent, or wrong."""
    if request.method == "POST" and carry_out(form, action, request.member.workshop, **more):
        return redirect("stores:tray")
    return _page(request, **{name: form if request.method == "POST" else None})


def _page(
    request: HttpRequest,
    shim_form: Form | None = None,
    gauge_form: Form | None = None,
    count_form: Form | None = None,
    wrench_form: Form | None = None,
    meter_form: Form | None = None,
    calibrated_form: Form | None = None,
    confirm_form: Form | None = None,
) -> HttpResponse:
    workshop, today = request.member.workshop, timezone.localdate()
    context = {
        "rows": queries.tray_rows(workshop),
        "shim_form": shim_form or ShimForm(),
        "gauge_form": gauge_form or GaugeForm(),
        "count_form": count_form,
        "instruments": queries.instrument_rows(workshop, today),
        "wrench_form": wrench_form or WrenchForm(initial={"calibrated_on": today}),
        "meter_form": meter_form or MeterForm(initial={"calibrated_on": today}),
        "calibrated_form": calibrated_form or CalibratedForm(initial={"on": today}),
        "confirm_form": confirm_form,
        "may_confirm": request.member.may(CARD_ROLES),
        "today": today,
        "may_edit": request.member.may(STORES_ROLES),
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "stores/tray.html", context, status=status)
