"""What must not be believed: each of these was once shown as proven, or as done."""

from dataclasses import replace

import pytest

from wheelend.card import card_from
from wheelend.procedure.log import Instrument
from wheelend.quantity import ANGLE, TORQUE, Dimension

from .worked import DIAL, FINE, WRENCH, Worked, axle_document, document, proven, setting


def test_a_whole_job_is_proven_and_says_on_which_entries() -> None:
    done = proven()
    assert done.statement == "proven"
    rows = {row.id: row for row in done.progress.standing}
    for key, kinds in {
        "end_play": {"in", "out", "value"},
        "torque": {"value"},
        "lock": {"noted"},
    }.items():
        rested = [rows[pk] for pk in done.claims[key].rests_on]
        assert rested, key
        assert {row.kind for row in rested} <= kinds, key
    locked = [rows[pk] for pk in done.claims["end_play"].rests_on if rows[pk].kind == "out"]
    assert {row.step for row in locked} == {"locked_reading"}


def test_opening_the_hub_again_ends_what_was_locked() -> None:
    done = proven()
    done.open("change")
    assert done.statement == "not_set"
    assert not done.claims["lock"].proven
    assert not done.claims["torque"].proven
    done.pack(0.5, 0.2)
    done.torque("5 N·m")
    done.read("0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert done.statement == "not_set"
    assert not done.judgement.is_set


def test_trials_at_another_torque_are_rough_and_set_nothing() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", torque="2 N·m")
    assert not done.judgement.is_set
    assert "rough try" in done.line.why
    assert str(done.line).startswith("Nut to 61 N·m")
    done.open("last")
    done.finish_from_open((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", at_place="83 N·m")
    assert done.claims["end_play"].proven


def test_a_locked_reading_at_another_torque_proves_nothing() -> None:
    done = proven()
    lock = next(row for row in done.log if row.step == "lock_torque")
    done.log[done.log.index(lock)] = replace(lock, typed="40 N·m", value=40.0)
    assert not done.claims["end_play"].proven
    assert done.statement == "not_set"


@pytest.mark.parametrize(
    "wrench",
    [
        Instrument("elastic bar", {"accuracy": 0.5, "low_N_m": 10, "high_N_m": 210}),
        Instrument("old", {"accuracy": 0.04, "low_N_m": 10, "high_N_m": 210,
                           "calibrated_on": "2024-09-02", "used_on": "2026-11-26"}),
        Instrument("small", {"accuracy": 0.04, "low_N_m": 10, "high_N_m": 60}),
        Instrument("tube", {"accuracy": 0.04, "low_N_m": 10, "high_N_m": 210, "lengthened": True}),
        None,
    ],
    ids=["half off", "past its check", "above its range", "lengthened", "none"],
)  # fmt: skip
def test_a_torque_is_worth_what_its_wrench_is(wrench: Instrument | None) -> None:
    done = Worked(wrench=wrench)
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", at_place="74 N·m")
    assert not done.claims["torque"].proven
    assert done.statement == "set"


def test_the_wrenchs_doubt_must_be_inside_the_window_too() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", at_place="59 N·m")
    assert not done.claims["torque"].proven
    assert "reaches over the limit" in done.claims["torque"].fact


def test_one_torque_and_no_window_counts_what_the_wrench_may_be_off() -> None:
    said = setting()
    del said["torque_limits"], said["torque_per_deg"]
    done = Worked(card=card_from(document(settings=[said])))
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", at_place="62 N·m")
    assert done.claims["torque"].proven
    assert "what the wrench may be off" in done.claims["torque"].fact


@pytest.mark.parametrize(
    ("dial", "readings"),
    [
        (
            replace(DIAL, facts={**DIAL.facts, "turned": True}),
            ("0 mm", "0.10 mm", "0 mm", "0.10 mm"),
        ),
        (DIAL, ("0 mm", "0.10 mm", "0.10 mm", "0 mm")),
        (DIAL, ("0 mm", "0.06 mm", "0 mm", "0.14 mm")),
    ],
    ids=["turned, wobble unknown", "mixed directions", "scattered"],
)
def test_a_flag_blocks_inside(dial: Instrument, readings: tuple[str, ...]) -> None:
    done = Worked(dial=dial)
    done.trial((0.5, 0.1), *readings)
    while done.due().step.id == "read":
        assert "again" in done.due().slot.place
        done.read(readings[2 * done.due().slot.place.startswith("6")])
        done.read(readings[1 + 2 * done.due().slot.place.startswith("6")])
    assert not done.judgement.is_set
    assert done.line.kind == "undecided"


def test_a_check_counts_for_what_it_was_made_on_and_nothing_else() -> None:
    done = Worked(card=card_from(document(second_person=True)))
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("change")
    done.trial((0.5, 0.2), "0 mm", "0.20 mm", "0 mm", "0.20 mm")
    done.open("change")
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("last")
    done.finish_from_open((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", upto="second")
    assert done.statement == "set"
    done.write("pick", typed="read", saw=done.progress.digest, by=2)
    assert done.statement == "proven"
    first = next(row for row in done.log if row.step == "read")
    done.write("aside", step="read", closing=first.closing, round=1, place="", reason="dial moved")
    assert not done.claims["second"].proven


def test_the_nut_is_not_locked_below_its_window() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("last")
    done.tick_until("refit")
    done.pack(0.5, 0.1)
    done.torque()
    done.angle("1 deg")
    done.angle("20 deg")
    done.torque("20 N·m")
    assert done.due().step.id == "lock_torque"
    assert str(done.line) == "Torque on to 61 N·m (45 lbf·ft), then enter what is reached."
    assert "58 N·m to 90 N·m" in done.line.why
    assert done.claims["torque"].blocks
    done.torque("83 N·m")
    assert done.due().step.id == "lock"


def test_a_nut_past_its_ceiling_is_not_backed_off_to_hide_it() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("last")
    done.tick_until("refit")
    done.pack(0.5, 0.1)
    done.torque()
    done.angle("1 deg")
    done.angle("20 deg")
    done.torque("120 N·m")
    assert done.line.kind == "stop"


def test_another_pack_than_the_one_that_was_read_is_said() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.15), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert not done.claims["identical"].proven
    assert not done.claims["adds_up"].proven
    assert done.statement == "set"


def test_what_was_undone_is_due_again() -> None:
    done = proven()
    assert done.due().step.id == "sign"
    done.open("last")
    again = {row.step.id for row in done.progress.rows if row.state in ("due", "waits", "later")}
    assert {
        "packed",
        "seal_in",
        "refit",
        "final_torque",
        "seat",
        "lock",
        "locked_reading",
        "wheel_bolts",
    } <= again
    packed = done.progress.row("packed", "")
    assert packed is not None
    assert packed.stale
    assert done.due().step.id == "packed"


def test_unsourced_work_is_never_proven() -> None:
    done = proven()
    sources = [{"key": "sheet", "kind": "unsourced", "ref": "none found"}]
    done.card = card_from(document(sources=sources))
    assert done.statement == "unsourced"


def test_two_sources_that_differ_block_until_one_rules() -> None:
    sources = [
        {"key": "sheet", "kind": "hub_maker", "ref": "A"},
        {"key": "book", "kind": "kit_sheet", "ref": "B"},
    ]
    rival = setting(source="book", torque="70 N·m")
    done = proven()
    done.card = card_from(document(sources=sources, settings=[setting(), rival]))
    assert not done.claims["source"].proven
    sources[1]["rules"] = True  # type: ignore[assignment]
    done.card = card_from(document(sources=sources, settings=[setting(), rival]))
    assert done.claims["source"].proven
    assert done.card.setting.torque is not None
    assert done.card.setting.torque.text == "70 N·m"


def test_a_step_left_out_shows() -> None:
    done = Worked()
    done.tick_until("cups_home")
    done.write("skip", reason="cups not touched", place="", round=1)
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert done.statement == "set"
    assert "cups not touched" in done.claims["steps"].fact


def test_hands_prove_nothing_and_do_not_disturb_the_dial() -> None:
    done = Worked()
    done.trial((0.5, 0.2), "0 mm", "0.20 mm", "0 mm", "0.20 mm")
    before = done.judgement.found.plan  # type: ignore[attr-defined]
    done.open("change")
    done.pack(0.5, 0.1)
    done.torque()
    done.write("pick", step="dial", typed="hands", round=2)
    done.write("no_play", place="")
    found = done.judgement.found  # type: ignore[attr-defined]
    assert found.judged_by_hand
    assert found.plan == before
    assert done.judgement.is_set
    assert not done.claims["end_play"].proven


def test_hands_that_feel_play_are_told_to_take_a_dial() -> None:
    done = Worked(dial=None)
    done.tick_until("fit_pack")
    done.pack(0.5)
    done.torque()
    done.write("pick", typed="hands")
    done.write("felt", place="")
    assert "take a dial" in str(done.line)


def test_an_axle_needs_both_plates_before_a_reading() -> None:
    done = Worked(card=card_from(axle_document()))
    done.tick_until("fit_pack")
    done.pack(0.3)
    done.pack(0.3, 0.1)
    for _ in range(12):
        done.write("bolt")
    row = done.progress.row("read", "")
    assert row is not None
    assert row.state == "waits"
    assert (done.due().step.id, done.due().station) == ("plate_bolts", "right")


def test_a_few_bolts_are_a_rough_try() -> None:
    done = Worked(card=card_from(axle_document()))
    done.tick_until("fit_pack")
    done.pack(0.3)
    done.pack(0.3, 0.1)
    done.write("few", place="")
    done.write("few", place="")
    done.write()
    done.write("pick", typed="shaft_end", instrument=DIAL)
    done.read("0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert not done.judgement.is_set
    assert "All bolts to" in str(done.line)


def test_ends_that_differ_beyond_the_doubt_stop_the_work() -> None:
    done = Worked(card=card_from(axle_document()))
    done.tick_until("fit_pack")
    done.pack(0.3)
    done.pack(0.3)
    done.tick_until("dial")
    done.write("pick", typed="shaft_end", instrument=DIAL)
    done.read("0 mm", "0.10 mm", "0 mm", "0.11 mm")
    assert done.judgement.is_set
    done.correct(done.log[-1], "0.16 mm")
    assert str(done.line) == "Push in at right end, again, hold, read."
    done.read("0 mm", "0.16 mm", "0 mm", "0.10 mm")
    assert done.line.key == "0.06 mm apart"
    assert done.line.kind == "stop"
    assert not done.judgement.is_set


def test_the_wrench_is_asked_about_at_the_day_it_was_used() -> None:
    done = Worked(
        wrench=replace(
            WRENCH, facts={**WRENCH.facts, "calibrated_on": "2026-01-10", "used_on": "2026-11-26"}
        )
    )
    done.tick_until("fit_pack")
    done.pack(0.5)
    entry = done.value("61 N·m", TORQUE)
    assert entry.instrument is not None
    assert not entry.instrument.wrench.calibration_due


@pytest.mark.parametrize(
    ("step", "typed", "dimension", "due"),
    [
        ("final_torque", "61 N·m", TORQUE, "seat"),
        ("seat", "9 deg", ANGLE, "seat"),
        ("place", "30 deg", ANGLE, "lock_torque"),
        ("lock_torque", "85 N·m", TORQUE, "lock"),
    ],
)
def test_what_moves_the_nut_again_undoes_what_came_after_it(
    step: str, typed: str, dimension: Dimension, due: str
) -> None:
    done = proven()
    done.value(typed, dimension, step=step, round=7)
    assert done.due().step.id == due
    assert not done.claims["lock"].proven
    assert not done.claims["end_play"].proven
    assert "not read since" in done.claims["end_play"].fact
    assert done.statement == "not_set"


def test_after_the_nut_was_torqued_again_it_is_locked_and_read_again() -> None:
    done = proven()
    done.value("85 N·m", TORQUE, step="lock_torque", round=2)
    done.lock_it()
    locked = done.log[-1]
    assert (locked.step, locked.place, locked.round) == ("lock", "pin", 2)
    done.read("0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert [row.round for row in done.log[-4:]] == [2, 2, 2, 2]
    assert done.claims["end_play"].proven
    assert done.due().step.id == "cap"  # it had to come off
    done.tick_until("sign")
    assert done.statement == "proven"


def test_a_figure_put_right_moves_no_nut() -> None:
    done = proven()
    wrong = next(row for row in done.log if row.step == "lock_torque")
    right = replace(wrong, id=len(done.log) + 1, typed="84 N·m", value=84.0, corrects=wrong.id)
    done.log.append(right)
    assert done.statement == "proven"
    done.log[-1] = replace(right, typed="40 N·m", value=40.0)
    assert not done.claims["end_play"].proven  # it was read at a torque that the card does not ask
    assert done.statement == "not_set"


def test_a_dial_that_was_moved_begins_another_series() -> None:
    done = Worked()
    done.tick_until("fit_pack")
    done.pack(0.5, 0.1)
    done.torque("61 N·m")
    done.write("pick", typed="spindle_axis", instrument=DIAL)
    done.read("0 mm")
    done.write("pick", typed="spindle_axis", step="dial", instrument=DIAL)
    done.read("0.10 mm", "0.20 mm")
    first, second = done.judgement.found.trials  # type: ignore[attr-defined]
    assert not first.series.complete
    assert list(second.series.readings) == [("12", "in"), ("12", "out")]


def test_a_series_of_two_dials_is_worth_its_worse_one() -> None:
    done = proven()
    first = next(row for row in done.log if row.step == "locked_reading")
    before = done.claims["end_play"].measured
    done.log[done.log.index(first)] = replace(first, instrument=FINE)
    assert done.claims["end_play"].measured == before
