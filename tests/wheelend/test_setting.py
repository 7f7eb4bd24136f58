"""The setting stage of the core: series, the next line, causes, claims."""

from typing import Any

import pytest

from wheelend.procedure.causes import Disagreement, likely_causes
from wheelend.procedure.claims import Facts, claims, missing, statement
from wheelend.procedure.nextline import NextLine, next_line
from wheelend.procedure.series import Series
from wheelend.procedure.setting import Assessment, Setting, SettingCard, assess
from wheelend.shims import TrayShim
from wheelend.verdict import Gauge, Limits

CARD = SettingCard("opens", Limits(0.05, 0.15), "middle", 8, 61.0)
TRAY = (TrayShim(0.05, 2), TrayShim(0.1, 3), TrayShim(0.2, 2))


def series(number: int, pack: tuple[float, ...], *plays: float, **more: Any) -> Series:
    """A series read at 12 and 6; fewer plays leave it open."""
    readings = {}
    for clock, play in zip(("12", "6"), plays, strict=False):
        readings[clock, "in"], readings[clock, "out"] = 0.0, play
    usual = {"gauge": Gauge(0.01), "clocks": ("12", "6"), "readings": readings}
    return Series(number=number, pack=(pack,), **{**usual, **more})


def found(*all_series: Series, **changes: Any) -> Assessment:
    tray = changes.pop("tray", TRAY)
    card = SettingCard(**{**CARD.__dict__, **changes})
    return assess(Setting(card, all_series, tray))


def line(*all_series: Series, **changes: Any) -> NextLine:
    return next_line(found(*all_series, **changes))


def test_a_series_asks_in_before_out_place_by_place() -> None:
    empty = series(1, (0.5,))
    assert (empty.next_place, empty.untouched) == (("12", "in"), True)
    half = series(1, (0.5,), readings={("12", "in"): 0.0})
    assert half.next_place == ("12", "out")
    assert half.play(CARD.limits) is None
    assert series(1, (0.5,), 0.1).next_place == ("6", "in")
    assert series(1, (0.5,), 0.1, 0.1).complete
    assert series(1, (0.5,), finding="bound").next_place is None


def test_a_place_read_beside_those_asked_for_counts_and_must_be_finished() -> None:
    extra = series(1, (0.5,), 0.1, 0.1)
    more = {**extra.readings, ("3", "in"): 0.0}
    assert series(1, (0.5,), readings=more).next_place == ("3", "out")


def test_less_than_a_step_of_play_is_no_play() -> None:
    nothing = series(1, (0.5,), 0.0, 0.0)
    trial = nothing.trial(CARD.limits)
    assert trial is not None
    assert trial.outcome == "no_play"
    assert line(nothing).kind == "swap"
    assert "no reading is possible" in line(nothing).why
    a_step = series(1, (0.5,), 0.01, 0.01).trial(CARD.limits)
    assert a_step is not None
    assert a_step.outcome == "play"


@pytest.mark.parametrize(
    ("plays", "kind", "says"),
    [
        (
            (0.02, 0.02),
            "swap",
            "Add 0.10 mm (3.9 thou): put in 0.10. Torque, seat both ways, read again.",
        ),
        (
            (0.10, 0.10),
            "set",
            "End play is 0.10 mm (3.9 thou) and is inside. Go on to torque and lock.",
        ),
        ((0.10,), "read", "Push in at 6 o'clock and read."),
    ],
)
def test_the_next_line(plays: tuple[float, ...], kind: str, says: str) -> None:
    said = line(series(1, (0.5,), *plays))
    assert (said.kind, str(said)) == (kind, says)


def test_the_first_reading_comes_with_torque_and_seating() -> None:
    said = line(series(1, (0.5,)))
    assert str(said) == (
        "Nut to 61 N·m (45 lbf·ft), seat both ways, zero the dial, push in at 12 o'clock and read."
    )


def test_it_says_when_a_pack_is_expected_to_bind() -> None:
    said = line(series(1, (0.5,), 0.02, 0.02), series(2, (0.2,)))
    assert "it will bind" in said.why


def test_bound_and_nothing_thick_enough_says_so() -> None:
    said = line(series(1, (0.5,), finding="bound"), tray=())
    assert (said.kind, "cannot open it far enough" in str(said)) == ("buy", True)


def test_where_the_tray_has_nothing_it_says_what_to_get() -> None:
    said = line(series(1, (0.5,), 0.02, 0.02), tray=())
    assert str(said) == "Get a shim of 0.08 mm or 0.0762 mm and enter it in the tray."
    thin = line(series(1, (0.05,), 0.4, 0.4), tray=(), limits=Limits(0.01, 0.02))
    assert str(thin) == "Get thinner shims for this pack."


