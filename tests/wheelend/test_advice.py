"""What the next line says: numbers that a good foreman would give, and none that he would not."""

from dataclasses import replace

import pytest

from wheelend.arrangements import arrangement
from wheelend.card import card_from
from wheelend.locknut import Washer
from wheelend.procedure.locking import washer_words
from wheelend.shims import TrayShim

from .worked import DIAL, FINE, Worked, document, setting


def test_the_line_asks_for_the_reading_that_is_due_and_what_it_should_be() -> None:
    done = Worked()
    done.trial((0.5, 0.15), "0 mm", "0.18 mm", "0 mm", "0.18 mm")
    done.open("change")
    assert str(done.line) == "Fit 0.50 + 0.0762."
    done.pack(0.5, 0.0762)
    done.torque()
    assert str(done.line) == "Push in at 12 o’clock, hold, read."
    assert "Earlier trials say 0.11 mm (4.2 thou) of play for this pack." in done.line.why


def test_too_loose_says_what_to_take_out_and_what_it_will_give() -> None:
    done = Worked()
    done.trial((0.5, 0.15), "0 mm", "0.18 mm", "0 mm", "0.18 mm")
    assert str(done.line).startswith("Take out 0.07 mm (2.9 thou): take out 0.15, put in 0.0762.")
    assert "the card allows 0.05 mm to 0.15 mm" in done.line.why


def test_a_later_bound_trial_does_not_blame_the_earlier_one_with_a_wrong_figure() -> None:
    done = Worked()
    done.trial((0.5, 0.2), "0 mm", "0.20 mm", "0 mm", "0.20 mm")
    done.open("change")
    done.pack(0.5, 0.15)
    done.torque()
    done.write("bound", place="", instrument=DIAL)
    found = done.judgement.found  # type: ignore[attr-defined]
    apart = found.disagreement()
    assert (apart.earlier, apart.later) == (1, 2)
    assert apart.unexplained_mm == pytest.approx(-0.15)
    assert done.line.key == "try again"
    assert "0.15 mm of play is not explained" in done.line.why
    assert {cause.key for cause in found.causes()[:2]} == {"miscounted", "not_home"}


def test_no_change_is_advised_that_the_dial_could_not_see() -> None:
    tray = (TrayShim(0.096, 1), TrayShim(0.1, 1))
    done = Worked(tray=tray)
    done.trial((0.5, 0.1), "0 mm", "0.15 mm", "0 mm", "0.15 mm")
    assert str(done.line) == "Get a shim of 0.45 mm or 18 thou and enter it in the tray."
    assert "the aim is 0.10 mm" in done.line.why


def test_limits_are_printed_as_the_card_has_them_whatever_the_dial() -> None:
    coarse = DIAL.__class__(
        "coarse", {"resolution_mm": 0.1, "calibration_mm": 0.0, "dial_at": "spindle_axis"}
    )
    done = Worked(dial=coarse)
    done.trial((0.5, 0.1), "0 mm", "0.3 mm", "0 mm", "0.3 mm")
    assert "0.05 mm to 0.15 mm" in done.line.why


def test_a_torque_is_printed_as_the_card_has_it() -> None:
    done = Worked(
        card=card_from(
            document(settings=[setting(torque="22.5 N·m", torque_limits={"low": "20 N·m"})])
        )
    )
    done.tick_until("fit_pack")
    done.pack(0.5)
    assert str(done.line).startswith("Nut to 22.5 N·m (16.6 lbf·ft)")


def test_a_washer_is_advised_as_a_range() -> None:
    lock = {"kind": "pin", "pitch": "1.5 mm", "slots": 6, "openings": 2}
    said = setting(
        torque_limits={"low": "85 N·m", "high": "110 N·m"}, torque_per_deg="1.5 N·m/deg", lock=lock
    )
    done = Worked(
        card=card_from(document(settings=[said], choices={"lock_policy": "torque_window"}))
    )
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", torque="86 N·m")
    done.open("last")
    done.tick_until("refit")
    done.pack(0.5, 0.1)
    done.torque("86 N·m")
    done.angle("1 deg")
    done.angle("50 deg")
    assert done.line.kind == "washer"
    assert (
        "0.04 to 0.11 mm (1.6 to 4.3 thou) thicker or 0.14 to 0.21 mm (5.6 to 8.2 thou) thinner"
        in str(done.line)
    )


