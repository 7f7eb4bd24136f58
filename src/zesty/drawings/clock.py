"""The nut as a clock: every lock place round it, the one to take, and the turn to get there."""

import math
from dataclasses import dataclass

from zesty.drawings.svg import Point, circle, drawing, line, polygon, polyline, text

_SIZE = 300.0
_CENTRE = (150.0, 150.0)
_RING = 92.0


@dataclass(frozen=True)
class ClockPlace:
    """One lock place: its angle (tightening clockwise), and how it stands."""

    angle_deg: float
    allowed: bool
    chosen: bool


def nut_clock(places: tuple[ClockPlace, ...], css: str = "") -> str:
    """The clock; 0 at the top is where the nut stands. Places beyond half a turn are left out."""
    near = [place for place in places if -180 < place.angle_deg <= 180]
    parts = [
        circle(_CENTRE, _RING + 16, "part"),
        circle(_CENTRE, _RING, "construction"),
        polygon(_hexagon(58), "part"),
        circle(_CENTRE, 30, "part"),
        line(_at(0, 34), _at(0, _RING + 16), "clock-hand"),
        text((_CENTRE[0], 12), "now", "label faint", 12, text_anchor="middle"),
        *(shape for place in near for shape in _place(place, labelled=len(near) <= 16)),
    ]
    return drawing(_SIZE, _SIZE, parts, _title(near), css)


def _place(place: ClockPlace, *, labelled: bool) -> list[str]:
    at = _at(place.angle_deg, _RING)
    state = "face-due" if place.chosen else "face-read" if place.allowed else "face-open"
    shapes = [circle(at, 8, state)]
    if not place.allowed:
        shapes.append(line((at[0] - 4, at[1] - 4), (at[0] + 4, at[1] + 4), "ink"))
    if labelled:
        words = f"{place.angle_deg:+.0f}°".replace("-", "−")
        out = _at(place.angle_deg, _RING + 36)
        shapes.append(
            text((out[0], out[1] + 4), words, "label strong lit" if place.chosen else "label faint", 12,
                 text_anchor="middle")
        )  # fmt: skip
    if place.chosen and place.angle_deg:
        shapes += _turn(place.angle_deg)
    return shapes


def _turn(angle: float) -> list[str]:
    """An arc with a head, from where the nut stands to the place."""
    steps = [angle * i / 24 for i in range(25)]
    tip, back = _at(angle, 74), _at(angle - math.copysign(9, angle), 74)
    ux, uy = tip[0] - back[0], tip[1] - back[1]
    head = [tip, (back[0] - uy * 0.6, back[1] + ux * 0.6), (back[0] + uy * 0.6, back[1] - ux * 0.6)]
    return [polyline([_at(a, 74) for a in steps[:-2]], "clock-turn"), polygon(head, "force-head")]


def _hexagon(radius: float) -> list[Point]:
    return [_at(60 * i + 30, radius) for i in range(6)]


def _at(angle_deg: float, radius: float) -> Point:
    turn = math.radians(angle_deg)
    return _CENTRE[0] + radius * math.sin(turn), _CENTRE[1] - radius * math.cos(turn)


def _standing(place: ClockPlace) -> str:
    if place.chosen:
        return "take it"
    return "allowed" if place.allowed else "not allowed"


def _title(places: list[ClockPlace]) -> str:
    said = [f"{place.angle_deg:.0f} degrees {_standing(place)}" for place in places]
    return "Lock places from where the nut stands: " + ", ".join(said)
