"""The stages through Django's client: every kind of entry, what is refused, where it goes on."""

import uuid
from collections.abc import Callable
from typing import Any

import pytest
from bs4 import BeautifulSoup
from django.test import Client

from zesty.bench.models import Entry, Job
from zesty.records.models import SignOff

from .conftest import Shop, axle_document, make_shop, text


def headline(answer: Any) -> str:
    page = BeautifulSoup(answer.content, "html.parser")
    found = page.select_one("h1")
    assert found is not None
    return " ".join(found.get_text().split())


_BEFORE_SETTING: tuple[tuple[str, str, dict[str, str]], ...] = (
    ("complaint", "take_in", {"text": "Hums."}),
    ("usage", "take_in", {"value": "45560"}),
    ("axle_there", "take_in", {"answer": "yes"}),
    *((step, "take_in", {}) for step in ("chocked", "spring_held", "on_stands")),
    ("findings", "check", {"place": "turn_by_hand", "answer": "rough"}),
    ("findings", "check", {"enough": "yes"}),
    ("verdict", "check", {"answer": "strip"}),
    *((step, "strip", {}) for step in ("parts_in_hand", "as_found")),
    ("marks", "strip", {"enough": "yes"}),
    ("stripped", "strip", {}),
    *((step, "strip", {"enough": "yes"}) for step in ("seal_depth", "stack_off", "prints")),
    ("fasteners", "strip", {"answer": "undone"}),
    ("fasteners", "strip", {"enough": "yes"}),
    ("cleaned", "clean", {}),
    ("seats", "clean", {"enough": "yes"}),
    *((step, "clean", {"enough": "yes"}) for step in ("grooves", "judged", "neighbours")),
    ("matched", "match", {"enough": "yes"}),
    ("seal_tried", "match", {}),
    ("laid_out", "match", {"enough": "yes"}),
    ("cups_home", "press", {"enough": "yes"}),
)  # fmt: skip


def sender(shop: Shop, client: Client) -> Callable[..., None]:
    """Sends the form of a step; each must be taken."""

    def send(step: str, stage: str, **data: Any) -> None:
        answer = shop.post(client, step, stage, **data)
        assert answer.status_code == 302, text(answer)[:400]

    return send


def test_a_whole_job_through_the_pages(shop: Shop) -> None:
    client = shop.client()
    wrench = shop.tool("half-inch wrench").pk
    send = sender(shop, client)

    for step, stage, data in _BEFORE_SETTING:
        send(step, stage, **data)
    for last, pack in ((False, "0.50, 0.20"), (True, "0.50, 0.10")):
        send("fit_pack", "set", pack=pack)
        send("trial_torque", "set", value="61", wrench=wrench)
        if not last:
            send("dial", "set", dial=shop.tool("dial").pk, dial_at="spindle_axis")
        for value in ("0", ".08" if last else ".18", "0", "0,08" if last else "0.18"):
            send("read", "set", value=value)
        send("open", "set", answer="last" if last else "change")
    send("packed", "pack", enough="yes")
    send("seal_in", "seal", enough="yes")
    send("refit", "set.2", pack="0.50, 0.10")
    send("final_torque", "set.2", value="61", wrench=wrench)
    send("seat", "lock", value="12")
    send("seat", "lock", value="1")
    send("place", "lock", value="20")
    send("lock_torque", "lock", value="83", wrench=wrench)
    send("lock", "lock", answer="fills")
    for value in ("0", "0.08", "0", "0.08"):
        send("locked_reading", "lock", value=value)
    for step in ("cap", "wheel_faces"):
        send(step, "prove")
    for _ in range(15):
        send("wheel_bolts", "prove")
    send("on_ground", "prove")
    send("fasteners_back", "prove", answer="torqued")
    for _ in range(3):
        send("made_free", "prove", answer="tried")
    send("driven", "prove")
    answer = client.get(f"/jobs/{shop.job.pk}/1/close/")
    assert headline(answer) == "13 of 13 proven. Sign: proven."
    assert shop.sign("tech").status_code == 302
    signed = SignOff.objects.get()
    assert signed.statement == "proven"
    assert (
        headline(client.get(f"/jobs/{shop.job.pk}/1/close/"))
        == "Signed off as proven by tech of ours."
    )
    assert Job.objects.get(pk=shop.job.pk).state == "signed"


