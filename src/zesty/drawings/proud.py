"""How far a bearing stands out of the face it is measured from: the gap between the posts, drawn larger."""

from collections.abc import Callable
from dataclasses import dataclass

from wheelend.verdict import Limits
from wheelend.wording import bare, mm
from zesty.drawings.svg import drawing, line, rect, text

_WIDTH, _HEIGHT = 380.0, 250.0
_FACE_X = 150.0
_PX = 120.0
"""The window of the card is drawn as wide as this."""


@dataclass(frozen=True)
class Proud:
    """Least and most of the stand-out in mm (None before it is measured), and what the parts should give."""

    band: tuple[float, float] | None
    limits: Limits
    expected_mm: float | None
    word: str


def proud(view: Proud, css: str = "") -> str:
    """The stand-out as a drawing, from the face (left) outward."""
    window = view.limits.window or 0.1
    scale = _PX / window

    def at(value: float) -> float:
        return _FACE_X + min(max(value * scale, -110.0), 200.0)

    low, high = at(view.limits.lowest), at(view.limits.highest)
    parts = [
        rect(24, 40, _FACE_X - 24, 42, "part"),
        rect(24, 168, _FACE_X - 24, 42, "part"),
        text((34, 66), "bracket", "label faint", 12),
        rect(low, 30, high - low, 190, "gate-window"),
        *(line((x, 24), (x, 226), "cross") for x in (low, high)),
        line((_FACE_X, 30), (_FACE_X, 220), "demanded"),
        *_bearing(view, at),
        text((low, 240), f"{view.limits.lowest:g}", "label strong", 13, text_anchor="middle"),
        text((high, 240), f"{view.limits.highest:g} mm", "label strong", 13, text_anchor="middle"),
        text((24, 18), "stand-out, drawn larger", "label faint", 11),
    ]
    return drawing(_WIDTH, _HEIGHT, parts, _title(view), css)


def _bearing(view: Proud, at: Callable[[float], float]) -> list[str]:
    shapes = []
    value = sum(view.band) / 2 if view.band else None
    if value is not None:
        x = at(value)
        shapes += [
            rect(40, 92, x - 40, 66, "part lit-part" if view.word != "inside" else "part"),
            line((x, 84), (x, 166), "dim"),
            text((52, 130), "bearing", "label strong", 13),
        ]
    if view.expected_mm is not None:
        x = at(view.expected_mm)
        shapes += [
            line((x, 100), (x, 150), "construction"),
            text((26, 226), f"the parts give {bare(view.expected_mm)}", "label faint", 11),
        ]
    return shapes


def _title(view: Proud) -> str:
    measured = "not measured yet"
    if view.band:
        measured = f"{bare(view.band[0])} to {mm(view.band[1])}"
    return f"Stand-out: {measured}; allowed {view.limits.lowest:g} to {view.limits.highest:g} mm. {view.word}"
