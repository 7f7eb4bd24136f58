"""The virtual wheel end is what it says, and the advice holds on it: few wheel ends here, many in the bench."""

from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.quantity import LENGTH, parse
from wheelend.simulation.conditions import STOCK, conditions
from wheelend.simulation.dial import DialStand, dial_stand
from wheelend.simulation.hand import slipped
from wheelend.simulation.truth import Fault, Tray, WheelEnd, in_other_unit
from wheelend.simulation.trying import Tally, advised, alone, tally

SOME = 60


def worked(name: str, count: int = SOME) -> Tally:
    return tally(advised(name, conditions()[name], "tests", range(count)))


def wheel_end(seed: int, fault: Fault | None = None) -> WheelEnd:
    tray = Tray(Random(seed), STOCK)
    return WheelEnd(-0.5, 1, tray, fault or Fault("none"))


def test_the_same_seed_gives_the_same_job() -> None:
    name, setup = "any fault", conditions()["any fault"]
    one, same, other = (advised(name, setup, seed, range(5)) for seed in ("a", "a", "b"))
    assert one == same
    assert one != other


def test_the_true_play_is_that_of_the_shims_as_they_are() -> None:
    end = wheel_end(1)
    end.fit(((0.5, 0.1),))
    true = sum(shim.true_mm for shim in end.fitted[0])
    assert end.play_mm == pytest.approx(-0.5 + true)
    assert end.play_mm != pytest.approx(0.1, abs=1e-6)


def test_shims_that_come_out_go_back_into_the_tray() -> None:
    end = wheel_end(2)
    before = end.tray.listed
    end.fit(((0.5, 0.1),))
    assert end.tray.listed != before
    end.fit(((),))
    assert end.tray.listed == before


@pytest.mark.parametrize("kind", ["not_home", "dirt", "torque"])
def test_a_fault_bends_the_play_of_its_trial_only(kind: str) -> None:
    fault = Fault(kind, 1, 0.08)  # type: ignore[arg-type]
    plays = []
    end = wheel_end(3, fault)
    for _ in range(3):
        end.fit(((0.5, 0.1),))
        plays.append(end.play_mm - sum(shim.true_mm for shim in end.fitted[0]))
    assert plays[0] == pytest.approx(plays[2]) == pytest.approx(-0.5)
    assert abs(plays[1] - plays[0]) == pytest.approx(0.08)


def test_a_shim_that_sticks_is_in_the_pack_and_not_on_the_list() -> None:
    end = wheel_end(4, Fault("miscounted", 1))
    end.fit(((0.5,),))
    listed = end.fit(((0.5, 0.1),))
    assert listed == ((0.5, 0.1),)
    assert end.really_in == ((0.5, 0.1, 0.1),)
    end.measured()
    assert end.listed == end.really_in


def test_a_shim_in_the_other_unit_is_written_as_what_it_is_not() -> None:
    end = wheel_end(5, Fault("mixed_units", 1))
    end.fit(((0.5,),))
    listed = end.fit(((0.5, 0.1),))
    assert listed == ((0.5, in_other_unit(0.1)),) == ((0.5, 0.254),)
    assert end.really_in == ((0.5, 0.1),)


@given(st.floats(0, 0.5), st.sampled_from([0.01, 0.005, 0.002, 0.001]), st.integers(0, 10**6))
def test_a_dial_shows_the_play_to_its_step(play: float, step: float, seed: int) -> None:
    stand = dial_stand(Random(seed), step)
    shown = stand.pulled_out("12", play) - stand.pushed_in("12")
    assert abs(shown - play) < 2 * step + 0.001
    assert abs(shown / step - round(shown / step)) < 1e-6


def test_a_face_that_wobbles_is_in_a_reading_only_where_the_hub_was_turned() -> None:
    stand = DialStand(0.001, wobble_mm=0.1)
    straight = stand.pulled_out("12", 0.1) - stand.pushed_in("12")
    turned = stand.pulled_out("12", 0.1, turned_deg=180) - stand.pushed_in("12")
    assert straight == pytest.approx(0.1)
    assert turned == pytest.approx(0.0, abs=1e-9)


@given(st.integers(0, 10**6), st.floats(0.02, 0.4))
def test_a_slip_is_another_number_in_a_spelling_that_can_be_read(seed: int, value: float) -> None:
    typed = f"{value:.2f} mm"
    made = slipped(Random(seed), typed, "0.00 mm")
    assert parse(made, LENGTH) >= 0
    assert made != typed


@pytest.mark.parametrize("name", ["clean, 0.01 mm dial", "clean, 0.001 mm dial"])
def test_clean_work_is_set_without_alarm_in_hardly_more_trials_than_possible(name: str) -> None:
    found = worked(name)
    assert found.set_ == 1
    assert found.over_least <= 1.06
    assert found.wrong == 0
    assert found.alarms <= 1 / SOME
    assert found.dead_ends == 0


def test_ends_of_an_axle_cry_no_wolf() -> None:
    found = worked("clean, ends of an axle, 0.002 mm dial", 25)
    assert (found.set_, found.wrong) == (1, 0)
    assert found.alarms <= 1 / 25


@pytest.mark.parametrize("name", ["a slip, 3 places", "a slip, 1 place"])
def test_a_slip_is_never_believed(name: str) -> None:
    found = worked(name)
    assert found.set_ == 1
    assert found.wrong == 0
    assert found.proven_wrong == 0
    assert found.slips_named >= 0.6


def test_bound_with_a_thin_pack_where_thicker_tightens_gets_out() -> None:
    found = worked("bound, thicker tightens, thin pack")
    assert found.set_ >= 0.88
    assert found.dead_ends == 0


def test_a_window_of_two_steps_is_never_a_dead_end() -> None:
    found = worked("window of two dial steps")
    assert found.set_ + found.told == 1
    assert found.wrong <= 1 / SOME
    assert found.dead_ends == 0


def test_the_true_cause_comes_first_or_second() -> None:
    found = worked("any fault", 3 * SOME)
    assert found.named > SOME
    assert found.first_right >= 0.7
    assert found.among_two >= 0.88
    assert found.dead_ends == 0


def test_the_advice_is_less_often_wrong_than_a_head_and_quicker_than_shim_by_shim() -> None:
    name = "clean, 0.01 mm dial"
    setup = conditions()[name]
    ours = worked(name, 150)
    head, hands = (
        tally(alone(name, setup, "tests", range(150), way))
        for way in ("hand arithmetic", "shim by shim")
    )
    assert ours.wrong < head.wrong < hands.wrong
    assert ours.trials < hands.trials
