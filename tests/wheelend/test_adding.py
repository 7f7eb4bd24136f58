"""What differs between two readings of turning torque is explained with a figure, or is not proven."""

from typing import Any

import pytest

from wheelend.card import Card, card_from
from wheelend.errors import BadInput
from wheelend.methods import account_at, offered_at
from wheelend.procedure.log import Instrument
from wheelend.quantity import FORCE, LENGTH, TORQUE

from .test_items import demo_cards
from .test_methods import drag_trial
from .worked import METER, SCALE, Worked

SEALS = ("left seal", "right seal")


def pack_card(*, seals: dict[str, Any] | None = None, grease: dict[str, Any] | None = None) -> Card:
    """The pack that is set by drag; what each seal, and the grease, is said to add."""
    said = demo_cards()["bearing_pack"]
    adds = {"adds": seals} if seals else {}
    lubricant = {**said["lubricant"], **({"adds": grease} if grease else {})}
    records = [{"part": name, **adds} for name in SEALS]
    return card_from({**said, "seals": records, "lubricant": lubricant})


def in_fork(card: Card, *, hub: tuple[str, str], fork: tuple[str, str]) -> Worked:
    """A pack read in the hub and in the fork."""
    work = Worked(card=card)
    work.wrench = None
    for step, swing in (("drag_in_hub", hub), ("drag_in_fork", fork)):
        work.tick_until(step)
        for typed in swing:
            work.value(typed, TORQUE)
    return work


def tell(work: Worked, step: str, low: str, high: str, *, tool: Any = None) -> None:
    """Say what something adds."""
    for place, typed in (("low", low), ("high", high)):
        work.value(typed, TORQUE, step=step, place=place, instrument=tool)


HUB, FORK = ("1.00 N·m", "1.04 N·m"), ("1.30 N·m", "1.34 N·m")
EACH = {"low": "0.10 N·m", "high": "0.20 N·m"}


def test_what_nothing_explains_is_not_proven_and_asks_what_adds_to_it() -> None:
    work = in_fork(pack_card(), hub=HUB, fork=FORK)
    claim = work.claims["fork"]
    assert not claim.proven
    assert "0.30 N·m of it is explained by nothing" in claim.fact
    assert "what explains it?" in str(work.line)
    asked = account_at(work.bench, work.judgement, work.due())
    assert asked is not None
    assert [row.step.id for row in asked.asks] == ["seal_drag", "grease_drag"]
    read = account_at(work.bench, work.judgement, work.due("drag_in_fork"))
    assert read is not None
    assert "0.30 ± 0.03 N·m harder than in the hub" in read.words


def test_the_seals_of_the_card_explain_it_with_their_figure() -> None:
    work = in_fork(pack_card(seals=EACH), hub=HUB, fork=FORK)
    claim = work.claims["fork"]
    assert claim.proven
    assert "the seals 0.2 to 0.4 N·m, by the card" in claim.fact
    assert account_at(work.bench, work.judgement, work.due()) is None


def test_one_seal_that_the_card_does_not_know_leaves_their_sum_unknown() -> None:
    said = demo_cards()["bearing_pack"]
    card = card_from({**said, "seals": [{"part": "left seal", "adds": EACH}]})
    assert not in_fork(card, hub=HUB, fork=FORK).claims["fork"].proven


def test_grease_adds_to_what_the_seals_add() -> None:
    card = pack_card(seals={"low": "0.05 N·m", "high": "0.06 N·m"}, grease=EACH)
    claim = in_fork(card, hub=HUB, fork=FORK).claims["fork"]
    assert claim.proven
    assert "the seals" in claim.fact
    assert "and the grease 0.1 to 0.2 N·m, by the card" in claim.fact


def test_a_seal_whose_drag_does_not_show_is_asked_for() -> None:
    claim = in_fork(pack_card(seals=EACH), hub=HUB, fork=HUB).claims["fork"]
    assert not claim.proven
    assert "nothing of it shows: is it in?" in claim.fact


def test_easier_than_in_the_hub_is_no_matter_of_seals() -> None:
    work = in_fork(pack_card(seals=EACH), hub=FORK, fork=HUB)
    assert not work.claims["fork"].proven
    assert "did the nut keep its torque" in work.line.why


def test_somebodys_word_explains_and_does_not_prove() -> None:
    work = in_fork(pack_card(), hub=HUB, fork=FORK)
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m")
    claim = work.claims["fork"]
    assert "the seals 0.2 to 0.4 N·m, as told" in claim.fact
    assert not claim.proven
    assert account_at(work.bench, work.judgement, work.due()) is None
    assert {entry.id for entry in work.log[-2:]} <= set(claim.rests_on)


def test_what_an_instrument_measured_proves_and_outranks_the_card() -> None:
    work = in_fork(pack_card(seals={"low": "0.01 N·m", "high": "0.02 N·m"}), hub=HUB, fork=FORK)
    assert not work.claims["fork"].proven
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m", tool=METER)
    assert work.claims["fork"].proven
    assert "measured" in work.claims["fork"].fact


def test_an_instrument_past_its_check_is_only_somebodys_word() -> None:
    late = Instrument(
        "old meter", {"step": 0.01, "used_on": "2026-11-27", "calibrated_on": "2024-01-01"}
    )
    work = in_fork(pack_card(), hub=HUB, fork=FORK)
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m", tool=late)
    assert not work.claims["fork"].proven
    assert "as told" in work.claims["fork"].fact


