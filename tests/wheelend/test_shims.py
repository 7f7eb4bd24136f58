"""The shim planner against every pack that could be built."""

import itertools
from collections import Counter
from collections.abc import Iterator
from fractions import Fraction
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wheelend.errors import BadInput
from wheelend.shims import Pack, Problem, TrayShim, Trial, plan, planner, weigh
from wheelend.shims import work as shim_work
from wheelend.shims.problem import steps
from wheelend.shims.work import MOST_WORK, Work
from wheelend.verdict import Limits

LIMITS = Limits(0.08, 0.18)


def problem(**changes: Any) -> Problem:
    usual: dict[str, Any] = {
        "effect": "opens", "sides": 1, "trials": (Trial(((0.5,),), "play", 0.03),),
        "tray": (TrayShim(0.05, 2), TrayShim(0.1, 3), TrayShim(0.2, 2)), "limits": LIMITS,
        "resolution_mm": 0.01,
    }  # fmt: skip
    return Problem(**{**usual, **changes})


# --- the reference: try every pack -----------------------------------------------------------


def every_pack(case: Problem) -> Iterator[Pack]:
    """Every pack from tray and latest pack, side by side, within the stock."""
    stock: Counter[float] = Counter()
    for shim in case.tray:
        stock[shim.thickness_mm] += shim.count
    for side in case.latest.pack:
        stock.update(side)
    per_side = list(_side_packs(stock, case.max_shims))
    frozen = [
        case.sides == 2 and case.balance == "as_found" and any(case.latest.pack) and not side
        for side in case.latest.pack
    ]
    for sides in itertools.product(per_side, repeat=case.sides):
        used: Counter[float] = Counter()
        for side in sides:
            used.update(side)
        stays = all(not side for side, fixed in zip(sides, frozen, strict=True) if fixed)
        if stays and all(used[t] <= stock[t] for t in used):
            yield sides


def _side_packs(stock: Counter[float], most: int) -> Iterator[tuple[float, ...]]:
    for count in range(most + 1):
        for combination in itertools.combinations_with_replacement(sorted(stock), count):
            if all(n <= stock[t] for t, n in Counter(combination).items()):
                yield combination


def cost(case: Problem, sides: Pack) -> tuple[int, int, int]:
    """Changes, shims, unevenness."""
    changes = 0
    for new, old in zip(sides, case.latest.pack, strict=True):
        changes += sum(((Counter(new) - Counter(old)) + (Counter(old) - Counter(new))).values())
    totals = [sum(map(steps, side)) for side in sides]
    return changes, sum(map(len, sides)), max(totals) - min(totals) if len(totals) == 2 else 0


def reference(case: Problem) -> tuple[str, Any]:
    """The kind, and the key of the best plan, by trying everything."""
    evidence = weigh(case)
    packs = list(every_pack(case))
    if case.sides == 2 and case.balance == "even":
        tolerance = case.balance_tolerance_mm
        window = steps(case.window_mm if tolerance is None else tolerance)
        even = [sides for sides in packs if cost(case, sides)[2] <= window]
    else:
        even = packs
    for some, short in ((even, False), (packs, False), (even, True), (packs, True)):
        keys = [key for sides in some if (key := _key(case, evidence.c, sides, short)) is not None]
        if keys:
            best = min(keys)
            return ("over_shim" if evidence.c is None else "keep" if best[2] == 0 else "fit"), best
    return "none", None


def _key(
    case: Problem, c: Fraction | None, sides: Pack, short: bool = False
) -> tuple[Any, ...] | None:
    total = sum(steps(shim) for side in sides for shim in side)
    changes, shims, uneven = cost(case, sides)
    if c is None:
        tried = max(case.sign * sum(steps(s) for side in t.pack for s in side) for t in case.trials)
        step = case.search_step_mm or 2 * case.window_mm
        beyond = case.sign * total - tried - steps(step)
        if short:
            return (1, -beyond, changes, shims, uneven) if case.sign * total > tried else None
        return (0, beyond, changes, shims, uneven) if beyond >= 0 else None
    low, high = steps(case.limits.lowest), steps(case.limits.highest)
    play = c + case.sign * total
    if not low <= play <= high:
        return None
    distance, past = _from_aim(case, play)
    reach = max(Fraction(steps(case.resolution_mm)), Fraction(high - low, 10))
    if distance <= reach and not past:
        return (0, 0, changes, shims, distance, uneven)
    return (1, distance, changes, shims, distance, uneven)


