"""The stack as it comes off, fasteners, what killed it, new against old: lists and what follows from them."""

import json
from functools import cache
from pathlib import Path
from typing import Any

import pytest

from wheelend.arrangements import KEYS
from wheelend.card import card_from
from wheelend.damage import damages
from wheelend.methods import claims_of, judge
from wheelend.procedure.items import items_of
from wheelend.procedure.items.stack import odd_words, off

from .worked import Worked

DEMO = Path(__file__).parents[2] / "demo" / "cooperative.json"


@cache
def demo_cards() -> dict[str, Any]:
    """The demo's cards by arrangement."""
    return {one["arrangement"]: one for one in json.loads(DEMO.read_text("utf-8"))["cards"]}


def at_step(key: str, step: str) -> Worked:
    work = Worked(card=card_from(demo_cards()[key]))
    work.tick_until(step)
    return work


def note(work: Worked, place: str, typed: str, value: float | None = None) -> None:
    step = work.due().step.id
    times = sum(row.place == place and row.step == step for row in work.log)
    work.write("noted", place=place, typed=typed, value=value, round=times + 1)


def key_of(work: Worked, name: str) -> str:
    return next(f"p{i}" for i, part in enumerate(work.card.stack) if part.name == name)


def test_the_demo_has_a_card_of_every_arrangement() -> None:
    assert set(demo_cards()) == set(KEYS)


def test_what_is_missing_reversed_or_of_another_thickness_stands_out() -> None:
    work = at_step("ball_pair", "stack_off")
    note(work, key_of(work, "centre spacer"), "missing")
    note(work, key_of(work, "lower bearing"), "reversed")
    note(work, key_of(work, "washer"), "other 3.2 mm", 3.2)
    note(work, "x1", "extra thin washer")
    said = odd_words(work.card, work.due().at.entries)
    assert "The centre spacer is not there: 57.50 mm missing." in said
    assert any("lower bearing was the other way round" in one for one in said)
    assert any("washer has 3.20 mm" in one for one in said)
    assert "The card has no thin washer." in said


def test_answered_again_the_later_answer_counts() -> None:
    work = at_step("ball_pair", "stack_off")
    spacer = key_of(work, "centre spacer")
    note(work, spacer, "missing")
    note(work, spacer, "as_card")
    assert odd_words(work.card, work.due().at.entries) == ()
    assert {one.found for one in off(work.card, work.due().at.entries)} == {"", "as_card"}


@pytest.mark.parametrize(
    ("less", "says"),
    [(0.0, ""), (57.5, "Looks like the centre spacer"), (7.0, "Looks like the collar"),
     (1.3, "no part left out explains it"), (-2.0, "longer than the card")],
)  # fmt: skip
def test_the_length_of_the_whole_stack_says_what_seems_missing(less: float, says: str) -> None:
    work = at_step("ball_pair", "stack_off")
    whole = 57.5 + 14 + 14 + 7 + 22 + 4 - less
    note(work, "whole", f"measured {whole:g} mm", whole)
    words = " ".join(odd_words(work.card, work.due().at.entries))
    assert says in words if says else not words


def test_every_fastener_undone_is_asked_for_again_and_claimed() -> None:
    work = at_step("cartridge", "fasteners")
    note(work, "nut", "undone")
    note(work, "sensor", "left")
    note(work, "x1", "extra splash shield screw")
    work.write()
    work.tick_until("fasteners_back")
    assert [one.words for one in items_of(work.due().at)] == ["axle nut", "splash shield screw"]
    claim = {one.key: one for one in claims_of(work.bench, judge(work.bench))}["fasteners"]
    assert not claim.proven
    assert "axle nut" in claim.fact
    note(work, "nut", "torqued")
    note(work, "x1", "capped")
    claim = {one.key: one for one in claims_of(work.bench, judge(work.bench))}["fasteners"]
    assert claim.proven


def test_a_blued_cone_renews_the_pair_and_moves_the_aim_where_it_is_accepted() -> None:
    work = at_step("slotted_nut", "judged")
    cone = key_of(work, "inner cone")
    note(work, cone, "blued")
    work.write()
    assert work.due().step.id == "killed_by"
    (item,) = items_of(work.due().at)
    assert "loose end" in item.asks
    assert "aim" not in work.progress.chosen
    note(work, "blued", "accepted")
    assert work.progress.chosen["aim"] == "loose_end"
    work.tick_until("matched")
    fresh = {one.words for one in items_of(work.due().at)}
    assert {"inner cone", "inner cup", "seal"} <= fresh
    assert "outer cone" not in fresh


