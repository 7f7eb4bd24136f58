"""The gap of a ring against the temperature of what is warmed, with the drop-in window, the card's limit and
where it is now; beside it the ring that takes the force."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from zesty.drawings.pressing.load import HIGH, load_path
from zesty.drawings.svg import Point, circle, drawing, line, rect, text

_LEFT, _RIGHT, _TOP, _BOTTOM = 66.0, 26.0, 26.0, 54.0
_WORDS_PX = 76
"""As wide as a temperature is written."""


@dataclass(frozen=True)
class GapLine:
    """One temperature of the other part: the gap in mm at two temperatures in °C."""

    words: str
    cold: Point
    warm: Point
    lit: bool = False


@dataclass(frozen=True)
class GapView:
    """What is drawn: `warmed` is what the axis is the temperature of, `now` its temperature and gap."""

    lines: Sequence[GapLine]
    clearance_mm: float
    on: str
    warmed: str = "housing"
    limit: float | None = None
    now: Point | None = None
    until: float | None = None


@dataclass(frozen=True)
class _Scale:
    low: float
    high: float
    least: float
    most: float
    width: float
    height: float

    def __call__(self, degC: float, gap: float) -> Point:
        x = _LEFT + (degC - self.low) / (self.high - self.low) * (self.width - _LEFT - _RIGHT)
        high = self.height - _TOP - _BOTTOM
        return x, self.height - _BOTTOM - (gap - self.least) / (self.most - self.least) * high

    @property
    def floor(self) -> float:
        return self.height - _BOTTOM


def press_view(view: GapView, *, narrow: bool = False) -> str:
    """The chart and both load paths; narrow, the paths stand below."""
    width, height = (380.0, 330.0) if narrow else (560.0, 420.0)
    parts = _chart(view, width, height)
    spots = [(0.0, height + 8), (190.0, height + 8)] if narrow else [(560.0, 18.0), (560.0, 222.0)]
    parts += load_path(spots[0], view.on, right=True)
    parts += load_path(spots[1], view.on, right=False)
    whole = (380.0, height + HIGH + 14) if narrow else (760.0, 420.0)
    said = f"; now {view.now[0]:.0f} °C, gap {view.now[1]:.3f} mm" if view.now else ""
    title = (
        f"Gap against the temperature of the {view.warmed}{said}; the force goes on the tight ring"
    )
    return drawing(*whole, parts, title)


def _chart(view: GapView, width: float, height: float) -> list[str]:
    ends = [point for one in view.lines for point in (one.cold, one.warm)]
    gaps = [gap for _, gap in ends] + [0.0, view.clearance_mm * 1.5]
    lows, highs = [x for x, _ in ends], min(gaps)
    at = _Scale(
        min(lows), max(lows), highs * 1.1, max(gaps) * 1.08 + view.clearance_mm, width, height
    )
    return [
        *_window(at, view.clearance_mm),
        *_axes(at, view.warmed),
        *(mark for one in view.lines for mark in _line(at, one)),
        *(_until(at, view) if view.until is not None else ()),
        *(_limit(at, view.limit) if view.limit is not None and view.limit < at.high else ()),
        *(_now(at, *view.now) if view.now else ()),
    ]


def _axes(at: _Scale, warmed: str) -> Iterator[str]:
    left, right = at(at.low, 0.0), at(at.high, 0.0)
    yield line(left, right, "gate-tick")
    yield line((_LEFT, _TOP), (_LEFT, at.floor), "gate-axis")
    yield line((_LEFT, at.floor), (right[0], at.floor), "gate-axis")
    yield text((_LEFT - 8, left[1] + 5), "0", "label", 14, text_anchor="end")
    for step in range(0, round(at.high) + 1, 20):
        x = at(step, at.least)[0]
        yield line((x, at.floor), (x, at.floor + 6), "gate-tick")
        yield text((x, at.floor + 23), f"{step}", "label", 14, text_anchor="middle")
    middle = (at.low + at.high) / 2
    yield text(
        (at(middle, 0)[0], at.height - 8), f"{warmed}, °C", "label faint", 14, text_anchor="middle"
    )
    yield text((_LEFT - 8, _TOP + 4), "mm", "label faint", 14, text_anchor="end")


def _window(at: _Scale, gap: float) -> Iterator[str]:
    a, b = at(at.low, gap), at(at.high, gap)
    yield rect(a[0], _TOP, b[0] - a[0], a[1] - _TOP, "gate-window")
    yield line(a, b, "demanded")
    yield text((a[0] - 8, a[1] + 5), f"{gap:.2f}", "label", 14, text_anchor="end")
    yield text((_LEFT + 10, _TOP + 20), "drops in", "label strong", 15)
    yield text((_LEFT + 10, at.floor - 10), "still tight", "label faint", 14)


def _line(at: _Scale, one: GapLine) -> Iterator[str]:
    a, b = at(*one.cold), at(*one.warm)
    yield line(a, b, "gap-line lit" if one.lit else "gap-line")
    share = 0.40 if one.lit else 0.52
    x, y = a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share
    if one.lit:
        yield text((x - 10, y - 6), one.words, "label strong", 14, text_anchor="end")
    else:
        yield text((x + 10, y + 22), one.words, "label faint", 14)


def _limit(at: _Scale, limit: float) -> Iterator[str]:
    x = at(limit, at.least)[0]
    yield rect(x - 3, _TOP, 6, at.floor - _TOP, "gate-post")
    yield text((x - 9, at.floor - 10), f"limit {limit:.0f}", "label clear", 14, text_anchor="end")


def _until(at: _Scale, view: GapView) -> Iterator[str]:
    """Down from where the line leaves the window; its words on the side away from a limit that is near."""
    until = view.until or 0.0
    if not at.low < until < at.high:
        return
    x, y = at(until, view.clearance_mm)
    yield line((x, y), (x, at.floor), "off-line")
    near = view.limit is not None and 0 < at(view.limit, 0)[0] - x < _WORDS_PX
    words = (x - 6 if near else x + 6, at.floor - 30)
    yield text(words, f"{until:.0f} °C", "label strong", 16, text_anchor="end" if near else "start")


def _now(at: _Scale, degC: float, gap: float) -> Iterator[str]:
    x, y = at(min(max(degC, at.low), at.high), gap)
    yield circle((x, y), 10, "now-dot")
    yield text((x - 16, y - 12), f"now {degC:.0f}", "label strong", 18, text_anchor="end")
