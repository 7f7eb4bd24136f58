"""The next best act: of all that would do, the one with the least expected trials to a proven setting."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from wheelend.methods.judgement import Dial, Mark
from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.causes import Cause
from wheelend.methods.shims.proving import (
    STEPS_MM,
    can_prove,
    chance_inside,
    coarsest_that_proves,
    deviation_of,
)
from wheelend.methods.shims.trials import FittedTrial
from wheelend.procedure.asking.apart import MOST_AGAIN, again_at, base_of
from wheelend.procedure.asking.frame import place_words
from wheelend.procedure.asking.readings import Series
from wheelend.shims import total_mm
from wheelend.shims.problem import Choice, steps

ActKind = Literal[
    "write", "by_hand", "take_dial", "ends", "try_again", "read_again", "read_anew", "set_aside",
    "clean", "measure", "measure_shims", "torque", "go_on", "mistyped", "open", "finer_dial", "swap",
    "buy", "no_shims",
]  # fmt: skip

_READING, _ANOTHER_DIAL, _TRIAL, _SHOPPING = 0.15, 0.3, 1.0, 3.0
"""What an act costs, in trials: a trial opens the hub; shopping ends the day's work."""

_AFTER = 1.2
"""What is still to come where an act did not do: about one trial more."""

_LIKELY = 0.7
"""Reading on until it happens to come out inside proves nothing: only where it most likely would."""

_HARDLY = 0.1
"""A pack that would hardly ever be proven is no advice: better a shim that lands on the aim."""

_MANY_TRIALS = 6
"""Who lands beside the window as often has shims that are not what they count as."""

_SCATTERED_TWICE = 2
_LONGEST = 200


@dataclass(frozen=True)
class Act:
    """One thing to do; lengths in mm. `chance` is that of a proven setting right after it.

    `place` is what is read again, `trial` what is set aside, `choice` the pack, `dial` the one of
    the shop or None where `step_mm` says which to get, `sizes` the shims to get.
    """

    kind: ActKind
    place: str = ""
    trial: int = 0
    choice: Choice | None = None
    cause: Cause | None = None
    dial: Dial | None = None
    step_mm: float = 0.0
    sizes: tuple[float, ...] = ()
    chance: float = 0.0


def mark_of(found: Assessment, act: Act) -> Mark | None:
    """The mark that an act comes to: a place to be read again, a series that does not count."""
    apart = found.disagreement()
    doubt = f"trials {apart.earlier} and {apart.later} do not add up" if apart else ""
    if act.kind == "read_again" and found.now:
        reason = doubt or "too close to call"
        words = f"Read {place_words(base_of(act.place))} again"
        return _mark("again", found.now.series, reason, words, act.place)
    trial = next((one for one in found.trials if one.number == act.trial), found.now)
    if act.kind not in _SETS_ASIDE or trial is None:
        return None
    reason = act.cause.text if act.cause else doubt or _SETS_ASIDE[act.kind]
    words = "Set this series aside, read anew"
    if act.kind == "set_aside":
        words = f"Set trial {act.trial} aside"
    return _mark("aside", trial.series, reason, words)


_SETS_ASIDE = {
    "set_aside": "speaks against the others", "read_anew": "read again it was another",
    "try_again": "seated both ways, tried again", "ends": "ends apart: seated both ways again",
}  # fmt: skip
"""The acts that set a series aside, and why, in the log's words."""


def _mark(
    kind: Literal["again", "aside"], series: Series, reason: str, words: str, place: str = ""
) -> Mark:
    why = f"{reason[0].lower()}{reason[1:]}".rstrip(".")[:_LONGEST]
    return Mark(kind, series.step, series.closing, series.round, place, why, words)


def next_act(found: Assessment) -> Act:
    """What to do once a series is read whole."""
    for rule in _RULES:
        act = rule(found)
        if act:
            return act
    return _toward_the_aim(found)


def _no_limits(found: Assessment) -> Act | None:
    return Act("write") if found.bench.progress.card.setting.limits is None else None


def _by_hand(found: Assessment) -> Act | None:
    finding = found.last.series.finding if found.last else None
    if finding and finding.kind == "felt":
        return Act("take_dial")
    return Act("by_hand") if found.judged_by_hand else None


