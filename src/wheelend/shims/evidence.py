"""What the trials say together.

On a shimmed wheel end, play = c ± pack. Every trial with a play gives one c; trials that are not
home, dirty or misread give another, and stand out. Source: geometry; the doubt: JCGM 100:2008.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from wheelend.shims.problem import Problem, Trial, steps

_AGREE = 3
"""Constants further apart than this many gauge steps do not add up."""


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
        return None if self.c is None else float(self.c) / 100_000


def weigh(problem: Problem) -> Evidence:
    """Weigh all trials of a problem together.

    Constants within 3·(resolution + pack resolution) of each other are averaged; else the latest
    is taken alone and half their spread joins the doubt.
    """
    constants = [_constant(trial, problem.sign) for trial in problem.trials]
    known = [c for c in constants if c is not None]
    tolerance = _AGREE * (steps(problem.resolution_mm) + steps(problem.pack_resolution_mm))
    spread = max(known) - min(known) if known else 0
    adds_up = spread <= tolerance
    c = _chosen(known, adds_up)
    contradicted = _contradicted(problem, c, tolerance)
    U_mm = prediction_doubt(problem.resolution_mm, problem.pack_resolution_mm)
    found = {"does_not_add_up": not adds_up, "contradiction": bool(contradicted)}
    return Evidence(
        c=c,
        U_mm=U_mm if adds_up else U_mm + spread / 2 / 100_000,
        flags=tuple(flag for flag, there in found.items() if there),
        constants_mm=tuple(None if c is None else c / 100_000 for c in constants),
        disagree=None if adds_up else _farthest_apart(constants),
        contradicted=contradicted,
    )


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


def _farthest_apart(constants: Sequence[int | None]) -> tuple[int, int]:
    known = [(c, index) for index, c in enumerate(constants) if c is not None]
    lowest = min(known)[1]
    highest = min((-c, index) for c, index in known)[1]
    return min(lowest, highest), max(lowest, highest)


def _contradicted(problem: Problem, c: Fraction | None, tolerance: int) -> tuple[int, ...]:
    """Trials without play on packs that the chosen constant says have some."""
    if c is None:
        return ()
    most = {"bound": 0, "no_play": steps(problem.resolution_mm)}
    return tuple(
        index
        for index, trial in enumerate(problem.trials)
        if trial.outcome != "play"
        and c + problem.sign * pack_steps(trial) > most[trial.outcome] + tolerance
    )
