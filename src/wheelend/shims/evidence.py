"""What the trials say together.

On a shimmed wheel end, play = c ± pack. Every trial with a play gives one c; trials that are not
home, dirty or misread give another, and stand out. Source: geometry; the doubt: JCGM 100:2008.
"""

import itertools
import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from wheelend.quantity import GRID_PER_MM
from wheelend.shims.problem import Problem, Trial, steps
from wheelend.verdict import SAME, sure


@dataclass(frozen=True)
class Evidence:
    """The constant `c` (play = c + sign·pack; 10 nm steps; None without a play) and its flags.

    `constants` holds one c per trial (None where it has no play), in mm. `U_mm` is the doubt of a
    predicted play. `disagree` names the two trials farthest apart, counted from 0.
    """

    c: Fraction | None
    U_mm: float
    flags: tuple[str, ...]
    constants_mm: tuple[float | None, ...]
    disagree: tuple[int, int] | None
    contradicted: tuple[int, ...]

    @property
    def c_mm(self) -> float | None:
        """The constant in mm: the play with no pack at all."""
        return None if self.c is None else float(self.c) / GRID_PER_MM


def weigh(problem: Problem) -> Evidence:
    """Weigh all trials of a problem together.

    Two constants are apart when they differ by more than `apart_mm` of their trials. Where no two
    are, all are averaged; else the latest is taken alone and half their spread joins the doubt.
    """
    constants = [_constant(trial, problem.sign) for trial in problem.trials]
    known = [c for c in constants if c is not None]
    disagree = _farthest_apart(problem, constants)
    spread = max(known) - min(known) if disagree else 0
    c = _chosen(known, disagree is None)
    contradicted = _contradicted(problem, c)
    U_mm = prediction_doubt(problem.resolution_mm, problem.pack_resolution_mm)
    found = {"does_not_add_up": disagree is not None, "contradiction": bool(contradicted)}
    return Evidence(
        c=c,
        U_mm=U_mm + spread / 2 / GRID_PER_MM,
        flags=tuple(flag for flag, there in found.items() if there),
        constants_mm=tuple(None if c is None else c / GRID_PER_MM for c in constants),
        disagree=disagree,
        contradicted=contradicted,
    )


def apart_mm(problem: Problem, first: Trial, second: Trial) -> float:
    """How far two trials' constants may differ, in mm: three times the doubt of their difference.

    t = 3·√(2·(2·r²/12 + ρ²) + p²/12 + m·s²), with m the shims that are in one pack and not in the
    other, either way: one pack read twice has no shim to blame. With more than two trials there are
    more pairs that could differ by chance, so 3 grows to `sure(pairs)`: the whole job cries wolf no
    oftener than two trials do. Source: JCGM 100:2008, 5.1.2; Bonferroni's inequality.
    """
    of_play = 2 * problem.resolution_mm**2 / 12 + problem.repeatability_mm**2
    of_pack = problem.pack_resolution_mm**2 / 12
    of_shims = shims_that_differ(first, second) * problem.shim_doubt_mm**2
    pairs = math.comb(len(problem.trials), 2)
    return sure(pairs) * math.sqrt(2 * of_play + of_pack + of_shims)


def weighed_together(
    problem: Problem, calibration_mm: float, readings: Sequence[int]
) -> tuple[float, float]:
    """The play of the latest pack by all trials with a play, and its doubt U (k = 2); both in mm.

    Least squares: each trial predicts the play of the latest pack, weighed by 1/u² with
    u² = 2·r²/12 + ρ²/n + m·s², m the shims that are in one pack and not in the other, n of
    `readings` the plays that it was read from. Trials of one total share what the gauge's step
    rounds off, so that term is never averaged among them; the certificate's doubt is all trials'.
    Source: JCGM 100:2008, 5.1.2 and 4.3.1; weighted mean by least squares.
    """
    by_total: dict[int, list[tuple[float, float]]] = {}
    for trial, count in zip(problem.trials, readings, strict=True):
        constant = _constant(trial, problem.sign)
        if constant is None:
            continue
        play = (constant + problem.sign * pack_steps(problem.latest)) / GRID_PER_MM
        shims = shims_that_differ(trial, problem.latest) * problem.shim_doubt_mm**2
        scatter = problem.repeatability_mm**2 / max(count, 1) + shims
        by_total.setdefault(pack_steps(trial), []).append((play, scatter))
    groups = [_mean(plays) for plays in by_total.values()]
    rounding = problem.resolution_mm**2 / 6
    play, variance = _mean([(play, variance + rounding) for play, variance in groups])
    return play, 2 * math.sqrt(variance + (calibration_mm / 2) ** 2)


def _mean(values: Sequence[tuple[float, float]]) -> tuple[float, float]:
    """The mean of values, each with its variance, weighed by it; and the variance of that mean."""
    weights = [1 / max(variance, 1e-12) for _, variance in values]
    whole = sum(weights)
    mean = sum(value * weight for (value, _), weight in zip(values, weights, strict=True)) / whole
    return mean, 1 / whole


def shims_that_differ(first: Trial, second: Trial) -> int:
    """How many shims are in one pack and not in the other, either way."""
    here, there = (
        Counter(steps(shim) for side in t.pack for shim in side) for t in (first, second)
    )
    return ((here - there) + (there - here)).total()


def prediction_doubt(resolution_mm: float, pack_resolution_mm: float = 0.0) -> float:
    """The doubt U in mm of a play predicted from one read with a gauge of this step.

    U = 2·√(2·r²/12 + p²/12): a play is the difference of two readings, p the doubt of the packs.
    Source: JCGM 100:2008, F.2.2.1.

    >>> round(prediction_doubt(0.01), 6)
    0.008165
    """
    return 2 * math.sqrt(2 * resolution_mm**2 / 12 + pack_resolution_mm**2 / 12)


def _chosen(known: Sequence[int], adds_up: bool) -> Fraction | None:
    if not known:
        return None
    return Fraction(sum(known), len(known)) if adds_up else Fraction(known[-1])


def pack_steps(trial: Trial) -> int:
    """The pack of a trial, both sides together, in 10 nm steps."""
    return sum(steps(shim) for side in trial.pack for shim in side)


def _constant(trial: Trial, sign: int) -> int | None:
    return None if trial.play_mm is None else steps(trial.play_mm) - sign * pack_steps(trial)


def _farthest_apart(problem: Problem, constants: Sequence[int | None]) -> tuple[int, int] | None:
    """The two trials whose constants are apart by the largest share of what they may be."""
    worst, pair = 1.0, None
    for (i, one), (j, other) in itertools.combinations(enumerate(constants), 2):
        if one is None or other is None:
            continue
        allowed = apart_mm(problem, problem.trials[i], problem.trials[j]) * GRID_PER_MM
        difference = abs(one - other)
        share = difference / allowed if allowed else math.inf if difference else 0.0
        if share > worst * (1 + SAME):
            worst, pair = share, (i, j)
    return pair


def _contradicted(problem: Problem, c: Fraction | None) -> tuple[int, ...]:
    """Trials without play on packs that the chosen constant says have some."""
    if c is None:
        return ()
    most = {"bound": 0, "no_play": steps(problem.resolution_mm)}
    read = [trial for trial in problem.trials if trial.outcome == "play"]

    def beyond(trial: Trial) -> bool:
        allowed = min(apart_mm(problem, trial, other) for other in read) * GRID_PER_MM
        return c + problem.sign * pack_steps(trial) > most[trial.outcome] + allowed * (1 + SAME)

    return tuple(
        index
        for index, trial in enumerate(problem.trials)
        if trial.outcome != "play" and beyond(trial)
    )
