"""The stack laid out flat: as the card has it, and under it as it came off; what is odd stands out."""

from collections.abc import Sequence
from dataclasses import dataclass

from zesty.drawings.section.hatching import hatch_lines
from zesty.drawings.section.sheet import RING, SPACER, Hatch
from zesty.drawings.svg import circle, drawing, element, line, polygon, rect, text

_W, _ROW = 760.0, 150.0
_TALLEST = 84.0
_THINNEST, _WIDEST = 9.0, 84.0
_UNKNOWN_MM = 8.0


@dataclass(frozen=True)
class LaidPart:
    """One part: its card's width and outside in mm, how it came off, and the width that was measured.

    `found` is as_card, reversed, other, missing or empty where it was not looked at yet.
    """

    name: str
    width_mm: float | None
    height: float
    found: str
    measured_mm: float | None
    due: bool = False


def laid_out(parts: Sequence[LaidPart], *, width: float = _W) -> str:
    """Two rows of the same parts, scaled alike, in the order of the stack."""
    scale = _scale(parts, width)
    drawn = [
        text((12, 20), "As the card has it, inboard to outboard, mm", "label faint", 12),
        line((12, _ROW + 10), (width - 12, _ROW + 10), "faint-line"),
        text((12, _ROW + 30), "As it came off", "label faint", 12),
    ]
    gap = (width - 24 - sum(_wide(one.width_mm, scale) for one in parts)) / max(len(parts), 1)
    x = 12 + gap / 2
    for number, one in enumerate(parts, 1):
        wide = _wide(one.width_mm, scale)
        middle = x + wide / 2
        drawn += _part(one, x, wide, 82.0, number)
        drawn.append(text((middle, 146), _size(one.width_mm), "label", 11, text_anchor="middle"))
        drawn += _found(one, x, number, scale)
        x += wide + gap
    return drawing(width, 2 * _ROW + 34, drawn, _title(parts))


def _scale(parts: Sequence[LaidPart], width: float) -> float:
    total = sum(min(one.width_mm or _UNKNOWN_MM, 60) for one in parts)
    return min((width - 24 - 22 * len(parts)) / max(total, 1.0), 4.0)


def _wide(width_mm: float | None, scale: float) -> float:
    return min(max((width_mm or _UNKNOWN_MM) * scale, _THINNEST), _WIDEST)


def _size(width_mm: float | None) -> str:
    return f"{width_mm:.2f}".rstrip("0").rstrip(".") if width_mm else "–"


def _part(one: LaidPart, x: float, wide: float, y: float, number: int, look: str = "") -> list[str]:
    high = _TALLEST * one.height
    box = [(x, y - high / 2), (x, y + high / 2), (x + wide, y + high / 2), (x + wide, y - high / 2)]
    hatch = RING if number % 2 else Hatch(SPACER.way, 6.2)
    lines = "".join(
        f"M{a[0]:.1f} {a[1]:.1f}L{b[0]:.1f} {b[1]:.1f}" for a, b in hatch_lines(box, hatch)
    )
    return [
        polygon(box, f"s-cut edge {look}".strip()),
        element("path", d=lines or "M0 0", class_="s-hatch"),
    ]


def _found(one: LaidPart, x: float, number: int, scale: float) -> list[str]:
    wide = _wide(one.measured_mm or one.width_mm, scale)
    y = _ROW + 108
    middle = x + wide / 2
    ball = "balloon-full" if one.found else "balloon lit" if one.due else "balloon"
    shade = "label on-ink" if one.found else "label"
    drawn = [
        circle((middle, _ROW + 48), 10, ball),
        text((middle, _ROW + 52), str(number), shade, 11, text_anchor="middle"),
    ]
    high = _TALLEST * one.height
    if one.found == "missing":
        drawn.append(rect(x, y - high / 2, wide, high, "not-there"))
        words = "not there"
    elif one.found:
        drawn += _part(one, x, wide, y, number, "odd-part" if one.found != "as_card" else "")
        words = {"reversed": "turned"}.get(one.found, _size(one.measured_mm or one.width_mm))
    else:
        return [*drawn, rect(x, y - high / 2, wide, high, "not-yet")]
    shade = "label lit strong" if one.found != "as_card" else "label"
    drawn.append(text((middle, 2 * _ROW + 22), words, shade, 11, text_anchor="middle"))
    return drawn


def _title(parts: Sequence[LaidPart]) -> str:
    odd = [
        f"{one.name} {one.found.replace('_', ' ')}"
        for one in parts
        if one.found not in ("", "as_card")
    ]
    done = sum(bool(one.found) for one in parts)
    return f"The stack as it came off: {done} of {len(parts)} parts" + (
        f"; {', '.join(odd)}" if odd else ""
    )
