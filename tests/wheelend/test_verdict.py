"""Verdicts at their edges."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.errors import BadInput
from wheelend.verdict import Gauge, Limits, doubt, of_band, of_readings

DIAL = Gauge(0.01)
U_ONE = 2 * 0.01 / math.sqrt(12)


@pytest.mark.parametrize(
    ("value", "word"),
    [
        (0.05 + U_ONE, "within"), (0.15 - U_ONE, "within"), (0.05 + U_ONE - 1e-6, "undecided"),
        (0.15 + U_ONE, "undecided"), (0.15 + U_ONE + 1e-6, "above"), (0.05 - U_ONE - 1e-6, "below"),
        (0.10, "within"),
    ],
)  # fmt: skip
def test_the_doubt_guards_both_limits(value: float, word: str) -> None:
    assert of_readings([value], Limits(0.05, 0.15), DIAL).word == word


def test_one_sided_limits_only_look_that_way() -> None:
    assert of_readings([99], Limits(low=0.05), DIAL).word == "within"
    assert of_readings([-99], Limits(high=0.05), DIAL).word == "within"
    assert of_readings([99], Limits(high=0.05), DIAL).margin == pytest.approx(0.05 - 99)


def test_a_gauge_that_fills_the_window_can_never_say_within() -> None:
    verdict = of_readings([0.01], Limits(0.0, 4 * 0.01 / math.sqrt(12)), DIAL)
    assert (verdict.word, verdict.because) == ("undecided", "gauge_too_coarse")


def test_scatter_is_named_only_when_it_is_strictly_the_largest() -> None:
    # With r = 0.02 these three scatter exactly as much as the gauge's step leaves open.
    tied = of_readings([0.04, 0.05, 0.06], Limits(0.05, 1.0), Gauge(0.02))
    assert tied.because == "resolution"
    assert of_readings([0.03, 0.05, 0.07], Limits(0.05, 1.0), Gauge(0.02)).because == "scatter"


def test_two_readings_scatter_and_what_is_known_beforehand_is_pooled() -> None:
    assert doubt(DIAL, [0.5]).scatter == 0
    assert doubt(DIAL, [0.0, 1.0]).scatter == 0.25
    assert doubt(DIAL, [0.5], repeatability=0.2).scatter == pytest.approx(0.04)
    assert doubt(DIAL, [0.5, 0.5], repeatability=0.2).scatter == pytest.approx(4 / 5 * 0.04 / 2)
    assert doubt(DIAL, [0.0, 1.0, 2.0]).scatter == pytest.approx(1 / 3)


def test_a_band_is_within_only_with_both_ends() -> None:
    limits = Limits(0.8, 1.6)
    assert of_band((0.9, 1.5), limits, Gauge(0.05)).word == "within"
    verdict = of_band((0.9, 1.59), limits, Gauge(0.05))
    assert (verdict.word, verdict.because, verdict.mean) == ("undecided", "band", 1.245)


@pytest.mark.parametrize(
    ("make", "path"),
    [
        (Limits, "limits"), (lambda: Limits(0.2, 0.1), "limits"),
        (lambda: Gauge(0), "resolution"), (lambda: Gauge(0.01, -1), "calibration"),
        (lambda: of_band((2, 1), Limits(0, 1), DIAL), "band"),
        (lambda: of_readings([], Limits(0, 1), DIAL), "readings"),
    ],
)  # fmt: skip
def test_what_cannot_be_used_is_named(make: object, path: str) -> None:
    with pytest.raises(BadInput) as bad:
        make()  # type: ignore[operator]
    assert bad.value.path == path


lengths = st.floats(-1, 1).map(lambda x: round(x, 5))


@given(st.lists(lengths, min_size=1, max_size=6), lengths, st.floats(0, 1), st.floats(1e-4, 0.1))
def test_moving_everything_moves_nothing(
    readings: list[float], low: float, window: float, step: float
) -> None:
    here = of_readings(readings, Limits(low, low + window), Gauge(step))
    there = of_readings([r + 5 for r in readings], Limits(low + 5, low + window + 5), Gauge(step))
    assert pytest.approx(there.U) == here.U
    assert here.margin == pytest.approx(there.margin, abs=1e-9)


@given(st.lists(lengths, min_size=1, max_size=6), lengths, st.floats(0, 1), st.floats(1e-4, 0.1))
def test_a_coarser_gauge_never_decides_more(
    readings: list[float], low: float, window: float, step: float
) -> None:
    limits = Limits(low, low + window)
    fine, coarse = (
        of_readings(readings, limits, Gauge(step)),
        of_readings(readings, limits, Gauge(2 * step)),
    )
    assert coarse.word in (fine.word, "undecided")
