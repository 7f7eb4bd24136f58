"""Outlines of parts in mm, as (x, r) points; `view` turns them into the page's."""

from zesty.drawings.section.model import Placed, Stack

Outline = list[tuple[float, float]]

SHOULDER_MM = 12.0
FLANGE_MM = 9.0
_WALL = 0.16
_SMALL_END = 0.31
"""Height of a cone's small end, as a share of the bearing's."""

_CUP_OVERHANG = 0.14
"""How far the cup stands out past the cone's small end, as a share of the cone's width."""


def bearing(placed: Placed, *, big_end_inboard: bool) -> dict[str, Outline]:
    """Cone, roller and cup of a tapered bearing; the big end faces away from the spacer."""
    r0, h = placed.inner, placed.outer - placed.inner

    def at(t: float, share: float) -> tuple[float, float]:
        along = t if big_end_inboard else 1 - t
        return placed.x + along * placed.width, r0 + share * h

    return {
        "cone": [at(0, 0), at(0, 0.58), at(0.12, 0.58), at(0.12, 0.48), at(0.88, 0.25), at(0.88, 0.33),
                 at(1, 0.33), at(1, 0)],
        "roller": [at(0.15, 0.49), at(0.87, 0.27), at(0.94, 0.52), at(0.22, 0.82)],
        "cup": [at(_CUP_OVERHANG, 0.86), at(_CUP_OVERHANG, 1), at(1 + _CUP_OVERHANG, 1),
                at(1 + _CUP_OVERHANG, 0.42)],
    }  # fmt: skip


def cup_back(placed: Placed, *, big_end_inboard: bool) -> float:
    """Where the cup stands against its shoulder."""
    over = _CUP_OVERHANG * placed.width
    return placed.end + over if big_end_inboard else placed.x - over


def spindle(stack: Stack, far_end: float) -> Outline:
    """The spindle from its shoulder to past the nut, above the axis."""
    inner_bearing, nut = stack.of("inner_bearing"), stack.of("nut")
    step = inner_bearing.end if inner_bearing else stack.length / 2
    collar = stack.of("collar")
    shoulder = (collar.outer if collar else stack.inner_seat * 1.3) * 1.12
    thread = stack.outer_seat * 0.93
    thread_from = nut.x - 2 if nut else stack.length
    return [
        (-SHOULDER_MM, 0), (-SHOULDER_MM, shoulder), (0, shoulder), (0, stack.inner_seat),
        (step, stack.inner_seat), (step, stack.outer_seat), (thread_from, stack.outer_seat),
        (thread_from, thread), (far_end - 2, thread), (far_end, thread - 2), (far_end, 0),
    ]  # fmt: skip


def hub(stack: Stack) -> Outline:
    """The hub's section: cup seats, shoulders, cavity, and the wheel flange outboard."""
    inner, outer = stack.of("inner_bearing"), stack.of("outer_bearing")
    if inner is None or outer is None:
        return []
    wall = _WALL * 2 * inner.outer
    inner_back = cup_back(inner, big_end_inboard=True)
    outer_back = cup_back(outer, big_end_inboard=False)
    left, right = _inboard_end(stack, inner), outer.end + 5
    cavity_in = inner.inner + 0.62 * (inner.outer - inner.inner)
    cavity_out = outer.inner + 0.62 * (outer.outer - outer.inner)
    flange_left, flange_top = outer.x - 2, inner.outer + wall + 16
    body, nose = inner.outer + wall, outer.outer + wall * 0.7
    return [
        (left, body), (flange_left, body), (flange_left, flange_top),
        (flange_left + FLANGE_MM, flange_top), (flange_left + FLANGE_MM, nose), (right, nose),
        (right, outer.outer), (outer_back, outer.outer), (outer_back, cavity_out),
        ((inner_back + outer_back) / 2, cavity_out), ((inner_back + outer_back) / 2, cavity_in),
        (inner_back, cavity_in), (inner_back, inner.outer), (left, inner.outer),
    ]  # fmt: skip


def flange(stack: Stack) -> tuple[float, float]:
    """The middle of the wheel flange's outboard face: (x, r)."""
    inner, outer = stack.of("inner_bearing"), stack.of("outer_bearing")
    if inner is None or outer is None:
        return stack.length, stack.tallest
    top = inner.outer + _WALL * 2 * inner.outer + 16
    return outer.x - 2 + FLANGE_MM, top - 6


def _inboard_end(stack: Stack, inner: Placed) -> float:
    """The hub reaches over the seal, which sits inboard of the inner cup."""
    seal = stack.of("seal")
    return inner.x - (seal.width if seal else 2.0) + 0.5


def seal(stack: Stack, placed: Placed) -> tuple[Outline, Outline]:
    """Shell and lip of a seal pressed into the hub's inboard end, running on the collar."""
    inner, collar = stack.of("inner_bearing"), stack.of("collar")
    if inner is None:
        return [], []
    top, track = inner.outer, (collar.outer if collar else stack.inner_seat)
    right = inner.x - 0.5
    left = right - placed.width + 2
    shell = [(left, top), (right, top), (right, top - 1.6), (left + 1.6, top - 1.6),
             (left + 1.6, track + 4), (left, track + 4)]  # fmt: skip
    lip = [(left, track + 5), (left + 1.8, track + 5), (right - 2, track), (left + 3.4, track)]
    return shell, lip


def nut(placed: Placed) -> tuple[Outline, Outline]:
    """Body and castle of a slotted nut."""
    x, castle = placed.x, placed.x + placed.width * 0.68
    top = placed.outer
    body = [
        (x, placed.inner),
        (x, top - 1.5),
        (x + 1.5, top),
        (castle, top),
        (castle, placed.inner),
    ]
    crown_top = placed.inner + (top - placed.inner) * 0.72
    crown = [(castle, placed.inner), (castle, crown_top), (placed.end, crown_top),
             (placed.end, placed.inner)]  # fmt: skip
    return body, crown


def cone_face(stack: Stack, kind: str) -> float:
    """The radius up to which a cone's small end can bear on what stands against it."""
    placed = stack.of(kind)
    return placed.inner + _SMALL_END * (placed.outer - placed.inner) if placed else 0.0


def spacer(stack: Stack, placed: Placed) -> Outline:
    """A spacer: as high at each end as the cone that it stands against, stepped between."""
    low = cone_face(stack, "outer_bearing") or placed.outer
    high = max(cone_face(stack, "inner_bearing"), low)
    step = placed.x + 0.3 * placed.width
    return [
        (placed.x, placed.inner), (placed.x, high), (step, high), (step, low), (placed.end, low),
        (placed.end, placed.inner),
    ]  # fmt: skip


def ring(placed: Placed) -> Outline:
    """A plain ring: collar, spacer, washer."""
    return [
        (placed.x, placed.inner),
        (placed.x, placed.outer),
        (placed.end, placed.outer),
        (placed.end, placed.inner),
    ]
