"""Seating: repeat at a torque, turning the hub, until the nut no longer moves."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput
from wheelend.verdict import SAME

STILL_DEG = 2.0
MOST_REPEATS = 6


@dataclass(frozen=True)
class Seating:
    """How far the seating is, and how often it was repeated."""

    state: Literal["seated", "not_settling", "repeat"]
    repeats: int


def seating(
    moves_deg: Sequence[float], *, still_deg: float = STILL_DEG, most: int = MOST_REPEATS
) -> Seating:
    """Whether the bearings are seated, from the nut's movement in degrees at each repeat.

    "seated" when the last move is at most `still_deg`; "not_settling" after more than `most`
    repeats, or when a move is larger than the one before by more than `still_deg`; else "repeat".
    Raises BadInput for no moves, a negative one, or `most` below 1. Source: shop practice.

    >>> seating([20, 8, 1])
    Seating(state='seated', repeats=3)
    """
    if not moves_deg:
        raise BadInput("moves", "", "give the nut's movement at one or more repeats")
    if min(moves_deg) < 0 or still_deg < 0:
        raise BadInput("moves", f"{min(moves_deg):g} deg", "must not be negative")
    if most < 1:
        raise BadInput("most", str(most), "is not 1 or more")
    repeats = len(moves_deg)
    if moves_deg[-1] <= still_deg + SAME:
        return Seating("seated", repeats)
    growing = any(
        after - before > still_deg + SAME for before, after in itertools.pairwise(moves_deg)
    )
    return Seating("not_settling" if growing or repeats > most else "repeat", repeats)
