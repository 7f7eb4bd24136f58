"""Where each meaning of a typed number would stand: an axis on which each long mark is ten times the last."""

import math
from collections.abc import Sequence

from zesty.drawings.svg import drawing, line, polygon, rect, text, text_width

_WIDTH, _HEIGHT, _AXIS, _MARGIN = 740.0, 128.0, 84.0, 34.0


def decades(
    meanings: Sequence[tuple[float, str]], low: float, high: float, unit: str, title: str
) -> str:
    """Meanings as (value, words) beside a window; all above 0 and in one unit."""
    every = [value for value, _ in meanings] + [low, high]
    first = math.floor(math.log10(min(every)) - 0.15)
    last = math.ceil(math.log10(max(every)) + 0.15)
    scale = (_WIDTH - 2 * _MARGIN) / (last - first)

    def at(value: float) -> float:
        return _MARGIN + (math.log10(value) - first) * scale

    parts = [
        rect(at(low), _AXIS - 12, at(high) - at(low), 12, "gate-window"),
        line((_MARGIN, _AXIS), (_WIDTH - _MARGIN, _AXIS), "gate-axis"),
        rect(at(low) - 3, _AXIS - 30, 6, 30, "gate-post"),
        rect(at(high) - 3, _AXIS - 30, 6, 30, "gate-post"),
    ]
    for power in range(first, last + 1):
        x = at(10.0**power)
        parts += [line((x, _AXIS), (x, _AXIS + 11), "gate-tick")]
        parts += [text((x, _AXIS + 28), f"{10.0**power:g}", "label", 14, text_anchor="middle")]
        if power < last:
            steps = (at(n * 10.0**power) for n in range(2, 10))
            parts += [line((x, _AXIS), (x, _AXIS + 5), "gate-tick") for x in steps]
    for (value, words), x, row in zip(
        meanings, *_labels([(at(v), w) for v, w in meanings]), strict=True
    ):
        y = _AXIS - 20
        parts += [
            polygon([(at(value), y - 10), (at(value) + 10, y), (at(value), y + 10), (at(value) - 10, y)],
                    "trial-odd thin"),
            text((x, y - 18 - 18 * row), words, "label strong", 17, text_anchor="middle"),
        ]  # fmt: skip
    parts.append(
        text((_WIDTH - _MARGIN, _HEIGHT - 2), f"{unit}, each long mark ten times the last",
             "label faint", 12, text_anchor="end")
    )  # fmt: skip
    return drawing(_WIDTH, _HEIGHT, parts, title)


def _labels(meant: Sequence[tuple[float, str]]) -> tuple[list[float], list[int]]:
    """Where the words stand: over their marks, inside the drawing, a row higher where they would meet."""
    across: list[float] = []
    rows: list[int] = []
    for x, words in meant:
        half = text_width(words, 17) / 2
        inside = min(max(x, half), _WIDTH - half)
        meets = [
            row
            for other, row, (_, said) in zip(across, rows, meant, strict=False)
            if abs(other - inside) < half + text_width(said, 17) / 2 + 8
        ]
        across.append(inside)
        rows.append(next(row for row in range(len(meant) + 1) if row not in meets))
    return across, rows
