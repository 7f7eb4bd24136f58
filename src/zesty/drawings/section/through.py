"""A through-axle from above its axis: both ends, each with its pack between housing and plate."""

from dataclasses import dataclass

from wheelend.wording import pack, thickness
from zesty.drawings.section.labels import Label, balloons, leaders
from zesty.drawings.section.model import Part, Placed
from zesty.drawings.section.shapes import Outline, bearing
from zesty.drawings.svg import Point, arrow, drawing, line, polygon, text

_BLOCK, _SHAFT_END, _SHAFT = 14.0, 112.0, 15.0
_BEARING_FROM, _FACE = 34.0, 54.0
_HOUSING, _CUP = 52.0, 31.0
_PLATE, _HUB = 8.0, (74.0, 96.0)
_SHIM_PX = 6.0


@dataclass(frozen=True)
class ThroughView:
    """What is shown: both packs in mm, the part in hand, the end and the way of the reading due."""

    parts: tuple[Part, ...]
    left_mm: tuple[float, ...] = ()
    right_mm: tuple[float, ...] = ()
    names: tuple[tuple[float, str], ...] = ()
    lit: str = ""
    end: str = ""
    push: str = ""
    play: str = ""
    nut: str = ""
    link: str = ""


class _Page:
    """From mm to the page: x outboard from the centre on either side, r from the axis."""

    def __init__(self, width: float, *, narrow: bool) -> None:
        self.narrow, self.width = narrow, width
        self.scale = (width - 40) / (2 * (_SHAFT_END + 8))
        self.axis = (44.0 if narrow else 66.0) + self.scale * (_HOUSING + 8)
        self.hatch = "narrow-hatch" if narrow else "hatch"

    def at(self, x: float, r: float, side: int) -> Point:
        return self.width / 2 + side * x * self.scale, self.axis - r * self.scale

    def all(self, outline: Outline, side: int) -> list[Point]:
        return [self.at(x, r, side) for x, r in outline]


def through(
    view: ThroughView, hatches: str, *, width: float = 780, narrow: bool = False, css: str = ""
) -> str:
    """The through-axle as a drawing; `narrow` numbers the parts and lists them below."""
    page = _Page(width, narrow=narrow)
    labels = _labels(view, page)
    named, below = (balloons if narrow else leaders)(labels, width, page.axis)
    parts = [hatches, *_middle(page)]
    for side, shims in ((-1, view.left_mm), (1, view.right_mm)):
        parts += _end(view, page, side, shims)
    parts.append(line((14, page.axis), (width - 14, page.axis), "centre-line"))
    return drawing(width, below, [*parts, *_reading(view, page), *named], _title(view), css)


def _middle(page: _Page) -> list[str]:
    block = [
        page.at(_BLOCK, 0, -1),
        page.at(_BLOCK, 24, -1),
        page.at(_BLOCK, 24, 1),
        page.at(_BLOCK, 0, 1),
    ]
    return [polygon(block, f"part {page.hatch}-b")]


