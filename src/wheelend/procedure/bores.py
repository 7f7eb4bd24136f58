"""Each bore as it was measured in Clean: how round, how straight, what its ring finds, what the card allows."""

from collections.abc import Mapping
from dataclasses import dataclass

from wheelend.bore import LEAST_DIRECTIONS, Bore, bore
from wheelend.card import Card, Part
from wheelend.fitting import Seat
from wheelend.procedure.asking.frame import At
from wheelend.procedure.asking.measured import measured, parts_of
from wheelend.procedure.log import Written
from wheelend.quantity import LENGTH, last_digit
from wheelend.wording import both


@dataclass(frozen=True)
class MeasuredBore:
    """One bore: `key` is the word its places begin with, `found` its readings by plane and direction.

    `bore` is None until one plane was read in enough directions; `ring_mm` is the card's ring in it.
    """

    key: str
    name: str
    found: Mapping[tuple[str, str], Written]
    bore: Bore | None = None
    ring_mm: float | None = None

    @property
    def fit(self) -> str:
        """What the card's ring finds in it, in words; empty where that is not known."""
        if self.bore is None or self.bore.interference_mm is None:
            return ""
        over = self.bore.interference_mm
        size = both(abs(over), 0.001)
        if over > 0:
            return f"The card’s ring is {size} larger: a press fit"
        return (
            f"The card’s ring is {size} smaller: it would turn in there"
            if over
            else "The card’s ring just fits"
        )

    @property
    def words(self) -> tuple[str, ...]:
        """What the card's limits say of it, a sentence each."""
        if self.bore is None:
            return ()
        said = (("round", self.bore.ovality), ("straight", self.bore.taper))
        words = {
            "within": "as {} as the card asks",
            "above": "not as {} as the card asks: a ring takes this shape; a new hub or housing",
            "undecided": "too near the card’s limit to call it {} with this gauge",
        }
        return tuple(words[word].format(what) for what, word in said if word in words)


def measured_seats(at: At) -> dict[str, Seat]:
    """The seats that were measured in Clean, by the part that sits in them: least and greatest diameter,
    each with one step of the gauge."""
    found = {}
    parts = _parts(at)
    rows: dict[str, list[Written]] = {}
    for row in at.others("seats"):
        if row.kind == "value" and row.value is not None:
            rows.setdefault(place_of(row.place)[0], []).append(row)
    for key, mine in rows.items():
        part = parts.get(key)
        if part is None or len(mine) < LEAST_DIRECTIONS:
            continue
        step = max(float(last_digit(row.typed, LENGTH)) for row in mine)
        sizes = [float(row.value or 0) for row in mine]
        found[part.name] = Seat(min(sizes) - step / 2, max(sizes) + step / 2, measured=True)
    return found


def _parts(at: At) -> Mapping[str, Part]:
    """Each measured part by the word of its places; the only one by no word."""
    step = next(
        (one for one in at.card.arrangement.steps if one.kind == "seats" and one.each), None
    )
    if step is None:
        return {}
    several = parts_of(step, at.card)
    only = next((one for one in at.card.stack if one.part in step.each), None)
    return several or ({"": only} if only else {})


def place_of(place: str) -> tuple[str, str, str]:
    """The part's word, the plane and the direction of a place."""
    before, point, rest = place.partition(".")
    plane, _, way = (rest if point else place).partition(", ")
    return (before if point else ""), plane, way


def bores(at: At) -> tuple[MeasuredBore, ...]:
    """Every bore that was begun, in the order of the stack."""
    parts = parts_of(at.step, at.card)
    readings: dict[str, dict[tuple[str, str], Written]] = {}
    for place, row in measured(at).items():
        key, plane, way = place_of(place)
        readings.setdefault(key, {})[plane, way] = row
    return tuple(
        _bore(at.card, key, parts.get(key) or _ring(at), found) for key, found in readings.items()
    )


def _ring(at: At) -> Part | None:
    """The one part that sits in the bore, where there is only one."""
    return next((one for one in at.card.stack if one.part in at.step.each), None)


def _bore(
    card: Card, key: str, ring: Part | None, found: Mapping[tuple[str, str], Written]
) -> MeasuredBore:
    name = f"bore of the {ring.name}" if ring else "bore"
    ring_mm = ring.outside.value if ring and ring.outside else None
    planes: dict[str, list[float]] = {}
    for (plane, _), row in found.items():
        planes.setdefault(plane, []).append(float(row.value or 0))
    whole = [one for one in planes.values() if len(one) >= LEAST_DIRECTIONS]
    if not whole:
        return MeasuredBore(key, name, found, ring_mm=ring_mm)
    ovality, taper = card.wear.bore_ovality, card.wear.bore_taper
    judged = bore(
        whole,
        max(float(last_digit(row.typed, LENGTH)) for row in found.values()),
        ovality_limit_mm=ovality.value if ovality else None,
        taper_limit_mm=taper.value if taper and len(whole) > 1 else None,
        ring_mm=ring_mm,
    )
    return MeasuredBore(key, name, found, judged, ring_mm)
