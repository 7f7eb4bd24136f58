"""Which ring the force goes on: right, and wrong through the rolling elements."""

from zesty.drawings.cut import box, housing, ring
from zesty.drawings.svg import Point, arrow, circle, line, text

HIGH = 186.0
_WIDE, _THICK, _BALL = 66.0, 20.0, 19.0


def load_path(at: Point, on: str, *, right: bool) -> list[str]:
    """A ring being pressed on its seat. `on` is `housing` (its outer ring is tight) or `shaft`."""
    left, top = at
    seat, outer, inner = top + 22, top + 46, top + 46 + _THICK + 2 * _BALL - 6
    fixed = box(left + 56, seat, _WIDE + 34, 24) if on == "housing" else None
    shaft = box(left + 56, inner + _THICK, _WIDE + 34, 24)
    mid = (left + 56 + _WIDE / 2, outer + _THICK + _BALL - 3)
    y = (outer if (on == "housing") is right else inner) + _THICK / 2
    look = "force" if right else "force-wrong"
    drawn = [
        *(housing(fixed) if fixed else housing(shaft)),
        *ring(box(left + 56, outer, _WIDE, _THICK)),
        *ring(box(left + 56, inner, _WIDE, _THICK)),
        circle(mid, _BALL, "part"),
        arrow((left + 6, y), (left + 54, y), look),
        text(
            (mid[0], top + 12), _words(on, right=right), "label strong" if right else "label", 13,
            text_anchor="middle",
        ),
    ]  # fmt: skip
    return drawn if right else [*drawn, *_wrong(left, outer, inner, mid, on)]


def _words(on: str, *, right: bool) -> str:
    tight = "outer" if on == "housing" else "inner"
    return f"push on the {tight} ring" if right else "never through the balls"


def _wrong(left: float, outer: float, inner: float, mid: Point, on: str) -> list[str]:
    """The load's way across the ball, struck out."""
    near, far = (inner, outer + _THICK) if on == "housing" else (outer + _THICK, inner)
    start = near if on == "housing" else near - _THICK
    return [
        line((left + 60, start + _THICK / 2), mid, "force-wrong"),
        line(
            mid,
            (mid[0] + 24, far - (_THICK / 2 if on == "housing" else -_THICK / 2)),
            "force-wrong",
        ),
        line((left + 50, outer - 8), (left + 128, inner + _THICK + 8), "struck"),
        line((left + 128, outer - 8), (left + 50, inner + _THICK + 8), "struck"),
    ]
