"""Why readings do not add up: likely causes in order, each with its check.

Two trials give two constants c (the play with no pack at all). Their difference says how much of
the change in play the shims do not explain, and its sign says which way.
"""

from dataclasses import dataclass

from wheelend.wording import MM_PER_THOU, mm, thickness


@dataclass(frozen=True)
class Cause:
    """One likely cause and what to check; `because` is set where the numbers point at it."""

    key: str
    text: str
    check: str
    because: str = ""


@dataclass(frozen=True)
class Disagreement:
    """Two trials that do not add up; lengths in mm.

    `unexplained_mm` is the play of the later trial over what the earlier one predicts for its
    pack. `shims_mm` are the thicknesses in either pack, `step_mm` the gauge's step.
    """

    earlier: int
    later: int
    unexplained_mm: float
    shims_mm: tuple[float, ...]
    step_mm: float
    on_face: bool
    turned: bool


_WHOLE = 0.02
"""How near a thickness must be to a whole number of thou or hundredths to be marked in it."""

_MISCOUNTED = Cause(
    "miscounted",
    "A shim is in the pack and not on the list, or on the list and not in the pack.",
    "Take the pack out, part the shims (they stick together) and measure each one.",
)
_MIXED_UNITS = Cause(
    "mixed_units",
    "An inch shim was written down as a metric one, or the other way round.",
    "Measure the pack's shims with a micrometer and compare with what is written.",
)
_RUNOUT = Cause(
    "runout",
    "The dial was read at another place of the face: its wobble was taken for play.",
    "Mark one spot on the face, push and pull there without turning the hub.",
)
_MOVED = Cause(
    "moved",
    "The dial's base or the stand moved between push and pull.",
    "Tap the base: the needle must come back. Push in again: it must read the same as before.",
)
_NOT_HOME = Cause(
    "not_home",
    "A cup or cone was not home in the earlier trial and has gone home since.",
    "Seat both ways with a soft mallet at working torque; try a thin feeler behind each cup.",
)
_NOT_HOME_NOW = Cause(
    "not_home_now",
    "A cup or cone is not home now.",
    "Try a thin feeler behind each cup; seat both ways with a soft mallet at working torque.",
)
_DIRT = Cause(
    "dirt",
    "Dirt, grease or a burr between the faces counts as thickness; so does a bent shim.",
    "Wipe every face dry, look along each shim's edge, stone off burrs.",
)
_TORQUE = Cause(
    "torque",
    "The nut was not at working torque in one of the trials.",
    "Torque the nut again and see whether the reading changes.",
)


def likely_causes(found: Disagreement) -> tuple[Cause, ...]:
    """The causes in the order in which to check them, most likely first.

    What the numbers point at comes first, then the dial, then seats and faces, then the torque.
    Source: shop practice; the arithmetic is the shim equation play = c ± pack.
    """
    ordered: list[Cause] = [*_pointed_at(found)]
    if found.on_face or found.turned:
        ordered.append(_RUNOUT)
    ordered += [_NOT_HOME, _DIRT] if found.unexplained_mm > 0 else [_NOT_HOME_NOW, _DIRT]
    ordered += [_MOVED, _TORQUE, _MISCOUNTED]
    first_of_each: dict[str, Cause] = {}
    for cause in ordered:
        first_of_each.setdefault(cause.key, cause)
    return tuple(first_of_each.values())


def _pointed_at(found: Disagreement) -> list[Cause]:
    size = abs(found.unexplained_mm)
    for shim in sorted(set(found.shims_mm)):
        if abs(size - shim) <= 2 * found.step_mm:
            why = f"The {mm(size, found.step_mm)} that is off is a {thickness(shim)} shim."
            return [_because(_MISCOUNTED, why)]
    for shim in sorted(set(found.shims_mm)):
        for written, marked, off in _mixed_up(shim):
            if abs(size - off) <= found.step_mm:
                why = f"A shim marked {marked} and written as {written} would be off by as much."
                return [_because(_MIXED_UNITS, why)]
    return []


def _mixed_up(shim_mm: float) -> list[tuple[str, str, float]]:
    """What a shim may be in truth: "4 thou" taken for 0.04 mm, or 0.10 mm for "10 thou"."""
    found = []
    thou, hundredths = shim_mm / MM_PER_THOU, shim_mm * 100
    if abs(thou - round(thou)) < _WHOLE:
        marked = round(thou) / 100
        found.append((f"{round(thou)} thou", f"{marked:.2f} mm", abs(shim_mm - marked)))
    if abs(hundredths - round(hundredths)) < _WHOLE:
        truth = round(hundredths) * MM_PER_THOU
        found.append((f"{shim_mm:.2f} mm", f"{round(hundredths)} thou", abs(shim_mm - truth)))
    return found


def _because(cause: Cause, why: str) -> Cause:
    return Cause(cause.key, cause.text, cause.check, why)
