"""A list as its page shows it: the item that is due with its answers, and what may be added."""

from dataclasses import dataclass

from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.items import Choice, Item, items_of
from wheelend.procedure.progress import Row
from zesty.drawings.damage import picture

_WANTS = {
    "length": "Thickness, where it is another",
    "text": "Number, or where it comes from",
    "reason": "Why not",
}
_MAY_ADD = {
    "stack_off": "another washer, a sleeve that the card has not …",
    "fasteners": "bracket screws, splash shield …",
}


@dataclass(frozen=True)
class ShownChoice:
    """One answer with its drawing."""

    key: str
    words: str
    hint: str
    drawing: str


@dataclass(frozen=True)
class ListView:
    """The item that is due, how it can be answered, what has to be typed with it."""

    due: Item | None
    choices: tuple[ShownChoice, ...]
    wants: str
    may_add: str

    @property
    def pictures(self) -> bool:
        """Whether the answers are drawn."""
        return any(choice.drawing for choice in self.choices)


def list_view(row: Row, place: str) -> ListView:
    """A list at the item that is due, or at the one that somebody opened."""
    items = {item.key: item for item in items_of(row.at)}
    due = items.get(place) or due_item(row.at)
    choices = tuple(map(_shown, due.choices)) if due else ()
    wants = next(map(_wanted, (one for one in due.choices if one.wants)), "") if due else ""
    return ListView(due, choices, wants, _MAY_ADD.get(row.step.kind, ""))


def _wanted(one: Choice) -> str:
    """What has to be typed, and with which answer."""
    return f"{one.words}: {one.label[0].lower()}{one.label[1:]}" if one.label else _WANTS[one.wants]


def _shown(one: Choice) -> ShownChoice:
    return ShownChoice(one.key, one.words, one.hint, picture(one.picture) if one.picture else "")