def _end(view: ThroughView, page: _Page, side: int, shims: tuple[float, ...]) -> list[str]:
    least = (4.0 if page.narrow else _SHIM_PX) / page.scale
    drawn = [max(shim, least) for shim in shims]
    plate = _FACE + sum(drawn)
    shapes: list[tuple[Outline, str]] = [
        ([(_BLOCK, 0), (_BLOCK, _SHAFT), (_SHAFT_END, _SHAFT), (_SHAFT_END, 0)], "part metal"),
        ([(20, _HOUSING), (_FACE, _HOUSING), (_FACE, _CUP), (20, _CUP)], f"part {page.hatch}-a"),
    ]
    placed = Placed(Part("cone", "bearing", seat="outer"), _BEARING_FROM, 16.0, _SHAFT, _CUP)
    rings = bearing(placed, big_end_inboard=True)
    loaded = view.push and (view.push == "in") == (view.end == ("right" if side > 0 else "left"))
    shapes += [
        (rings["cup"], f"part {page.hatch}-b"),
        (rings["cone"], f"part {page.hatch}-c"),
        (rings["roller"], "part roller loaded" if loaded else "part roller"),
    ]
    x = _FACE
    for wide in drawn:
        shim = [(x, 34.0), (x, _HOUSING), (x + wide, _HOUSING), (x + wide, 34.0)]
        shapes.append((shim, "shim new" if view.lit == "shim" else "shim"))
        x += wide
    shapes.append((_plate(plate), f"part {page.hatch}-c"))
    near, far = _HUB
    hub = [
        (near, _SHAFT),
        (near, 46.0),
        (near + 6, 46.0),
        (near + 6, 25.0),
        (far, 25.0),
        (far, _SHAFT),
    ]
    nut = [(far, _SHAFT * 0.9), (far, 23.0), (far + 10, 23.0), (far + 10, _SHAFT * 0.9)]
    lit = " lit-part" if view.lit == "nut" else ""
    shapes += [(hub, f"part {page.hatch}-a"), (nut, f"part {page.hatch}-b{lit}")]
    return [polygon(page.all(outline, side), name) for outline, name in shapes]


def _plate(at: float) -> Outline:
    """The plate reaches over the cup and stands against it."""
    home = _BEARING_FROM + 16.0 * 1.14
    return [
        (at, _HOUSING), (at + _PLATE, _HOUSING), (at + _PLATE, 21.0), (at, 21.0), (home, 24.0),
        (home, _CUP), (at, _CUP),
    ]  # fmt: skip


def _labels(view: ThroughView, page: _Page) -> list[Label]:
    names = {part.kind: part for part in reversed(view.parts)}

    def href(kind: str) -> str:
        return f"{view.link}{names[kind].spot}" if view.link and kind in names else ""

    labels = [Label(page.at(0, 12, 1), "centre block", "", above=False, href=href("housing"))]
    for side, word, shims in ((-1, "left", view.left_mm), (1, "right", view.right_mm)):
        total = f"{word} {thickness(sum(shims))} mm" if shims else f"{word}: no shims"
        more = pack(shims, dict(view.names)) if len(shims) > 1 else ""
        more = more if len(more) <= 24 else f"{len(shims)} shims"
        anchor = page.at(_FACE + 0.4, 47.0, side)
        labels.append(Label(anchor, total, more, above=True, lit=True, href=href("shim")))
    for kind, point, side, above in (
        ("cone", (_BEARING_FROM + 11, 28.5), -1, False),
        ("plate", (_FACE + 7, 26.0), 1, False),
        ("hub", (_HUB[0] + 3, 40.0), -1, True),
        ("nut", (_HUB[1] + 5, 19.0), 1, False),
    ):
        if kind in names:
            more = view.nut if kind == "nut" and view.nut else names[kind].way_round
            at = page.at(*point, side)
            labels.append(Label(at, names[kind].name, more, above=above, href=href(kind)))
    return labels


def _reading(view: ThroughView, page: _Page) -> list[str]:
    """The push or pull that is due at one end, or the play in the middle."""
    if view.push:
        side = 1 if view.end == "right" else -1
        inner, outer = page.at(_SHAFT_END - 1, 7, side), page.at(_SHAFT_END + 7, 7, side)
        reach = (outer[0] + side * 20, outer[1])
        return [arrow(reach, inner) if view.push == "in" else arrow(inner, reach)]
    if not view.play:
        return []
    size = 17.0 if page.narrow else 26.0
    # Above both housings, where no leader passes.
    top = page.axis - (_HOUSING + 5) * page.scale
    return [text((page.width / 2, top), view.play, "label big", size, text_anchor="middle")]


def _title(view: ThroughView) -> str:
    play = f"; end play {view.play}" if view.play else ""
    return f"Through-axle: left pack {pack(view.left_mm)}, right pack {pack(view.right_mm)}{play}"
