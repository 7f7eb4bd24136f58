"""Every fastener undone goes on a list, and each is asked for again before it may be signed."""

from collections.abc import Iterator

from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, detail_of, extras, latest

_UNDONE = (Choice("undone", "Undone"), Choice("left", "Not touched"))
_BACK = (
    Choice("torqued", "Torqued"),
    Choice("pinned", "Pinned or locked"),
    Choice("capped", "Capped or clipped"),
)
_AROUND = (
    ("caliper", "brake caliper or drum"),
    ("sensor", "speed sensor and its lead"),
    ("aside", "track rod, strut or guard"),
)
"""What stands in the way of a wheel end and belongs to no card; a deck has none of it."""


def of_card(at: At) -> Iterator[tuple[str, str]]:
    """Key and name of every fastener that the card knows here."""
    for ring in at.card.bolt_rings:
        yield f"ring_{ring.ring}"[:20], f"{at.card.arrangement.ring(ring.ring).name}, {ring.bolts}"
    kinds = {part.part: part.name for part in at.card.stack}
    for kind in ("nut", "jam_nut", "pin", "lock_ring", "snap_ring", "cap"):
        if kind in kinds:
            yield kind, kinds[kind]


def _known(at: At) -> Iterator[tuple[str, str]]:
    """Those of the card, and what stands in the way of a wheel end."""
    yield from of_card(at)
    if at.axle != "deck":
        yield from _AROUND


def undone_items(at: At) -> tuple[Item, ...]:
    """Was each undone?"""
    return tuple(Item(key, words, _UNDONE) for key, words in _known(at))


def untold(at: At) -> bool:
    """Whether something that this wheel end is known to have was never said to be undone, or left."""
    said = latest(at.others("fasteners"))
    return any(key not in said for key, _ in _known(at))


def back_items(at: At) -> tuple[Item, ...]:
    """How was each that was undone closed again?"""
    rows = at.others("fasteners")
    said = latest(rows)
    names = dict(_known(at))
    undone = [key for key, row in said.items() if answer_of(row) == "undone" and key in names]
    listed = [(key, names[key]) for key in undone]
    listed += [(row.place, detail_of(row)) for row in extras(rows)]
    closed = latest(at.entries)
    left = sum(key not in closed for key, _ in listed)
    why = f"{left} still open of {len(listed)} that were undone." if left else ""
    return tuple(Item(key, name, _BACK, _closed(name), why) for key, name in listed)


def _closed(name: str) -> str:
    return f"{name[:1].upper()}{name[1:]}: how is it closed?"
