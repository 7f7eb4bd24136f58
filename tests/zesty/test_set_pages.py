"""Set, lock, prove and close by every method through their pages: what stands there is what the core says."""

import re
import uuid
from dataclasses import replace
from typing import Any

import pytest
from bs4 import BeautifulSoup

from wheelend.arrangements import KEYS
from wheelend.drag import DragTrial, Steps, next_spacer
from wheelend.locknut import Lock, Nut, lock_positions
from wheelend.nutangle import nut_angle
from wheelend.procedure.asking import band
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.progress import Row
from wheelend.quantity import FORCE, TORQUE
from wheelend.recheck import recheck
from wheelend.verdict import Limits
from zesty.bench.actions import log
from zesty.bench.forms import form_for
from zesty.bench.queries.jobfile import JobFile
from zesty.cards.actions import fit_card
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.records.models import Recheck, SignOff
from zesty.records.rechecks import open_rechecks
from zesty.stores.actions import add_meter

from .conftest import Shop, as_owner, make_shop, text
from .test_press_pages import CARDS, page, words

pytestmark = [pytest.mark.django_db, pytest.mark.usefixtures("app_role")]
BY_KEY = {card["arrangement"]: card["name"] for card in CARDS.values()}


def shop_of(key: str, **more: Any) -> Shop:
    """A workshop with a job on the demo's card of an arrangement."""
    with as_owner():
        return make_shop(
            "ours",
            **{
                "choices": {},
                "bolt_rings": [],
                **CARDS[BY_KEY[key]],
                "second_person": False,
                **more,
            },
        )


class Hand:
    """One who answers each step by what is in the middle of what the card allows.

    `send` posts a form as its page would. On the way to another step the forms are filled and written
    without a page between them, but where `pages` says that each is sent.
    """

    def __init__(self, shop: Shop, *, pages: bool = False) -> None:
        self.shop, self.pages = shop, pages
        self.client = shop.client()
        self.asked: list[str] = []
        self.file: JobFile | None = None

    def due(self) -> Row:
        due = (self.file or self.shop.file).units[0].progress.due
        assert due is not None
        return due

    def send(self, **data: Any) -> None:
        file = self.file or self.shop.file
        unit = file.units[0]
        due = unit.progress.due
        assert due is not None
        sent = {"step": due.step.id, "station": due.station, "place": due.slot.place,
                "round": due.slot.round, "token": uuid.uuid4(), **data}  # fmt: skip
        if self.file is not None:
            form = form_for(file, unit, due, {name: str(value) for name, value in sent.items()})
            assert form is not None
            assert form.is_valid(), form.errors
            self.file = log.write(
                file, unit, self.shop.people["tech"], replace(form.say(), sure=True)
            )
            return
        answer = self.client.post(f"/jobs/{self.shop.job.pk}/1/{due.step.stage}/write", sent)
        assert answer.status_code == 302, f"{due.step.id} {data}: {text(answer)[:300]}"

    def until(self, step: str) -> None:
        self.file = None if self.pages else self.shop.file
        for _ in range(330):
            due = self.due()
            if due.step.id == step:
                self.file = None
                return
            self.asked.append(due.step.id)
            self.answer(due)
        raise AssertionError(f"no way on from {self.asked[-3:]} to {step}")

    def answer(self, due: Row) -> None:
        known = {
            "text": {"text": "As it was found."}, "usage": {"value": "45560 km"}, "tick": {}, "photo": {},
            "seat": {"value": "1"}, "place": {"value": "1"}, "checks": {"enough": "yes"},
            "bolts": {}, "measure": {"enough": "yes"},  "warmth": {"answer": "cold"},
        }  # fmt: skip
        entry = due.step.entry
        if due.step.kind == "turned_back":
            self.send(value="20 deg")
        elif entry in known:
            self.send(**known[entry])
        else:
            getattr(self, f"_{entry}")(due)

    def _pick(self, due: Row) -> None:
        self.send(answer="strip" if due.step.kind == "verdict" else due.step.options[0].key)

    def _opening(self, due: Row) -> None:
        keys = [option.key for option in due.step.options]
        self.send(answer="last" if "last" in keys else keys[0])

    def _list(self, due: Row) -> None:
        item = due_item(due.at) if due.step.kind in ("lock", "made_free", "fastened") else None
        self.send(
            **({"place": item.key, "answer": item.choices[0].key} if item else {"enough": "yes"})
        )

    def _torque(self, due: Row) -> None:
        wanted = due.at.setting.torque
        self.send(value=wanted.text if wanted else "50 N·m", sure="on")

    def _dial(self, _: Row) -> None:
        self.send(dial=self.shop.tool("dial").pk, dial_at="spindle_axis")

    def _series(self, due: Row) -> None:
        window = due.at.setting.limits
        middle = (window.limits.lowest + window.limits.highest) / 2 if window else 0.1
        self.send(value="0" if due.slot.push == "in" else f"{middle:.2f}", push=due.slot.push)

    def _band(self, due: Row) -> None:
        limits, wanted = band.limits_of(due.at)
        middle = (limits.lowest + limits.highest) / 2 if limits else 1.0
        share = 0.9 if due.slot.place == "low" else 1.1
        self.send(value=f"{middle * share:.2f} {'N' if wanted is FORCE else 'N·m'}")

    def _stand_out(self, _: Row) -> None:
        self.send(value="0.15")

    def _level(self, due: Row) -> None:
        self.send(answer="stays" if due.slot.place == "level" else "done")

    def _turns(self, due: Row) -> None:
        done = len(due.at.entries)
        self.send(answer="done" if done > 3 else "one" if done % 2 else "other")

    def _pack(self, _: Row) -> None:
        self.send(pack="0.50, 0.10")

    _refit = _pack


