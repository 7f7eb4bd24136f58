"""A part that is cut: its outline, hatched to its edge."""

from collections.abc import Sequence

from zesty.drawings.section.hatching import hatch_lines
from zesty.drawings.section.sheet import HOUSING, RING, Hatch
from zesty.drawings.svg import Point, element, polygon


def cut(outline: Sequence[Point], hatch: Hatch, lit: str = "") -> list[str]:
    """The part, in px as it stands on the page."""
    lines = hatch_lines(outline, hatch)
    drawn = "".join(f"M{a[0]:.1f} {a[1]:.1f}L{b[0]:.1f} {b[1]:.1f}" for a, b in lines)
    return [polygon(outline, f"part {lit}".rstrip()), element("path", d=drawn, class_="s-hatch")]


def housing(outline: Sequence[Point]) -> list[str]:
    """A housing or a shaft, cut."""
    return cut(outline, HOUSING)


def ring(outline: Sequence[Point]) -> list[str]:
    """A ring of a bearing, cut: it leans the other way."""
    return cut(outline, RING, "ring-cut")


def box(x: float, y: float, wide: float, high: float) -> list[Point]:
    """The corners of a rectangle from its top left one."""
    return [(x, y), (x + wide, y), (x + wide, y + high), (x, y + high)]
