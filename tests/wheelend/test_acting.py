"""The next best act: what a good foreman would say, and never a dead end."""

import pytest

from wheelend.card import card_from
from wheelend.methods.judgement import Bench, Dial, Usual
from wheelend.methods.shims import Assessment
from wheelend.methods.shims.acting import Act, mark_of, next_act
from wheelend.methods.shims.history import scatter_of, usual_of
from wheelend.methods.shims.proving import can_prove, coarsest_that_proves
from wheelend.procedure.log import Instrument
from wheelend.shims import TrayShim, total_mm
from wheelend.verdict import Gauge, Limits

from .worked import DIAL, FINE, Worked, document, setting


def found_of(done: Worked, **more: object) -> Assessment:
    return Assessment(Bench(done.progress, done.tray, **more))  # type: ignore[arg-type]


def act_of(done: Worked, **more: object) -> Act:
    return next_act(found_of(done, **more))


def once_more(done: Worked, place: str = "12 again") -> None:
    done.write("again", step="read", place=place, round=1, reason="do not add up")


def apart() -> Worked:
    """Two trials that do not add up: 0.08 mm more play than the shims explain."""
    done = Worked()
    done.trial((0.5, 0.2), "0 mm", "0.20 mm", "0 mm", "0.20 mm")
    done.open("change")
    done.trial((0.5, 0.15), "0 mm", "0.23 mm", "0 mm", "0.23 mm")
    return done


def test_an_alarm_asks_first_for_the_one_reading_that_settles_it() -> None:
    done = apart()
    act = act_of(done)
    assert (act.kind, act.place) == ("read_again", "12 again")
    assert str(done.line) == "Seat both ways, then read 12 o’clock once more."
    once_more(done)
    assert done.due().slot.place == "12 again"
    assert "whether it is this trial or the packs" in done.line.why


def test_read_again_the_same_the_cause_is_named_and_the_trial_set_aside() -> None:
    done = apart()
    once_more(done)
    done.read("0 mm", "0.23 mm")
    found = found_of(done)
    act = next_act(found)
    assert (act.kind, act.trial) == ("set_aside", 1)
    assert act.cause is not None
    assert act.cause.key == "not_home"
    mark = mark_of(found, act)
    assert mark is not None
    first = found.trial(1).series.closing
    assert (mark.kind, mark.step, mark.closing, mark.round) == ("aside", "read", first, 1)
    assert "not home in the earlier trial" in mark.reason
    done.write("aside", step="read", place="", closing=first, round=1, reason=mark.reason)
    assert act_of(done).kind == "swap"


def test_read_again_another_the_series_is_set_aside_and_read_anew() -> None:
    done = apart()
    once_more(done)
    done.read("0 mm", "0.15 mm")
    assert not done.judgement.is_set
    act = act_of(done)
    assert (act.kind, act.trial) == ("read_anew", 2)
    done.write("aside", step="read", place="", round=1, reason="went home")
    assert done.due().slot.round == 2
    done.read("0 mm", "0.15 mm", "0 mm", "0.15 mm")
    found = found_of(done)
    assert found.disagreement() is None


def test_the_odd_one_of_three_is_set_aside() -> None:
    done = Worked()
    done.trial((0.5, 0.2), "0 mm", "0.29 mm", "0 mm", "0.29 mm")
    done.open("change")
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.open("change")
    done.trial((0.5, 0.05), "0 mm", "0.05 mm", "0 mm", "0.05 mm")
    act = act_of(done)
    assert (act.kind, act.trial) == ("set_aside", 1)
    assert "speaks against the others" in str(done.line)


def test_a_bound_trial_that_should_have_play_is_tried_again_before_causes() -> None:
    done = Worked()
    done.trial((0.5, 0.2), "0 mm", "0.20 mm", "0 mm", "0.20 mm")
    done.open("change")
    done.pack(0.5, 0.15)
    done.torque()
    done.write("bound", place="", instrument=DIAL)
    assert act_of(done).kind == "try_again"
    done.write("aside", step="read", place="", round=1, reason="tried again")
    done.write("bound", place="", round=2, instrument=DIAL)
    act = act_of(done)
    assert act.kind in ("measure", "clean")
    assert act.cause is not None


NARROW = card_from(document(settings=[setting(limits={"low": "0.09 mm", "high": "0.11 mm"})]))