def _series(found: Assessment) -> Act | None:
    """What the latest series says against itself."""
    last = found.now
    if last is None:
        return None
    if last.ends_apart_mm is not None:
        return Act("ends")
    if last.series.weighed.moved:
        return Act("read_anew", trial=last.number)
    return None


def _alarm(found: Assessment) -> Act | None:
    """Trials that don't add up: the odd one out, the one reading that settles it, then causes."""
    apart = found.disagreement()
    if apart is None:
        return None
    odd = found.odd_one_out
    if odd is not None and found.now is not None and odd != found.now.number:
        return Act("set_aside", trial=odd, cause=found.causes()[0])
    now = found.now
    if now and now.number in (apart.earlier, apart.later) and not apart.settled:
        place = next(iter(now.plays_mm), "")
        if place and not now.series.settling:
            return Act("read_again", place=_once_more(now, place))
        if now.series.finding and not found.tried_again:
            return Act("try_again", trial=now.number)
    return _after(found.causes()[0], apart.earlier, now)


def _after(first: Cause, earlier: int, now: FittedTrial | None) -> Act:
    if first.then == "aside_earlier":
        return Act("set_aside", trial=earlier, cause=first)
    if first.then == "measure":
        return Act("measure", cause=first)
    if first.then == "read_anew" and now:
        return Act("read_anew", trial=now.number, cause=first)
    return Act("clean", cause=first)


def _set(found: Assessment) -> Act | None:
    return Act("go_on") if found.is_set else None


def _rough(found: Assessment) -> Act | None:
    last, verdict = found.last, found.verdict
    rough = last and last.rough and verdict and verdict.word in ("within", "undecided")
    return Act("torque") if rough else None


def _cut(found: Assessment) -> Act | None:
    cut = found.plan is not None and "cut" in found.plan.flags
    return Act("mistyped") if cut and found.choice is None else None


def _bound(found: Assessment) -> Act | None:
    if found.evidence is None or found.evidence.c is not None or found.last is None:
        return None
    if found.choice:
        return Act("open", choice=found.choice)
    if found.sign < 0:
        return Act("no_shims")
    return Act("buy", sizes=(found.search_step_mm,))


def _scattered(found: Assessment) -> Act | None:
    """A flag of the series itself: another pack would not help, another series may."""
    verdict, last = found.verdict, found.now
    if last is None or verdict is None or verdict.word != "undecided":
        return None
    if verdict.because not in ("mixed_direction", "scattered", "runout_unknown"):
        return None
    here = [t for t in found.trials if t.series.closing == last.series.closing]
    if verdict.because == "scattered" and len(here) >= _SCATTERED_TWICE:
        return Act("clean")
    return Act("read_anew", trial=last.number)


def _too_coarse(found: Assessment) -> Act | None:
    """A gauge that can't prove even the middle: said after the first reading, with one that can."""
    last = found.last
    if last is None or last.by_hand or found.play is None or found.limits.window is None:
        return None
    known = (len(last.series.weighed.counted), last.series.repeatability_mm, found.limits)
    if can_prove(last.gauge, *known):
        return None
    finer = [dial for dial in found.bench.dials if can_prove(dial.gauge, *known)]
    dial = max(finer, key=lambda one: one.gauge.resolution, default=None)
    return Act("finer_dial", dial=dial, step_mm=coarsest_that_proves(*known))


_RULES: tuple[Callable[[Assessment], Act | None], ...] = (
    _no_limits, _by_hand, _series, _alarm, _set, _rough, _cut, _bound, _scattered, _too_coarse,
)  # fmt: skip


def _toward_the_aim(found: Assessment) -> Act:
    """Outside: another pack. Too close to call: what proves it with the fewest trials."""
    if len(found.counted) >= _MANY_TRIALS:
        return Act("measure_shims")
    offers = [offer(found) for offer in (_swap, _again, _finer, _buy)]
    acts = [one for one in offers if one]
    first = min(acts, key=lambda one: one[0], default=None)
    return first[1] if first else _no_pack(found)


_Offer = tuple[float, Act] | None


def _cost(own: float, chance: float) -> float:
    return own + (1 - chance) * _AFTER


