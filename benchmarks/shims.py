"""The shim planner against brute force on small trays and against CP-SAT on large ones.

    ./zesty bench shims

Each pair solves the same case in the same run and must find the same best plan, or both find that
there is none. Only cases that have an answer are timed. Printed are both times and their ratio: times
depend on the machine, the ratio much less.
"""

import itertools
import math
import random
import statistics
import time
from collections import Counter
from collections.abc import Callable, Iterator
from fractions import Fraction
from typing import Any

from ortools.sat.python import cp_model

from wheelend.shims import Pack, Problem, TrayShim, Trial, plan, weigh
from wheelend.shims.problem import steps
from wheelend.verdict import Limits

SMALL, LARGE = 12, 4
PATIENCE_S = 10
"""What CP-SAT gets for each goal."""
Best = tuple[int, int, Fraction, int] | None
"""Changes, shims, distance from the aim, unevenness of the best near plan; None without one."""


class GaveUp(Exception):
    """The rival ran out of patience."""


def case(rng: random.Random, kinds: int, count: int, most: int) -> Problem:
    """A two-sided case with inch and metric shims of which some pack lands near the aim."""
    metric = [round(0.05 * i, 2) for i in range(1, 21)]
    inch = [round(0.0254 * i, 4) for i in range(2, 22)]
    tray = tuple(TrayShim(t, count) for t in rng.sample(sorted({*metric, *inch}), kinds))
    pack = tuple(tuple(shim.thickness_mm for shim in rng.sample(tray, min(2, most))) for _ in "lr")
    play = rng.randint(25, 90) / 100
    return Problem(
        "opens", 2, (Trial(pack, "play", play),), tray, Limits(0.08, 0.18), 0.01, max_shims=most
    )


def by_planner(problem: Problem) -> Best:
    choice = plan(problem).choice
    return None if choice is None else rank(problem, choice.pack)


def by_brute_force(problem: Problem) -> Best:
    ranked = (rank(problem, sides) for sides in every_pack(problem))
    return min((found for found in ranked if found is not None), default=None)


def every_pack(problem: Problem) -> Iterator[Pack]:
    stock = stock_of(problem)
    sides = [
        chosen
        for count in range(problem.max_shims + 1)
        for chosen in itertools.combinations_with_replacement(sorted(stock), count)
    ]
    for both in itertools.product(sides, repeat=2):
        used = Counter(itertools.chain(*both))
        if all(used[t] <= stock[t] for t in used):
            yield both


def stock_of(problem: Problem) -> Counter[float]:
    stock: Counter[float] = Counter()
    for shim in problem.tray:
        stock[shim.thickness_mm] += shim.count
    for side in problem.latest.pack:
        stock.update(side)
    return stock


