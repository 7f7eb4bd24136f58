"""Trials of a spacer against turning torque: each with its swing, the line through them, and the next one."""

from dataclasses import dataclass

from wheelend.verdict import Limits
from wheelend.wording import SHIM_STEP_MM, bare, mm
from zesty.drawings.svg import Point, circle, drawing, line, polygon, polyline, rect, text

_WIDTH, _HEIGHT = 420.0, 230.0
_LEFT, _RIGHT, _TOP, _BOTTOM = 56.0, 402.0, 22.0, 184.0


@dataclass(frozen=True)
class DragPoint:
    """One trial: the spacer in mm, and the swing in N·m."""

    number: int
    spacer_mm: float
    band: tuple[float, float]


@dataclass(frozen=True)
class DragLine:
    """What the chart shows. `next_mm` is the spacer that is fitted next, `slope` N·m a mm where it is known."""

    limits: Limits
    points: tuple[DragPoint, ...]
    next_mm: float | None = None
    slope: float | None = None


class _Axes:
    def __init__(self, view: DragLine) -> None:
        spacers = [one.spacer_mm for one in view.points]
        if view.next_mm is not None:
            spacers.append(view.next_mm)
        pad = max((max(spacers) - min(spacers)) * 0.35, 0.01)
        self.spacers = (min(spacers) - pad, max(spacers) + pad)
        top = max([one.band[1] for one in view.points] + [view.limits.highest])
        self.drags = (0.0, top * 1.15)

    def __call__(self, spacer_mm: float, drag: float) -> Point:
        x = (spacer_mm - self.spacers[0]) / (self.spacers[1] - self.spacers[0])
        y = (drag - self.drags[0]) / (self.drags[1] - self.drags[0])
        return _LEFT + x * (_RIGHT - _LEFT), _BOTTOM - min(max(y, 0.0), 1.0) * (_BOTTOM - _TOP)


def drag_line(view: DragLine, css: str = "") -> str:
    """The chart as a drawing."""
    at = _Axes(view)
    top = at(at.spacers[0], view.limits.highest)
    bottom = at(at.spacers[1], max(view.limits.lowest, 0.0))
    parts = [
        rect(top[0], top[1], bottom[0] - top[0], bottom[1] - top[1], "gate-window"),
        polyline([(_LEFT, _TOP), (_LEFT, _BOTTOM), (_RIGHT, _BOTTOM)], "gate-axis"),
        *(_limit(at, one) for one in (view.limits.lowest, view.limits.highest)),
        *_through(at, view),
        *(shape for one in view.points for shape in _trial(at, one)),
        *_next(at, view),
        text((_LEFT + 6, _TOP + 2), "drag, N·m", "label faint", 12),
        text((_LEFT, _HEIGHT - 4), "shim, mm", "label faint", 12),
    ]
    return drawing(_WIDTH, _HEIGHT, parts, _title(view), css)


def _limit(at: _Axes, value: float) -> str:
    _, y = at(at.spacers[0], value)
    post = line((_LEFT - 10, y), (_LEFT + 12, y), "cross")
    return post + text((_LEFT - 14, y + 4), f"{value:.3g}", "label strong", 13, text_anchor="end")


def _trial(at: _Axes, one: DragPoint) -> list[str]:
    low, high = at(one.spacer_mm, one.band[0]), at(one.spacer_mm, one.band[1])
    middle = (low[0], (low[1] + high[1]) / 2)
    return [
        line(low, high, "doubt"),
        *(line((x - 6, y), (x + 6, y), "doubt") for x, y in (low, high)),
        circle(middle, 5, "trial-mark"),
        text(
            (middle[0] + 10, middle[1] - 7), f"{one.band[0]:.3g} to {one.band[1]:.3g}", "label", 12
        ),
        line((low[0], _BOTTOM), (low[0], _BOTTOM + 5), "gate-tick"),
        text(
            (low[0], _BOTTOM + 18),
            bare(one.spacer_mm, SHIM_STEP_MM),
            "label",
            12,
            text_anchor="middle",
        ),
    ]


def _through(at: _Axes, view: DragLine) -> list[str]:
    if view.slope is None or not view.points:
        return []
    last = view.points[-1]
    base = sum(last.band) / 2

    def drag(spacer: float) -> float:
        return base + (view.slope or 0.0) * (spacer - last.spacer_mm)

    ends = [at(one, drag(one)) for one in at.spacers]
    return [line(ends[0], ends[1], "demanded")]


def _next(at: _Axes, view: DragLine) -> list[str]:
    if view.next_mm is None:
        return []
    x, _ = at(view.next_mm, 0.0)
    notch = polygon([(x, _BOTTOM + 2), (x - 9, _BOTTOM + 18), (x + 9, _BOTTOM + 18)], "force-head")
    words = text(
        (x, _BOTTOM + 36),
        bare(view.next_mm, SHIM_STEP_MM),
        "label strong lit",
        15,
        text_anchor="middle",
    )
    return [notch, words]


def _title(view: DragLine) -> str:
    said = [
        f"trial {one.number}: {mm(one.spacer_mm, SHIM_STEP_MM)}, {one.band[0]:.3g} to {one.band[1]:.3g} N·m"
        for one in view.points
    ]
    more = f"; next {mm(view.next_mm, SHIM_STEP_MM)}" if view.next_mm is not None else ""
    return f"Shim against turning torque. {'; '.join(said)}{more}"
