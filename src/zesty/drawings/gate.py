"""The gate: limits as two posts, the reading with its doubt, the aim as a notch."""

from dataclasses import dataclass

from wheelend.verdict import Limits
from wheelend.wording import Lead, length, mm
from zesty.drawings.svg import drawing, line, polygon, rect, text

_HEIGHT = 112.0
_AXIS = 50.0


@dataclass(frozen=True)
class GateReading:
    """A reading in mm with its doubt, and the gauge's step."""

    value_mm: float
    U_mm: float


class _Scale:
    """From mm to the drawing, with room on both sides of the limits for a reading outside."""

    def __init__(self, limits: Limits, width: float) -> None:
        self.low, self.high = limits.lowest, limits.highest
        window = (self.high - self.low) or 0.01
        self.left, self.right = self.low - 0.7 * window, self.high + 0.7 * window
        self.width, self.margin = width, 14.0

    def __call__(self, value_mm: float) -> float:
        share = (value_mm - self.left) / (self.right - self.left)
        return self.margin + min(max(share, 0.0), 1.0) * (self.width - 2 * self.margin)

    def holds(self, value_mm: float) -> bool:
        return self.left <= value_mm <= self.right


def gate(
    limits: Limits,
    aim_mm: float | None,
    step_mm: float,
    reading: GateReading | None,
    *,
    width: float = 340,
    lead: Lead = "metric",
    css: str = "",
    posts: tuple[str, str] = ("", ""),
) -> str:
    """The gate as a drawing; without a reading it shows what is wanted.

    `posts` are the limits as the card has them: they are printed so, never rounded to a dial's step.
    """
    at = _Scale(limits, width)
    parts = [
        rect(at(at.low), _AXIS - 9, at(at.high) - at(at.low), 9, "gate-window"),
        line((at.margin, _AXIS), (width - at.margin, _AXIS), "gate-axis"),
        *_ticks(at),
        *(
            _post(at, limit, step_mm, lead, words)
            for limit, words in zip((at.low, at.high), posts, strict=True)
        ),
        *(_aim(at, aim_mm, step_mm, lead) if aim_mm is not None else ()),
        *(_reading(at, reading) if reading else []),
    ]  # fmt: skip
    return drawing(width, _HEIGHT, parts, _title(limits, aim_mm, step_mm, reading), css)


def _ticks(at: _Scale) -> list[str]:
    count = 12
    step = (at.right - at.left) / count
    marks = [at(at.left + i * step) for i in range(count + 1)]
    return [line((x, _AXIS), (x, _AXIS + 4), "gate-tick") for x in marks]


def _post(at: _Scale, limit: float, step_mm: float, lead: Lead, words: str) -> str:
    x = at(limit)
    other_lead: Lead = "inch" if lead == "metric" else "metric"
    step_mm = min(step_mm, 0.01)
    first, second = length(limit, step_mm, lead), length(limit, step_mm, other_lead)
    if words.endswith(" mm") == (lead == "metric") and words:
        first = words
    shown = text((x, _AXIS + 32), first.split()[0], "label", 14, text_anchor="middle")
    other = text((x, _AXIS + 45), second, "label faint", 11, text_anchor="middle")
    return rect(x - 3, _AXIS - 26, 6, 28, "gate-post") + shown + other


def _aim(at: _Scale, aim_mm: float, step_mm: float, lead: Lead) -> list[str]:
    return [polygon(_notch(at(aim_mm)), "gate-aim"), _aim_text(at, aim_mm, step_mm, lead)]


def _aim_text(at: _Scale, aim_mm: float, step_mm: float, lead: Lead) -> str:
    """Between the posts' numbers where there is room, else a row further down."""
    x = at(aim_mm)
    tight = min(abs(x - at(at.low)), abs(x - at(at.high))) < 52
    row = _AXIS + (58 if tight else 32)
    words = f"aim {length(aim_mm, step_mm, lead).split()[0]}"
    return text((x, row), words, "label gate-aim-text", 12, text_anchor="middle")


def _notch(x: float) -> list[tuple[float, float]]:
    return [(x, _AXIS + 3), (x - 7, _AXIS + 17), (x + 7, _AXIS + 17)]


def _reading(at: _Scale, reading: GateReading) -> list[str]:
    x, y = at(reading.value_mm), _AXIS - 24
    if not at.holds(reading.value_mm):
        out = 1 if reading.value_mm > at.high else -1
        return [polygon([(x, y), (x - 14 * out, y - 8), (x - 14 * out, y + 8)], "gate-mark")]
    low, high = at(reading.value_mm - reading.U_mm), at(reading.value_mm + reading.U_mm)
    return [
        line((low, y), (high, y), "gate-doubt"),
        line((low, y - 6), (low, y + 6), "gate-doubt"),
        line((high, y - 6), (high, y + 6), "gate-doubt"),
        polygon([(x, y - 9), (x + 8, y), (x, y + 9), (x - 8, y)], "gate-mark"),
    ]


def _title(
    limits: Limits, aim_mm: float | None, step_mm: float, reading: GateReading | None
) -> str:
    wanted = f"Limits {mm(limits.lowest, step_mm)} to {mm(limits.highest, step_mm)}"
    if aim_mm is not None:
        wanted += f", aim {mm(aim_mm, step_mm)}"
    if reading is None:
        return f"{wanted}; no reading yet"
    return f"{wanted}; reading {mm(reading.value_mm, step_mm)} ± {mm(reading.U_mm, step_mm)}"
