"""Setting a shimmed wheel end: what the readings mean, and what to do next.

The line at the top of the bench is made here, with its numbers and its reason.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from wheelend.endplay import EndPlay
from wheelend.procedure.causes import Cause, Disagreement, likely_causes
from wheelend.procedure.series import Series
from wheelend.shims import (
    Effect,
    Evidence,
    Problem,
    ShimPlan,
    TrayShim,
    Trial,
    plan,
    prediction_doubt,
    total_mm,
    weigh,
)
from wheelend.verdict import Limits, Verdict
from wheelend.wording import Lead

Aim = Literal["middle", "low", "high"] | float


@dataclass(frozen=True)
class SettingCard:
    """What the spec card says of the setting; lengths in mm, torque in N·m.

    `smallest_felt_mm` is the least play that hands can feel here, where the card gives the sizes.
    `trial_method` says whether to start from the pack that was found or open, and come down.
    `plate_torque_N_m` is what a through-axle's plate bolts are drawn to in every trial.
    """

    effect: Effect
    limits: Limits
    aim: Aim
    max_shims: int
    nut_torque_N_m: float
    sides: int = 1
    balance: Literal["even", "as_found"] = "even"
    plate_torque_N_m: float | None = None
    smallest_felt_mm: float | None = None
    trial_method: Literal["from_pack", "over_shim"] = "from_pack"


@dataclass(frozen=True)
class Setting:
    """The whole setting stage: the card, every series oldest first, and the loose shims.

    `on_face` says that the dial stands on the hub face. `names` are the words on shims.
    """

    card: SettingCard
    series: tuple[Series, ...]
    tray: tuple[TrayShim, ...]
    on_face: bool = False
    names: Mapping[float, str] = field(default_factory=dict)
    lead: Lead = "metric"

    @property
    def now(self) -> Series | None:
        """The series of the pack that is on the shaft."""
        return self.series[-1] if self.series else None


@dataclass(frozen=True)
class Assessment:
    """What the readings mean together.

    `counted` are the numbers of the series that told something, in the order of `plan`'s trials.
    `expected_mm` is the play that earlier trials predict for the pack now on the shaft.
    """

    setting: Setting
    plays: Mapping[int, EndPlay]
    counted: tuple[int, ...]
    evidence: Evidence | None
    plan: ShimPlan | None
    expected_mm: float | None
    aim_mm: float

    @property
    def play(self) -> EndPlay | None:
        """The end play of the series now on the dial."""
        now = self.setting.now
        return self.plays.get(now.number) if now else None

    @property
    def verdict(self) -> Verdict | None:
        """The verdict of the series now on the dial."""
        return self.play.verdict if self.play else None

    @property
    def adds_up(self) -> bool:
        """Whether no trial speaks against another."""
        return self.evidence is None or not self.evidence.flags

    @property
    def judged_by_hand(self) -> bool:
        """Whether hands alone found the pack on the shaft free and without play to feel."""
        now = self.setting.now
        return bool(now and now.by_hand and now.finding == "no_play")

    @property
    def is_set(self) -> bool:
        """Whether the pack on the shaft is inside, all read, and nothing speaks against it."""
        now = self.setting.now
        inside = self.verdict is not None and self.verdict.word == "within"
        agree = now is not None and now.ends_apart_mm is None
        return bool(now and now.complete and inside and self.adds_up and agree)

    def causes(self) -> tuple[Cause, ...]:
        """Why the trials do not add up, most likely first; empty where they do."""
        found = self.disagreement()
        return likely_causes(found) if found else ()

    def disagreement(self) -> Disagreement | None:
        """The two trials that are farthest apart, or a trial without play that should have some."""
        pair = self._two_apart()
        if pair is None or self.evidence is None:
            return None
        earlier, later = pair
        constants = self.evidence.constants_mm
        c_early, c_late = constants[earlier], constants[later]
        chosen = self.evidence.c_mm or 0.0
        series = [self._series(self.counted[index]) for index in pair]
        return Disagreement(
            earlier=self.counted[earlier],
            later=self.counted[later],
            unexplained_mm=(chosen if c_late is None else c_late)
            - (chosen if c_early is None else c_early)
            or self._short_of(earlier),
            shims_mm=tuple(shim for one in series for side in one.pack for shim in side),
            step_mm=series[-1].gauge.resolution,
            on_face=self.setting.on_face,
            turned=any(one.turned for one in series),
        )

    def _two_apart(self) -> tuple[int, int] | None:
        if self.evidence is None or self.plan is None:
            return None
        if self.evidence.disagree:
            return self.evidence.disagree
        if self.evidence.contradicted:
            without = self.evidence.contradicted[-1]
            known = [i for i, c in enumerate(self.evidence.constants_mm) if c is not None]
            return min(without, known[-1]), max(without, known[-1])
        return None

    def _short_of(self, index: int) -> float:
        """How much play a trial without any should have had."""
        pack = self._series(self.counted[index]).pack
        c = self.evidence.c_mm if self.evidence else None
        return (c or 0.0) + _sign(self.setting.card) * total_mm(pack)

    def _series(self, number: int) -> Series:
        return next(series for series in self.setting.series if series.number == number)


def assess(setting: Setting) -> Assessment:
    """Work out what all series together mean."""
    card = setting.card
    plays = {one.number: one.play(card.limits) for one in setting.series}
    trials = {one.number: one.trial(card.limits) for one in setting.series}
    counted = [number for number, trial in trials.items() if trial]
    known = tuple(trial for trial in trials.values() if trial)
    problem = _problem(setting, known) if known else None
    evidence = weigh(problem) if problem else None
    return Assessment(
        setting=setting,
        plays={number: play for number, play in plays.items() if play},
        counted=tuple(counted),
        evidence=evidence,
        plan=plan(problem) if problem else None,
        expected_mm=_expected(setting, trials),
        aim_mm=_aim_mm(setting, evidence),
    )


def _problem(setting: Setting, trials: tuple[Trial, ...]) -> Problem:
    card = setting.card
    return Problem(
        effect=card.effect,
        sides=card.sides,
        balance=card.balance,
        trials=trials,
        tray=setting.tray,
        limits=card.limits,
        aim=card.aim,
        resolution_mm=max(one.gauge.resolution for one in setting.series),
        max_shims=card.max_shims,
        search_step_mm=None
        if card.limits.window
        else max(0.1, setting.series[-1].gauge.resolution),
    )


def _sign(card: SettingCard) -> int:
    return 1 if card.effect == "opens" else -1


def _expected(setting: Setting, trials: Mapping[int, Trial | None]) -> float | None:
    """What the trials before this one predict for it."""
    if setting.now is None:
        return None
    before = tuple(t for number, t in trials.items() if t and number != setting.now.number)
    if not before:
        return None
    c = weigh(_problem(setting, before)).c_mm
    return None if c is None else c + _sign(setting.card) * total_mm(setting.now.pack)


def _aim_mm(setting: Setting, evidence: Evidence | None) -> float:
    """Where in the limits to land: low and high keep clear of the limit by the doubt."""
    card, now = setting.card, setting.now
    low, high = card.limits.lowest, card.limits.highest
    if not isinstance(card.aim, str):
        return min(max(card.aim, low), high)
    U = prediction_doubt(now.gauge.resolution) if now else 0.0
    if evidence:
        U = evidence.U_mm
    if card.aim == "middle" or low + U > high - U:
        return (low + high) / 2
    return low + U if card.aim == "low" else high - U
