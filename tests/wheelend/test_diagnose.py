"""Causes from evidence: what a good master would accept first, and do next; and what must always hold."""

import json
import math
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.arrangements.vocabulary import ARRANGEMENTS
from wheelend.diagnose import Answer, Case, Diagnosis, diagnose, table
from wheelend.diagnose.case import AXLES
from wheelend.errors import BadInput

GIVEN = json.loads((Path(__file__).parent / "diagnose" / "situations.json").read_text("utf-8"))
CHECKS = table().checks
CAUSES = [cause.id for cause in table().causes]


def of(evidence: str, arrangement: str | None = None, axle: str | None = None) -> Diagnosis:
    """A diagnosis of `check=answer` words."""
    said = [Answer(*one.split("=")) for one in evidence.split()]
    return diagnose(Case(tuple(said), arrangement, axle))


def shares(found: Diagnosis) -> dict[str, float]:
    return {one.cause.id: one.share for one in found.causes}


def given_case(said: dict[str, Any], *more: dict[str, str]) -> Diagnosis:
    evidence = [Answer(one["check"], one["answer"]) for one in (*said["evidence"], *more)]
    return diagnose(Case(tuple(evidence), said.get("arrangement"), said.get("axle"),
                         tuple(said.get("leave_out", ()))))  # fmt: skip


@pytest.mark.parametrize("said", GIVEN["situations"], ids=lambda said: said["id"])
def test_a_situation_is_seen_as_a_good_master_sees_it(said: dict[str, Any]) -> None:
    found, expect = given_case(said), said["expect"]
    order = [one.cause.id for one in found.causes]
    following = found.next_check.check.id if found.next_check else ""
    assert order[0] in expect.get("first_in", order)
    assert order[0] not in expect.get("not_first", ())
    assert set(expect.get("top3_has", ())) <= set(order[:3])
    assert following in expect.get("next_in", [following])
    assert following not in expect.get("next_not", ())
    assert found.enough == expect.get("enough", found.enough)
    if "also_in" in expect:
        assert found.also is not None
        assert found.also.cause in expect["also_in"]


@pytest.mark.parametrize("said", GIVEN["relations"], ids=lambda said: said["id"])
def test_an_answer_speaks_for_and_against_whom_it_should(said: dict[str, Any]) -> None:
    before, after = shares(given_case(said)), shares(given_case(said, said["add"]))
    assert all(after[cause] > before[cause] for cause in said.get("raises", ()))
    assert all(after[cause] < before[cause] for cause in said.get("lowers", ()))
    together = said.get("lowers_together") or ()
    assert not together or sum(after[c] for c in together) < sum(before[c] for c in together)


