"""Every method judged through the steps of its arrangement: what it says next, what may be claimed, and what a
person may try against it."""

import pytest

from wheelend.card import Card, card_from
from wheelend.errors import BadInput
from wheelend.locknut import Position
from wheelend.methods import judge, offered_at
from wheelend.methods.judgement import Bench, Measured
from wheelend.procedure.allowed import check_number
from wheelend.procedure.locking import locking_of
from wheelend.procedure.progress import Progress, progress_of
from wheelend.procedure.together import Beside, advice, next_over_all
from wheelend.quantity import ANGLE, FORCE, LENGTH, TORQUE

from .test_items import demo_cards
from .worked import FINE, SCALE, Worked


def worked(key: str, upto: str, **card: object) -> Worked:
    """A unit of a demo card, worked up to a step with every ring proven home."""
    said = {**demo_cards()[key], **card}
    work = Worked(card=card_from(said), dial=FINE)
    work.wrench = None
    work.tick_until(upto)
    return work


def card_with(key: str, **setting: object) -> Card:
    said = demo_cards()[key]
    first, *rest = said["settings"]
    return card_from({**said, "settings": [{**first, **setting}, *rest]})


def read_play(work: Worked, play: str) -> None:
    while work.due().step.entry == "series":
        push = work.due().slot.push
        work.read("0.000 mm" if push == "in" else play)


# ---- nut angle


def nut_read(play: str) -> Worked:
    """A slotted nut seated, turned back by 20°, and read there."""
    work = worked("slotted_nut", "turned_back")
    work.angle("20 deg")
    work.write("pick", typed="spindle_axis", instrument=FINE)
    read_play(work, play)
    return work


def goes_on(work: Worked, angle: str, play: str) -> None:
    """To its lock place, and read once more where it stays."""
    work.angle(angle)
    work.write("pick", typed="last")
    read_play(work, play)


def test_the_nut_goes_on_to_the_place_inside() -> None:
    work = worked("slotted_nut", "turned_back")
    assert str(work.line) == "From lash-free, turn the nut back 20°, then enter the angle."
    work = nut_read("0.110 mm")
    work.angle("14 deg")
    assert "14° on" in str(work.line)
    chosen = work.judgement.found.chosen  # type: ignore[attr-defined]
    assert chosen.angle_deg == 14
    assert chosen.play_mm == pytest.approx(0.110 - 14 / 360 * 1.5, abs=0.001)


def test_where_every_place_is_outside_it_takes_another_washer() -> None:
    work = nut_read("0.110 mm")
    work.angle("50 deg")
    assert "Fit a washer 0.03 to 0.12 mm (1.2 to 4.8 thou) thicker or" in str(work.line)
    assert "No place sets a play inside the limits" in work.line.why
    plan = work.judgement.found.plan  # type: ignore[attr-defined]
    assert plan.chosen is None
    assert {one.why_not for one in plan.positions} == {"play_high", "preloaded"}


def test_what_a_dial_reads_outranks_the_angle_and_says_by_how_much() -> None:
    work = nut_read("0.050 mm")
    assert "0.03 mm apart: what was read counts" in work.line.why
    goes_on(work, "2 deg", "0.042 mm")
    fact = work.claims["end_play"].fact
    assert "by its angle 0.08 mm" in fact
    assert "angle" not in work.claims


def test_moving_the_nut_ends_the_reading_and_only_one_at_its_place_proves() -> None:
    work = nut_read("0.080 mm")
    work.angle("4 deg")
    assert not work.claims["end_play"].proven
    work.write("pick", typed="last")
    assert work.claims["end_play"].fact == "not read since the nut went to its place"
    read_play(work, "0.062 mm")
    assert work.claims["as_set"].proven
    assert work.claims["seated"].proven


