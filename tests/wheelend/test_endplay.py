"""End play from a dial, and the face's runout."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.circle import clock_angle
from wheelend.endplay import Pair, end_play, face_runout
from wheelend.errors import BadInput
from wheelend.verdict import Gauge, Limits

DIAL = Gauge(0.01)


@pytest.mark.parametrize(
    ("clock", "angle"), [("12", 0), ("3", 90), ("12:30", 15), ("11:59", 359.5)]
)
def test_clock_angles(clock: str, angle: float) -> None:
    assert clock_angle(clock) == angle


@pytest.mark.parametrize("clock", ["0", "13", "04", "4:60", "4:5", "noon", "", "4 "])
def test_what_is_no_clock(clock: str) -> None:
    with pytest.raises(BadInput, match="clock"):
        Pair(0, 0.1, clock)


def test_it_does_not_matter_which_way_the_needle_turns() -> None:
    assert end_play([Pair(0.2, 0.1)], DIAL).play_mm == pytest.approx(0.1)
    mixed = end_play([Pair(0.0, 0.1), Pair(0.1, 0.0)], DIAL)
    assert mixed.flags == ("mixed_direction",)


def test_scatter_is_flagged_past_three_steps_and_a_quarter_of_the_window() -> None:
    pairs = [Pair(0, 0.10), Pair(0, 0.14)]
    assert end_play(pairs, DIAL).flags == ("scattered",)
    assert end_play(pairs, DIAL, limits=Limits(0.0, 0.16)).flags == ()
    assert end_play(pairs, DIAL, limits=Limits(0.0, 0.15)).flags == ("scattered",)
    assert end_play([Pair(0, 0.10), Pair(0, 0.13)], DIAL).flags == ()


def test_a_turned_hub_needs_its_runout() -> None:
    unknown = end_play([Pair(0, 0.1, "12")], DIAL, turned=True, limits=Limits(0, 0.2))
    assert unknown.flags == ("runout_unknown",)
    known = end_play([Pair(0, 0.1)], DIAL, turned=True, runout_mm=0.12, limits=Limits(0, 0.2))
    assert known.verdict is not None
    assert (known.verdict.word, known.verdict.because) == ("undecided", "runout")


def test_runout_needs_three_places_well_apart() -> None:
    def pairs(*clocks: str) -> list[Pair]:
        return [Pair(0.01 * i, 1, clock) for i, clock in enumerate(clocks)]

    assert face_runout(pairs("12", "6")) is None
    assert face_runout(pairs("12", "1", "2")) is None
    assert face_runout(pairs("12", "12:00", "6", "6")) is None
    assert face_runout(pairs("12", "4", "8")) is not None
    assert face_runout(pairs("12", "5", "8")) is not None


@given(
    st.floats(0.001, 1),
    st.floats(0, 360),
    st.sampled_from([("12", "4", "8"), ("12", "3", "6", "9")]),
)
def test_a_wobbling_face_shows_its_whole_swing(
    swing: float, phase: float, clocks: tuple[str, ...]
) -> None:
    pairs = [
        Pair(swing / 2 * math.cos(math.radians(clock_angle(clock) - phase)), 5, clock)
        for clock in clocks
    ]
    assert face_runout(pairs) == pytest.approx(swing, rel=1e-6)


def test_no_pairs_and_a_negative_runout_are_refused() -> None:
    with pytest.raises(BadInput, match="pairs"):
        end_play([], DIAL)
    with pytest.raises(BadInput, match="runout"):
        end_play([Pair(0, 1)], DIAL, runout_mm=-0.1)
