"""Verbs that change spec cards: a change is always a new version."""

import logging
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction
from django.utils import timezone

from wheelend.arrangements import Arrangement
from wheelend.card import card_from, differences, field_at, value_from
from wheelend.card.fields import GROUPS
from wheelend.errors import BadInput
from wheelend.readers import Record
from zesty.cards.drawing import section_of
from zesty.cards.models import CardDraft, CardVersion, Fitment, SpecCard
from zesty.elements.refused import Refused
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop

Json = dict[str, Any]


def first_document(family: Arrangement, name: str) -> Json:
    """A card that says only what every card of its family says: the usual stack."""
    stack: list[Json] = []
    for part in family.stack:
        said: Json = {"part": part.part, "name": part.name}
        if not part.counts:
            said["counts"] = False
        if part.one_time:
            said["one_time"] = True
        for what in ("seat", "way"):
            if getattr(part, what):
                said[what] = getattr(part, what)
        stack.append(said)
    settings = [{"method": family.method, "clamp": family.setting_clamp.set_by, "source": "source"}]
    others = {clamp.set_by for clamp in family.clamps} - {settings[0]["clamp"]}
    settings += [
        {"method": "fixed_torque", "clamp": one, "source": "source"} for one in sorted(others)
    ]
    return {
        "format": "zesty-spindle/card/2",
        "name": name,
        "arrangement": family.key,
        "sources": [{"key": "source", "kind": "unsourced", "ref": ""}],
        "stack": stack,
        "settings": settings,
    }


@transaction.atomic
def new_card(workshop: Workshop, user: User, *, document: Json) -> SpecCard:
    """A card with its first version."""
    said = _read(document)
    try:
        with transaction.atomic():
            card = SpecCard.objects.create(
                workshop=workshop, name=said.name, arrangement=said.arrangement.key
            )
    except IntegrityError:
        raise Refused(
            f"There is a card “{said.name}” already; give another name.", "name"
        ) from None
    add_version(card, user, number=1, document=document)
    return card


@transaction.atomic
def new_version(
    card: SpecCard, user: User, *, follows: int, document: Json, reasons: dict[str, str]
) -> CardVersion:
    """The next version of a card; `follows` is the version that was edited."""
    SpecCard.objects.select_for_update().get(pk=card.pk)
    newest = card.versions.select_related("made_by").first()
    number = newest.number if newest else 0
    if number != follows:
        raise Refused(
            f"{newest.made_by} made version {number} while you edited version {follows}; "
            "read it, then enter your change again."
        )
    if newest:
        changed = [one.path for one in differences(newest.document, document)]
        if not changed:
            raise Refused("Nothing differs from the version in force.")
        silent = [path for path in changed if not reasons.get(path)]
        if silent:
            raise Refused(f"Give a reason for each change: {', '.join(silent)}.", "reasons")
        reasons = {path: reasons[path] for path in changed}
    _rename(card, _read(document).name)
    return add_version(card, user, number=number + 1, document=document, reasons=reasons)


def _rename(card: SpecCard, name: str) -> None:
    """A card is called what its newest version is called."""
    if name == card.name:
        return
    card.name = name
    try:
        with transaction.atomic():
            card.save(update_fields=["name"])
    except IntegrityError:
        raise Refused(f"There is a card “{name}” already; give another name.", "name") from None


def add_version(
    card: SpecCard,
    user: User,
    *,
    number: int,
    document: Json,
    reasons: dict[str, str] | None = None,
    made_at: datetime | None = None,
) -> CardVersion:
    """A version under a number of its own. Refused where the document is no card of this kind."""
    said = _read(document)
    if said.arrangement.key != card.arrangement:
        raise Refused(f"“{card.name}” is of another arrangement: {card.arrangement}.")
    return CardVersion.objects.create(
        workshop_id=card.workshop_id,
        card=card,
        number=number,
        document=document,
        reasons=reasons or {},
        made_by=user,
        made_at=made_at or timezone.now(),
    )


def _read(document: Json, path: str = "") -> Any:
    """A document as the core works with it, after a change at a path. Refused where it is no card, or none
    that can be drawn."""
    try:
        card = card_from(document)
    except BadInput as bad:
        raise Refused(_about(bad, path)) from None
    try:
        section_of(card)
    except (ArithmeticError, LookupError, TypeError, ValueError) as error:
        logging.getLogger(__name__).exception("A card could not be drawn")
        raise Refused(
            "This stack can't be drawn, so it was not kept: look at its parts."
        ) from error
    return card


