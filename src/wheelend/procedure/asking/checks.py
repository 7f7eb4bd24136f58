"""Checking and diagnosing: one answer a check, in any order, until enough is known. A check that is
measured has a number at each of its places, and they are its answer."""

from collections.abc import Iterator, Mapping
from functools import lru_cache

from wheelend.card import Card
from wheelend.diagnose import Answer, Case, Diagnosis, diagnose, table
from wheelend.diagnose.gauged import Gauged, gauged
from wheelend.diagnose.table import UNKNOWN, Check
from wheelend.procedure.asking.frame import At, Line, Slot
from wheelend.procedure.log import Written
from wheelend.verdict import Limits

FOUND = "found"


def case_of(at: At) -> Case:
    """The evidence as it stands; what could not be told is not offered again."""
    rows = [row for row in at.entries if row.kind == FOUND]
    measures = dict(_measured(at))
    said = [(row.id, row.place, row.typed) for row in rows]
    said += [
        (last, check, found.answer) for check, (last, found) in measures.items() if found.answer
    ]
    said.sort()
    latest = {check: answer for _, check, answer in said}
    unknown = tuple(check for check, answer in latest.items() if answer == UNKNOWN)
    evidence = tuple(Answer(check, answer) for _, check, answer in said)
    return Case(evidence, at.card.arrangement.key, at.axle or None, unknown)


def readings_of(at: At, check: Check) -> Mapping[str, Written]:
    """What stands at each place of a measured check."""
    said = {row.place: row for row in at.entries if row.kind == "value"}
    return {
        place: said[f"{check.id}.{place}"]
        for place in check.places
        if f"{check.id}.{place}" in said
    }


def due_place(at: At, check: Check) -> str:
    """The place of a measured check that is due; empty where all were measured."""
    said = readings_of(at, check)
    return next((place for place in check.places if place not in said), "")


def begun(at: At) -> Check | None:
    """The measured check of which some places were read and some are due, and no word was said since."""
    for check in table().checks:
        said = readings_of(at, check)
        if said and due_place(at, check):
            last = max(row.id for row in said.values())
            if not any(row.place == check.id and row.id > last for row in at.entries):
                return check
    return None


def gauged_at(at: At, check: Check) -> Gauged | None:
    """What a measured check says by its numbers; None while a place is missing."""
    typed = {place: row.typed for place, row in readings_of(at, check).items()}
    return gauged(check, typed, limits_of(at.card, check))


def limits_of(card: Card, check: Check) -> Limits | None:
    """What the card allows of what a check measures."""
    if check.gauge == "play":
        return card.setting.limits.limits if card.setting.limits else None
    most = {"face_runout": card.wear.face_runout, "disc_runout": card.wear.disc_runout}.get(
        check.id
    )
    return Limits(None, most.value) if most else None


def _measured(at: At) -> Iterator[tuple[str, tuple[int, Gauged]]]:
    """Each check that was measured whole: the row that it was whole with, and what it says."""
    for check in table().checks:
        found = gauged_at(at, check) if check.gauge else None
        if found:
            yield check.id, (max(row.id for row in readings_of(at, check).values()), found)


@lru_cache(maxsize=64)
def _diagnosed(case: Case) -> Diagnosis:
    return diagnose(case)


def diagnosed(at: At) -> Diagnosis:
    """The causes as they weigh now, and what to look at next."""
    return _diagnosed(case_of(at))


def words(answer: str) -> str:
    """An answer as people read it."""
    return "can’t be told" if answer == UNKNOWN else answer.replace("_", " ")


class ChecksAsked:
    """As many answers as it takes; done where somebody says that it is enough."""

    def complete(self, at: At) -> bool:
        return any(row.kind == "done" for row in at.entries)

    def slot(self, at: At) -> Slot:
        half = begun(at)
        if half:
            return slot_of(at, half.id)
        offer = diagnosed(at).next_check
        if offer is None:
            return Slot(round=at.gone + 1)
        return slot_of(at, offer.check.id)

    def lines(self, at: At) -> tuple[Line, ...]:
        latest = {row.place: row for row in at.entries if row.kind == FOUND}
        found = (
            *_measured_lines(at),
            *(
                Line(table().check(check).says, words(row.typed), (row,))
                for check, row in latest.items()
            ),
        )
        done = tuple(row for row in at.entries if row.kind == "done")
        first = diagnosed(at).first
        last = Line(at.step.says, first.cause.short if done and found else "", done, due=True)
        return (*found, last)


def _measured_lines(at: At) -> Iterator[Line]:
    """One line a number, and what they say together."""
    for check in table().checks:
        said = readings_of(at, check)
        for place, row in said.items():
            yield Line(f"{check.says}, {check.places[place]}", row.typed, (row,))
        found = gauged_at(at, check) if check.gauge else None
        if found:
            answer = f": {words(found.answer)}" if found.answer else ""
            yield Line(check.says, f"{found.figure}{answer}")


def slot_of(at: At, check: str) -> Slot:
    """Where the next answer to a check goes: answered again, the later one counts."""
    times = sum(row.place == check and row.kind == FOUND for row in at.entries)
    return Slot(check, times + 1, words=table().check(check).asks)
