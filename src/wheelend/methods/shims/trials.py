"""The trials of a shimmed wheel end: every series that was read, with its pack and its torque."""

import statistics
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

from wheelend.card import Card
from wheelend.endplay import EndPlay, end_play
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.readings import Series, series_of
from wheelend.procedure.asking.torque import Reach, reach_of
from wheelend.procedure.log import MARKS, Written
from wheelend.procedure.progress import Progress
from wheelend.shims import Pack, Trial, total_mm
from wheelend.verdict import SAME, SEATING_AGAIN_MM, Gauge, Limits

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
    names: Mapping[float, str] = field(default_factory=dict)

    @property
    def gauge(self) -> Gauge:
        """The gauge that it is judged by."""
        return self.series.gauge

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
    def sound(self) -> bool:
        """Whether it may speak beside other trials: at its torque, its places agreeing."""
        return not (self.rough or self.series.weighed.apart or self.series.weighed.moved)

    @property
    def total_mm(self) -> float:
        """The pack's thickness, all stations together."""
        return total_mm(self.pack)

    @property
    def plays_mm(self) -> dict[str, float]:
        """The play at each place that counts, its repeats averaged."""
        by_place: dict[str, list[float]] = {}
        for place in self.series.weighed.counted:
            by_place.setdefault(base_of(place), []).append(self.series.pairs[place].play_mm)
        return {place: statistics.fmean(plays) for place, plays in by_place.items()}

    @property
    def ends_apart_mm(self) -> float | None:
        """By how much two ends that share one play differ, though both were read again.

        Beyond the doubt of their difference (`weigh_places`). None where they agree, or where places
        round one face are read: those are weighed by their spread.
        """
        plays = self.plays_mm
        if not self.series.weighed.apart or any(place[:1].isdigit() for place in plays):
            return None
        return max(plays.values()) - min(plays.values())

    def play(self, limits: Limits) -> EndPlay | None:
        """The end play of the complete pairs, or None where there is none."""
        if limits not in self._played:
            self._played[limits] = self._play(limits)
        return self._played[limits]

    @cached_property
    def _played(self) -> dict[Limits, EndPlay | None]:
        """What was worked out before: a page asks a dozen times."""
        return {}

    def _play(self, limits: Limits) -> EndPlay | None:
        pairs = [self.series.pairs[place] for place in self.series.weighed.counted]
        if self.series.finding or not pairs:
            return None
        return end_play(
            pairs, self.gauge, limits=limits, turned=self.series.turned,
            repeatability_mm=self.series.repeatability_mm,
        )  # fmt: skip

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
    kinds = {row.step: progress.by_id[row.step].kind for row in here if row.step in progress.by_id}
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
            series = series_of(
                closing, number, rows, beside, progress.card.places, repeatability_of(progress.card)
            )
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
        for row in progress.entries_of("pack")
        if row.clamp == clamp.key and row.closing == closing and row.kind == "pack"
    }
    return tuple(fitted.get(station, ()) for station in clamp.stations)


def _trial(
    progress: Progress, number: int, series: Series, pack: Pack, *, locked: bool
) -> FittedTrial:
    setting = progress.card.setting
    return FittedTrial(
        number=number,
        series=series,
        pack=pack,
        locked=locked,
        reaches=tuple(reach_of(row, setting) for row in series.torques),
    )


def repeatability_of(card: Card) -> float:
    """The scatter of seating it again, in mm: the card's own, or the usual one."""
    known = card.setting.repeatability
    return known.value if known else SEATING_AGAIN_MM


def card_effect_sign(card: Card) -> int:
    """+1 where a thicker pack opens, −1 where it closes."""
    return 1 if card.setting.effect == "opens" else -1
