"""A seal's section and what grease looks like on a finger."""

import math
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
from zesty.drawings.svg import Point, circle, element, polygon, text

_BODY: list[Point] = [
    (46, 62), (62, 58), (78, 76), (98, 72), (112, 54), (146, 54), (156, 72), (134, 96), (122, 112),
    (110, 96), (86, 92),
    (66, 88), (52, 106), (40, 112), (46, 88),
]  # fmt: skip
_TIP = (122.0, 112.0)
_SPRING = (134.0, 66.0)


def _seal(
    body: list[Point] | None = None,
    *,
    spring: bool = True,
    shell: list[Point] | None = None,
    extra: list[str] | None = None,
) -> list[str]:
    """A lip seal cut through on its track: case in ink, rubber grey, the spring above the lip."""
    case = shell or [(40, 22), (164, 22), (164, 32), (54, 32), (54, 66), (40, 66)]
    drawn = [edge([(20, 112), (184, 112)]), polygon(body or _BODY, "dm-rubber"), solid(case)]
    drawn.append(
        circle(_SPRING, 9, "dm-out")
        if spring
        else element("circle", cx=_SPRING[0], cy=_SPRING[1], r=9, class_="dm-dashed")
    )
    return [*drawn, *(extra or [])]


def _lip_hard() -> list[str]:
    cracks = [
        element("path", d=f"M{x} {y}l{dx} {dy}l{-dy} {dx}", class_="dm-paper-line")
        for x, y, dx, dy in (
            (116, 82, 4, 7),
            (126, 84, -3, 8),
            (108, 84, 5, 4),
            (134, 80, -5, 5),
            (120, 94, 3, 6),
        )
    ]
    return _seal(extra=[*cracks, *ring((122, 96), 22, 22)])


def _lip_swollen() -> list[str]:
    fat = [(46, 62), (62, 54), (78, 68), (98, 62), (112, 46), (150, 46), (164, 70), (146, 98), (126, 114),
    (104, 104),
           (84, 100), (64, 96), (52, 110), (36, 113), (42, 88)]  # fmt: skip
    dashed = element(
        "path", d="M" + " L".join(f"{x} {y}" for x, y in _BODY) + "Z", class_="dm-dashed"
    )
    return _seal([(float(x), float(y)) for x, y in fat], extra=[dashed, *ring((124, 90), 44, 34)])


def _lip_torn() -> list[str]:
    torn = [*_BODY[:7], (140.0, 90.0), (130.0, 86.0), (126.0, 98.0), (118.0, 92.0), *_BODY[9:]]
    missing = element("path", d="M134 96L122 112L110 96", class_="dm-dashed")
    return _seal(torn, extra=[missing, *ring((122, 100), 22, 18)])


def _lip_slant() -> list[str]:
    """The worn band round the lip: wide at one side, narrow at the other."""
    band = [*arc((100, 72), 62, 44, 0, 360, 60)]
    inner = [
        (100 + (50 - 9 * math.cos(math.radians(a))) * math.cos(math.radians(a)),
         72 + (34 - 6 * math.cos(math.radians(a))) * math.sin(math.radians(a)))
        for a in range(0, 361, 6)
    ]  # fmt: skip
    return [
        outline(band), circle((100, 72), 66, "dm-none"), polygon(arc((100, 72), 54, 37, 0, 360, 60),
        "dm-rubber"),
        polygon(inner, "dm-paper-fill"), edge(inner), edge(arc((100, 72), 38, 24, 0, 360, 60)),
        text((160, 24), "wide", "label", 11), text((6, 24), "narrow", "label", 11), *ring((142, 72), 18, 26),
    ]  # fmt: skip


def _spring_lost() -> list[str]:
    return _seal(spring=False, extra=[*ring(_SPRING, 18, 16)])


def _shell_dented() -> list[str]:
    dented = [
        (40, 22),
        (84, 22),
        (98, 38),
        (112, 22),
        (164, 22),
        (164, 32),
        (116, 32),
        (100, 50),
        (84, 32),
        (54, 32),
        (54, 66),
        (40, 66),
    ]
    return _seal(shell=[(float(x), float(y)) for x, y in dented], extra=[*ring((98, 32), 26, 20)])


def _finger(inside: list[str], words: str = "") -> list[str]:
    """A smear on a fingertip; the word is the evidence where it is a colour."""
    tip = [(8, 124), (8, 84), *arc((44, 84), 36, 34, 180, 360), (80, 124)]
    smear = blob("smear", (124, 72), 50, 0.12, 22)
    drawn = [outline([(float(x), float(y)) for x, y in tip]), edge(arc((44, 66), 20, 10, 200, 340)),
    polygon(smear, "dm-paper-fill"), *inside,
             edge([*smear, smear[0]])]  # fmt: skip
    return [*drawn, word((124, 136), words)] if words else drawn


def _in_smear(share: float) -> Callable[[float, float], float]:
    return lambda x, y: share if ((x - 124) / 46) ** 2 + ((y - 72) / 36) ** 2 < 1 else 0.0


def _swirl() -> list[str]:
    return [
        fine(arc((124, 72), 12 + step * 9, 9 + step * 7, 200 - step * 20, 420 - step * 30))
        for step in range(4)
    ]


def _rusty() -> list[str]:
    return _finger(
        [stipple("rusty", (76, 34, 172, 110), _in_smear(0.55), 900), *ring((124, 72), 40, 32)],
        "red-brown",
    )


def _milky() -> list[str]:
    drops = [
        circle((100 + 12 * (i % 5), 52 + 10 * (i // 5)), 3.2, "dm-line-round") for i in range(20)
    ]
    return _finger([*drops, *ring((124, 72), 40, 32)], "white, like milk")


def _black() -> list[str]:
    return _finger([polygon(blob("smear", (124, 72), 46, 0.12, 22), "dm-solid")], "black")


def _metallic() -> list[str]:
    rng = random.Random("metal")  # noqa: S311
    flakes = []
    for _ in range(34):
        x, y = rng.uniform(88, 160), rng.uniform(46, 98)
        flakes.append(solid([(x, y - 3), (x + 2, y), (x, y + 3), (x - 2, y)]))
    return _finger([*_swirl(), *flakes, *ring((124, 72), 40, 32)], "glitter")


def _separated() -> list[str]:
    pool = element("ellipse", cx=150, cy=102, rx=34, ry=14, class_="dm-out")
    lumps = [
        polygon(blob(f"lump{i}", (104 + 18 * i, 62 + 6 * (i % 2)), 12, 0.3), "dm-rubber")
        for i in range(3)
    ]
    return _finger(
        [pool, *lumps, *(dot((140 + 8 * i, 102), 2) for i in range(3)), *ring((150, 102), 40, 18)],
        "oil beside soap",
    )


PICTURES: dict[str, Callable[[], list[str]]] = {
    "seal_sound": _seal,
    "lip_hard": _lip_hard,
    "lip_swollen": _lip_swollen,
    "lip_torn": _lip_torn,
    "lip_slant": _lip_slant,
    "spring_lost": _spring_lost,
    "shell_dented": _shell_dented,
    "grease_sound": lambda: _finger(_swirl(), "clean"),
    "grease_rusty": _rusty,
    "grease_milky": _milky,
    "grease_black": _black,
    "grease_metallic": _metallic,
    "grease_separated": _separated,
}
