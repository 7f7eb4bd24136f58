"""The shim plan: exact, not merely good."""

import itertools
from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import replace
from fractions import Fraction

from wheelend.quantity import GRID_PER_MM
from wheelend.shims.evidence import Evidence, pack_steps, weigh
from wheelend.shims.problem import Buy, Choice, Pack, Problem, ShimPlan, millimetres, steps
from wheelend.shims.search import Found, Search
from wheelend.shims.work import Work
from wheelend.verdict import classify

SHOWN = 4
"""The plan itself and up to three alternatives."""

_ANY_CHANGES = 1_000_000
_GRACE_STEPS = Fraction(1, 10)  # 1 nm
_METRIC_STEPS = GRID_PER_MM // 100
_INCH_STEPS = 2540

Key = tuple[int | Fraction, ...]


def plan(problem: Problem) -> ShimPlan:
    """Which shims to fit next; all lengths in mm.

    The plan keeps the predicted play inside the limits. Among packs near the aim (within the
    gauge's step or a tenth of the window) it takes the fewest changes, then the fewest shims, then
    the closest to the aim, then the evenest. Without a trial that had play it opens the pack by a
    search step. Where the numbers ask for too much looking, the flag `cut` says that packs were left
    out. Source: geometry (play = c ± pack); decision rule JCGM 106:2012.

    >>> from wheelend.shims import Problem, Trial, TrayShim
    >>> from wheelend.verdict import Limits
    >>> case = Problem("opens", 1, (Trial(((0.5,),), "play", 0.03),), (TrayShim(0.1, 3),),
    ...                Limits(0.08, 0.18), 0.01)
    >>> plan(case).choice.add
    ((0.1,),)
    """
    work = Work()
    found = _planned(problem, weigh(problem), work)
    return replace(found, flags=(*found.flags, "cut")) if work.cut else found


def _planned(problem: Problem, evidence: Evidence, work: Work) -> ShimPlan:
    if evidence.c is None:
        return _over_shim(problem, evidence, work)
    aim = _Aim(problem, evidence, evidence.c)
    search = Search(problem, aim.most_steps(), work)
    ranked, flags = _balanced(problem, search, aim.ranked)
    if not ranked:
        return _answer(evidence, "none", (), (), buy=_buy(problem, aim))
    kind = "keep" if ranked[0].changes == 0 else "fit"
    choices = [_choice(problem, found, aim.predicted(found, search), aim) for found in ranked]
    return _answer(evidence, kind, flags, choices)


