"""What all trials mean together: the verdict of the latest, the plan, and what speaks against it."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from wheelend.card import aim_of
from wheelend.endplay import EndPlay
from wheelend.methods.judgement import Bench
from wheelend.methods.shims.causes import Cause, Disagreement, likely_causes
from wheelend.methods.shims.trials import FittedTrial, card_effect_sign, trials_of
from wheelend.shims import (
    Evidence,
    Problem,
    ShimPlan,
    Trial,
    plan,
    prediction_doubt,
    total_mm,
    weigh,
)
from wheelend.shims.problem import Choice
from wheelend.verdict import Limits, Verdict

_WORTH = 0.5
"""A change below this share of a gauge's step cannot be seen: it is not worth opening the hub."""


# The plan hangs on nothing but its case, and between two readings of a series the case stays.
_planned = lru_cache(maxsize=32)(plan)


@dataclass(frozen=True)
class Assessment:
    """What the trials mean together.

    `trials` are all that were begun, those set aside too; `counted` are the numbers of those that
    `evidence` and `plan` rest on, in its order. `expected_mm` is what earlier trials predict for
    the pack that is in. Lengths in mm.
    """

    bench: Bench
    trials: tuple[FittedTrial, ...]
    plays: Mapping[int, EndPlay]
    counted: tuple[int, ...]
    evidence: Evidence | None
    plan: ShimPlan | None
    expected_mm: float | None
    aim_mm: float

    @property
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
        """The pack to fit next; None where none would do, or the change is too small to see."""
        found = self.plan.choice if self.plan else None
        if found is None or self.last is None or self.plan is None or self.plan.kind == "keep":
            return None
        change = abs(total_mm(found.pack) - self.last.total_mm)
        return found if change > _WORTH * self.last.gauge.resolution else None

    @property
    def judged_by_hand(self) -> bool:
        """Whether hands alone found the pack free and without play to feel."""
        found = self.last.series.finding if self.last else None
        return bool(self.last and self.last.by_hand and found and found.kind == "no_play")

    @property
    def inside(self) -> bool:
        """Whether the latest trial is inside with all its doubt, read whole, at the right torque."""
        last, verdict = self.last, self.verdict
        if last is None or verdict is None:
            return False
        read = last.series.complete and not last.rough and last.ends_apart_mm is None
        return read and verdict.word == "within"

    @property
    def is_set(self) -> bool:
        """Whether the latest pack is inside and no trial speaks against another."""
        return self.inside and self.disagreement() is None

    def causes(self) -> tuple[Cause, ...]:
        """Why the trials do not add up, most likely first; empty where they do."""
        found = self.disagreement()
        return likely_causes(found) if found else ()

    def disagreement(self) -> Disagreement | None:
        """The two trials that are farthest apart, or one without play that should have some."""
        pair = self._two_apart()
        if pair is None or self.evidence is None:
            return None
        earlier, later = (self.trial(self.counted[index]) for index in pair)
        turned = [t.series.instrument for t in (earlier, later) if t.series.instrument]
        return Disagreement(
            earlier=earlier.number,
            later=later.number,
            unexplained_mm=self._unexplained(*pair),
            shims_mm=tuple(shim for one in (earlier, later) for side in one.pack for shim in side),
            step_mm=later.gauge.resolution,
            on_face=any(one.facts.get("dial_at") == "hub_face" for one in turned),
            turned=any(bool(one.facts.get("turned")) for one in turned),
        )

    def _two_apart(self) -> tuple[int, int] | None:
        if self.evidence is None:
            return None
        if self.evidence.disagree:
            return self.evidence.disagree
        if self.evidence.contradicted:
            without = self.evidence.contradicted[-1]
            known = [i for i, c in enumerate(self.evidence.constants_mm) if c is not None]
            return min(without, known[-1]), max(without, known[-1])
        return None

    def _unexplained(self, earlier: int, later: int) -> float:
        """By how much the later trial has more play than the earlier one predicts for its pack.

        A trial without play has at most none: what the other predicts for its pack is what is off.
        """
        assert self.evidence is not None  # noqa: S101  asked only where there is evidence
        constants = self.evidence.constants_mm
        c_early, c_late = constants[earlier], constants[later]
        if c_early is not None and c_late is not None:
            return c_late - c_early
        with_play, without = (c_early, later) if c_early is not None else (c_late, earlier)
        predicted = (with_play or 0.0) + self.sign * self.trial(self.counted[without]).total_mm
        return -predicted if without == later else predicted

    def trial(self, number: int) -> FittedTrial:
        """A trial by its number."""
        return next(trial for trial in self.trials if trial.number == number)


def limits_of(bench: Bench) -> Limits:
    """What the card allows; everything where it says nothing."""
    window = bench.progress.card.setting.limits
    return window.limits if window else Limits(-1e6, 1e6)


def assess(bench: Bench) -> Assessment:
    """Work out what all trials together mean."""
    limits = limits_of(bench)
    trials = trials_of(bench.progress)
    counting = [trial for trial in trials if not trial.series.aside]
    sound = [trial for trial in counting if not trial.rough and trial.trial(limits)]
    used = [t for t in sound or counting if t.series.complete and t.trial(limits)]
    problem = _problem(bench, used)
    evidence = weigh(problem) if problem else None
    plays = {trial.number: trial.play(limits) for trial in trials}
    return Assessment(
        bench=bench,
        trials=trials,
        plays={number: play for number, play in plays.items() if play},
        counted=tuple(trial.number for trial in used),
        evidence=evidence,
        plan=_planned(problem) if problem else None,
        expected_mm=_expected(bench, used),
        aim_mm=_aim_mm(bench, evidence, limits),
    )


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
        repeatability_mm=by_dial[-1].repeatability_mm,
        max_shims=card.setting.max_shims,
        search_step_mm=None if limits.window else max(0.1, by_dial[-1].gauge.resolution),
    )


def _expected(bench: Bench, used: list[FittedTrial]) -> float | None:
    """What the trials before predict for the pack that is in now."""
    progress = bench.progress
    clamp = progress.card.arrangement.setting_clamp
    fitted = [
        row.pack[0] if row.pack else ()
        for row in progress.entries_of(["pack"])
        if row.clamp == clamp.key and row.closing == progress.setting_closing
    ]
    before = [trial for trial in used if trial.series.closing < progress.setting_closing]
    problem = _problem(bench, before) if before else None
    if problem is None or len(fitted) < len(clamp.stations):
        return None
    c = weigh(problem).c_mm
    return None if c is None else c + card_effect_sign(progress.card) * total_mm(tuple(fitted))


def _aim_mm(bench: Bench, evidence: Evidence | None, limits: Limits) -> float:
    """Where in the limits to land: the ends keep clear of the limit by the doubt."""
    progress = bench.progress
    aim = aim_of(progress.chosen.get("aim", progress.card.setting.aim))
    low, high = limits.lowest, limits.highest
    if not isinstance(aim, str):
        return min(max(aim, low), high)
    U = evidence.U_mm if evidence else prediction_doubt(0.01)
    if aim == "middle" or low + U > high - U:
        return (low + high) / 2
    return low + U if aim == "low" else high - U
