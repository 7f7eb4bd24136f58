"""The reviewed list of damages, read once."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from wheelend.datafiles import data_file

Decision = Literal["new", "repair", "keep"]


@dataclass(frozen=True)
class Damage:
    """One damage: where it is seen, what it says, and what it changes here.

    `effect` is what accepting the change does: `aim:loose_end` moves the aim, `step:KEY` adds a step.
    """

    key: str
    group: str
    name: str
    decision: Decision
    cause: str
    also: str
    change: str = ""
    effect: str = ""


@cache
def damages() -> tuple[Damage, ...]:
    """Every damage, in the order of the file."""
    return tuple(Damage(**one) for one in data_file("damage", "damages")["damage"])


def of_group(group: str) -> tuple[Damage, ...]:
    """The damages that a kind of part can have."""
    return tuple(one for one in damages() if one.group == group)
