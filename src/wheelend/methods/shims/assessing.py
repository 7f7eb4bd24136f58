"""What all trials mean together: the verdict of the latest, the plan, and what speaks against it."""

import math
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache

from wheelend.card import aim_of
from wheelend.endplay import FLAGS, EndPlay
from wheelend.methods.judgement import Bench
from wheelend.methods.shims.causes import Cause, Disagreement, PlaceApart, likely_causes
from wheelend.methods.shims.disagreeing import (
    disagreement_of,
    odd_one_out,
    place_apart_in,
    shims_of,
)
from wheelend.methods.shims.proving import deviation_of
from wheelend.methods.shims.trials import FittedTrial, card_effect_sign, trials_of
from wheelend.procedure.slips import Expected
from wheelend.shims import (
    Buy,
    Evidence,
    Pack,
    Problem,
    ShimPlan,
    Trial,
    plan,
    prediction_doubt,
    total_mm,
    weigh,
)
from wheelend.shims.evidence import weighed_together
from wheelend.shims.planner import to_buy
from wheelend.shims.problem import SHIM_DOUBT_MM, Choice
from wheelend.verdict import Limits, Verdict, classify

_LEAST_SEARCH = 0.5
"""History that asks for less than half a window of opening says that the hub is no usual one."""

_MUCH_COARSER = 2.0
_WORTH = 0.5
"""A change below this share of a gauge's step cannot be seen: it is not worth opening the hub."""


# The plan hangs on nothing but its case, and between two readings of a series the case stays.
_planned = lru_cache(maxsize=32)(plan)


