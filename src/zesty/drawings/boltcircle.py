"""A bolt circle with the order in which its bolts are drawn down."""

import itertools
import math
from collections.abc import Collection

from zesty.drawings.svg import Point, circle, drawing, line, text

_SIZE = 220.0
_CENTRE = (110.0, 110.0)
_RING = 80.0


def bolt_circle(bolts: int, order: tuple[int, ...], done: Collection[int], css: str = "") -> str:
    """Bolt 1 at the top, numbered clockwise; the next one lit, done ones filled."""
    due = next((bolt for bolt in order if bolt not in done), 0)
    size = min(16.0, math.pi * _RING / bolts - 2)
    parts = [circle(_CENTRE, _RING + 24, "part"), circle(_CENTRE, _RING - 26, "part")]
    parts += [
        line(_at(a, bolts), _at(b, bolts), "construction") for a, b in itertools.pairwise(order)
    ]
    for bolt in range(1, bolts + 1):
        state = "due" if bolt == due else "read" if bolt in done else "open"
        at = _at(bolt, bolts)
        parts.append(circle(at, size, f"face-{state}"))
        parts.append(
            text((at[0], at[1] + 4.5), str(bolt), f"face-{state}-text", 13, text_anchor="middle")
        )
    return drawing(_SIZE, _SIZE, parts, f"{bolts} bolts; next {due or 'none'}; order {order}", css)


def _at(bolt: int, bolts: int) -> Point:
    turn = 2 * math.pi * (bolt - 1) / bolts
    return _CENTRE[0] + _RING * math.sin(turn), _CENTRE[1] - _RING * math.cos(turn)
