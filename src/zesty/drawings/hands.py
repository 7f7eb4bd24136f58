"""A wheel from outside with the hands on it: where to hold, which way to push and pull."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from zesty.drawings.svg import Point, arrow, circle, drawing, line, rect, text, text_width

_W, _H = 380.0, 316.0
_WIDE = 760.0
_CENTRE = (176.0, 152.0)
_TYRE, _RIM = 116.0, 74.0
_PLACES = {
    "12": (0.0, -1.0),
    "3": (1.0, 0.0),
    "6": (0.0, 1.0),
    "9": (-1.0, 0.0),
}
HELD = {
    "hands_9_3": ("9", "3"),
    "hands_12_6": ("12", "6"),
    "brake_on": ("12", "6"),
    "seen_to_move": ("12", "6"),
    "turn_by_hand": ("3",),
    "turn_pads_back": ("3",),
    "knuckle_feel": ("12",),
}
"""Where hands hold for a check; nowhere for the others."""

TURNED = frozenset({"turn_by_hand", "turn_pads_back", "knuckle_feel"})


@dataclass(frozen=True)
class Weighed:
    """One cause beside the wheel: its share from 0 to 1, and what spoke for or against it."""

    name: str
    share: float
    because: str


@dataclass(frozen=True)
class Dial:
    """A dial on the bare hub's face: the place that is due, and what was read at each."""

    due: str = ""
    read: Mapping[str, str] = field(default_factory=dict)


def hands(
    check: str, words: str, causes: Sequence[Weighed] = (), studs: int = 5, dial: Dial | None = None
) -> str:
    """The wheel with the hands of a check lit, push and pull beside them; the causes to its right.

    With a `dial` the wheel is off: the hub's face with the place that is due lit, and the readings.
    """
    held = (dial.due,) if dial else HELD.get(check, ())
    parts = [
        circle(_CENTRE, _TYRE, "part" if dial else "tyre"),
        circle(_CENTRE, _RIM, "construction" if dial else "part"),
        circle(_CENTRE, 30, "part"),
        *(_readings(dial) if dial else ()),
        *(circle(_stud(index / studs), 6, "part") for index in range(studs)),
        *(mark for place in _PLACES for mark in _hand(place, held=place in held)),
        *_forces(check, held),
        text((_CENTRE[0], _H - 10), words, "label faint", 13, text_anchor="middle"),
        *_causes(causes),
    ]
    where = f"; hands at {' and '.join(held)}" if held and not dial else ""
    said = "; ".join(f"{one.name} {round(100 * one.share)} %" for one in causes)
    title = f"The wheel from outside{where}. {said}"
    return drawing(_WIDE if causes else _W, _H, parts, title)


def _readings(dial: Dial) -> list[str]:
    """What was read, inside the place where it was read."""
    drawn = []
    for place, words in dial.read.items():
        if place in _PLACES:
            x, y = _at(place, _TYRE - 36)
            drawn.append(text((x, y + 5), words, "label strong", 14, text_anchor="middle"))
    return drawn


def _stud(turn: float) -> Point:
    angle = 2 * math.pi * turn
    return _CENTRE[0] + 52 * math.sin(angle), _CENTRE[1] - 52 * math.cos(angle)


def _causes(causes: Sequence[Weighed]) -> list[str]:
    """Each cause with its bar: the likeliest in the accent."""
    if not causes:
        return []
    left, long = _W + 20, _WIDE - _W - 46
    drawn = [text((left, 26), "What it could be", "label strong", 15)]
    for index, one in enumerate(causes):
        y = 52 + index * 50
        drawn += [
            text((left, y), _fitted(one.name, 14, long - 48), "label strong", 14),
            text((left + long, y), f"{round(100 * one.share)} %", "label", 13, text_anchor="end"),
            line((left, y + 11), (left + long, y + 11), "faint-line"),
            rect(
                left,
                y + 7,
                max(long * one.share, 2.0),
                8,
                "weight first" if not index else "weight",
            ),
            text((left, y + 29), _fitted(one.because, 11.5, long), "label faint", 11.5),
        ]
    return drawn


def _fitted(words: str, size: float, room: float) -> str:
    """As much of a text as fits."""
    most = int(room / text_width("x", size))
    return words if len(words) <= most else f"{words[: most - 1].rstrip()}…"


def _at(place: str, reach: float) -> Point:
    x, y = _PLACES[place]
    return _CENTRE[0] + x * reach, _CENTRE[1] + y * reach


def _hand(place: str, *, held: bool) -> list[str]:
    x, y = _at(place, _TYRE)
    state = "due" if held else "open"
    return [
        rect(x - 21, y - 14, 42, 28, f"face-{state}", rx=9),
        text((x, y + 5), place, f"face-{state}-text", 15, text_anchor="middle"),
    ]


def _forces(check: str, held: tuple[str, ...]) -> list[str]:
    """Pull at the first hand and push at the second, and the other way round; or a turn."""
    if check in TURNED:
        x, y = _at("3", _TYRE)
        return [
            arrow((x + 34, y + 44), (x + 34, y - 44)),
            text((x + 30, y + 66), "turn", "label strong", 14, text_anchor="middle"),
        ]
    if len(held) < 2:
        return []
    drawn = []
    for place, words, out in ((held[0], "pull", True), (held[1], "push", False)):
        x, y = _at(place, _TYRE)
        side = -1 if place == "9" else 1
        near, far = (x + side * 30, y), (x + side * 82, y)
        drawn.append(arrow(near, far) if out else arrow(far, near))
        low = 24 if place == "6" else -12
        drawn.append(
            text((x + side * 56, y + low), words, "label strong", 14, text_anchor="middle")
        )
    return drawn
