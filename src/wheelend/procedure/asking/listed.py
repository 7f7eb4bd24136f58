"""A list gone through item by item; done where every item is answered, or somebody says that it is."""

from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.items import Item, items_of
from wheelend.procedure.items.frame import NOTED, answer_of, detail_of, extras, latest, plain
from wheelend.procedure.log import Written


def due_item(at: At) -> Item | None:
    """The first item that has no answer, or one that is not enough."""
    said = latest(at.entries)
    return next((one for one in items_of(at) if one.key not in said or one.held), None)


class ListedAsked:
    """One row an item; answered again, the later one counts."""

    def complete(self, at: At) -> bool:
        # What a list asks is dear to find out, and this is asked of every list on every page.
        said = latest(at.entries)
        if any(row.kind == "done" for row in at.entries):
            return not said or not any(one.held for one in items_of(at))
        if not at.entries and at.step.kind in _NEEDS_A_TICK:
            return False
        items = items_of(at)
        left = any(one.key not in said or one.held for one in items)
        return not left and bool(items or at.step.kind not in _NEEDS_A_TICK)

    def slot(self, at: At) -> Slot:
        item = due_item(at)
        return slot_of(at, item.key) if item else Slot(round=at.gone + 1)

    def lines(self, at: At) -> tuple[Line, ...]:
        said = latest(at.entries)
        found = tuple(
            Line(item.words, _words(item, said[item.key]), (said[item.key],))
            for item in items_of(at)
            if item.key in said
        )
        added = tuple(Line(detail_of(row), "added", (row,)) for row in extras(at.entries))
        done = tuple(row for row in at.entries if row.kind == "done")
        shown = f"{len(found) + len(added)} of {len(items_of(at)) + len(added)}"
        last = Line(
            titled(at), "done" if done and not found else shown if found else "", done, due=True
        )
        return (*found, *added, last)


_NEEDS_A_TICK = frozenset(
    {"judged", "stack_off", "fasteners", "matched", "laid_out", "captive", "lock"}
)
"""Lists that somebody closes by a tick where the card leaves nothing to ask."""


def _words(item: Item, row: Written) -> str:
    choice = next((one for one in item.choices if one.key == answer_of(row)), None)
    if choice is None:
        return plain(answer_of(row))
    return detail_of(row) or choice.words.lower()


def slot_of(at: At, item: str) -> Slot:
    """Where the next answer to an item goes."""
    rounds = [row.round for row in at.entries if row.place == item and row.kind == NOTED]
    return Slot(item, max([at.gone, *rounds]) + 1)
