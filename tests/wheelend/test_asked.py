"""What a step asks item by item as its arrangement says, and what is measured: checks, bores, last digits."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.arrangements import KEYS, arrangement
from wheelend.card import CHOICES, card_from, value_from
from wheelend.diagnose import table
from wheelend.diagnose.gauged import gauged
from wheelend.errors import BadInput
from wheelend.procedure.asking.checks import case_of, due_place, gauged_at
from wheelend.procedure.asking.measured import places_of
from wheelend.procedure.bores import bores
from wheelend.procedure.items import items_of
from wheelend.quantity import LENGTH, TEMPERATURE, last_digit, parse
from wheelend.verdict import Limits

from .test_items import at_step, demo_cards, note
from .worked import Worked


def work_of(key: str, step: str, **more: object) -> Worked:
    work = Worked(card=card_from({**demo_cards()[key], **more}))
    work.tick_until(step)
    return work


def words_of(work: Worked) -> list[str]:
    return [one.key for one in items_of(work.due().at)]


@pytest.mark.parametrize(
    ("key", "step", "asked"),
    [
        ("slotted_nut", "marks", ["hidden", "hand", "nut_mark", "turns", "sides"]),
        ("cartridge", "grooves", ["ring_groove"]),
        ("locking_nut", "grooves", ["track", "wear_sleeve"]),
        ("mower_tapered", "neighbours", ["races", "boots", "joints"]),
    ],
)
def test_only_what_the_stack_has_is_asked(key: str, step: str, asked: list[str]) -> None:
    assert words_of(at_step(key, step)) == asked


def test_a_deck_is_asked_for_its_belt_and_no_ball_joint() -> None:
    work = Worked(card=card_from(demo_cards()["mower_tapered"]), axle="deck")
    work.tick_until("neighbours")
    assert words_of(work) == ["races", "belt"]


def test_an_answer_that_must_not_stay_so_keeps_the_step_open() -> None:
    work = at_step("cartridge", "grooves")
    note(work, "ring_groove", "broken")
    due = work.due()
    assert due.step.id == "grooves"
    assert "walks out" in items_of(due.at)[0].held
    note(work, "ring_groove", "repaired sleeved, by the lead's leave")
    assert work.due().step.id != "grooves"


def test_the_encoder_that_is_found_decides_what_is_asked_and_proven() -> None:
    work = at_step("cartridge", "encoder_side")
    note(work, "encoder", "windowed")
    assert words_of(work) == ["encoder", "encoder_face"]
    note(work, "encoder", "none")
    ids = [row.step.id for row in work.progress.rows]
    assert "encoder_side" in ids, "it can be answered again"
    assert "signal" not in ids
    note_again = work.progress.row("encoder_side", "")
    assert note_again is not None
    assert note_again.state == "done"


def test_a_wear_sleeve_that_is_renewed_lies_on_the_bench() -> None:
    work = at_step("locking_nut", "grooves")
    note(work, "track", "sleeved")
    note(work, "wear_sleeve", "renew")
    work.tick_until("laid_out")
    keys = words_of(work)
    assert {"new_sleeve", "repair_sleeve"} <= set(keys)


def test_a_new_part_that_the_kit_lacks_says_so() -> None:
    work = work_of("cartridge", "laid_out", kit=["cartridge", "snap ring"])
    words = [one.words for one in items_of(work.due().at)]
    assert "new cartridge" in words
    assert "new axle nut, not in the kit" in words


# ---- checks that are measured

PLAY = table().check("dial_play")
FACE = table().check("face_runout")
HEAT = table().check("heat")


def read(work: Worked, check: str, **readings: str) -> None:
    for place, typed in readings.items():
        dimension = TEMPERATURE if check == "heat" else LENGTH
        value = float(parse(typed, dimension))
        work.write("value", place=f"{check}.{place.strip('_')}", typed=typed, value=value)


@pytest.mark.parametrize(
    ("out", "answer"), [("0.10 mm", "within"), ("0.31 mm", "above"), ("0.15 mm", "unknown")]
)
def test_play_by_dial_answers_by_the_cards_limits_with_its_doubt(out: str, answer: str) -> None:
    found = gauged(PLAY, {"in": "0.00 mm", "out": out}, Limits(0.05, 0.15))
    assert found is not None
    assert found.answer == answer


def test_a_check_is_not_answered_before_its_last_place() -> None:
    work = at_step("slotted_nut", "findings")
    read(work, "face_runout", _12="0.00 mm", _3="0.04 mm", _6="0.09 mm")
    at = work.due().at
    assert due_place(at, FACE) == "9"
    assert case_of(at).evidence == ()


def test_runout_without_a_limit_is_a_figure_and_no_evidence_until_somebody_says() -> None:
    work = at_step("slotted_nut", "findings")
    read(work, "face_runout", _12="0.00 mm", _3="0.04 mm", _6="0.09 mm", _9="0.05 mm")
    at = work.due().at
    found = gauged_at(at, FACE)
    assert found is not None
    assert found.answer == ""
    assert "0.09 mm" in found.figure
    assert case_of(at).evidence == ()
    work.write("found", place="face_runout", typed="above")
    assert [one.answer for one in case_of(work.due().at).evidence] == ["above"]


def test_runout_past_the_cards_limit_is_evidence_by_itself_and_a_correction_moves_it() -> None:
    work = work_of("slotted_nut", "findings", wear={"face_runout": "0.05 mm"})
    read(work, "face_runout", _12="0.00 mm", _3="0.04 mm", _6="0.09 mm", _9="0.05 mm")
    assert [one.answer for one in case_of(work.due().at).evidence] == ["above"]
    wrong = next(row for row in work.log if row.place == "face_runout.6")
    work.correct(wrong, "0.01 mm")
    wrong = next(row for row in work.log if row.place == "face_runout.3")
    work.correct(wrong, "0.00 mm")
    wrong = next(row for row in work.log if row.place == "face_runout.9")
    work.correct(wrong, "0.01 mm")
    assert [one.answer for one in case_of(work.due().at).evidence] == ["within"]


@pytest.mark.parametrize(
    ("this", "other", "brake", "answer"),
    [("41 degC", "38 degC", "60 degC", "even"), ("52 degC", "38 degC", "60 degC", "hub_warmer"),
     ("160 degF", "95 degF", "60 degC", "hub_hot"), ("52 degC", "38 degC", "140 degC", "brake_hot")],
)  # fmt: skip
def test_warmth_left_against_right(this: str, other: str, brake: str, answer: str) -> None:
    found = gauged(HEAT, {"this": this, "other": other, "brake": brake}, None)
    assert found is not None
    assert found.answer == answer


@given(
    st.lists(st.integers(-200, 200), min_size=4, max_size=4),
    st.integers(-300, 300),
    st.permutations(["12", "3", "6", "9"]),
)
def test_runout_does_not_depend_on_where_the_dial_is_zeroed_or_begun(
    steps: list[int], shift: int, order: list[str]
) -> None:
    def said(values: dict[str, int]) -> str:
        typed = {place: f"{step / 100:.2f} mm" for place, step in values.items()}
        found = gauged(FACE, typed, Limits(None, 0.1))
        assert found is not None
        return f"{found.figure} {found.answer}"

    plain = dict(zip(("12", "3", "6", "9"), steps, strict=True))
    moved = {place: plain[place] + shift for place in order}
    assert said(plain) == said(moved)


@pytest.mark.parametrize(
    ("text", "step"),
    [("0.02 mm", "0.01"), ("2 thou", "0.0254"), ("1-1/8 in", "3.175"), ("0,5 mm", "0.1"), ("3e-2 mm", "0.01")],
)  # fmt: skip
def test_the_last_digit_that_was_typed_is_the_resolution(text: str, step: str) -> None:
    assert last_digit(text, LENGTH) == Fraction(step)


def test_temperatures_meet_in_every_unit() -> None:
    freezing = {
        float(parse(text, TEMPERATURE)) for text in ("0 degC", "32 degF", "273.15 K", "0 °C")
    }
    assert max(freezing) == pytest.approx(min(freezing))
    assert float(parse("-40 degF", TEMPERATURE)) == pytest.approx(-40)
    with pytest.raises(BadInput, match="is not a temperature"):
        parse("20 mm", TEMPERATURE)


# ---- bores


def test_each_ring_has_its_bore_and_each_is_judged_by_the_card() -> None:
    work = work_of(
        "slotted_nut", "seats", wear={"bore_ovality": "0.02 mm", "bore_taper": "0.02 mm"}
    )
    at = work.due().at
    places = places_of(at.step, work.card)
    assert len(places) == 12
    first = [place for place in places if place.startswith(places[0].partition(".")[0])]
    for place, size in zip(first, (72.00, 72.09, 72.01, 72.0, 72.0, 72.01), strict=True):
        work.write("value", place=place, typed=f"{size:.2f} mm", value=size)
    found = bores(work.due().at)
    assert len(found) == 1
    assert found[0].bore is not None
    assert found[0].bore.ovality == "above"
    assert any("not as round" in one for one in found[0].words)
    assert work.due().step.id == "seats", "the other bore is asked for"


# ---- choices and facts of a card


@pytest.mark.parametrize("key", KEYS)
def test_an_arrangement_shows_only_the_choices_that_are_its_own(key: str) -> None:
    made = {one.key for one in CHOICES.values() if one.is_made_in(arrangement(key))}
    assert made < set(CHOICES)
    assert ("shims" in made) is (key == "through_axle")
    assert ("cartridge_at" in made) is (key == "cartridge")


def test_choices_and_facts_are_typed_like_any_field() -> None:
    assert value_from("choices.lock_policy", "torque_window") == "torque_window"
    assert value_from("facts.kind", "own_ring") == "own_ring"
    assert value_from("wear.face_runout", "0.05") == "0.05 mm"
    with pytest.raises(BadInput, match="is not"):
        value_from("facts.kind", "round")


@pytest.mark.parametrize(("outside", "says"), [("72.1 mm", "press fit"), ("71.9 mm", "would turn")])
def test_a_ring_that_is_smaller_than_its_bore_is_told(outside: str, says: str) -> None:
    card = demo_cards()["slotted_nut"]
    stack = [
        {**one, "outside": outside} if one["name"] == "inner cup" else one for one in card["stack"]
    ]
    work = work_of("slotted_nut", "seats", stack=stack)
    for place in places_of(work.due().step, work.card)[:3]:
        work.write("value", place=place, typed="72.00 mm", value=72.0)
    assert says in bores(work.due().at)[0].fit
