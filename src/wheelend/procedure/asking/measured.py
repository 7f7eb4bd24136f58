"""One length at each of a step's places; done where every place has one, or somebody says that it is."""

from collections.abc import Mapping

from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written


def measured(at: At) -> Mapping[str, Written]:
    """What stands at each place that was measured."""
    said = {row.place: row for row in at.entries if row.kind == "value"}
    return {place: said[place] for place in at.step.places if place in said}


class MeasuredAsked:
    """One row a place."""

    def complete(self, at: At) -> bool:
        closed = any(row.kind == "done" for row in at.entries)
        return closed or len(measured(at)) == len(at.step.places)

    def slot(self, at: At) -> Slot:
        said = measured(at)
        place = next((one for one in at.step.places if one not in said), "")
        return Slot(place, words=place or at.step.says)

    def lines(self, at: At) -> tuple[Line, ...]:
        said = measured(at)
        found = tuple(
            Line(f"{at.step.says}, {place}", row.typed, (row,)) for place, row in said.items()
        )
        done = tuple(row for row in at.entries if row.kind == "done")
        shown = (
            "done"
            if done and not found
            else f"{len(found)} of {len(at.step.places)}"
            if found
            else ""
        )
        return (*found, Line(titled(at), shown, done, due=True))
