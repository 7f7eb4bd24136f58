"""The calculations that the door knows, by name."""

from collections.abc import Callable
from dataclasses import dataclass

from wheelend.door import end_play, shim_plan, verdict
from wheelend.door.readers import Json
from wheelend.errors import BadInput, echo


@dataclass(frozen=True)
class Calculation:
    """One named calculation: what it answers, how, and what it takes."""

    summary: str
    calculate: Callable[[object], Json]
    schema: Callable[[], Json]


CALCULATIONS = {
    "verdict": Calculation(
        "is a measured value inside its limits, given how well it was measured",
        verdict.calculate,
        verdict.schema,
    ),
    "end-play": Calculation(
        "end play, its doubt and the face's runout from dial readings",
        end_play.calculate,
        end_play.schema,
    ),
    "shim-plan": Calculation(
        "which shims to fit next, from trials, tray and limits",
        shim_plan.calculate,
        shim_plan.schema,
    ),
}


def named(name: str) -> Calculation:
    """The calculation of a name. Raises BadInput for an unknown one."""
    if name not in CALCULATIONS:
        raise BadInput("", echo(name), f"is not a calculation; known: {', '.join(CALCULATIONS)}")
    return CALCULATIONS[name]
