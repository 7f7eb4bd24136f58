"""The trials of a shimmed wheel end: every series that was read, with its pack and its torque."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace

from wheelend.card import Card
from wheelend.endplay import SEATING_AGAIN_MM, EndPlay, Pair, end_play
from wheelend.procedure.asking.readings import Series, series_of
from wheelend.procedure.asking.torque import Reach, reach_of
from wheelend.procedure.log import MARKS, Written
from wheelend.procedure.progress import Progress
from wheelend.shims import Pack, Trial, total_mm
from wheelend.verdict import SAME, Gauge, Limits

_READ = ("reading", "locked_reading")


@dataclass(frozen=True)
class FittedTrial:
    """One series as a trial: lengths in mm, torques judged against the card.

    `locked` is the reading after the last closing. `pack` has one tuple a station.
    """

    number: int
    series: Series
    pack: Pack
    locked: bool
    reaches: tuple[Reach, ...]
    gauge: Gauge
    repeatability_mm: float
    names: Mapping[float, str] = field(default_factory=dict)

    @property
    def by_hand(self) -> bool:
        """Whether hands judged it."""
        return self.series.by_hand

    @property
    def off_torque(self) -> tuple[Reach, ...]:
        """The torques that are not where the card wants them."""
        return tuple(reach for reach in self.reaches if reach.word in ("below", "above"))

    @property
    def rough(self) -> bool:
        """Whether it proves nothing: read at another torque, or with a few bolts snug."""
        return self.series.rough or bool(self.off_torque)

    @property
    def total_mm(self) -> float:
        """The pack's thickness, all stations together."""
        return total_mm(self.pack)

    @property
    def plays_mm(self) -> dict[str, float]:
        """The play at each place that has both its readings."""
        read = self.series.readings
        return {
            place: abs(_value(read[place, "out"]) - _value(read[place, "in"]))
            for place in self.series.places
            if (place, "in") in read and (place, "out") in read
        }

    @property
    def ends_apart_mm(self) -> float | None:
        """By how much two ends that share one play differ beyond the doubt of their difference.

        Each play has u² = 2·r²/12 + ρ², so their difference has twice that. None where they agree,
        or where places round one face are read: those are weighed by their spread.
        """
        plays = self.plays_mm
        if len(plays) < 2 or any(place[:1].isdigit() for place in plays):
            return None
        apart = max(plays.values()) - min(plays.values())
        doubt = math.sqrt(2 * (2 * self.gauge.resolution**2 / 12 + self.repeatability_mm**2))
        return apart if apart > 2 * doubt + SAME else None

    def play(self, limits: Limits) -> EndPlay | None:
        """The end play of the complete pairs, or None where there is none."""
        read = self.series.readings
        pairs = [
            Pair(
                _value(read[place, "in"]),
                _value(read[place, "out"]),
                place if place[:1].isdigit() else None,
            )
            for place in self.plays_mm
        ]
        if self.series.finding or not pairs:
            return None
        turned = bool(self.series.instrument and self.series.instrument.facts.get("turned"))
        return end_play(
            pairs, self.gauge, limits=limits, turned=turned, repeatability_mm=self.repeatability_mm
        )

    def trial(self, limits: Limits) -> Trial | None:
        """What it tells the shim planner, or None where it tells nothing yet.

        What hands feel says too little to plan with, but for a hub that binds.
        """
        found = self.series.finding
        if found:
            if found.kind == "bound":
                return Trial(self.pack, "bound")
            free = found.kind == "no_play" and not self.by_hand
            return Trial(self.pack, "no_play") if free else None
        play = self.play(limits)
        if play is None:
            return None
        if play.play_mm < self.gauge.resolution - SAME:
            # Less than a step: it may be nothing, or preload; it says no more than "no play".
            return Trial(self.pack, "no_play")
        return Trial(self.pack, "play", play.play_mm)


def _value(row: Written) -> float:
    return 0.0 if row.value is None else row.value


def trials_of(progress: Progress) -> tuple[FittedTrial, ...]:
    """Every series that has something in it, oldest first, and the one that is due now."""
    return tuple(_numbered(progress))


def _numbered(progress: Progress) -> Iterator[FittedTrial]:
    number = 0
    packs: dict[int, Pack] = {}
    for closing in range(progress.setting_closing + 1):
        packs[closing] = _pack(progress, closing)
        for series, locked in _series(progress, closing):
            number += 1
            yield _trial(progress, number, series, packs[closing], locked=locked)


def _series(progress: Progress, closing: int) -> Iterator[tuple[Series, bool]]:
    clamp = progress.card.arrangement.setting_clamp.key
    here = [row for row in progress.standing if row.clamp == clamp and row.closing == closing]
    kinds = {step.id: step.kind for step in progress.card.arrangement.steps}
    torques = tuple(
        row
        for row in here
        if row.kind == "few" or (row.kind == "value" and kinds.get(row.step) == "torque")
    )
    for kind in _READ:
        rows = tuple(row for row in here if kinds.get(row.step) == kind and row.kind != "skip")
        for number in sorted({row.round for row in rows if row.kind not in MARKS}):
            mine = [row for row in rows if row.round == number and row.kind not in MARKS]
            beside = torques if kind == "reading" else _in_force(progress, here, torques, mine)
            series = series_of(closing, number, rows, beside, progress.card.places)
            locked = kind == "locked_reading" and all(map(progress.counts, mine))
            yield series, locked


def _in_force(
    progress: Progress, here: list[Written], torques: tuple[Written, ...], mine: list[Written]
) -> tuple[Written, ...]:
    """The torque rows that a reading after the lock stands under: that at the lock place, if any."""
    first = min(progress.roots[row.id] for row in mine)
    locking = {step.id for step in progress.by_id.values() if step.kind == "lock_torque"}
    at_place = [
        row
        for row in here
        if row.step in locking and row.kind == "value" and progress.roots[row.id] < first
    ]
    return tuple(replace(row, round=1, place="") for row in (at_place[-1:] or torques))


def _pack(progress: Progress, closing: int) -> Pack:
    clamp = progress.card.arrangement.setting_clamp
    fitted = {
        row.station: row.pack[0] if row.pack else ()
        for row in progress.entries_of(["pack"])
        if row.clamp == clamp.key and row.closing == closing and row.kind == "pack"
    }
    return tuple(fitted.get(station, ()) for station in clamp.stations)


def _trial(
    progress: Progress, number: int, series: Series, pack: Pack, *, locked: bool
) -> FittedTrial:
    setting = progress.card.setting
    known = setting.repeatability
    return FittedTrial(
        number=number,
        series=series,
        pack=pack,
        locked=locked,
        reaches=tuple(reach_of(row, setting) for row in series.torques),
        gauge=_coarsest(series),
        repeatability_mm=known.value if known else SEATING_AGAIN_MM,
    )


def _coarsest(series: Series) -> Gauge:
    """The gauge that a series is judged by: its worst, should it have been read with two."""
    gauges = [row.instrument.gauge for row in series.rows if row.instrument]
    return max(gauges, key=lambda one: (one.resolution, one.calibration), default=Gauge(0.01))


def card_effect_sign(card: Card) -> int:
    """+1 where a thicker pack opens, −1 where it closes."""
    return 1 if card.setting.effect == "opens" else -1
