"""The calculations that the door knows, by name. A module is imported only when it is asked."""

from collections.abc import Callable
from importlib import import_module
from typing import NamedTuple

from wheelend.errors import BadInput, echo

SUMMARIES = {
    "verdict": "is a value inside its limits, given how well it was measured",
    "end-play": "end play, its doubt and the face's runout from dial readings",
    "shim-plan": "which shims to fit next, from trials, tray and limits",
    "lock-nut": "where a nut can be locked, and what each place would set",
    "seating": "repeat at a torque until the nut stops moving",
    "wrench": "what to set a torque wrench to, and whether it is fit for it",
    "bolt-sequence": "the star order and stages of a ring of bolts",
    "nut-angle": "what play turning a nut back sets, beside what a dial read",
    "drag": "which spacer to fit next, from turning torque",
    "recheck": "when a recheck is due, by date or usage",
    "stand-out": "how far a stack stands proud, and what is missing",
    "bore": "how round and straight a bore is, and what a ring has of interference in it",
    "bearing-number": "what a bearing's number says, and in what two of them differ",
    "fit": "a ring pressed into a bore: force, play lost, the warmth with which it drops in",
    "fit-shaft": "a ring pressed on a shaft: force, play lost, the warmth with which it slides on",
    "cooling": "how long a warm hub stays warm enough",
    "grease": "how much grease a bearing takes, and whether it is packed",
    "oil": "the pressure in a closed hub that runs warm, and what it draws in when cooled",
    "seal-depth": "whether a seal is straight and at its depth, and where to tap",
    "compare": "whether a second value agrees with a first, given what was done between",
    "feel": "the smallest end play that hands can feel on this wheel end",
    "procedure": "the steps of a job, in the order of work",
    "diagnose": "what is wrong at a wheel end, and which check to do next",
}


class Calculation(NamedTuple):
    """One named calculation: what it answers, how, and what it takes."""

    summary: str
    calculate: Callable[[object], dict[str, object]]
    schema: Callable[[], dict[str, object]]


def named(name: str) -> Calculation:
    """The calculation of a name. Raises BadInput for an unknown one."""
    if name not in SUMMARIES:
        raise BadInput("", echo(name), f"is not a calculation; known: {', '.join(SUMMARIES)}")
    module = import_module(f"wheelend.door.{name.replace('-', '_')}")
    return Calculation(SUMMARIES[name], module.calculate, module.schema)
