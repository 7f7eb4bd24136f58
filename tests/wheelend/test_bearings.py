"""Bearing numbers and bores."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.bearingnumber import bearing_number, compare_numbers
from wheelend.bore import bore
from wheelend.errors import BadInput


@pytest.mark.parametrize(
    ("number", "kind", "series", "sizes", "seals", "clearance"),
    [
        ("6204", "deep_groove_ball", "62", (20, 47, 14), "open", "normal"),
        ("6204-2RS/C3", "deep_groove_ball", "62", (20, 47, 14), "two_seals", "C3"),
        ("6305 2Z", "deep_groove_ball", "63", (25, 62, 17), "two_shields", "normal"),
        ("6001 Z", "deep_groove_ball", "60", (12, 28, 8), "one_shield", "normal"),
        ("608", "deep_groove_ball", "60", (8, None, None), "open", "normal"),
        ("62/22-RS", "deep_groove_ball", "62", (22, None, None), "one_seal", "normal"),
        ("7205 B", "angular_contact_ball", "72", (25, 52, 15), "open", "normal"),
        ("30206", "tapered_roller", "302", (30, 62, 17.25), "open", "normal"),
        ("32006 x", "tapered_roller", "320", (30, 55, 17), "open", "normal"),
        ("NU 205 C4", "cylindrical_roller", "2", (25, 52, 15), "open", "C4"),
        ("22205", "spherical_roller", "222", (25, 52, 18), "open", "normal"),
        ("51105", "thrust_ball", "511", (25, 42, 11), "open", "normal"),
        ("6296 CN", "deep_groove_ball", "62", (480, None, None), "open", "normal"),
    ],
)  # fmt: skip
def test_numbers_are_read(
    number: str, kind: str, series: str, sizes: tuple[float | None, ...], seals: str, clearance: str
) -> None:
    found = bearing_number(number)
    assert (found.type, found.series, found.sizes) == (kind, series, sizes)
    assert (found.seals, found.clearance) == (seals, clearance)


@pytest.mark.parametrize(
    ("number", "says"),
    [
        ("", "is not a bearing's number"), ("WHEEL", "does not begin with digits"),
        ("9204", "begins with 9"), ("62", "has only the digits 62"), ("6297", "bore code 97"),
        ("6" * 41, "is not a bearing's number"), ("1204", "begins with 1"),
    ],
)  # fmt: skip
def test_what_is_not_known_says_what_was_understood(number: str, says: str) -> None:
    with pytest.raises(BadInput, match=says):
        bearing_number(number)


@given(st.text(max_size=45))
def test_any_text_is_read_or_refused(number: str) -> None:
    try:
        assert bearing_number(number).bore_mm > 0
    except BadInput as bad:
        assert bad.path == "number"


def test_two_numbers_are_compared_in_words() -> None:
    old, new = bearing_number("6204-2RS"), bearing_number("6204")
    assert compare_numbers(old, new) == compare_numbers(old, new)
    assert compare_numbers(old, new).same_size
    assert compare_numbers(old, new).differences == ("seals: two seals, open",)
    other = compare_numbers(old, bearing_number("6304"))
    assert not other.same_size
    assert "outside: 47 mm, 52 mm" in other.differences


planes = st.lists(st.lists(st.floats(10, 300), min_size=3, max_size=6), min_size=1, max_size=4)


@given(planes, st.floats(-50, 50), st.floats(0.001, 0.1))
def test_a_bore_moved_as_a_whole_stays_as_round(
    measured: list[list[float]], by: float, step: float
) -> None:
    found = bore(measured, step)
    moved = bore([[one + by for one in plane] for plane in measured], step)
    assert moved.ovality_mm == pytest.approx(found.ovality_mm, abs=1e-9)
    assert moved.taper_mm == pytest.approx(found.taper_mm, abs=1e-9)
    assert found.ovality_mm >= 0
    assert found.taper_mm >= 0


def test_an_oval_within_the_gauges_doubt_is_not_judged() -> None:
    measured = [[72.00, 72.019, 72.01]]
    assert bore(measured, 0.001, ovality_limit_mm=0.02).ovality == "within"
    assert bore(measured, 0.01, ovality_limit_mm=0.02).ovality == "undecided"
    assert bore(measured, 0.001, ovality_limit_mm=0.01).ovality == "above"
