"""A seal's face as a clock: its depths, the tilt fitted through them as a shadow, and where to tap."""

import math
from collections.abc import Mapping

from wheelend.circle import clock_angle
from zesty.drawings.svg import Point, arrow, circle, drawing, ellipse, text

_SIZE = 320.0
_C: Point = (160.0, 160.0)


def seal_face(
    said: Mapping[str, str], due: str, shallowest_deg: float | None = None, share: float = 0.0
) -> str:
    """The face; `share` says how large the tilt is against what is allowed, for the shadow."""
    drawn = [circle(_C, 124, "part"), circle(_C, 104, "rubber"), circle(_C, 62, "part")]
    if shallowest_deg is not None:
        drawn += _tilt(shallowest_deg, min(1.0, max(share, 0.25)))
    places = list(said) or ["12", "3", "6", "9"]
    for clock in dict.fromkeys([*places, "12", "3", "6", "9"]):
        drawn += _place(clock, said.get(clock, ""), lit=clock == due)
    words = ", ".join(f"{clock} o’clock {depth}" for clock, depth in said.items())
    tap = "" if shallowest_deg is None else f"; high at {shallowest_deg:.0f} degrees"
    return drawing(_SIZE, _SIZE, drawn, f"The seal from its face: {words}{tap}")


def _tilt(lowest: float, share: float) -> list[str]:
    """The deep side in shadow, and the hammer where it stands high."""
    deep = _at(26 * share, lowest + 180)
    tip, tail = _at(88, lowest), _at(150, lowest)
    return [
        ellipse(deep, 104 - 10 * share, 104 - 10 * share, "tilt-shadow"),
        arrow(tail, tip, "force"),
        text(_at(48, lowest), "tap here", "label strong", 15, text_anchor="middle"),
    ]


def _place(clock: str, depth: str, *, lit: bool) -> list[str]:
    angle = clock_angle(clock)
    x, y = _at(124, angle)
    state = "due" if lit else "read" if depth else "open"
    drawn = [
        circle((x, y), 15, f"face-{state}"),
        text((x, y + 5), clock, f"face-{state}-text", 14, text_anchor="middle"),
    ]
    if depth:
        inner = _at(86, angle)
        drawn.append(
            text(
                (inner[0], inner[1] + 5), depth, "label strong on-rubber", 15, text_anchor="middle"
            )
        )
    return drawn


def _at(reach: float, angle: float) -> Point:
    turn = math.radians(angle)
    return _C[0] + reach * math.sin(turn), _C[1] - reach * math.cos(turn)
