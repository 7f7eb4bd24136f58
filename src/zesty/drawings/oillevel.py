"""An oil hub from outboard, its plug at the mark, the oil as it stands; what warmth does to its pressure."""

from collections.abc import Sequence

from zesty.drawings.svg import Point, circle, drawing, element, line, polyline, rect, text

_SIZE = 320.0
_C: Point = (160.0, 156.0)
_R = 128.0
_HEIGHTS = {
    "filled": 0.0,
    "waited": 0.0,
    "turned": 0.0,
    "stays": 0.0,
    "fallen": 22.0,
    "over": -24.0,
}


def oil_level(state: str, where: str) -> str:
    """The hub's face; `state` is how the oil stands against the plug that is turned level with the axle."""
    y = _C[1] + _HEIGHTS.get(state, 40.0)
    drawn = [
        element(
            "clipPath", element("circle", cx=_C[0], cy=_C[1], r=_R - 8), id="in-the-hub"
        ),
        circle(_C, _R, "part"),
        element(
            "rect", x=_C[0] - _R, y=y, width=2 * _R, height=_C[1] + _R - y, class_="oil",
            clip_path="url(#in-the-hub)",
        ),
        circle(_C, _R - 8, "construction"),
        line((_C[0] - _R - 14, _C[1]), (_C[0] + _R + 14, _C[1]), "axis-line"),
        circle((_C[0] + _R * 0.62, _C[1]), 15, "face-due"),
        circle((_C[0] + _R * 0.62, _C[1]), 6, "ink"),
        text((_C[0], _SIZE - 10), where, "label faint", 13, text_anchor="middle"),
    ]  # fmt: skip
    return drawing(
        _SIZE, _SIZE, drawn, f"The hub from outboard: {state or 'not filled yet'}; {where}"
    )


_W, _H = 420.0, 190.0
_LEFT, _BOTTOM, _TOP = 56.0, 40.0, 18.0


def pressure_curve(points: Sequence[tuple[float, float]], limit_bar: float | None) -> str:
    """Gauge pressure over temperature for the oil that is in it; the limit that its seal bears."""
    high = max([bar for _, bar in points] + ([limit_bar * 1.25] if limit_bar else []) + [0.05])
    first, last = points[0][0], points[-1][0]

    def at(degC: float, bar: float) -> Point:
        x = _LEFT + (degC - first) / ((last - first) or 1) * (_W - _LEFT - 20)
        return x, _H - _BOTTOM - bar / high * (_H - _BOTTOM - _TOP)

    drawn = [
        line(at(first, 0), at(last, 0), "gate-axis"),
        line(at(first, 0), at(first, high), "gate-axis"),
        polyline([at(*one) for one in points], "gap-line lit", fill="none"),
        text((_LEFT, _H - 14), f"{first:.0f} °C", "label", 12),
        text((_W - 20, _H - 14), f"{last:.0f} °C", "label", 12, text_anchor="end"),
        text(
            (_W - 24, at(*points[-1])[1] - 6),
            f"{points[-1][1]:.2f} bar",
            "label strong",
            13,
            text_anchor="end",
        ),
    ]
    if limit_bar:
        a, b = at(first, limit_bar), at(last, limit_bar)
        drawn += [
            rect(a[0], a[1] - 2, b[0] - a[0], 4, "gate-post"),
            text((a[0] + 6, a[1] - 7), f"its seal bears {limit_bar:g} bar", "label", 12),
        ]
    return drawing(_W, _H, drawn, f"Pressure: {points[-1][1]:.2f} bar at {last:.0f} °C")