def _from_aim(case: Problem, play: Fraction) -> tuple[Fraction, bool]:
    low, high = steps(case.limits.lowest), steps(case.limits.highest)
    aim: Fraction = Fraction(low + high, 2)
    side = 0
    U = Fraction(weigh(case).U_mm) * 100_000
    if case.aim in ("low", "high") and low + U <= high - U:
        side = -1 if case.aim == "low" else 1
        aim = low + U if case.aim == "low" else high - U
    elif not isinstance(case.aim, str):
        aim = Fraction(min(max(steps(case.aim), low), high))
    return abs(play - aim), (play - aim) * side > Fraction(1, 10)


thicknesses = st.sampled_from([0.05, 0.1, 0.0508, 0.127, 0.2, 0.15, 0.03])
side_packs = st.lists(thicknesses, max_size=2).map(tuple)
trays = st.lists(st.builds(TrayShim, thicknesses, st.integers(0, 2)), max_size=4).map(tuple)
results = st.one_of(
    st.tuples(st.just("play"), st.integers(0, 40).map(lambda x: x / 100)),
    st.tuples(st.sampled_from(["bound", "no_play"]), st.none()),
)


@st.composite
def problems(draw: Any) -> Problem:
    sides = draw(st.sampled_from([1, 2]))
    packs = st.tuples(*[side_packs] * sides)
    trials = []
    for pack in draw(st.lists(packs, min_size=1, max_size=3)):
        outcome, play = draw(results)
        trials.append(Trial(pack, outcome, play))
    low = draw(st.integers(0, 15)) / 100
    return Problem(
        effect=draw(st.sampled_from(["opens", "closes"])),
        sides=sides,
        trials=tuple(trials),
        tray=draw(trays),
        limits=Limits(low, low + draw(st.integers(1, 12)) / 100),
        resolution_mm=draw(st.sampled_from([0.01, 0.002])),
        aim=draw(st.sampled_from(["middle", "low", "high", 0.1])),
        max_shims=draw(st.integers(1, 3)),
        balance=draw(st.sampled_from(["even", "as_found"])),
        balance_tolerance_mm=draw(st.sampled_from([None, 0.0, 0.05])),
    )


@settings(max_examples=250, deadline=None)
@given(problems())
def test_no_pack_is_better_than_the_plan(case: Problem) -> None:
    answer = plan(case)
    kind, best = reference(case)
    assert answer.kind == kind
    if answer.choice is None:
        assert best is None
        return
    short = "short_step" in answer.flags
    assert _key(case, weigh(case).c, answer.choice.pack, short) == best
    tried = [answer.choice, *answer.alternatives]
    keys = [_key(case, weigh(case).c, choice.pack, short) for choice in tried]
    assert keys == sorted(keys)  # type: ignore[type-var]
    totals = [sum(steps(s) for side in choice.pack for s in side) for choice in tried]
    assert len(set(totals)) == len(totals)


@settings(max_examples=150, deadline=None)
@given(problems())
def test_what_is_added_and_taken_out_makes_the_pack(case: Problem) -> None:
    answer = plan(case)
    for choice in (answer.choice, *answer.alternatives):
        if choice is None:
            continue
        sides = zip(choice.pack, case.latest.pack, choice.add, choice.remove, strict=True)
        for new, old, added, removed in sides:
            assert Counter(map(steps, new)) + Counter(map(steps, removed)) == Counter(
                map(steps, old)
            ) + Counter(map(steps, added))