def test_two_meters_each_bring_what_they_may_be_off() -> None:
    """With one meter its error is in both swings and falls out of their difference."""
    one, other = (
        Instrument(name, {"kind": "torque_meter", "step": 0.01, "doubt": 0.25})
        for name in ("a", "b")
    )
    for second, agrees in ((one, False), (other, True)):
        work = Worked(card=pack_card())
        work.wrench = None
        for step, swing, tool in (("drag_in_hub", HUB, one), ("drag_in_fork", FORK, second)):
            work.tick_until(step)
            for typed in swing:
                work.value(typed, TORQUE, instrument=tool)
        assert work.claims["fork"].proven is agrees


def test_a_pull_on_a_string_counts_by_its_radius() -> None:
    work = in_fork(pack_card(), hub=HUB, fork=FORK)
    for place, typed, dimension in (
        ("low", "2 N", FORCE), ("high", "4 N", FORCE), ("radius", "100 mm", LENGTH),
    ):  # fmt: skip
        work.value(typed, dimension, step="seal_drag", place=place, instrument=SCALE)
    assert "the seals 0.2 to 0.4 N·m, measured" in work.claims["fork"].fact


def test_half_of_a_figure_explains_nothing() -> None:
    work = in_fork(pack_card(), hub=HUB, fork=FORK)
    work.value("0.2 N·m", TORQUE, step="seal_drag", place="low", instrument=METER)
    assert not work.claims["fork"].proven
    assert "the seals" not in work.claims["fork"].fact


def test_the_fit_is_told_where_one_trial_drew_no_line() -> None:
    work = Worked(card=pack_card())
    work.wrench = None
    work.tick_until("bench_stack")
    drag_trial(work, "0.370 mm", "0.80 N·m", "0.90 N·m")
    work.write("pick", typed="last")
    work.tick_until("drag_in_hub")
    for typed in ("1.30 N·m", "1.34 N·m"):
        work.value(typed, TORQUE)
    assert "fit_effect" not in work.claims
    tell(work, "fit_drag", "0.3 N·m", "0.6 N·m", tool=METER)
    assert "the fit 0.3 to 0.6 N·m, measured" in work.claims["fit_effect"].fact


# ---- the pinion: a new seal beside the old one


def pinion(kind: str, *after: str) -> Worked:
    """A pinion that turned at 1.00 N·m before, and reads so now."""
    said = demo_cards()["pivot"]
    work = Worked(card=card_from({**said, "facts": {**said["facts"], "pinion": kind}}))
    work.wrench = None
    for step, read in (("turning_before", ("1.00 N·m",) * 3), ("turning_after", after)):
        work.tick_until(step)
        for typed in read:
            work.value(typed, TORQUE)
    return work


def test_a_new_pinion_seal_explains_what_a_shimmed_pinion_turns_harder() -> None:
    work = pinion("shimmed", *["1.30 N·m"] * 3)
    assert not work.claims["pinion"].proven
    asked = account_at(work.bench, work.judgement, work.due())
    assert asked is not None
    assert [row.step.id for row in asked.asks] == ["seal_drag"]
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m", tool=METER)
    assert work.claims["pinion"].proven
    assert "the seals 0.2 to 0.4 N·m, measured" in work.claims["pinion"].fact


def test_somebodys_word_on_the_new_seal_does_not_prove_the_pinion() -> None:
    work = pinion("shimmed", *["1.30 N·m"] * 3)
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m")
    assert "as told" in work.claims["pinion"].fact
    assert not work.claims["pinion"].proven


def test_a_sleeve_is_not_passed_by_what_its_new_seal_adds() -> None:
    work = pinion("sleeve", *["1.30 N·m"] * 3)
    assert offered_at(work.bench, work.judgement, work.due("turning_after")) is not None
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m", tool=METER)
    assert offered_at(work.bench, work.judgement, work.due("turning_after")) is None
    assert work.claims["pinion"].proven


def test_a_pinion_that_turns_as_before_with_a_new_seal_has_lost_preload() -> None:
    work = pinion("sleeve", *["1.00 N·m"] * 3)
    assert work.claims["pinion"].proven
    tell(work, "seal_drag", "0.2 N·m", "0.4 N·m", tool=METER)
    claim = work.claims["pinion"]
    assert not claim.proven
    assert claim.blocks
    assert work.due().step.id == "turning_after"
    said = f"{work.line} {work.line.why}"
    assert "easier than before by 0.20 N·m, the new seal’s share left out" in said


# ---- the card


@pytest.mark.parametrize("group", ["seals", "lubricant"])
def test_a_card_that_has_it_high_first_is_refused_at_its_place(group: str) -> None:
    wrong = {"low": "0.4 N·m", "high": "0.2 N·m"}
    with pytest.raises(BadInput) as bad:
        pack_card(**{"grease" if group == "lubricant" else "seals": wrong})
    assert "adds" in bad.value.path
    assert "swap them" in bad.value.need


def test_a_seal_whose_depth_is_high_first_is_refused_when_its_card_is_read() -> None:
    said = demo_cards()["bearing_pack"]
    seal = {"part": "left seal", "depth_low": "2 mm", "depth_high": "1 mm"}
    with pytest.raises(BadInput) as bad:
        card_from({**said, "seals": [seal]})
    assert bad.value.path == "seals[0].depth_low"
