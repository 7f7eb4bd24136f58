"""Typed quantities: every spelling of the contract, exactly, and nothing else."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.errors import BadInput
from wheelend.quantity import ANGLE, FORCE, LENGTH, TORQUE, USAGE, Dimension, parse, unit_of


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("0.05 mm", "0.05"), ("0.05mm", "0.05"), (".1 mm", "0.1"), ("1e-3 mm", "0.001"),
        ("2 cm", "20"), ("0,18 mm", "0.18"), ("-1 m", "-1000"), ("5 um", "0.005"), ("5 \u00b5m", "0.005"),
        ("5 \u03bcm", "0.005"), ("2 thou", "0.0508"), ("1 mil", "0.0254"), ('1/2"', "12.7"),
        ("3/16 in", "4.7625"), ("1 1/8 inch", "28.575"), ("1-1/8 inches", "28.575"),
        ("-1-1/8 in", "-28.575"), ("0.0001 in", "0.00254"), ("  4   mm ", "4"),
    ],
)  # fmt: skip
def test_lengths(text: str, mm: str) -> None:
    assert parse(text, LENGTH) == Fraction(mm)


@pytest.mark.parametrize(
    ("text", "newton_metres"),
    [
        ("60 N·m", 60), ("60 Nm", 60), ("60 N*m", 60), ("60 N-m", 60), ("60 N.m", 60), ("60 N m", 60),
        ("500 mN·m", 0.5), ("50 cNm", 0.5), ("100 lbf·ft", 135.58179483), ("100 lb-ft", 135.58179483),
        ("100 ft-lb", 135.58179483), ("10 lbf in", 1.129848290), ("10 in-lb", 1.129848290),
        ("10 oz-in", 0.070615518), ("10 ozf·in", 0.070615518), ("1 kgf·m", 9.80665),
        ("1 kgf*cm", 0.0980665),
    ],
)  # fmt: skip
def test_torques(text: str, newton_metres: float) -> None:
    assert float(parse(text, TORQUE)) == pytest.approx(newton_metres, rel=1e-12)


@pytest.mark.parametrize(
    ("text", "dimension", "value"),
    [("2 lbf", FORCE, 8.8964432306), ("30°", ANGLE, 30), ("310 h", USAGE, 310)],
)
def test_other_dimensions(text: str, dimension: Dimension, value: float) -> None:
    assert float(parse(text, dimension)) == pytest.approx(value)


@pytest.mark.parametrize(
    "text",
    [
        "", "mm", "0.1", "0.1 kg", "nan mm", "inf mm", "+2 cm", "5. mm", "1,000.5 mm", "1 2 mm",
        "1/0 mm", "1e1000 mm",
        "1e16 mm", "0x1 mm", "--1 mm", "1 mm mm", "1.2.3 mm", "1 MM", "9" * 5000 + " mm", 0.1, None, True,
        ["1 mm"], "٣ mm",
    ],
)  # fmt: skip
def test_what_is_no_length(text: object) -> None:
    with pytest.raises(BadInput) as bad:
        parse(text, LENGTH, "limits.low")
    line = str(bad.value)
    assert line.startswith("limits.low: ")
    assert "0.05 mm" in line


def test_the_line_says_what_was_given_and_what_would_do() -> None:
    with pytest.raises(BadInput) as bad:
        parse("0.2 kg", LENGTH, "limits.low")
    wanted = 'limits.low: "0.2 kg" is not a length; give e.g. "0.05 mm" or "2 thou"'
    assert str(bad.value) == wanted


@given(st.integers(-(10**9), 10**9))
def test_lengths_land_on_the_grid_halves_away_from_zero(tenths_of_a_step: int) -> None:
    value = Fraction(tenths_of_a_step, 10**6)
    parsed = parse(f"{tenths_of_a_step}e-6 mm", LENGTH)
    assert (parsed * 10**5).denominator == 1
    assert abs(parsed - value) <= Fraction(1, 2 * 10**5)
    if tenths_of_a_step % 10 == 5 and value > 0:
        assert parsed > value


@given(st.integers(0, 4000), st.integers(0, 4000))
def test_inch_and_metric_shims_add_up_exactly(tenths: int, microns: int) -> None:
    inch, metric = parse(f"{tenths}e-4 in", LENGTH), parse(f"{microns} um", LENGTH)
    assert inch + metric == Fraction(tenths * 254 + microns * 100, 10**5)


def test_the_unit_as_typed() -> None:
    assert (unit_of("0.10 mm"), unit_of("4thou"), unit_of("12"), unit_of("x")) == (
        "mm",
        "thou",
        "",
        "",
    )
