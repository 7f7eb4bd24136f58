"""Reads of spec cards."""

from datetime import datetime

from django.db.models import Max, Prefetch, QuerySet
from django.http import Http404

from wheelend.card import Card, card_from
from zesty.cards.models import CardDraft, CardVersion, SpecCard
from zesty.people.models import User, Workshop


def cards_of(workshop: Workshop) -> QuerySet[SpecCard]:
    """All cards of a workshop with their newest version's number."""
    return SpecCard.objects.filter(workshop=workshop).annotate(newest=Max("versions__number"))


def card_of(workshop: Workshop, card_id: int) -> SpecCard:
    """One card with all its versions, newest first. Raises Http404 for another workshop's."""
    versions = CardVersion.objects.select_related("made_by", "card")
    card = (
        SpecCard.objects.filter(workshop=workshop, pk=card_id)
        .prefetch_related(Prefetch("versions", versions))
        .first()
    )
    if card is None:
        raise Http404
    return card


_KEPT = 256
_read: dict[tuple[int, datetime], Card] = {}


def card_of_version(version: CardVersion) -> Card:
    """What a version says. A version never changes, so it is read once."""
    key = (version.pk, version.made_at)
    if key not in _read:
        if len(_read) >= _KEPT:
            _read.clear()
        _read[key] = card_from(version.document)
    return _read[key]


def draft_of(workshop: Workshop, user: User, draft_id: int) -> CardDraft:
    """One's own draft. Raises Http404 for anybody else's."""
    draft = (
        CardDraft.objects.select_related("card")
        .filter(workshop=workshop, by=user, pk=draft_id)
        .first()
    )
    if draft is None:
        raise Http404
    return draft
