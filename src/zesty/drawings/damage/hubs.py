"""Hub face, journal, key and stud: sound, and as they fail."""

import math
from collections.abc import Callable

from zesty.drawings.damage.pen import arc, edge, fine, outline, ring, solid, stipple, word
from zesty.drawings.svg import Point, circle, element, rect

_C = (100.0, 70.0)


def _face(*, oval: int = -1) -> list[str]:
    """A hub's face with its pilot, bore and stud holes."""
    drawn = [
        circle(_C, 60, "dm-out"),
        circle(_C, 26, "dm-out"),
        circle(_C, 22, "dm-line-round"),
        circle(_C, 13, "dm-out"),
    ]
    for index in range(5):
        x, y = _stud(index)
        if index == oval:
            drawn.append(element("ellipse", cx=x, cy=y, rx=10.5, ry=6, class_="dm-out"))
        else:
            drawn.append(circle((x, y), 6, "dm-out"))
    return drawn


def _stud(index: int) -> Point:
    turn = 2 * math.pi * index / 5 - math.pi / 2
    return _C[0] + 43 * math.cos(turn), _C[1] + 43 * math.sin(turn)


def _pilot_worn() -> list[str]:
    worn = [*arc(_C, 26, 26, 20, 130), *reversed(arc((_C[0] - 3, _C[1] - 3), 24, 24, 20, 130))]
    return [*_face(), solid(worn), *ring((_C[0] + 8, _C[1] + 24), 26, 13)]


def _holes_oval() -> list[str]:
    x, y = _stud(1)
    dashed = element("circle", cx=x, cy=y, r=6, class_="dm-dashed")
    return [*_face(oval=1), dashed, *ring((x, y), 18, 14)]


def _crack() -> list[str]:
    x, y = _stud(2)
    line = [
        (x - 3, y - 7),
        (x - 9, y - 15),
        (x - 6, y - 20),
        (x - 14, y - 28),
        (_C[0] + 11, _C[1] + 9),
    ]
    return [
        *_face(),
        element("path", d="M" + " L".join(f"{a:.1f} {b:.1f}" for a, b in line), class_="dm-heavy"),
        *ring((x - 10, y - 20), 15, 20),
    ]


def _bore(extra: list[str]) -> list[str]:
    """A bore seen into, its wall in view."""
    return [
        outline([(24, 16), (176, 16), (176, 124), (24, 124)]),
        element("ellipse", cx=100, cy=70, rx=58, ry=44, class_="dm-out"),
        element("ellipse", cx=108, cy=72, rx=44, ry=34, class_="dm-out"),
        *extra,
    ]


def _bore_worn() -> list[str]:
    lines = [edge(arc((104, 71), 49 + step * 1.8, 37 + step * 1.4, 110, 240)) for step in range(5)]
    return _bore([*lines, *ring((54, 74), 14, 34)])


def _rust_bore() -> list[str]:
    def dense(x: float, y: float) -> float:
        outer = ((x - 100) / 58) ** 2 + ((y - 70) / 44) ** 2
        inner = ((x - 108) / 44) ** 2 + ((y - 72) / 34) ** 2
        return 0.9 if outer < 0.97 and inner > 1.03 else 0.0

    return _bore(
        [
            stipple("rust", (40, 24, 164, 116), dense, 1400),
            *ring((56, 72), 15, 34),
            word((100, 75), "rust"),
        ]
    )


def _journal(extra: list[str]) -> list[str]:
    """A shaft from the side: shoulder, lip track, seat."""
    return [
        outline(
            [(10, 30), (70, 30), (70, 44), (190, 44), (190, 96), (70, 96), (70, 110), (10, 110)]
        ),
        edge([(70, 44), (70, 96)]),
        *(fine([(84 + step * 4, 48), (84 + step * 4, 92)]) for step in range(3)),
        edge([(126, 44), (126, 96)]),
        *extra,
    ]