def _swap(found: Assessment) -> _Offer:
    choice, last = found.choice, found.last
    if choice is None or last is None or choice.predicted_mm is None:
        return None
    here = found.deviation_mm
    after = (here**2 + choice.changes * found.shim_doubt_mm**2) ** 0.5
    chance = chance_inside(choice.predicted_mm, after, 2 * here, found.limits)
    if chance < _HARDLY and to_get(found):
        return None
    return _cost(_TRIAL, chance), Act("swap", choice=choice, chance=chance)


def _undecided(found: Assessment) -> bool:
    return found.verdict is not None and found.verdict.word == "undecided"


def _again(found: Assessment) -> _Offer:
    """Read one place again: the mean of more readings scatters less."""
    last, play = found.now, found.play
    if last is None or play is None or not _undecided(found) or last is not found.last:
        return None
    read = last.series.weighed.counted
    place = min(last.plays_mm, key=lambda one: sum(base_of(p) == one for p in read), default="")
    times = sum(base_of(one) == place for one in last.series.pairs)
    if not place or times > MOST_AGAIN:
        return None
    now = deviation_of(last.gauge, len(read), last.series.repeatability_mm)
    then = deviation_of(last.gauge, len(read) + 1, last.series.repeatability_mm)
    moves = max(now**2 - then**2, 0.0) ** 0.5
    chance = chance_inside(play.play_mm, moves, 2 * then, found.limits)
    if chance < _LIKELY:
        return None
    return _cost(_READING, chance), Act("read_again", place=again_at(place, times), chance=chance)


def _finer(found: Assessment) -> _Offer:
    last, play = found.now, found.play
    if last is None or play is None or not _undecided(found) or last.by_hand:
        return None
    finer = [d for d in found.bench.dials if d.gauge.resolution < last.gauge.resolution / 1.5]
    if not finer:
        return None
    dial = min(finer, key=lambda one: (one.gauge.resolution, one.gauge.calibration))
    n, scatter = len(last.series.weighed.counted), last.series.repeatability_mm
    now, then = deviation_of(last.gauge, n, scatter), deviation_of(dial.gauge, n, scatter)
    moves = (max(now**2 - then**2, 0.0)) ** 0.5
    chance = chance_inside(play.play_mm, moves, 2 * then, found.limits)
    return _cost(_ANOTHER_DIAL, chance), Act("finer_dial", dial=dial, chance=chance)


def _buy(found: Assessment) -> _Offer:
    sizes = to_get(found)
    return (_cost(_SHOPPING, 1.0), Act("buy", sizes=sizes)) if sizes else None


def to_get(found: Assessment) -> tuple[float, ...]:
    """The shims to get, unless one of them lies in the tray: then the plan has it."""
    sizes = buyable(found)
    there = {steps(shim.thickness_mm) for shim in found.bench.tray if shim.count}
    return () if there & set(map(steps, sizes)) else sizes


def buyable(found: Assessment) -> tuple[float, ...]:
    """The shims of which one would land on the aim: on the 0.01 mm grid, and on the thou's.

    The planner's own; where no shim thin enough exists to put in the thickest one's place, the one
    in the place of several.
    """
    buy, last = found.to_buy, found.last
    if buy is None or last is None or found.evidence is None or found.evidence.c_mm is None:
        return ()
    sizes = tuple(size for size in (buy.metric_mm, buy.inch_mm) if size)
    if sizes:
        return sizes
    wanted = found.sign * (found.aim_mm - found.evidence.c_mm)
    left = last.total_mm
    for shim in sorted((s for side in last.pack for s in side), key=steps, reverse=True):
        left -= shim
        if wanted - left >= 0.01:
            return (round(wanted - left, 2),)
    return ()


def _no_pack(found: Assessment) -> Act:
    """No pack, no gauge and no shim that can be bought would do."""
    evidence, last = found.evidence, found.last
    if found.plan and found.plan.choice and len(found.counted) > 1:
        return Act("measure_shims")
    if evidence is not None and evidence.c_mm is not None and last is not None:
        bare = evidence.c_mm
        tight = bare < found.limits.lowest if found.sign < 0 else bare > found.limits.highest
        if tight or total_mm(last.pack) == 0:
            return Act("no_shims")
    step = last.gauge.resolution if last else STEPS_MM[0]
    finer = next((one for one in STEPS_MM if one < step), STEPS_MM[-1])
    return Act("finer_dial", step_mm=finer)


def _once_more(trial: FittedTrial, place: str) -> str:
    return again_at(place, sum(base_of(one) == place for one in trial.series.pairs))