def fit_card(wheel_end: WheelEnd, card: SpecCard) -> None:
    """Say which card a wheel end is serviced by."""
    Fitment.objects.update_or_create(wheel_end=wheel_end, defaults={"card": card})


# --- drafts: a card is changed a field at a time --------------------------------------------------


@transaction.atomic
def begin_draft(
    workshop: Workshop, user: User, *, document: Json, card: SpecCard | None, follows: int
) -> CardDraft:
    """Begin to change a card, or go on where one was."""
    if card:
        draft = CardDraft.objects.filter(card=card, by=user).first()
        if draft and draft.follows == follows:
            return draft
        CardDraft.objects.filter(card=card, by=user).delete()
    return CardDraft.objects.create(
        workshop=workshop, card=card, follows=follows, document=document, by=user
    )


@transaction.atomic
def change_draft(draft: CardDraft, *, path: str, typed: str, reason: str = "") -> None:
    """Put a value at a field; nothing takes it away. The whole must still be a card."""
    try:
        value = value_from(path, typed)
    except BadInput as bad:
        raise Refused(_about(bad, path), "typed") from None
    document = _changed(draft.document, path, value)
    _read(document, path)
    draft.document = document
    if reason:
        draft.reasons = {**draft.reasons, path: reason}
    draft.save()


def _about(bad: BadInput, path: str) -> str:
    """What is wrong, with the field by its label where it is the one that was typed in."""
    place = bad.path.replace("[", ".").replace("]", "")
    if not path or (place and not place.startswith(path)):
        return f"{bad}."
    try:
        label = field_at(path).label
    except BadInput:
        return f"{bad}."
    return f"{label}: {bad.given} {bad.need}.".replace("  ", " ")


def _changed(document: Json, path: str, value: Any) -> Json:
    """The document with a value at a path; records on the way are made where they are missing."""
    *way, last = path.split(".")
    copy: Any = _copied(document)
    at: Any = copy
    for index, word in enumerate(way):
        if isinstance(at, list):
            at = _item(at, word, path)
        else:
            following = [*way, last][index + 1]
            at = at.setdefault(word, [] if following.isdigit() else {})
    if value is None:
        at.pop(last, None)
        if not at and way:
            return _changed(copy, ".".join(way), None) if not way[-1].isdigit() else copy
    else:
        at[last] = value
    return dict(copy)


def _item(items: list[Any], word: str, path: str) -> Any:
    if word.isdigit() and int(word) < len(items):
        return items[int(word)]
    raise Refused(f"{path}: there is no such line.")


def _copied(value: Any) -> Any:
    if isinstance(value, dict):
        return {key: _copied(one) for key, one in value.items()}
    return [_copied(one) for one in value] if isinstance(value, list) else value


@transaction.atomic
def add_line(draft: CardDraft, *, group: str, after: int, line: Json) -> None:
    """Put a line in a list of the card: a part, a ring of bolts, a source."""
    reader = field_at(group).reader
    if group not in GROUPS or isinstance(reader, Record):
        raise Refused(f"{group} is no list of a card.")
    document = _copied(draft.document)
    document.setdefault(group, []).insert(after, line)
    _read(document)
    draft.document = document
    draft.save()


@transaction.atomic
def drop_line(draft: CardDraft, *, group: str, index: int) -> None:
    """Take a line out of a list of the card."""
    document = _copied(draft.document)
    lines = document.get(group, [])
    if not 0 <= index < len(lines):
        raise Refused("That line is no longer there; reload the page.")
    del lines[index]
    _read(document)
    draft.document = document
    draft.save()


@transaction.atomic
def keep_draft(draft: CardDraft, user: User, *, reasons: dict[str, str]) -> CardVersion:
    """Make the draft the card's next version, each change with its reason."""
    if draft.card is None:
        card = new_card(draft.workshop, user, document=draft.document)
        version: CardVersion = card.versions.get()
    else:
        version = new_version(
            draft.card, user, follows=draft.follows, document=draft.document,
            reasons={**draft.reasons, **reasons},
        )  # fmt: skip
    draft.delete()
    return version


def drop_draft(draft: CardDraft) -> None:
    """Leave the card as it is."""
    draft.delete()
