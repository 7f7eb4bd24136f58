"""Spec cards: the list, one card, a new version."""

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from wheelend.arrangements import ARRANGEMENTS, SHIMMED_PAIR
from zesty.cards import actions, queries
from zesty.cards.forms import CardForm, NewCardForm, StackFormSet, initial_of, usual_stack
from zesty.drawings.gate import gate
from zesty.drawings.section import SectionView, section
from zesty.elements.answers import UNUSABLE, carry_out
from zesty.people.guard import roles
from zesty.people.models import CARD_ROLES


def card_list(request: HttpRequest) -> HttpResponse:
    """All cards of the workshop."""
    cards = queries.cards_of(request.member.workshop)
    may_edit = request.member.may(CARD_ROLES)
    return render(request, "cards/list.html", {"cards": cards, "may_edit": may_edit})


def card(request: HttpRequest, card_id: int) -> HttpResponse:
    """One card as it stands, or an older version of it."""
    found = queries.card_of(request.member.workshop, card_id)
    versions = list(found.versions.all())
    wanted = request.GET.get("version", "")
    version = next((v for v in versions if str(v.number) == wanted), versions[0])
    says = queries.setting_card(version)
    view = SectionView(queries.parts_of(version), nut=version.nut_torque)
    aim = says.aim if isinstance(says.aim, float) else None
    middle = (says.limits.lowest + says.limits.highest) / 2
    context = {
        "card": found,
        "version": version,
        "versions": versions,
        "section": section(view, width=760),
        "section_narrow": section(view, width=358, narrow=True),
        "gate": gate(says.limits, middle if aim is None else aim, 0.01, None),
        "may_edit": request.member.may(CARD_ROLES),
    }
    return render(request, "cards/card.html", context)


@roles(CARD_ROLES)
def edit(request: HttpRequest, card_id: int) -> HttpResponse:
    """Edit a card as its next version."""
    found = queries.card_of(request.member.workshop, card_id)
    newest = found.versions.all()[0]
    says, lines = initial_of(newest)
    form = CardForm(request.POST or None, initial=says)
    stack = StackFormSet(request.POST or None, initial=lines)
    stack.family = ARRANGEMENTS[found.arrangement]
    if request.method == "POST":
        follows = int(request.POST["follows"]) if request.POST.get("follows", "").isdigit() else 0
        if stack.is_valid() and carry_out(
            form, actions.new_version, found, request.user, follows=follows, stack=stack.stack()
        ):
            return redirect("cards:card", found.pk)
    return _form_page(request, form, stack, {"card": found, "follows": newest.number})


@roles(CARD_ROLES)
def new(request: HttpRequest) -> HttpResponse:
    """A new card."""
    chosen = request.POST.get("arrangement") or request.GET.get("arrangement", "")
    family = ARRANGEMENTS.get(chosen, SHIMMED_PAIR)
    form = NewCardForm(request.POST or None, initial={"arrangement": family.key})
    stack = StackFormSet(request.POST or None, initial=usual_stack(family))
    stack.family = family
    if request.method == "POST" and stack.is_valid():
        workshop = request.member.workshop
        if carry_out(form, actions.new_card, workshop, request.user, stack=stack.stack()):
            return redirect("cards:list")
    return _form_page(request, form, stack, {"families": ARRANGEMENTS.values()})


def _form_page(
    request: HttpRequest, form: Form, stack: StackFormSet, more: dict[str, object]
) -> HttpResponse:
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "cards/edit.html", {"form": form, "stack": stack, **more}, status=status)
