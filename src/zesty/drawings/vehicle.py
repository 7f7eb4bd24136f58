"""A vehicle from above, its wheel ends where they are; open work stands on the wheel itself."""

from dataclasses import dataclass
from xml.sax.saxutils import escape

from zesty.drawings.svg import circle, drawing, element, line, polygon, rect, text

_LENGTH, _WIDTH = 300.0, 190.0
_HALF = 46.0
"""Half the body's width on the page."""
_WHEEL = (40.0, 22.0)
_BOGIE = 48.0


@dataclass(frozen=True)
class WheelMark:
    """One wheel end on the drawing: where it leads, and the job standing on it (if any)."""

    axle: int
    side: str
    href: str
    title: str
    job: str = ""
    state: str = ""
    short: str = ""


def vehicle(kind: str, axles: int, wheels: tuple[WheelMark, ...], name: str) -> str:
    """The vehicle, front to the left, with its wheels as links."""
    xs = _axle_places(kind, axles)
    middle = _WIDTH / 2
    parts = [
        *(line((x, middle - _HALF - 20), (x, middle + _HALF + 20), "axle") for x in xs),
        *_BODIES.get(kind, _trailer)(middle),
        *(_wheel(wheel, xs[wheel.axle - 1], middle) for wheel in wheels if wheel.axle <= len(xs)),
    ]
    inside = "".join(parts)
    return drawing(_LENGTH, _WIDTH, [inside], f"{name} from above").replace(
        'role="img"', 'role="group"'
    )


def _axle_places(kind: str, axles: int) -> list[float]:
    """Where the axles stand: the first in front on what drives itself, the others in a bogie behind."""
    front = [78.0] if kind in ("van", "truck", "quad") else []
    behind = axles - len(front)
    centre = 196.0 if kind in ("trailer", "sprayer") else 222.0
    reach = _BOGIE * (behind - 1)
    start = min(centre - reach / 2, _LENGTH - 26 - reach)
    return front[:axles] + [start + _BOGIE * index for index in range(behind)]


def _wheel(wheel: WheelMark, x: float, middle: float) -> str:
    # Front to the left: the driver's left side is below on the page.
    y = middle + (_HALF + 18) * (1 if wheel.side == "left" else -1)
    long, wide = _WHEEL
    tyre = rect(x - long / 2, y - wide / 2, long, wide, f"wheel {wheel.state}".strip(), rx=5)
    target = rect(x - 24, y - 24, 48, 48, "target")
    words = ""
    if wheel.job:
        words = text((x, y + 5), wheel.job, "wheel-job", 14, text_anchor="middle")
    if wheel.short:
        out = 27 if wheel.side == "left" else -19
        words += text((x, y + out), wheel.short, "label faint", 11, text_anchor="middle")
    content = element("title", escape(wheel.title)) + target + tyre + words
    if not wheel.href:
        return element("g", content)
    return element("a", content, href=wheel.href, class_="wheel-link", aria_label=wheel.title)


def _trailer(middle: float) -> list[str]:
    return [
        polygon([(30, middle), (96, middle - 26), (96, middle + 26)], "body open"),
        circle((26, middle), 7, "body"),
        rect(96, middle - _HALF, 190, 2 * _HALF, "body"),
        *(
            line((x, middle - _HALF), (x, middle + _HALF), "faint-line")
            for x in (134, 172, 210, 248)
        ),
    ]


def _sprayer(middle: float) -> list[str]:
    return [
        polygon([(30, middle), (110, middle - 20), (110, middle + 20)], "body open"),
        circle((26, middle), 7, "body"),
        rect(110, middle - 40, 140, 80, "body", rx=38),
        circle((180, middle), 13, "body"),
        line((268, middle - 84), (268, middle + 84), "boom"),
        line((250, middle), (268, middle), "ink"),
    ]


def _van(middle: float) -> list[str]:
    return [
        rect(30, middle - _HALF, 250, 2 * _HALF, "body", rx=20),
        polygon(
            [(76, middle - 34), (98, middle - 38), (98, middle + 38), (76, middle + 34)], "glass"
        ),
        line((124, middle - _HALF), (124, middle + _HALF), "faint-line"),
    ]


def _truck(middle: float) -> list[str]:
    return [
        rect(34, middle - 42, 76, 84, "body", rx=12),
        polygon(
            [(52, middle - 34), (66, middle - 36), (66, middle + 36), (52, middle + 34)], "glass"
        ),
        rect(118, middle - _HALF, 168, 2 * _HALF, "body"),
        *(line((118, middle + y), (286, middle + y), "faint-line") for y in (-15, 15)),
    ]


def _lowloader(middle: float) -> list[str]:
    return [
        rect(22, middle - 30, 62, 60, "body"),
        polygon([(84, middle - 22), (104, middle - _HALF), (104, middle + _HALF), (84, middle + 22)],
                "body"),
        rect(104, middle - _HALF, 182, 2 * _HALF, "body open"),
        *(line((104, middle + y), (286, middle + y), "faint-line") for y in (-28, 28)),
    ]  # fmt: skip


def _quad(middle: float) -> list[str]:
    return [
        polygon([(60, middle - 22), (120, middle - 34), (240, middle - 34), (264, middle - 20),
                 (264, middle + 20), (240, middle + 34), (120, middle + 34), (60, middle + 22)], "body"),
        rect(150, middle - 15, 74, 30, "body", rx=14),
        line((122, middle - 44), (122, middle + 44), "boom"),
    ]  # fmt: skip


_BODIES = {
    "quad": _quad,
    "trailer": _trailer,
    "sprayer": _sprayer,
    "van": _van,
    "truck": _truck,
    "lowloader": _lowloader,
}
