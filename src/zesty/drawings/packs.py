"""Packs drawn to scale, edge on."""

from collections.abc import Sequence

from wheelend.wording import pack
from zesty.drawings.svg import drawing, rect, text

_HEIGHT = 40.0
_GAP = 2.0
_SLIMMEST = 3.0


def pack_scale(packs: Sequence[Sequence[float]], width: float) -> float:
    """One scale, px per mm, at which the thickest of some packs just fits."""
    room = [
        (width - (_GAP + 1) * len(shims)) / sum(shims)
        for shims in packs
        if shims and sum(shims) > 0
    ]
    return max(min(room, default=100.0), 1.0)


def pack_bar(
    shims_mm: Sequence[float], scale: float, new: Sequence[float] = (), *, width: float = 120
) -> str:
    """A pack edge on; shims that are put in are lit."""
    fresh = list(new)
    parts: list[str] = []
    x = 1.0
    for shim in shims_mm:
        lit = shim in fresh
        if lit:
            fresh.remove(shim)
        thick = max(shim * scale, _SLIMMEST)
        parts.append(rect(x, 3, thick, _HEIGHT - 6, "shim new" if lit else "shim"))
        x += thick + _GAP
    if not parts:
        parts.append(text((4, 25), "no shims", "label faint", 12))
    return drawing(width, _HEIGHT, parts, f"Pack {pack(shims_mm)}")
