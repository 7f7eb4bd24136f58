"""What is asked of a ring that was pressed: how, on what, and whether a thin blade enters behind it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from wheelend.card import Part
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items import asked
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest
from wheelend.procedure.items.laying_out import captive_items
from wheelend.procedure.log import Written

CLOCK = ("12", "2", "4", "6", "8", "10")
ENTERS = "enters"
STAYED = "stayed"
_BLADE = (Choice("out", "It stays out"), Choice(ENTERS, "It enters"))
_OF_THE_RING = (
    Choice(STAYED, "Kept: it was never out"),
    Choice("groove", "The seal’s groove is free"),
    Choice("flush", "The inner shoulder is flush"),
    Choice("snap_ring", "The snap ring turns in its groove"),
)
"""Offered at the first place: each says of the whole ring that it is home, and no blade is needed."""

_WHOLE = frozenset(choice.key for choice in _OF_THE_RING)
CURES = (
    "look for dirt or a burr on its shoulder",
    "press it on, square, by its tight ring",
    "opposite the gap first, then all round",
    "out with it, seat and ring cleaned, and in again",
)
"""What helps a ring that stands off its shoulder, mildest first."""


def items(at: At) -> tuple[Item, ...]:
    """The captive parts, what is asked of the pressing, then a feeler all round behind each ring."""
    return (*captive_items(at), *asked.items(at), *feeler_items(at))


def rings(at: At) -> tuple[tuple[str, Part], ...]:
    """The rings that are pressed in this step, each with the word that its items begin with."""
    return tuple(
        (f"p{index}", part)
        for index, part in enumerate(at.card.stack)
        if part.part in at.step.each and part.station in ("", at.station)
    )


def feeler_items(at: At) -> tuple[Item, ...]:
    """A thin blade behind each ring, round the clock."""
    return tuple(_items(at))


def _items(at: At) -> Iterator[Item]:
    said = latest(at.entries)
    for key, part in rings(at):
        whole = next((clock for clock in CLOCK if _answer(said, key, clock) in _WHOLE), "")
        for clock in (whole,) if whole else CLOCK:
            item = f"{key}_{clock}"
            enters = item in said and answer_of(said[item]) == ENTERS
            yield Item(
                item,
                f"{part.name}, blade at {clock}",
                (*_BLADE, *_OF_THE_RING) if clock == CLOCK[0] else _BLADE,
                f"The thinnest blade behind the {part.name} at {clock} o’clock: does it enter?",
                "Any place that lets it in says that the ring is not home.",
                f"stack.{key[1:]}",
                cure(part.name, clock) if enters else "",
                "not home",
            )


def cure(name: str, clock: str) -> str:
    """What to do with a ring that a blade enters behind."""
    return (
        f"The {name} is off its shoulder at {clock} o’clock. Left so, it settles on the road and the play that"
        f" you set opens. First {CURES[0]}; then try the same blade there again."
    )


def _answer(said: Mapping[str, Written], key: str, clock: str) -> str:
    row = said.get(f"{key}_{clock}")
    return answer_of(row) if row else ""


@dataclass(frozen=True)
class Home:
    """What a blade says of the rings of a step: behind which it enters, and which were not tried all round."""

    enters: tuple[str, ...]
    untried: tuple[str, ...]

    @property
    def proven(self) -> bool:
        """Whether every ring is on its shoulder, for all that a blade can tell."""
        return not self.enters and not self.untried

    @property
    def doubt(self) -> str:
        """What keeps it from being proven, in words."""
        if self.enters:
            return f"a thin blade enters behind the {self.enters[0]}"
        return f"no blade was tried all round behind the {self.untried[0]}" if self.untried else ""


def home(at: At) -> Home:
    """What a thin blade says of every ring that this step presses.

    A ring that was kept never moved; a groove left free or a flush shoulder says the same as the blade.
    """
    said = latest(at.entries)
    enters, untried = [], []
    for key, part in rings(at):
        answers = {clock: _answer(said, key, clock) for clock in CLOCK}
        if not set(answers.values()).isdisjoint(_WHOLE):
            continue
        at_clock = next((clock for clock in CLOCK if answers[clock] == ENTERS), "")
        if at_clock:
            enters.append(f"{part.name} at {at_clock} o’clock")
        elif set(answers.values()) != {"out"}:
            untried.append(part.name)
    return Home(tuple(enters), tuple(untried))


def is_home(at: At) -> bool:
    """Whether the step presses rings, and every one of them is proven home."""
    return bool(rings(at)) and home(at).proven