@pytest.mark.parametrize("key", KEYS)
def test_a_whole_job_from_take_in_to_the_sheet(key: str) -> None:
    shop = shop_of(key)
    hand = Hand(shop, pages=True)
    hand.until("sign")
    close = page(shop, "close")
    shown = {
        words(BeautifulSoup(str(one), "html.parser"), "strong")
        for one in close.select(".claims > li")
    }
    assert shown == {claim.name for claim in shop.unit.claims}
    facts = [" ".join(one.get_text(" ").split()) for one in close.select(".claims .fact")]
    assert facts == [" ".join(claim.fact.split()) for claim in shop.unit.claims]
    blocked = [claim.fact for claim in shop.unit.claims if claim.blocks]
    assert blocked == []
    assert shop.sign(handover="Done.").status_code == 302
    signed = SignOff.objects.get(job=shop.job)
    assert signed.statement == shop.unit.statement != "not_set"
    for claim in shop.unit.claims:
        assert claim.name in signed.sheet_html.replace("&#x27;", "'")


# ---- nut angle


def turned(shop: Shop, play: str = "0.08") -> Hand:
    hand = Hand(shop)
    hand.until("turned_back")
    hand.send(value="20 deg")
    hand.answer(hand.due())
    while hand.due().step.id == "read":
        hand.send(value="0" if hand.due().slot.push == "in" else play, push=hand.due().slot.push)
    return hand


def test_the_places_on_the_page_are_those_of_the_core() -> None:
    shop = shop_of("slotted_nut")
    hand = turned(shop)
    hand.send(value="4 deg")
    soup = page(shop, "lock")
    now = shop.unit.judgement.found.counts  # type: ignore[attr-defined]
    plan = lock_positions(
        Lock(6, 4),
        Nut(3 / 2, "nearest_within", play_mm=now.value, limits=Limits(0.03, 0.12), aim_mm=0.075),
    )  # type: ignore[arg-type]
    assert plan.chosen is not None
    chosen = plan.positions[plan.chosen]
    assert words(soup, ".next-line .key, h1 b, h1 mark") == f"{chosen.angle_deg:.0f}° on"
    row = words(soup, ".places tr.odd")
    assert row.startswith("4° on")
    assert f"{chosen.play_mm:.2f} mm" in row
    assert "this one" in row
    assert "4 degrees, play 0.06: take it" in words(soup, "svg title")


