"""A nut from its end: its slots over the holes, every lock place with the play that it would set, and the
window of play bent round it. Beside it each repeat of seating as a wedge that shrinks until it is still."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.verdict import Limits
from zesty.drawings.svg import Point, circle, drawing, line, polygon, polyline, text

_WIDTH, _NARROW, _HEIGHT = 640.0, 392.0, 388.0
_CENTRE = (196.0, 204.0)
_NUT, _BODY, _SPINDLE, _GATE, _LABELS = 118.0, 96.0, 54.0, 134.0, 158.0
_MOST_LABELLED = 9
_SMALL = 26.0


@dataclass(frozen=True)
class EndPlace:
    """One lock place: its angle from where the nut stands (tightening clockwise), the play there."""

    angle_deg: float
    play: str
    allowed: bool
    chosen: bool


@dataclass(frozen=True)
class NutEnd:
    """What is drawn. `play_mm` at angle 0, `pitch_mm` and `limits` make the window; `moves` are the
    repeats of seating in degrees; `slots` 0 where it is locked by a ring."""

    slots: int
    openings: int
    places: tuple[EndPlace, ...]
    moves: tuple[float, ...]
    play_mm: float | None = None
    pitch_mm: float | None = None
    limits: Limits | None = None
    torque: str = ""


def nut_end(view: NutEnd, css: str = "", *, narrow: bool = False) -> str:
    """The nut as a drawing; a narrow one leaves the repeats of seating out."""
    near = [one for one in view.places if -180 < one.angle_deg <= 180]
    chosen = next((one for one in near if one.chosen), None)
    parts = [
        circle(_CENTRE, _NUT, "part"),
        polygon([_at(60 * i + 30, _NUT - 2) for i in range(6)], "part"),
        circle(_CENTRE, _BODY - 8, "part"),
        *_slots(view),
        circle(_CENTRE, _SPINDLE, "part"),
        *_holes(view),
        *_window(view),
        line(_at(0, _SPINDLE + 4), _at(0, _GATE - 6), "clock-hand"),
        *(shape for one in _labelled(near) for shape in _place(one)),
        *(_turn(chosen.angle_deg) if chosen and abs(chosen.angle_deg) > 1 else []),
        text((14, _HEIGHT - 10), "seen from outside", "label faint", 12),
        *(() if narrow else _seating(view)),
    ]
    return drawing(_NARROW if narrow else _WIDTH, _HEIGHT, parts, _title(view, near), css)


def _labelled(near: Sequence[EndPlace]) -> list[EndPlace]:
    """The places that have room: the nearest to the nut, the chosen one among them."""
    order = sorted(near, key=lambda one: (not one.chosen, abs(one.angle_deg)))
    return order[:_MOST_LABELLED]


def _slots(view: NutEnd) -> list[str]:
    """The nut's slots; one stands over the hole once the nut is turned to the chosen place."""
    chosen = next((one for one in view.places if one.chosen), None)
    if not view.slots:
        return []
    first = -chosen.angle_deg if chosen else 0.0
    shapes = []
    for index in range(view.slots):
        angle = first + 360 * index / view.slots
        lit = index == 0 and chosen is not None
        shapes.append(polygon(_slot(angle), "face-due" if lit else "shim"))
    return shapes


def _slot(angle: float) -> list[Point]:
    wide = 8.0
    return [
        _at(angle - wide, _SPINDLE + 2), _at(angle + wide, _SPINDLE + 2),
        _at(angle + wide * 0.55, _BODY - 9), _at(angle - wide * 0.55, _BODY - 9),
    ]  # fmt: skip


def _holes(view: NutEnd) -> list[str]:
    shapes = []
    for index in range(view.openings if view.slots else 0):
        angle = 360 * index / view.openings
        mouth = [_at(angle - 8, _SPINDLE), _at(angle + 8, _SPINDLE), _at(angle, _SPINDLE - 9)]
        shapes += [polygon(mouth, "solid"), line(_at(angle, _SPINDLE - 9), _CENTRE, "construction")]
    return shapes