@dataclass(frozen=True)
class Assessment:
    """What the trials mean together, each worked out when it is first asked. Lengths in mm."""

    bench: Bench

    @cached_property
    def trials(self) -> tuple[FittedTrial, ...]:
        """All that were begun, those set aside too."""
        return trials_of(self.bench.progress)

    @cached_property
    def _used(self) -> list[FittedTrial]:
        counting = [trial for trial in self.trials if not trial.series.aside]
        sound = [trial for trial in counting if trial.sound and trial.trial(self.limits)]
        return [t for t in sound or counting if t.series.complete and t.trial(self.limits)]

    @property
    def counted(self) -> tuple[int, ...]:
        """The numbers of those that `evidence` and `plan` rest on, in its order."""
        return tuple(trial.number for trial in self._used)

    @cached_property
    def plays(self) -> Mapping[int, EndPlay]:
        """The end play of each trial that has one."""
        plays = {trial.number: trial.play(self.limits) for trial in self.trials}
        return {number: play for number, play in plays.items() if play}

    @cached_property
    def problem(self) -> Problem | None:
        """What the shim planner is asked; None before anything counts."""
        return _problem(self.bench, self._used)

    @cached_property
    def evidence(self) -> Evidence | None:
        """What the trials that count say together."""
        return weigh(self.problem) if self.problem else None

    @cached_property
    def plan(self) -> ShimPlan | None:
        """The pack to fit next."""
        if self.problem is None:
            return None
        return _planned(_problem(self.bench, _finest(self._used)) or self.problem)

    @cached_property
    def fitted(self) -> Pack | None:
        """The pack that is in now, or None where it is not whole."""
        progress = self.bench.progress
        clamp = progress.card.arrangement.setting_clamp
        fitted = tuple(
            row.pack[0] if row.pack else ()
            for row in progress.entries_of("pack")
            if row.clamp == clamp.key and row.closing == progress.setting_closing
        )
        return fitted if len(fitted) >= len(clamp.stations) else None

    @cached_property
    def expected_mm(self) -> float | None:
        """What earlier trials predict for the pack that is in."""
        before = [trial for trial in self._used if trial.series.closing < self.now_closing]
        problem = _problem(self.bench, before) if before else None
        if problem is None or self.fitted is None:
            return None
        c = weigh(problem).c_mm
        return None if c is None else c + problem.sign * total_mm(self.fitted)

    @cached_property
    def aim_mm(self) -> float:
        """Where in the limits to land: the ends keep clear of the limit by the doubt."""
        progress = self.bench.progress
        aim = aim_of(progress.chosen.get("aim", progress.card.setting.aim))
        low, high = self.limits.lowest, self.limits.highest
        if not isinstance(aim, str):
            return min(max(aim, low), high)
        U = self.evidence.U_mm if self.evidence else prediction_doubt(0.01)
        if aim == "middle" or low + U > high - U:
            return (low + high) / 2
        return low + U if aim == "low" else high - U

    @cached_property
    def limits(self) -> Limits:
        """What the card allows."""
        return limits_of(self.bench)

    @property
    def sign(self) -> int:
        """+1 where a thicker pack opens."""
        return card_effect_sign(self.bench.progress.card)

    @property
    def now(self) -> FittedTrial | None:
        """The series of the closing that lasts, if anything was read in it and it counts."""
        closing = self.bench.progress.setting_closing
        here = [t for t in self.trials if t.series.closing == closing and not t.series.aside]
        return here[-1] if here else None

    @property
    def last(self) -> FittedTrial | None:
        """The latest trial that counts, of whatever closing."""
        counting = [trial for trial in self.trials if not trial.series.aside]
        return counting[-1] if counting else None

    def play_of(self, trial: FittedTrial | None) -> EndPlay | None:
        """A trial's end play."""
        return self.plays.get(trial.number) if trial else None

    @property
    def play(self) -> EndPlay | None:
        """The end play of the latest trial that counts."""
        return self.play_of(self.last)

    @property
    def verdict(self) -> Verdict | None:
        """The verdict of that play."""
        return self.play.verdict if self.play else None

    @property
    def choice(self) -> Choice | None:
        """The pack to fit next; None where none would do, or the change is too small to see.

        Never one that was tried: its own reading says more than any prediction. Where the plan keeps
        a pack that could not be proven, the next one that lands nearest the aim.
        """
        if self.plan is None or self.last is None or self.plan.choice is None:
            return None
        offered = [self.plan.choice, *self.plan.alternatives]
        if self.plan.kind == "keep":
            if self.inside:
                return None
            offered = sorted(offered[1:], key=self._off_aim)
        worth = _WORTH * self.last.gauge.resolution
        for one in offered:
            new = shims_of(one.pack) not in self._packs
            if new and abs(total_mm(one.pack) - self.last.total_mm) > worth:
                return one
        return None

    def _off_aim(self, choice: Choice) -> float:
        predicted = choice.predicted_mm
        return math.inf if predicted is None else abs(predicted - self.aim_mm)

    @cached_property
    def to_buy(self) -> Buy | None:
        """The shims of which one would land on the aim, whether or not the tray has a pack."""
        return to_buy(self.problem) if self.problem else None

    @property
    def judged_by_hand(self) -> bool:
        """Whether hands alone found the pack free and without play to feel."""
        found = self.last.series.finding if self.last else None
        return bool(self.last and self.last.by_hand and found and found.kind == "no_play")

    @property
    def inside(self) -> bool:
        """Whether the latest trial is inside with all its doubt, read whole, at the right torque.

        By itself, or, where it is too close to call, by all trials weighed together.
        """
        last, verdict = self.last, self.verdict
        if last is None or verdict is None or not last.series.complete or not last.sound:
            return False
        return verdict.word == "within" or self.together is not None

    @cached_property
    def together(self) -> tuple[float, float] | None:
        """The play of the pack that is in and its doubt, by all trials, where only they prove it; mm."""
        verdict, last = self.verdict, self.last
        if (
            verdict is None
            or last is None
            or verdict.word != "undecided"
            or verdict.because in FLAGS
        ):
            return None
        if self.problem is None or self.problem.latest.outcome != "play" or not self.shows_packs:
            return None
        play, U = weighed_together(self.problem, last.gauge.calibration, self._readings)
        word = classify(play, play, U, self.limits)
        return (play, U) if word == "within" and self.disagreement() is None else None

    @property
    def _readings(self) -> tuple[int, ...]:
        """How many plays each trial that counts was read from."""
        return tuple(len(self.trial(number).series.weighed.counted) for number in self.counted)

    @property
    def believed_mm(self) -> tuple[float, float]:
        """The play and its doubt that are believed: the latest trial's, or that of all together."""
        play = self.play
        return self.together or ((play.play_mm, play.U_mm) if play else (0.0, 0.0))

    @property
    def shows_packs(self) -> bool:
        """Whether different packs were tried."""
        return len({round(self.trial(number).total_mm, 5) for number in self.counted}) > 1

    @property
    def shows_seats(self) -> bool:
        """Whether the trials could show a ring off its seat: other packs, opened at least twice."""
        return self.shows_packs and len({self.trial(n).series.closing for n in self.counted}) > 2

    @property
    def by_history(self) -> bool:
        """Whether how far to open follows from what this card's hubs needed before."""
        return self.problem is not None and self.problem.search_step_mm is not None

    @property
    def is_set(self) -> bool:
        """Whether the latest pack is inside and no trial speaks against another."""
        return self.inside and self.disagreement() is None

    def causes(self) -> tuple[Cause, ...]:
        """Why the trials do not add up, or else why a place stood apart; most likely first."""
        found = self.disagreement()
        return likely_causes(found) if found else self.place_causes

    @cached_property
    def place_causes(self) -> tuple[Cause, ...]:
        """Why a place of the latest series stood apart, most likely first."""
        return likely_causes(self.place_apart) if self.place_apart else ()

    def disagreement(self) -> Disagreement | None:
        """The two trials that are farthest apart, or one without play that should have some."""
        return self._disagreement

    @cached_property
    def _disagreement(self) -> Disagreement | None:
        return disagreement_of(self)

    @cached_property
    def place_apart(self) -> PlaceApart | None:
        """The place of the latest series that is to be read again, or was and is outvoted."""
        return place_apart_in(self.now.series) if self.now else None

    @cached_property
    def odd_one_out(self) -> int | None:
        """The one trial without which all others add up, where there are at least two others."""
        return odd_one_out(self)

    @property
    def tried_again(self) -> bool:
        """Whether this closing has a series that was set aside: it was seated and tried again."""
        return any(
            trial.series.aside and trial.series.closing == self.now_closing for trial in self.trials
        )

    @property
    def _packs(self) -> tuple[Counter[int], ...]:
        """The shims of each trial that counts, in steps, all stations together."""
        return tuple(shims_of(self.trial(number).pack) for number in self.counted)

    @property
    def expected(self) -> Expected | None:
        """What the trials before predict for the pack that is in, with its standard deviation."""
        before = [n for n in self.counted if self.trial(n).series.closing < self.now_closing]
        if self.expected_mm is None or not before:
            return None
        gauge = max(self.trial(number).gauge.resolution for number in before)
        scatter = self.trial(before[-1]).series.repeatability_mm
        pack = shims_of(self.fitted or ())
        last = self._packs[self.counted.index(before[-1])]
        shims = ((pack - last) + (last - pack)).total()
        variance = gauge**2 / 6 + scatter**2 + shims * self.shim_doubt_mm**2
        return Expected(self.expected_mm, math.sqrt(variance))

    @property
    def now_closing(self) -> int:
        """The closing that lasts."""
        return self.bench.progress.setting_closing

    @property
    def deviation_mm(self) -> float:
        """The standard deviation of a play read with the latest gauge at every place asked for."""
        last = self.last
        if last is None:
            return 0.0
        places = len(self.bench.progress.card.places)
        return deviation_of(last.gauge, max(places, 2), last.series.repeatability_mm)

    @property
    def shim_doubt_mm(self) -> float:
        """The standard deviation of one shim about what it counts as."""
        return self.problem.shim_doubt_mm if self.problem else SHIM_DOUBT_MM

    @property
    def search_step_mm(self) -> float:
        """How far to open where nothing could be read."""
        if self.problem is None:
            return 0.1
        return self.problem.search_step_mm or 2 * self.problem.window_mm

    def trial(self, number: int) -> FittedTrial:
        """A trial by its number."""
        return next(trial for trial in self.trials if trial.number == number)