OWN = [
    ("", None, None, "bearing_worn nothing_wrong", "", "nobody knows anything yet"),
    ("noise_kind=clicking noise_follows=full_lock", None, "driven", "cv_joint", "", "a joint clicks on lock"),
    ("leak_track=boot", None, "driven", "cv_joint", "", "grease from the boot is the joint's"),
    ("noise_kind=knocking noise_follows=bumps", None, "steered", "strut_or_bush ball_joint", "", "knocks"),
    ("turn_by_hand=scrapes noise_kind=scraping", None, "driven", "brake_disc brake_dragging", "",
     "a shield or lip scrapes; the bearing does not"),
    ("pedal=pulsates disc_runout=above face_runout=within", None, "driven", "brake_disc", "",
     "the disc, for its hub is true"),
    ("pedal=pulsates disc_runout=above face_runout=above", None, "driven", "hub_bent", "",
     "the hub carries the disc round: a new disc would pulsate as well"),
    ("began=after_impact face_runout=above", "cartridge", "driven", "hub_bent", "", "a kerb bent it"),
    ("began=after_wheel_change wheel_nuts=slack", None, "driven", "wheel_fasteners", "", "the change"),
    ("hands_9_3=clear hands_12_6=clear seen_to_move=wheel_on_hub", None, "driven", "wheel_fasteners", "",
     "hands alone would have condemned the bearing"),
    ("hands_12_6=clear brake_on=stays seen_to_move=ball_joint", None, "steered", "ball_joint", "", "seen"),
    ("hands_9_3=clear hands_12_6=none seen_to_move=track_rod_end", None, "steered", "track_rod_end", "", "seen"),
    ("hands_12_6=slight hands_9_3=slight dial_play=within brake_on=gone", "slotted_nut", "plain", "nothing_wrong", "",
     "hands feel what the card allows"),
    ("hands_12_6=clear hands_9_3=clear dial_play=above nut_found=tight_and_locked", "slotted_nut", "plain",
     "bearing_loose", "", "set loose, and locked so"),
    ("heat=hub_hot turn_by_hand=tight nut_found=over_tight", "slotted_nut", "plain", "bearing_tight", "", "set tight"),
    ("grease_look=dry heat=hub_hot turn_by_hand=rough", "slotted_nut", "plain", "lubricant_spent", "", "dry"),
    ("grease_look=metallic turn_by_hand=rough", "slotted_nut", "plain", "bearing_worn", "", "it carries the metal"),
    ("leak_track=at_seal leak_after_wipe=wet_again", "slotted_nut", "plain", "seal_lip", "", "it comes back"),
    ("leak_track=at_seal leak_after_wipe=wet_again seal_out=track_grooved", "slotted_nut", "plain", "seal_track",
     "", "the next lip would run in the same groove"),
    ("leak_track=vent lube_level=vent_blocked", "planetary", "driven", "overfilled", "", "nowhere to go"),
    ("speed_fault=drops_out encoder_clip=no_pull", "cartridge", "driven", "encoder", "", "no poles there"),
    ("speed_fault=no_signal encoder_clip=even sensor_test=faulty", "cartridge", "driven", "speed_sensor", "", "dead"),
    ("began=after_bearing_work ring_seat=feeler_enters", "shimmed_pair", "plain", "cup_not_home", "", "the feeler"),
    ("ring_seat=has_turned", "cartridge", "driven", "ring_turning", "", "the seat shows it"),
    ("began=after_bearing_work stack_measure=short turn_by_hand=tight", "ball_pair", "deck", "spacer_wrong", "",
     "the centre spacer lies on the bench"),
    ("blade_look=bent_or_unbalanced", "ball_pair", "deck", "belt_or_blade", "", "it shakes from there"),
    ("noise_kind=hum noise_follows=road_speed noise_in_bends=louder_loaded knuckle_feel=trembles", "cartridge",
     "driven", "bearing_worn", "", "load makes it sing, the spring carries it"),
    ("noise_kind=hum noise_follows=road_speed tyre_look=even turn_by_hand=smooth wheel_swapped=went_with_wheel",
     "cartridge", "driven", "wheel_or_tyre", "", "what goes with the wheel is of the wheel"),
    ("turn_by_hand=tight", None, "plain", "brake_dragging", "turn_pads_back began", "back the brake off, or ask since when"),
    ("hands_9_3=clear hands_12_6=clear brake_on=gone", "slotted_nut", "plain", "nut_slack bearing_loose", "nut_found turn_by_hand",
     "the nut is looked at before anything is ordered"),
]  # fmt: skip


@pytest.mark.parametrize(("evidence", "arrangement", "axle", "first", "then", "why"), OWN)
def test_a_situation_of_our_own(
    evidence: str, arrangement: str | None, axle: str | None, first: str, then: str, why: str
) -> None:
    found = of(evidence, arrangement, axle)
    assert found.first.cause.id in first.split(), (why, list(shares(found).items())[:4])
    if then:
        assert found.next_check is not None
        assert found.next_check.check.id in then.split(), why


ANSWERED = st.lists(
    st.sampled_from(CHECKS).flatmap(
        lambda check: st.builds(
            Answer, st.just(check.id), st.sampled_from((*check.answers, "unknown"))
        )
    ),
    max_size=12,
)
PLACES = st.sampled_from(
    [
        (arrangement, axle)
        for arrangement in (None, *ARRANGEMENTS)
        for axle in (None, *AXLES)
        if not (axle == "deck" and arrangement not in (None, "ball_pair", "mower_tapered"))
        and not (arrangement == "mower_tapered" and axle not in (None, "deck"))
    ]
)


