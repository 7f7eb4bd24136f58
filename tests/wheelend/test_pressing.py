"""Press, pack and seal: fits and their ways, the countdown, the blade, the scale, the tilt, the level."""

import json
import math
from pathlib import Path
from random import Random
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.card import card_from
from wheelend.compare import Known, compare
from wheelend.cooling import cooling
from wheelend.errors import BadInput
from wheelend.fit import Ring, Warmth, fit_in_housing, fit_on_shaft
from wheelend.fitting import Seat, Shed, gap_mm, plans, warm_enough
from wheelend.grease import Bearing, grease
from wheelend.oil import oil
from wheelend.procedure.asking.judged import judged, turned
from wheelend.procedure.asking.measured import measured
from wheelend.procedure.asking.warmth import warmed
from wheelend.procedure.items import items_of
from wheelend.procedure.items.pressing import CLOCK, home
from wheelend.procedure.log import Written
from wheelend.procedure.warmline import warm_line
from wheelend.quantity import LENGTH, MASS, TEMPERATURE, TORQUE
from wheelend.sealdepth import seal_depth
from wheelend.simulation.pressing import WAYS, press, truth
from wheelend.thickeners import THICKENERS, meeting

from .worked import Worked, document

DEMO = json.loads((Path(__file__).parents[2] / "demo" / "cooperative.json").read_text())
CARDS = {card["name"]: card for card in DEMO["cards"]}
UPRIGHT, RACE_HUB, SHAFT = (
    "Hill-climb car upright",
    "Bin truck front hub, preset",
    "Crew van rear axle bearing",
)
SHED = Shed(press_N=100_000, cold_degC=-18, hot_degC=200)


def work_on(name: str, step: str, **more: Any) -> Worked:
    """A unit of a demo card, everything before a step ticked."""
    work = Worked(card_from({**CARDS[name], **more}), axle="plain")
    work.tick_until(step)
    return work


# ---- fits


@given(st.floats(0.001, 0.2), st.floats(-60, 20), st.floats(20, 200))
def test_warmer_and_colder_is_wider_and_the_temperature_needed_gives_the_gap(
    interference: float, cold: float, warm: float
) -> None:
    ring = Ring(75, 69, 16)
    at = fit_in_housing(ring, 118, "aluminium", interference, warmth=Warmth(cold, warm))
    warmer = fit_in_housing(ring, 118, "aluminium", interference, warmth=Warmth(cold, warm + 10))
    assert at.gap_mm is not None
    assert warmer.gap_mm is not None
    assert warmer.gap_mm > at.gap_mm
    then = Warmth(cold, at.needed_degC)
    just = fit_in_housing(ring, 118, "aluminium", interference, warmth=then)
    assert just.gap_mm == pytest.approx(then.clearance_mm, abs=1e-9)
    assert just.goes


@given(st.floats(0.001, 0.1), st.floats(1.01, 3))
def test_twice_the_interference_is_twice_the_force(interference: float, more: float) -> None:
    for fit in (
        lambda i: fit_in_housing(Ring(75, 69, 16), 118, "grey_iron", i),
        lambda i: fit_on_shaft(Ring(40, 47, 18), "carbon_steel", i, hollow_mm=12),
    ):
        assert fit(interference * more).force_N == pytest.approx(fit(interference).force_N * more)
        assert fit(interference).race_mm < interference


def test_the_plan_says_what_can_be_done_here_and_why_not() -> None:
    card = card_from(CARDS[UPRIGHT])
    ways = {way.key: way for way in plans(card, shed=SHED)[0].ways}
    assert {key: way.can for key, way in ways.items()} == {
        "both": True, "warm": True, "chill": False, "none": True,
    }  # fmt: skip
    assert (ways["both"].warm_degC or 0) < (ways["warm"].warm_degC or 0)
    assert "as well" in ways["chill"].why_not
    poor = plans(card, shed=Shed(press_N=1000))[0]
    assert "no freezer" in poor.way("both").why_not  # type: ignore[union-attr]
    assert "needs 4.2 kN; the strongest press here gives 1.0 kN" in poor.way("none").why_not  # type: ignore[union-attr]
    cool = card_from({**CARDS[UPRIGHT], "heat_limits": {"housing": "35 degC"}})
    assert "the card allows the housing 35" in plans(cool, shed=SHED)[0].way("both").why_not  # type: ignore[union-attr]
    assert plans(cool, shed=Shed())[0].first is None


