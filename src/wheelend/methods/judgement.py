"""What a method makes of the entries: what to do next, and what may be claimed on which of them."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from typing import Literal, Protocol

from wheelend.procedure.locking import lock_line
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Progress, Row
from wheelend.shims import TrayShim
from wheelend.verdict import Gauge
from wheelend.wording import Lead


@dataclass(frozen=True)
class Dial:
    """A dial of the shop: its name and what it reads to."""

    name: str
    gauge: Gauge


@dataclass(frozen=True)
class Usual:
    """What hubs of a card needed before: the packs that they were signed with, all stations; mm."""

    pack_mm: float
    deviation_mm: float
    jobs: int


def _unknown() -> None:
    """No history."""


@dataclass(frozen=True)
class Bench:
    """What a method works from: the unit's progress, the loose shims, the dials, and the day.

    The dials, and what hubs of this card needed before, are looked up only where an act turns on it.
    """

    progress: Progress
    tray: tuple[TrayShim, ...] = ()
    names: dict[float, str] = field(default_factory=dict)
    today: date | None = None
    find_dials: Callable[[], tuple[Dial, ...]] = tuple
    find_usual: Callable[[], Usual | None] = _unknown
    find_before: Callable[[], "Measured | None"] = _unknown

    @cached_property
    def dials(self) -> tuple[Dial, ...]:
        """The dials of the shop."""
        return self.find_dials()

    @cached_property
    def usual(self) -> Usual | None:
        """What hubs of this card needed before, where the shop's history knows."""
        return self.find_usual()

    @cached_property
    def before(self) -> "Measured | None":
        """The play that was signed the last time, where a recheck asks for it."""
        return self.find_before()

    @property
    def lead(self) -> Lead:
        """Which units stand first."""
        return self.progress.lead


@dataclass(frozen=True)
class Measured:
    """What a claim was judged by: a value and its doubt either way, beside its limits; mm or N·m."""

    value: float
    doubt: float
    low: float | None
    high: float | None


@dataclass(frozen=True)
class Claim:
    """One claim: proven or not, the fact that says so, and the entries that it rests on.

    `blocks` where nothing can be signed without it, not even as less. `measured` where it stands on
    a number.
    """

    key: str
    name: str
    proven: bool
    fact: str
    rests_on: tuple[int, ...] = ()
    blocks: bool = False
    measured: Measured | None = None


@dataclass(frozen=True)
class Mark:
    """What settles a doubt by one tap: a place read again, or a series that does not count; and why.

    It is written in the log at a step, closing and round; `words` are those of the tap.
    """

    kind: Literal["again", "aside"]
    step: str
    closing: int
    round: int
    place: str
    reason: str
    words: str

    @property
    def sent(self) -> dict[str, str]:
        """What a form sends of it."""
        names = ("kind", "step", "closing", "round", "place", "reason")
        return {name: str(getattr(self, name)) for name in names}


@dataclass(frozen=True)
class Remedy:
    """What is done where it is outside: an opening, by one tap. It is an answer to a step, which is asked
    once more where the answer is empty; `why` says what to do once it is open."""

    step: str
    station: str
    answer: str
    words: str
    why: str


def remedy_at(progress: Progress, step: str, words: str, why: str) -> Remedy | None:
    """The opening that an arrangement has for it; None where the step is not asked here."""
    row = next((row for row in progress.rows if row.step.id == step), None)
    if row is None:
        return None
    answer = "change" if row.step.options else "done"
    return Remedy(step, row.station, answer, words, why)


@dataclass(frozen=True)
class Account:
    """A difference that nothing explains yet: in words where the line does not say it, and the steps at
    which it is said what adds to it."""

    words: str
    asks: tuple[Row, ...]


def account_at(progress: Progress, words: str, *kinds: str) -> Account | None:
    """What an arrangement asks for a difference; None where it asks for nothing."""
    asks = tuple(row for row in progress.rows if row.step.kind in kinds)
    return Account(words, asks) if asks else None


class Judgement(Protocol):
    """A method's view of a unit: what it says at the steps that it knows, and what it claims."""

    @property
    def is_set(self) -> bool:
        """Whether what was read so far says that the setting is inside."""

    @property
    def claims(self) -> tuple[Claim, ...]:
        """What the method claims of the setting, each with its fact."""

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step; None where the step says it itself."""

    def mark(self, row: Row) -> Mark | None:
        """What settles a doubt by one tap, before a step is answered; None where nothing does."""

    def remedy(self, row: Row) -> Remedy | None:
        """The opening that is offered where what a step says is outside; None where nothing is."""

    def account(self, row: Row) -> Account | None:
        """What differs at a step and wants to be accounted for; None where nothing does."""


@dataclass(frozen=True)
class PlainJudgement:
    """What holds for a method that says nothing else."""

    bench: Bench

    @property
    def progress(self) -> Progress:
        """Where the unit stands."""
        return self.bench.progress

    def line(self, row: Row) -> NextLine | None:
        """What torquing and locking say, else the step itself."""
        return lock_line(self.progress, row)

    def mark(self, _: Row) -> Mark | None:
        """Nothing is settled by a tap."""
        return None

    def remedy(self, _: Row) -> Remedy | None:
        """Nothing is opened for it."""
        return None

    def account(self, _: Row) -> Account | None:
        """Nothing differs."""
        return None