def test_the_line_turns_back_by_what_pitch_and_aim_make() -> None:
    shop = shop_of("slotted_nut")
    Hand(shop).until("turned_back")
    line = words(page(shop, "set"), ".next-line")
    assert "20°" in line
    play = nut_angle(1.5, 20).play_mm
    assert f"{play:.2f} mm" in line


def test_an_angle_past_a_turn_and_one_that_is_too_far_keep_what_was_typed() -> None:
    shop = shop_of("slotted_nut")
    Hand(shop).until("turned_back")
    answer = shop.post(shop.client(), "turned_back", "set", value="380 deg")
    assert answer.status_code == 422
    assert "not between 0 and 360 deg" in text(answer)
    assert 'value="380 deg"' in answer.content.decode()
    answer = shop.post(shop.client(), "turned_back", "set", value="200 deg")
    assert answer.status_code == 422
    assert "Is it 20 deg" in text(answer)
    assert shop.unit.progress.due.step.id == "turned_back"  # type: ignore[union-attr]


def test_a_preset_nut_that_someone_tries_to_back_off_is_refused_with_the_reason() -> None:
    shop = shop_of("preset")
    Hand(shop).until("seat")
    with pytest.raises(Refused, match="never loosened to find a place"):
        log.choose(shop.file, shop.unit, shop.people["tech"], what="lock_policy", value="nearest_within",
                   reason="the slot is just behind", token=uuid.uuid4())  # fmt: skip
    answer = shop.post(shop.client(), "seat", "set", value="-5 deg")
    assert answer.status_code == 422


# ---- drag


def bench_trial(hand: Hand, shim: str, low: str, high: str) -> None:
    hand.until("shim_measured")
    for _ in range(4):
        hand.send(value=shim)
    hand.until("bench_drag")
    hand.send(value=low)
    hand.send(value=high)


def test_the_next_shim_on_the_page_is_that_of_the_core() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    bench_trial(hand, "0.350 mm", "1.20 N·m", "1.40 N·m")
    hand.send(answer="change")
    bench_trial(hand, "0.370 mm", "0.25 N·m", "0.35 N·m")
    found = next_spacer(
        [DragTrial(0.35, (1.2, 1.4)), DragTrial(0.37, (0.25, 0.35))], Limits(0.5, 1.1), 0.01,
        Steps("loosens", 0.02, 0.05),
    )  # fmt: skip
    soup = page(shop, "set")
    assert f"{found.next_mm:.3f} mm" in words(soup, ".next-line")
    titles = " ".join(one.get_text() for one in soup.select("svg title"))
    assert f"next {found.next_mm:.3f} mm" in titles
    assert "shim 0.37" in soup.get_text(" "), "the section has the shim that is in"
    assert "0.25 to 0.35" in titles


def test_a_swing_in_the_unit_of_the_scale_is_taken_as_one_side_of_it() -> None:
    hand = Hand(shop_of("bearing_pack"))
    hand.until("bench_drag")
    hand.send(value="8 lbf·in")
    assert hand.due().slot.place == "high"


def test_right_on_the_bench_and_too_high_in_the_hub_offers_the_bench_by_one_tap() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    hand.until("drag_in_hub")
    hand.send(value="1.70 N·m")
    hand.send(value="1.90 N·m")
    soup = page(shop, "set.2")
    assert "in the hub" in words(soup, ".next-line")
    form = soup.select_one("form.settle")
    assert form is not None
    sent = {
        str(one["name"]): str(one.get("value", "")) for one in form.select("input[type=hidden]")
    }
    answer = hand.client.post(str(form["action"]), sent)
    assert answer.status_code == 302
    assert shop.unit.progress.phase == "trial"
    assert shop.unit.progress.row("drag_in_hub", "").state == "later"  # type: ignore[union-attr]


