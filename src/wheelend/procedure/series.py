"""One dial series: what has been read of one pack, and what to read next."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from wheelend.arrangements import ENDS
from wheelend.endplay import EndPlay, Pair, clock_angle, end_play
from wheelend.shims import Pack, Trial
from wheelend.verdict import SAME, Gauge, Limits

Push = Literal["in", "out"]
Place = tuple[str, Push]
Finding = Literal["bound", "no_play"]


def _place_order(place: str) -> float:
    return float(ENDS.index(place)) if place in ENDS else clock_angle(place)


@dataclass(frozen=True)
class Series:
    """One trial as it stands; lengths in mm.

    `readings` maps (clock, "in" or "out") to a dial value. `finding` is set where no reading was
    possible. `clocks` are the places that the card asks for. `by_hand`: judged without a dial.
    """

    number: int
    pack: Pack
    gauge: Gauge
    clocks: tuple[str, ...]
    readings: Mapping[Place, float]
    finding: Finding | None = None
    turned: bool = False
    by_hand: bool = False

    @property
    def places(self) -> tuple[str, ...]:
        """Every clock position that counts here: those the card asks for, then others read."""
        others = {clock for clock, _ in self.readings} - set(self.clocks)
        return self.clocks + tuple(sorted(others, key=_place_order))

    @property
    def pairs(self) -> tuple[Pair, ...]:
        """The complete pairs, in the order of the places."""
        return tuple(
            Pair(
                self.readings[clock, "in"],
                self.readings[clock, "out"],
                None if clock in ENDS else clock,
            )
            for clock in self.places
            if (clock, "in") in self.readings and (clock, "out") in self.readings
        )

    @property
    def plays_mm(self) -> dict[str, float]:
        """The play at each place that has both its readings."""
        read = self.readings
        return {
            place: abs(read[place, "out"] - read[place, "in"])
            for place in self.places
            if (place, "in") in read and (place, "out") in read
        }

    @property
    def ends_apart_mm(self) -> float | None:
        """By how much the two ends differ beyond the gauge's doubt; None where they agree.

        Each play is a difference of two readings, so their difference has u² = 4·r²/12.
        """
        plays = self.plays_mm
        if any(end not in plays for end in ENDS):
            return None
        apart = abs(plays["left"] - plays["right"])
        return apart if apart > 2 * self.gauge.resolution / math.sqrt(3) + SAME else None

    @property
    def next_place(self) -> Place | None:
        """The reading that is due, or None when all places are read."""
        if self.finding or self.by_hand:
            return None
        due: list[Place] = [(clock, push) for clock in self.places for push in ("in", "out")]
        return next((place for place in due if place not in self.readings), None)

    @property
    def complete(self) -> bool:
        """Whether everything asked for was read, or nothing can be."""
        return self.next_place is None and not (self.by_hand and self.finding is None)

    @property
    def untouched(self) -> bool:
        """Whether nothing was written yet."""
        return not self.readings and self.finding is None

    def play(self, limits: Limits) -> EndPlay | None:
        """The end play of the complete pairs, or None where there is none."""
        if self.finding or not self.pairs:
            return None
        return end_play(self.pairs, self.gauge, limits=limits, turned=self.turned)

    def trial(self, limits: Limits) -> Trial | None:
        """What this series tells the shim planner, or None where it tells nothing yet."""
        if self.by_hand and self.finding == "no_play":
            # Hands that feel nothing say too little to plan with.
            return None
        if self.finding:
            return Trial(self.pack, self.finding)
        found = self.play(limits)
        if found is None:
            return None
        if found.play_mm < self.gauge.resolution - SAME:
            # Less than a step: it may be nothing, or preload; it says no more than "no play".
            return Trial(self.pack, "no_play")
        return Trial(self.pack, "play", found.play_mm)