def test_what_reads_outside_at_its_place_stops_and_offers_the_torque_again() -> None:
    work = nut_read("0.080 mm")
    goes_on(work, "4 deg", "0.160 mm")
    assert work.line.kind == "stop"
    offered = work.judgement.remedy(work.due())
    assert offered is not None
    assert offered.step == "to_place"
    work.write("pick", step="to_place", typed=offered.answer)
    assert work.due().step.id == "seat_torque"
    assert not any(row.at.entries for row in work.progress.of_kind("seating"))
    assert work.statement == "not_set"


def test_hands_set_by_hand_and_say_what_they_can_feel() -> None:
    work = worked("slotted_nut", "turned_back")
    work.write()
    work.write("pick", typed="hands")
    work.write("no_play", place="")
    work.angle("12 deg")
    work.write("pick", typed="last")
    work.write("no_play", place="")
    assert work.claims["end_play"].fact.startswith("judged by hand")
    assert "hands feel" in work.claims["end_play"].fact


def test_a_locking_nut_is_turned_both_ways_before_it_counts_as_turned() -> None:
    work = worked("locking_nut", "turned_ways")
    for _ in range(3):
        work.write("pick", typed="one")
    work.write()
    assert work.due().step.id == "turned_ways"
    work.write("pick", typed="other")
    assert work.due().step.id == "seat"
    assert "270 N·m" in str(work.line)


def test_a_jam_nut_takes_play_and_what_counts_is_read_after_it() -> None:
    work = worked("locking_nut", "jam")
    assert "340 N·m" in str(work.line)
    work.torque("340 N·m")
    assert work.due().step.id == "locked_reading"
    assert not work.claims["end_play"].proven
    read_play(work, "0.060 mm")
    assert work.claims["end_play"].measured is not None
    assert "as_set" not in work.claims


# ---- fixed torque


def test_a_preset_nut_never_goes_back() -> None:
    card = card_with(
        "preset",
        torque_per_deg="3 N·m/deg",
        lock={"kind": "lock clip", "pitch": "1.5 mm", "positions": 12},
    )
    work = Worked(card=card, dial=FINE)
    work.tick_until("place")
    work.angle("29 deg")
    line = work.line
    assert "29° on" in str(line)
    assert "never back" in line.why
    plan = [p for p in _places(work) if p.angle_deg < 0]
    assert plan
    assert {p.why_not for p in plan} == {"loosening"}


def _places(work: Worked) -> tuple[Position, ...]:
    found = locking_of(work.progress, "main", "main").plan
    assert found is not None
    return found.positions


def test_a_second_proof_that_disagrees_stops_the_claim_and_blames_no_nut() -> None:
    work = worked("preset", "dial")
    work.write("pick", typed="spindle_axis", instrument=FINE)
    read_play(work, "0.210 mm")
    assert work.line.kind == "stop"
    assert "never cured by the nut" in work.line.why
    assert work.claims["end_play"].blocks
    assert work.statement == "not_set"
    offered = work.judgement.remedy(work.due())
    assert offered is not None
    work.write("pick", step=offered.step, typed="change")
    assert not work.claims["end_play"].measured
    open_again = {row.step.id for row in work.progress.rows if row.state != "done"}
    assert {"cups_home", "spacer_in", "hub_on", "nut_torque"} <= open_again


def test_more_torque_than_the_card_is_no_setting_of_a_ground_spacer() -> None:
    work = worked("ground_spacer", "nut_torque")
    work.torque("330 N·m")
    assert not work.claims["setting"].proven
    assert work.claims["torque"].blocks


def test_a_ground_spacer_that_turns_too_hard_is_opened() -> None:
    work = worked("ground_spacer", "turning")
    work.value("1.9 N·m", TORQUE, instrument=None)
    work.value("2.2 N·m", TORQUE, instrument=None)
    assert work.due().step.id == "turning"
    assert work.line.kind == "stop"
    assert work.claims["turning"].blocks
    assert work.judgement.remedy(work.due()) is not None