def test_what_differs_in_the_fork_is_accounted_for_on_the_page() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    hand.until("drag_in_hub")
    for value in ("1.00 N·m", "1.04 N·m"):
        hand.send(value=value)
    hand.until("drag_in_fork")
    assert "the seals 0.1 to 0.3 N·m, by the card" in words(page(shop, "prove"), ".next-line")
    for value in ("1.60 N·m", "1.64 N·m"):
        hand.send(value=value)
    soup = page(shop, "prove")
    assert "The seals add" not in " ".join(
        one.get_text() for one in soup.select(".notebook .words")
    )
    assert "0.60 ± 0.03 N·m harder than in the hub" in words(soup, ".next-line")
    asked = [str(one["href"]) for one in soup.select(".account a")]
    assert asked == ["?step=seal_drag&station=", "?step=grease_drag&station="]
    opened = page(shop, "prove", step="seal_drag")
    assert "The seals add: at least" in words(opened, ".next-line")
    assert not opened.select(".account")
    assert shop.post(hand.client, "seal_drag", "prove", value="0.5 N·m").status_code == 302
    assert "The seals add: at most" in words(page(shop, "prove"), ".next-line")
    assert shop.post(hand.client, "seal_drag", "prove", value="0.7 N·m").status_code == 302
    assert not page(shop, "prove").select(".account a")
    claim = next(one for one in shop.unit.claims if one.key == "fork")
    assert "the seals 0.5 to 0.7 N·m, as told" in claim.fact
    assert not claim.proven


def meters(shop: Shop) -> tuple[str, str]:
    """A torque meter and a scale of the shop."""
    made = [
        add_meter(shop.workshop, kind=kind, name=name, resolution=Typed.read(step, dimension),
                  doubt=None, calibrated_on=None)
        for kind, name, step, dimension in (("torque_meter", "meter", "0.01 N·m", TORQUE),
                                            ("scale", "spring scale", "0.5 N", FORCE))
    ]  # fmt: skip
    return str(made[0].pk), str(made[1].pk)


def test_a_swing_is_taken_with_the_meter_that_reads_it() -> None:
    shop = shop_of("bearing_pack")
    meter, scale = meters(shop)
    hand = Hand(shop)
    hand.until("drag_in_hub")
    chosen = page(shop, "set.2").select_one("select[name=instrument] option[selected]")
    assert chosen is not None
    assert chosen["value"] == meter, "the meter is offered first"
    answer = shop.post(hand.client, "drag_in_hub", "set.2", value="1.00 N·m", instrument=scale)
    assert answer.status_code == 422
    assert (
        "spring scale reads a force, and 1.00 N·m is none: say below what it was read with."
        in text(answer)
    )
    assert 'value="1.00 N·m"' in answer.content.decode(), "what was typed stays"
    for value in ("1.00 N·m", "1.04 N·m"):
        hand.send(value=value, instrument=meter)
    claim = next(one for one in shop.unit.claims if one.key == "setting")
    assert "meter, ± 0.01 N·m" in claim.fact
    assert "not proven by it" not in claim.fact


