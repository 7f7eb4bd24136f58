"""One length at each of a step's places; done where every place has one, or somebody says that it is.

Where a step is done in each part of some kinds, and the stack has several, each has the places.
"""

from collections.abc import Mapping

from wheelend.arrangements import Step
from wheelend.card import Card, Part
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written


def parts_of(step: Step, card: Card) -> Mapping[str, Part]:
    """The parts that are measured one by one, by the word that their places begin with; none where it
    is measured once."""
    found = {f"p{index}": part for index, part in enumerate(card.stack) if part.part in step.each}
    return found if len(found) > 1 else {}


def places_of(step: Step, card: Card) -> tuple[str, ...]:
    """Where it is measured: a part's places begin with its word and a point."""
    parts = parts_of(step, card)
    return tuple(f"{part}.{place}" for part in parts for place in step.places) or step.places


def measured(at: At) -> Mapping[str, Written]:
    """What stands at each place that was measured."""
    said = {row.place: row for row in at.entries if row.kind == "value"}
    return {place: said[place] for place in places_of(at.step, at.card) if place in said}


def place_words(at: At, place: str) -> str:
    """A place in words, with its part where there are several."""
    word, point, where = place.partition(".")
    parts = parts_of(at.step, at.card)
    return f"{parts[word].name}, {where}" if point and word in parts else place


class MeasuredAsked:
    """One row a place."""

    def complete(self, at: At) -> bool:
        closed = any(row.kind == "done" for row in at.entries)
        return closed or len(measured(at)) == len(places_of(at.step, at.card))

    def slot(self, at: At) -> Slot:
        said = measured(at)
        due = (one for one in places_of(at.step, at.card) if one not in said)
        place = next(due, "")
        return Slot(place, words=place_words(at, place) or at.step.says)

    def lines(self, at: At) -> tuple[Line, ...]:
        said = measured(at)
        found = tuple(
            Line(f"{at.step.says}, {place_words(at, place)}", row.typed, (row,))
            for place, row in said.items()
        )
        done = tuple(row for row in at.entries if row.kind == "done")
        whole = len(places_of(at.step, at.card))
        shown = "done" if done and not found else f"{len(found)} of {whole}" if found else ""
        return (*found, Line(titled(at), shown, done, due=True))
