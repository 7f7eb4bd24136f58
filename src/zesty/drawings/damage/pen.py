"""The few strokes that damage is drawn with: outline, edge, stipple, and the ring round the place."""

import math
import random
from collections.abc import Callable, Iterator

from zesty.drawings.svg import Point, circle, element, polygon, polyline, text

Inside = Callable[[float, float], float]
"""How dense the stipple is at a point, from 0 to 1."""


def outline(points: list[Point]) -> str:
    """A part's outline."""
    return polygon(points, "dm-out")


def edge(points: list[Point]) -> str:
    """A visible edge."""
    return polyline(points, "dm-line")


def fine(points: list[Point]) -> str:
    """A light line."""
    return polyline(points, "dm-fine")


def solid(points: list[Point]) -> str:
    """Ink."""
    return polygon(points, "dm-solid")


def stipple(
    seed: str, box: tuple[float, float, float, float], dense: Inside, count: int = 500
) -> str:
    """Dots in a box, as dense as a function says; one path, so that it stays small."""
    rng = random.Random(seed)  # noqa: S311  the same dots every time, no secret
    x0, y0, x1, y1 = box
    dots = []
    for _ in range(count):
        x, y = rng.uniform(x0, x1), rng.uniform(y0, y1)
        if rng.random() < dense(x, y):
            dots.append(f"M{x:.1f} {y:.1f}h.01")
    return element("path", d="".join(dots), class_="dm-dots")


def blob(seed: str, at: Point, radius: float, rough: float = 0.35, steps: int = 11) -> list[Point]:
    """A jagged round shape."""
    rng = random.Random(seed)  # noqa: S311
    points = []
    for step in range(steps):
        reach = radius * (1 + rng.uniform(-rough, rough))
        turn = 2 * math.pi * step / steps
        points.append((at[0] + reach * math.cos(turn), at[1] + reach * math.sin(turn) * 0.8))
    return points


def ring(at: Point, rx: float, ry: float) -> Iterator[str]:
    """Where to look: a ring in the accent over a halo of paper."""
    for name in ("dm-halo", "dm-ring"):
        yield element("ellipse", cx=at[0], cy=at[1], rx=rx, ry=ry, class_=name)


def word(at: Point, words: str) -> str:
    """A lettered word: where a colour is the evidence."""
    return text(at, words, "label", 11, text_anchor="middle")


def dot(at: Point, radius: float) -> str:
    """A small solid circle."""
    return circle(at, radius, "dm-solid")


def arc(
    centre: Point, rx: float, ry: float, start: float, end: float, steps: int = 24
) -> list[Point]:
    """Points of an ellipse's arc, in degrees."""
    return [
        (
            centre[0] + rx * math.cos(math.radians(start + (end - start) * step / steps)),
            centre[1] + ry * math.sin(math.radians(start + (end - start) * step / steps)),
        )
        for step in range(steps + 1)
    ]