def told(found: Diagnosis) -> str:
    return repr(found)


@given(ANSWERED, PLACES)
def test_shares_are_all_of_it_and_gains_are_never_a_loss(
    evidence: list[Answer], place: tuple[str | None, str | None]
) -> None:
    found = diagnose(Case(tuple(evidence), *place))
    assert math.fsum(one.share for one in found.causes) == pytest.approx(1)
    assert all(offer.gain_bits >= 0.01 for offer in found.open)
    rates = [offer.gain_bits / offer.minutes for offer in found.open]
    assert rates == sorted(rates, reverse=True)
    answered = {one.check for one in evidence if one.answer != "unknown"}
    assert not answered & {offer.check.id for offer in found.open}
    if found.contradicted:
        assert not found.enough
        assert "contradiction" in found.flags


@given(ANSWERED, PLACES, st.randoms())
def test_evidence_in_another_order_gives_the_same_bytes(
    evidence: list[Answer], place: tuple[str | None, str | None], shuffled: Any
) -> None:
    last = {one.check: one for one in evidence if one.answer != "unknown"}
    other = list(last.values())
    shuffled.shuffle(other)
    assert told(diagnose(Case(tuple(evidence), *place))) == told(
        diagnose(Case(tuple(other), *place))
    )


@given(ANSWERED, PLACES, st.sampled_from(CHECKS))
def test_what_is_not_known_changes_nothing(
    evidence: list[Answer], place: tuple[str | None, str | None], check: Any
) -> None:
    more = (*evidence, Answer(check.id, "unknown"))
    assert told(diagnose(Case(more, *place))) == told(diagnose(Case(tuple(evidence), *place)))


@given(ANSWERED, PLACES)
def test_a_share_is_its_prior_times_what_every_answer_says(
    evidence: list[Answer], place: tuple[str | None, str | None]
) -> None:
    found = diagnose(Case(tuple(evidence), *place))
    weights = {
        one.cause.id: one.cause.weight(place[0]) * math.prod(r.times for r in one.because)
        for one in found.causes
    }
    whole = math.fsum(weights.values())
    for one in found.causes:
        assert one.share == pytest.approx(weights[one.cause.id] / whole, rel=1e-9)


def test_every_number_has_its_reason_and_is_a_chance() -> None:
    for cause in table().causes:
        assert cause.prior > 0
        assert cause.why
        assert bool(cause.prior_in) == bool(cause.prior_why)
    for check in CHECKS:
        assert set(check.chances) == set(CAUSES), check.id
        for cause in CAUSES:
            assert math.fsum(check.chances[cause]) == pytest.approx(1)
            assert min(check.chances[cause]) >= 0.005
            assert check.why[cause]


@pytest.mark.parametrize(
    ("arrangement", "axle", "out"),
    [
        ("cartridge", None, "bearing_loose spacer_wrong lubricant_spent overfilled belt_or_blade"),
        ("ball_pair", None, "bearing_tight"),
        ("slotted_nut", "plain", "spacer_wrong ball_joint drive_line belt_or_blade"),
        (None, "deck", "wheel_or_tyre kingpin encoder"),
        ("mower_tapered", None, "bearing_loose brake_disc"),
        ("bearing_pack", None, "cv_joint"),
    ],
)
def test_what_a_wheel_end_can_not_have_is_left_out(
    arrangement: str | None, axle: str | None, out: str
) -> None:
    assert not set(out.split()) & set(shares(of("", arrangement, axle)))


def test_what_is_not_named_leaves_nothing_out() -> None:
    assert set(shares(of(""))) == set(CAUSES)


