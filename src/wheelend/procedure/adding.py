"""What adds to a turning torque between two readings: seals, grease, a fit; each with its figure, and whose
it is."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

from wheelend.arrangements.vocabulary import SEALS
from wheelend.card import Card
from wheelend.procedure.asking.band import ADDING, swing_from
from wheelend.procedure.log import Written


@dataclass(frozen=True)
class Added:
    """The least and the most that one thing adds, N·m; `rows` that said so, none where the card does.

    `carries` says that more than somebody's word stands behind it: the card, or an instrument that may prove.
    """

    words: str
    least: float
    most: float
    rows: tuple[Written, ...] = ()
    carries: bool = True

    @property
    def change(self) -> tuple[float, float]:
        """As `compare` takes it."""
        return self.least, self.most

    def __str__(self) -> str:
        whose = "by the card" if not self.rows else "measured" if self.carries else "as told"
        return f"{self.words} {self.least:.3g} to {self.most:.3g} N·m, {whose}"


def added(
    card: Card,
    rows_of: Callable[[str], tuple[Written, ...]],
    kinds: Iterable[str],
    *,
    measured_only: bool = False,
) -> tuple[Added, ...]:
    """What is known to add, of the kinds of step named. What was measured outranks the card, which says
    what a thing adds to nothing: beside an old one only what was measured counts."""
    found = (
        _measured(card, rows_of(kind), kind) or (None if measured_only else _of_card(card, kind))
        for kind in kinds
    )
    return tuple(one for one in found if one)


def _measured(card: Card, rows: Sequence[Written], kind: str) -> Added | None:
    last = max((row.round for row in rows), default=0)
    said = {row.place: row for row in rows if row.kind == "value" and row.round == last}
    swing = swing_from(said, card.setting.arm)
    return Added(ADDING[kind], *swing.band, swing.rows, not swing.wrong) if swing else None


def _of_card(card: Card, kind: str) -> Added | None:
    seals = {seal.part: seal.adds for seal in card.seals}
    windows = {
        "seal_drag": [seals.get(part.name) for part in card.stack if part.part in SEALS],
        "grease_drag": [card.lubricant.adds],
    }.get(kind, [])
    known = [one.limits for one in windows if one]
    if not known or len(known) < len(windows):
        return None  # Where one seal is not known, their sum is not.
    return Added(ADDING[kind], sum(one.lowest for one in known), sum(one.highest for one in known))


def added_words(found: Iterable[Added]) -> str:
    """All that adds, in one clause."""
    return " and ".join(map(str, found))
