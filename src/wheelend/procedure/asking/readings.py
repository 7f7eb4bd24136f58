"""A series of dial readings: in and out at each place, or a finding that none is possible."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from wheelend.circle import clock_angle
from wheelend.endplay import Pair, face_runout
from wheelend.procedure.asking.apart import Weighed, base_of, weigh_places
from wheelend.procedure.asking.frame import At, Line, Slot, place_words, titled
from wheelend.procedure.log import FINDINGS, MARKS, Instrument, Written
from wheelend.verdict import SEATING_AGAIN_MM, Gauge
from wheelend.wording import bare

Place = tuple[str, str]
PUSH = {"in": "pushed in", "out": "pulled out"}
_WORDS = {"bound": "bound", "no_play": "no play", "felt": "play felt"}


@dataclass(frozen=True)
class Series:
    """One series of one closing: what was read where, with which dial, and the torque in force.

    `places` are those asked for, and those read again. `torques` are the torque rows of its clamp
    that it was read under, one a station; `rough` says that the bolts were only snug. `settling`
    are the readings that were asked for because earlier trials say otherwise.
    """

    closing: int
    round: int
    readings: Mapping[Place, Written]
    finding: Written | None
    aside: Written | None
    places: tuple[str, ...]
    torques: tuple[Written, ...] = ()
    rough: bool = False
    settling: frozenset[str] = frozenset()
    repeatability_mm: float = SEATING_AGAIN_MM

    @cached_property
    def gauge(self) -> Gauge:
        """The gauge that it is judged by: its worst, should it have been read with two."""
        gauges = [row.instrument.gauge for row in self.rows if row.instrument]
        return max(gauges, key=lambda one: (one.resolution, one.calibration), default=Gauge(0.01))

    @property
    def turned(self) -> bool:
        """Whether the hub was turned between in and out."""
        return bool(self.instrument and self.instrument.facts.get("turned"))

    @cached_property
    def pairs(self) -> Mapping[str, Pair]:
        """The readings of each place that has both, in the order of the places."""
        both = {
            place: [self.readings.get((place, push)) for push in ("in", "out")]
            for place in self.places
        }
        return {
            place: Pair(
                _value(first), _value(second), base_of(place) if place[:1].isdigit() else None
            )
            for place, (first, second) in both.items()
            if first and second
        }

    @cached_property
    def weighed(self) -> Weighed:
        """Which of its places count, and which reading would settle what stands apart."""
        pairs = self.pairs
        runout = face_runout(tuple(pairs.values())) if self.turned else 0.0
        if not pairs or runout is None:
            return Weighed(tuple(pairs))
        variance = self.gauge.resolution**2 / 6 + self.repeatability_mm**2 + runout**2 / 4
        moves = {place: pair.out_mm - pair.in_mm for place, pair in pairs.items()}
        settling = self.settling & set(moves)
        return weigh_places(moves, math.sqrt(variance), settling)

    @cached_property
    def instrument(self) -> Instrument | None:
        """The dial that it was read with; None where hands judged."""
        rows = [*self.readings.values(), *([self.finding] if self.finding else [])]
        return next((row.instrument for row in rows if row.instrument), None)

    @property
    def by_hand(self) -> bool:
        """Whether hands judged it, without a dial."""
        return bool(self.finding and self.instrument is None and not self.readings)

    @property
    def next_place(self) -> Place | None:
        """The reading that is due, or None where all are there or none is possible."""
        if self.finding:
            return None
        due = [(place, push) for place in self.places for push in ("in", "out")]
        return next((one for one in due if one not in self.readings), None)

    @property
    def complete(self) -> bool:
        """Whether everything that is asked for was read, or nothing can be."""
        return self.next_place is None

    @property
    def step(self) -> str:
        """The step that it was read at; empty before the first row."""
        return self.rows[0].step if self.rows else ""

    @property
    def rows(self) -> tuple[Written, ...]:
        """The rows that it rests on."""
        found = (self.finding,) if self.finding else ()
        return (*self.readings.values(), *found)


def _value(row: Written) -> float:
    return 0.0 if row.value is None else row.value


def series_round(entries: tuple[Written, ...], beside: tuple[Written, ...]) -> int:
    """The round that is being read: a torque written again, or a mark, begins the next."""
    torqued = [row.round for row in beside if row.kind == "value" and row.place == ""]
    marked = [row.round + 1 for row in entries if row.kind in MARKS and not row.place]
    read = [row.round for row in entries if row.kind not in MARKS]
    return max([1, *torqued, *marked, *read])


def series_of(
    closing: int,
    number: int,
    entries: tuple[Written, ...],
    beside: tuple[Written, ...],
    asked: tuple[str, ...],
    repeatability_mm: float = SEATING_AGAIN_MM,
) -> Series:
    """One round of a closing's readings as a series; a place that stands apart is asked again."""
    mine = [row for row in entries if row.round == number]
    readings = {(row.place, row.kind): row for row in mine if row.kind in PUSH}
    settling = frozenset(row.place for row in mine if row.kind == "again" and row.place)
    others = ({place for place, _ in readings} | settling) - set(asked)
    torques: dict[tuple[str, str], Written] = {}
    for row in beside:
        if row.kind == "value" and row.place == "" and row.round <= number:
            torques[row.step, row.station] = row
    series = Series(
        closing=closing,
        round=number,
        readings=readings,
        finding=next((row for row in mine if row.kind in FINDINGS), None),
        aside=next((row for row in mine if row.kind == "aside"), None),
        places=asked + tuple(sorted(others, key=_order)),
        torques=tuple(torques.values()),
        rough=any(row.kind == "few" for row in beside),
        settling=settling,
        repeatability_mm=repeatability_mm,
    )
    if series.rows and series.complete and series.weighed.again:
        return replace(series, places=(*series.places, series.weighed.again))
    return series


