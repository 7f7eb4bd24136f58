"""Spec cards: the list, one card, and its change a field at a time."""

from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse

from wheelend.arrangements import arrangement, arrangements
from wheelend.card import Card, card_from, differences, missing
from zesty.cards import actions, queries
from zesty.cards.drawing import section_of, usual_section
from zesty.cards.editing import ADDS, addable, editing, new_line
from zesty.cards.forms import FieldForm, KeepForm, NewCardForm
from zesty.cards.models import CardDraft
from zesty.cards.offers import offers_for
from zesty.drawings.gate import gate
from zesty.elements.answers import UNUSABLE, posts
from zesty.elements.refused import Refused
from zesty.people.guard import roles
from zesty.people.models import CARD_ROLES


def card_list(request: HttpRequest) -> HttpResponse:
    """All cards of the workshop."""
    cards = queries.cards_of(request.member.workshop)
    may_edit = request.member.may(CARD_ROLES)
    drafts = CardDraft.objects.filter(workshop=request.member.workshop, by=request.user, card=None)
    context = {"cards": cards, "may_edit": may_edit, "drafts": drafts}
    return render(request, "cards/list.html", context)


def gallery(request: HttpRequest) -> HttpResponse:
    """Every arrangement, drawn as its usual stack stands."""
    shown = [(family, *usual_section(family)) for family in arrangements()]
    context = {"shown": shown, "may_edit": request.member.may(CARD_ROLES)}
    return render(request, "cards/gallery.html", context)


def card(request: HttpRequest, card_id: int) -> HttpResponse:
    """One card as it stands, or an older version of it."""
    found = queries.card_of(request.member.workshop, card_id)
    versions = list(found.versions.all())
    wanted = request.GET.get("version", "")
    version = next((v for v in versions if str(v.number) == wanted), versions[0])
    before = next((v for v in versions if v.number == version.number - 1), None)
    says = queries.card_of_version(version)
    drawing, narrow = section_of(says)
    changes = differences(before.document, version.document) if before else ()
    context = {
        "card": found,
        "version": version,
        "versions": versions,
        "says": says,
        "section": drawing,
        "section_narrow": narrow,
        "gate": _gate(says),
        "missing": missing(says, version.document),
        "changes": [(one, version.reasons.get(one.path, "")) for one in changes],
        "may_edit": request.member.may(CARD_ROLES),
    }
    return render(request, "cards/card.html", context)


def _gate(says: Card) -> str:
    window = says.setting.limits
    if window is None or window.low is None or window.high is None:
        return ""
    limits = window.limits
    middle = (limits.lowest + limits.highest) / 2
    return gate(limits, middle, 0.01, None, posts=(str(window.low), str(window.high)))


@roles(CARD_ROLES)
def new(request: HttpRequest) -> HttpResponse:
    """A new card: its name and arrangement, then the section is the form."""
    chosen = {"arrangement": request.GET.get("arrangement", "")}
    form = NewCardForm(request.POST or None, initial=chosen)
    if request.method == "POST" and form.is_valid():
        said = form.cleaned_data
        document = actions.first_document(arrangement(said["arrangement"]), said["name"])
        draft = actions.begin_draft(
            request.member.workshop, request.user, document=document, card=None, follows=0
        )
        return redirect("cards:draft", draft.pk)
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "cards/new.html", {"form": form}, status=status)


@posts(lambda card_id: reverse("cards:card", args=[card_id]))
@roles(CARD_ROLES)
def edit(request: HttpRequest, card_id: int) -> HttpResponse:
    """Begin to change a card, or to copy it."""
    found = queries.card_of(request.member.workshop, card_id)
    newest = found.versions.all()[0]
    document = newest.document
    if request.POST.get("copy"):
        document = {**document, "name": f"{document['name'][:70]}, copy"}
        draft = actions.begin_draft(
            request.member.workshop, request.user, document=document, card=None, follows=0
        )
    else:
        draft = actions.begin_draft(
            request.member.workshop,
            request.user,
            document=document,
            card=found,
            follows=newest.number,
        )
    return redirect("cards:draft", draft.pk)