def test_a_gauge_that_can_prove_nothing_says_so_after_the_first_reading() -> None:
    done = Worked(card=NARROW)
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.11 mm")
    act = act_of(done)
    assert (act.kind, act.dial, act.step_mm) == ("finer_dial", None, 0.002)
    assert str(done.line) == "Too close to call: read with a dial of 0.002 mm or finer."


def test_the_shops_own_dial_is_named_the_coarsest_that_proves_it() -> None:
    done = Worked(card=NARROW)
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.11 mm")
    dials = tuple(
        Dial(name, Gauge(step, 0.4 * step))
        for name, step in (("coarse", 0.01), ("fine", 0.002), ("finest", 0.001))
    )
    act = act_of(done, find_dials=lambda: dials)
    assert act.dial is not None
    assert act.dial.name == "fine"
    coarse = act_of(done, find_dials=lambda: dials[:1])
    assert (coarse.kind, coarse.dial) == ("finer_dial", None)


def test_no_pack_is_advised_that_was_tried() -> None:
    done = Worked(tray=(TrayShim(0.1, 2), TrayShim(0.05, 1)), dial=FINE, card=NARROW)
    tried = []
    pack: tuple[float, ...] = (0.5, 0.15)
    for play in ("0.152 mm", "0.112 mm", "0.088 mm"):
        done.trial(pack, "0 mm", play, "0 mm", play)
        tried.append(sorted(pack))
        choice = act_of(done).choice
        if choice is None:
            break
        assert sorted(choice.pack[0]) not in tried
        pack = choice.pack[0]
        done.open("change")


def test_what_to_get_lands_on_the_aim_and_is_planned_with_once_it_is_there() -> None:
    done = Worked(tray=())
    done.trial((0.5, 0.3), "0 mm", "0.30 mm", "0 mm", "0.30 mm")
    act = act_of(done)
    assert act.kind == "buy"
    done.tray = (TrayShim(act.sizes[0], 1),)
    choice = act_of(done).choice
    assert choice is not None
    assert choice.predicted_mm == pytest.approx(0.10, abs=0.005)


def test_one_shim_in_the_place_of_several_where_no_single_one_is_thin_enough() -> None:
    done = Worked(tray=())
    done.trial((0.1, 0.1, 0.1), "0 mm", "0.25 mm", "0 mm", "0.25 mm")
    act = act_of(done)
    assert act.kind == "buy"
    assert act.sizes[0] == pytest.approx(0.05)


def test_no_shim_helps_where_even_none_is_too_much() -> None:
    done = Worked(tray=())
    done.trial((0.1,), "0 mm", "0.40 mm", "0 mm", "0.40 mm")
    assert act_of(done).kind == "no_shims"
    assert "a wrong spacer" in done.line.why


def test_bound_where_a_thicker_pack_closes_takes_out_what_there_is() -> None:
    closing = card_from(document(settings=[setting(effect="closes")]))
    done = Worked(card=closing)
    done.tick_until("fit_pack")
    done.pack(0.1, 0.05)
    done.torque()
    done.write("pick", typed="spindle_axis", instrument=DIAL)
    done.write("bound", place="")
    act = act_of(done)
    assert act.kind == "open"
    assert act.choice is not None
    assert total_mm(act.choice.pack) < 0.15
    assert "opens it no further" in done.line.why
    done.open("change")
    done.pack()
    done.torque()
    done.write("bound", place="", instrument=DIAL)
    assert act_of(done).kind == "no_shims"


def test_how_far_to_open_follows_what_hubs_of_this_card_needed() -> None:
    done = Worked(tray=(TrayShim(0.2, 3), TrayShim(0.5, 2)))
    done.tick_until("fit_pack")
    done.pack(0.5)
    done.torque()
    done.write("pick", typed="spindle_axis", instrument=DIAL)
    done.write("bound", place="")
    plain = act_of(done).choice
    usual = act_of(done, find_usual=lambda: Usual(1.0, 0.05, 6)).choice
    assert plain is not None
    assert usual is not None
    assert total_mm(plain.pack) == pytest.approx(0.7)
    assert total_mm(usual.pack) >= 1.05


def test_history_needs_enough_of_it() -> None:
    assert usual_of([0.8, 0.9]) is None
    assert usual_of([0.8, 0.9, 0.85]) == Usual(0.85, 0.05, 3)
    series = [([0.100, 0.104, 0.096], 0.001)] * 9
    assert scatter_of(series) is None
    found = scatter_of([*series, ([0.100, 0.104], 0.001), ([0.1], 0.001)])
    assert found is not None
    assert found.series == 10
    assert found.deviation_mm == pytest.approx(0.004, abs=0.0005)