def test_a_swing_that_tells_nothing_is_read_again_from_the_page() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    hand.until("shim_measured")
    for _ in range(4):
        hand.send(value="0.350 mm")
    hand.until("bench_drag")
    for value in ("0.40 N·m", "1.20 N·m"):
        hand.send(value=value)
    again = page(shop, "set").select_one(".ask .settle a")
    assert again is not None
    assert again.get_text() == "Read it again"
    form = BeautifulSoup(
        hand.client.get(f"/jobs/{shop.job.pk}/1/set/{again['href']}").content, "html.parser"
    ).select_one(".ask-form")
    assert form is not None
    sent = {str(one["name"]): str(one.get("value", "")) for one in form.select("input[name]")}
    assert hand.client.post(str(form["action"]), {**sent, "value": "0.7 N·m"}).status_code == 302
    hand.send(value="0.9 N·m")
    assert shop.unit.progress.row("bench_drag", "").state == "done"  # type: ignore[union-attr]
    assert [one.typed for one in shop.unit.progress.row("bench_drag", "").at.entries][-2:] == [  # type: ignore[union-attr]
        "0.7 N·m",
        "0.9 N·m",
    ]


def test_least_as_a_pull_and_most_as_a_torque_is_one_clear_sentence() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    hand.until("drag_in_hub")
    hand.send(value="20 N")
    answer = shop.post(hand.client, "drag_in_hub", "set.2", value="1.04 N·m")
    assert answer.status_code == 422
    assert "1.04 N·m is no force, and the least of the swing was 20 N" in text(answer)
    assert shop.unit.progress.row("drag_in_hub", "").slot.place == "high"  # type: ignore[union-attr]


def test_a_pull_that_was_misread_is_corrected_as_a_pull() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    hand.until("drag_in_hub")
    hand.send(value="20 N")
    entry = shop.file.last_entry
    assert entry is not None
    sent = {"value": "22", "reason": "misread", "token": uuid.uuid4()}
    where = f"/jobs/{shop.job.pk}/1/set.2/entries/{entry.pk}/correct"
    assert hand.client.post(where, sent).status_code == 302
    assert shop.unit.progress.row("drag_in_hub", "").at.entries[0].typed == "22 N"  # type: ignore[union-attr]


def test_what_is_told_of_a_seal_names_no_meter_by_itself() -> None:
    shop = shop_of("bearing_pack")
    meter, _ = meters(shop)
    hand = Hand(shop)
    hand.until("drag_in_hub")
    for value in ("1.00 N·m", "1.04 N·m"):
        hand.send(value=value, instrument=meter)
    hand.until("drag_in_fork")
    for value in ("1.60 N·m", "1.64 N·m"):
        hand.send(value=value, instrument=meter)
    chosen = page(shop, "prove", step="seal_drag").select_one("select[name=instrument] [selected]")
    assert chosen is not None
    assert chosen.get_text() == "as told, not measured"


def test_the_pull_of_the_kingpin_does_not_stand_beside_the_pinion() -> None:
    shop = shop_of("pivot")
    hand = Hand(shop)
    hand.until("turning_after")
    assert page(shop, "set").select(".swing")
    assert not page(shop, "set.2").select(".swing")


def test_what_was_not_gone_through_is_not_closed_and_each_opening_has_its_own_name() -> None:
    shop = shop_of("bearing_pack")
    hand = Hand(shop)
    hand.until("fork_turned")
    closed = next(one for one in shop.unit.claims if one.key == "fasteners")
    assert (closed.proven, closed.fact) == (False, "nobody said which were undone")
    found = page(shop, "prove")
    openings = [one.get_text() for one in found.select("a[href*='step=']")]
    assert {
        "open the pack",
        "pack out of the hub again",
        "bench axle and bench sleeves out",
    } <= set(openings)
    assert len(openings) == len(set(openings))
    rests = [one.get_text() for one in found.select(".may-sign em")]
    assert "by the card" in rests
    assert "0 entries" not in rests


# ---- stand-out


