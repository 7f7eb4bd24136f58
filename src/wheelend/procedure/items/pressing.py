"""What is asked of a ring that was pressed: how, on what, and whether a thin blade enters behind it."""

from collections.abc import Iterator

from wheelend.card import Part
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items import asked
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest
from wheelend.procedure.items.laying_out import captive_items

CLOCK = ("12", "3", "6", "9")
ENTERS = "enters"
_CHOICES = (Choice("out", "It stays out"), Choice(ENTERS, "It enters"))
CURES = (
    "look for dirt or a burr on its shoulder",
    "press it on, square, by its tight ring",
    "opposite the gap first, then all round",
    "out with it, seat and ring cleaned, and in again",
)
"""What helps a ring that stands off its shoulder, mildest first."""


def items(at: At) -> tuple[Item, ...]:
    """The captive parts, what is asked of the pressing, then a feeler at four places behind each ring."""
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
        for clock in CLOCK:
            item = f"{key}_{clock}"
            enters = item in said and answer_of(said[item]) == ENTERS
            yield Item(
                item,
                f"{part.name}, blade at {clock}",
                _CHOICES,
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


def is_home(at: At) -> bool:
    """Whether a blade was tried behind every ring of the step, all round, and entered nowhere."""
    said = latest(at.entries)
    wanted = [f"{key}_{clock}" for key, _ in rings(at) for clock in CLOCK]
    return bool(wanted) and all(key in said and answer_of(said[key]) == "out" for key in wanted)
