"""Hatch lines clipped exactly to an outline, in px: never a scaled pattern."""

import math
from collections.abc import Sequence

from zesty.drawings.section.sheet import Hatch
from zesty.drawings.svg import Point

_HALF = math.sqrt(0.5)


def hatch_lines(outline: Sequence[Point], hatch: Hatch) -> list[tuple[Point, Point]]:
    """The lines of a hatch inside a closed outline; they stand at whole steps from the origin, so
    that one part's lines meet across a gap."""
    along, across = (_HALF, -_HALF * hatch.way), (_HALF * hatch.way, _HALF)
    turned = [(x * along[0] + y * along[1], x * across[0] + y * across[1]) for x, y in outline]
    low = min(v for _, v in turned)
    high = max(v for _, v in turned)
    found: list[tuple[Point, Point]] = []
    for step in range(math.ceil(low / hatch.gap), math.floor(high / hatch.gap) + 1):
        level = step * hatch.gap + 1e-6
        cuts = crossings(turned, level)
        for start, end in zip(cuts[::2], cuts[1::2], strict=False):
            found.append((_back(start, level, along, across), _back(end, level, along, across)))
    return found


def crossings(turned: Sequence[Point], level: float) -> list[float]:
    """Where a closed outline crosses a level, in order."""
    cuts = []
    for (u0, v0), (u1, v1) in zip(turned, [*turned[1:], turned[0]], strict=True):
        if (v0 <= level) != (v1 <= level):
            cuts.append(u0 + (level - v0) / (v1 - v0) * (u1 - u0))
    return sorted(cuts)


def _back(u: float, v: float, along: Point, across: Point) -> Point:
    return u * along[0] + v * across[0], u * along[1] + v * across[1]
