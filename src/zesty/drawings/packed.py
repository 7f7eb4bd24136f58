"""A bearing cut between two rollers, filled as it was weighed, beside a full one; the grams on their gate."""

from dataclasses import dataclass

from wheelend.grease import PACKED
from zesty.drawings.cut import housing, ring
from zesty.drawings.svg import Point, arrow, drawing, element, line, polygon, polyline, rect, text


@dataclass(frozen=True)
class PackedView:
    """Grams: `wanted` goes in by the card, `low` is enough, `found` as weighed; strokes still to come."""

    name: str
    wanted: float
    low: float
    found: float | None = None
    strokes: int = 0
    gun: str = ""
    each: str = ""

    @property
    def share(self) -> float | None:
        """How much of it is in."""
        return None if self.found is None else self.found / self.wanted


def packed_view(view: PackedView, *, narrow: bool = False) -> str:
    """Both bearings and the gate; narrow, the gate stands below one bearing."""
    said = "not weighed yet" if view.found is None else f"{view.found:.1f} g of {view.wanted:.1f} g"
    title = f"{view.name}: {said}"
    if narrow:
        parts = [*_bearing((90, 40), view.share, view.found), *_gate(view, (20.0, 350.0), 330)]
        return drawing(380, 380, parts, title)
    parts = [
        *_bearing((110, 34), view.share, view.found),
        *_bearing((470, 34), 1.0, view.wanted, full=True),
        *_gate(view, (40.0, 430.0), 386),
        *_strokes(view),
    ]
    return drawing(760, 420, parts, title)


_CONE: tuple[Point, ...] = (
    (0, 138), (50, 138), (40, 172), (196, 206), (200, 194), (216, 194), (216, 250), (206, 260), (10, 260),
    (0, 250),
)  # fmt: skip


def _bearing(
    at: Point, share: float | None, grams: float | None, *, full: bool = False
) -> list[str]:
    """Cup above, cone below, the roller behind dashed, the cage; grease where there is some."""
    left, top = at

    def p(*points: Point) -> list[Point]:
        return [(left + x, top + y) for x, y in points]

    hollow = share is not None and share < PACKED
    words = "full" if full else "as it is" if share is not None else "pack it"
    drawn = [
        *ring(p((50, 42), (60, 32), (226, 32), (236, 42), (236, 126), (50, 76))),
        *housing(p(*_CONE)),
    ]  # fmt: skip
    if share is not None:
        drawn.append(_grease(at, full or share >= PACKED))
    if hollow:
        drawn.append(_hollow(at, share or 0.0))
    drawn += [
        polygon(p((50, 78), (234, 128), (194, 204), (42, 170)), "construction"),
        polyline(p((40, 106), (228, 156), (218, 188)), "cage"),
        text(
            (left + 4, top + 14), f"{grams:.1f} g" if grams is not None else "", "label strong", 26
        ),
        text((left + 118, top + 14), words, "label faint", 15),
    ]
    if hollow:
        drawn.append(text((left + 60, top + 292), "hollow between", "label strong lit", 15))
    if not full:
        y = top + 108
        drawn += [
            arrow((left - 100, y), (left - 4, y)),
            text((left - 104, y - 28), "from the", "label strong lit", 14),
            text((left - 104, y - 11), "wide end", "label strong lit", 14),
        ]
    else:
        drawn.append(text((left + 40, top + 292), "it shows at every gap", "label", 14))
    return drawn


def _grease(at: Point, through: bool) -> str:
    left, top = at
    out = 26 if through else 0
    bulge = (
        f"C{left + 236 + out:.0f} {top + 140:.0f} {left + 226 + out:.0f} {top + 190:.0f}"
        f" {left + 198:.0f} {top + 204:.0f}"
    )
    path = (
        f"M{left + 50:.0f} {top + 76:.0f}L{left + 236:.0f} {top + 126:.0f}{bulge}"
        f"L{left + 42:.0f} {top + 172:.0f}L{left + 48:.0f} {top + 138:.0f}L{left + 12:.0f} {top + 138:.0f}"
        f"C{left + 14:.0f} {top + 100:.0f} {left + 30:.0f} {top + 80:.0f} {left + 50:.0f} {top + 76:.0f}Z"
    )
    return element("path", d=path, class_="grease")


def _hollow(at: Point, share: float) -> str:
    """What is missing, in the middle: as large as it is."""
    left, top = at
    half = 84 * min(1.0, max(0.0, 1 - share)) ** 0.5
    middle = (left + 140, top + 142)

    def along(x: float, y: float) -> str:
        return f"{middle[0] + x * 0.966 - y * 0.2:.1f} {middle[1] + x * 0.26 + y:.1f}"

    path = (
        f"M{along(-half, -36)}L{along(half, -32)}Q{along(half - 26, 2)} {along(half, 34)}"
        f"L{along(-half, 34)}Q{along(-half + 26, 0)} {along(-half, -36)}Z"
    )
    return element("path", d=path, class_="hollow")


def _gate(view: PackedView, ends: tuple[float, float], axis: float) -> list[str]:
    most = view.wanted * 1.2

    def x(grams: float) -> float:
        return ends[0] + min(max(grams, 0.0), most) / most * (ends[1] - ends[0])

    drawn = [
        rect(x(view.low), axis - 10, x(view.wanted) - x(view.low), 10, "gate-window"),
        line((ends[0], axis), (ends[1], axis), "gate-axis"),
    ]
    for grams in (view.low, view.wanted):
        drawn.append(rect(x(grams) - 3, axis - 26, 6, 28, "gate-post"))
    drawn += [
        text((x(view.low) - 4, axis + 20), f"{view.low:.1f}", "label strong", 15, text_anchor="end"),
        text((x(view.wanted) + 4, axis + 20), f"{view.wanted:.1f} g", "label strong", 15, text_anchor="middle"),
        text((ends[0], axis + 20), "0", "label faint", 14),
    ]  # fmt: skip
    if view.found is not None:
        at = x(view.found)
        mark = [(at, axis - 22), (at + 9, axis - 12), (at, axis - 2), (at - 9, axis - 12)]
        drawn += [
            polygon(mark, "gate-mark"),
            text(
                (at, axis - 30), f"{view.found:.1f}", "label strong lit", 17, text_anchor="middle"
            ),
        ]
    return drawn


def _strokes(view: PackedView) -> list[str]:
    """Strokes as a tally, five to a bundle."""
    if not view.strokes:
        return []
    shown = min(view.strokes, 30)
    drawn = [
        line((490.0 + i * 8 + i // 5 * 6, 384), (494.0 + i * 8 + i // 5 * 6, 346), "tally")
        for i in range(shown)
    ]
    words = f"{view.strokes} × {view.each}, {view.gun}"
    return [*drawn, text((490, 408), words, "label strong", 16)]
