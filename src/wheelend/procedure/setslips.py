"""Slips while a setting is made: a swing in another unit, a turn that is too far, a shim that is a spacer,
blades exchanged, the torque of another nut."""

from dataclasses import replace
from fractions import Fraction

from wheelend.procedure.asking import band, standing
from wheelend.procedure.asking.frame import At
from wheelend.procedure.asking.lengths import known
from wheelend.procedure.slips import Question, ask, of_torque
from wheelend.quantity import ANGLE, FORCE, LENGTH, TORQUE, is_of

_NEAR_MM = 0.5
"""A spacer or shim that was measured is no more than this from what the card has."""


def of_swing(typed: str, at: At, place: str) -> Question | None:
    """Least or most of a swing, against what the card allows; in the other unit it may be what was meant."""
    limits, wanted = band.limits_of(at)
    dimension = FORCE if is_of(typed, FORCE) else TORQUE
    if place == "radius" or limits is None or dimension is not wanted:
        return None
    most = limits.highest * 6

    def likely(value: Fraction) -> bool:
        return limits.lowest / 20 <= float(value) <= most

    unit = "N" if wanted is FORCE else "N·m"
    why = f"The card allows {limits.lowest:.3g} to {limits.highest:.3g} {unit}."
    window = (limits.lowest, limits.highest)
    return ask(typed, dimension, likely, why, (window[0] + window[1]) / 2, window=window)


def of_turn_back(typed: str, at: At) -> Question | None:
    """How far a nut was turned back, against the card's angle or what its window allows."""
    setting = at.setting
    wanted = setting.angle.value if setting.angle else 0.0
    if not wanted and setting.lock.pitch and setting.limits:
        wanted = 360 * setting.limits.limits.highest / setting.lock.pitch.value
    if not wanted:
        return None

    def likely(value: Fraction) -> bool:
        return float(value) <= max(3 * wanted, wanted + 45)

    why = (
        f"The card turns it back {setting.angle}."
        if setting.angle
        else f"{wanted:.0f}° already sets the most play."
    )
    return ask(typed, ANGLE, likely, why, wanted)


def of_spacer(typed: str, at: At, place: str) -> Question | None:
    """A shim or spacer on the micrometer, against its width on the card and what was measured beside it."""
    wanted = _width(at, place)
    if wanted is None:
        return None

    def likely(value: Fraction) -> bool:
        return abs(float(value) - wanted) <= max(_NEAR_MM, wanted * 0.02)

    return ask(typed, LENGTH, likely, f"The card has it at {wanted:g} mm.", wanted)


def _width(at: At, place: str) -> float | None:
    """What is known of the part that is measured: other places of it, else the card."""
    kind = "shim" if at.step.kind == "spacer" else "spacer"
    if at.step.kind == "spacer_fit" and place != "spacer":
        kind = "spacer"
    beside = known(
        row for row in at.entries if row.place.partition(",")[0] == place.partition(",")[0]
    )
    if beside and at.step.kind in ("spacer", "spacer_pair"):
        return beside.value
    part = next((one for one in at.card.stack if one.part == kind and one.width), None)
    return part.width.value if part and part.width else None


def of_stand_out(typed: str, at: At, place: str) -> Question | None:
    """A stand-out, or blades, against the card's window and what its parts give."""
    window = at.setting.stand_out
    if window is None or place in standing.BLADES:
        return None
    high = window.limits.highest

    def likely(value: Fraction) -> bool:
        return -40 <= float(value) <= max(5.0, 10 * high)

    return ask(typed, LENGTH, likely, f"The card allows {window}.", high)


def exchanged(at: At, place: str, value_mm: float) -> str:
    """What is wrong with a stack of blades beside the other one; empty where nothing is."""
    said = standing.current(at)
    if place == "no_go" and "go" in said and value_mm <= float(said["go"].value or 0) + 1e-9:
        return (
            f"{said['go'].typed} went in, so {value_mm:g} mm goes in too. Were the two exchanged? Take back the"
            " first, and give what goes first, then what does not."
        )
    return ""


def of_nut_torque(typed: str, at: At) -> Question | None:
    """A torque at a step that has its own, with whose it is where it is another nut's."""
    found = of_torque(typed, at.setting)
    if found is None:
        return None
    plain = at.card.of_clamp(at.clamp) if at.clamp else at.card.setting
    others = {
        "the nut": plain.torque,
        "the first, seating": plain.first_torque,
        "the jam or outer nut": plain.jam_torque,
    }
    typed_as = found.typed
    for name, figure in others.items():
        if figure and at.setting.torque is not figure and figure.text == typed_as:
            return replace(found, why=f"{found.why} {figure} is that of {name}.")
    return found
