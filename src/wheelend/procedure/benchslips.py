"""Slips at press, scale and seal: a temperature, a mass or a depth that is not likely where it stands."""

from dataclasses import replace
from fractions import Fraction

from wheelend.procedure.asking.frame import At
from wheelend.procedure.asking.judged import packing, seal_of
from wheelend.procedure.asking.measured import measured, parts_of
from wheelend.procedure.asking.warmth import warmed
from wheelend.procedure.slips import Question, ask
from wheelend.quantity import LENGTH, MASS, TEMPERATURE

_PLACES_DEGC = {"air": (-35.0, 50.0), "ring": (-200.0, 50.0)}
_HOTTEST_DEGC = 180.0
"""Hubs and rings are warmed to less: grease burns, and steel that was hardened grows soft."""


def of_temperature(typed: str, at: At, place: str) -> Question | None:
    """A temperature of the air, the chilled ring, or what is warmed."""
    limit = warmed(at).limit
    low, high = _PLACES_DEGC.get(place, (-35.0, max(_HOTTEST_DEGC, (limit or 0.0) + 40)))

    def likely(value: Fraction) -> bool:
        return low <= float(value) <= high

    what = {"air": "The air of a shed", "ring": "A chilled ring"}.get(place, "What is warmed")
    why = f"{what} is between {low:.0f} and {high:.0f} °C.".replace("-", "−")
    return ask(typed, TEMPERATURE, likely, why, 21.0 if place == "air" else 95.0)


def of_depth(typed: str, at: At) -> Question | None:
    """The depth of a seal below its face."""
    seal = seal_of(at)
    low = seal.depth_low.value if seal and seal.depth_low else 0.0
    high = seal.depth_high.value if seal and seal.depth_high else 40.0

    def likely(value: Fraction) -> bool:
        return min(low, 0.0) - 0.5 <= float(value) <= max(high + 8, high * 3)

    why = (
        f"The card has it {low:g} to {high:g} mm below its face."
        if seal
        else "Depths are below the face."
    )
    found = ask(typed, LENGTH, likely, why, (low + high) / 2)
    if found and typed[:1] in "-−":
        return replace(
            found,
            why=f"Less than nothing stands proud of its face. {why}",
            options=(typed[1:].strip(),),
        )
    return found


def of_mass(typed: str, at: At, place: str) -> Question | None:
    """A bearing on the scale, dry or packed."""
    key, point, end = place.rpartition(".")
    part = parts_of(at.step, at.card).get(key) if point else None
    part = part or next((one for one in at.card.stack if one.part in at.step.each), None)
    if part is None or part.mass is None:
        return None
    said = measured(at).get(f"{key}{point}dry") if end == "packed" else None
    dry = said.value if said and said.value is not None else part.mass.value
    full = packing(at, part)
    room = (full.free_mL * 2 if full else dry * 0.3) if end == "packed" else 0.0

    def likely(value: Fraction) -> bool:
        return dry * 0.6 <= float(value) <= dry * 1.4 + room

    why = f"Dry it weighs {dry:g} g."
    return ask(typed, MASS, likely, why, dry + room / 3)