# --- rules one by one -------------------------------------------------------------------------


def test_trials_that_agree_are_averaged() -> None:
    trials = (Trial(((0.5,),), "play", 0.03), Trial(((0.6,),), "play", 0.14))
    evidence = weigh(problem(trials=trials))
    assert evidence.c_mm == pytest.approx(-0.465)
    assert evidence.flags == ()


def test_trials_that_do_not_add_up_leave_the_latest_and_a_larger_doubt() -> None:
    trials = (Trial(((0.5,),), "play", 0.03), Trial(((0.6,),), "play", 0.20))
    evidence = weigh(problem(trials=trials))
    assert (evidence.flags, evidence.disagree) == (("does_not_add_up",), (0, 1))
    assert evidence.c_mm == pytest.approx(-0.40)
    assert evidence.U_mm == pytest.approx(weigh(problem()).U_mm + 0.035)


def test_one_pack_read_twice_has_no_shim_to_blame() -> None:
    def flags(second: tuple[float, ...], play: float) -> tuple[str, ...]:
        trials = (Trial(((0.5,),), "play", 0.03), Trial((second,), "play", play))
        return weigh(problem(trials=trials)).flags

    assert flags((0.5,), 0.055) == ("does_not_add_up",)
    assert flags((0.4, 0.1), 0.055) == ()


def test_a_bound_trial_that_should_have_had_play_is_a_contradiction() -> None:
    trials = (Trial(((0.6,),), "bound"), Trial(((0.5,),), "play", 0.03))
    answer = plan(problem(trials=trials))
    assert (answer.flags, answer.contradicted) == (("contradiction",), (0,))


def test_keep_when_the_pack_is_near_the_aim() -> None:
    answer = plan(problem(trials=(Trial(((0.5,),), "play", 0.13),)))
    assert (answer.kind, answer.choice and answer.choice.changes) == ("keep", 0)


def test_a_bound_trial_opens_by_a_search_step_and_no_more_than_needed() -> None:
    answer = plan(problem(trials=(Trial(((0.5,),), "bound"),)))
    assert answer.kind == "over_shim"
    assert answer.choice is not None
    assert sum(answer.choice.pack[0]) == pytest.approx(0.7)
    assert answer.choice.predicted_mm is None


def test_where_a_thicker_pack_closes_it_comes_off() -> None:
    trials = (Trial(((0.2, 0.1, 0.1),), "bound"),)
    answer = plan(problem(effect="closes", trials=trials, search_step_mm=0.15))
    assert answer.choice is not None
    assert sum(answer.choice.pack[0]) == pytest.approx(0.25)


@pytest.mark.parametrize(
    ("pack", "play", "metric", "inch"),
    [((0.5,), 0.0, 0.13, 0.127), ((1.0,), 0.5, 0.63, 0.635), ((0.1,), 0.5, None, None)],
)
def test_what_to_buy(pack: tuple[float, ...], play: float, metric: float, inch: float) -> None:
    answer = plan(problem(trials=(Trial((pack,), "play", play),), tray=(), max_shims=1))
    if metric is None:
        assert answer.kind == "none" or answer.choice is not None
    if answer.kind == "none":
        assert answer.buy is not None
        assert (answer.buy.metric_mm, answer.buy.inch_mm) == (metric, inch)


def test_two_sides_share_one_stock() -> None:
    trials = (Trial(((), ()), "play", 0.0),)
    answer = plan(problem(sides=2, trials=trials, tray=(TrayShim(0.06, 1), TrayShim(0.07, 1))))
    assert answer.choice is not None
    assert sorted(sum(answer.choice.pack, ())) == [0.06, 0.07]


def test_unbalanced_is_flagged_where_nothing_even_lands_inside() -> None:
    trials = (Trial(((), ()), "play", 0.0),)
    case = problem(sides=2, trials=trials, tray=(TrayShim(0.13, 1),), balance_tolerance_mm=0.0)
    assert plan(case).flags == ("unbalanced",)


