"""A swing is believed as far as the instrument that read it: named, fine enough, in its time, of the right kind."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.card import card_from
from wheelend.procedure.asking.band import Swing
from wheelend.procedure.log import Instrument
from wheelend.quantity import LENGTH, TORQUE
from wheelend.verdict import Limits

from .test_items import demo_cards
from .worked import METER, SCALE, Worked


def turned(tool: Instrument | None, low: str = "0.70 N·m", high: str = "0.80 N·m") -> Worked:
    """A ground spacer whose turning torque was read; the card allows 0.6 to 1.6 N·m."""
    work = Worked(card=card_from(demo_cards()["ground_spacer"]))
    work.wrench = None
    work.tick_until("turning")
    for typed in (low, high):
        work.value(typed, TORQUE, instrument=tool)
    return work


def test_a_meter_with_papers_proves_and_is_named_with_what_it_may_be_off() -> None:
    claim = turned(METER).claims["turning"]
    assert claim.proven
    assert claim.fact.endswith("torque meter, ± 0.02 N·m")


@pytest.mark.parametrize(
    ("tool", "says"),
    [
        (None, "no instrument named: not proven by it"),
        (SCALE, "spring scale reads a force, and 0.70 N·m is none: not proven by it"),
        (
            Instrument("old meter", {"step": 0.01, "used_on": "2026-11-27", "calibrated_on": "2025-11-20"}),
            "old meter is past its check: not proven by it",
        ),
    ],
)  # fmt: skip
def test_what_cannot_carry_it_does_not_prove_it(tool: Instrument | None, says: str) -> None:
    work = turned(tool)
    claim = work.claims["turning"]
    assert not claim.proven
    assert not claim.blocks
    assert says in claim.fact
    assert work.due().step.id != "turning", "it goes on, as less than proven"


def test_a_meter_without_papers_counts_as_one_step_off_and_past_its_check_as_twice() -> None:
    facts = {"step": 0.05}
    assert Instrument("meter", facts).meter.calibration == 0.05
    late = facts | {"used_on": "2026-11-27", "calibrated_on": "2025-01-01", "doubt": 0.03}
    assert Instrument("meter", late).meter.calibration == 0.06


def test_what_the_meter_may_be_off_counts_at_the_limit() -> None:
    loose = Instrument("meter", {"kind": "torque_meter", "step": 0.01, "doubt": 0.2})
    assert turned(METER, "0.63 N·m", "0.70 N·m").claims["turning"].proven
    work = turned(loose, "0.63 N·m", "0.70 N·m")
    assert not work.claims["turning"].proven
    assert "too close to call" in work.claims["turning"].fact
    assert work.due().step.id == "turning"
    assert "read it again" in str(work.line)


def test_a_meter_too_coarse_for_the_card_is_no_dead_end() -> None:
    coarse = Instrument("meter", {"kind": "torque_meter", "step": 1.0})
    work = turned(coarse, "1.0 N·m", "1.1 N·m")
    assert work.due().step.id != "turning"
    assert not work.claims["turning"].proven


def test_the_step_of_the_meter_counts_however_many_digits_were_typed() -> None:
    coarse = Instrument("meter", {"kind": "torque_meter", "step": 0.2, "doubt": 0.0})
    measured = turned(coarse, "0.70 N·m", "0.80 N·m").claims["turning"].measured
    assert measured is not None
    assert measured.doubt > 2 * 0.2 / 12**0.5


COARSE = Instrument("meter", {"kind": "torque_meter", "step": 0.5})


def on_the_bench(low: str, high: str, tool: Instrument) -> Worked:
    """A pack's first trial on the bench with a measured shim; the card allows 0.5 to 1.1 N·m."""
    work = Worked(card=card_from(demo_cards()["bearing_pack"]))
    work.tick_until("shim_measured")
    for _ in range(4):
        work.value("0.350 mm", LENGTH)
    work.tick_until("bench_drag")
    for typed in (low, high):
        work.value(typed, TORQUE, instrument=tool)
    return work


@pytest.mark.parametrize(
    ("low", "high", "tool", "says", "why"),
    [
        ("0.70", "0.90", METER, "Right on the bench: 0.7 to 0.9 N·m", ""),
        ("0.40", "1.20", METER, "swings too wide: no other shim cures that", "dirt or a dent"),
        ("0.50", "1.10", METER, "swings too wide", "read it again"),
        ("0.70", "0.90", COARSE, "can’t tell: ± 0.58 N·m", "off by 0.2 N·m or less"),
        ("0.51", "1.09", METER, "too close to call: read it again", "in the middle already"),
        ("0.45", "0.75", METER, "Too easy. Grind off 0.020 mm", "0.020 mm (0.79 thou) thinner"),
    ],
)
def test_a_shim_is_only_changed_where_that_tells_something(
    low: str, high: str, tool: Instrument, says: str, why: str
) -> None:
    line = on_the_bench(f"{low} N·m", f"{high} N·m", tool).line
    assert says in str(line)
    assert why in line.why
    assert "0.000" not in f"{line} {line.why}"


@given(
    st.floats(0.1, 2),
    st.floats(0, 0.5),
    st.floats(0.001, 0.2),
    st.floats(0, 0.3),
    st.floats(0, 0.3),
)
def test_more_doubt_never_proves_more(
    low: float, span: float, step: float, off: float, more: float
) -> None:
    limits = Limits(0.5, 1.5)
    some = Swing((low, low + span), step, "N·m", (), off).verdict(limits).word
    worse = Swing((low, low + span), step, "N·m", (), off + more).verdict(limits).word
    assert worse in (some, "undecided")