def test_blades_that_go_and_do_not_go_exchanged_are_asked_for_again() -> None:
    shop = shop_of("retainer_plate")
    Hand(shop).until("stands_out")
    client = shop.client()
    link = page(shop, "set").find("a", string=re.compile("By blades instead"))
    assert link is not None
    soup = page(shop, "set", place="go")
    assert "The blades that go in" in soup.get_text()
    assert (
        shop.post(client, "stands_out", "set", place="go", value="0.10 + 0.08").status_code == 302
    )
    answer = shop.post(client, "stands_out", "set", value="0.10 + 0.04")
    assert answer.status_code == 422
    assert "Were the two exchanged?" in text(answer)
    assert shop.post(client, "stands_out", "set", value="0.10+0.10 mm").status_code == 302
    assert shop.unit.judgement.is_set


def test_the_page_names_the_spacer_that_was_forgotten() -> None:
    shop = shop_of("retainer_plate")
    Hand(shop).until("stands_out")
    for value in ("-15.84", "-15.86", "-15.85"):
        assert shop.post(shop.client(), "stands_out", "set", value=value).status_code == 302
    soup = page(shop, "set")
    assert "spacer ring missing" in words(soup, ".next-line")
    assert soup.select_one("form.settle") is not None
    answer = shop.sign()
    assert answer.status_code == 422


@pytest.mark.parametrize(
    ("family", "step", "stage", "typed", "said"),
    [
        ("ball_pair", "spacer_measured", "match", "575 mm", "57.5 mm"),
        ("locking_nut", "second_torque", "set", "270 N·m", "270 N·m is that of the first, seating"),
        ("bearing_pack", "bench_drag", "set", "8 N·m", "8 lbf·in"),
    ],
)
def test_what_is_not_likely_is_asked_about_with_what_it_may_mean(
    family: str, step: str, stage: str, typed: str, said: str
) -> None:
    shop = shop_of(family)
    Hand(shop).until(step)
    answer = shop.post(shop.client(), step, stage, value=typed)
    assert answer.status_code == 422
    assert said in text(answer)


def test_a_bolt_ticked_twice_says_which_is_next() -> None:
    shop = shop_of("ground_spacer")
    hand = Hand(shop)
    hand.until("wheel_bolts")
    hand.send()
    answer = shop.post(hand.client, "wheel_bolts", "prove", place="1.1")
    assert answer.status_code == 422
    assert "Not bolt 1 of round 1: bolt 3 of round 1 is next." in text(answer)
    rows = [row for row in shop.file.entries if row.step == "wheel_bolts"]
    assert [row.place for row in rows] == ["1.1"]


def test_the_fastener_that_is_asked_for_is_the_one_that_is_lit() -> None:
    shop = shop_of("slotted_nut")
    hand = Hand(shop)
    hand.until("fasteners")
    for key in ("nut", "cap"):
        hand.send(place=key, answer="undone")
    hand.send(enough="yes")
    hand.until("fasteners_back")
    lit = []
    while item := due_item(hand.due().at):
        soup = page(shop, "prove")
        assert words(soup, ".next-line").lower().startswith(item.words)
        assert soup.get_text().count(item.why) == 1
        lit.append(" ".join(one.get_text() for one in soup.select("svg .label.lit")))
        hand.answer(hand.due())
        hand.file = None
    assert [("slotted nut" in one, "dust cap" in one) for one in lit] == [
        (True, False),
        (False, True),
    ]


# ---- close, recheck


def test_a_close_that_is_refused_as_proven_is_accepted_as_less() -> None:
    shop = shop_of("slotted_nut")
    hand = Hand(shop)
    hand.until("sign")
    assert shop.unit.statement == "set"
    close = page(shop, "close")
    assert "Sign off as set, not proven" in close.get_text()
    assert shop.sign().status_code == 302
    assert SignOff.objects.get().statement == "set"


