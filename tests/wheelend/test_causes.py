"""Causes by what the numbers say: each share has its evidence, and each cause what to do to know."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.methods.shims.causes import (
    Cause,
    Disagreement,
    PlaceApart,
    hypotheses,
    likely_causes,
)

APART = Disagreement(
    1, 2, 0.1, 0.009, put_in=(0.10,), taken_out=(0.25,), known=(0.05, 0.10, 0.25), settled=True,
    play_mm=0.2,
)  # fmt: skip
PLACE = PlaceApart("4 o’clock", ("0.00 mm", "0.21 mm"), 0.12, 0.007, shift_mm=0.0)


def share(causes: tuple[Cause, ...], key: str) -> float:
    return next(cause.share for cause in causes if cause.key == key)


def test_every_number_of_the_data_file_has_its_reason() -> None:
    for one in hypotheses():
        assert 0 < one.prior <= 1
        assert len(one.why) > 30, one
        assert one.text
        assert one.check
        assert (one.mean_mm > 0) == (one.size == "spread")
        assert one.settled == 1.0 or one.settled_why, one


@given(
    st.floats(-0.4, 0.4).filter(lambda off: abs(off) > 0.02),
    st.floats(0.002, 0.02),
    st.booleans(),
    st.sampled_from([1, -1]),
    st.booleans(),
)
def test_shares_are_all_of_it_whatever_was_seen(
    off: float, doubt: float, settled: bool, sign: int, at_least: bool
) -> None:
    seen = replace(
        APART, unexplained_mm=off, doubt_mm=doubt, settled=settled, sign=sign, at_least=at_least
    )
    causes = likely_causes(seen)
    assert sum(cause.share for cause in causes) == pytest.approx(1)
    assert [c.share for c in causes] == sorted((c.share for c in causes), reverse=True)
    assert len({cause.key for cause in causes}) == len(causes)


def test_a_shim_of_the_size_that_is_off_is_named() -> None:
    first = likely_causes(replace(APART, unexplained_mm=-0.25))[0]
    assert first.key == "miscounted"
    assert first.because == "The 0.25 mm that is off is a 0.25 shim."


def test_a_shim_common_to_both_trials_is_no_cause() -> None:
    same_pack = replace(APART, unexplained_mm=-0.25, put_in=(), taken_out=())
    causes = likely_causes(same_pack)
    assert share(causes, "miscounted") < 0.01
    assert share(causes, "mixed_units") < 0.01


def test_a_shim_in_the_other_unit_is_named_where_the_shop_has_both() -> None:
    seen = replace(APART, put_in=(0.10,), taken_out=(), known=(0.10, 0.254), unexplained_mm=0.154)
    first = likely_causes(seen)[0]
    assert (first.key, first.then) == ("mixed_units", "measure")
    assert "10 thou" in first.because
    nowhere = likely_causes(replace(seen, known=(0.10,)))
    assert share(nowhere, "mixed_units") < first.share


def test_a_cup_that_goes_home_only_adds_play_where_a_thicker_pack_opens() -> None:
    more, less = (
        likely_causes(replace(APART, unexplained_mm=off, put_in=(), taken_out=()))
        for off in (0.12, -0.12)
    )
    assert more[0].key == "not_home"
    assert "gone home since" in more[0].text
    assert more[0].then == "aside_earlier"
    assert "not home now" in next(c.text for c in less if c.key == "not_home")
    closes = likely_causes(replace(APART, unexplained_mm=-0.12, put_in=(), taken_out=(), sign=-1))
    assert share(closes, "not_home") > share(less, "not_home")


def test_reading_again_leaves_little_of_what_would_have_changed() -> None:
    before = likely_causes(replace(APART, unexplained_mm=0.035, settled=False))
    after = likely_causes(replace(APART, unexplained_mm=0.035))
    for key in ("torque", "moved", "slip"):
        assert share(after, key) < share(before, key)


def test_another_wrench_points_at_the_torque() -> None:
    seen = replace(APART, unexplained_mm=-0.03, put_in=(), taken_out=())
    causes = likely_causes(replace(seen, wrenches_differ=True))
    assert causes[0].key == "torque"
    assert share(causes, "torque") > 1.5 * share(likely_causes(seen), "torque")


def test_cups_tried_with_a_feeler_are_less_likely_off_their_seat() -> None:
    tried = likely_causes(replace(APART, cups_tried=True))
    assert share(tried, "not_home") < share(likely_causes(APART), "not_home")


@pytest.mark.parametrize(
    ("typed", "play", "meant"),
    [
        (("0.00 mm", "0.21 mm"), 0.12, "0.21 mm read for 0.12 mm?"),
        (("0.00 mm", "1.2 mm"), 0.12, "1.2 mm read for 0.12 mm?"),
        (("0.00 mm", "0.24 mm"), 0.12, "0.24 mm read for 0.12 mm?"),
        (("0.00 mm", "0.06 mm"), 0.12, "0.06 mm read for 0.12 mm?"),
        (("0.00 mm", "5 mm"), 0.127, "5 mm read for 5 thou?"),
    ],
    ids=["swapped", "point", "twice", "half", "unit"],
)
def test_a_slip_is_named_with_the_value_that_it_would_mean(
    typed: tuple[str, str], play: float, meant: str
) -> None:
    first = likely_causes(replace(PLACE, typed=typed, play_mm=play))[0]
    assert (first.key, first.because) == ("slip", meant)


def test_a_stand_that_lost_its_zero_by_as_much_has_moved() -> None:
    first = likely_causes(replace(PLACE, typed=("0.00 mm", "0.17 mm"), shift_mm=0.05))[0]
    assert first.key == "moved"


def test_wobble_is_a_cause_only_with_the_tip_on_the_face() -> None:
    odd = replace(PLACE, typed=("0.00 mm", "0.17 mm"))
    assert share(likely_causes(odd), "runout") == 0
    assert likely_causes(replace(odd, on_face=True))[0].key == "runout"


def test_in_and_out_exchanged_is_named() -> None:
    odd = replace(PLACE, typed=("0.12 mm", "0.00 mm"), reversed=True, shift_mm=None)
    first = likely_causes(odd)[0]
    assert (first.key, first.because) == (
        "slip",
        "In and out exchanged: 0.12 mm in for 0.00 mm in?",
    )
