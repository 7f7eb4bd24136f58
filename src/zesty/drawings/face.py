"""The hub face from outboard, with what was read at each clock position."""

import math
from dataclasses import dataclass

from wheelend.circle import clock_angle
from zesty.drawings.svg import Point, circle, drawing, text

_SIZE = 190.0
_CENTRE = (95.0, 95.0)
_RIM = 82.0


@dataclass(frozen=True)
class FacePlace:
    """One clock position: its play as shown (empty where not complete), and whether it is due."""

    clock: str
    play: str
    due: bool
    read: bool


def face(places: tuple[FacePlace, ...], studs: int = 5, css: str = "") -> str:
    """The face as a drawing."""
    parts = [
        circle(_CENTRE, _RIM, "part"),
        circle(_CENTRE, _RIM * 0.7, "construction"),
        circle(_CENTRE, _RIM * 0.36, "part"),
        circle(_CENTRE, _RIM * 0.12, "ink"),
        *(circle(_at(360 * i / studs, 0.7), 6, "part") for i in range(studs)),
        *(mark for place in places for mark in _place(place)),
    ]
    return drawing(_SIZE, _SIZE, parts, _title(places), css)


def _place(place: FacePlace) -> list[str]:
    angle = clock_angle(place.clock)
    at = _at(angle, 1.0)
    state = "due" if place.due else "read" if place.read else "open"
    marks = [
        circle(at, 13, f"face-{state}"),
        text((at[0], at[1] + 4.5), place.clock, f"face-{state}-text", 13, text_anchor="middle"),
    ]
    if place.play:
        inner = _at(angle, 0.54)
        marks.append(
            text((inner[0], inner[1] + 4), place.play, "label strong", 13, text_anchor="middle")
        )
    return marks


def _at(angle_deg: float, share: float) -> Point:
    turn = math.radians(angle_deg)
    return (
        _CENTRE[0] + _RIM * share * math.sin(turn),
        _CENTRE[1] - _RIM * share * math.cos(turn),
    )


def _title(places: tuple[FacePlace, ...]) -> str:
    said = [f"{place.clock} o'clock {place.play or 'not read'}" for place in places]
    return "Hub face: " + ", ".join(said)