def test_the_bore_as_it_was_measured_rules_and_may_be_loose() -> None:
    card = card_from(CARDS[UPRIGHT])
    wide = plans(card, {"inner bearing": Seat(74.990, 75.004, measured=True)})[0]
    assert (wide.may_be_loose, wide.seat.measured) == (True, True)
    assert wide.least is None
    assert not plans(card)[0].may_be_loose


def test_a_ring_on_a_shaft_is_warmed_and_what_it_takes_from_the_play_is_said() -> None:
    plan = plans(card_from(CARDS[SHAFT]), shed=SHED)[0]
    assert [way.key for way in plan.ways] == ["warm", "none"]
    need = warm_enough(plan, None)
    assert gap_mm(plan, need, 20) == pytest.approx(0.02, abs=1e-6)
    hub = plans(card_from(CARDS[RACE_HUB]))[0]
    assert hub.most is not None
    assert hub.most.play_lost_mm is not None
    assert hub.least is not None
    assert hub.most.play_lost_mm > (hub.least.play_lost_mm or 0) > 0
    assert hub.most.service_mm is not None
    assert hub.most.service_mm < hub.tightest_mm


def test_a_ring_larger_than_its_housing_is_refused() -> None:
    with pytest.raises(BadInput, match="not larger than"):
        fit_in_housing(Ring(120, 100, 20), 118, "aluminium", 0.03)


# ---- cooling


@given(st.floats(100, 3000), st.floats(0, 30), st.floats(80, 160), st.floats(20, 120))
def test_the_curve_through_two_exact_readings_is_the_one_they_came_from(
    tau: float, air: float, first: float, apart: float
) -> None:
    def true(seconds: float) -> float:
        return air + (first - air) * math.exp(-seconds / tau)

    found = cooling([(0, true(0)), (apart, true(apart))], air, air + 30)
    assert found.time_constant_s == pytest.approx(tau, rel=1e-6)
    assert found.at(apart * 2) == pytest.approx(true(apart * 2), rel=1e-6)
    left = found.left_s
    assert left is not None
    if true(apart) > air + 30:
        assert true(apart + left) == pytest.approx(air + 30, abs=1e-6)


def read_warm(work: Worked, *pairs: tuple[str, float]) -> None:
    """Temperatures, each at its second."""
    for typed, at_s in pairs:
        work.value(typed, TEMPERATURE, at_s=at_s)


def test_the_countdown_runs_from_the_last_reading_by_the_servers_clock() -> None:
    work = work_on(UPRIGHT, "warm")
    assert work.due().slot.place == "air"
    read_warm(work, ("21 degC", 0), ("-18 degC", 10), ("104 degC", 100))
    assert warmed(work.due().at).left_s(100) is None, "one reading is no curve"
    read_warm(work, ("96 degC", 160))
    found = warmed(work.due().at)
    left = found.left_s(160)
    assert left is not None
    assert left > 120
    assert found.left_s(200) == pytest.approx(left - 40)
    assert warm_line(work.due().at, 160).key == "now"
    assert warm_line(work.due().at, 160 + left + 1).key == "warm it again"


def test_a_corrected_temperature_keeps_the_time_at_which_it_was_read() -> None:
    work = work_on(UPRIGHT, "warm")
    read_warm(work, ("21 degC", 0), ("-18 degC", 0), ("104 degC", 100), ("69 degC", 160))
    wrong = warmed(work.due().at)
    work.correct(work.log[-1], "96 degC", TEMPERATURE, at_s=900.0)
    found = warmed(work.due().at)
    assert found.hub[-1].at_s == 160
    assert (found.left_s(160) or 0) > (wrong.left_s(160) or 0)


