"""The parts to be drawn and where each one sits, in mm: x outboard, r from the axis."""

from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.arrangements import PART_KINDS

DEFAULT_SEAT_MM = 30.0
_STEP_DOWN = 0.78
"""Outer seat over inner seat where the card gives no bore."""


@dataclass(frozen=True)
class Part:
    """One part of a card's stack; sizes in mm where they are known. `spot` is its place on the card."""

    kind: str
    name: str
    width_mm: float | None = None
    bore_mm: float | None = None
    outside_mm: float | None = None
    way_round: str = ""
    counts: bool = True
    seat: str = ""
    spot: str = ""

    @property
    def role(self) -> str:
        """What it is drawn as: a cone stands for its bearing, told apart by its seat."""
        return f"{self.seat or 'inner'}_bearing" if self.kind == "cone" else self.kind


@dataclass(frozen=True)
class Placed:
    """A part with its place: from x to x + width, from radius `inner` to `outer`, all in mm."""

    part: Part
    x: float
    width: float
    inner: float
    outer: float

    @property
    def end(self) -> float:
        """Its outboard end."""
        return self.x + self.width

    @property
    def middle(self) -> float:
        """Half-way along it."""
        return self.x + self.width / 2


@dataclass(frozen=True)
class Stack:
    """All parts placed, with the radii that spindle and hub are drawn from; mm."""

    placed: tuple[Placed, ...]
    inner_seat: float
    outer_seat: float
    shims_mm: tuple[float, ...]
    shim_drawn_mm: float

    def of(self, kind: str) -> Placed | None:
        """The first part that is drawn as this."""
        return next((placed for placed in self.placed if placed.part.role == kind), None)

    @property
    def length(self) -> float:
        """From the spindle's shoulder to the last part's end."""
        return max((placed.end for placed in self.placed), default=1.0)

    @property
    def tallest(self) -> float:
        """The largest radius of any ring."""
        return max((placed.outer for placed in self.placed), default=1.0)


def place(parts: Sequence[Part], shims_mm: Sequence[float], shim_drawn_mm: float) -> Stack:
    """Put the parts one after another; `shim_drawn_mm` is each shim's least width.

    A part that does not count in the clamped length (a seal, a pin) takes no room of its own.
    """
    inner = _seat(parts, "inner_bearing", DEFAULT_SEAT_MM)
    outer = _seat(parts, "outer_bearing", inner * _STEP_DOWN)
    drawn = sum(max(shim, shim_drawn_mm) for shim in shims_mm)
    placed: list[Placed] = []
    x = 0.0
    past_inner = False
    for part in parts:
        seat = outer if past_inner else inner
        width = drawn if part.kind == "shim" else _width(part)
        inner_r, outer_r = _radii(part, seat)
        placed.append(Placed(part, x, width, inner_r, outer_r))
        past_inner = past_inner or part.role == "inner_bearing"
        if part.counts:
            x += width
    return Stack(tuple(placed), inner / 2, outer / 2, tuple(shims_mm), shim_drawn_mm)


def _seat(parts: Sequence[Part], kind: str, otherwise: float) -> float:
    return next((p.bore_mm for p in parts if p.role == kind and p.bore_mm), otherwise)


def _width(part: Part) -> float:
    return PART_KINDS[part.kind].width_mm if part.width_mm is None else part.width_mm


def _radii(part: Part, seat_mm: float) -> tuple[float, float]:
    bore = part.bore_mm or seat_mm
    outside = part.outside_mm or bore + 2 * PART_KINDS[part.kind].height * seat_mm
    return bore / 2, max(outside / 2, bore / 2 + 1)
