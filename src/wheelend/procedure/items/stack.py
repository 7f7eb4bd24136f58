"""The stack as it came off: each part of the card's, and what the numbers say is missing."""

from collections.abc import Mapping
from dataclasses import dataclass

from wheelend.card import Card, Part
from wheelend.errors import BadInput
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, detail_of, extras, latest
from wheelend.procedure.log import Written
from wheelend.quantity import LENGTH, parse
from wheelend.standout import StackedPart, stand_out
from wheelend.wording import both

_WHOLE = "whole"
_NOT_OFF = frozenset({"housing", "knuckle", "spindle", "hub", "shaft"})
"""What the stack stands in, or on."""
_HAS_A_WAY = frozenset({
    "seal", "cassette_seal", "cone", "cup", "ball_bearing", "cartridge", "spacer", "collar", "sleeve",
    "washer", "plate",
    "bracket", "pulley", "blade", "nut", "lock_ring",
})  # fmt: skip
_WHOLE_CHOICES = (Choice("measured", "Measured", "length"), Choice("not", "Not measured"))
_SAME_MM = 0.05
"""Less than this is how an old part measures."""


@dataclass(frozen=True)
class Off:
    """One part as it came off, beside what the card says."""

    part: Part
    key: str
    found: str
    width_mm: float | None

    @property
    def odd(self) -> bool:
        """Whether it is not as the card has it."""
        return self.found not in ("", "as_card")


def parts_of(card: Card) -> tuple[tuple[str, Part], ...]:
    """The parts that come off, each with its item's key."""
    return tuple(
        (f"p{index}", part) for index, part in enumerate(card.stack) if part.part not in _NOT_OFF
    )


def items(at: At) -> tuple[Item, ...]:
    """One item a part, from the nut inward; then the stack's length where the card can be added up."""
    found = [_item(key, part) for key, part in reversed(parts_of(at.card))]
    if len(_counting(at.card)) > 1:
        asks = "The whole stack, as it stood: how long? Leave it out where it can’t be measured."
        found.append(Item(_WHOLE, "whole stack", _WHOLE_CHOICES, asks))
    return tuple(found)


def _item(key: str, part: Part) -> Item:
    choices = [Choice("as_card", "As the card has it")]
    if part.part in _HAS_A_WAY:
        hint = f"card: {part.way}" if part.way else ""
        choices.append(Choice("reversed", "The other way round", hint=hint))
    if part.width or part.part in ("shim", "washer"):
        choices.append(Choice("other", "Another thickness", "length"))
    choices.append(Choice("missing", "Not there"))
    size = f", {part.width}" if part.width else ""
    asks = f"The {part.name}, as it comes off: is it what the card has?"
    return Item(key, f"{part.name}{size}", tuple(choices), asks, spot=f"stack.{key[1:]}")


def off(card: Card, rows: tuple[Written, ...]) -> tuple[Off, ...]:
    """Every part as it came off so far."""
    said = latest(rows)
    return tuple(
        Off(part, key, answer_of(said[key]) if key in said else "", _width(said.get(key), part))
        for key, part in parts_of(card)
    )


def _width(row: Written | None, part: Part) -> float | None:
    card = part.width.value if part.width else None
    if row is None or answer_of(row) != "other":
        return card
    try:
        return float(parse(detail_of(row), LENGTH))
    except BadInput:
        return card


def seems(card: Card, rows: tuple[Written, ...]) -> str:
    """What the length of the whole stack says is missing, in words; empty where it says nothing."""
    said: Mapping[str, Written] = latest(rows)
    row = said.get(_WHOLE)
    if row is None or answer_of(row) != "measured" or row.value is None:
        return ""
    parts = [StackedPart(one.name, one.width.value) for one in _counting(card) if one.width]
    found = stand_out(
        parts, 0.0, 0.02, measured_mm=row.value, tolerance_mm=_SAME_MM * len(parts) ** 0.5
    )
    off_by = found.difference_mm
    if not found.explanations:
        if abs(off_by) <= _SAME_MM * len(parts) ** 0.5:
            return ""
        more = "longer" if off_by < 0 else "shorter"
        return f"The stack is {both(abs(off_by))} {more} than the card’s; no part left out explains it."
    names = " and the ".join(found.explanations[0].missing)
    return f"Looks like the {names}: {both(off_by)} of stack is not there."


def _counting(card: Card) -> tuple[Part, ...]:
    """The parts of the clamped length, where every one of them has its width."""
    counting = tuple(
        one for one in card.stack if one.counts and one.part not in _NOT_OFF | {"nut", "shim"}
    )
    return counting if all(one.width for one in counting) else ()


def odd_words(card: Card, rows: tuple[Written, ...]) -> tuple[str, ...]:
    """What stands out, a sentence each."""
    found = []
    for one in off(card, rows):
        width = f": {one.part.width} missing" if one.part.width else ""
        if one.found == "missing":
            found.append(f"The {one.part.name} is not there{width}.")
        elif one.found == "reversed":
            found.append(f"The {one.part.name} was the other way round; the card: {one.part.way}.")
        elif one.found == "other" and one.part.width and one.width_mm is not None:
            found.append(
                f"The {one.part.name} has {both(one.width_mm)}; the card: {one.part.width}."
            )
    found += [f"The card has no {detail_of(row)}." for row in extras(rows)]
    guess = seems(card, rows)
    return (*found, guess) if guess else tuple(found)
