"""Slips are asked about with what they may mean, and never swallowed."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wheelend.card import card_from
from wheelend.procedure import slips
from wheelend.procedure.asking.readings import ReadingsAsked
from wheelend.quantity import LENGTH, parse

from .worked import DIAL, Worked, document, setting

THOU = DIAL.__class__(
    "dial in thou", {"resolution_mm": 0.0127, "resolution": "0.5 thou", "dial_at": "spindle_axis"}
)
SETTING = card_from(document(settings=[setting()])).setting


def reading(typed: str, *before: str, dial: object = DIAL) -> slips.Question | None:
    done = Worked()
    done.tick_until("fit_pack")
    done.pack(0.5)
    done.torque()
    done.write("pick", typed="spindle_axis", instrument=DIAL)
    done.read(*before)
    row = done.due()
    return slips.of_reading(
        typed, ReadingsAsked().series(row.at), row.slot.place, row.slot.push, SETTING, dial  # type: ignore[arg-type]
    )  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "before", "meant"),
    [
        ("18 mm", ("0 mm",), "0.18 mm"),
        ("18 mm", ("0 mm", "0.18 mm", "0 mm"), "0.18 mm"),
        ("1.8 mm", ("0 mm",), "0.18 mm"),
        ("0.183 mm", ("0 mm",), ""),
        ("7 mm", ("0 mm",), "0.07 mm"),
    ],
)
def test_a_slipped_reading_is_asked_about(typed: str, before: tuple[str, ...], meant: str) -> None:
    asked = reading(typed, *before)
    assert asked is not None
    assert asked.typed == typed
    assert meant in ("", *asked.options)


def test_a_tenth_of_a_thou_on_a_thou_dial_is_a_millimetre_reading() -> None:
    asked = reading("0.10 thou", "0 mm", dial=THOU)
    assert asked is not None
    assert "0.10 mm" in asked.options


@pytest.mark.parametrize("typed", ["0.18 mm", "-0.01 mm", "0.185 mm", "0 mm", "0,18 mm"])
def test_a_likely_reading_is_not_held(typed: str) -> None:
    assert reading(typed, "0 mm") is None


@pytest.mark.parametrize(
    ("typed", "meant"),
    [("6100 N·m", "61 N·m"), ("45 N·m", None), ("610 N·m", "61 N·m"), ("6.1 N·m", "61 N·m")],
)
def test_a_slipped_torque(typed: str, meant: str | None) -> None:
    asked = slips.of_torque(typed, SETTING)
    assert (asked.options[0] if asked else None) == meant


def test_a_number_meant_in_the_other_unit() -> None:
    asked = slips.of_torque(
        "61 lbf·ft",
        card_from(
            document(settings=[setting(torque_limits={"low": "58 N·m", "high": "66 N·m"})])
        ).setting,
    )
    assert asked is None  # 83 N·m is within what a nut that goes on may reach
    asked = slips.of_torque("135 lbf·ft", SETTING)
    assert asked is not None


def test_a_pack_of_sixty_five_millimetres() -> None:
    asked = slips.of_shim("65 mm", [0.5, 0.1])
    assert asked is not None
    assert "0.65 mm" in asked.options
    assert slips.of_shim("0.65 mm", [0.5]) is None


def test_a_counter_that_jumps_and_a_nut_that_flies() -> None:
    asked = slips.of_usage("455600 km", 455600, 44910, 30)
    assert asked is not None
    assert asked.options == ("45560 km",)
    assert slips.of_usage("45560 km", 45560, 44910, 30) is None
    asked = slips.of_move("120 deg", 120)
    assert asked is not None
    assert asked.options == ("12 deg",)


@settings(max_examples=40)
@given(st.decimals(min_value=-50, max_value=50, places=4).filter(bool))
def test_every_answer_is_near_enough_to_be_a_play(number: object) -> None:
    asked = reading(f"{number:f} mm", "0 mm")  # type: ignore[str-format]
    if asked:
        assert len(asked.options) <= slips.MOST_OPTIONS
        assert all(abs(parse(option, LENGTH)) <= 1.5 for option in asked.options)
