"""New against old: each bearing by its number, a seal with its box and its driver."""

from collections.abc import Iterator

from wheelend.arrangements.vocabulary import SEALS
from wheelend.bearingnumber import bearing_number, compare_numbers
from wheelend.card import Part
from wheelend.errors import BadInput
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, detail_of, latest
from wheelend.procedure.items.inspecting import new_keys

_BEARINGS = ("cone", "cup", "ball_bearing", "cartridge")
_NUMBER = (
    Choice("number", "Its number", "text"),
    Choice("measured", "By measure: the same", "text"),
)
_THREE = (
    Choice("number", "Seal, box and driver", "text"),
    Choice("measured", "By measure: the same", "text"),
)


def items(at: At) -> tuple[Item, ...]:
    """One item a new part; what does not match says how, and what would make it right."""
    said = latest(at.entries)
    fresh = new_keys(at)
    found = []
    for index, part in enumerate(at.card.stack):
        key = f"p{index}"
        if part.part not in (*_BEARINGS, *SEALS) or key not in fresh:
            continue
        row = said.get(key)
        typed = detail_of(row) if row and answer_of(row) == "number" else ""
        held = " ".join(_wrong(part, typed)) if typed else ""
        found.append(_item(key, part, held))
    return tuple(found)


def _item(key: str, part: Part, held: str) -> Item:
    seal = part.part in SEALS
    asks = (
        f"The new {part.name}: numbers on seal, box and driver, apart by commas."
        if seal
        else f"The new {part.name}: which number is on it?"
    )
    old = (
        f"The card: {part.number}."
        if part.number
        else "The card has no number: write the new one’s."
    )
    return Item(
        key,
        part.name,
        _THREE if seal else _NUMBER,
        asks,
        "" if seal else old,
        f"stack.{key[1:]}",
        held,
    )


def _wrong(part: Part, typed: str) -> Iterator[str]:
    """What speaks against a new part, and what would make it right."""
    if part.part in SEALS:
        numbers = [one.strip() for one in typed.split(",") if one.strip()]
        if len(numbers) < 3:
            yield f"{len(numbers)} of three numbers: give seal, box and driver, apart by commas."
        elif len({one.upper() for one in numbers}) > 1:
            seal, box, driver = numbers[:3]
            yield f"They differ: seal {seal}, box {box}, driver {driver}."
            yield "Get the one that fits, or its own driver."
        return
    if not part.number:
        return
    try:
        compared = compare_numbers(bearing_number(part.number), bearing_number(typed))
    except BadInput as bad:
        if typed.upper().replace(" ", "") != part.number.upper().replace(" ", ""):
            yield f"{typed} is not the card’s {part.number} ({bad.need})."
            yield f"Compare by measure, or get {part.number}."
        return
    if not compared.same_size or compared.differences:
        what = "; ".join(compared.differences) or "another size"
        yield f"Not the same (card, new): {what}. {part.number} would do."
