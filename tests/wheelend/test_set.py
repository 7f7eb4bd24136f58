"""Nut angle, drag, recheck: the calculations, by what must hold of them whatever the numbers."""

import math
from datetime import date, timedelta
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.compare import Known
from wheelend.drag import DragTrial, Steps, next_spacer
from wheelend.errors import BadInput
from wheelend.nutangle import nut_angle
from wheelend.recheck import recheck
from wheelend.verdict import Limits

PITCHES = st.floats(0.5, 4)
ANGLES = st.floats(0, 360)


@given(PITCHES, ANGLES, st.floats(0.01, 0.5))
def test_turning_by_what_it_says_lands_on_the_aim(pitch: float, angle: float, aim: float) -> None:
    found = nut_angle(pitch, angle, aim_mm=aim)
    assert found.turn_deg is not None
    turned = angle + found.turn_deg
    if turned >= 0:
        assert math.isclose(nut_angle(pitch, turned).play_mm, aim, abs_tol=1e-9)


@given(PITCHES, ANGLES, st.floats(0, 1), st.floats(0.001, 0.05))
def test_what_was_measured_outranks_the_angle(
    pitch: float, angle: float, play: float, doubt: float
) -> None:
    limits = Limits(0.05, 0.30)
    found = nut_angle(pitch, angle, limits=limits, measured=Known(play, doubt))
    inside = play - doubt >= 0.05 and play + doubt <= 0.30
    assert (found.verdict == "within") == inside
    assert found.difference_mm == pytest.approx(abs(play - pitch * angle / 360))


def test_an_angle_below_nothing_and_a_thread_without_pitch_are_refused() -> None:
    with pytest.raises(BadInput, match="angle"):
        nut_angle(1.5, -1)
    with pytest.raises(BadInput, match="pitch"):
        nut_angle(0, 20)


@given(
    st.floats(-60, -5),
    st.floats(0.2, 2.5),
    st.floats(0.01, 0.3),
    st.sampled_from(["loosens", "tightens"]),
)
def test_trials_on_a_line_are_followed_until_it_is_inside(
    slope: float, start: float, swing: float, thicker: str
) -> None:
    """A pack that follows its line exactly is set, never given up, and never by more than may be dared."""
    sign = 1 if thicker == "loosens" else -1
    limits, steps = Limits(0.8, 1.4), Steps(thicker, 0.01, 0.05)  # type: ignore[arg-type]
    spacer, trials = 8.0, []
    for _ in range(40):
        middle = max(1.1 + (start - 1.1) + sign * slope * (spacer - 8.0), 0.0)
        trials.append(DragTrial(spacer, (middle - swing / 2, middle + swing / 2)))
        found = next_spacer(trials, limits, 0.01, steps)
        if found.basis == "keep":
            return
        assert found.change_mm is not None
        assert found.next_mm is not None
        assert abs(found.change_mm) <= 0.05 + 1e-9
        assert "wrong_way" not in found.flags
        spacer = found.next_mm
    raise AssertionError(trials)


def test_a_change_that_works_the_wrong_way_is_said_and_not_followed() -> None:
    trials = [DragTrial(8.0, (1.9, 2.1)), DragTrial(8.02, (2.2, 2.4))]
    found = next_spacer(trials, Limits(0.8, 1.4), 0.05, Steps("loosens", 0.02, 0.05))
    assert found.flags == ("wrong_way",)
    assert (found.basis, found.change_mm) == ("first_step", 0.02)


def test_of_one_spacer_the_latest_trial_counts() -> None:
    trials = [DragTrial(8.0, (2.9, 3.1)), DragTrial(8.02, (1.5, 1.7)), DragTrial(8.0, (1.9, 2.1))]
    found = next_spacer(trials, Limits(0.8, 1.4), 0.05, Steps("loosens", 0.02, 0.2))
    assert found.slope == pytest.approx(-20)


def test_a_first_step_beyond_the_largest_is_refused() -> None:
    with pytest.raises(BadInput, match="first_step"):
        Steps("loosens", 0.06, 0.05)


@given(st.integers(1, 400), st.integers(1, 200), st.integers(0, 170))
def test_a_recheck_is_due_by_the_earlier_of_day_and_usage(days: int, a_day: int, gone: int) -> None:
    begin = date(2031, 1, 1)
    today = begin + timedelta(gone)
    log = [(begin + timedelta(day), Fraction(a_day * day)) for day in range(0, gone + 1, 7)]
    found = recheck(begin, Fraction(0), log, today, every_days=days, every_usage=Fraction(3000))
    by_date = begin + timedelta(days)
    assert found.due_on <= by_date
    assert (found.by == "usage") == (found.due_on < by_date)
    if len(log) > 1:
        assert found.rate_per_day == a_day
        assert found.due_on == min(by_date, begin + timedelta(3000 // a_day))


def test_a_vehicle_that_stands_is_due_by_its_day_only() -> None:
    begin = date(2031, 1, 1)
    log = [(begin, Fraction(100)), (begin + timedelta(60), Fraction(100))]
    found = recheck(
        begin, Fraction(100), log, begin + timedelta(61), every_days=90, every_usage=Fraction(1)
    )
    assert (found.by, found.days_left) == ("date", 29)
    with pytest.raises(BadInput, match="every_days"):
        recheck(begin, Fraction(100), log, begin + timedelta(61), every_usage=Fraction(1))