def test_a_third_trial_helps_where_each_alone_is_too_close_to_call() -> None:
    limits = {"low": "0.075 mm", "high": "0.115 mm"}
    coarse = Instrument("dial", {**DIAL.facts, "resolution_mm": 0.02, "calibration_mm": 0.0})
    done = Worked(dial=coarse, card=card_from(document(settings=[setting(limits=limits)])))
    for pack, play in (((0.5, 0.2), "0.20 mm"), ((0.5, 0.15), "0.14 mm"), ((0.5, 0.1), "0.10 mm")):
        done.trial(pack, "0 mm", play, "0 mm", play)
        if pack != (0.5, 0.1):
            assert not done.judgement.is_set
            done.open("change")
    found = found_of(done)
    assert found.verdict is not None
    assert found.verdict.word == "undecided"
    assert found.together is not None
    assert found.together[1] < found.play.U_mm  # type: ignore[union-attr]
    assert "weighed together" in done.line.why
    assert "weighed together" in done.claims["end_play"].fact


def test_nothing_is_said_of_seats_from_one_pack_or_one_opening() -> None:
    done = Worked()
    done.trial((0.5, 0.2), "0 mm", "0.20 mm", "0 mm", "0.20 mm")
    done.open("change")
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert "agree" not in done.line.why
    done.open("change")
    done.trial((0.5, 0.15), "0 mm", "0.15 mm", "0 mm", "0.15 mm")
    done.open("change")
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    assert "All trials agree" in done.line.why


def test_the_locked_reading_is_compared_by_the_doubt_of_the_difference() -> None:
    for locked, adds_up in (("0.105 mm", True), ("0.130 mm", False)):
        done = Worked(dial=FINE)
        done.trial((0.5, 0.1), "0 mm", "0.100 mm", "0 mm", "0.100 mm")
        done.finish((0.5, 0.1), "0 mm", locked, "0 mm", locked, at_place="83 N·m")
        assert done.claims["adds_up"].proven is adds_up


@pytest.mark.parametrize(("moves", "statement"), [(("14 deg", "1 deg"), "proven"), ((), "not_set")])
def test_a_nut_that_was_never_seated_is_not_set(moves: tuple[str, ...], statement: str) -> None:
    done = Worked()
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm")
    done.finish((0.5, 0.1), "0 mm", "0.10 mm", "0 mm", "0.10 mm", at_place="83 N·m")
    assert done.statement == "proven"
    if not moves:
        done.log = [row for row in done.log if row.step != "seat"]
    assert done.statement == statement
    assert done.claims["seated"].blocks is (statement == "not_set")


def test_what_a_gauge_can_prove_is_a_matter_of_its_window() -> None:
    wide, narrow = Limits(0.05, 0.15), Limits(0.09, 0.11)
    assert can_prove(Gauge(0.01, 0.004), 3, 0.003, wide)
    assert not can_prove(Gauge(0.01, 0.004), 3, 0.003, narrow)
    assert coarsest_that_proves(3, 0.003, wide) == 0.01
    assert coarsest_that_proves(3, 0.003, narrow) == 0.005


def test_after_many_trials_beside_the_window_the_shims_are_measured() -> None:
    done = Worked(dial=FINE, card=NARROW)
    packs = [(0.5, 0.1), (0.5, 0.05), (0.2, 0.2, 0.1), (0.2, 0.2, 0.05), (0.5, 0.0762), (0.5,)]
    for pack in packs:
        play = f"{sum(pack) - 0.43:.3f} mm"
        done.trial(pack, "0 mm", play, "0 mm", play)
        if pack != packs[-1]:
            done.open("change")
    assert act_of(done).kind == "measure_shims"
    assert (
        str(done.line)
        == "Measure the shims of the tray with a micrometer, and enter what they are."
    )


def test_a_place_that_was_read_the_other_way_round_is_read_again_and_named() -> None:
    done = Worked(card=card_from(document(read_at=["12", "4", "8"])))
    done.trial((0.5, 0.1), "0 mm", "0.10 mm", "0.11 mm", "0 mm", "0 mm", "0.10 mm")
    assert done.due().slot.place == "4 again"
    assert "In and out exchanged" in done.line.why
    done.read("0 mm", "0.11 mm")
    assert done.judgement.is_set
