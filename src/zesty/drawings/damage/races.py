"""A raceway laid flat, and rollers in their cage: what they look like sound, and what can be seen on them."""

import random
from collections.abc import Callable

from zesty.drawings.damage.pen import (
    arc,
    blob,
    dot,
    edge,
    fine,
    outline,
    ring,
    solid,
    stipple,
    word,
)
from zesty.drawings.svg import Point, circle, element

_TRACKS = 7
_SPACED = (0.14, 0.32, 0.5, 0.68, 0.86)


def _at(a: float, b: float) -> Point:
    """A point of the raceway: along its round, and across from its small end to its mouth."""
    wide = 124 + 46 * b
    return 100 + (a - 0.5) * wide, 16 + b * 92 + 13 * (1 - (2 * a - 1) ** 2)


def _row(b: float, start: float = 0.0, end: float = 1.0) -> list[Point]:
    return [_at(start + (end - start) * step / 16, b) for step in range(17)]


def _race(*, tracks: bool = True) -> list[str]:
    sides = (
        [_at(1, step / 8) for step in range(1, 8)],
        [_at(0, 1 - step / 8) for step in range(1, 8)],
    )
    drawn = [
        outline([*_row(0), *sides[0], *reversed(_row(1)), *sides[1]]),
        edge(_row(0.07)),
        edge(_row(0.9)),
    ]
    if tracks:
        rng = random.Random("tracks")  # noqa: S311
        for step in range(_TRACKS):
            b = 0.16 + step * 0.1
            gap = rng.uniform(0.2, 0.8)
            drawn += [fine(_row(b, 0.04, gap - 0.04)), fine(_row(b, gap + 0.03, 0.96))]
    return drawn


def _pits(seed: str, spots: list[tuple[float, float, float]]) -> list[str]:
    drawn = []
    for index, (a, b, size) in enumerate(spots):
        x, y = _at(a, b)
        drawn.append(solid(blob(f"{seed}{index}", (x, y), size)))
        drawn.append(
            fine(
                [
                    (x - size * 0.8, y + size * 0.9),
                    (x, y + size * 1.15),
                    (x + size * 0.9, y + size * 0.7),
                ]
            )
        )
    return drawn


def _flaked() -> list[str]:
    spots = [(0.4, 0.4, 7.0), (0.47, 0.52, 9.5), (0.55, 0.42, 6.0), (0.52, 0.64, 8.0), (0.6, 0.55, 5.0),
    (0.43, 0.66, 5.5),
             (0.35, 0.55, 3.5), (0.62, 0.36, 3.0), (0.38, 0.3, 2.5), (0.66, 0.66, 2.5)]  # fmt: skip
    return [*_race(), *_pits("flaked", spots), *ring(_at(0.5, 0.5), 46, 36)]


def _flaked_side() -> list[str]:
    rng = random.Random("side")  # noqa: S311
    spots = [(0.08 + 0.085 * step, 0.8, rng.uniform(2.5, 5.5)) for step in range(11)]
    return [*_race(), *_pits("side", spots), *ring(_at(0.5, 0.82), 84, 13)]


def _bar(a: float, half: float, start: float, end: float) -> list[Point]:
    left = [_at(a - half, start + (end - start) * step / 6) for step in range(7)]
    right = [_at(a + half, end - (end - start) * step / 6) for step in range(7)]
    return [*left, *right]


def _dents() -> list[str]:
    drawn = _race()
    for a in _SPACED:
        drawn += [
            solid(_bar(a, 0.022, 0.22, 0.8)),
            edge([_at(a + 0.045, 0.2), _at(a + 0.05, 0.5), _at(a + 0.045, 0.82)]),
        ]
    return [*drawn, *ring(_at(0.5, 0.5), 16, 44)]


def _grey_marks() -> list[str]:
    drawn = _race()
    for index, a in enumerate(_SPACED):
        x0, x1 = _at(a - 0.04, 0.5)[0], _at(a + 0.04, 0.5)[0]
        drawn.append(
            stipple(
                f"grey{index}", (x0, _at(a, 0.2)[1], x1, _at(a, 0.82)[1]), lambda _x, _y: 0.9, 150
            )
        )
    return [*drawn, *ring(_at(0.5, 0.5), 17, 44)]


def _stains() -> list[str]:
    drawn = _race()
    for index, (a, b, size) in enumerate(
        [
            (0.34, 0.45, 17.0),
            (0.66, 0.48, 19.0),
            (0.5, 0.7, 10.0),
            (0.5, 0.3, 7.0),
            (0.2, 0.7, 8.0),
            (0.83, 0.72, 8.0),
        ]
    ):
        x, y = _at(a, b)
        drawn.append(
            edge(
                [
                    *blob(f"stain{index}", (x, y), size, 0.22, 16),
                    blob(f"stain{index}", (x, y), size, 0.22, 16)[0],
                ]
            )
        )
        drawn.append(
            stipple(
                f"coast{index}", (x - size, y - size, x + size, y + size), _coast((x, y), size), 190
            )
        )
    return [*drawn, *ring(_at(0.34, 0.45), 25, 22)]


def _coast(at: Point, size: float) -> Callable[[float, float], float]:
    def dense(x: float, y: float) -> float:
        far = (((x - at[0]) / size) ** 2 + ((y - at[1]) / (0.8 * size)) ** 2) ** 0.5
        return max(0.0, far**2 * 0.8) if far < 0.95 else 0.0

    return dense