def _window(view: NutEnd) -> list[str]:
    """The angles that set a play inside the limits, as an arc with a post at each end."""
    if view.play_mm is None or not view.pitch_mm or view.limits is None:
        return []
    per_mm = 360 / view.pitch_mm
    low = max((view.play_mm - view.limits.highest) * per_mm, -175)
    high = min((view.play_mm - max(view.limits.lowest, 0)) * per_mm, 175)
    if low >= high:
        return []
    outer = [_at(low + (high - low) * i / 40, _GATE) for i in range(41)]
    inner = [_at(high - (high - low) * i / 40, _GATE - 14) for i in range(41)]
    posts = [line(_at(a, _GATE - 18), _at(a, _GATE + 6), "cross") for a in (low, high)]
    return [polygon([*outer, *inner], "gate-window"), *posts]


def _place(one: EndPlace) -> list[str]:
    at = _at(one.angle_deg, _GATE - 7)
    state = "gate-mark" if one.chosen else "face-read" if one.allowed else "face-open"
    out = _at(one.angle_deg, _LABELS + (8 if one.chosen else 0))
    side = math.sin(math.radians(one.angle_deg))
    anchor = "start" if side > 0.25 else "end" if side < -0.25 else "middle"
    words = f"{one.angle_deg:+.0f}°".replace("-", "−")
    css = "label strong lit" if one.chosen else "label faint"
    shapes = [circle(at, 6 if one.chosen else 5, state)]
    if not one.allowed:
        shapes.append(line((at[0] - 3, at[1] - 3), (at[0] + 3, at[1] + 3), "ink"))
    shapes.append(text((out[0], out[1]), words, css, 15 if one.chosen else 12, text_anchor=anchor))
    if one.play:
        size = 14 if one.chosen else 11
        shapes.append(text((out[0], out[1] + size), one.play, css, size, text_anchor=anchor))
    return shapes


def _turn(angle: float) -> list[str]:
    """From where the nut stands to its place, with a head."""
    radius = _BODY + 4
    steps = [angle * i / 24 for i in range(25)]
    tip, back = _at(angle, radius), _at(angle - math.copysign(8, angle), radius)
    ux, uy = tip[0] - back[0], tip[1] - back[1]
    head = [tip, (back[0] - uy * 0.6, back[1] + ux * 0.6), (back[0] + uy * 0.6, back[1] - ux * 0.6)]
    return [
        polyline([_at(a, radius) for a in steps[:-2]], "clock-turn"),
        polygon(head, "force-head"),
    ]


def _seating(view: NutEnd) -> list[str]:
    """Each repeat as a wedge."""
    if not view.moves:
        return []
    left, top = 400.0, 60.0
    shapes = [
        text((left, top - 28), "Seated until still", "label strong", 14),
        text((left, top - 10), f"{view.torque}, hub turning: nut moved", "label faint", 11),
    ]
    for index, move in enumerate(view.moves[:8]):
        centre = (left + 28 + 58 * (index % 4), top + 34 + 84 * (index // 4))
        shapes.append(circle(centre, _SMALL, "part"))
        shapes.append(polygon(_wedge(centre, min(move, 359.0)), "solid"))
        label = text(
            (centre[0], centre[1] + 44), f"{move:g}°", "label strong", 13, text_anchor="middle"
        )
        shapes.append(label)
    still = view.moves[-1] <= 2
    words = "still: 2° or less" if still else "not still yet"
    row = top + 34 + 84 * ((min(len(view.moves), 8) - 1) // 4) + 70
    return [*shapes, text((left, row), words, "label strong" if still else "label lit", 13)]


def _wedge(centre: Point, move: float) -> list[Point]:
    steps = max(int(move // 6), 1)
    rim = [
        (centre[0] + _SMALL * math.sin(math.radians(move * i / steps)),
         centre[1] - _SMALL * math.cos(math.radians(move * i / steps)))
        for i in range(steps + 1)
    ]  # fmt: skip
    return [centre, *rim]


def _at(angle_deg: float, radius: float) -> Point:
    turn = math.radians(angle_deg)
    return _CENTRE[0] + radius * math.sin(turn), _CENTRE[1] - radius * math.cos(turn)


def _title(view: NutEnd, near: Sequence[EndPlace]) -> str:
    said = [
        f"{one.angle_deg:.0f} degrees{', play ' + one.play if one.play else ''}: "
        + ("take it" if one.chosen else "allowed" if one.allowed else "not allowed")
        for one in _labelled(near)
    ]
    moves = ", ".join(f"{one:g}" for one in view.moves)
    seated = f" Seating moved the nut {moves} degrees." if moves else ""
    return f"The nut from its end. Lock places: {'; '.join(said) or 'not known yet'}.{seated}"