def test_warmer_than_the_card_allows_is_said_and_what_grips_begins_anew() -> None:
    work = work_on(UPRIGHT, "warm")
    read_warm(work, ("21 degC", 0), ("-18 degC", 0), ("131 degC", 5))
    assert warm_line(work.due().at, 10).key == "let it cool"
    work.write("pick", place="", typed="gripped")
    assert work.due().slot.place == "air"
    assert "don’t strike" in warm_line(work.due().at, 20).why
    read_warm(work, ("21 degC", 30), ("-18 degC", 30), ("104 degC", 40), ("96 degC", 100))
    assert len(warmed(work.due().at).hub) == 2
    work.write("pick", place="", typed="dropped")
    assert work.due().step.id != "warm"


def test_a_hub_that_grows_warmer_gives_no_curve_and_says_so() -> None:
    work = work_on(UPRIGHT, "warm")
    read_warm(work, ("21 degC", 0), ("-18 degC", 0), ("96 degC", 0), ("104 degC", 60))
    assert warmed(work.due().at).left_s(60) is None
    assert "fall" in warm_line(work.due().at, 60).why


# ---- the blade


def tried(work: Worked, key: str, **answers: str) -> None:
    for clock in CLOCK:
        work.write(
            "noted",
            step="cups_home",
            place=f"{key}_{clock}",
            typed=answers.get(f"at_{clock}", "out"),
        )


def pressed(work: Worked) -> None:
    for item, answer in (("way", "sits"), ("surface", "oil"), ("tool", "press"), ("home", "yes")):
        work.write("noted", place=item, typed=answer)


def test_a_blade_that_enters_stops_the_stage_and_is_cured_at_that_place() -> None:
    work = work_on(RACE_HUB, "cups_home")
    pressed(work)
    tried(work, "p3", at_4="enters")
    held = [one for one in items_of(work.due().at) if one.held]
    assert [one.words for one in held] == ["inner cup, blade at 4"]
    work.write()
    assert work.due().step.id == "cups_home", "a tick does not pass over it"
    assert home(work.due().at).enters == ("inner cup at 4 o’clock",)
    work.write("noted", place="p3_4", typed="out", round=2)
    tried(work, "p6")
    assert work.due().step.id != "cups_home"
    assert home(work.due("cups_home").at).proven


