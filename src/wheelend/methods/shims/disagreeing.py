"""What speaks against each other: two trials, one trial against all others, one place of a series."""

from __future__ import annotations

import math
import statistics
from collections import Counter
from dataclasses import replace
from typing import TYPE_CHECKING

from wheelend.endplay import face_runout
from wheelend.methods.shims.causes import Disagreement, PlaceApart
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.frame import place_words
from wheelend.procedure.asking.readings import Series
from wheelend.procedure.items.pressing import is_home, rings
from wheelend.shims import Evidence, Pack, Problem, total_mm, weigh
from wheelend.shims.evidence import apart_mm
from wheelend.shims.problem import millimetres, steps
from wheelend.verdict import sure

if TYPE_CHECKING:
    from wheelend.methods.shims.assessing import Assessment
    from wheelend.methods.shims.trials import FittedTrial

_MAJORITY = 3
"""Trials of which one may be the odd one out."""


def disagreement_of(found: Assessment) -> Disagreement | None:
    """The two trials that are farthest apart, or one without play that should have some."""
    if found.problem is None or found.evidence is None:
        return None
    pair = _two_apart(found.evidence)
    if pair is None:
        return None
    earlier, later = (found.trial(found.counted[index]) for index in pair)
    mine, other = shims_of(earlier.pack), shims_of(later.pack)
    played = found.play_of(later)
    return Disagreement(
        earlier=earlier.number,
        later=later.number,
        unexplained_mm=_unexplained(found.evidence, found.problem, *pair),
        doubt_mm=_doubt_mm(found.problem, *pair),
        put_in=tuple(map(millimetres, (other - mine).elements())),
        taken_out=tuple(map(millimetres, (mine - other).elements())),
        known=_known_shims(found),
        at_least=None in (found.play_of(earlier), found.play_of(later)),
        sign=found.sign,
        play_mm=played.play_mm if played else None,
        settled=_settled(found, later),
        wrenches_differ=_wrenches(earlier) != _wrenches(later),
        cups_tried=_cups_tried(found),
        step_mm=later.gauge.resolution,
    )


def _cups_tried(found: Assessment) -> bool | None:
    """Whether a blade was tried behind every cup; None where none was pressed here."""
    rows = [row for row in found.bench.progress.of_kind("cup_home") if rings(row.at)]
    return all(is_home(row.at) for row in rows) if rows else None


def odd_one_out(found: Assessment) -> int | None:
    """The one trial without which all others add up, where there are at least two others."""
    if found.problem is None or len(found.counted) < _MAJORITY or found.disagreement() is None:
        return None
    for index, number in enumerate(found.counted):
        others = tuple(t for i, t in enumerate(found.problem.trials) if i != index)
        if not weigh(replace(found.problem, trials=others)).flags:
            return number
    return None


def place_apart_in(series: Series) -> PlaceApart | None:
    """The place of a series that is to be read again, or was and is outvoted."""
    weighed = series.weighed
    odd = weighed.outvoted[-1] if weighed.outvoted else base_of(weighed.again)
    others = [series.pairs[p].play_mm for p in weighed.counted if p != odd]
    if not odd or odd not in series.pairs or not others:
        return None
    tool = series.instrument
    step = series.gauge.resolution
    on_face = bool(tool and tool.facts.get("dial_at") == "hub_face")
    return PlaceApart(
        place=place_words(odd),
        typed=(series.readings[odd, "in"].typed, series.readings[odd, "out"].typed),
        play_mm=statistics.median(others),
        doubt_mm=math.sqrt(2 * (step**2 / 6 + series.repeatability_mm**2)),
        on_face=on_face,
        runout_mm=face_runout(tuple(series.pairs.values())),
        shift_mm=_zero_shift(series, odd, on_face=on_face),
        reversed=_went(series, odd) * sum(_went(series, one) for one in weighed.counted) < 0,
        step_mm=step,
    )


def shims_of(pack: Pack) -> Counter[int]:
    """The shims of a pack in 10 nm steps, all stations together."""
    return Counter(steps(shim) for side in pack for shim in side)


def _two_apart(evidence: Evidence) -> tuple[int, int] | None:
    if evidence.disagree:
        return evidence.disagree
    if evidence.contradicted:
        without = evidence.contradicted[-1]
        known = [i for i, c in enumerate(evidence.constants_mm) if c is not None]
        return min(without, known[-1]), max(without, known[-1])
    return None


def _doubt_mm(problem: Problem, first: int, second: int) -> float:
    """The standard deviation of the difference of two trials."""
    pair = (problem.trials[first], problem.trials[second])
    return apart_mm(replace(problem, trials=pair), *pair) / sure()


def _unexplained(evidence: Evidence, problem: Problem, earlier: int, later: int) -> float:
    """By how much the later trial has more play than the earlier one predicts for its pack.

    A trial without play has at most none: what the other predicts for its pack is what is off.
    """
    c_early, c_late = evidence.constants_mm[earlier], evidence.constants_mm[later]
    if c_early is not None and c_late is not None:
        return c_late - c_early
    with_play, without = (c_early, later) if c_early is not None else (c_late, earlier)
    predicted = (with_play or 0.0) + problem.sign * total_mm(problem.trials[without].pack)
    return -predicted if without == later else predicted


def _settled(found: Assessment, later: FittedTrial) -> bool:
    """Whether the later trial was read again for the sake of the earlier, and came out the same."""
    if later.series.finding is not None:
        return found.tried_again
    return bool(later.series.settling) and not later.series.weighed.moved


def _known_shims(found: Assessment) -> tuple[float, ...]:
    """Every thickness that the shop has, or that was fitted."""
    packs = [shim for trial in found.trials for side in trial.pack for shim in side]
    return tuple(sorted({*packs, *(one.thickness_mm for one in found.bench.tray)}))


def _wrenches(trial: FittedTrial) -> tuple[str, ...]:
    return tuple(sorted(r.instrument.name if r.instrument else "" for r in trial.series.torques))


def _went(series: Series, place: str) -> float:
    """Which way the needle went from push to pull, and how far."""
    pair = series.pairs[place]
    return pair.out_mm - pair.in_mm


def _zero_shift(series: Series, odd: str, *, on_face: bool) -> float | None:
    """By how much the dial stood otherwise, pushed in, after an odd place than before it; mm.

    On a face that wobbles only one place can be compared with itself.
    """
    keys = list(series.pairs)
    at = keys.index(odd)
    same = [key for key in keys if base_of(key) == base_of(odd)]
    if len(same) < 2:
        return None
    before = keys[:at] if at and not on_face else [odd]
    after = same[same.index(odd) + 1 :] if on_face else keys[at + 1 :]
    if not after:
        return None
    ins = [[series.pairs[key].in_mm for key in one] for one in (before, after)]
    return statistics.median(ins[1]) - statistics.median(ins[0])
