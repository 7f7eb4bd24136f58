"""A seal's depth round its face: the tilt as a shadow in the bore; cut through high and low place."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from wheelend.circle import clock_angle
from zesty.drawings.cut import housing
from zesty.drawings.svg import (
    Point,
    arrow,
    circle,
    drawing,
    element,
    line,
    polygon,
    polyline,
    rect,
    text,
)

_C: Point = (204.0, 210.0)
_CROSSES_DEG = 15.0
"""Nearer than this the line from high to low runs through a depth's figures."""

_MARKS, _BORE, _DEPTHS, _CASE, _LIP = 160.0, 142.0, 106.0, 78.0, 60.0
_FACE, _AXIS = 552.0, 210.0


@dataclass(frozen=True)
class Tilt:
    """How far out of level; `high` and `low` are places with their depths, `share` of what is allowed."""

    words: str
    high_deg: float
    high: tuple[str, str]
    low: tuple[str, str]
    share: float


@dataclass(frozen=True)
class SealView:
    """Depths as they were typed, by clock place; `inside` is what the lip keeps in."""

    depths: Mapping[str, str]
    due: str
    inside: str
    tilt: Tilt | None = None


def seal_view(view: SealView, *, narrow: bool = False) -> str:
    """The face, and beside it where it is wide the cut."""
    words = ", ".join(f"{clock} o’clock {depth}" for clock, depth in view.depths.items())
    said = f"; {view.tilt.words} mm high at {view.tilt.high[0]}, tap there" if view.tilt else ""
    title = f"The seal from its face: {words}{said}"
    if narrow:
        return drawing(408, 420, _face(view), title)
    return drawing(760, 420, [*_face(view), *_cut(view)], title)


def _face(view: SealView) -> list[str]:
    drawn = [circle(_C, _BORE, "part")]
    if view.tilt:
        drawn.append(_shadow(view.tilt))
    drawn += [circle(_C, _CASE, "seal-rubber"), circle(_C, _LIP, "part")]
    if view.tilt:
        for end in (view.tilt.high_deg, view.tilt.high_deg + 180):
            drawn.append(line(_at(_LIP, end), _at(_BORE, end), "off-line"))
    places = dict.fromkeys([*view.depths, "12", "3", "6", "9"])
    for clock in places:
        off = (clock_angle(clock) - view.tilt.high_deg) % 180 if view.tilt else 90.0
        crossed = min(off, 180 - off) < _CROSSES_DEG
        drawn += _place(clock, view.depths.get(clock, ""), lit=clock == view.due, crossed=crossed)
    return drawn + (_told(view.tilt) if view.tilt else [])


def _shadow(tilt: Tilt) -> str:
    """The bore's wall shows where the seal sits deep: a crescent, as wide as the tilt is large."""
    wide = 2 + 6 * min(1.0, tilt.share)
    x, y = _at(wide, tilt.high_deg)
    circles = (
        f"M{cx - r:.1f} {cy:.1f}a{r:.1f} {r:.1f} 0 1 0 {2 * r:.1f} 0a{r:.1f} {r:.1f} 0 1 0 {-2 * r:.1f} 0Z"
        for cx, cy, r in ((*_C, _BORE), (x, y, _BORE - wide))
    )
    return element("path", d="".join(circles), class_="crescent", fill_rule="evenodd")


def _told(tilt: Tilt) -> list[str]:
    tip, tail = _at(_MARKS + 6, tilt.high_deg), _at(_MARKS + 46, tilt.high_deg)
    spot = _at(_MARKS - 2, tilt.high_deg)
    beside = _at(_MARKS + 34, tilt.high_deg - 16)
    return [
        arrow(tail, tip),
        text((beside[0], beside[1] + 5), "tap", "label strong lit", 18, text_anchor="middle"),
        circle(spot, 19, "face-due"),
        text(
            (spot[0], spot[1] + 6),
            tilt.high[0],
            "face-due-text",
            _fits(tilt.high[0], 18),
            text_anchor="middle",
        ),
        text((_C[0], _C[1] + 6), tilt.words, "label strong lit", 30, text_anchor="middle"),
        text((_C[0], _C[1] + 28), "mm out", "label", 14, text_anchor="middle"),
    ]