def test_signing_plans_a_recheck_that_stands_on_yard_and_vehicle_until_it_is_done() -> None:
    shop = shop_of("slotted_nut")
    Hand(shop).until("sign")
    shop.sign()
    plan = Recheck.objects.get()
    (row,) = open_rechecks(shop.workshop)
    due = recheck(plan.planned_on, 0, [], plan.planned_on, every_days=30)  # type: ignore[arg-type]
    assert row.due.due_on <= due.due_on
    vehicle = shop.client().get(f"/vehicles/{shop.vehicle.pk}/")
    assert row.words[1:] in text(vehicle)
    assert plan.sign_off.sheet_html.count("look again by") == 1
    answer = shop.client().post(f"/vehicles/{shop.vehicle.pk}/rechecks/{plan.pk}")
    again = shop.workshop.job_set.get(purpose="recheck")
    assert answer["Location"] == f"/jobs/{again.pk}/"
    second = Shop(shop.workshop, shop.people, shop.card, shop.vehicle, again)
    hand = Hand(second)
    hand.until("sign")
    assert {"recheck_read", "recheck_wheel"} <= set(hand.asked)
    assert "stripped" not in hand.asked
    assert {claim.key for claim in second.unit.claims} >= {"end_play", "as_set", "wheel"}
    assert second.sign().status_code == 302
    plan.refresh_from_db()
    assert plan.done_by == again
    assert open_rechecks(shop.workshop) == ()


def test_what_is_not_set_plans_no_recheck() -> None:
    shop = shop_of("ground_spacer")
    hand = Hand(shop)
    hand.until("turning")
    hand.send(value="1.9 N·m")
    hand.send(value="2.2 N·m")
    assert shop.sign().status_code == 422
    assert shop.sign(reason="turns too hard; the spacer is ground again").status_code == 302
    assert SignOff.objects.get().statement == "not_set"
    assert not Recheck.objects.exists()


@pytest.mark.parametrize("key", ["slotted_nut", "preset", "bearing_pack", "cartridge", "planetary"])
def test_reopened_for_what_moved_nothing_of_the_setting_stays_believed(key: str) -> None:
    shop = shop_of(key)
    Hand(shop).until("sign")
    shop.sign()
    first = SignOff.objects.get()
    told = shop.client("lead").post(
        f"/jobs/{shop.job.pk}/reopen",
        {"touched": "setting", "reason": "slack after 50 km"},
    )
    assert told.status_code == 302, str(
        BeautifulSoup(told.content, "html.parser").select(".error, [role=alert]")
    )[:600]
    claims = {claim.key: claim for claim in shop.unit.claims}
    assert not any(
        claim.proven
        for name, claim in claims.items()
        if name in ("setting", "end_play", "seated", "lock", "torque")
    )
    assert shop.unit.statement == "not_set"
    assert shop.sign().status_code == 422
    hand = Hand(shop)
    hand.until("sign")
    assert shop.sign().status_code == 302
    again = SignOff.objects.order_by("number").last()
    assert again is not None
    assert again.number == 2
    first.refresh_from_db()
    assert "slack after 50 km" not in first.sheet_html
    assert Recheck.objects.filter(done_at=None).count() == 1


def test_a_whole_trailer_is_one_job_with_one_close() -> None:
    shop = shop_of("slotted_nut")
    for end in shop.vehicle.wheel_ends.all():
        fit_card(end, shop.card)
    free = shop.vehicle.wheel_ends.exclude(unit_places__is_open=True).first()
    page_of = text(shop.client().get(f"/wheel-ends/{free.pk}/start"))
    assert "Every wheel end like it: 3" in page_of, page_of[150:900]
    answer = shop.client().post(
        f"/wheel-ends/{free.pk}/start",
        {"card": shop.card.pk, "ends": "every", "token": uuid.uuid4()},
    )
    job = shop.workshop.job_set.first()
    assert answer["Location"] == f"/jobs/{job.pk}/"
    assert job.units.count() == 3
    second = Shop(shop.workshop, shop.people, shop.card, shop.vehicle, job)
    soup = BeautifulSoup(shop.client().get(f"/jobs/{job.pk}/", follow=True).content, "html.parser")
    assert len(soup.select(".together li")) == 2
    assert second.file.units[0].progress.of_kind("complaint")
