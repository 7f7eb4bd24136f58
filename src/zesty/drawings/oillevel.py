"""An oil hub from outboard with the oil as it stands, the loop that ends when it stays, what more does."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

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

_C: Point = (196.0, 206.0)
_R = 168.0
_HEIGHTS = {
    "": 90.0, "filled": 0.0, "waited": 0.0, "turned": 18.0, "level": 18.0, "stays": 0.0,
    "fallen": 30.0, "over": -34.0,
}  # fmt: skip
_LOOP = (("filled", "Fill"), ("waited", "Wait"), ("turned", "Turn"), ("level", "Read"))


@dataclass(frozen=True)
class OilView:
    """`state` is how the oil stands, `due` the act of the loop that comes; `curve` is gauge pressure in bar
    warm against oil in mL, `limit` what its seal bears."""

    state: str
    due: str
    round: int
    where: str
    geared: bool
    curve: Sequence[Point] = ()
    at_mark_mL: float = 0.0
    limit: float | None = None


def oil_view(view: OilView, *, narrow: bool = False) -> str:
    """The hub; beside it where it is wide the loop and the curve."""
    title = f"The hub from outboard: {view.state or 'not filled yet'}; {view.where}"
    if narrow:
        return drawing(392, 430, _hub(view), title)
    return drawing(760, 430, [*_hub(view), *_loop(view), *_curve(view)], title)


def _hub(view: OilView) -> list[str]:
    y = _C[1] + _HEIGHTS[view.state]
    plug = (_C[0] + _R * 0.86, _C[1])
    drawn = [
        element("clipPath", element("circle", cx=_C[0], cy=_C[1], r=_R - 18), id="in-the-hub"),
        circle(_C, _R, "part"), circle(_C, _R - 18, "part"),
        rect(_C[0] - _R, y, 2 * _R, _C[1] + _R - y, "oil", clip_path="url(#in-the-hub)"),
        *(_gears() if view.geared else _nut()),
        *(circle(_at(_R - 9, turn + 15), 5, "part") for turn in range(0, 360, 45)),
        line((_C[0] - _R - 14, _C[1]), (_C[0] + _R + 20, _C[1]), "demanded"),
        line((_C[0] - _R + 20, y), (_C[0] + _R - 20, y), "oil-line"),
        circle(plug, 14, "face-open"), circle(plug, 7, "part"),
        text((_C[0], 422), view.where, "label faint", 14, text_anchor="middle"),
    ]  # fmt: skip
    words = {"fallen": "it has fallen", "over": "too high", "": "not filled yet"}.get(
        view.state, ""
    )
    if words:
        drawn.append(text((_C[0], y - 8), words, "label strong lit", 16, text_anchor="middle"))
    if view.due == "turned":
        drawn += _turn()
    return drawn


def _turn() -> list[str]:
    a, b = _at(_R + 14, -52), _at(_R + 14, 44)
    tip = _at(_R + 14, 52)
    path = f"M{a[0]:.1f} {a[1]:.1f}A{_R + 14} {_R + 14} 0 0 1 {b[0]:.1f} {b[1]:.1f}"
    return [element("path", d=path, class_="clock-turn"), arrow(b, tip)]


def _nut() -> list[str]:
    corners = [_at(46, turn) for turn in range(0, 360, 60)]
    return [circle(_C, 84, "construction"), polygon(corners, "s-line"), circle(_C, 24, "s-line")]


def _gears() -> list[str]:
    planets = [_at(86, turn) for turn in (0, 120, 240)]
    return [
        polygon(_teeth(_C, 128, 48, inward=True), "s-line"),
        *(polygon(_teeth(one, 42, 18), "s-line") for one in planets),
        *(circle(one, 17, "s-line") for one in planets),
        polygon(_teeth(_C, 44, 18), "s-line"),
        circle(_C, 16, "s-line"),
    ]


def _teeth(centre: Point, reach: float, count: int, *, inward: bool = False) -> list[Point]:
    """A gear's outline: each tooth up, across and down."""
    step = 2 * math.pi / count
    high, low = (reach - 7, reach) if inward else (reach, reach - 7)
    found = []
    for tooth in range(count):
        for share, radius in ((0.0, low), (0.22, low), (0.34, high), (0.66, high), (0.78, low)):
            turn = (tooth + share) * step
            found.append((centre[0] + radius * math.sin(turn), centre[1] - radius * math.cos(turn)))
    return found


def _loop(view: OilView) -> list[str]:
    middle = (580.0, 108.0)
    drawn = [
        text((middle[0], middle[1] - 4), "round", "label faint", 14, text_anchor="middle"),
        text(
            (middle[0], middle[1] + 20), f"{view.round}", "label strong", 22, text_anchor="middle"
        ),
    ]
    for index, (key, word) in enumerate(_LOOP):
        turn = math.radians(90 * index)
        x, y = middle[0] + 90 * math.sin(turn), middle[1] - 70 * math.cos(turn)
        look = "due" if key == view.due else "open"
        drawn += [
            *_step_arrow(middle, index),
            circle((x, y), 34 if look == "due" else 29, f"face-{look}"),
            text((x, y + 6), word, f"face-{look}-text", 17, text_anchor="middle"),
        ]
    return drawn


def _step_arrow(middle: Point, index: int) -> list[str]:
    a, b = (math.radians(90 * index + turn) for turn in (34, 54))
    ends = [(middle[0] + 86 * math.sin(one), middle[1] - 68 * math.cos(one)) for one in (a, b)]
    return [arrow(ends[0], ends[1], "dim")]


def _curve(view: OilView) -> list[str]:
    """Pressure against oil: flat at the mark, a wall where the air is gone."""
    if len(view.curve) < 2:
        return []
    left, right, top, bottom = 470.0, 740.0, 256.0, 384.0
    most = max((view.limit or 0.3) * 2.2, 0.2)
    first, last = view.curve[0][0], view.curve[-1][0]

    def at(mL: float, bar: float) -> Point:
        high = bottom - min(bar, most) / most * (bottom - top)
        return left + (mL - first) / ((last - first) or 1) * (right - left), high

    mark = next(bar for mL, bar in view.curve if mL >= view.at_mark_mL - 1e-9)
    x, y = at(view.at_mark_mL, mark)
    drawn = [text((left, top - 12), "pressure when warm, bar", "label faint", 14)]
    if view.limit:
        a = at(first, view.limit)
        drawn += [
            rect(left, a[1], right - left, bottom - a[1], "gate-window"),
            rect(left, a[1] - 2, right - left, 4, "gate-post"),
            text((left + 6, a[1] - 8), f"seal bears {view.limit:g}", "label", 14),
        ]
    over = f"{(last - view.at_mark_mL) / 1000:.1f} L over"
    return [
        *drawn,
        line((left, bottom), (right, bottom), "gate-axis"), line((left, top), (left, bottom), "gate-axis"),
        polyline([at(*one) for one in view.curve if one[1] <= most], "gap-line lit", fill="none"),
        circle((x, y), 8, "now-dot"),
        text((x + 14, y + 22), f"{mark:.2f}", "label strong", 17),
        text((x, bottom + 20), "at the mark", "label", 14),
        text((right, bottom + 20), over, "label", 14, text_anchor="end"),
    ]  # fmt: skip


def _at(reach: float, angle: float) -> Point:
    turn = math.radians(angle)
    return _C[0] + reach * math.sin(turn), _C[1] - reach * math.cos(turn)
