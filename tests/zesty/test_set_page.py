"""The setting stage as a person meets it, without a browser."""

import uuid

import pytest
from bs4 import BeautifulSoup
from django.test import Client
from pytest_django import DjangoAssertNumQueries

from zesty.bench import actions
from zesty.bench.models import Reading
from zesty.bench.queries.jobfile import job_file
from zesty.bench.queries.set_page import SetPage, set_page
from zesty.fleet.actions import add_vehicle

from .conftest import Shop


def page_of(shop: Shop) -> SetPage:
    return set_page(job_file(shop.workshop, shop.job.pk))


def soup(client: Client, path: str) -> BeautifulSoup:
    return BeautifulSoup(client.get(path).content, "html.parser")


def words(page: BeautifulSoup, selector: str) -> str:
    return " ".join(page.select_one(selector).get_text().split())


def test_it_asks_for_the_pack_then_for_each_reading_in_turn(shop: Shop) -> None:
    assert page_of(shop).line.kind == "pack"
    shop.trial()
    asked = []
    for value in ("0.00", "0.10", "0.00", "0.10"):
        page = page_of(shop)
        asked.append((page.due_clock, page.due_push))
        shop.one(page.due_clock, page.due_push, value)
    assert asked == [("12", "in"), ("12", "out"), ("6", "in"), ("6", "out")]
    assert page_of(shop).line.kind == "set"


