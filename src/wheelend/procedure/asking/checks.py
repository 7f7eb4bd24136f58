"""Checking and diagnosing: one answer a check, in any order, until enough is known."""

from functools import lru_cache

from wheelend.diagnose import Answer, Case, Diagnosis, diagnose, table
from wheelend.diagnose.table import UNKNOWN
from wheelend.procedure.asking.frame import At, Line, Slot

FOUND = "found"


def case_of(at: At) -> Case:
    """The evidence as it stands; what could not be told is not offered again."""
    rows = [row for row in at.entries if row.kind == FOUND]
    latest = {row.place: row.typed for row in rows}
    evidence = tuple(Answer(row.place, row.typed) for row in rows)
    unknown = tuple(check for check, answer in latest.items() if answer == UNKNOWN)
    return Case(evidence, at.card.arrangement.key, at.axle or None, unknown)


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
        offer = diagnosed(at).next_check
        if offer is None:
            return Slot(round=at.gone + 1)
        return slot_of(at, offer.check.id)

    def lines(self, at: At) -> tuple[Line, ...]:
        latest = {row.place: row for row in at.entries if row.kind == FOUND}
        found = tuple(
            Line(table().check(check).says, words(row.typed), (row,))
            for check, row in latest.items()
        )
        done = tuple(row for row in at.entries if row.kind == "done")
        first = diagnosed(at).first
        last = Line(at.step.says, first.cause.short if done and found else "", done, due=True)
        return (*found, last)


def slot_of(at: At, check: str) -> Slot:
    """Where the next answer to a check goes: answered again, the later one counts."""
    times = sum(row.place == check and row.kind == FOUND for row in at.entries)
    return Slot(check, times + 1, words=table().check(check).asks)