def test_no_vehicle_weight_stands_on_a_cartridge_before_its_nut() -> None:
    work = worked("cartridge", "nut_torque")
    for step in ("on_ground", "made_free"):
        row = work.progress.row(step, "")
        assert row is not None
        assert row.state in ("waits", "later")
    ids = [step.id for step in work.progress.steps]
    assert ids.index("brake_back") < ids.index("nut_torque") < ids.index("on_ground")


# ---- drag


def drag_trial(work: Worked, shim: str, low: str, high: str) -> None:
    work.tick_until("shim_measured")
    for _ in range(4):
        work.value(shim, LENGTH, instrument=None)
    work.torque("45 N·m")
    work.value(low, TORQUE, instrument=None)
    work.value(high, TORQUE, instrument=None)


def test_right_on_the_bench_and_too_high_in_the_hub_goes_back_to_the_bench() -> None:
    work = worked("bearing_pack", "bench_stack")
    drag_trial(work, "0.350 mm", "1.20 N·m", "1.40 N·m")
    assert "0.370 mm" in str(work.line)
    work.write("pick", typed="change")
    drag_trial(work, "0.370 mm", "0.80 N·m", "0.90 N·m")
    assert "Right on the bench" in str(work.line)
    work.write("pick", typed="last")
    work.tick_until("drag_in_hub")
    work.value("1.70 N·m", TORQUE, instrument=None)
    work.value("1.90 N·m", TORQUE, instrument=None)
    assert work.line.kind == "stop"
    assert "in the hub" in str(work.line)
    assert "thicker" in work.line.why
    assert work.claims["setting"].blocks
    offered = work.judgement.remedy(work.due())
    assert offered is not None
    work.write("pick", step=offered.step, typed=offered.answer)
    assert work.progress.phase == "trial"
    assert work.due().step.stage == "press" or work.due().step.id == "bench_stack"
    assert not work.claims["setting"].measured


def test_the_drag_in_the_hub_is_carried_to_the_fork_and_says_so() -> None:
    work = worked("bearing_pack", "drag_in_hub")
    work.value("1.00 N·m", TORQUE, instrument=None)
    work.value("1.10 N·m", TORQUE, instrument=None)
    work.tick_until("in_fork")
    claim = work.claims["setting"]
    assert claim.measured is not None
    assert "carried" in claim.fact
    assert work.claims["torque"].blocks


def test_a_crooked_shim_is_measured_again() -> None:
    work = worked("bearing_pack", "shim_measured")
    for text in ("0.350 mm", "0.362 mm", "0.350 mm", "0.351 mm"):
        work.value(text, LENGTH, instrument=None)
    assert work.due().step.id == "shim_measured"
    assert work.due().slot.round == 2


def test_a_thumb_sets_by_feel_and_proves_nothing() -> None:
    work = worked("bearing_pack", "drag_in_hub")
    work.write("pick", typed="thumb", place="")
    assert work.due().step.id != "drag_in_hub"
    assert work.claims["setting"].fact.startswith("by thumb, stiff but it moves: set by feel")


def test_a_string_asks_for_its_radius_and_makes_a_torque_of_it() -> None:
    work = worked("ground_spacer", "turning")
    work.value("20 N", FORCE, instrument=SCALE)
    work.value("24 N", FORCE, instrument=SCALE)
    assert work.due().slot.place == "radius"
    work.value("50 mm", LENGTH, instrument=None)
    assert work.claims["turning"].proven
    assert "1 to 1.2 N·m" in work.claims["turning"].fact
    assert "spring scale, ± 0.025 N·m" in work.claims["turning"].fact


def test_a_kingpin_is_judged_by_its_pull() -> None:
    work = worked("pivot", "pull")
    work.value("40 N", FORCE, instrument=None)
    work.value("48 N", FORCE, instrument=None)
    assert work.claims["setting"].blocks
    assert work.due().step.id == "pull"
    assert work.judgement.remedy(work.due()) is not None


# ---- stand-out, ring of bolts, stack


