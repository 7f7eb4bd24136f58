"""How far a stack stands proud of its face: by depth gauge at several places, or by blades.

Places: `12`, `4`, `8` of a depth gauge; or `go`, the blades that go in together, and `no_go`, those that do
not. Blades are typed with a plus between them: the tool adds.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction

from wheelend.arrangements.vocabulary import SEALS
from wheelend.errors import BadInput, echo
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written
from wheelend.quantity import LENGTH, last_digit, parse, unit_of
from wheelend.standout import Explanation, StackedPart, StandOut, stand_out
from wheelend.verdict import SAME, Word

GAUGE = ("12", "4", "8")
BLADES = ("go", "no_go")
PLACES = (*GAUGE, *BLADES)
WORDS = {
    "12": "at 12 o’clock", "4": "at 4 o’clock", "8": "at 8 o’clock",
    "go": "the blades that go in", "no_go": "the blades that do not go in",
}  # fmt: skip
IN_HOUSING = ("spacer", "ball_bearing", "cone", "cup", "washer", "shim")
"""Kinds of part that stand on each other in a housing, where the card counts them."""


def blades(typed: str, unit: str = "mm") -> Fraction:
    """The sum of blades that are typed with a plus between them, in mm. Raises BadInput.

    >>> float(blades("0.40 + 0.15 mm"))
    0.55
    """
    parts = [one.strip() for one in typed.split("+")]
    last = unit_of(parts[-1]) or unit
    found = Fraction(0)
    for one in parts:
        if not one:
            raise BadInput(
                "", echo(typed), "has a plus with nothing beside it; give e.g. 0.40 + 0.15 mm"
            )
        found += parse(one if unit_of(one) else f"{one} {last}", LENGTH)
    return found


@dataclass(frozen=True)
class Stood:
    """What was measured: the least and the most of the stand-out in mm, its doubt, and what it comes to."""

    band: tuple[float, float]
    word: Word | None
    found: StandOut | None
    rows: tuple[Written, ...]

    @property
    def middle(self) -> float:
        """The middle of the band, mm."""
        return sum(self.band) / 2


def current(at: At) -> Mapping[str, Written]:
    """What stands at each place in the round that lasts."""
    last = round_of(at)
    return {row.place: row for row in at.entries if row.kind == "value" and row.round == last}


def round_of(at: At) -> int:
    """The round that is being measured."""
    return max([at.gone + 1, *(row.round for row in at.entries)])


def by_blades(at: At) -> bool:
    """Whether blades were used in the round that lasts."""
    return any(place in BLADES for place in current(at))


def stood(at: At) -> Stood | None:
    """What was measured, judged by the card; None while a place is missing."""
    said = current(at)
    places = BLADES if by_blades(at) else GAUGE
    if any(place not in said for place in places):
        return None
    rows = tuple(said[place] for place in places)
    values = [float(row.value or 0) for row in rows]
    window = at.setting.stand_out
    limits = window.limits if window else None
    parts, depth = tuple(_parts(at)), at.setting.depth
    known = depth is not None and bool(parts)
    try:
        found = stand_out(
            parts if known else [StackedPart("stack", max(values[0], 0.0))],
            _depth(at) if known else 0.0,
            max(float(last_digit(row.typed.rpartition("+")[2].strip(), LENGTH)) for row in rows),
            limits=limits,
            **(
                {"feelers_mm": [values[0]], "no_go_mm": [values[1]]}
                if places == BLADES
                else {"measured_mm": sum(values) / len(values)}
            ),
        )  # fmt: skip
    except BadInput:
        return None
    band = (values[0], values[1]) if places == BLADES else (min(values), max(values))
    word = found.verdict
    if word == "within" and limits and places == GAUGE:
        inside = all(limits.lowest - SAME <= one <= limits.highest + SAME for one in band)
        word = "within" if inside else "undecided"
    return Stood(band, word, found if known else None, rows)


def _parts(at: At) -> Iterator[StackedPart]:
    for part in at.card.stack:
        stands = part.part in IN_HOUSING and part.counts
        if part.part in SEALS and at.card.facts.get("seal_counts") == "yes":
            stands = "inner" in part.name
        if stands and part.width is not None:
            turned = part.reversed.value if part.reversed else None
            yield StackedPart(part.name, part.width.value, turned)


def _depth(at: At) -> float:
    """From the shoulder to the face that is measured from: a bracket on the housing makes it deeper."""
    brackets = [one.width.value for one in at.card.stack if one.part == "bracket" and one.width]
    return sum(brackets, at.setting.depth.value if at.setting.depth else 0.0)


def outside(at: At) -> Stood | None:
    """What keeps the step open; None where it is inside, or nobody can judge it."""
    found = stood(at)
    return found if found and found.word not in (None, "within") else None


def explained(one: Explanation) -> str:
    """What would explain a stack that stands otherwise than its parts say."""
    if one.reversed:
        return f"{one.reversed} the wrong way round"
    return f"{' and '.join(one.missing)} missing"


class StandOutAsked:
    """Three places of a depth gauge, or two stacks of blades."""

    def complete(self, at: At) -> bool:
        return stood(at) is not None and outside(at) is None

    def slot(self, at: At) -> Slot:
        said = current(at)
        whole = stood(at) is not None
        number = round_of(at) + 1 if whole else round_of(at)
        places = BLADES if by_blades(at) and not whole else GAUGE
        place = next((one for one in places if whole or one not in said), places[-1])
        return Slot(place, number, words=WORDS[place])

    def lines(self, at: At) -> tuple[Line, ...]:
        said = current(at)
        rows = tuple(said[place] for place in PLACES if place in said)
        shown = ", ".join(row.typed for row in rows)
        if by_blades(at):
            named = zip(("goes", "does not go"), BLADES, strict=True)
            shown = ", ".join(f"{said[p].typed} {words}" for words, p in named if p in said)
        return (Line(titled(at), shown, rows, due=True),)
