"""Seating: torque again while the hub turns, until the nut no longer moves."""

from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.seating import Seating, seating


def seating_of(at: At) -> Seating | None:
    """How far the seating is, or None before the first repeat."""
    moves = [entry.value for entry in at.entries if entry.value is not None]
    return seating(moves) if moves else None


class SeatAsked:
    """One angle a repeat."""

    def complete(self, at: At) -> bool:
        found = seating_of(at)
        return found is not None and found.state == "seated"

    def slot(self, at: At) -> Slot:
        return Slot(round=at.next_round)

    def lines(self, at: At) -> tuple[Line, ...]:
        found = seating_of(at)
        words = {"seated": "still", "repeat": "moves", "not_settling": "does not settle"}
        moves = ", ".join(f"{entry.value:g}°" for entry in at.entries if entry.value is not None)
        text = f"{titled(at)}: {moves}" if moves else titled(at)
        return (Line(text, words[found.state] if found else "", at.entries),)