@roles(CARD_ROLES)
def draft(request: HttpRequest, draft_id: int) -> HttpResponse:
    """A card while it is changed. POST puts a value at one field."""
    found = queries.draft_of(request.member.workshop, request.user, draft_id)
    at = request.GET.get("at", "")
    if request.method != "POST":
        return _page(request, found, at)
    form = FieldForm(request.POST)
    if not form.is_valid():
        return _page(request, found, at, refusal="That is too long for a field of a card.")
    said = form.cleaned_data
    try:
        actions.change_draft(found, path=said["path"], typed=said["typed"], reason=said["reason"])
    except Refused as refused:
        kept = {"path": said["path"], "typed": said["typed"]}
        return _page(request, found, at, refusal=refused.sentence, kept=kept)
    return redirect(f"{reverse('cards:draft', args=[found.pk])}?at={at}")


def _draft_page(draft_id: int) -> str:
    return reverse("cards:draft", args=[draft_id])


@posts(_draft_page)
@roles(CARD_ROLES)
def draft_line(request: HttpRequest, draft_id: int) -> HttpResponse:
    """Put a line in a list of the card, or take one out."""
    found = queries.draft_of(request.member.workshop, request.user, draft_id)
    group, index = request.POST.get("group", ""), request.POST.get("index", "")
    number = int(index) if index.isascii() and index.isdigit() and len(index) < 4 else 0
    at = request.POST.get("at", "")[:40]
    says = card_from(found.document)
    try:
        if group not in ADDS:
            raise Refused("That is no list of a card.")
        if request.POST.get("drop"):
            actions.drop_line(found, group=group, index=number)
            at = ""
        elif addable(group, says):
            actions.add_line(found, group=group, after=number, line=new_line(group, says))
            at = f"{group}.{number}"
    except Refused as refused:
        return _page(request, found, at, refusal=refused.sentence)
    return redirect(f"{reverse('cards:draft', args=[found.pk])}?at={at}")


@posts(_draft_page)
@roles(CARD_ROLES)
def keep(request: HttpRequest, draft_id: int) -> HttpResponse:
    """Make a draft the card's next version, or leave the card as it is."""
    found = queries.draft_of(request.member.workshop, request.user, draft_id)
    if request.POST.get("drop"):
        actions.drop_draft(found)
        return redirect("cards:list")
    form = KeepForm(request.POST)
    reason = form.cleaned_data["reason"] if form.is_valid() else ""
    before = _before(found)
    paths = [one.path for one in differences(before.document, found.document)] if before else []
    reasons = {
        path: found.reasons.get(path) or request.POST.get(f"reason:{path}", "")[:200] or reason
        for path in paths
    }
    try:
        with transaction.atomic():
            version = actions.keep_draft(found, request.user, reasons=reasons)
    except Refused as refused:
        return _page(request, found, request.POST.get("at", ""), refusal=refused.sentence)
    return redirect("cards:card", version.card_id)


def _before(found: CardDraft) -> Any:
    return found.card.versions.first() if found.card else None


def _page(
    request: HttpRequest, found: CardDraft, at: str, refusal: str = "", kept: Any = None
) -> HttpResponse:
    page = editing(found, _before(found), at)
    drawing, narrow = section_of(page.card, at=page.at, link=f"{request.path}?at=")
    lists = [
        (group, page.spots[group], ADDS.get(group, "") if addable(group, page.card) else "")
        for group in ("stack", "settings", "bolt_rings", "fits", "seals", "sources", "rest")
    ]
    group, _, index = page.at.partition(".")
    context = {
        "page": page,
        "lists": lists,
        "refusal": refusal,
        "kept": kept or {},
        "section": drawing,
        "section_narrow": narrow,
        "droppable": group in ADDS,
        "group": group,
        "index": index or "0",
        "may_edit": request.member.may(CARD_ROLES),
        "offers": offers_for(request.member.workshop, page.card) if group == "settings" else {},
    }
    return render(request, "cards/draft.html", context, status=UNUSABLE if refusal else 200)
