"""What every kind of asking shares."""

from dataclasses import dataclass
from typing import Protocol

from wheelend.arrangements import Step
from wheelend.card import Card, Setting
from wheelend.procedure.log import Written
from wheelend.wording import Lead


@dataclass(frozen=True)
class At:
    """A step at a station, in the closing that its clamp is in.

    `entries` are this step's rows that count here, oldest first; `beside` all that count in the
    same closing of the clamp, of whatever step.
    """

    step: Step
    station: str
    clamp: str
    closing: int
    entries: tuple[Written, ...]
    beside: tuple[Written, ...]
    card: Card
    lead: Lead = "metric"

    @property
    def setting(self) -> Setting:
        """What the card says of this clamp, or of the one that the method judges."""
        clamps = {clamp.key for clamp in self.card.arrangement.clamps}
        return self.card.of_clamp(self.clamp) if self.clamp in clamps else self.card.setting


@dataclass(frozen=True)
class Slot:
    """Where the next row goes: its place, its round, which way, and what it is called."""

    place: str = ""
    round: int = 1
    push: str = ""
    words: str = ""


@dataclass(frozen=True)
class Line:
    """One line of the notebook: what was asked, what was written, on which rows it rests."""

    text: str
    value: str = ""
    rows: tuple[Written, ...] = ()
    due: bool = False


class Asked(Protocol):
    """How one kind of step is answered."""

    def complete(self, at: At, /) -> bool:
        """Whether the step is answered as it stands."""

    def slot(self, at: At, /) -> Slot:
        """Where the next row goes."""

    def lines(self, at: At, /) -> tuple[Line, ...]:
        """The step's lines in the notebook."""


def place_words(place: str) -> str:
    """A place to read at, in words."""
    return f"{place} o’clock" if place[:1].isdigit() else f"{place} end"


def titled(at: At) -> str:
    """The step's line, with its station where it has several."""
    return f"{at.step.says}, {at.station}" if at.station not in ("", "main") else at.step.says