@pytest.mark.parametrize(
    ("gauge", "play", "says"),
    [
        (Gauge(0.07), 0.14, "Too close to call: take a finer gauge and read again."),
        (Gauge(0.01), 0.055, "Too close to call: take a finer gauge or a pack nearer the aim."),
    ],
)
def test_too_close_to_call(gauge: Gauge, play: float, says: str) -> None:
    said = line(series(1, (0.5,), play, play, gauge=gauge), tray=())
    assert (said.kind, str(said)) == ("undecided", says)


def test_a_set_hub_offers_a_pack_nearer_the_aim_without_asking_for_it() -> None:
    said = line(series(1, (0.5,), 0.06, 0.07))
    assert said.kind == "set"
    assert "A pack nearer the aim would be 0.50 + 0.05." in said.why


def test_inside_but_not_adding_up_is_not_set() -> None:
    both = found(series(1, (0.5,), 0.02, 0.02), series(2, (0.55,), 0.11, 0.11))
    assert both.verdict is not None
    assert (both.verdict.word, both.is_set, next_line(both).kind) == ("within", False, "stop")


def test_a_bound_trial_that_should_have_had_play_is_named() -> None:
    both = found(series(1, (0.6,), finding="bound"), series(2, (0.5,), 0.10, 0.10))
    apart = both.disagreement()
    assert apart is not None
    assert (apart.earlier, apart.later) == (1, 2)
    assert apart.unexplained_mm == pytest.approx(0.20)
    assert "trials 1 and 2" in str(next_line(both))


def apart(unexplained: float, shims: tuple[float, ...] = (), **more: Any) -> Disagreement:
    usual: dict[str, Any] = {"on_face": False, "turned": False}
    return Disagreement(1, 2, unexplained, shims, 0.01, **{**usual, **more})


@pytest.mark.parametrize(
    ("disagreement", "first"),
    [
        (apart(0.30, (0.3, 0.5)), "miscounted"),
        (apart(0.154, (0.1,)), "mixed_units"),
        (apart(0.07, (0.5,)), "not_home"),
        (apart(-0.07, (0.5,)), "not_home_now"),
        (apart(0.07, (0.5,), on_face=True), "runout"),
        (apart(0.07, (0.5,), turned=True), "runout"),
    ],
)
def test_the_likeliest_cause_comes_first(disagreement: Disagreement, first: str) -> None:
    causes = likely_causes(disagreement)
    assert causes[0].key == first
    keys = [cause.key for cause in causes]
    assert len(set(keys)) == len(keys)
    assert {"dirt", "moved", "torque", "miscounted"} <= set(keys)


def facts(**changes: Any) -> Facts:
    usual: dict[str, Any] = {
        "assessment": found(series(1, (0.5,), 0.10, 0.10)), "source": "sheet 1", "unsourced": False,
        "gauge": "dial", "lock": "pin", "lock_torque_N_m": 61.0, "locked": True, "wrench": "half-inch",
        "wrench_wrong": "",
        "read_after_lock": True, "made_safe": True,
    }  # fmt: skip
    return Facts(**{**usual, **changes})


@pytest.mark.parametrize(
    ("changes", "lost"),
    [
        ({}, set()),
        ({"made_safe": False}, {"safe"}),
        ({"locked": False}, {"lock"}),
        ({"lock_torque_N_m": 63.4}, set()),
        ({"lock_torque_N_m": 63.5}, {"torque"}),
        ({"read_after_lock": False}, {"after_lock"}),
        ({"unsourced": True}, {"source"}),
        ({"wrench": ""}, {"wrench"}),
        ({"lock_torque_N_m": 83.0, "torque_limits": Limits(58, 90)}, set()),
        ({"lock_torque_N_m": 91.0, "torque_limits": Limits(58, 90)}, {"torque"}),
        ({"lock_torque_N_m": 300.0, "torque_limits": Limits(low=58)}, set()),
        ({"wrench_wrong": "its calibration is due"}, {"wrench"}),
        ({"bolts": (3, 15)}, {"bolts"}),
        ({"assessment": found(series(1, (0.5,), 0.10))}, {"places"}),
        ({"assessment": found(series(1, (0.5,), 0.30, 0.30))}, {"end_play"}),
    ],
)
def test_each_fact_carries_its_claim(changes: dict[str, Any], lost: set[str]) -> None:
    said = claims(facts(**changes))
    assert {claim.key for claim in said if not claim.proven} == lost


def test_the_statement_over_all() -> None:
    assert statement(facts()) == "proven"
    assert statement(facts(made_safe=False)) == "set"
    assert statement(facts(unsourced=True)) == "unsourced"


def test_what_must_be_there_before_anyone_signs() -> None:
    nothing = facts(assessment=found(), lock_torque_N_m=None, locked=False)
    assert {claim.key for claim in missing(nothing)} == {"end_play", "torque", "lock"}
    assert missing(facts(made_safe=False)) == ()