class _Aim:
    """Where in the limits to land, and how packs rank by how they do; in 10 nm steps."""

    def __init__(self, problem: Problem, evidence: Evidence, c: Fraction) -> None:
        self.problem, self.evidence, self.c = problem, evidence, c
        self.low = steps(problem.limits.lowest)
        self.high = steps(problem.limits.highest)
        self.side = 0
        self.target = self._target()

    def _target(self) -> Fraction:
        middle = Fraction(self.low + self.high, 2)
        aim = self.problem.aim
        if not isinstance(aim, str):
            return Fraction(min(max(steps(aim), self.low), self.high))
        U = Fraction(self.evidence.U_mm) * GRID_PER_MM
        if aim == "middle" or self.low + U > self.high - U:
            return middle
        self.side = -1 if aim == "low" else 1
        return self.low + U if aim == "low" else self.high - U

    def play(self, total_steps: int) -> Fraction:
        """The play that a total in steps predicts, in steps."""
        return self.c + self.problem.sign * total_steps

    def predicted(self, found: Found, search: Search) -> float:
        """The play that a pack predicts, in mm."""
        return float(self.play(found.total * search.unit) / GRID_PER_MM)

    def most_steps(self) -> int:
        """The highest total whose prediction is inside the limits (negative: there is none)."""
        room = self.high - self.c if self.problem.sign > 0 else self.c - self.low
        return room.__floor__()

    def _total_at_target(self) -> int:
        return round((self.target - self.c) * self.problem.sign)

    def _least_steps(self) -> int:
        room = self.low - self.c if self.problem.sign > 0 else self.c - self.high
        return room.__ceil__()

    def _is_near(self, play: Fraction) -> bool:
        reach = max(Fraction(steps(self.problem.resolution_mm)), Fraction(self.high - self.low, 10))
        past = (play - self.target) * self.side > _GRACE_STEPS
        return abs(play - self.target) <= reach and not past

    def ranked(self, search: Search, tolerance: int | None) -> list[Found]:
        """The best packs of up to four totals, best first."""
        distance = {
            total: abs(self.play(total * search.unit) - self.target)
            for total in search.totals(
                -(-self._least_steps() // search.unit),
                self.most_steps() // search.unit,
                around=self._total_at_target() // search.unit,
            )
        }
        search.ran_out()
        by_distance = sorted(distance, key=lambda total: (distance[total], total))
        near = [t for t in by_distance if self._is_near(self.play(t * search.unit))]
        best = _fewest_changes(search, tolerance, near, distance)
        taken = set(near)
        far = (total for total in by_distance if total not in taken)
        closest = _in_order(search, tolerance, far, lambda total: (distance[total],))
        return (best + closest(SHOWN - len(best)))[:SHOWN]


def _fewest_changes(
    search: Search, tolerance: int | None, totals: Iterable[int], distance: dict[int, Fraction]
) -> list[Found]:
    """The best four of these totals, those with the fewest changes first."""

    def key(found: Found) -> Key:
        return found.changes, found.shims, distance[found.total], found.uneven

    best: list[Found] = []
    for total in totals:
        if search.work.left < 0:
            break
        most = best[-1].changes if len(best) == SHOWN else _ANY_CHANGES
        found = search.best_at(total, tolerance, most)
        if found:
            best = sorted([*best, found], key=key)[:SHOWN]
    return best


def _in_order(
    search: Search,
    tolerance: int | None,
    totals: Iterable[int],
    rank: Callable[[int], tuple[Fraction | int, ...]],
) -> Callable[[int], list[Found]]:
    """Takes totals in the order of their rank; those that share one, by what they cost."""

    def first(count: int) -> list[Found]:
        taken: list[Found] = []
        for _, group in itertools.groupby(totals, key=rank):
            if len(taken) >= count or search.work.left < 0:
                break
            found = [search.best_at(total, tolerance, _ANY_CHANGES) for total in group]
            taken += sorted(filter(None, found), key=lambda f: (f.changes, f.shims, f.uneven))
        else:
            search.ran_out()
        return taken[:count]

    return first


def _balanced(
    problem: Problem, search: Search, ranked: Callable[[Search, int | None], list[Found]]
) -> tuple[list[Found], tuple[str, ...]]:
    """The ranking among even packs, or where there are none, among all with a flag."""
    if not problem.shared or problem.balance == "as_found":
        return ranked(search, None), ()
    tolerance_mm = problem.balance_tolerance_mm
    tolerance = steps(problem.window_mm if tolerance_mm is None else tolerance_mm) // search.unit
    even = ranked(search, tolerance)
    if even:
        return even, ()
    uneven = ranked(search, None)
    return uneven, ("unbalanced",) if uneven else ()


def _over_shim(problem: Problem, evidence: Evidence, work: Work) -> ShimPlan:
    """Open by a search step or a little more: nothing yet says how much is needed.

    Where nothing opens that far, what opens farthest is a short step.
    """
    step = problem.search_step_mm
    step_steps = steps(2 * problem.window_mm if step is None else step)
    tried = max(problem.sign * pack_steps(trial) for trial in problem.trials)
    openest = tried + step_steps
    ranked: list[Found] = []
    flags: tuple[str, ...] = ()
    if problem.sign > 0 or openest <= 0:
        search = Search(problem, _worth_building(problem, openest), work)
        ranked, flags = _balanced(
            problem, search, lambda search, limit: _just_open(search, limit, problem, openest)
        )
    if not ranked:
        search = Search(problem, None if problem.sign > 0 else -tried, work)
        ranked, flags = _balanced(
            problem, search, lambda search, limit: _farthest_open(search, limit, problem, tried)
        )
        flags = ("short_step", *flags)
    if not ranked:
        return _answer(evidence, "none", (), ())
    choices = [_choice(problem, found, None, None) for found in ranked]
    return _answer(evidence, "over_shim", flags, choices)


def _farthest_open(
    search: Search, tolerance: int | None, problem: Problem, tried: int
) -> list[Found]:
    """The packs more open than any that was tried, most open first."""
    totals: Iterable[int]
    if problem.sign > 0:
        farthest = search.totals(tried // search.unit + 1, search.highest, around=search.highest)
        totals = reversed(farthest)
    else:
        totals = search.totals(0, -(tried // search.unit) - 1, around=0)
    return _in_order(search, tolerance, totals, lambda total: (total,))(SHOWN)


def _worth_building(problem: Problem, openest: int) -> int | None:
    """The highest total that over-shimming could need, in steps; None where nothing bounds it."""
    if problem.sign < 0:
        return -openest
    if problem.shared and problem.balance == "even":
        return None
    # Taking shims out of a higher pack one by one passes four totals on the way down to openest.
    every = [shim.thickness_mm for shim in problem.tray if shim.count]
    every += [shim for side in problem.latest.pack for shim in side]
    return openest + SHOWN * steps(max(every, default=0.0))


def _just_open(
    search: Search, tolerance: int | None, problem: Problem, openest: int
) -> list[Found]:
    totals: Iterable[int]
    if problem.sign > 0:
        least = -(-openest // search.unit)
        totals = search.totals(least, search.highest, around=least)
    else:
        most = -openest // search.unit
        totals = reversed(search.totals(0, most, around=most))
    return _in_order(search, tolerance, totals, lambda total: (total,))(SHOWN)


def _choice(problem: Problem, found: Found, predicted_mm: float | None, aim: _Aim | None) -> Choice:
    word = None
    if predicted_mm is not None and aim is not None:
        word = classify(predicted_mm, predicted_mm, aim.evidence.U_mm, problem.limits)
    now = problem.latest.pack
    return Choice(
        pack=found.pack[: problem.sides],
        add=_beyond(found.pack, now),
        remove=_beyond(now, found.pack),
        predicted_mm=predicted_mm,
        verdict=word,
    )


def _beyond(these: Pack, those: Pack) -> Pack:
    """The shims in these packs that those do not have, side by side."""
    extra: list[tuple[float, ...]] = []
    for here, there in zip(these, those, strict=False):
        left_over = Counter(map(steps, here)) - Counter(map(steps, there))
        extra.append(tuple(millimetres(t) for t in sorted(left_over.elements(), reverse=True)))
    return tuple(extra)


def to_buy(problem: Problem) -> Buy:
    """The shim of which one more, or one in the thickest one's place, would land on the aim."""
    evidence = weigh(problem)
    return (
        Buy(None, None)
        if evidence.c is None
        else _buy(problem, _Aim(problem, evidence, evidence.c))
    )


def _buy(problem: Problem, aim: _Aim) -> Buy:
    """What to buy: a shim to add, or a thinner one in place of the thickest fitted."""
    change = problem.sign * (aim.target - aim.play(pack_steps(problem.latest)))
    if change == 0:
        return Buy(None, None)
    if change < 0:
        change += max((steps(shim) for side in problem.latest.pack for shim in side), default=0)
    return Buy(_on(change, _METRIC_STEPS), _on(change, _INCH_STEPS))


def _on(thickness: Fraction, grid_steps: int) -> float | None:
    """The nearest thickness on a grid, halves down, in mm; None where that is no thickness."""
    whole = (thickness / grid_steps - Fraction(1, 2)).__ceil__()
    return millimetres(whole * grid_steps) if whole > 0 else None


def _answer(
    evidence: Evidence,
    kind: str,
    flags: tuple[str, ...],
    choices: Iterable[Choice],
    buy: Buy | None = None,
) -> ShimPlan:
    every: list[Choice | None] = [*choices]
    first, *others = every or [None]
    return ShimPlan(
        kind=kind,  # type: ignore[arg-type]
        U_mm=evidence.U_mm,
        flags=evidence.flags + flags,
        choice=first,
        alternatives=tuple(other for other in others if other is not None),
        buy=buy,
        disagree=evidence.disagree,
        contradicted=evidence.contradicted,
    )