def test_rings_not_proven_home_lower_what_a_reading_proves() -> None:
    trailer = CARDS["Bin trailer hub, two-tonne axle"]
    statements = []
    for blade in (True, False):
        work = Worked(card_from({**trailer, "read_at": ["12", "6"]}), axle="plain")
        work.tick_until("cups_home")
        if blade:
            pressed(work)
            tried(work, "p3")
            tried(work, "p7")
        work.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
        work.finish((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
        statements.append(work.statement)
        claim = work.claims["end_play"]
        assert claim.proven is blade
        assert ("may open when it settles" in claim.fact) is not blade
    assert statements[0] == "proven"
    assert statements[1] != "proven"


def test_a_ring_that_was_kept_never_moved_and_a_flush_shoulder_says_the_same() -> None:
    work = work_on(RACE_HUB, "cups_home")
    pressed(work)
    for key, answer in (("p3", "stayed"), ("p6", "flush")):
        work.write("noted", place=f"{key}_12", typed=answer)
    assert work.due().step.id != "cups_home"
    assert home(work.due("cups_home").at).proven


# ---- the scale


@given(st.floats(20, 60), st.floats(1.3, 2.5), st.floats(10, 40), st.floats(0.05, 1))
def test_what_goes_in_is_the_same_whichever_way_it_is_reckoned(
    bore: float, wider: float, width: float, fill: float
) -> None:
    volume = math.pi / 4 * width * ((bore * wider) ** 2 - bore**2) / 1000
    bearing = Bearing(bore, bore * wider, width, volume * 7.85 * 0.6)
    found = grease(bearing, fill=fill, per_stroke_g=1.2, weighed_g=(100, 100 + 0.9 * bearing.free))
    assert found.fill_g == pytest.approx(0.9 * bearing.free * fill)
    assert found.packed == pytest.approx(1)
    assert found.strokes is not None
    assert found.strokes * 1.2 >= found.fill_g - 1e-6 > (found.strokes - 1) * 1.2 - 1e-6


def weigh(work: Worked, *typed: str) -> None:
    for one in typed:
        work.value(one, MASS)


def test_a_hollow_bearing_is_filled_before_the_next_one_is_weighed() -> None:
    work = work_on("Tipping trailer hub", "weighed")
    weigh(work, "238 g", "240.4 g")
    slot = work.due().slot
    assert (slot.place.partition(".")[2], slot.round) == ("packed", 2)
    weigh(work, "244 g")
    assert work.due().slot.place.endswith(".dry")
    assert work.due().slot.place.partition(".")[0] != slot.place.partition(".")[0]
    weigh(work, "114 g", "118.6 g")
    assert work.due().step.id != "weighed"


def test_packed_lighter_than_dry_is_asked_about() -> None:
    work = work_on("Tipping trailer hub", "weighed")
    weigh(work, "244 g", "238 g")
    found = work.due().asked.lines(work.due().at)
    assert work.due().slot.place.endswith(".dry")
    assert len(found) == 3


def test_by_the_cards_own_fill_a_third_is_packed() -> None:
    work = work_on(UPRIGHT, "weighed")
    first = work.due().slot.place
    want = grease(Bearing(45, 75, 16, 221), density=0.92, fill=0.3).fill_g
    weigh(work, "221 g", f"{221 + want:.1f} g")
    assert work.due().slot.place.partition(".")[0] != first.partition(".")[0]


def test_every_pair_of_thickeners_has_its_verdict_and_reason() -> None:
    for one in THICKENERS:
        for other in THICKENERS:
            found = meeting(one, other)
            assert found.word in ("compatible", "borderline", "no")
            assert found.why
            assert found == meeting(other, one)
        assert meeting(one, one).word == "compatible"


# ---- seal, oil, turning torque


@given(st.floats(1, 9), st.floats(0.3, 1), st.integers(0, 11))
def test_the_place_to_tap_is_where_it_stands_high(mean: float, tilt: float, hour: int) -> None:
    high = hour * 30
    depths = [
        (str(clock), mean - tilt / 2 * math.cos(math.radians(clock % 12 * 30 - high)))
        for clock in (12, 3, 6, 9)
    ]
    found = seal_depth(depths, 0.05)
    assert found.shallowest_deg == pytest.approx(high, abs=0.01) or hour == 0
    assert found.tilt_mm == pytest.approx(tilt)
    assert not found.flags


def seal_at(*depths: str) -> Worked:
    work = work_on("Bin truck rear hub", "seal_level")
    for one in depths:
        work.value(one, LENGTH)
    return work


def test_a_cocked_seal_is_measured_again_all_round_after_the_tap() -> None:
    assert seal_at("4.16 mm", "4.36 mm", "4.44 mm", "4.24 mm").due().step.id != "seal_level"
    work = seal_at("4.06 mm", "4.46 mm", "4.64 mm", "4.24 mm")
    assert (work.due().slot.place, work.due().slot.round) == ("12", 2)
    for one in ("4.3 mm", "4.3 mm", "4.3 mm"):
        work.value(one, LENGTH)
        assert work.due().step.id == "seal_level", "half a series proves nothing"
    work.value("4.3 mm", LENGTH)
    assert work.due().step.id != "seal_level"


@pytest.mark.parametrize(
    ("depths", "says"),
    [
        (("5.1 mm",) * 4, "Too deep"),
        (("3.2 mm",) * 4, "drive it on"),
        (("4.00 mm", "4.60 mm", "4.00 mm", "4.60 mm"), "shell is bent"),
    ],
)
def test_too_deep_too_shallow_and_bent(depths: tuple[str, ...], says: str) -> None:
    work = seal_at(*depths)
    assert (work.due().step.id, work.due().slot.round) == ("seal_level", 2)
    found = judged(work.due().at, measured(work.due().at))
    assert found is not None
    assert says in found.held


@given(st.floats(100, 2000), st.floats(0.1, 0.9), st.floats(0.01, 0.05))
def test_more_oil_is_more_pressure(space: float, share: float, more: float) -> None:
    less = oil(space, space * share, 20, 80)
    full = oil(space, min(space, space * (share + more)), 20, 80)
    assert less.gauge_bar is not None
    assert full.gauge_bar is None or full.gauge_bar > less.gauge_bar


def test_the_level_is_read_until_it_stays_and_too_much_is_let_out() -> None:
    work = work_on("Orchard tractor rear hub", "oiled")
    order = []
    for answer in (
        "done",
        "done",
        "done",
        "fallen",
        "done",
        "done",
        "done",
        "over",
        "done",
        "stays",
    ):
        order.append(work.due().slot.place)
        work.write("pick", typed=answer)
    assert order == ["filled", "waited", "turned", "level"] * 2 + ["turned", "level"]
    assert work.due().step.id != "oiled"


@given(st.floats(0, 5), st.floats(0, 5), st.floats(0.01, 1), st.floats(-1, 1), st.floats(0, 1))
def test_what_agrees_needs_no_explanation(
    a: float, b: float, U: float, low: float, wide: float
) -> None:
    plain = compare(Known(a, U), Known(b, U))
    told = compare(Known(a, U), Known(b, U), [(low, low + wide)])
    assert (plain.verdict == "agrees") is (told.verdict == "agrees")
    assert plain.left == pytest.approx(plain.difference)
    assert abs(compare(Known(b, U), Known(a, U)).difference) == pytest.approx(abs(plain.difference))


def rows(*typed: str) -> list[Written]:
    return [
        Written(i, "turning_after", "value", typed=one, value=float(one.split()[0]))
        for i, one in enumerate(typed, 1)
    ]


def test_turning_torque_carries_the_doubt_of_its_spread() -> None:
    still, wild = (
        turned(rows("2.1 N·m", "2.1 N·m", "2.1 N·m")),
        turned(rows("1.7 N·m", "2.1 N·m", "2.5 N·m")),
    )
    assert still is not None
    assert wild is not None
    assert still.value == pytest.approx(wild.value)
    assert still.U < wild.U
    assert turned([]) is None


@pytest.mark.parametrize(
    ("after", "goes_on"),
    [("2.1", True), ("1.6", False), ("2.8", False)],
    ids=["as before", "easier", "tighter"],
)
def test_the_pinion_is_brought_back_to_its_turning_torque_and_never_backed_off(
    after: str, goes_on: bool
) -> None:
    card = {**CARDS["Crew van front pivots"], "facts": {"pinion": "sleeve"}}
    work = Worked(card_from(card), axle="driven")
    work.tick_until("turning_before")
    for _ in range(3):
        work.value("2.1 N·m", TORQUE, instrument=None)
    work.tick_until("pinion_nut")
    work.torque("180 N·m")
    assert work.due().step.id == "marks_met"
    for mark in ("past", "met"):
        work.write("noted", place="turns", typed="same")
        work.write("noted", place="mark", typed=mark)
        assert (work.due().step.id == "marks_met") is (mark == "past")
    work.tick_until("turning_after")
    for _ in range(3):
        work.value(f"{after} N·m", TORQUE, instrument=None)
    assert (work.due().step.id != "turning_after") is goes_on


def test_a_card_of_before_has_none_of_these_steps() -> None:
    work = Worked(card_from(document()))
    asked = {row.step.id for row in work.progress.rows}
    assert not asked & {"warm", "weighed", "seal_level"}


def test_following_the_countdown_drops_more_rings_in_free_than_a_minute_or_a_touch() -> None:
    free = {}
    for way in WAYS:
        found = [press(Random(f"{n} {way}"), truth(Random(str(n))), way) for n in range(300)]
        free[way] = sum(one.free for one in found)
        if way == "countdown":
            assert sum(one.gripped for one in found) <= 3
            assert not any(one.overheated and one.minutes < 1 for one in found)
    assert free["countdown"] > max(free["fixed minute"], free["touch"])
