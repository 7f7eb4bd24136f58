"""A bore from its face: the directions in which it is measured, the due one lit, each plane a ring."""

import math
from collections.abc import Mapping, Sequence

from zesty.drawings.svg import Point, circle, drawing, line, text

_SIZE = 300.0
_C = (150.0, 146.0)
_RADII = (118.0, 78.0)
_HOURS = {"12 to 6": 0.0, "2 to 8": 60.0, "4 to 10": 120.0}


def bore_face(
    planes: Sequence[str], found: Mapping[tuple[str, str], str], due: tuple[str, str]
) -> str:
    """The bore with every diameter that was read; planes from the mouth inward."""
    drawn = [
        circle(_C, 134, "part"),
        *(circle(_C, radius, "construction") for radius in _RADII[: len(planes)]),
    ]
    for plane, radius in zip(planes, _RADII, strict=False):
        for way, angle in _HOURS.items():
            drawn += _diameter(radius, angle, found.get((plane, way), ""), lit=(plane, way) == due)
        drawn.append(text((_C[0] - radius + 6, _C[1] + 4), plane, "label faint", 11))
    said = "; ".join(f"{plane} {way}: {value}" for (plane, way), value in found.items())
    return drawing(_SIZE, _SIZE, drawn, f"The bore from its face. {said}")


def _diameter(radius: float, angle: float, value: str, *, lit: bool) -> list[str]:
    ends = [_at(radius, angle), _at(radius, angle + 180)]
    look = "clock-turn" if lit else "leader" if value else "faint-line"
    drawn = [line(*ends, look)]
    if value:
        x, y = _at(radius - 16, angle + 14)
        drawn.append(text((x, y + 4), value, "label strong clear", 11, text_anchor="middle"))
    return drawn


def _at(radius: float, angle: float) -> Point:
    turn = math.radians(angle)
    return _C[0] + radius * math.sin(turn), _C[1] - radius * math.cos(turn)
