"""The section as a drawing: laid out in mm, put on the page at one scale, named, measured."""

from dataclasses import dataclass
from functools import lru_cache

from wheelend.wording import count, pack, thickness
from zesty.drawings.section.labels import ABOVE, Label, balloons, leaders
from zesty.drawings.section.layouts import LAYOUTS
from zesty.drawings.section.model import Part, stack_of
from zesty.drawings.section.rendering import Frame, shapes
from zesty.drawings.section.sheet import Note, Sheet
from zesty.drawings.svg import arrow, circle, drawing, element, line, rect, text, text_width

_LONGEST_PACK = 16
"""Letters of a pack that fit under its label; a longer one is counted instead."""

_SHIM_PX = 5.5
_TALLEST = 250.0
_GIVES_WIDTH = frozenset({"spacer", "shim", "collar", "washer", "sleeve"})
"""Kinds whose thickness stands beside their name."""


@dataclass(frozen=True)
class SectionView:
    """What is shown on the section.

    `lit` is the part in hand: its kind, role or place on the card. `push` shows the force on the hub
    for the reading that is due. With a `link` each part leads to its own fields. `play` and
    `play_other` are the measured play as text; `nut` the torque as text. `has_packs` says that its
    shims are the packs of trials, not a part of one thickness.
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
    has_packs: bool = True

    @property
    def lit_names(self) -> frozenset[str]:
        """The names of the shapes that are lit."""
        if not self.lit:
            return frozenset()
        part = next((one for one in self.parts if self.lit in (one.spot, one.role, one.kind)), None)
        if part is None:
            return frozenset({self.lit})
        bearing = f"{part.seat or 'inner'}_bearing"
        names = {self.lit, part.role, f"{part.kind} {part.seat}".strip()}
        if part.kind in ("cone", "cup"):
            names |= (
                {bearing, f"{bearing} {part.kind}"} if part.kind == "cone" else {f"{bearing} cup"}
            )
        if part.kind == "ball_bearing":
            names |= {f"{name} {ring}" for name in tuple(names) for ring in ("inner", "outer")}
        return frozenset(names if part.seat else {*names, part.kind})


@lru_cache(maxsize=256)
def section(view: SectionView, *, width: float = 780, narrow: bool = False, css: str = "") -> str:
    """The half-section; `narrow` numbers the parts and lists them below, for a phone.

    Drawn once for each view: most of what is written at a bench leaves the section as it is.
    """
    sheet, frame = laid_out(view, width=width, narrow=narrow)
    labels = labels_of(view, sheet, frame)
    named, below = (balloons if narrow else leaders)(labels, width, frame.axis)
    from_x, to_x, _ = sheet.box
    parts = [
        *shapes(
            sheet, frame, view.lit_names, (view.push, view.end if len(sheet.faces) > 1 else "")
        ),
        _axis(frame, from_x, to_x),
        *_measured(view, sheet, frame, narrow=narrow),
        *named,
    ]
    if not narrow:
        parts += _detail(view, sheet, frame, width)
    drawn = drawing(width, below, parts, _title(view), css)
    # A picture may hold no links; what can be tapped is a group of them.
    return drawn.replace('role="img"', 'role="group"', 1) if view.link else drawn


def _axis(frame: Frame, from_x: float, to_x: float) -> str:
    start, end = frame((from_x, 0)), frame((to_x, 0))
    return line((start[0] - 10, start[1]), (end[0] + 10, end[1]), "centre-line")


def laid_out(view: SectionView, *, width: float, narrow: bool) -> tuple[Sheet, Frame]:
    """The arrangement on its sheet and the scale at which it fits: tried once, then drawn to it."""
    layout = LAYOUTS.get(view.shape, LAYOUTS["spindle_pair"])
    packs = (view.shims_mm, view.right_mm)
    px = 0.3
    for _ in range(2):
        sheet = Sheet(px)
        layout(sheet, stack_of(view.parts, packs, (4.0 if narrow else _SHIM_PX) * px))
        frame = _frame(sheet, width, narrow=narrow)
        px = 1 / frame.scale
    return sheet, frame


def _frame(sheet: Sheet, width: float, *, narrow: bool) -> Frame:
    from_x, to_x, high = sheet.box
    room, tallest = (16.0, 150.0) if narrow else (64.0, _TALLEST)
    scale = min((width - room) / (to_x - from_x), tallest / high)
    left = (width - (to_x - from_x) * scale) / 2 - from_x * scale
    top = 44.0 if narrow else ABOVE + 8
    # Where the width limits the scale, half of the height that stays free goes above.
    spare = 0.0 if narrow else max(0.0, min(tallest, 190.0) - high * scale) / 2
    return Frame(scale, left, top + spare + high * scale)


def labels_of(view: SectionView, sheet: Sheet, frame: Frame) -> list[Label]:
    """Every label as it stands on the page."""
    found = []
    for note in sheet.notes:
        part = note.part
        lit = view.lit in (part.spot, part.role, part.kind, _seated(part)) if view.lit else False
        lit = lit or (part.kind == "shim" and not view.link)
        words, more = _words(view, note)
        href = f"{view.link}{part.spot}" if view.link and part.spot else ""
        found.append(Label(frame(note.at), words, more, note.above, lit=lit, href=href))
    return found


def _seated(part: Part) -> str:
    return f"{part.kind} {part.seat}"


def _words(view: SectionView, note: Note) -> tuple[str, str]:
    part = note.part
    name = note.words or part.name
    if part.kind == "shim" and view.has_packs:
        shims = view.right_mm if part.seat == "right" else view.shims_mm
        side = f"{part.seat} " if part.seat in ("left", "right") else ""
        total = f"{side}shims {thickness(sum(shims))} mm" if shims else f"{side}shims: none"
        words = pack(shims, dict(view.shim_names)) if len(shims) > 1 else ""
        return total, words if len(words) <= _LONGEST_PACK else count(len(shims), "shim")
    if part.kind == "nut" and view.nut:
        return name, view.nut
    if part.kind == "seal" and not part.counts and view.push:
        return name, "left out for trials"
    if part.kind in _GIVES_WIDTH and part.width_mm:
        name = f"{name} {part.width_mm:.2f}"
    return name, note.more or part.way_round


def _measured(view: SectionView, sheet: Sheet, frame: Frame, *, narrow: bool) -> list[str]:
    """Forces, dimensions, the push or pull that is due, and the play that was read."""
    drawn = [arrow(frame(start), frame(end)) for start, end in sheet.forces]
    for x0, x1, r, words in sheet.spans:
        drawn += _span(frame, x0, x1, r, words)
    face = sheet.faces.get(view.end) or next(iter(sheet.faces.values()), None)
    if face is None:
        return drawn
    x, y = frame(face)
    reach = (26.0 if narrow else 44.0) * (-1 if view.end == "left" and len(sheet.faces) > 1 else 1)
    near = 6.0 if reach > 0 else -6.0
    if view.push:
        ends = ((x + near + reach, y), (x + near, y))
        drawn.append(arrow(*(ends if view.push == "in" else ends[::-1])))
    elif view.play and len(sheet.faces) == 1:
        drawn += [arrow((x + 28, y), (x + 6, y)), arrow((x + 28, y), (x + 6 + reach, y))]
    if view.play and sheet.play_at:
        size = 15.0 if narrow else 24.0
        at, anchor = frame(sheet.play_at[0]), sheet.play_at[1]
        if anchor == "end":
            at = (max(at[0], text_width(view.play, size) + 4), at[1])
        drawn.append(text(at, view.play, "label big", size, text_anchor=anchor))
        if not narrow:
            drawn.append(
                text((at[0], at[1] + 18), view.play_other, "label faint", 13, text_anchor=anchor)
            )
    return drawn


def _span(frame: Frame, x0: float, x1: float, r: float, words: str) -> list[str]:
    """A dimension between two faces, its arrows outside where it is short."""
    (a, y), (b, _) = frame((x0, r)), frame((x1, r))
    return [
        arrow((a - 18, y), (a, y), "dim"),
        arrow((b + 18, y), (b, y), "dim"),
        line((b + 18, y), (b + 24 + text_width(words, 12), y), "dim"),
        text((b + 22, y - 4), words, "label lit strong", 12.5),
    ]


def _detail(view: SectionView, sheet: Sheet, frame: Frame, width: float) -> list[str]:
    """The pack enlarged in a ring, each shim to scale among themselves, tied to its place by a letter."""
    if not view.shims_mm or not sheet.detail:
        return []
    here, centre = frame(sheet.detail), (width - 62, frame.axis - 168.0)
    total = sum(view.shims_mm)
    scale, half = 46.0 / max(total, 1e-6), 24.0
    clip = f"detail-{abs(hash((view.shims_mm, width))) % 10_000}"
    x = centre[0] - 23
    inside = [
        rect(centre[0] - 60, centre[1] - half - 5, 37, 2 * half + 10, "s-cut edge"),
        rect(x + 46, centre[1] - half - 9, 37, 2 * half + 18, "s-cut edge"),
    ]
    for shim in view.shims_mm:
        wide = max(shim * scale, 3.0)
        inside.append(rect(x, centre[1] - half, wide, 2 * half, "s-shim edge"))
        x += wide
    return [
        element("defs", element("clipPath", circle(centre, 44), id=clip)),
        circle(centre, 44, "detail-ring"),
        element("g", "".join(inside), clip_path=f"url(#{clip})"),
        circle(centre, 44, "detail-edge"),
        circle(here, 9, "detail-edge"),
        text((here[0] - 16, here[1] + 22), "A", "label strong", 13),
        text((centre[0] - 62, centre[1] - 30), "A", "label strong", 13, text_anchor="end"),
        text((centre[0], centre[1] + 60), "enlarged", "label faint", 11.5, text_anchor="middle"),
    ]


def _title(view: SectionView) -> str:
    parts = ", ".join(part.name for part in view.parts)
    shims = f"; shims {pack(view.shims_mm)} mm" if view.shims_mm else ""
    if view.right_mm:
        shims = f"; left pack {pack(view.shims_mm)}, right pack {pack(view.right_mm)} mm"
    play = f"; end play {view.play}" if view.play else ""
    return f"Half-section from inboard to outboard: {parts}{shims}{play}"
