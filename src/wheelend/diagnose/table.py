"""The reviewed numbers: how often each cause is it, and the chance of each answer under each cause."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from typing import Any, Literal

from wheelend.datafiles import data_file

LEAST_CHANCE = 0.005
"""No answer is less likely than this under any cause: one slip of the hand rules nothing out."""

UNKNOWN = "unknown"

Where = Literal["asked", "road", "raised", "wheel_off", "hub_off", "deck"]


@dataclass(frozen=True)
class Cause:
    """One cause: its weight, and where an arrangement has another one; `short` fits beside a bar."""

    id: str
    short: str
    name: str
    prior: float
    why: str
    prior_in: Mapping[str, float]
    prior_why: str = ""

    def weight(self, arrangement: str | None) -> float:
        """How often it is this, among the causes of a case; not made to add up."""
        return self.prior_in.get(arrangement or "", self.prior)


@dataclass(frozen=True)
class Check:
    """One check: minutes, answers, and for each cause the chance of each answer, with its reason.

    `says` is its line in the notebook, `asks` the question in full. Where it has a `gauge`, it is
    measured at each of `places`; `by` holds what the differences mean.
    """

    id: str
    says: str
    minutes: int
    where: Where
    asks: str
    answers: tuple[str, ...]
    chances: Mapping[str, tuple[float, ...]]
    why: Mapping[str, str]
    caution: str = ""
    gauge: str = ""
    places: Mapping[str, str] = field(default_factory=dict)
    by: Mapping[str, Any] = field(default_factory=dict)

    def chance(self, cause: str, answer: str) -> float:
        """The chance of an answer where a cause is it."""
        return self.chances[cause][self.answers.index(answer)]


@dataclass(frozen=True)
class Table:
    """Every cause and every check, each in its order, and what a case leaves out or makes wait."""

    causes: tuple[Cause, ...]
    checks: tuple[Check, ...]
    rules: Mapping[str, Any]

    def check(self, key: str) -> Check:
        """One check. Raises KeyError for one that is not there."""
        return self._by_id[key]

    @property
    def _by_id(self) -> dict[str, Check]:
        return {check.id: check for check in self.checks}


@cache
def table() -> Table:
    """The reviewed numbers of the package. Raises ValueError where they are not chances."""
    causes = tuple(_cause(said) for said in _read("causes")["cause"])
    names = [cause.id for cause in causes]
    checks = tuple(_check(said, names) for said in _read("checks")["check"])
    return Table(causes, checks, _read("leaving_out"))


def _read(name: str) -> dict[str, Any]:
    return data_file("diagnose", name)


def _cause(said: dict[str, Any]) -> Cause:
    return Cause(**{"prior_in": {}, **said})


def _check(said: dict[str, Any], causes: list[str]) -> Check:
    chances: dict[str, tuple[float, ...]] = {}
    why: dict[str, str] = {}
    for row in said.pop("chances"):
        is_ = tuple(row["is"])
        if abs(math.fsum(is_) - 1) > 1e-9 or min(is_) < LEAST_CHANCE:
            raise ValueError(f"{said['id']} of {row['of']}: {is_} are no chances")
        for cause in causes if row["of"] == ["*"] else row["of"]:
            chances[cause], why[cause] = is_, row["why"]
    return Check(**{**said, "answers": tuple(said["answers"])}, chances=chances, why=why)