@pytest.mark.parametrize(
    ("said", "there"), [("accepted", True), ("declined the washer is new", False)]
)
def test_an_accepted_change_adds_its_step_and_a_declined_one_does_not(
    said: str, there: bool
) -> None:
    work = at_step("slotted_nut", "judged")
    note(work, key_of(work, "seal"), "lip_torn")
    work.write()
    note(work, "lip_torn", said)
    assert ("edge_taped" in {step.id for step in work.progress.steps}) is there


def test_where_no_window_is_set_no_aim_is_moved() -> None:
    work = at_step("planetary", "judged")
    note(work, key_of(work, "inner cone"), "blued")
    work.write()
    assert work.due().step.id != "killed_by"


def test_a_wrong_number_stops_with_the_difference_and_the_right_one_goes_on() -> None:
    work = at_step("ball_pair", "judged")
    lower, upper = key_of(work, "lower bearing"), key_of(work, "upper bearing")
    note(work, lower, "flaked")
    note(work, upper, "sound")
    work.write()
    work.tick_until("matched")
    note(work, lower, "number 6304-2RS")
    assert work.due().step.id == "matched"
    (item,) = items_of(work.due().at)
    assert "outside: 47 mm, 52 mm" in item.held
    assert "6204-2RS would do" in item.held
    work.write()
    assert work.due().step.id == "matched"  # a tick does not pass over it
    note(work, lower, "number 6204 2RS")
    assert work.due().step.id != "matched"


@pytest.mark.parametrize(
    ("typed", "says"), [("40X62, 40X62", "2 of three"), ("40X62, 40X62, 42X62", "They differ"), ("40x62, 40X62, 40X62", "")]
)  # fmt: skip
def test_seal_box_and_driver_carry_one_number(typed: str, says: str) -> None:
    work = at_step("slotted_nut", "matched")
    note(work, key_of(work, "seal"), f"number {typed}")
    held = {one.words: one.held for one in items_of(work.due("matched").at)}["seal"]
    assert says in held if says else not held


def test_captive_parts_are_asked_for_one_by_one_before_the_press() -> None:
    work = at_step("retainer_plate", "captive_on")
    names = [one.words for one in items_of(work.due().at)]
    assert names == ["dust cover", "retainer plate", "plate seal", "brake bracket"]
    for kind in ("dust_shield", "plate", "seal"):
        note(work, kind, "on")
        assert work.due().step.id == "captive_on"
    note(work, "bracket", "on")
    assert work.due().step.id == "warm"


@pytest.mark.parametrize(
    ("key", "verdict", "next_stage"),
    [("slotted_nut", "setting", "set"), ("slotted_nut", "nothing_wrong", "prove"), ("cartridge", "strip", "strip"),
     ("shimmed_pair", "setting", "set"), ("shimmed_pair", "nothing_wrong", "prove")],
)  # fmt: skip
def test_the_verdict_says_where_the_work_goes_on(key: str, verdict: str, next_stage: str) -> None:
    work = at_step(key, "verdict")
    work.write("pick", typed=verdict)
    assert work.due().step.stage == next_stage


def test_where_the_stack_makes_the_setting_it_is_not_offered() -> None:
    for key in ("preset", "cartridge", "ball_pair", "mower_tapered", "planetary", "ground_spacer"):
        options = {one.key for one in at_step(key, "verdict").due().step.options}
        assert options == {"strip", "nothing_wrong"}, key


def test_nothing_wrong_is_never_signed_as_proven() -> None:
    work = at_step("slotted_nut", "findings")
    work.write("found", place="turn_by_hand", typed="smooth")
    work.write()
    work.write("pick", typed="nothing_wrong")
    work.tick_until("sign")
    assert work.statement == "by_hand"
    assert "hands feel" in work.claims["setting"].fact


def test_every_damage_has_its_cause_and_a_decision_by_rule() -> None:
    for one in damages():
        assert one.cause.endswith(".")
        assert one.also.endswith(".")
        assert bool(one.change) is bool(one.effect)
        if one.group in ("bearing", "seal"):
            assert one.decision == "new"
