"""A small SVG writer: elements as text, colours by class, so that one style sheet serves all."""

from collections.abc import Iterable
from functools import cache
from xml.sax.saxutils import escape, quoteattr

Point = tuple[float, float]

_MONO_ADVANCE = 0.6


def element(name: str, content: str = "", /, **attributes: object) -> str:
    """One element; `class_` and `stroke_width` become class and stroke-width, None is left out."""
    written = "".join(
        f" {_name(key)}={_quoted(value)}" for key, value in attributes.items() if value is not None
    )
    return f"<{name}{written}>{content}</{name}>" if content else f"<{name}{written}/>"


@cache
def _name(key: str) -> str:
    return key.rstrip("_").replace("_", "-")


def _quoted(value: object) -> str:
    return f'"{_value(value)}"' if isinstance(value, float | int) else quoteattr(str(value))


def _value(value: object) -> str:
    return f"{value:.2f}".rstrip("0").rstrip(".") if isinstance(value, float) else str(value)


def drawing(width: float, height: float, parts: Iterable[str], title: str, css: str = "") -> str:
    """A whole drawing; `title` is what a screen reader says of it."""
    style = element("style", escape(css)) if css else ""
    return element(
        "svg",
        element("title", escape(title)) + style + "".join(parts),
        xmlns="http://www.w3.org/2000/svg",
        viewBox=f"0 0 {_value(float(width))} {_value(float(height))}",
        width=width,
        height=height,
        role="img",
        class_="drawing",
    )


def line(a: Point, b: Point, class_: str = "ink", **more: object) -> str:
    """A straight line."""
    return element("line", x1=a[0], y1=a[1], x2=b[0], y2=b[1], class_=class_, **more)


def polyline(points: Iterable[Point], class_: str = "ink", **more: object) -> str:
    """An open run of lines."""
    return element("polyline", points=_points(points), class_=class_, **more)


def polygon(points: Iterable[Point], class_: str = "part", **more: object) -> str:
    """A closed shape."""
    return element("polygon", points=_points(points), class_=class_, **more)


def rect(
    x: float, y: float, width: float, height: float, class_: str = "part", **more: object
) -> str:
    """A rectangle from its top left corner."""
    return element("rect", x=x, y=y, width=width, height=height, class_=class_, **more)


def circle(centre: Point, radius: float, class_: str = "part", **more: object) -> str:
    """A circle."""
    return element("circle", cx=centre[0], cy=centre[1], r=radius, class_=class_, **more)


def ellipse(centre: Point, wide: float, high: float, class_: str = "part", **more: object) -> str:
    """An ellipse from its two half axes."""
    return element("ellipse", cx=centre[0], cy=centre[1], rx=wide, ry=high, class_=class_, **more)


def text(at: Point, words: str, class_: str = "label", size: float = 13, **more: object) -> str:
    """A line of text."""
    return element("text", escape(words), x=at[0], y=at[1], class_=class_, font_size=size, **more)


def arrow(a: Point, b: Point, class_: str = "force") -> str:
    """A line from a to b with a head at b."""
    length = max(((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2) ** 0.5, 1e-6)
    ux, uy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    back = (b[0] - 12 * ux, b[1] - 12 * uy)
    head = [b, (back[0] - 6 * uy, back[1] + 6 * ux), (back[0] + 6 * uy, back[1] - 6 * ux)]
    return line(a, back, class_) + polygon(head, f"{class_}-head")


def text_width(words: str, size: float) -> float:
    """How wide a text in the fixed-width face is, in the drawing's units."""
    return len(words) * size * _MONO_ADVANCE


def _points(points: Iterable[Point]) -> str:
    return " ".join(f"{_value(float(x))},{_value(float(y))}" for x, y in points)
