"""From shapes in mm to SVG: one scale both ways, hatching clipped in px, the part in hand lit."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from zesty.drawings.section.hatching import hatch_lines
from zesty.drawings.section.outline import Mm
from zesty.drawings.section.sheet import Mark, Shape, Sheet
from zesty.drawings.svg import Point, element


@dataclass(frozen=True)
class Frame:
    """From mm to the page: the axis lies near the bottom."""

    scale: float
    left: float
    axis: float

    def __call__(self, point: Mm) -> Point:
        return self.left + point[0] * self.scale, self.axis - point[1] * self.scale

    def all(self, points: Sequence[Mm]) -> list[Point]:
        """Several points."""
        return [self(point) for point in points]


def shapes(sheet: Sheet, frame: Frame, lit: frozenset[str], push: tuple[str, str]) -> Iterator[str]:
    """Every shape and mark, in its order."""
    for one in sheet.drawn:
        if isinstance(one, Shape):
            yield from _shape(one, frame, one.name in lit, push in one.thrust)
        else:
            yield from _mark(one, frame, one.name in lit)


def _shape(one: Shape, frame: Frame, lit: bool, loaded: bool) -> Iterator[str]:
    outline = frame.all(one.outline)
    shade = " lit" if lit and one.look != "light" else ""
    # Of what is left out or not cut nothing is hatched.
    yield element(
        "path",
        d=_path(outline, closed=True),
        class_=f"s-{one.look}{shade}{' loaded' if loaded else ''}",
    )
    if one.hatch:
        lines = hatch_lines(outline, one.hatch)
        if lines:
            drawn = "".join(f"M{_n(a[0])} {_n(a[1])}L{_n(b[0])} {_n(b[1])}" for a, b in lines)
            yield element("path", d=drawn, class_=f"s-hatch{shade}")
    for run, kind in one.runs:
        weight = kind if kind == "break" else f"{kind} {one.look}"
        yield element(
            "path", d=_path(frame.all(run), closed=_closed(run)), class_=f"s-line {weight}{shade}"
        )


def _mark(one: Mark, frame: Frame, lit: bool) -> Iterator[str]:
    drawn = _path(frame.all(one.points), closed=False)
    shade = " lit" if lit else ""
    if one.look == "pin":
        yield element("path", d=drawn, class_="s-line pin-out")
        yield element("path", d=drawn, class_=f"s-line pin-in{shade}")
        return
    yield element("path", d=drawn, class_=f"s-line {one.look}{shade}")


def _closed(run: Sequence[Mm]) -> bool:
    return len(run) > 2 and run[0] == run[-1]


def _path(points: Sequence[Point], *, closed: bool) -> str:
    first, *rest = points
    drawn = f"M{_n(first[0])} {_n(first[1])}L" + " ".join(f"{_n(x)} {_n(y)}" for x, y in rest)
    return f"{drawn}Z" if closed else drawn


def _n(value: float) -> str:
    return f"{value:.1f}".removesuffix(".0")
