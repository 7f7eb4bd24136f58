"""A doubt is settled at the bench: read again, set aside, with what the shop has and knows."""

import uuid
from typing import Any

from bs4 import BeautifulSoup
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from zesty.bench.actions import log
from zesty.bench.models import Job, State
from zesty.bench.queries.history import own_scatter, usual_packs
from zesty.records.exchange.jobs import job_document
from zesty.stores.actions import add_gauge

from .conftest import Shop, as_owner, make_shop, mm, setting


def page_of(client: Client, shop: Shop, stage: str = "set") -> BeautifulSoup:
    answer = client.get(f"/jobs/{shop.job.pk}/1/{stage}/")
    assert answer.status_code == 200
    return BeautifulSoup(answer.content, "html.parser")


def headline(page: BeautifulSoup) -> str:
    found = page.select_one(".next-line h1")
    assert found is not None
    return " ".join(found.get_text().split())


def settle(client: Client, page: BeautifulSoup, **more: str) -> Any:
    form = page.select_one("form.settle")
    assert form is not None
    sent = {str(one["name"]): str(one.get("value", "")) for one in form.select("input")}
    return client.post(str(form["action"]), {**sent, **more})


def apart(shop: Shop) -> None:
    """Two trials that do not add up by 0.13 mm, which is no shim of theirs."""
    shop.trial("0.50, 0.10", "0", "0.10", "0", "0.10")
    shop.say("pick", step="open", typed="change")
    shop.trial("0.50, 0.05", "0", "0.18", "0", "0.18")


def test_one_tap_asks_for_the_reading_and_the_next_sets_the_trial_aside(shop: Shop) -> None:
    apart(shop)
    client = shop.client()
    page = page_of(client, shop)
    assert headline(page) == "Seat both ways, then read 12 o’clock once more."
    assert not page.select(".causes")
    assert settle(client, page).status_code == 302
    assert headline(page_of(client, shop)) == "Push in at 12 o’clock, again, hold, read."
    shop.read("0", "0.18")
    page = page_of(client, shop)
    assert headline(page).startswith("Set aside trial 1")
    shares = [int(one.get_text().removesuffix(" %")) for one in page.select(".causes b")]
    assert shares == sorted(shares, reverse=True)
    assert 0 < sum(shares) <= 101
    assert settle(client, page).status_code == 302
    assert "does not add up" not in page_of(client, shop).get_text()


def test_the_same_tap_sent_twice_counts_once(shop: Shop) -> None:
    apart(shop)
    client = shop.client()
    page = page_of(client, shop)
    for _ in range(2):
        assert settle(client, page).status_code == 302
    assert shop.job.entries.filter(kind="again").count() == 1
    again = settle(client, page, token=str(uuid.uuid4()))
    assert again.status_code == 422
    assert "said so already" in again.content.decode()


def test_only_a_place_of_the_card_is_read_again(shop: Shop) -> None:
    apart(shop)
    client = shop.client()
    page = page_of(client, shop)
    for place in ("3 again", "12", "12 again again", "12 again 0", "x"):
        answer = settle(client, page, place=place, token=str(uuid.uuid4()))
        assert (place, answer.status_code) == (place, 302 if place == "12" else 422)
        if place != "12":
            assert not shop.job.entries.filter(place=place).exists()


def test_a_place_read_again_is_drawn_printed_and_exported(shop: Shop) -> None:
    shop.trial("0.50, 0.10", "0", "0.10", "0", "0.16")
    client = shop.client()
    page = page_of(client, shop)
    assert headline(page) == "Push in at 6 o’clock, again, hold, read."
    assert page.select(".hub-face svg")
    shop.read("0", "0.10")
    assert "6 o’clock read again: its first does not count" in page_of(client, shop).get_text()
    shop.finish()
    assert "read again" not in shop.unit.claims[1].fact  # the locked reading stands alone
    places = {row.get("place") for row in job_document(shop.file)["entries"]}
    assert "6 again" in places
    assert client.get(f"/jobs/{shop.job.pk}/1/close/").status_code == 200


def test_a_reading_that_a_slip_explains_is_held(shop: Shop) -> None:
    shop.trial("0.50, 0.10", "0", "0.12", "0")
    answer = shop.post(shop.client(), "read", value="0.21")
    assert answer.status_code == 422
    assert "Is it 0.12 mm?" in " ".join(answer.content.decode().split())
    assert not shop.job.entries.filter(typed="0.21 mm").exists()


def test_what_earlier_trials_say_is_known_at_the_first_reading_of_the_next(shop: Shop) -> None:
    shop.trial("0.50, 0.10", "0", "0.17", "0", "0.17")
    shop.say("pick", step="open", typed="change")
    shop.trial("0.50, 0.05", "0")
    answer = shop.post(shop.client(), "read", value="0.21")
    assert answer.status_code == 422
    assert "earlier trials say 0.12 mm" in " ".join(answer.content.decode().split())


def test_the_finer_dial_of_the_shop_is_named(shop: Shop) -> None:
    limits = {"low": "0.09 mm", "high": "0.11 mm"}
    with as_owner():
        narrow = make_shop("narrow", settings=[setting(limits=limits)])
    narrow.trial("0.50, 0.10", "0", "0.10", "0", "0.11")
    client = narrow.client()
    assert "a dial of 0.002 mm or finer" in headline(page_of(client, narrow))
    add_gauge(narrow.workshop, name="lever", resolution=mm("0.002 mm"), calibration=mm("0.001 mm"))
    assert "take lever and read again" in headline(page_of(client, narrow))


