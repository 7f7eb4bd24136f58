"""Seating, wrenches, bolt circles, stand-out and what hands feel."""

from datetime import date
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.bolts import bolt_sequence, star_order
from wheelend.errors import BadInput
from wheelend.feel import at_hands, smallest_felt
from wheelend.seating import seating
from wheelend.standout import StackedPart, stand_out
from wheelend.verdict import Limits
from wheelend.wrench import Adaptor, Wrench, wrench_setting


@pytest.mark.parametrize(
    ("moves", "state"),
    [
        ([20], "repeat"), ([2], "seated"), ([20, 22], "repeat"), ([20, 22.1], "not_settling"),
        ([20, 30, 1], "seated"), ([9, 8, 7, 6, 5, 4], "repeat"), ([9, 8, 7, 6, 5, 4, 3], "not_settling"),
    ],
)  # fmt: skip
def test_seating(moves: list[float], state: str) -> None:
    found = seating(moves)
    assert (found.state, found.repeats) == (state, len(moves))


@given(st.floats(1, 500), st.floats(100, 900), st.floats(0, 300), st.floats(0, 180))
def test_the_moment_at_the_hand_is_the_moment_at_the_bolt(
    target: float, length: float, offset: float, angle: float
) -> None:
    try:
        adaptor = Adaptor(length, offset, angle)
    except BadInput:
        return
    setting = wrench_setting(target, Wrench(adaptor=adaptor)).setting_N_m
    assert setting / length * adaptor.arm_mm == pytest.approx(target)


@pytest.mark.parametrize(
    ("wrench", "flags"),
    [
        (Wrench(40, 200), ()), (Wrench(130, 200), ("below_range",)), (Wrench(0, 601), ("below_range",)),
        (Wrench(0, 600), ()), (Wrench(10, 100), ("above_range",)),
        (Wrench(10, 100, multiplier=4), ()), (Wrench(lengthened=True), ("lengthened_handle",)),
        (Wrench(cycles=5000), ("calibration_due",)), (Wrench(cycles=4999), ()),
        (Wrench(calibrated_on=date(2025, 3, 1), today=date(2026, 2, 28)), ()),
        (Wrench(calibrated_on=date(2025, 3, 1), today=date(2026, 3, 1)), ("calibration_due",)),
        (Wrench(calibrated_on=date(2024, 2, 29), today=date(2025, 2, 28)), ()),
        (Wrench(calibrated_on=date(2024, 2, 29), today=date(2025, 3, 1)), ("calibration_due",)),
    ],
)  # fmt: skip
def test_whether_a_wrench_is_fit(wrench: Wrench, flags: tuple[str, ...]) -> None:
    assert wrench_setting(120, wrench).flags == flags


def test_what_will_be_reached_against_the_limits() -> None:
    assert wrench_setting(100, Wrench(), Limits(96, 104)).verdict == "within"
    assert wrench_setting(100, Wrench(), Limits(97, 104)).verdict == "undecided"
    assert wrench_setting(100, Wrench(), Limits(105, 200)).verdict == "below"


@given(st.integers(2, 40))
def test_every_bolt_comes_once_and_the_second_is_across(bolts: int) -> None:
    order = star_order(bolts)
    assert sorted(order) == list(range(1, bolts + 1))
    assert order[:2] == (1, bolts // 2 + 1)


def test_the_passes_rise_and_end_with_a_round() -> None:
    passes = bolt_sequence(6, 100, [0.4, 1])
    assert [(one.torque_N_m, one.order[:3]) for one in passes] == [
        (40.0, (1, 4, 2)), (100.0, (1, 4, 2)), (100.0, (1, 2, 3)),
    ]  # fmt: skip
    assert len(bolt_sequence(6, 100, [1], last_round=False)) == 1


PARTS = [StackedPart("seal", 9, 8.2), StackedPart("spacer", 2.5), StackedPart("ring", 17)]


def test_what_explains_a_stack_that_stands_wrong() -> None:
    def explained(measured: float) -> list[Any]:
        found = stand_out(PARTS, 28.3, 0.02, measured_mm=measured)
        return [one.reversed or one.missing for one in found.explanations]

    assert explained(0.2) == []
    assert explained(-2.3) == [("spacer",)]
    assert explained(-11.3) == [("seal", "spacer")]
    assert explained(-0.6) == ["seal"]


def test_too_far_out_and_nothing_explains_it() -> None:
    found = stand_out(PARTS, 28.3, 0.02, measured_mm=0.5)
    assert (found.flags, found.explanations) == (("not_home_or_extra_part",), ())


def test_blades_that_go_and_blades_that_do_not() -> None:
    limits = Limits(0.1, 0.3)
    go = stand_out(PARTS, 28.3, 0.02, feelers_mm=[0.1, 0.1], limits=limits)
    assert (go.measured_mm, go.verdict) == (0.2, "within")
    both = stand_out(PARTS, 28.3, 0.02, feelers_mm=[0.2], no_go_mm=[0.35], limits=limits)
    assert (both.measured_mm, both.verdict) == (pytest.approx(0.275), "undecided")


@given(st.floats(50, 800), st.floats(10, 300), st.floats(5, 40))
def test_the_smallest_felt_is_the_threshold_at_the_hands(
    radius: float, spread: float, angle: float
) -> None:
    assert at_hands(radius, spread, angle, smallest_felt(radius, spread, angle)) == pytest.approx(
        0.25
    )


@pytest.mark.parametrize(
    ("make", "path"),
    [
        (lambda: seating([]), "moves"), (lambda: seating([-1]), "moves"),
        (lambda: seating([1], most=0), "most"),
        (lambda: wrench_setting(0, Wrench()), "target"), (lambda: Wrench(20, 10), "range"),
        (lambda: Wrench(multiplier=0.5), "multiplier"), (lambda: Wrench(accuracy=1), "accuracy"),
        (lambda: Wrench(today=date(2026, 1, 1)), "calibrated_on"),
        (lambda: Adaptor(100, 200, 180), "adaptor.offset"), (lambda: Adaptor(0, 1), "adaptor.wrench_length"),
        (lambda: star_order(1), "bolts"), (lambda: bolt_sequence(4, 0, [1]), "torque"),
        (lambda: bolt_sequence(4, 1, [0.5]), "stages"), (lambda: bolt_sequence(4, 1, [0.5, 0.4, 1]), "stages"),
        (lambda: bolt_sequence(4, 1, []), "stages"), (lambda: stand_out(PARTS, 1, 1), "measured"),
        (lambda: stand_out(PARTS, 1, 1, measured_mm=1, feelers_mm=[1]), "measured"),
        (lambda: stand_out(PARTS, 1, 1, measured_mm=1, no_go_mm=[1]), "no_go"),
        (lambda: stand_out(PARTS, 1, 1, feelers_mm=[1], no_go_mm=[1]), "no_go"),
        (lambda: at_hands(0, 1, 1, 1), "radius"), (lambda: at_hands(1, 1, 90, 1), "contact_angle"),
        (lambda: at_hands(1, 1, 10, -1), "play"), (lambda: smallest_felt(1, 1, 10, 0), "threshold"),
    ],
)  # fmt: skip
def test_what_cannot_be_used_is_named(make: Any, path: str) -> None:
    with pytest.raises(BadInput) as bad:
        make()
    assert bad.value.path == path
