"""One item of a list: what is asked of it, and how it can be answered."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from wheelend.procedure.log import Written

NOTED = "noted"
EXTRA = "extra"
"""The answer of what the card has not: its detail is what it is."""

Wants = Literal["", "length", "text", "reason"]


@dataclass(frozen=True)
class Choice:
    """One answer. `wants` is what has to be typed with it, called `label`; `picture` a drawing's name,
    `hint` small words."""

    key: str
    words: str
    wants: Wants = ""
    picture: str = ""
    hint: str = ""
    label: str = ""


@dataclass(frozen=True)
class Item:
    """One item: `asks` is the question in full, `held` says what keeps an answer from being enough, and
    `stop` how that is called."""

    key: str
    words: str
    choices: tuple[Choice, ...]
    asks: str = ""
    why: str = ""
    spot: str = ""
    held: str = ""
    stop: str = "does not match"


def latest(rows: Iterable[Written]) -> Mapping[str, Written]:
    """The answer that counts at each item: the last one."""
    return {row.place: row for row in rows if row.kind == NOTED}


def answer_of(row: Written) -> str:
    """The answer's key."""
    return row.typed.partition(" ")[0]


def detail_of(row: Written) -> str:
    """What was typed with it."""
    return row.typed.partition(" ")[2]


def extras(rows: Iterable[Written]) -> tuple[Written, ...]:
    """What somebody added that no card knows of."""
    return tuple(row for row in latest(rows).values() if answer_of(row) == EXTRA)


def plain(key: str) -> str:
    """A key as people read it."""
    return key.replace("_", " ")
