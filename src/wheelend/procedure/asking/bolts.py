"""A ring of bolts: each stage crosswise, then rounds at full torque until none moves."""

from dataclasses import dataclass

from wheelend.card import BoltRing
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written


@dataclass(frozen=True)
class Ringed:
    """How far a ring is.

    `lap` is the pass that is being done, counted from 1, `due` the bolt that is next in it; both
    0 where all is done. `checking` says that this lap only looks whether a bolt still moves.
    """

    ring: BoltRing
    done: tuple[Written, ...]
    lap: int
    due: int
    order: tuple[int, ...]
    torque_N_m: float
    checking: bool
    few: Written | None

    @property
    def ticked(self) -> frozenset[int]:
        """The bolts that are done in this lap."""
        return frozenset(
            int(row.place.partition(".")[2]) for row in self.done if _lap(row) == self.lap
        )


def _lap(row: Written) -> int:
    return int(row.place.partition(".")[0])


def ringed(at: At) -> Ringed | None:
    """How far a step's ring is, or None where the card has no such ring."""
    ring = at.card.ring(at.step.ring)
    if ring is None:
        return None
    rows = tuple(row for row in at.entries if row.kind in ("bolt", "moved"))
    few = next((row for row in at.entries if row.kind == "few"), None)
    passes = ring.passes
    lap = 1
    while True:
        one = passes[min(lap, len(passes)) - 1]
        here = {int(row.place.partition(".")[2]): row for row in rows if _lap(row) == lap}
        checking = lap >= len(passes)
        due = next((bolt for bolt in one.order if bolt not in here), 0)
        if due:
            return Ringed(ring, rows, lap, due, one.order, one.torque_N_m, checking, few)
        if checking and not any(row.kind == "moved" for row in here.values()):
            return Ringed(ring, rows, 0, 0, one.order, one.torque_N_m, checking, few)
        lap += 1


class BoltsAsked:
    """One row a bolt and pass."""

    def complete(self, at: At) -> bool:
        found = ringed(at)
        return found is None or found.lap == 0 or bool(found.few)

    def slot(self, at: At) -> Slot:
        found = ringed(at)
        if found is None or found.lap == 0:
            return Slot()
        return Slot(f"{found.lap}.{found.due}", words=f"bolt {found.due}")

    def lines(self, at: At) -> tuple[Line, ...]:
        found = ringed(at)
        if found is None:
            return (Line(titled(at)),)
        text = f"{titled(at)}, {found.ring.bolts} × {found.ring.torque}"
        if found.few:
            return (Line(text, "a few, snug", (found.few,)),)
        if found.lap == 0:
            return (Line(text, "none moves", found.done),)
        return (Line(text, f"{len(found.done)} done" if found.done else "", found.done),)
