"""Trials: pack against play, with the line on which readings must lie."""

from dataclasses import dataclass

from wheelend.verdict import Limits
from wheelend.wording import mm, thickness, thou
from zesty.drawings.svg import Point, circle, drawing, line, polyline, rect, text

_WIDTH, _HEIGHT = 360.0, 210.0
_LEFT, _RIGHT, _TOP, _BOTTOM = 46.0, 346.0, 14.0, 168.0


@dataclass(frozen=True)
class TrialPoint:
    """One trial: total pack and play in mm (None: no play), and whether it stands out."""

    number: int
    pack_mm: float
    play_mm: float | None
    odd: bool


@dataclass(frozen=True)
class TrialChart:
    """What the chart shows; `c_mm` and `sign` make the line play = c + sign·pack."""

    limits: Limits
    step_mm: float
    points: tuple[TrialPoint, ...]
    c_mm: float | None
    sign: int
    next_pack_mm: float | None

    def line_at(self, pack_mm: float) -> float:
        """The play that the line demands for a pack."""
        return (self.c_mm or 0.0) + self.sign * pack_mm


class _Axes:
    def __init__(self, chart: TrialChart) -> None:
        packs = [point.pack_mm for point in chart.points]
        if chart.next_pack_mm is not None:
            packs.append(chart.next_pack_mm)
        plays = [point.play_mm for point in chart.points if point.play_mm is not None]
        pad = max((max(packs) - min(packs)) * 0.25, 0.05)
        self.packs = (max(min(packs) - pad, 0.0), max(packs) + pad)
        window = chart.limits.highest - chart.limits.lowest
        self.plays = (0.0, max([*plays, chart.limits.highest]) + max(window * 0.5, 0.02))

    def __call__(self, pack_mm: float, play_mm: float) -> Point:
        x = (pack_mm - self.packs[0]) / (self.packs[1] - self.packs[0])
        y = (play_mm - self.plays[0]) / (self.plays[1] - self.plays[0])
        return _LEFT + x * (_RIGHT - _LEFT), _BOTTOM - y * (_BOTTOM - _TOP)


def chart(trials: TrialChart, css: str = "") -> str:
    """The chart as a drawing."""
    at = _Axes(trials)
    low, high = trials.limits.lowest, trials.limits.highest
    top, bottom = at(at.packs[0], high), at(at.packs[1], max(low, 0.0))
    parts = [
        rect(top[0], top[1], bottom[0] - top[0], bottom[1] - top[1], "gate-window"),
        polyline([(_LEFT, _TOP), (_LEFT, _BOTTOM), (_RIGHT, _BOTTOM)], "gate-axis"),
        *(_play_tick(at, limit, trials.step_mm) for limit in (low, high)),
        *_demanded(at, trials),
        *_next(at, trials),
        *(_point(at, trials, point) for point in trials.points),
        *_pack_ticks(at, trials),
        text((_LEFT + 6, _TOP + 4), "play, mm", "label faint", 12),
        text((_RIGHT, _HEIGHT - 4), "pack, mm", "label faint", 12, text_anchor="end"),
    ]
    return drawing(_WIDTH, _HEIGHT, parts, _title(trials), css)


def _play_tick(at: _Axes, limit: float, step_mm: float) -> str:
    """A limit in mm at the axis, and in thou at the other end of the band."""
    _, y = at(at.packs[0], limit)
    other = text((_RIGHT - 2, y - 4), thou(limit, step_mm), "label faint", 11, text_anchor="end")
    return text((_LEFT - 6, y + 4), mm(limit, step_mm)[:-3], "label", 12, text_anchor="end") + other


def _pack_ticks(at: _Axes, trials: TrialChart) -> list[str]:
    """Pack totals under the axis, left out where they would run into each other."""
    ticks: list[str] = []
    edge = 0.0
    for pack in sorted({round(point.pack_mm, 5) for point in trials.points}):
        x, _ = at(pack, 0)
        if x - 18 < edge:
            continue
        ticks.append(line((x, _BOTTOM), (x, _BOTTOM + 5), "gate-tick"))
        ticks.append(text((x, _BOTTOM + 18), thickness(pack), "label", 12, text_anchor="middle"))
        edge = x + 22
    return ticks


def _demanded(at: _Axes, trials: TrialChart) -> list[str]:
    """The line, cut where it leaves the chart."""
    if trials.c_mm is None:
        return []
    ends = []
    for pack in at.packs:
        play = min(max(trials.line_at(pack), at.plays[0]), at.plays[1])
        ends.append(at(trials.sign * (play - trials.c_mm), play))
    return [line(ends[0], ends[1], "demanded")]


def _next(at: _Axes, trials: TrialChart) -> list[str]:
    if trials.next_pack_mm is None:
        return []
    play = trials.line_at(trials.next_pack_mm) if trials.c_mm is not None else 0.0
    x, y = at(trials.next_pack_mm, play)
    return [
        circle((x, y), 8, "next-mark"),
        text((x + 13, y + 14), "next", "label lit", 12),
    ]


def _point(at: _Axes, trials: TrialChart, point: TrialPoint) -> str:
    if point.play_mm is None:
        x, y = at(point.pack_mm, 0.0)
        cross = line((x - 6, y - 6), (x + 6, y + 6), "cross") + line(
            (x - 6, y + 6), (x + 6, y - 6), "cross"
        )
        return cross + text(
            (x, y - 12), f"{point.number} no play", "label", 12, text_anchor="middle"
        )
    x, y = at(point.pack_mm, point.play_mm)
    number = text((x - 10, y - 9), str(point.number), "label strong", 13, text_anchor="middle")
    if not point.odd:
        return circle((x, y), 6, "trial-mark") + number
    _, on_line = at(point.pack_mm, max(trials.line_at(point.pack_mm), 0.0))
    off = "" if abs(on_line - y) < 8 else line((x, y), (x, on_line), "off-line")
    return off + circle((x, y), 7, "trial-odd") + number


def _title(trials: TrialChart) -> str:
    said = [
        f"trial {p.number}: pack {thickness(p.pack_mm)} mm, "
        + ("no play" if p.play_mm is None else f"play {mm(p.play_mm, trials.step_mm)}")
        + (", stands out" if p.odd else "")
        for p in trials.points
    ]
    return "Trials, pack against play. " + "; ".join(said)