def _blued() -> list[str]:
    def dense(x: float, y: float) -> float:
        inside = 22 < y - 13 * (1 - ((x - 100) / 80) ** 2) < 106
        return (
            max(0.0, (x - 40) / 140) ** 2 * 1.3
            if inside and abs(x - 100) < 60 + (y - 20) * 0.22
            else 0.0
        )

    words = [word((48, 136), "straw"), word((104, 136), "brown"), word((158, 136), "blue")]
    return [
        *_race(),
        stipple("blue", (20, 16, 184, 122), dense, 2600),
        *ring(_at(0.84, 0.5), 20, 36),
        *words,
    ]


def _scored() -> list[str]:
    drawn = _race(tracks=False)
    rng = random.Random("scored")  # noqa: S311
    for step in range(9):
        b = 0.18 + step * 0.078
        start, end = rng.uniform(0.05, 0.3), rng.uniform(0.7, 0.94)
        drawn.append(
            solid(
                [
                    _at(start, b),
                    *_row(b - 0.012, start + 0.1, end),
                    *reversed(_row(b + 0.014, start + 0.1, end)),
                ]
            )
        )
        drawn.append(dot(_at(end, b), rng.uniform(1.6, 4.2)))
    return [*drawn, *ring(_at(0.84, 0.5), 18, 15)]


def _washboard() -> list[str]:
    drawn = _race(tracks=False)
    drawn += [solid(_bar(0.05 + step * 0.9 / 30, 0.0075, 0.14, 0.84)) for step in range(31)]
    return [*drawn, *ring(_at(0.5, 0.5), 38, 40)]


_LENS = (128.0, 68.0)
_RADIUS = 54.0


def _lens(inside: list[str], *, lit: bool) -> list[str]:
    """A cone at the left with a lens on it: three rollers between cage bars, square on."""
    ellipse = element("ellipse", cx=36, cy=46, rx=28, ry=10, class_="dm-out")
    body = [
        outline([(8, 46), (14, 98), *arc((36, 98), 22, 8, 180, 0), (64, 46)]),
        ellipse,
        element("ellipse", cx=36, cy=46, rx=17, ry=6, class_="dm-solid"),
        *(
            edge([(14 + step * 11, 56 + 3 * (step in (1, 2, 3))), (17 + step * 9.5, 100)])
            for step in range(5)
        ),
    ]
    frame = "dm-ring" if lit else "dm-out-line"
    return [*body, circle(_LENS, _RADIUS, "dm-paper"), *inside, circle(_LENS, _RADIUS, frame)]


def _rollers(*, tilt: float = 0.0) -> list[str]:
    drawn = [
        edge(arc((_LENS[0], _LENS[1] + 8), 50, 34, 25, 155)),
        edge(arc((_LENS[0], 42), 46, 18, 205, 335)),
    ]
    for index, x in enumerate((96.0, 121.0, 146.0)):
        lean = tilt if index == 1 else 0.0
        drawn.append(
            outline([(x + lean, 36), (x + 16 + lean, 36), (x + 18 - lean, 92), (x - 1 - lean, 92)])
        )
        drawn += [
            fine([(x + 4 + lean, 40), (x + 3 - lean, 88)]),
            fine([(x + 12 + lean, 40), (x + 13 - lean, 88)]),
        ]
    return drawn


def _smeared() -> list[str]:
    inside = _rollers()
    rng = random.Random("smear")  # noqa: S311
    for _ in range(26):
        x, y = rng.uniform(92, 160), rng.uniform(82, 98)
        inside.append(edge([(x, y), (x + rng.uniform(5, 14), y + rng.uniform(-1.5, 2.5))]))
    return _lens(
        [
            *inside,
            solid([(94, 93), (112, 89), (130, 94), (150, 90), (164, 94), (150, 98), (110, 98)]),
        ],
        lit=True,
    )


def _cage_broken() -> list[str]:
    inside = _rollers(tilt=4.0)
    inside += [solid([(112, 30), (119, 44), (114, 52), (121, 62), (115, 66), (108, 52), (112, 44)]),
               edge([(112, 22), (118, 30), (112, 34), (119, 40)])]  # fmt: skip
    return _lens(inside, lit=True)


def _ring_turned() -> list[str]:
    inside = [
        fine([(80 + step * 2, 30 + step * 7), (176 - step * 2, 26 + step * 7)])
        for step in range(12)
    ]
    rng = random.Random("creep")  # noqa: S311
    for _ in range(22):
        x, y = rng.uniform(86, 150), rng.uniform(32, 102)
        inside.append(
            element("path", d=f"M{x:.1f} {y:.1f}h{rng.uniform(10, 26):.1f}", class_="dm-heavy")
        )
    inside += [_spark((112, 62)), _spark((148, 82))]
    return _lens(inside, lit=True)


def _spark(at: Point) -> str:
    x, y = at
    points = [
        (x, y - 12),
        (x + 2.4, y - 2.4),
        (x + 9, y),
        (x + 2.4, y + 2.4),
        (x, y + 12),
        (x - 2.4, y + 2.4),
        (x - 9, y),
        (x - 2.4, y - 2.4),
    ]
    return outline(points)


PICTURES: dict[str, Callable[[], list[str]]] = {
    "bearing_sound": _race,
    "flaked": _flaked,
    "flaked_side": _flaked_side,
    "dents": _dents,
    "grey_marks": _grey_marks,
    "stains": _stains,
    "blued": _blued,
    "scored": _scored,
    "washboard": _washboard,
    "smeared": _smeared,
    "cage_broken": _cage_broken,
    "ring_turned": _ring_turned,
}