def test_too_tight_says_what_to_add_from_the_tray(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    page = page_of(shop)
    assert (page.verdict_word, page.line.kind) == ("too tight", "swap")
    assert str(page.line) == (
        "Add 0.10 mm (3.9 thou): put in 0.10. Torque, seat both ways, read again."
    )
    assert page.plan[0].typed == "0.50 mm, 0.10 mm"


def test_the_next_trial_says_what_to_expect(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    shop.trial("0.50, 0.10")
    assert "0.12 mm (4.7 thou) of play" in page_of(shop).line.why


def test_bound_leads_to_over_shimming(shop: Shop) -> None:
    shop.trial("0.50")
    actions.find(shop.job, shop.tech, kind="bound", trial=1, token=uuid.uuid4())
    page = page_of(shop)
    assert str(page.line).startswith("Add 0.20 mm (7.9 thou): put in 2 × 0.10.")
    assert "no reading is possible" in page.line.why


def test_what_does_not_add_up_stops_the_work_and_names_causes(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    shop.trial("0.50, 0.10")
    shop.read(("0.00", "0.22"), ("0.00", "0.22"))
    page = page_of(shop)
    assert str(page.line).startswith("Stop: trials 1 and 2 do not add up: 0.10 mm")
    assert page.causes[0].key == "miscounted"
    assert "0.10 mm that is off is a 0.10 shim" in page.causes[0].because
    assert [row.odd for row in page.trials] == [True, True]
    assert not page.is_set


def test_the_aim_changes_with_a_reason(shop: Shop) -> None:
    client = shop.client()
    path = f"/jobs/{shop.job.pk}/set/choice"
    shop.trial()
    assert client.post(path, {"what": "aim", "value": "high", "reason": ""}).status_code == 422
    assert (
        client.post(path, {"what": "aim", "value": "sideways", "reason": "heat"}).status_code == 422
    )
    assert (
        client.post(path, {"what": "aim", "value": "high", "reason": "runs hot"}).status_code == 302
    )
    page = page_of(shop)
    assert page.aim.startswith("high: 0.14 mm")
    assert page.aim_reason == "runs hot"


def test_a_bad_reading_is_answered_in_a_sentence_and_kept(shop: Shop) -> None:
    shop.trial()
    data = {"value": "0,12", "clock": "12", "push": "in", "trial": 1, "token": str(uuid.uuid4())}
    answer = shop.client().post(f"/jobs/{shop.job.pk}/set/reading", data)
    assert answer.status_code == 422
    page = BeautifulSoup(answer.content, "html.parser")
    assert page.select_one("[data-entry]")["value"] == "0,12"
    assert words(page, ".error") == '"0,12" is not a length; give e.g. "0.05 mm" or "2 thou".'
    assert not Reading.objects.exists()


@pytest.mark.parametrize(
    ("typed", "stored"),
    [("0.12", "0.12 mm"), ("4.5 thou", "4.5 thou"), ("-.01", "-.01 mm"), ("12um", "12um")],
)
def test_a_bare_number_is_in_the_gauges_unit(shop: Shop, typed: str, stored: str) -> None:
    shop.trial()
    data = {"value": typed, "clock": "12", "push": "in", "trial": 1, "token": str(uuid.uuid4())}
    assert shop.client().post(f"/jobs/{shop.job.pk}/set/reading", data).status_code == 302
    assert Reading.objects.get().typed == stored


def test_htmx_gets_the_stage_alone_and_a_reload_the_same_stage(shop: Shop) -> None:
    shop.trial()
    client = shop.client()
    data = {"value": "0.01", "clock": "12", "push": "in", "trial": 1, "token": str(uuid.uuid4())}
    headers = {"HX-Request": "true"}
    answer = client.post(f"/jobs/{shop.job.pk}/set/reading", data, headers=headers)
    fragment = BeautifulSoup(answer.content, "html.parser")
    assert fragment.select_one("html") is None
    whole = soup(client, f"/jobs/{shop.job.pk}/set")
    for part in (".next-line", ".dial", ".trials-list"):
        assert words(fragment, part) == words(whole, part)


def test_a_stale_tab_is_told_and_writes_nothing(shop: Shop) -> None:
    shop.trial()
    shop.one("12", "in", "0.01")
    data = {"value": "0.05", "clock": "12", "push": "in", "trial": 1, "token": str(uuid.uuid4())}
    answer = shop.client().post(f"/jobs/{shop.job.pk}/set/reading", data)
    assert answer.status_code == 422
    assert "has 0.01 mm already" in answer.content.decode()
    assert Reading.objects.count() == 1


def test_a_reader_sees_no_buttons(shop: Shop) -> None:
    shop.trial()
    page = soup(shop.client("desk"), f"/jobs/{shop.job.pk}/set")
    assert page.select("main form") == []
    assert words(page, ".next-line h1")


def test_the_page_takes_a_constant_number_of_queries(
    shop: Shop, django_assert_max_num_queries: DjangoAssertNumQueries
) -> None:
    client = shop.client()
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    with django_assert_max_num_queries(19) as few:
        client.get(f"/jobs/{shop.job.pk}/set")
    for pack in ("0.50, 0.05", "0.50, 0.10", "0.10"):
        shop.trial(pack)
        shop.read(("0.00", "0.07"), ("0.00", "0.07"))
    with django_assert_max_num_queries(len(few)):
        client.get(f"/jobs/{shop.job.pk}/set")


@pytest.mark.parametrize("path", ["", "tray/", "cards/"])
def test_lists_take_a_constant_number_of_queries(
    shop: Shop, path: str, django_assert_max_num_queries: DjangoAssertNumQueries
) -> None:
    client = shop.client()
    with django_assert_max_num_queries(12) as few:
        client.get(f"/{path}")
    for number in range(4):
        vehicle = add_vehicle(
            shop.workshop, name=f"van {number}", kind="van", axles=2, air_braked=False
        )
        actions.open_job(shop.workshop, shop.tech, vehicle.wheel_ends.first(), card=shop.card)
    with django_assert_max_num_queries(len(few)):
        client.get(f"/{path}")


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"clock": "99"}, "is not a clock position"),
        ({"value": "1e12 mm"}, "is too large"),
        ({"value": "9" * 40}, "at most 34 characters"),
        ({"value": ""}, "required"),
        ({"push": "sideways"}, "is not one of the available choices"),
        ({"trial": "7"}, "but trial 1 has begun"),
        ({"token": "x"}, "valid UUID"),
    ],
)
def test_what_no_page_sends_is_refused_in_words(
    shop: Shop, changes: dict[str, str], says: str
) -> None:
    shop.trial()
    data = {"value": "0.1", "clock": "12", "push": "in", "trial": "1", "token": str(uuid.uuid4())}
    answer = shop.client().post(f"/jobs/{shop.job.pk}/set/reading", {**data, **changes})
    assert answer.status_code == 422
    assert says in BeautifulSoup(answer.content, "html.parser").get_text()
    assert not Reading.objects.exists()