def bounds(problem: Problem) -> tuple[Fraction, Fraction, int]:
    """The constant, the aim and how near is near, in 10 nm steps."""
    c = weigh(problem).c
    assert c is not None
    low, high = steps(problem.limits.lowest), steps(problem.limits.highest)
    return c, Fraction(low + high, 2), max(steps(problem.resolution_mm), (high - low) // 10)


def rank(problem: Problem, sides: Pack) -> Best:
    """What a pack costs, or None where it is not near the aim or not even."""
    c, aim, reach = bounds(problem)
    totals = [sum(map(steps, side)) for side in sides]
    off, uneven = abs(c + sum(totals) - aim), abs(totals[0] - totals[1])
    if off > reach or uneven > steps(problem.window_mm):
        return None
    changes = 0
    for new, old in zip(map(Counter, sides), map(Counter, problem.latest.pack), strict=True):
        changes += ((new - old) + (old - new)).total()
    return changes, sum(map(len, sides)), off, uneven


def by_cp_sat(problem: Problem) -> Best:
    """The same, goal after goal, with OR-Tools' CP-SAT on one core."""
    model = cp_model.CpModel()
    stock = stock_of(problem)
    c, aim, reach = bounds(problem)
    counts = [
        {t: model.new_int_var(0, min(stock[t], problem.max_shims), f"{side}{t}") for t in stock}
        for side in "lr"
    ]
    changes = []
    for here, old in zip(counts, problem.latest.pack, strict=True):
        now = Counter(old)
        model.add(sum(here.values()) <= problem.max_shims)
        for t, number in here.items():
            changes.append(absolute(model, number - now[t], 20))
    for t in stock:
        model.add(counts[0][t] + counts[1][t] <= stock[t])
    # In units of the common divisor, as the planner has it: large coefficients slow CP-SAT down.
    unit = math.gcd(*map(steps, stock))
    totals = [sum(steps(t) // unit * number for t, number in here.items()) for here in counts]
    total = model.new_int_var(0, 10**6, "total")
    model.add(total == totals[0] + totals[1])
    twice = absolute(model, 2 * unit * total + int(2 * (c - aim)), 10**9)
    apart = absolute(model, totals[0] - totals[1], 10**6)
    model.add(twice <= 2 * reach)
    model.add(apart <= steps(problem.window_mm) // unit)
    shims = sum(number for here in counts for number in here.values())
    found = goal_after_goal(model, [sum(changes), shims, twice, apart])
    return None if found is None else (found[0], found[1], Fraction(found[2], 2), found[3] * unit)


def absolute(model: cp_model.CpModel, expression: Any, most: int) -> Any:
    """A variable that is the expression's absolute value."""
    value = model.new_int_var(0, most, "")
    model.add_abs_equality(value, expression)
    return value


def goal_after_goal(model: cp_model.CpModel, goals: list[Any]) -> list[int] | None:
    """Minimise the goals in their order, each kept at its best; None where nothing fits."""
    found = []
    for goal in goals:
        solver = cp_model.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.max_time_in_seconds = PATIENCE_S
        model.minimize(goal)
        answer = solver.solve(model)
        if answer == cp_model.INFEASIBLE:
            return None
        if answer != cp_model.OPTIMAL:
            raise GaveUp
        best = round(solver.objective_value)
        model.add(goal == best)
        found.append(best)
    return found


def timed(solve: Callable[[Problem], Best], problem: Problem) -> tuple[float, Best]:
    start = time.perf_counter()
    found = solve(problem)
    return time.perf_counter() - start, found


def compare(
    name: str, cases: Iterator[Problem], count: int, rival: Callable[[Problem], Best]
) -> None:
    """Solve cases both ways until so many had an answer; print the medians and their ratio."""
    ours, theirs, none, gave_up = [], [], 0, 0
    while len(ours) < count:
        problem = next(cases)
        spent, best = timed(by_planner, problem)
        try:
            rival_spent, rival_best = timed(rival, problem)
        except GaveUp:
            gave_up += 1
            continue
        assert best == rival_best, (problem, best, rival_best)
        if best is None:
            none += 1
            continue
        ours.append(spent)
        theirs.append(rival_spent)
    us, them = statistics.median(ours), statistics.median(theirs)
    print(
        f"{name}: planner {1000 * us:.1f} ms (worst {1000 * max(ours):.1f}), rival {1000 * them:.1f} ms "
        f"(worst {1000 * max(theirs):.1f}); {them / us:.0f} times; {count} cases, the same plan each; "
        f"{none} more where both find none, {gave_up} where the rival gave up"
    )


def main() -> None:
    rng = random.Random(2026)
    small = (case(rng, kinds=4, count=2, most=3) for _ in itertools.count())
    large = (case(rng, kinds=20, count=10, most=8) for _ in itertools.count())
    compare("4 thicknesses, 2 of each, two sides, brute force", small, SMALL, by_brute_force)
    compare("20 thicknesses, 10 of each, two sides, CP-SAT", large, LARGE, by_cp_sat)


if __name__ == "__main__":
    main()
