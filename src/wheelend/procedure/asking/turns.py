"""The hub is turned one way, then the other: one tap a turn, until somebody says that it is enough."""

from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written

WAYS = {"one": "one way", "other": "the other way"}


def turned(at: At) -> dict[str, int]:
    """How many turns each way."""
    said = [row.typed for row in at.entries if row.kind == "pick"]
    return {way: said.count(way) for way in WAYS}


class TurnsAsked:
    """Done where it was turned both ways, and said to be enough."""

    def complete(self, at: At) -> bool:
        return all(turned(at).values()) and _end(at) is not None

    def slot(self, at: At) -> Slot:
        return Slot(round=at.next_round)

    def lines(self, at: At) -> tuple[Line, ...]:
        done = turned(at)
        shown = ", ".join(f"{done[way]} {words}" for way, words in WAYS.items() if done[way])
        return (Line(titled(at), shown, at.entries, due=True),)


def _end(at: At) -> Written | None:
    return next((row for row in at.entries if row.kind == "done"), None)
