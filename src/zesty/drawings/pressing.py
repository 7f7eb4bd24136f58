"""Which ring the force goes on: right, and wrong through the rollers; and the blade tried behind a ring."""

import math
from collections.abc import Mapping

from zesty.drawings.svg import Point, arrow, circle, drawing, line, polygon, rect, text

_W, _H = 330.0, 210.0


def load_path(on: str) -> str:
    """A ring being pressed, twice: by the ring that is tight, and through the rolling elements.

    `on` is `housing` (its outer ring is tight) or `shaft` (its inner ring is).
    """
    parts = [*_one(12, on, right=True), *_one(_W / 2 + 12, on, right=False)]
    tight = "outer" if on == "housing" else "inner"
    return drawing(_W, _H, parts, f"The force goes on the {tight} ring, never through the rollers")


def _one(left: float, on: str, *, right: bool) -> list[str]:
    outer, inner = (left + 44, 62.0), (left + 44, 132.0)
    wide, high = 62.0, 22.0
    pressed_outer = (on == "housing") is right
    ring = outer if pressed_outer else inner
    x, y = ring[0] - 6, ring[1] + high / 2
    drawn = [
        rect(left + 44, 34, wide + 26, 28, "part hatched" if on == "housing" else "faint-part"),
        rect(*outer, wide, high, "part ring-cut"),
        circle((left + 75, 108), 22, "part"),
        rect(*inner, wide, high, "part ring-cut"),
        rect(left + 44, 154, wide + 26, 22, "part hatched" if on == "shaft" else "faint-part"),
        arrow((x - 38, y), (x, y), "force" if right else "force-wrong"),
        text(
            (left + 75, _H - 8),
            "right" if right else "wrong",
            "label strong",
            14,
            text_anchor="middle",
        ),
    ]
    if not right:
        drawn += _through(x + 8, y, on)
        drawn += [
            line((left + 30, 44), (left + 122, 172), "struck"),
            line((left + 122, 44), (left + 30, 172), "struck"),
        ]
    return drawn


def _through(x: float, y: float, on: str) -> list[str]:
    """The load's way across the ball."""
    other = 73.0 if on == "housing" else 143.0
    return [
        line((x, y), (x + 30, 108), "force-wrong"),
        line((x + 30, 108), (x + 58, other), "force-wrong"),
    ]


_SIZE = 300.0
_C: Point = (150.0, 150.0)


def blade_face(said: Mapping[str, str], due: str, name: str) -> str:
    """A ring from its face with the blade tried round it: `said` is out or enters, by clock place."""
    drawn = [
        circle(_C, 112, "part"),
        circle(_C, 78, "part"),
        circle(_C, 58, "construction"),
        text((_C[0], _C[1] + 5), name, "label", 14, text_anchor="middle"),
    ]
    for index, clock in enumerate(("12", "3", "6", "9")):
        drawn += _blade(clock, index * 90.0, said.get(clock, ""), lit=clock == due)
    words = ", ".join(f"{clock}: {what}" for clock, what in said.items())
    return drawing(_SIZE, _SIZE, drawn, f"{name}, blade tried round it. {words}")


def _blade(clock: str, angle: float, said: str, *, lit: bool) -> list[str]:
    near = 96.0 if said == "enters" else 114.0
    tip, end = _at(near, angle), _at(138, angle)
    look = "due" if lit else "read" if said else "open"
    drawn = [line(end, tip, "blade lit" if lit or said == "enters" else "blade")]
    if said == "enters":
        gap = [_at(112, angle - 22), _at(112, angle + 22), _at(103, angle)]
        drawn.append(polygon(gap, "gap-shown"))
    x, y = _at(130, angle)
    drawn += [
        circle((x, y), 15, f"face-{look}"),
        text((x, y + 5), clock, f"face-{look}-text", 14, text_anchor="middle"),
    ]
    return drawn


def _at(reach: float, angle: float) -> Point:
    turn = math.radians(angle)
    return _C[0] + reach * math.sin(turn), _C[1] - reach * math.cos(turn)