@pytest.mark.parametrize(
    ("before", "opens", "check"),
    [
        ("", "hands_12_6=slight", "brake_on"),
        ("turn_by_hand=smooth", "turn_by_hand=tight", "turn_pads_back"),
        ("noise_kind=none", "noise_kind=hum", "noise_in_bends"),
        ("leak_track=none", "leak_track=at_seal", "leak_after_wipe"),
        ("speed_fault=none", "speed_fault=no_signal", "sensor_test"),
    ],
)
def test_a_check_waits_for_what_makes_it_worth_doing(before: str, opens: str, check: str) -> None:
    assert check not in {one.check.id for one in of(before, None, "driven").open}
    assert check in {one.check.id for one in of(opens, None, "driven").open}


def test_nobody_drives_what_must_not_be_driven() -> None:
    found = of("noise_kind=hum nut_found=slack", "slotted_nut", "plain")
    assert "no_road_test" in found.flags
    assert not {offer.check.id for offer in found.open if offer.check.where == "road"}


@pytest.mark.parametrize(
    "evidence",
    ["hands_9_3=none hands_12_6=none brake_on=gone", "noise_kind=none noise_follows=braking",
     "noise_kind=hum noise_follows=none", "turn_by_hand=smooth turn_pads_back=frees",
     "leak_track=none leak_after_wipe=dry", "wheel_nuts=tight seen_to_move=wheel_on_hub",
     "dial_play=below seen_to_move=hub_in_knuckle", "noise_kind=none wheel_swapped=stayed"],
)  # fmt: skip
def test_answers_that_exclude_each_other_are_named_and_count(evidence: str) -> None:
    found = of(evidence)
    assert found.flags[0] == "contradiction"
    assert set(found.contradicted[0]) == {one.split("=")[0] for one in evidence.split()}
    assert not found.enough


def test_the_later_of_two_answers_counts_and_unknown_takes_nothing_back() -> None:
    once = told(of("nut_found=slack"))
    assert told(of("nut_found=over_tight nut_found=slack")) == once
    assert told(of("nut_found=slack nut_found=unknown")) == once


def test_before_parts_are_ordered_nut_and_hub_are_looked_at() -> None:
    worn = "turn_by_hand=grinding grease_look=metallic"
    assert of(worn, "slotted_nut", "plain").before_parts == ("nut_found", "face_runout")
    done = of(f"{worn} nut_found=tight_and_locked face_runout=within", "slotted_nut", "plain")
    assert done.before_parts == ()


def test_what_the_first_cause_leaves_over_points_at_a_second() -> None:
    found = of("turn_by_hand=grinding knuckle_feel=trembles leak_track=boot", "cartridge", "driven")
    assert found.first.cause.id == "bearing_worn"
    assert found.also is not None
    assert (found.also.cause, found.also.explains) == ("cv_joint", ("leak_track",))


def test_cautions_stand_where_work_can_hurt() -> None:
    offers = {one.check.id: one.caution for one in of("", "slotted_nut", "plain").open}
    assert offers["turn_by_hand"] == "Fingers clear of spokes, coils and disc."
    decks = [one.caution for one in of("", "ball_pair", "deck").open]
    assert decks
    assert all("spark lead" in caution for caution in decks)


@pytest.mark.parametrize(
    ("said", "path"),
    [
        ({"evidence": (Answer("ask_the_cat", "yes"),)}, "evidence[0].check"),
        ({"evidence": (Answer("pedal", "none"),)}, "evidence[0].answer"),
        ({"arrangement": "tricycle"}, "arrangement"),
        ({"axle": "third"}, "axle"),
        ({"leave_out": ("x",)}, "leave_out[0]"),
        ({"arrangement": "cartridge", "axle": "deck"}, "axle"),
        ({"arrangement": "mower_tapered", "axle": "plain"}, "axle"),
    ],
)
def test_what_is_not_known_is_named(said: dict[str, Any], path: str) -> None:
    with pytest.raises(BadInput) as bad:
        Case(**said)
    assert bad.value.path == path


def test_a_check_that_can_not_be_done_here_is_not_offered() -> None:
    first = of("").next_check
    assert first is not None
    without = diagnose(Case((), leave_out=(first.check.id,)))
    assert first.check.id not in {one.check.id for one in without.open}