def signed(shop: Shop, pack: str) -> None:
    """A job signed with a pack; the next one is open."""
    shop.trial(pack, "0", "0.10", "0", "0.10")
    shop.finish(pack)
    with as_owner():
        Job.objects.filter(pk=shop.job.pk).update(state=State.SIGNED)


def test_history_knows_the_packs_that_jobs_were_signed_with(shop: Shop) -> None:
    card = shop.card.pk
    assert usual_packs(shop.workshop.pk, card) is None
    signed(shop, "0.50, 0.10")
    assert usual_packs(shop.workshop.pk, card) is None
    first = shop.job
    with as_owner():
        for number in (2, 3):
            _copy(first, number)
    found = usual_packs(shop.workshop.pk, card)
    assert found is not None
    assert (found.jobs, round(found.pack_mm, 3)) == (3, 0.6)


def _copy(first: Job, number: int) -> None:
    """Another signed job with the same unit and packs."""
    job = Job.objects.create(
        workshop=first.workshop, number=number + 100, vehicle=first.vehicle, state=State.SIGNED,
        opened_by=first.opened_by, opened_by_name="x", ended_at=first.opened_at,
    )  # fmt: skip
    unit = first.units.get()
    unit.pk, unit.job, unit._state.adding = None, job, True
    unit.save()
    for entry in first.entries.filter(kind="pack", corrected_by=None):
        shims = list(entry.shims.all())
        entry.pk, entry.job, entry.unit, entry._state.adding = None, job, unit, True
        entry.token = uuid.uuid4()
        entry.save()
        for shim in shims:
            shim.pk, shim.entry, shim._state.adding = None, entry, True
            shim.save()


def test_the_shops_own_scatter_is_offered_to_the_card_and_taken(shop: Shop) -> None:
    assert own_scatter(shop.workshop, "shimmed_pair", "spindle_axis") is None
    for _ in range(10):
        shop.trial("0.50, 0.10", "0", "0.100", "0", "0.110")
        shop.say("pick", step="open", typed="change")
    found = own_scatter(shop.workshop, "shimmed_pair", "spindle_axis")
    assert found is not None
    assert found.series == 10
    assert 0.004 < found.deviation_mm < 0.008
    assert own_scatter(shop.workshop, "shimmed_pair", "hub_face") is None
    client = shop.client("lead")
    path = client.post(f"/cards/{shop.card.pk}/edit")["Location"]
    page = BeautifulSoup(client.get(f"{path}?at=settings.0").content, "html.parser")
    form = page.select_one("form.offer")
    assert form is not None
    assert "10 series of this family" in form.get_text()
    sent = {str(one["name"]): str(one.get("value", "")) for one in form.select("input")}
    assert client.post(f"{path}?at=settings.0", sent).status_code == 302
    page = BeautifulSoup(client.get(f"{path}?at=settings.0").content, "html.parser")
    assert not page.select("form.offer")
    assert client.post(f"{path}keep", {}).status_code == 302
    newest = shop.card.versions.first()
    assert str(newest.says.setting.repeatability) == sent["typed"]
    assert "Your own readings" in newest.reasons["settings.0.repeatability"]


def test_a_bound_hub_costs_two_queries_more_at_most(shop: Shop) -> None:
    client = shop.client()
    path = f"/jobs/{shop.job.pk}/1/set/"
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    shop.dial()
    client.get(path)
    with CaptureQueriesContext(connection) as few:
        client.get(path)
    shop.say("bound", place="", instrument=shop.tool("dial"), facts={"dial_at": "spindle_axis"})
    with CaptureQueriesContext(connection) as many:
        assert client.get(path).status_code == 200
    assert len(many) <= len(few) + 2
    assert len(many) <= 12


def test_a_locked_reading_outside_is_no_dead_end(shop: Shop) -> None:
    """The line says what it is, the hub can be opened again, and the trials go on."""
    shop.trial("0.50, 0.10", "0", "0.10", "0", "0.10")
    shop.finish(upto="cap")
    client = shop.client()
    assert "settle" not in str(page_of(client, shop, "prove").select(".settle"))
    for row in shop.job.entries.filter(step="locked_reading", kind="out"):
        typed = mm("0.20 mm")
        log.correct(
            shop.file,
            shop.people["tech"],
            row,
            typed=typed.text,
            value=typed.value,
            reason="misread",
        )
    page = page_of(client, shop, "prove")
    assert headline(page) == "Seat both ways, then read 12 o’clock once more."
    assert settle(client, page).status_code == 302
    shop.read("0", "0.20")
    page = page_of(client, shop, "prove")
    assert "trial" in headline(page)
    link = next(one for one in page.select("a") if one.get_text() == "open the hub")
    answer = client.get(str(link["href"]))
    form = BeautifulSoup(answer.content, "html.parser").select_one(".ask-form")
    assert form is not None
    sent = {str(one["name"]): str(one.get("value", "")) for one in form.select("input")}
    assert client.post(str(form["action"]), {**sent, "answer": "change"}).status_code == 302
    assert shop.unit.progress.phase == "trial"
    assert headline(page_of(client, shop)) == "Which shims go in?"
    assert shop.unit.statement == "not_set"
