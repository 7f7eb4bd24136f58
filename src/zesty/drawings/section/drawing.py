"""The section as a drawing: shapes, hatching, leaders, numbers, forces."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from wheelend.wording import count, pack, thickness
from zesty.drawings.section import shapes
from zesty.drawings.section.labels import Label, balloons, leaders
from zesty.drawings.section.model import Part, Placed, Stack, place
from zesty.drawings.section.through import ThroughView, through
from zesty.drawings.svg import (
    Point,
    arrow,
    circle,
    drawing,
    element,
    line,
    polygon,
    rect,
    text,
    text_width,
)

_LONGEST_PACK = 26
"""Letters of a pack that fit under its label; a longer one is counted instead."""

_SHIM_PX = 6.0
_DETAIL_PX = 96.0


@dataclass(frozen=True)
class SectionView:
    """What is shown on the section.

    `lit` is the kind of part in hand. `push` shows the force on the hub for the reading that is
    due. With a `link` each part leads to its own fields. `play` and `play_other` are the measured
    play as text; `nut` the torque as text.
    """

    parts: tuple[Part, ...]
    shape: str = "spindle_pair"
    shims_mm: tuple[float, ...] = ()
    shim_names: tuple[tuple[float, str], ...] = ()
    lit: str = ""
    push: str = ""
    play: str = ""
    play_other: str = ""
    nut: str = ""
    right_mm: tuple[float, ...] = ()
    end: str = ""
    link: str = ""


class _Page:
    """From mm to the page: one scale both ways, the axis near the bottom."""

    def __init__(self, stack: Stack, width: float, *, narrow: bool) -> None:
        self.narrow, self.width = narrow, width
        # A pattern inside a drawing that is not shown paints nothing, so each has its own.
        self.hatch = "narrow-hatch" if narrow else "hatch"
        self.far_end = stack.length + 9
        _, flange_r = shapes.flange(stack)
        room = 30.0 if narrow else 150.0
        across = (width - room) / (self.far_end + shapes.SHOULDER_MM)
        self.scale = min(across, (150.0 if narrow else 262.0) / (flange_r + 6))
        used = self.scale * (self.far_end + shapes.SHOULDER_MM)
        slack = 0.5 if narrow else 0.42
        self.left = (width - used) * slack + shapes.SHOULDER_MM * self.scale
        self.axis = (48.0 if narrow else 62.0) + self.scale * (flange_r + 6)

    def __call__(self, point: tuple[float, float]) -> Point:
        return self.left + point[0] * self.scale, self.axis - point[1] * self.scale

    def all(self, outline: Sequence[tuple[float, float]]) -> list[Point]:
        return [self(point) for point in outline]


@dataclass(frozen=True)
class _Scene:
    """What every part is drawn from."""

    view: SectionView
    stack: Stack
    page: _Page


@lru_cache(maxsize=128)
def section(view: SectionView, *, width: float = 780, narrow: bool = False, css: str = "") -> str:
    """The half-section; `narrow` numbers the parts and lists them below, for a phone.

    The arrangement names its shape: an axle pair is drawn with both its ends. Drawn once for each
    view: most of what is written at a bench leaves the section as it is.
    """
    if view.shape == "axle_pair":
        hatches = _hatches("narrow-hatch" if narrow else "hatch")
        both = through(_both_ends(view), hatches, width=width, narrow=narrow, css=css)
        return both.replace('role="img"', 'role="group"', 1) if view.link else both
    probe = _Page(place(view.parts, view.shims_mm, 0.0), width, narrow=narrow)
    stack = place(view.parts, view.shims_mm, (4.0 if narrow else _SHIM_PX) / probe.scale)
    page = _Page(stack, width, narrow=narrow)
    scene = _Scene(view, stack, page)
    labels = _labels(view, stack, page)
    named, below = (balloons if narrow else leaders)(labels, width, page.axis)
    parts = [
        _hatches(page.hatch),
        polygon(page.all(shapes.spindle(stack, page.far_end)), "part metal"),
        polygon(page.all(shapes.hub(stack)), f"part {page.hatch}-a"),
        *(shape for placed in stack.placed for shape in _shape(scene, placed)),
        _axis(page),
        *_play(view, stack, page),
        *named,
    ]
    if not narrow:
        parts += _detail(view, stack, page)
    drawn = drawing(width, below, parts, _title(view), css)
    # A picture may hold no links; what can be tapped is a group of them.
    return drawn.replace('role="img"', 'role="group"', 1) if view.link else drawn


def _both_ends(view: SectionView) -> ThroughView:
    return ThroughView(
        parts=view.parts,
        left_mm=view.shims_mm,
        right_mm=view.right_mm,
        names=view.shim_names,
        lit=view.lit,
        link=view.link,
        end=view.end,
        push=view.push,
        play=view.play,
        nut=view.nut,
    )


def _hatches(stem: str) -> str:
    def pattern(name: str, angle: int, gap: int) -> str:
        stroke = line((0, 0), (0, gap), "hatch-line")
        turned = f"rotate({angle})"
        ground = rect(0, 0, gap, gap, "hatch-ground")
        size = {"width": gap, "height": gap, "patternUnits": "userSpaceOnUse"}
        return element("pattern", ground + stroke, id=name, patternTransform=turned, **size)

    return element(
        "defs",
        pattern(f"{stem}-a", -45, 8) + pattern(f"{stem}-b", 45, 6) + pattern(f"{stem}-c", -45, 5),
    )


def _shape(scene: _Scene, placed: Placed) -> list[str]:
    draw = _SHAPES.get(placed.part.role)
    return draw(scene, placed) if draw else []


def _bearing(scene: _Scene, placed: Placed) -> list[str]:
    inboard = placed.part.role == "inner_bearing"
    outlines = shapes.bearing(placed, big_end_inboard=inboard)
    # Pushed in, the hub rests on the inner bearing; pulled out, on the outer one.
    loaded = scene.view.push == ("in" if inboard else "out")
    return [
        polygon(scene.page.all(outlines["cup"]), f"part {scene.page.hatch}-b"),
        polygon(scene.page.all(outlines["cone"]), f"part {scene.page.hatch}-c"),
        polygon(
            scene.page.all(outlines["roller"]), "part roller loaded" if loaded else "part roller"
        ),
    ]


def _ring(scene: _Scene, placed: Placed) -> list[str]:
    way = "b" if placed.part.kind == "collar" else "a"
    return [polygon(scene.page.all(shapes.ring(placed)), f"part {scene.page.hatch}-{way}")]


def _spacer(scene: _Scene, placed: Placed) -> list[str]:
    return [
        polygon(scene.page.all(shapes.spacer(scene.stack, placed)), f"part {scene.page.hatch}-a")
    ]


def _shims(scene: _Scene, placed: Placed) -> list[str]:
    drawn: list[str] = []
    x, top = placed.x, shapes.cone_face(scene.stack, "outer_bearing") or placed.outer
    for shim in scene.stack.shims_mm:
        wide = max(shim, scene.stack.shim_drawn_mm)
        one = Placed(placed.part, x, wide, placed.inner, top)
        drawn.append(
            polygon(
                scene.page.all(shapes.ring(one)),
                "shim new" if scene.view.lit == "shim" else "shim",
            )
        )
        x += wide
    return drawn


def _seal(scene: _Scene, placed: Placed) -> list[str]:
    shell, lip = shapes.seal(scene.stack, placed)
    absent = "" if placed.part.counts else " absent"
    return [
        polygon(scene.page.all(shell), f"part solid{absent}"),
        polygon(scene.page.all(lip), f"part rubber{absent}"),
    ]


def _nut(scene: _Scene, placed: Placed) -> list[str]:
    body, crown = shapes.nut(placed)
    lit = " lit-part" if scene.view.lit == "nut" else ""
    return [
        polygon(scene.page.all(body), f"part {scene.page.hatch}-b{lit}"),
        polygon(scene.page.all(crown), f"part {scene.page.hatch}-c{lit}"),
    ]


def _pin(scene: _Scene, _: Placed) -> list[str]:
    nut = scene.stack.of("nut")
    if nut is None:
        return []
    centre = (nut.x + nut.width * 0.84, nut.inner + (nut.outer - nut.inner) * 0.34)
    return [
        circle(
            scene.page(centre),
            max(1.7 * scene.page.scale, 3.0),
            "part lit-part" if scene.view.lit == "nut" else "part",
        )
    ]


_SHAPES: dict[str, Callable[[_Scene, Placed], list[str]]] = {
    "collar": _ring,
    "spacer": _spacer,
    "washer": _ring,
    "inner_bearing": _bearing,
    "outer_bearing": _bearing,
    "shim": _shims,
    "seal": _seal,
    "nut": _nut,
    "pin": _pin,
}


def _axis(page: _Page) -> str:
    left = page((-shapes.SHOULDER_MM, 0))[0] - 10
    return line((left, page.axis), (page((page.far_end, 0))[0] + 12, page.axis), "centre-line")


def _play(view: SectionView, stack: Stack, page: _Page) -> list[str]:
    """The play as a double arrow at the flange, and the push or pull that is due."""
    x, y = page(shapes.flange(stack))
    size = 15.0 if page.narrow else 24.0
    drawn: list[str] = []
    reach = 34.0 if page.narrow else 52.0
    if view.push:
        ends = (
            ((x + reach + 6, y), (x + 6, y))
            if view.push == "in"
            else ((x + 6, y), (x + reach + 6, y))
        )
        drawn.append(arrow(*ends))
    elif view.play:
        drawn += [arrow((x + 30, y), (x + 6, y)), arrow((x + 30, y), (x + reach + 6, y))]
    if view.play:
        # Clear of the leader that comes down to the nut.
        nut = stack.of("nut")
        beside = page((nut.x + nut.width * 0.34, 0))[0] + 16 if nut and not page.narrow else 0.0
        left = max(x + reach + 14, beside)
        anchor = "start" if left + text_width(view.play, size) < page.width else "end"
        left = left if anchor == "start" else page.width - 4
        drawn.append(text((left, y + 2), view.play, "label big", size, text_anchor=anchor))
        if not page.narrow:
            drawn.append(
                text((left, y + 20), view.play_other, "label faint", 13, text_anchor=anchor)
            )
    return drawn


def _labels(view: SectionView, stack: Stack, page: _Page) -> list[Label]:
    labels = []
    for placed in stack.placed:
        words = _words(view, placed)
        anchor, above = _anchor(stack, placed, page)
        href = f"{view.link}{placed.part.spot}" if view.link and placed.part.spot else ""
        lit = placed.part.role == view.lit if view.link else placed.part.kind == "shim"
        labels.append(Label(anchor, words[0], words[1], above, lit=lit, href=href))
    return labels


def _words(view: SectionView, placed: Placed) -> tuple[str, str]:
    part = placed.part
    if part.kind == "shim":
        total = f"shims {thickness(sum(view.shims_mm))} mm" if view.shims_mm else "shims: none"
        words = pack(view.shims_mm, dict(view.shim_names)) if len(view.shims_mm) > 1 else ""
        return total, words if len(words) <= _LONGEST_PACK else count(len(view.shims_mm), "shim")
    if part.kind == "nut" and view.nut:
        return part.name, view.nut
    if part.kind == "seal" and not part.counts:
        return part.name, "left out for trials"
    return part.name, part.way_round


def _anchor(stack: Stack, placed: Placed, page: _Page) -> tuple[Point, bool]:
    """Where a leader points, and whether its label stands above."""
    middle = (placed.inner + placed.outer) / 2
    if placed.part.kind == "seal":
        shell, _ = shapes.seal(stack, placed)
        if not shell:
            return page((placed.x + placed.width / 2, middle)), True
        return page((shell[0][0] + 0.8, (shell[2][1] + shell[4][1]) / 2)), True
    if placed.part.kind == "cone":
        cup = shapes.bearing(placed, big_end_inboard=placed.part.role == "inner_bearing")["cup"]
        return page((sum(x for x, _ in cup) / 4, sum(r for _, r in cup) / 4 + 0.4)), True
    if placed.part.kind == "pin":
        nut = stack.of("nut")
        if nut:
            return page(
                (nut.x + nut.width * 0.84, nut.inner + (nut.outer - nut.inner) * 0.34)
            ), False
    if placed.part.kind == "nut":
        # On a phone the play stands where a leader to a balloon above would pass.
        return page((placed.x + placed.width * 0.34, placed.outer - 2)), not page.narrow
    if placed.part.kind in ("spacer", "shim"):
        low = shapes.cone_face(stack, "outer_bearing") or placed.outer
        middle = (placed.inner + low) / 2
    return page((placed.middle, middle)), False


def _detail(view: SectionView, stack: Stack, page: _Page) -> list[str]:
    """The pack magnified, each shim with its thickness: true proportions among themselves."""
    placed = stack.of("shim")
    if placed is None or not stack.shims_mm:
        return []
    scale = _DETAIL_PX / max(sum(stack.shims_mm), 1e-6)
    left, top, height = 14.0, page.axis + 14, 58.0
    drawn = [text((left, top + height + 16), f"pack × {scale / page.scale:.0f}", "label faint", 12)]
    x = left
    for shim in stack.shims_mm:
        wide = max(shim * scale, 3.0)
        drawn.append(rect(x, top, wide, height, "shim new" if view.lit == "shim" else "shim"))
        x += wide + 1.5
    return drawn


def _title(view: SectionView) -> str:
    parts = ", ".join(part.name for part in view.parts)
    shims = f"; shims {pack(view.shims_mm)} mm" if view.shims_mm else ""
    play = f"; end play {view.play}" if view.play else ""
    return f"Half-section from inboard to outboard: {parts}{shims}{play}"
