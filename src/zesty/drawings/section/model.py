"""The stack to be drawn: its parts, their sizes where they are known, and sensible ones where not."""

from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.arrangements import PART_KINDS


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
class Stack:
    """A card's parts, looked up by kind and seat.

    `least_mm` is what a thin part is drawn at the least, `shims_mm` the packs by station.
    """

    parts: tuple[Part, ...]
    shims_mm: tuple[tuple[float, ...], ...] = ((), ())
    least_mm: float = 0.0

    def find(self, kind: str, seat: str = "") -> Part | None:
        """The first part of a kind, at a seat where one is named."""
        return next(
            (one for one in self.parts if one.kind == kind and (not seat or one.seat == seat)), None
        )

    def has(self, kind: str, seat: str = "") -> bool:
        """Whether the stack has such a part."""
        return self.find(kind, seat) is not None

    def width(self, kind: str, seat: str = "", otherwise: float | None = None) -> float:
        """Its width; a sensible one where the card has none."""
        part = self.find(kind, seat)
        if part and part.width_mm:
            return part.width_mm
        return PART_KINDS[kind].width_mm if otherwise is None else otherwise

    def bore(self, kind: str, seat: str = "", otherwise: float = 30.0) -> float:
        """The radius of its bore."""
        part = self.find(kind, seat)
        return (part.bore_mm if part and part.bore_mm else otherwise) / 2

    def outside(self, kind: str, seat: str, otherwise: float) -> float:
        """The radius of its outside."""
        part = self.find(kind, seat)
        return (part.outside_mm if part and part.outside_mm else otherwise) / 2

    def thin(self, width: float) -> float:
        """A width that can be seen."""
        return max(width, self.least_mm)

    def pack(self, station: int = 0) -> tuple[float, ...]:
        """The shims of a station as they are drawn, each wide enough to be seen."""
        shims = self.shims_mm[station] if station < len(self.shims_mm) else ()
        return tuple(self.thin(shim) for shim in shims)


def stack_of(
    parts: Sequence[Part], shims_mm: Sequence[Sequence[float]], least_mm: float = 0.0
) -> Stack:
    """A stack with the packs that are in."""
    return Stack(tuple(parts), tuple(tuple(one) for one in shims_mm), least_mm)