def test_every_page_of_a_job_stands_at_every_step_of_the_work(shop: Shop) -> None:
    client = shop.client("lead")
    stages = [one.key for one in shop.unit.card.arrangement.stages]
    for upto in ("fit_pack", "dial", "read"):
        shop.until(upto) if upto == "fit_pack" else None
        if upto == "dial":
            shop.pack("0.50, 0.10")
            shop.torque()
        if upto == "read":
            shop.dial()
            shop.read("0")
        for stage in stages:
            answer = client.get(f"/jobs/{shop.job.pk}/1/{stage}/")
            assert answer.status_code == 200, stage
    last = shop.file.last_entry
    assert last is not None
    for panel in (f"correct&entry={last.pk}", f"take_back&entry={last.pk}", "choose&what=aim", "card", "abandon",
                  "choose&what=dial_at", "skip&step=cups_home", "aside&step=read&closing=1&round=1", "nonsense"):  # fmt: skip
        assert client.get(f"/jobs/{shop.job.pk}/1/set/?panel={panel}").status_code == 200, panel
    for step in ("dial", "trial_torque&station=main", "nowhere"):
        assert client.get(f"/jobs/{shop.job.pk}/1/set/?step={step}").status_code == 200


@pytest.mark.parametrize("path", ["9/set/", "1/bake/", "1/set.3/", "0/set/"])
def test_what_is_not_there_answers_404(shop: Shop, path: str) -> None:
    assert shop.client().get(f"/jobs/{shop.job.pk}/{path}").status_code == 404