def test_a_stand_out_names_the_spacer_that_was_forgotten() -> None:
    work = worked("retainer_plate", "stands_out")
    for text in ("-15.84 mm", "-15.86 mm", "-15.85 mm"):
        work.value(text, LENGTH, instrument=None)
    assert "spacer ring missing" in str(work.line)
    assert work.claims["setting"].blocks
    offered = work.judgement.remedy(work.due())
    assert offered is not None
    work.write("pick", step=offered.step, typed="change")
    assert work.due().step.id == "dry_stack"
    assert not work.claims["setting"].measured


def test_blades_are_added_and_stand_for_a_band() -> None:
    work = worked("retainer_plate", "stands_out")
    work.write("value", typed="0.10 + 0.04 mm", value=0.14, place="go")
    assert work.due().slot.place == "no_go"
    work.write("value", typed="0.10 + 0.08 mm", value=0.18, place="no_go")
    assert work.claims["setting"].measured is not None
    assert "by blades" in work.claims["setting"].fact


def test_a_plate_that_is_not_home_stops_and_is_opened() -> None:
    work = worked("planetary", "plate_home")
    work.write("pick", typed="enters")
    assert work.line.kind == "stop"
    assert work.claims["setting"].blocks
    assert work.judgement.remedy(work.due()) is not None


def test_the_bolt_ring_goes_round_until_none_moves() -> None:
    work = worked("planetary", "ring_bolts")
    for _ in range(16):
        work.write("bolt")
    for turn in range(8):
        work.write("moved" if turn == 5 else "bolt")
    assert work.due().step.id == "ring_bolts"
    for _ in range(8):
        work.write("bolt")
    assert work.due().step.id == "plate_home"


def test_a_spacer_shorter_than_its_shoulders_is_refused() -> None:
    work = worked("ball_pair", "spacer_measured")
    work.value("57.30 mm", LENGTH, instrument=None)
    work.value("57.50 mm", LENGTH, instrument=None)
    assert work.due().step.id == "spacer_measured"
    work.value("57.52 mm", LENGTH, instrument=None)
    work.value("57.50 mm", LENGTH, instrument=None)
    assert work.due().step.id != "spacer_measured"


def test_a_stack_with_a_step_open_is_not_set() -> None:
    work = worked("ball_pair", "nut_torque")
    assert "not written" in work.claims["setting"].fact
    assert work.statement == "not_set"


# ---- locks


@pytest.mark.parametrize(
    ("key", "item", "answer"),
    [
        ("slotted_nut", "pin", "thin"),
        ("locking_nut", "ring", "driven"),
        ("cartridge", "stake", "again"),
    ],
)
def test_a_lock_that_must_not_stay_so_holds_the_step(key: str, item: str, answer: str) -> None:
    work = worked(key, "lock")
    work.write("noted", place=item, typed=answer)
    assert work.due().step.id == "lock"
    work.lock_it()
    assert work.due().step.id != "lock"
    assert work.claims["lock"].proven


def test_a_lock_that_was_only_ticked_is_not_proven() -> None:
    work = worked("slotted_nut", "lock")
    work.write()
    assert not work.claims["lock"].proven
    assert "not said how" in work.claims["lock"].fact


# ---- recheck, several wheel ends


class Recheck(Worked):
    """A recheck of its own."""

    def _progress(self) -> Progress:
        return progress_of(self.card, self.log, traits=(), purpose="recheck")


def rechecked(play: str, before: Measured | None) -> Bench:
    again = Recheck(card=card_from(demo_cards()["slotted_nut"]), dial=FINE)
    again.tick_until("recheck_read")
    read_play(again, play)
    return Bench(again.progress, find_before=lambda: before)