def _order(place: str) -> tuple[float, str]:
    base = base_of(place)
    return (clock_angle(base) if base[:1].isdigit() else 0.0), place


def torques_beside(at: At) -> tuple[Written, ...]:
    """The torque rows of this closing that bear on its readings."""
    steps = at.card.arrangement.by_id
    return tuple(
        row
        for row in at.beside
        if row.kind == "few"
        or (row.kind == "value" and row.step in steps and steps[row.step].kind == "torque")
    )


def _dial_moved(at: At, number: int) -> bool:
    """Whether the dial was set up again after a series was begun: its zero is gone."""
    steps = at.card.arrangement.by_id
    dials = [row.id for row in at.beside if row.step in steps and steps[row.step].kind == "dial"]
    begun = [
        at.roots[row.id] for row in at.entries if row.round == number and row.kind not in MARKS
    ]
    return bool(dials and begun) and max(dials) > min(begun)


class ReadingsAsked:
    """In and out at each place."""

    def series(self, at: At) -> Series:
        """The series that is being read."""
        beside = torques_beside(at)
        number = max(series_round(at.entries, beside), at.gone + 1)
        if _dial_moved(at, number):
            number += 1
        known = at.card.setting.repeatability
        return series_of(
            at.closing, number, at.entries, beside, at.card.places,
            known.value if known else SEATING_AGAIN_MM,
        )  # fmt: skip

    def complete(self, at: At) -> bool:
        return self.series(at).complete

    def slot(self, at: At) -> Slot:
        now = self.series(at)
        if now.next_place is None:
            return Slot(round=now.round)
        place, push = now.next_place
        return Slot(place, now.round, push, f"{place_words(place)}, {PUSH[push]}")

    def lines(self, at: At) -> tuple[Line, ...]:
        now = self.series(at)
        if now.finding:
            return (Line(titled(at), _WORDS[now.finding.kind], (now.finding,)),)
        return tuple(self._line(now, place) for place in now.places)

    def _line(self, now: Series, place: str) -> Line:
        rows = tuple(now.readings[place, push] for push in PUSH if (place, push) in now.readings)
        due = now.next_place is not None and now.next_place[0] == place
        text = f"{place_words(place)}: in, out"
        return Line(text[0].upper() + text[1:], " ".join(_shown(row) for row in rows), rows, due)


def _shown(row: Written) -> str:
    number, _, unit = row.typed.rpartition(" ")
    return number if unit == "mm" and number else row.typed


def play_words(now: Series, place: str) -> str:
    """The play at a place, in mm, where both its readings are there."""
    there = [now.readings.get((place, push)) for push in PUSH]
    if any(row is None or row.value is None for row in there):
        return ""
    first, second = (row.value or 0.0 for row in there if row)
    step = now.instrument.gauge.resolution if now.instrument else 0.01
    return bare(abs(second - first), step)