def test_a_trial_is_set_aside_for_a_reason_and_stays_in_the_list(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    client = shop.client()
    path = f"/jobs/{shop.job.pk}/set"
    assert "Set trial 1 aside" in client.get(f"{path}?panel=aside&trial=1").content.decode()
    assert client.post(f"{path}/aside", {"trial": 1, "aside": "on"}).status_code == 422
    mark = {"trial": 1, "aside": "on", "reason": "dirt on a face"}
    assert client.post(f"{path}/aside", mark).status_code == 302
    page = soup(client, path)
    assert "set aside: dirt on a face" in words(page, ".trials-list .aside")
    assert "panel=aside&trial=1&aside=0" in str(page).replace("&amp;", "&")


def test_a_reading_of_an_earlier_trial_can_still_be_corrected(shop: Shop) -> None:
    shop.trial("0.50")
    old = shop.one("12", "in", "0.20")
    shop.trial("0.50, 0.10")
    path = f"/jobs/{shop.job.pk}/set"
    assert f"reading={old.pk}" in str(soup(shop.client(), path))
    data = {"value": "0.02", "reason": "wrong ring"}
    answer = shop.client().post(f"{path}/readings/{old.pk}/correct", data)
    assert answer.status_code == 302
    assert Reading.objects.last().typed == "0.02 mm"


def test_a_member_chooses_which_units_lead(shop: Shop) -> None:
    shop.trial("0.50")
    shop.read(("0.00", "0.02"), ("0.00", "0.02"))
    client, path = shop.client(), f"/jobs/{shop.job.pk}/set"
    assert "0.10 mm (3.9 thou)" in words(soup(client, path), ".next-line h1")
    answer = client.post("/units", {"leads": "inch", "back": path})
    assert answer["Location"] == path
    page = soup(client, path)
    assert words(page, ".next-line h1").startswith("Add 3.9 thou (0.10 mm): put in 0.10.")
    assert "card allows 2.0 thou to 5.9 thou" in words(page, ".next-line p")
    assert "45 lbf·ft (61 N·m)" in words(page, ".set-up")
    assert "0.8 thou (0.02 mm) ± 0.3 thou" in words(page, ".trials-list")
    assert "0.10 mm (3.9 thou)" in words(soup(shop.client("lead"), path), ".next-line h1")
    lock = words(soup(client, f"/jobs/{shop.job.pk}/lock"), ".next-line h1")
    assert lock == "Torque the nut to 45 lbf·ft (61 N·m), then lock it: pin."
    assert client.post("/units", {"leads": "x", "back": "//elsewhere.example"})["Location"] == "/"


@pytest.mark.parametrize(
    ("what", "value", "status"),
    [
        ("balance", "as found", 302), ("balance", "sideways", 422), ("trial_method", "over_shim", 302),
        ("lock_policy", "torque_window", 422), ("lock_policy", "advance only", 302), ("colour", "red", 422),
    ],
)  # fmt: skip
def test_a_job_may_choose_otherwise_than_its_card(
    shop: Shop, what: str, value: str, status: int
) -> None:
    shop.trial()
    data = {"what": what, "value": value, "reason": "as the old hand has it"}
    assert shop.client().post(f"/jobs/{shop.job.pk}/set/choice", data).status_code == status
    chosen = job_file(shop.workshop, shop.job.pk).chosen
    assert chosen == ({what: value.replace(" ", "_")} if status == 302 else {})


def test_over_shimming_is_said_before_the_first_pack(shop: Shop) -> None:
    actions.choose(shop.job, shop.tech, what="trial_method", value="over_shim", reason="new hub")
    assert "starts open" in page_of(shop).line.why


def test_judged_by_hand_is_told_in_numbers_and_never_proven(shop: Shop) -> None:
    version = shop.job.card_version
    version.hands_radius, version.spread, version.contact_angle = "330 mm", "60 mm", "14 deg"
    version.save()
    shop.trial(dial_place="hands")
    page = page_of(shop)
    assert str(page.line) == "Hold at 12 and 6, push and pull, then say what you feel."
    assert "Hands feel 0.09 mm (3.6 thou) of play and more" in page.line.why
    actions.find(shop.job, shop.tech, kind="no_play", trial=1, token=uuid.uuid4())
    page = page_of(shop)
    assert (page.line.kind, page.is_set, page.may_go_on) == ("set", False, True)
    close = shop.client().get(f"/jobs/{shop.job.pk}/close").content.decode()
    assert "judged by hand: no play felt. Hands feel 0.09 mm" in close