def _place(clock: str, depth: str, *, lit: bool, crossed: bool) -> list[str]:
    angle = clock_angle(clock)
    x, y = _at(_MARKS, angle)
    state = "due" if lit else "read" if depth else "open"
    drawn = [
        circle((x, y), 18, f"face-{state}"),
        text((x, y + 6), clock, f"face-{state}-text", 17, text_anchor="middle"),
    ]
    if depth:
        x, y = _at(_DEPTHS, angle)
        look = "label strong clear" if crossed else "label strong"
        drawn.append(text((x, y + 6), depth, look, 19, text_anchor="middle"))
    return drawn


def _cut(view: SealView) -> list[str]:
    """Bore, shaft and seal, cut through two places; the tilt is drawn large."""
    tilt = view.tilt
    lean = 5 + 9 * min(1.0, tilt.share) if tilt else 0.0
    top, bottom = (
        (tilt.high, tilt.low)
        if tilt
        else (("12", view.depths.get("12", "")), ("6", view.depths.get("6", "")))
    )
    deep = (_FACE + 24 - lean, _FACE + 24 + lean)
    drawn = [
        *_half(deep[0], 1, view.inside), *_half(deep[1], -1, view.inside),
        rect(470, _AXIS - 30, 280, 60, "part"), line((452, _AXIS), (758, _AXIS), "centre-line"),
        text((654, _AXIS - 62), view.inside, "label strong", 15, text_anchor="middle"),
        *_depth(26, deep[0], *top, lit=bool(tilt)), *_depth(394, deep[1], *bottom, lit=False),
    ]  # fmt: skip
    if tilt:
        drawn += [
            arrow((470, 116), (deep[0] - 4, 116)),
            text((466, 121), "tap", "label strong lit", 17, text_anchor="end"),
            text((752, 416), "tilt drawn large", "label faint", 13, text_anchor="end"),
        ]
    return drawn


def _half(x: float, way: int, inside: str) -> list[str]:
    """What stands on one side of the axis, with the seal's case at `x`."""

    def at(right: float, up: float) -> Point:
        return right, _AXIS - way * up

    body = [
        at(*one)
        for one in ((_FACE, 176), (752, 176), (752, 92), (640, 92), (640, 118), (_FACE, 118))
    ]
    kept = [
        at(*one)
        for one in ((x + 4, 116), (640, 116), (640, 92), (752, 92), (752, 30), (x + 10, 30))
    ]
    lip = [at(x + dx, up) for dx, up in (
        (0, 100), (-6, 32), (8, 30), (14, 66), (52, 31), (60, 42), (54, 74), (30, 92),
    )]  # fmt: skip
    return [
        *housing(body),
        polygon(kept, "oil" if inside == "oil" else "grease"),
        polygon(lip, "seal-rubber"),
        polyline([at(x + 60, 114), at(x, 114), at(x, 66)], "case"),
        circle(at(x + 50, 66), 6, "part"),
    ]


def _depth(y: float, x: float, clock: str, depth: str, *, lit: bool) -> list[str]:
    """How far below its face the seal stands there, between two marks."""
    near, far = (y + 30, y - 14) if y < _AXIS else (y - 30, y + 14)
    look = "due" if lit else "read" if depth else "open"
    return [
        line((_FACE, near), (_FACE, far), "leader"),
        line((x, near + (90 if y < _AXIS else -90)), (x, far), "leader"),
        arrow((_FACE - 34, y), (_FACE - 2, y), "dim"),
        arrow((x + 34, y), (x + 2, y), "dim"),
        circle((430, y), 15, f"face-{look}"),
        text((430, y + 5), clock, f"face-{look}-text", _fits(clock, 15), text_anchor="middle"),
        text((454, y + 7), depth, "label strong", 19),
    ]


def _fits(clock: str, size: float) -> float:
    """A size in which a clock position fits its circle."""
    return size if len(clock) < 3 else size * 0.72


def _at(reach: float, angle: float) -> Point:
    turn = math.radians(angle)
    return _C[0] + reach * math.sin(turn), _C[1] - reach * math.cos(turn)
