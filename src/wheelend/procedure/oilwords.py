"""Why an oil hub is filled to its mark and never above: pressure by what is in it, and what to tell."""

from collections.abc import Iterator

from wheelend.card import Card
from wheelend.card.model import Lubricant
from wheelend.errors import BadInput
from wheelend.fit import ROOM_DEGC
from wheelend.oil import oil

WATER_DEGC = 10.0
"""Of a ford, a slip or a hose."""

WAITS_MIN = (5, 10, 20, 30)
"""Offered where the card says no time: the technician's choice."""

_STEPS = 24


def pressures(said: Lubricant) -> tuple[tuple[float, float], ...]:
    """Oil in mL and gauge pressure in bar when warm, from its mark to where no air is left.

    Empty for a hub that breathes, or whose space the card does not say.
    """
    return tuple(_pressures(said))


def _pressures(said: Lubricant) -> Iterator[tuple[float, float]]:
    if said.space is None or said.oil is None or said.running is None or said.vented:
        return
    room = said.space.value - said.oil.value
    for index in range(_STEPS + 1):
        filled = said.oil.value + room * index / _STEPS
        found = oil(said.space.value, filled, ROOM_DEGC, said.running.value)
        if found.gauge_bar is None:
            return
        yield filled, found.gauge_bar


def suction_bar(said: Lubricant) -> float | None:
    """With how much a hub draws that was hot, breathed out, and is cooled by water; None where it breathes."""
    if said.space is None or said.oil is None or said.running is None or said.vented:
        return None
    try:
        sizes = said.space.value, said.oil.value, ROOM_DEGC, said.running.value
        cooled = oil(*sizes, cools_to_degC=WATER_DEGC).gauge_cooled_bar
    except BadInput:
        return None
    return None if cooled is None else -cooled


def why_never_more(card: Card) -> tuple[str, ...]:
    """What to tell of this hub's oil, a sentence or two each."""
    said = card.lubricant
    full = (
        "This hub breathes: see that its vent is clean. Overfilled, it breathes oil out."
        if said.vented
        else "Closed and warm, the air over the oil is squeezed against the seal. More oil is less air, and the"
        " pressure goes up like a wall."
    )
    return (full, _dipped(said), *_first_charge(card))


def _dipped(said: Lubricant) -> str:
    draws = suction_bar(said)
    how = ""
    if draws is not None and said.running is not None:
        warm = f"{said.running.value:.0f} °C"
        how = f": from {warm} into water of {WATER_DEGC:.0f} °C with {draws:.2f} bar"
    return (
        f"Dipped or hosed while it is hot, it sucks water in at the seal{how}. Let it cool first."
    )


def _first_charge(card: Card) -> Iterator[str]:
    if card.facts.get("driven") != "yes":
        return
    charge = card.lubricant.charge
    much = f"{charge} by the card" if charge else "the card says none, take the maker’s"
    yield (
        f"Driven by its axle, whose oil comes late: the hub gets its own first charge, {much}. Then the axle’s"
        " level again, after turning and settling."
    )