def limits_of(bench: Bench) -> Limits:
    """What the card allows; everything where it says nothing."""
    window = bench.progress.card.setting.limits
    return window.limits if window else Limits(-1e6, 1e6)


def _finest(used: list[FittedTrial]) -> list[FittedTrial]:
    """The trials to plan by: once a finer dial has read, what a coarse one said is left out."""
    finest = min((trial.gauge.resolution for trial in used), default=0.0)
    fine = [trial for trial in used if trial.gauge.resolution <= finest * _MUCH_COARSER]
    return fine if fine and fine[-1] is used[-1] else used


def _problem(bench: Bench, used: list[FittedTrial]) -> Problem | None:
    card, chosen = bench.progress.card, bench.progress.chosen
    limits = limits_of(bench)
    known = [trial.trial(limits) for trial in used]
    trials: tuple[Trial, ...] = tuple(trial for trial in known if trial)
    if not trials or card.setting.limits is None or limits.window is None:
        return None
    by_dial = [trial for trial in used if not trial.by_hand] or used
    return Problem(
        effect=card.setting.effect,
        sides=len(used[-1].pack),
        balance="as_found" if card.chosen("shims", chosen) == "one_side" else "even",
        trials=trials,
        tray=bench.tray,
        limits=limits,
        aim=aim_of(chosen.get("aim", card.setting.aim)),
        resolution_mm=max(trial.gauge.resolution for trial in by_dial),
        repeatability_mm=by_dial[-1].series.repeatability_mm,
        max_shims=card.setting.max_shims,
        search_step_mm=_search_step(bench, used, limits, by_dial[-1].gauge.resolution),
    )


def _search_step(
    bench: Bench, used: list[FittedTrial], limits: Limits, step_mm: float
) -> float | None:
    """How far to open where nothing could be read; None: as far as the limits say.

    Where the shop's history knows what hubs of this card needed, as far as most of them did.
    """
    if not limits.window:
        return max(0.1, step_mm)
    usual = None if any(trial.play(limits) for trial in used) else bench.usual
    if usual is None:
        return None
    sign = card_effect_sign(bench.progress.card)
    away = sign * (usual.pack_mm - used[-1].total_mm) + usual.deviation_mm
    return away if away > _LEAST_SEARCH * limits.window else None
