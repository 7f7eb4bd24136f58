"""The calculations that the door knows, by name."""

from collections.abc import Callable
from dataclasses import dataclass
from types import ModuleType

from wheelend.door import (
    bolt_sequence,
    end_play,
    feel,
    lock_nut,
    seating,
    shim_plan,
    stand_out,
    verdict,
    wrench,
)
from wheelend.errors import BadInput, echo
from wheelend.readers import Json


@dataclass(frozen=True)
class Calculation:
    """One named calculation: what it answers, how, and what it takes."""

    summary: str
    calculate: Callable[[object], Json]
    schema: Callable[[], Json]


def _of(module: ModuleType, summary: str) -> Calculation:
    return Calculation(summary, module.calculate, module.schema)


CALCULATIONS = {
    "verdict": _of(verdict, "is a value inside its limits, given how well it was measured"),
    "end-play": _of(end_play, "end play, its doubt and the face's runout from dial readings"),
    "shim-plan": _of(shim_plan, "which shims to fit next, from trials, tray and limits"),
    "lock-nut": _of(lock_nut, "where a nut can be locked, and what each place would set"),
    "seating": _of(seating, "repeat at a torque until the nut stops moving"),
    "wrench": _of(wrench, "what to set a torque wrench to, and whether it is fit for it"),
    "bolt-sequence": _of(bolt_sequence, "the star order and stages of a ring of bolts"),
    "stand-out": _of(stand_out, "how far a stack stands proud, and what is missing"),
    "feel": _of(feel, "the smallest end play that hands can feel on this wheel end"),
}


def named(name: str) -> Calculation:
    """The calculation of a name. Raises BadInput for an unknown one."""
    if name not in CALCULATIONS:
        raise BadInput("", echo(name), f"is not a calculation; known: {', '.join(CALCULATIONS)}")
    return CALCULATIONS[name]
