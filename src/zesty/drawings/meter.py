"""A needle that swings: the band that was read between the posts of what is allowed."""

import math
from dataclasses import dataclass

from wheelend.verdict import Limits
from zesty.drawings.svg import Point, drawing, line, polygon, polyline, text

_WIDTH, _HEIGHT = 300.0, 250.0
_CENTRE = (150.0, 138.0)
_RING = 96.0
_SWEEP = 240.0


@dataclass(frozen=True)
class Meter:
    """What the needle showed: `band` None before it was read; `word` what it comes to."""

    band: tuple[float, float] | None
    limits: Limits | None
    unit: str
    word: str


def meter(view: Meter, css: str = "") -> str:
    """The meter as a drawing."""
    full = _full(view)
    parts = [polyline([_at(i / 40, _RING) for i in range(41)], "gate-axis")]
    if view.limits and view.limits.window is not None:
        low, high = view.limits.lowest / full, view.limits.highest / full
        parts.append(polygon(_sector(low, high, _RING, _RING - 30), "gate-window"))
        parts += [line(_at(a, _RING - 34), _at(a, _RING + 5), "cross") for a in (low, high)]
        parts += [
            _number(a, f"{v:.3g}", "label strong")
            for a, v in ((low, view.limits.lowest), (high, view.limits.highest))
        ]
    parts += _ticks(full, view)
    words = "not read yet"
    if view.band:
        low, high = (min(one / full, 1.0) for one in view.band)
        parts.append(
            polygon(_sector(low, max(high, low + 0.012), _RING + 8, _RING - 22), "gate-mark")
        )
        words = f"{view.band[0]:.3g} to {view.band[1]:.3g}"
    parts += [
        text((_CENTRE[0], _CENTRE[1] + 8), words, "label strong lit", 22, text_anchor="middle"),
        text(
            (_CENTRE[0], _CENTRE[1] + 30),
            f"{view.unit}, turning",
            "label faint",
            12,
            text_anchor="middle",
        ),
        text((_CENTRE[0], _CENTRE[1] + 78), view.word, "label strong", 18, text_anchor="middle"),
        text(
            (_CENTRE[0], _HEIGHT - 6),
            "the first jerk does not count",
            "label faint",
            11,
            text_anchor="middle",
        ),
    ]
    return drawing(_WIDTH, _HEIGHT, parts, _title(view, words), css)


def _full(view: Meter) -> float:
    """The end of the scale: a round number above everything on it."""
    top = max(view.band[1] if view.band else 0.0, view.limits.highest if view.limits else 0.0, 1e-6)
    unit = 10 ** math.floor(math.log10(top * 1.3))
    return next(
        step * unit for step in (1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10) if step * unit >= top * 1.3
    )


def _ticks(full: float, view: Meter) -> list[str]:
    shapes = []
    taken = [view.limits.lowest, view.limits.highest] if view.limits and view.limits.window else []
    for index in range(7):
        value = full * index / 6
        share = index / 6
        shapes.append(line(_at(share, _RING), _at(share, _RING + 6), "gate-tick"))
        if all(abs(value - one) > full / 11 for one in taken):
            shapes.append(_number(share, f"{value:.2g}", "label faint"))
    return shapes


def _number(share: float, words: str, css: str) -> str:
    x, y = _at(share, _RING + 20)
    return text((x, y + 4), words, css, 12, text_anchor="middle")


def _sector(low: float, high: float, outer: float, inner: float) -> list[Point]:
    steps = 16
    rim = [_at(low + (high - low) * i / steps, outer) for i in range(steps + 1)]
    back = [_at(high - (high - low) * i / steps, inner) for i in range(steps + 1)]
    return [*rim, *back]


def _at(share: float, radius: float) -> Point:
    turn = math.radians(-_SWEEP / 2 + _SWEEP * share)
    return _CENTRE[0] + radius * math.sin(turn), _CENTRE[1] - radius * math.cos(turn)


def _title(view: Meter, words: str) -> str:
    allowed = ""
    if view.limits:
        allowed = f"; allowed {view.limits.lowest:.3g} to {view.limits.highest:.3g}"
    return f"Turning: {words} {view.unit}{allowed}. {view.word}".strip()