def test_bound_opens_and_says_what_goes_in() -> None:
    done = Worked()
    done.tick_until("fit_pack")
    done.pack(0.5)
    done.torque()
    done.write("pick", typed="spindle_axis", instrument=DIAL)
    done.write("bound", place="")
    assert str(done.line).startswith("Add 0.20 mm (7.9 thou): put in 0.20.")
    assert "no reading is possible" in done.line.why


def test_nothing_in_the_tray_names_the_size_to_get() -> None:
    done = Worked(tray=())
    done.trial((0.5, 0.3), "0 mm", "0.30 mm", "0 mm", "0.30 mm")
    assert done.line.kind == "buy"
    assert "0.30 mm" in str(done.line)


def test_agreement_is_not_claimed_from_one_pack_read_twice() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("change")
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert "All trials agree" not in done.line.why


def test_a_trial_set_aside_takes_no_part_and_asks_for_another_series() -> None:
    done = Worked()
    done.trial((0.5, 0.15), "0 mm", "0.18 mm", "0 mm", "0.18 mm")
    done.write("aside", step="read", place="", round=1, reason="dial moved")
    assert done.due().step.id == "read"
    assert done.due().slot.round == 2
    assert done.judgement.found.counted == ()  # type: ignore[attr-defined]
    done.read("0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert done.judgement.is_set


def test_a_torque_written_again_begins_a_new_series() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", torque="40 N·m")
    done.torque("61 N·m", step="trial_torque")
    assert done.due().step.id == "read"
    done.read("0 mm", "0.10 mm", "0 mm", "0.10 mm")
    found = done.judgement.found  # type: ignore[attr-defined]
    assert [trial.rough for trial in found.trials] == [True, False]
    assert done.judgement.is_set


def test_a_reading_taken_back_is_due_again() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.take_back(done.log[-1])
    assert (done.due().slot.place, done.due().slot.push) == ("6", "out")


def test_a_finer_dial_settles_what_a_coarse_one_could_not() -> None:
    narrow = setting(limits={"low": "0.052 mm", "high": "0.068 mm"})
    for dial, kind in ((DIAL, "undecided"), (FINE, "set")):
        done = Worked(card=card_from(document(settings=[narrow])), dial=dial, tray=())
        done.trial((0.5, 0.1), "0 mm", "0.060 mm", "0 mm", "0.060 mm")
        assert done.line.kind == kind


def test_a_dial_without_papers_counts_as_one_step_off() -> None:
    bare = DIAL.__class__("bare", {"resolution_mm": 0.01, "dial_at": "spindle_axis"})
    with_papers, without = Worked(), Worked(dial=bare)
    for done in (with_papers, without):
        done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    plays = [done.judgement.found.play for done in (with_papers, without)]  # type: ignore[attr-defined]
    assert plays[1].U_mm > plays[0].U_mm
    assert "without a certificate" in without.claims["end_play"].fact


def test_a_nut_that_does_not_settle_stops_the_work() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("last")
    done.tick_until("refit")
    done.pack(0.5, 0.1)
    done.torque()
    done.angle("10 deg")
    assert "Repeat until it moves 2 deg or less" in done.line.why
    done.angle("20 deg")
    assert done.line.kind == "stop"


def test_a_bolt_that_moves_asks_for_another_round() -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("last")
    done.finish_from_open((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", upto="wheel_bolts")
    for _ in range(14):
        done.write("bolt")
    done.write("moved")
    assert done.due().slot.place == "4.1"
    for _ in range(5):
        done.write("bolt")
    assert done.due().step.id == "on_ground"
    assert "4 rounds" in done.claims["bolts"].fact


def test_every_step_says_something() -> None:
    for key in ("shimmed_pair", "through_axle"):
        for step in arrangement(key).steps:
            assert step.asks[-1] in ".?", step.id
            assert step.says[0].isupper(), step.id


@pytest.mark.parametrize(
    ("washer", "words"),
    [
        (Washer(0.034, None, 0.112, None), ["1.3 to 4.4 thou (0.03 to 0.11 mm) thicker"]),
        (Washer(0.16, 0.001, 0.2, 0.04), ["6.3 to 7.9 thou (0.16 to 0.20 mm) thicker", "up to 1.6 thou (0.04 mm) thinner"]),
        (Washer(0.001, 0.03, 0.002, 0.031), ["1.2 thou (0.03 mm) thinner"]),
        (Washer(0.001, None, None, None), []),
    ],
)  # fmt: skip
def test_washers_lead_with_the_shops_unit_and_none_is_no_thickness(
    washer: Washer, words: list[str]
) -> None:
    row = Worked().due()
    inch = replace(row, at=replace(row.at, lead="inch"))
    assert washer_words(washer, inch) == words