def test_the_heavy_case_is_exact_and_done() -> None:
    tray = tuple(TrayShim(round(0.05 * i, 2), 10) for i in range(1, 11)) + tuple(
        TrayShim(round(0.0254 * i, 4), 10) for i in range(1, 11)
    )
    trials = (Trial(((0.5, 0.2, 0.1), (0.5, 0.2, 0.1)), "play", 0.9),)
    answer = plan(problem(sides=2, trials=trials, tray=tray))
    assert answer.kind == "fit"
    assert answer.choice is not None
    assert answer.choice.changes == 4
    assert len(answer.alternatives) == 3


ODD = tuple(TrayShim(t, 10) for t in (0.05001, 0.10003, 0.25007, 0.50011, 0.99991))


@pytest.mark.parametrize(
    "changes",
    [
        {"sides": 2, "trials": (Trial(((10.0,), (10.0,)), "play", 5.0),), "tray": ODD},
        {"sides": 2, "trials": (Trial(((10.0,), (10.0,)), "bound"),), "tray": ODD},
        {"sides": 2, "trials": (Trial(((0.5,), (0.5,)), "play", 0.02),), "tray": ODD,
         "limits": Limits(0.0, 20.0)},
        {"sides": 2, "trials": (Trial(((20.0,), (20.0,)), "play", 19.0),), "max_shims": 50,
         "tray": (TrayShim(0.05003, 10), TrayShim(20.0, 10))},
        {"tray": tuple(TrayShim(i / 1000, 1) for i in range(1, 1001))},
    ],
)  # fmt: skip
def test_a_slipped_decimal_ends_at_the_bound_and_says_so(changes: dict[str, Any]) -> None:
    case = problem(**changes)
    work = Work()
    answer = planner._planned(case, weigh(case), work)
    assert work.cut
    # Nothing goes on for long after the bound: what overshoots is one total's share of it.
    assert work.left > -MOST_WORK
    assert plan(case).flags == (*answer.flags, "cut")


def test_what_a_bench_has_is_never_cut() -> None:
    measured = (0.051, 0.102, 0.153, 0.201, 0.251, 0.299, 0.402, 0.501, 1.001)
    tray = tuple(TrayShim(t, 10) for t in measured)
    pack = ((0.501, 0.102), (0.501,))
    for trial in (Trial(pack, "play", 0.02), Trial(pack, "bound"), Trial(pack, "no_play")):
        answer = plan(problem(sides=2, trials=(trial,), tray=tray, resolution_mm=0.001))
        assert answer.choice is not None
        assert "cut" not in answer.flags


def test_a_plan_that_was_cut_still_lands_inside(monkeypatch: pytest.MonkeyPatch) -> None:
    case = problem(sides=2, trials=(Trial(((0.5,), (0.5,)), "play", 0.02),))
    whole = plan(case)
    answers = []
    for most in range(0, 400_000, 5_000):
        monkeypatch.setattr(shim_work, "MOST_WORK", most)
        answers.append(plan(case))
    assert {answer.flags for answer in answers} == {("cut",), ()}
    assert answers[-1] == whole
    for choice in (answer.choice for answer in answers if answer.choice):
        assert LIMITS.lowest <= choice.predicted_mm <= LIMITS.highest


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"trials": ()}, "trials"), ({"sides": 3}, "sides"), ({"sides": 2}, "trials"),
        ({"limits": Limits(low=0.1)}, "limits"), ({"limits": Limits(0.1, 0.1)}, "search_step"),
        ({"resolution_mm": 0}, "resolution"), ({"max_shims": 0}, "max_shims"),
        ({"balance_tolerance_mm": -1}, "balance_tolerance"), ({"search_step_mm": 0}, "search_step"),
        ({"pack_resolution_mm": -1}, "pack_resolution"),
    ],
)  # fmt: skip
def test_what_cannot_be_planned_is_named(changes: dict[str, Any], path: str) -> None:
    with pytest.raises(BadInput) as bad:
        problem(**changes)
    assert bad.value.path == path
