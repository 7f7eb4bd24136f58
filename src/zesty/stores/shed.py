"""The shed: what presses, warms, chills and greases here, and the lubricants on its shelf."""

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse

from zesty.elements.answers import UNUSABLE, carry_out, posts
from zesty.people.guard import roles
from zesty.people.models import STORES_ROLES
from zesty.stores import actions
from zesty.stores.forms import EquipmentForm, GoneForm, LubricantForm
from zesty.stores.models import Equipment, Lubricant


@roles(STORES_ROLES)
def shed(request: HttpRequest) -> HttpResponse:
    """The shed; POST adds a machine."""
    form = EquipmentForm(request.POST or None)
    if request.method == "POST" and carry_out(form, actions.add_equipment, request.member.workshop):
        return redirect("stores:shed")
    return _page(request, equipment=form if request.method == "POST" else None)


@posts(lambda: reverse("stores:shed"))
@roles(STORES_ROLES)
def lubricants(request: HttpRequest) -> HttpResponse:
    """Add a lubricant, or say anew what is left."""
    form = LubricantForm(request.POST)
    if carry_out(form, actions.add_lubricant, request.member.workshop):
        return redirect("stores:shed")
    return _page(request, lubricant=form)


@posts(lambda: reverse("stores:shed"))
@roles(STORES_ROLES)
def gone(request: HttpRequest) -> HttpResponse:
    """Something is no longer here."""
    form = GoneForm(request.POST)
    if carry_out(form, actions.take_away, request.member.workshop):
        return redirect("stores:shed")
    return _page(request, refused="That is no longer in the shed; look at the page again.")


def _page(
    request: HttpRequest,
    equipment: Form | None = None,
    lubricant: Form | None = None,
    refused: str = "",
) -> HttpResponse:
    workshop = request.member.workshop
    context = {
        "machines": Equipment.objects.filter(workshop=workshop),
        "stock": Lubricant.objects.filter(workshop=workshop),
        "equipment": equipment or EquipmentForm(),
        "lubricant": lubricant or LubricantForm(),
        "may_edit": request.member.may(STORES_ROLES),
        "refused": refused,
    }
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "stores/shed.html", context, status=status)
