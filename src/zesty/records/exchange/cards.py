"""A spec card with all its versions as a document, and back."""

from typing import Any

from django.db import transaction

from wheelend.arrangements import ARRANGEMENTS
from wheelend.errors import BadInput
from wheelend.quantity import ANGLE, LENGTH, TORQUE, TORQUE_PER_DEG, Dimension
from zesty.cards.actions import add_version
from zesty.cards.forms import CardForm, PartForm
from zesty.cards.models import CardVersion, SpecCard
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import Workshop
from zesty.records.exchange.documents import Json, envelope, stamp, time_of
from zesty.records.exchange.people import Names

_QUANTITIES: dict[str, Dimension] = {
    "low": LENGTH, "high": LENGTH, "nut_torque": TORQUE, "pitch": LENGTH, "torque_low": TORQUE,
    "torque_high": TORQUE, "torque_per_deg": TORQUE_PER_DEG, "bolt_torque": TORQUE,
    "hands_radius": LENGTH, "spread": LENGTH,
    "contact_angle": ANGLE, "width": LENGTH, "bore": LENGTH, "outside": LENGTH,
}  # fmt: skip
_SAYS = (
    "effect", "low", "high", "aim", "nut_torque", "lock", "pitch", "slots", "openings", "positions",
    "flip", "lock_policy", "torque_low", "torque_high", "torque_per_deg", "bolts", "bolt_torque",
    "balance", "trial_method",
    "hands_radius", "spread", "contact_angle",
    "clocks", "max_shims", "second_person", "source_kind", "source", "note",
)  # fmt: skip
_PART = ("kind", "name", "width", "bore", "outside", "way_round", "counts")


def card_document(card: SpecCard) -> Json:
    """A card with every version, oldest first."""
    versions = [version_content(one) for one in card.versions.order_by("number")]
    return envelope(
        "card", {"name": card.name, "arrangement": card.arrangement, "versions": versions}
    )


def version_content(version: CardVersion) -> Json:
    """One version as it stands in a document."""
    return {
        "number": version.number,
        "made_by": str(version.made_by),
        "made_at": stamp(version.made_at),
        "says": {name: getattr(version, name) for name in _SAYS},
        "stack": [{name: getattr(part, name) for name in _PART} for part in version.stack.all()],
    }


@transaction.atomic
def import_card(workshop: Workshop, document: Json, names: Names) -> SpecCard:
    """A card from a document; refused where the workshop has one of that name."""
    name = document["name"]
    if SpecCard.objects.filter(workshop=workshop, name=name).exists():
        raise Refused(f"There is a card “{name}” already; rename that one first.")
    card = SpecCard.objects.create(
        workshop=workshop, name=name, arrangement=document["arrangement"]
    )
    for content in document["versions"]:
        import_version(card, content, names)
    return card


def import_version(card: SpecCard, content: Json, names: Names) -> CardVersion:
    """One version, under the number that it had, if it says what a card can say."""
    _check(card, content)
    try:
        return add_version(
            card,
            names[content["made_by"]],
            number=content["number"],
            made_at=time_of(content["made_at"]),
            stack=[_read(part) for part in content["stack"]],
            **_read(content["says"]),
        )
    except BadInput as bad:
        raise Refused(f"Card “{card.name}”: {bad}.") from None


def _check(card: SpecCard, content: Json) -> None:
    """Raises Refused where the card's own forms would not take what the version says."""
    stack = [PartForm(_as_form(part)) for part in content["stack"]]
    for form in (CardForm(_as_form(content["says"])), *stack):
        for name, faults in form.errors.items():
            raise Refused(f"Card “{card.name}”, {name}: {faults[0]}")
    kinds = [part["kind"] for part in content["stack"]]
    for needed in ARRANGEMENTS[card.arrangement].needed:
        if kinds.count(needed) != 1:
            raise Refused(f"Card “{card.name}” needs one part of kind {needed}.")


def _as_form(says: dict[str, Any]) -> dict[str, Any]:
    """Values as a form would send them: what is false or empty is not sent."""
    return {name: value for name, value in says.items() if value not in (None, False)}


def _read(says: dict[str, Any]) -> dict[str, Any]:
    return {
        name: (Typed.read(value, _QUANTITIES[name]) if value else None)
        if name in _QUANTITIES
        else value
        for name, value in says.items()
    }
