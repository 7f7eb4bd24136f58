"""The reviewed list of damages, read once."""

import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

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
    text = files("wheelend.damage").joinpath("damages.toml").read_text("utf-8")
    return tuple(Damage(**one) for one in tomllib.loads(text)["damage"])


def of_group(group: str) -> tuple[Damage, ...]:
    """The damages that a kind of part can have."""
    return tuple(one for one in damages() if one.group == group)