def test_a_recheck_compares_by_the_doubt_of_the_difference() -> None:
    set_to = Measured(0.063, 0.004, 0.03, 0.12)
    same = {claim.key: claim for claim in judge(rechecked("0.064 mm", set_to)).claims}
    moved = {claim.key: claim for claim in judge(rechecked("0.096 mm", set_to)).claims}
    assert same["as_set"].proven
    assert same["end_play"].proven
    assert not moved["as_set"].proven
    assert "opened by 0.033 mm" in moved["as_set"].fact
    unknown = {claim.key: claim for claim in judge(rechecked("0.064 mm", None)).claims}
    assert unknown["as_set"].fact == "what it was set to is not known"


def test_a_recheck_is_a_short_job_of_its_own() -> None:
    work = Recheck(card=card_from(demo_cards()["slotted_nut"]), dial=FINE)
    stages = {row.step.stage for row in work.progress.rows}
    assert stages == {"take_in", "check", "close"}


def test_what_takes_its_time_is_begun_for_both_and_the_one_behind_goes_on() -> None:
    card = card_from(demo_cards()["cartridge"])
    here, there = Worked(card=card), Worked(card=card)
    here.tick_until("warm")
    words = advice(here.due(), [Beside("axle 1 right", there.progress)])
    assert words.startswith("Warm axle 1 right now too")
    assert next_over_all({1: here.progress, 2: there.progress}) == 2
    here.tick_until("on_ground")
    assert advice(here.due(), [Beside("axle 1 right", there.progress)]).startswith(
        "First axle 1 right"
    )
    there.tick_until("on_ground")
    assert advice(here.due(), [Beside("axle 1 right", there.progress)]) == ""


def test_an_angle_past_a_turn_is_no_angle() -> None:
    work = worked("slotted_nut", "turned_back")
    with pytest.raises(BadInput, match="not between 0 and 360 deg"):
        check_number(work.due().step, "380 deg", 380)
    work.value("20 deg", ANGLE, instrument=None)


def pinion(after: str, **facts: str) -> Worked:
    said = demo_cards()["pivot"]
    settings = [
        {**one, "sleeve_more": "0.20 N·m"} if one["clamp"] == "pinion" else one
        for one in said["settings"]
    ]
    card = card_from({**said, "settings": settings, "facts": {**said["facts"], **facts}})
    work = Worked(card=card, dial=FINE)
    work.tick_until("turning_before")
    while work.due().step.id == "turning_before":
        work.value("1.50 N·m", TORQUE, instrument=None)
    work.tick_until("turning_after")
    while work.due().step.id == "turning_after" and work.due().slot.round == 1:
        work.value(after, TORQUE, instrument=None)
    return work


def test_a_collapsible_sleeve_that_was_passed_is_renewed_and_never_backed_off() -> None:
    passed = pinion("1.80 N·m", pinion="sleeve")
    assert passed.due().step.id == "turning_after"
    assert passed.claims["pinion"].blocks
    offered = offered_at(passed.bench, passed.judgement, passed.due())
    assert offered is not None
    assert offered.step == "sleeve_passed"
    within = pinion("1.60 N·m", pinion="sleeve")
    assert within.claims["pinion"].proven
    assert "no more than the card adds" in within.claims["pinion"].fact
    shimmed = pinion("1.80 N·m", pinion="shimmed")
    assert not shimmed.claims["pinion"].proven
    assert not shimmed.claims["pinion"].blocks


def test_after_the_jam_nut_it_says_what_the_places_beside_would_give() -> None:
    work = worked("locking_nut", "jam")
    work.torque("340 N·m")
    read_play(work, "0.140 mm")
    assert work.line.kind == "stop"
    assert "One place on would give 0.11 mm" in work.line.why


def test_a_nut_that_goes_on_to_another_place_keeps_its_seating_and_not_its_reading() -> None:
    work = nut_read("0.080 mm")
    goes_on(work, "4 deg", "0.062 mm")
    assert work.claims["end_play"].measured is not None
    work.write("pick", step="to_place", typed="last", round=2)
    assert work.claims["seated"].proven
    assert work.claims["end_play"].measured is None
    assert work.due().step.id == "locked_reading"
    read_play(work, "0.062 mm")
    assert "as_set" not in work.claims
