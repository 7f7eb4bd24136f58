"""Does a second value agree with a first, given what was done between? Any one unit."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

CompareWord = Literal["agrees", "explained", "unexplained"]
CompareFlag = Literal["effect_not_seen"]


@dataclass(frozen=True)
class Known:
    """A value with its expanded doubt."""

    value: float
    U: float


@dataclass(frozen=True)
class Compared:
    """`difference` is second less first, `left` how far it lies outside what was expected."""

    difference: float
    U: float
    expected: tuple[float, float]
    left: float
    verdict: CompareWord
    flags: tuple[CompareFlag, ...] = ()


def compare(first: Known, second: Known, effects: Sequence[tuple[float, float]] = ()) -> Compared:
    """Compare two values; `effects` are the least and the most change of each thing that happened between.

    Source: expanded doubts add by their squares.

    >>> compare(Known(0.11, 0.01), Known(0.085, 0.01), [(-0.03, -0.015)]).verdict
    'explained'
    """
    difference = second.value - first.value
    U = math.hypot(first.U, second.U)
    low, high = (sum(one[end] for one in effects) for end in (0, 1))
    left = difference - min(max(difference, low), high)
    verdict: CompareWord = "unexplained"
    if abs(difference) <= U + 1e-12:
        verdict = "agrees"
    elif abs(left) <= U + 1e-12:
        verdict = "explained"
    unseen = verdict == "agrees" and abs(left) > U + 1e-12
    return Compared(
        difference,
        U,
        (float(low), float(high)),
        left,
        verdict,
        ("effect_not_seen",) if unseen else (),
    )