def _track_groove() -> list[str]:
    notch = [(96, 44), (99, 49), (102, 44)], [(96, 96), (99, 91), (102, 96)]
    lines = [element("path", d=f"M{x} 46V94", class_="dm-heavy") for x in (98, 101)]
    return _journal([solid(notch[0]), solid(notch[1]), *lines, *ring((99, 70), 14, 40)])


def _seat_turned() -> list[str]:
    runs = ((130 + step * 5, 50 + (step % 3) * 3, 32 + (step % 4) * 3) for step in range(11))
    lines = [element("path", d=f"M{x} {y}v{long}", class_="dm-heavy") for x, y, long in runs]
    return _journal([*lines, *ring((158, 70), 34, 36)])


def _burr() -> list[str]:
    spike = [(124, 44), (126, 34), (131, 40), (134, 44)]
    return _journal(
        [solid(spike), solid([(66, 30), (71, 22), (73, 32), (70, 36)]), *ring((129, 41), 15, 13)]
    )


def _shoulder_crack() -> list[str]:
    line = "M71 46L76 54L72 61L78 70L73 79L77 88L72 95"
    return _journal([element("path", d=line, class_="dm-heavy"), *ring((74, 70), 14, 34)])


def _key(extra: list[str], gap: float = 0.0) -> list[str]:
    """A key in its way, from the end."""
    return [
        outline(
            [
                (20, 66),
                (70 - gap, 66),
                (70 - gap, 100),
                (130 + gap, 100),
                (130 + gap, 66),
                (180, 66),
                (180, 128),
                (20, 128),
            ]
        ),
        outline([(72, 40), (128, 40), (128, 99), (72, 99)]),
        *extra,
    ]


def _key_burred() -> list[str]:
    burr = [(70, 40), (66, 33), (80, 37), (94, 32), (108, 37), (122, 31), (134, 34), (130, 41)]
    return _key([solid(burr), *ring((100, 36), 40, 12)])


def _key_loose() -> list[str]:
    return _key([*ring((65, 84), 12, 20), *ring((135, 84), 12, 20)], gap=9)


def _stud_side(flat: range = range(0), extra: list[str] | None = None) -> list[str]:
    """A stud from the side: head, shank, thread."""
    drawn = [outline([(20, 40), (34, 40), (34, 100), (20, 100)]), rect(34, 52, 40, 36, "dm-out")]
    top, low = [(74.0, 54.0)], [(74.0, 86.0)]
    for step in range(13):
        x = 78 + step * 8
        high = 2 if step in flat else 8
        top += [(x, 54 - high + 4), (x + 4, 58)]
        low += [(x, 86 + high - 4), (x + 4, 82)]
    drawn.append(outline([*top, (182, 60), (182, 80), *reversed(low)]))
    drawn += [
        fine([(78 + step * 8, 54), (82 + step * 8, 86)]) for step in range(13) if step not in flat
    ]
    return [*drawn, *(extra or [])]


def _stud_damaged() -> list[str]:
    smear = [solid([(108, 53), (142, 50), (146, 58), (112, 60)])]
    return _stud_side(range(4, 9), [*smear, *ring((126, 58), 28, 16)])


def _stud_loose() -> list[str]:
    turn = element("path", d="M48 30A28 14 0 0 1 84 34", class_="dm-heavy")
    head = solid([(82, 28), (92, 37), (80, 40)])
    return _stud_side(extra=[turn, head, *ring((54, 70), 26, 28)])


PICTURES: dict[str, Callable[[], list[str]]] = {
    "hub_sound": _face,
    "pilot_worn": _pilot_worn,
    "holes_oval": _holes_oval,
    "crack": _crack,
    "bore_worn": _bore_worn,
    "rust_bore": _rust_bore,
    "journal_sound": lambda: _journal([]),
    "track_groove": _track_groove,
    "seat_turned": _seat_turned,
    "burr": _burr,
    "shoulder_crack": _shoulder_crack,
    "key_sound": lambda: _key([]),
    "key_burred": _key_burred,
    "key_loose": _key_loose,
    "stud_sound": _stud_side,
    "stud_damaged": _stud_damaged,
    "stud_loose": _stud_loose,
}
