"""One length at each of a step's places; done where every place has one, or somebody says that it is.

Where a step is done in each part of some kinds, and the stack has several, each has the places.
"""

from collections.abc import Mapping

from wheelend.arrangements import Step
from wheelend.card import Card, Part
from wheelend.procedure.asking.frame import At, Judged, Line, Slot, titled
from wheelend.procedure.asking.judged import judged
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
    """What stands at each place that was measured: the latest."""
    said = {row.place: row for row in sorted(at.entries, key=_order) if row.kind == "value"}
    return {place: said[place] for place in places_of(at.step, at.card) if place in said}


def _order(row: Written) -> tuple[int, int]:
    return row.round, row.id


def place_words(at: At, place: str) -> str:
    """A place in words, with its part where there are several."""
    word, point, where = place.partition(".")
    parts = parts_of(at.step, at.card)
    said = f"at {where or place}" if (where or place).isdigit() else where or place
    return f"{parts[word].name}, {where}" if point and word in parts else said


def verdict(at: At) -> Judged | None:
    """What all places together say, where the kind of step is judged; None while one is missing, or half
    of a series was read again."""
    said = measured(at)
    early = _early(at, said)
    if early:
        return early
    if len(said) < len(places_of(at.step, at.card)) or _behind(at, said):
        return None
    return judged(at, said)


def _early(at: At, said: Mapping[str, Written]) -> Judged | None:
    """A bearing that is hollow is filled before the next is weighed; a series is judged when it is whole."""
    found = judged(at, said) if at.step.kind == "weighed" else None
    return found if found and found.held else None


def due_place(at: At) -> tuple[str, int]:
    """The place that is read next, and its round; no place where all was read and does."""
    said = measured(at)
    early = _early(at, said)
    if early:
        return _again(early, said)
    missing = next((one for one in places_of(at.step, at.card) if one not in said), "")
    if missing:
        return missing, 1
    behind = _behind(at, said)
    if behind:
        return behind
    found = judged(at, said)
    if found is None or not found.held:
        return "", 1
    return _again(found, said)


def _again(found: Judged, said: Mapping[str, Written]) -> tuple[str, int]:
    return found.again[0], max(said[place].round for place in found.again) + 1


def _behind(at: At, said: Mapping[str, Written]) -> tuple[str, int] | None:
    """A place whose series is being read again, and that was not yet: half of one agrees by luck."""
    for place in said:
        series = (place,) if at.step.kind == "weighed" else tuple(said)
        newest = max(said[one].round for one in series)
        if said[place].round < newest and judged(at, said) is not None:
            return place, newest
    return None


class MeasuredAsked:
    """One row a place; what does not do is read again."""

    def complete(self, at: At) -> bool:
        return any(row.kind == "done" for row in at.entries) or not due_place(at)[0]

    def slot(self, at: At) -> Slot:
        place, number = due_place(at)
        return Slot(place, number, words=place_words(at, place) or at.step.says)

    def lines(self, at: At) -> tuple[Line, ...]:
        said = measured(at)
        found = tuple(
            Line(f"{at.step.says}, {place_words(at, place)}", row.typed, (row,))
            for place, row in said.items()
        )
        done = tuple(row for row in at.entries if row.kind == "done")
        whole = len(places_of(at.step, at.card))
        shown = "done" if done and not found else f"{len(found)} of {whole}" if found else ""
        judgement = verdict(at)
        if judgement and judgement.words:
            shown = judgement.words
        return (*found, Line(titled(at), shown, done, due=True))
