"""Each arrangement names its classic mistakes where they happen."""

import re

import pytest

from wheelend.arrangements import KEYS, arrangement
from wheelend.card import card_from
from wheelend.procedure.steps import steps_of

from .test_items import demo_cards
from .worked import Worked

MISTAKES = {
    "forgotten centre spacer": ("ball_pair", "press", "centre spacer is forgotten"),
    "pressing through the rollers": ("slotted_nut", "press", "wrong way round"),
    "pressing through the balls": ("retainer_plate", "press", "through the balls"),
    "a part fitted before the one under it": ("planetary", "set", "before the one under it"),
    "bearing before its captive parts": ("retainer_plate", "press", "before the parts that go under it"),
    "backing off a preset hub": ("preset", "set", "backed off"),
    "preset bearings of an ordinary class": ("preset", "match", "without the preset tolerance"),
    "spacer left out or reversed": ("preset", "set", "left out, or reversed"),
    "thin pin": ("slotted_nut", "lock", "thin pin"),
    "key before the hub": ("through_axle", "lock", "half-moon key goes in before"),
    "weight on a cartridge before its torque": ("cartridge", "set", "before its torque"),
    "drain blocked": ("through_axle", "set.2", "shut the drain"),
    "hub overfilled": ("planetary", "pack", "overfilled"),
    "matched caps mixed": ("pivot", "strip", "caps are mixed"),
    "ring left on the hub": ("cartridge", "strip", "left on the hub"),
    "encoder outboard": ("cartridge", "press", "Encoder outboard"),
    "snap-ring gap up": ("cartridge", "press", "gap up"),
    "the outer cone dry": ("slotted_nut", "pack", "the one that burns"),
    "oil on a lining": ("planetary", "strip", "Oil on a lining"),
    "dial not read again after the ring": ("locking_nut", "lock", "not read again"),
    "inner nut upside down": ("locking_nut", "set", "upside down"),
    "shim the wrong way": ("bearing_pack", "set", "wrong way round"),
    "old spacer with new bearings": ("ground_spacer", "match", "old spacer"),
    "cured by the nut": ("ground_spacer", "set", "cured by the nut"),
    "seals exchanged": ("mower_tapered", "seal", "exchanged"),
    "loose ring left out": ("mower_tapered", "seal", "taken for a snap ring"),
    "collapsible sleeve passed": ("pivot", "set.2", "sleeve is passed"),
    "one reversed part scraps both": ("retainer_plate", "match", "scraps bearing and collar"),
    "the card of the vehicle": ("pivot", "take_in", "card of the axle"),
    "a fastener forgotten": ("cartridge", "prove", "left slack"),
}  # fmt: skip


@pytest.mark.parametrize("name", MISTAKES)
def test_the_step_where_it_happens_names_it(name: str) -> None:
    key, stage, words = MISTAKES[name]
    said = [step.catches for step in arrangement(key).steps if step.stage == stage]
    assert any(words in one for one in said), said


@pytest.mark.parametrize("key", KEYS)
def test_every_arrangement_warns_of_the_seal_upside_down_and_of_late_runout(key: str) -> None:
    steps = arrangement(key).steps
    seals = [one for one in steps if one.kind == "seal_in"]
    assert not seals or any(re.search("upside down|lip", one.catches + one.asks) for one in seals)
    assert any("Runout is measured only after" in one.catches for one in steps)
    assert any("cup" not in one.kind or one.catches for one in steps)


@pytest.mark.parametrize("key", KEYS)
def test_what_waits_says_for_what_and_a_skip_needs_its_reason(key: str) -> None:
    family = arrangement(key)
    by_id = {step.id: step for step in family.steps}
    for step in steps_of(family):
        assert all(by_id[before].asks for before in step.after)
        assert step.asks.endswith((".", "?")), step.id
        assert step.says, step.id
    never = {"complaint", "torque", "lock", "bolts", "sign"}
    assert all(not step.skippable for step in family.steps if step.kind in never)


@pytest.mark.parametrize("key", KEYS)
def test_every_leading_method_has_a_folder_that_judges_it(key: str) -> None:
    work = Worked(card=card_from(demo_cards()[key]))
    method = work.card.setting.method
    assert method == arrangement(key).method
    assert type(work.judgement).__module__.startswith(f"wheelend.methods.{method}")


def test_a_deck_is_made_safe_its_own_way() -> None:
    family = arrangement("mower_tapered")
    deck = [step.id for step in steps_of(family, traits=("deck",))]
    assert deck.index("power_off") < deck.index("on_stands") < deck.index("blade_off")
    assert "chocked" not in deck
    assert "power_off" not in [step.id for step in steps_of(family, traits=())]


def test_traits_of_the_vehicle_bring_their_steps() -> None:
    family = arrangement("slotted_nut")
    for trait, step in (("air_braked", "spring_held"), ("electric_parking", "parking_service"),
                        ("air_springs", "air_springs"), ("pivoting_axle", "axle_wedged"), ("motorcycle", "tied")):  # fmt: skip
        assert step in [one.id for one in steps_of(family, traits=(trait,))]
        assert step not in [one.id for one in steps_of(family, traits=())]


@pytest.mark.parametrize(
    ("key", "facts", "there", "away"),
    [
        ("cartridge", {"kind": "bolted"}, "unit_bolts", "ring_in"),
        ("cartridge", {"kind": "pressed"}, "ring_in", "unit_bolts"),
        ("preset", {"kind": "assembled"}, "which_nut", "cups_home"),
        ("ball_pair", {"kind": "deck"}, "blade_on", "seal_in"),
        ("ball_pair", {"kind": "knuckle"}, "seal_in", "blade_on"),
        ("locking_nut", {"driven": "no", "nut": "one_piece"}, "lock", "jam"),
    ],
)
def test_facts_of_the_card_change_the_steps(
    key: str, facts: dict[str, str], there: str, away: str
) -> None:
    ids = [step.id for step in steps_of(arrangement(key), facts=facts)]
    assert there in ids
    assert away not in ids
