"""What every kind of asking shares."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Protocol

from wheelend.arrangements import Step
from wheelend.card import CHOICES, Card, Setting
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.log import Written
from wheelend.wording import Lead


def _nothing(_: str) -> tuple[Written, ...]:
    """No other step."""
    return ()


def _usual(key: str) -> str:
    """What holds of a choice where nobody chose."""
    return CHOICES[key].usual


@dataclass(frozen=True)
class At:
    """A step at a station, in the closing that its clamp is in.

    `entries` are this step's rows that count here, oldest first; `beside` all that count in the
    same closing of the clamp, of whatever step. `roots` has the first row of each row's place,
    `axle` what kind of axle it is, where that is known; `others` finds the rows of another kind of
    step that count now, and `chosen` says what holds of a choice of school.
    """

    step: Step
    station: str
    clamp: str
    closing: int
    entries: tuple[Written, ...]
    beside: tuple[Written, ...]
    card: Card
    lead: Lead = "metric"
    roots: Mapping[int, int] = field(default_factory=dict)
    axle: str = ""
    others: Callable[[str], tuple[Written, ...]] = _nothing
    chosen: Callable[[str], str] = _usual

    @property
    def gone(self) -> int:
        """The last round of this step that was overtaken in its own closing; 0 where none was."""
        mine = (
            row.round
            for row in self.beside
            if (row.step, row.station) == (self.step.id, self.station) and row not in self.entries
        )
        return max(mine, default=0)

    @property
    def next_round(self) -> int:
        """The round of another answer beside those that stand."""
        return max([self.gone, *(row.round for row in self.entries)]) + 1

    @property
    def setting(self) -> Setting:
        """What the card says of this clamp, or of the one that the method judges."""
        clamps = {clamp.key for clamp in self.card.arrangement.clamps}
        found = self.card.of_clamp(self.clamp) if self.clamp in clamps else self.card.setting
        return found.torqued_to(self.step.figure)


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


@dataclass(frozen=True)
class Judged:
    """`words` is what it came to; `held` what keeps it from being enough, with what to do; `again` the
    places that are read anew then."""

    words: str
    held: str = ""
    again: tuple[str, ...] = ()


class Asked(Protocol):
    """How one kind of step is answered."""

    def complete(self, at: At, /) -> bool:
        """Whether the step is answered as it stands."""

    def slot(self, at: At, /) -> Slot:
        """Where the next row goes."""

    def lines(self, at: At, /) -> tuple[Line, ...]:
        """The step's lines in the notebook."""


def place_words(place: str) -> str:
    """A place to read at, in words; one that is read again says so."""
    base = base_of(place)
    where = f"{base} o’clock" if base[:1].isdigit() else f"{base} end"
    return where if base == place else f"{where}, again"


def titled(at: At) -> str:
    """The step's line, with its station where it has several."""
    return f"{at.step.says}, {at.station}" if at.station not in ("", "main") else at.step.says
