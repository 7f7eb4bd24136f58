"""Places round a face: clock positions, gaps between them, and the wave that fits what was read there."""

import itertools
import math
import re
from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.errors import BadInput, echo

WIDEST_GAP_DEG = 150
FEWEST_PLACES = 3
_SAME = 1e-9
_CLOCK = re.compile(r"(1[0-2]|[1-9])(?::([0-5]\d))?", re.ASCII)


@dataclass(frozen=True)
class Wave:
    """mean + b·cos θ + c·sin θ, θ in degrees clockwise from the top."""

    mean: float
    b: float
    c: float

    @property
    def swing(self) -> float:
        """From the lowest place to the highest."""
        return 2 * math.hypot(self.b, self.c)

    @property
    def lowest_deg(self) -> float:
        """Where it is lowest."""
        return math.degrees(math.atan2(-self.c, -self.b)) % 360

    def at(self, angle_deg: float) -> float:
        """Its value at a place."""
        turn = math.radians(angle_deg)
        return self.mean + self.b * math.cos(turn) + self.c * math.sin(turn)


def clock_angle(clock: str) -> float:
    """Degrees clockwise from 12, as the hour hand goes: 30 an hour.

    Raises BadInput unless the clock is "1" to "12" or "H:MM".

    >>> clock_angle("4"), clock_angle("12:30")
    (120.0, 15.0)
    """
    match = _CLOCK.fullmatch(clock)
    if match is None:
        raise BadInput("clock", echo(clock), 'is not a clock position; give "1" to "12" or "4:30"')
    return int(match[1]) % 12 * 30 + int(match[2] or 0) / 2


def clock_words(angle_deg: float) -> str:
    """The nearest half hour, as people say it.

    >>> clock_words(161.6), clock_words(354)
    ('5:30', '12')
    """
    halves = round(angle_deg / 15) % 24
    hour = halves // 2 or 12
    return f"{hour}:30" if halves % 2 else str(hour)


def all_round(angles_deg: Sequence[float]) -> bool:
    """Whether places are enough, and no two neighbours too far apart, to tell a wave."""
    angles = sorted(set(angles_deg))
    if len(angles) < FEWEST_PLACES:
        return False
    gaps = (after - before for before, after in itertools.pairwise([*angles, angles[0] + 360]))
    return max(gaps) <= WIDEST_GAP_DEG + _SAME


def wave(angles_deg: Sequence[float], values: Sequence[float]) -> Wave:
    """The least-squares wave through values at places. Needs three different places or more.

    Source: geometry; first harmonic as in ISO 1101 runout practice.
    """
    rows = [
        (1.0, math.cos(math.radians(angle)), math.sin(math.radians(angle))) for angle in angles_deg
    ]
    normal = [[sum(row[i] * row[j] for row in rows) for j in range(3)] for i in range(3)]
    right = [sum(row[i] * value for row, value in zip(rows, values, strict=True)) for i in range(3)]
    whole = _determinant(normal)
    mean, b, c = (_determinant(_column_swapped(normal, right, j)) / whole for j in range(3))
    return Wave(mean, b, c)


def _column_swapped(matrix: list[list[float]], column: list[float], j: int) -> list[list[float]]:
    return [[*row[:j], value, *row[j + 1 :]] for row, value in zip(matrix, column, strict=True)]


def _determinant(m: list[list[float]]) -> float:
    return (
        m[0][0] * (m[1][1] * m[2][2] - m[1][2] * m[2][1])
        - m[0][1] * (m[1][0] * m[2][2] - m[1][2] * m[2][0])
        + m[0][2] * (m[1][0] * m[2][1] - m[1][1] * m[2][0])
    )
