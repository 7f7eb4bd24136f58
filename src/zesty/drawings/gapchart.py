"""The gap of a ring against the temperature of its housing: a line for each ring temperature, the gap with
which it drops in, the card's limit, and where the housing is now."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from zesty.drawings.svg import Point, circle, drawing, line, rect, text

_W, _H = 700.0, 300.0
_LEFT, _RIGHT, _TOP, _BOTTOM = 64.0, 24.0, 24.0, 46.0


@dataclass(frozen=True)
class GapLine:
    """One ring temperature: the gap in mm at two housing temperatures in °C."""

    words: str
    cold: Point
    warm: Point
    lit: bool = False


@dataclass(frozen=True)
class _Scale:
    low: float
    high: float
    least: float
    most: float
    width: float

    def __call__(self, degC: float, gap: float) -> Point:
        x = _LEFT + (degC - self.low) / (self.high - self.low) * (self.width - _LEFT - _RIGHT)
        y = _H - _BOTTOM - (gap - self.least) / (self.most - self.least) * (_H - _TOP - _BOTTOM)
        return x, y


def gap_chart(
    lines: Sequence[GapLine],
    clearance_mm: float,
    *,
    limit: float | None = None,
    now: tuple[float, float] | None = None,
    width: float = _W,
) -> str:
    """The chart; `now` is the housing's temperature and the gap that it has."""
    ends = [point for one in lines for point in (one.cold, one.warm)]
    gaps = [gap for _, gap in ends] + [0.0, clearance_mm * 1.5]
    at = _Scale(
        min(x for x, _ in ends), max(x for x, _ in ends), min(gaps) * 1.08, max(gaps) * 1.08, width
    )
    drawn = [
        *_axes(at),
        *_level(at, clearance_mm, "drops in by itself"),
        *(mark for one in lines for mark in _line(at, one)),
        *(_limit(at, limit) if limit is not None and at.low < limit < at.high else ()),
        *(_now(at, *now) if now else ()),
    ]
    said = f"; now {now[0]:.0f} °C, gap {now[1]:.3f} mm" if now else ""
    return drawing(width, _H, drawn, f"Gap against temperature{said}")


def _axes(at: _Scale) -> Iterator[str]:
    left, right = at(at.low, 0.0), at(at.high, 0.0)
    yield line(left, right, "gate-axis")
    yield line((_LEFT, _TOP), (_LEFT, _H - _BOTTOM), "gate-axis")
    yield text((_LEFT - 8, left[1] + 4), "0", "label faint", 12, text_anchor="end")
    for step in range(round(at.low / 20) * 20, round(at.high) + 1, 20):
        if at.low <= step <= at.high:
            x = at(step, at.least)[0]
            yield line((x, _H - _BOTTOM), (x, _H - _BOTTOM + 5), "gate-tick")
            yield text((x, _H - _BOTTOM + 20), f"{step}", "label", 12, text_anchor="middle")
    yield text((at.width - _RIGHT, _H - 8), "°C", "label faint", 12, text_anchor="end")
    yield text((_LEFT + 6, _TOP + 4), "gap, mm", "label faint", 12)


def _level(at: _Scale, gap: float, words: str) -> Iterator[str]:
    a, b = at(at.low, gap), at(at.high, gap)
    yield rect(a[0], _TOP, b[0] - a[0], a[1] - _TOP, "gate-window")
    yield line(a, b, "gate-tick")
    yield text((a[0] - 8, a[1] + 4), f"{gap:.2f}", "label", 12, text_anchor="end")
    yield text((b[0] - 4, a[1] - 7), words, "label faint", 12, text_anchor="end")


def _line(at: _Scale, one: GapLine) -> Iterator[str]:
    a, b = at(*one.cold), at(*one.warm)
    yield line(a, b, "gap-line lit" if one.lit else "gap-line")
    x, y = a[0] + (b[0] - a[0]) * 0.62, a[1] + (b[1] - a[1]) * 0.62
    yield text((x + 8, y + 18), one.words, "label strong" if one.lit else "label faint", 12)


def _limit(at: _Scale, limit: float) -> Iterator[str]:
    x = at(limit, at.least)[0]
    yield rect(x - 2, _TOP, 4, _H - _TOP - _BOTTOM, "gate-post")
    yield text((x - 8, _H - _BOTTOM - 8), "no hotter", "label", 12, text_anchor="end")


def _now(at: _Scale, degC: float, gap: float) -> Iterator[str]:
    x, y = at(min(max(degC, at.low), at.high), gap)
    yield circle((x, y), 9, "now-dot")
    yield text((x, y - 16), f"{degC:.0f} °C", "label strong", 15, text_anchor="middle")