def test_a_slip_is_asked_about_and_cleared_in_one_more_act(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50, 0.10")
    client = shop.client()
    answer = shop.post(client, "trial_torque", value="6100")
    assert answer.status_code == 422
    assert headline(answer) == "You typed 6100 N·m. Is it 61 N·m?"
    page = BeautifulSoup(answer.content, "html.parser")
    form = page.select_one(".ask form")
    assert form is not None
    sent = {one["name"]: one.get("value", "") for one in form.select("input[type=hidden]")}
    options = [one["value"] for one in form.select("button[name=value]")]
    assert options == ["61 N·m", "6100 N·m"]
    assert client.post(form["action"], {**sent, "value": options[0]}).status_code == 302
    assert Entry.objects.get(step="trial_torque").typed == "61 N·m"


def test_a_slipped_pack_keeps_its_other_shims(shop: Shop) -> None:
    shop.until("fit_pack")
    client = shop.client()
    answer = shop.post(client, "fit_pack", pack="0.50, 7.5", from_here="on")
    page = BeautifulSoup(answer.content, "html.parser")
    options = [one["value"] for one in page.select("button[name=pack]")]
    assert "0.50, 0.75" in options
    assert "0.50, 7.5" in options


def test_what_cannot_be_used_keeps_what_was_typed_and_says_what_would_do(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50, 0.10")
    client = shop.client()
    for typed, says in (("45 mm", "is not a torque"), ("", "required"), ("²", "is not a torque"), ("-5", "is not between 0.01 and 20000 N·m"),
                        ("9" * 30, "too large"), ("9" * 5000, "at most 34"), ("1e9 N·m", "too large")):  # fmt: skip
        answer = shop.post(client, "trial_torque", value=typed)
        assert answer.status_code == 422, typed
        assert says in text(answer), typed
        field = BeautifulSoup(answer.content, "html.parser").select_one("input[name=value]")
        assert field is not None
        assert field["value"] == typed
    assert not Entry.objects.filter(step="trial_torque").exists()


def test_a_refused_entry_comes_back_with_its_sentence(shop: Shop) -> None:
    shop.trial()
    client = shop.client()
    sent = {
        "step": "read",
        "station": "",
        "place": "12",
        "round": 1,
        "token": uuid.uuid4(),
        "value": "0.02",
    }
    answer = client.post(f"/jobs/{shop.job.pk}/1/set/write", sent)
    assert answer.status_code == 422
    assert "wrote" in text(answer)
    htmx = client.post(
        f"/jobs/{shop.job.pk}/1/set/write",
        {**sent, "token": uuid.uuid4()},
        headers={"HX-Request": "true"},
    )
    assert htmx.status_code == 422
    assert "wrote" in text(htmx)


def test_two_tabs_at_take_in_the_later_does_not_win_silently(shop: Shop) -> None:
    client = shop.client()
    first = {
        "step": "complaint",
        "station": "",
        "place": "",
        "round": 1,
        "token": uuid.uuid4(),
        "text": "Hums.",
    }
    address = f"/jobs/{shop.job.pk}/1/take_in/write"
    assert client.post(address, first).status_code == 302
    assert client.post(address, first).status_code == 302  # the same form twice counts once
    answer = client.post(address, {**first, "token": uuid.uuid4(), "text": "Knocks."})
    assert answer.status_code == 422
    assert "wrote Hums. there already" in text(answer)
    assert [row.typed for row in Entry.objects.filter(step="complaint")] == ["Hums."]


def test_posting_twice_doubles_neither_usage_nor_shims(shop: Shop) -> None:
    client = shop.client()
    shop.until("usage")
    sent = {
        "step": "usage",
        "station": "",
        "place": "",
        "round": 1,
        "token": uuid.uuid4(),
        "value": "900 km",
    }
    for _ in range(2):
        assert client.post(f"/jobs/{shop.job.pk}/1/take_in/write", sent).status_code == 302
    assert shop.vehicle.usage_log.count() == 1
    shop.until("fit_pack")
    tray = {shim.nominal: shim.count for shim in shop.workshop.shim_set.all()}
    pack = {
        "step": "fit_pack",
        "station": "main",
        "place": "",
        "round": 1,
        "token": uuid.uuid4(),
        "pack": "0.10",
    }
    for _ in range(2):
        assert client.post(f"/jobs/{shop.job.pk}/1/set/write", pack).status_code == 302
    after = {shim.nominal: shim.count for shim in shop.workshop.shim_set.all()}
    assert after == {**tray, "0.10 mm": tray["0.10 mm"] - 1}


def test_an_axle_that_is_not_the_cards_stops_and_the_card_can_be_changed(shop: Shop) -> None:
    from zesty.cards.actions import new_card  # noqa: PLC0415

    from .conftest import document  # noqa: PLC0415

    right = new_card(shop.workshop, shop.people["lead"], document=document(name="the right one"))
    shop.until("axle_there")
    client = shop.client()
    shop.post(client, "axle_there", "take_in", answer="no")
    answer = client.get(f"/jobs/{shop.job.pk}/1/take_in/")
    assert "Another axle needs another card" in text(answer)
    sent = {"card": right.pk, "reason": "axle swapped", "token": uuid.uuid4()}
    assert client.post(f"/jobs/{shop.job.pk}/1/take_in/card", sent).status_code == 302
    assert shop.unit.unit.card_version.card == right
    assert Entry.objects.get(step="card").reason == "axle swapped"
    assert Entry.objects.filter(step="complaint").exists()


def test_a_job_is_abandoned_for_a_reason_and_frees_the_wheel_end(shop: Shop) -> None:
    client = shop.client()
    address = f"/jobs/{shop.job.pk}/1/take_in/abandon"
    assert client.post(address, {"reason": "", "token": uuid.uuid4()}).status_code == 422
    assert (
        client.post(address, {"reason": "wrong trailer", "token": uuid.uuid4()}).status_code == 302
    )
    job = Job.objects.get(pk=shop.job.pk)
    assert (job.state, job.state_reason) == ("abandoned", "wrong trailer")
    end = shop.vehicle.wheel_ends.first()
    assert client.get(f"/wheel-ends/{end.pk}/start").status_code == 200
    assert "read only" in text(client.get(f"/jobs/{shop.job.pk}/1/set/"))


def test_a_failed_setting_is_signed_as_not_set_by_a_lead_with_a_reason(shop: Shop) -> None:
    shop.trial("0.50, 0.10", "0", "0.30", "0", "0.30")
    answer = shop.sign("tech", reason="no shims")
    assert answer.status_code == 422
    assert "A lead can sign it as not set" in text(answer)
    answer = shop.sign("lead")
    assert answer.status_code == 422
    assert "with a reason" in text(answer)
    assert shop.sign("lead", reason="no shims left").status_code == 302
    signed = SignOff.objects.get()
    assert (signed.statement, signed.reason) == ("not_set", "no shims left")


@pytest.mark.parametrize(
    ("touched", "gone"),
    [("setting", {"end_play", "torque", "lock", "bolts"}), ("bolts", {"bolts"}), ("paper", set())],
)
def test_a_reopened_job_asks_for_new_evidence_for_what_was_touched(
    shop: Shop, touched: str, gone: set[str]
) -> None:
    shop.trial()
    shop.finish()
    assert shop.sign("lead").status_code == 302
    assert shop.unit.statement == "proven"
    lead = shop.client("lead")
    reopen = f"/jobs/{shop.job.pk}/reopen"
    assert lead.post(reopen, {"reason": "slack after 50 km"}).status_code == 422
    answer = lead.post(
        reopen, {"reason": "slack after 50 km", "touched": touched, "token": uuid.uuid4()}
    )
    assert answer.status_code == 302, text(answer)[:300]
    claims = {claim.key: claim.proven for claim in shop.unit.claims}
    assert {key for key in ("end_play", "torque", "lock", "bolts") if not claims[key]} == gone
    old = SignOff.objects.get()
    assert lead.get(f"/jobs/{shop.job.pk}/sheets/{old.pk}.pdf").status_code == 200


def test_an_axle_job_opens_from_either_wheel_and_keys_its_hubs_one_by_one(db: None) -> None:
    shop = make_shop("axles")
    from zesty.cards.actions import new_card  # noqa: PLC0415

    card = new_card(shop.workshop, shop.people["lead"], document=axle_document())
    right = shop.vehicle.wheel_ends.get(axle=2, side="right")
    client = shop.client()
    sent = {"card": card.pk, "ends": "one", "token": uuid.uuid4()}
    answer = client.post(f"/wheel-ends/{right.pk}/start", sent)
    assert answer.status_code == 302
    assert client.post(f"/wheel-ends/{right.pk}/start", sent)["Location"] == answer["Location"]
    shop.job = Job.objects.latest("pk")
    left = shop.vehicle.wheel_ends.get(axle=2, side="left")
    assert client.get(f"/wheel-ends/{left.pk}/start")["Location"] == f"/jobs/{shop.job.pk}/"
    assert [place.station for place in shop.file.places] == ["left", "right"]
    shop.until("fit_pack")
    shop.pack("0.10")
    shop.pack("0.10")
    shop.until("dial")
    shop.dial()
    shop.read("0", "0.10", "0", "0.10")
    for stage in ("set", "set.2", "lock", "close"):
        assert client.get(f"/jobs/{shop.job.pk}/1/{stage}/").status_code == 200
    assert shop.unit.judgement.is_set
    shop.say("pick", step="open", typed="last")
    shop.pack("0.10")
    shop.pack("0.10")
    shop.until("final_reading")
    shop.read("0", "0.10", "0", "0.10")
    shop.until("hub_torque")
    due = shop.unit.progress.due
    assert due is not None
    assert due.at.clamp == "hub_left"
    shop.torque("90 N·m")
    shop.angle("10 deg")
    shop.torque("100 N·m")
    shop.say()
    shop.until("hub_torque")
    due = shop.unit.progress.due
    assert due is not None
    assert due.at.clamp == "hub_right"


def test_a_job_on_both_ends_has_one_intake_and_one_close(shop: Shop) -> None:
    client = shop.client()
    end = shop.vehicle.wheel_ends.get(axle=2, side="left")
    sent = {"card": shop.card.pk, "ends": "all", "token": uuid.uuid4()}
    client.post(f"/wheel-ends/{end.pk}/start", sent)
    shop.job = Job.objects.latest("pk")
    assert [one.unit.name for one in shop.file.units] == ["axle 2 left", "axle 2 right"]
    shop.trial()
    shop.finish()
    first, second = shop.file.units
    assert first.statement == "proven"
    assert second.statement == "not_set"
    due = second.progress.due
    assert due is not None
    assert due.step.id == "findings"
    answer = client.get(f"/jobs/{shop.job.pk}/1/close/")
    assert "axle 2 right" in text(answer).lower()
    assert "Not ready to sign" in headline(answer)


def test_a_choice_is_made_with_its_reason_and_changes_the_aim(shop: Shop) -> None:
    shop.trial("0.50, 0.20", "0", "0.18", "0", "0.18")
    client = shop.client()
    address = f"/jobs/{shop.job.pk}/1/set/choose"
    before = shop.unit.judgement.found.aim_mm  # type: ignore[attr-defined]
    for bad in ({"what": "aim", "value": "sideways"}, {"what": "aim"}, {"what": "colour", "value": "red"},
                {"what": "dial_at", "value": "moon"}):  # fmt: skip
        assert (
            client.post(address, {**bad, "reason": "x", "token": uuid.uuid4()}).status_code == 422
        )
    good = {"what": "aim", "value": "loose_end", "reason": "runs hot", "token": uuid.uuid4()}
    assert client.post(address, good).status_code == 302
    assert shop.unit.judgement.found.aim_mm > before  # type: ignore[attr-defined]
    assert (
        client.post(
            address, {**good, "value": "", "length": "0.09", "token": uuid.uuid4()}
        ).status_code
        == 302
    )
    assert shop.unit.judgement.found.aim_mm == pytest.approx(0.09)  # type: ignore[attr-defined]


def test_corrections_and_marks_through_the_page(shop: Shop) -> None:
    shop.trial("0.50, 0.20", "0", "0.18", "0", "0.17")
    client = shop.client()
    row = Entry.objects.filter(step="read", aspect="out").latest("pk")
    address = f"/jobs/{shop.job.pk}/1/set/entries/{row.pk}"
    for value, reason, says in (("0.18 kg", "x", "is not a length"), ("0.18", "", "Say why")):
        answer = client.post(
            f"{address}/correct", {"value": value, "reason": reason, "token": uuid.uuid4()}
        )
        assert answer.status_code == 422
        assert says in text(answer)
    good = {"value": "0.18", "reason": "misread", "token": uuid.uuid4()}
    assert client.post(f"{address}/correct", good).status_code == 302
    assert client.post(f"{address}/correct", good).status_code == 404  # it no longer stands
    mark = {"step": "read", "closing": 0, "round": 1, "reason": "dial moved", "token": uuid.uuid4()}
    assert (
        client.post(f"/jobs/{shop.job.pk}/1/set/aside", {**mark, "reason": ""}).status_code == 422
    )
    assert client.post(f"/jobs/{shop.job.pk}/1/set/aside", mark).status_code == 302
    page = text(client.get(f"/jobs/{shop.job.pk}/1/set/"))
    assert "set aside: dial moved" in page
    assert "0.17 mm became 0.18 mm: misread" in page


def test_a_learner_reads_and_does_not_write(shop: Shop) -> None:
    client = shop.client("learner")
    answer = client.get(f"/jobs/{shop.job.pk}/1/take_in/")
    assert "reads this and does not write" in text(answer)
    assert shop.post(client, "complaint", "take_in", text="x").status_code == 403


def test_a_bound_hub_and_hands_through_the_page(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    client = shop.client()
    assert shop.post(client, "dial", dial="", dial_at="spindle_axis").status_code == 302
    assert "then say what you feel" in headline(client.get(f"/jobs/{shop.job.pk}/1/set/"))
    assert shop.post(client, "read", finding="felt").status_code == 302
    answer = client.get(f"/jobs/{shop.job.pk}/1/set/")
    assert headline(answer) == "You feel play: take a dial and read how much."


def test_an_old_page_is_answered_with_the_step_that_is_due_now(shop: Shop) -> None:
    shop.trial()
    client = shop.client()
    page = BeautifulSoup(client.get(f"/jobs/{shop.job.pk}/1/set/").content, "html.parser")
    form = page.select_one(".ask form")
    assert form is not None
    old = {one["name"]: one.get("value", "") for one in form.select("input[type=hidden]")}
    shop.say("pick", step="open", typed="change")
    answer = client.post(form["action"], {**old, "answer": "last"})
    assert answer.status_code == 422
    assert headline(answer) == "Which shims go in?"
    assert "Not yet" in text(answer)
    assert shop.unit.progress.phase == "trial"


def test_torque_again_at_the_lock_asks_for_lock_and_reading_again(shop: Shop) -> None:
    shop.trial()
    shop.finish()
    client = shop.client()
    page = client.get(f"/jobs/{shop.job.pk}/1/lock/?step=lock_torque&station=main")
    form = BeautifulSoup(page.content, "html.parser").select_one(".ask form")
    assert form is not None
    sent = {one["name"]: one.get("value", "") for one in form.select("input[type=hidden]")}
    wrench = shop.tool("half-inch wrench").pk
    answer = client.post(form["action"], {**sent, "value": "85", "wrench": wrench}, follow=True)
    assert headline(answer).startswith("Does the pin fill its hole")
    assert "done before it was torqued again; due again" in text(answer)
    shop.until("locked_reading")
    shop.read("0", "0.10", "0", "0.10")
    shop.until("sign")
    assert shop.unit.statement == "proven"


def page_of_a_trial_that_was_opened(shop: Shop) -> tuple[Client, str, dict[str, str]]:
    """A page with a reading due, whose trial was finished and opened since: where it sends what."""
    shop.trial("0.50, 0.10", "0", "0.10", "0")
    client = shop.client()
    page = BeautifulSoup(client.get(f"/jobs/{shop.job.pk}/1/set/").content, "html.parser")
    form = page.select_one(".ask form")
    assert form is not None
    old = {str(one["name"]): str(one.get("value", "")) for one in form.select("input[type=hidden]")}
    shop.read("0.10")
    shop.say("pick", step="open", typed="change")
    shop.pack("0.50, 0.05")
    shop.torque()
    return client, str(form["action"]), old


def test_a_reading_for_a_trial_that_was_opened_meanwhile_goes_nowhere(shop: Shop) -> None:
    client, to, old = page_of_a_trial_that_was_opened(shop)
    answer = client.post(to, {**old, "value": "0.13"})
    assert answer.status_code == 422
    assert "It was opened since this page was shown" in text(answer)
    assert [row.typed for row in Entry.objects.filter(step="read")].count("0.13 mm") == 0
    again = BeautifulSoup(answer.content, "html.parser").select_one(".ask form")
    assert again is not None
    sent = {one["name"]: one.get("value", "") for one in again.select("input[name]")}
    assert (sent["value"], sent["place"]) == ("0.13", "12")
    assert int(str(sent["closing"])) == int(str(old["closing"])) + 1
    assert client.post(again["action"], sent).status_code == 302


def test_a_finding_from_an_old_page_goes_into_no_later_trial(shop: Shop) -> None:
    client, to, old = page_of_a_trial_that_was_opened(shop)
    answer = client.post(to, {**old, "finding": "bound"})
    assert answer.status_code == 422
    assert "It was opened since this page was shown" in text(answer)
    assert not Entry.objects.filter(kind="bound").exists()


@pytest.mark.parametrize("typed", ["14.1234567 deg", "0.0001", "1/3 deg", "29,9999 deg"])
def test_an_angle_is_taken_however_finely_it_is_typed(shop: Shop, typed: str) -> None:
    shop.trial()
    shop.say("pick", step="open", typed="last")
    shop.until("refit")
    shop.pack("0.50, 0.10")
    shop.torque()
    due = shop.unit.progress.due
    assert due is not None
    assert shop.post(shop.client(), due.step.id, "lock", value=typed).status_code == 302
