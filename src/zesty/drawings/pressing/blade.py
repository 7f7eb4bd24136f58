"""A thin blade tried round a ring: its face as a clock, and cut where it is shut and where it enters."""

import math
from collections.abc import Mapping, Sequence

from wheelend.circle import clock_angle
from wheelend.procedure.items.pressing import CLOCK
from zesty.drawings.cut import housing, ring
from zesty.drawings.svg import Point, arrow, circle, drawing, element, line, rect, text

_CLOCK = {clock: clock_angle(clock) for clock in CLOCK}
_C: Point = (190.0, 200.0)
_OUTER, _LIP, _INNER, _MARK = 132.0, 112.0, 90.0, 160.0
_GAP = 13.0
"""How far apart ring and shoulder are drawn: far too wide."""


def blade_view(said: Mapping[str, str], due: str, name: str, *, narrow: bool = False) -> str:
    """`said` is out or enters, by clock place; `due` is where it is tried now."""
    enters = [clock for clock in _CLOCK if said.get(clock) == "enters"]
    face = [*_face(enters), *(mark for clock in _CLOCK for mark in _place(clock, said, due))]
    face.append(text((_C[0], _C[1] + 6), name, "label strong", 16, text_anchor="middle"))
    words = ", ".join(f"{clock}: {what}" for clock, what in said.items())
    title = f"{name}, a thin blade tried round it. {words}"
    if narrow:
        return drawing(380, 390, face, title)
    place = enters[0] if enters else due
    return drawing(760, 420, [*face, *_cuts(place, said, bool(enters))], title)


def _face(enters: Sequence[str]) -> list[str]:
    drawn = [
        circle(_C, _OUTER, "part ring-cut"),
        circle(_C, _LIP, "construction"),
        circle(_C, _INNER, "part"),
    ]
    return drawn + [_sliver(_CLOCK[clock]) for clock in enters]


def _sliver(angle: float) -> str:
    """The gap behind the ring, widest where the blade enters."""
    a, b = _at(_LIP, angle - 48), _at(_LIP, angle + 48)
    flat = _LIP * 1.32
    path = (
        f"M{a[0]:.1f} {a[1]:.1f}A{_LIP} {_LIP} 0 0 1 {b[0]:.1f} {b[1]:.1f}"
        f"A{flat:.0f} {flat:.0f} 0 0 0 {a[0]:.1f} {a[1]:.1f}Z"
    )
    return element("path", d=path, class_="gap-shown")


def _place(clock: str, said: Mapping[str, str], due: str) -> list[str]:
    angle = _CLOCK[clock]
    answer = said.get(clock, "")
    state = "due" if clock == due or answer == "enters" else "read" if answer else "open"
    drawn = []
    if state != "open":
        reach = _LIP if answer == "enters" else _INNER - 4
        look = "blade lit" if state == "due" else "blade"
        drawn.append(line(_at(_INNER - 30, angle), _at(reach, angle), look))
    x, y = _at(_MARK, angle)
    return [
        *drawn,
        circle((x, y), 21, f"face-{state}"),
        text((x, y + 7), clock, f"face-{state}-text", 20, text_anchor="middle"),
    ]


def _cuts(place: str, said: Mapping[str, str], enters: bool) -> list[str]:
    """Two cuts through housing and ring: shut across, and the place in question."""
    across = str((int(place) % 12 + 6 - 1) % 12 + 1)
    drawn = [*_cut(32.0, 1, 0.0), *_cut(392.0, -1, _GAP if enters else 0.0)]
    drawn += [
        line((398, 212), (748, 212), "centre-line"),
        text((398, 196), f"at {across}: {_state(said.get(across, ''))}", "label", 15),
        text(
            (390, 240),
            f"at {place}: {'it enters' if enters else 'try it'}",
            "label strong lit",
            14,
        ),
        rect(532.0, 262.0, 9, 68 if enters else 18, "blade-flat"),
        rect(528.0, 222.0, 17, 42, "blade-grip"),
    ]
    if enters:
        drawn += [
            arrow((748, 322), (664, 322)),
            text((748, 304), "press here", "label strong lit", 15, text_anchor="end"),
            text((748, 412), "gap drawn far too wide", "label faint", 13, text_anchor="end"),
        ]
    return drawn


def _state(answer: str) -> str:
    return {"out": "shut", "enters": "it enters too"}.get(answer, "not tried yet")


def _cut(top: float, way: int, gap: float) -> list[str]:
    """The housing's shoulder and the ring on it; `way` is −1 where it is below the axis."""

    def at(x: float, y: float) -> Point:
        return 420 + x, top + way * y

    body = [
        at(0, 0),
        at(320, 0),
        at(320, 40),
        at(236, 40),
        at(236, 60),
        at(110, 60),
        at(110, 104),
        at(0, 104),
    ]
    cup = [
        at(110 + gap, 60),
        at(214 + gap, 60),
        at(222 + gap, 68),
        at(222 + gap, 80),
        at(112 + gap, 112),
    ]
    return [*housing(body), *ring(cup)]


def _at(reach: float, angle: float) -> Point:
    turn = math.radians(angle)
    return _C[0] + reach * math.sin(turn), _C[1] - reach * math.cos(turn)
