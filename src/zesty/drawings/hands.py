"""A wheel from outside with the hands on it: where to hold, which way to push and pull."""

import math

from zesty.drawings.svg import Point, arrow, circle, drawing, rect, text

_W, _H = 420.0, 300.0
_CENTRE = (210.0, 146.0)
_TYRE, _RIM = 118.0, 76.0
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


def hands(check: str, words: str, studs: int = 5) -> str:
    """The wheel as a drawing; the hands of a check are lit, with push and pull beside them."""
    held = HELD.get(check, ())
    parts = [
        circle(_CENTRE, _TYRE, "tyre"),
        circle(_CENTRE, _RIM, "part"),
        circle(_CENTRE, 30, "part"),
        *(
            circle(
                (
                    _CENTRE[0] + 52 * math.sin(2 * math.pi * i / studs),
                    _CENTRE[1] - 52 * math.cos(2 * math.pi * i / studs),
                ),
                6, "part",
            )
            for i in range(studs)
        ),
        *(mark for place in _PLACES for mark in _hand(place, place in held)),
        *_forces(check, held),
        text((_CENTRE[0], _H - 8), words, "label faint", 13, text_anchor="middle"),
    ]  # fmt: skip
    where = " and ".join(held)
    title = f"The wheel from outside; hands at {where}" if held else "The wheel from outside"
    return drawing(_W, _H, parts, title)


def _at(place: str, reach: float) -> Point:
    x, y = _PLACES[place]
    return _CENTRE[0] + x * reach, _CENTRE[1] + y * reach


def _hand(place: str, held: bool) -> list[str]:
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
        near, far = (x + side * 28, y), (x + side * 76, y)
        drawn.append(arrow(near, far) if out else arrow(far, near))
        drawn.append(text((x + side * 52, y - 12), words, "label strong", 14, text_anchor="middle"))
    return drawn
