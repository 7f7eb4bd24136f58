"""Outlines in mm as (x, r) points; a third number rounds a corner."""

import math
from collections.abc import Sequence

Mm = tuple[float, float]
Corner = tuple[float, float] | tuple[float, float, float]
Outline = list[Mm]

_STEPS = 6
"""Points of a rounded corner."""


def rounded(corners: Sequence[Corner]) -> tuple[Outline, list[int]]:
    """The outline with its corners rounded; and for each point, the corner that it belongs to."""
    points: Outline = []
    owner: list[int] = []
    count = len(corners)
    for index, corner in enumerate(corners):
        here = (corner[0], corner[1])
        radius = corner[2] if len(corner) > 2 else 0.0
        before, after = corners[index - 1], corners[(index + 1) % count]
        made = (
            _arc((before[0], before[1]), here, (after[0], after[1]), radius) if radius else [here]
        )
        points += made
        owner += [index] * len(made)
    return points, owner


def run_of(corners: Sequence[Corner]) -> Outline:
    """An open run of lines with its corners rounded; its ends stay."""
    ends = [(corners[0][0], corners[0][1]), *corners[1:-1], (corners[-1][0], corners[-1][1])]
    return rounded(ends)[0]


def _arc(before: Mm, here: Mm, after: Mm, radius: float) -> Outline:
    first, last = math.dist(before, here), math.dist(here, after)
    cut = min(radius, first * 0.48, last * 0.48)
    if cut < 1e-6:
        return [here]
    start, end = _towards(here, before, cut / first), _towards(here, after, cut / last)
    return [_bend(start, here, end, step / _STEPS) for step in range(_STEPS + 1)]


def _towards(a: Mm, b: Mm, share: float) -> Mm:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def _bend(a: Mm, b: Mm, c: Mm, t: float) -> Mm:
    u = 1 - t
    return (
        u * u * a[0] + 2 * u * t * b[0] + t * t * c[0],
        u * u * a[1] + 2 * u * t * b[1] + t * t * c[1],
    )


def wavy(a: Mm, b: Mm, height: float) -> Outline:
    """A break line from a to b, both ends left out."""
    long = max(math.dist(a, b), 1e-6)
    across = (-(b[1] - a[1]) / long * height, (b[0] - a[0]) / long * height)
    steps = 16
    found = []
    for step in range(1, steps):
        t = step / steps
        swing = math.sin(t * 2 * math.pi)
        found.append(
            (
                a[0] + (b[0] - a[0]) * t + across[0] * swing,
                a[1] + (b[1] - a[1]) * t + across[1] * swing,
            )
        )
    return found


def box(x0: float, r0: float, x1: float, r1: float) -> Outline:
    """A rectangle."""
    return [(x0, r0), (x0, r1), (x1, r1), (x1, r0)]


def arc(centre: Mm, radius: float, start: float, end: float, steps: int = 12) -> Outline:
    """Points of an arc from one angle to another, in degrees."""
    return [
        (
            centre[0] + radius * math.cos(math.radians(start + (end - start) * step / steps)),
            centre[1] + radius * math.sin(math.radians(start + (end - start) * step / steps)),
        )
        for step in range(steps + 1)
    ]
