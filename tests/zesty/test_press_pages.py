"""Press, pack and seal through their pages: what stands there is what the core says of the same input."""

import json
import re
from pathlib import Path
from typing import Any

import pytest
from bs4 import BeautifulSoup
from django.utils import timezone

from wheelend import wording
from wheelend.card import card_from
from wheelend.errors import BadInput
from wheelend.fitting import Shed, plans
from wheelend.grease import Bearing, grease
from wheelend.oil import oil
from wheelend.procedure.asking.warmth import warmed
from wheelend.procedure.warmline import clock
from zesty.bench.models import Timer, TimerChange
from zesty.records.exchange.formats import TRAY
from zesty.records.exchange.trays import import_tray, tray_document
from zesty.stores.models import Equipment, Lubricant

from .conftest import Shop, as_owner, make_shop, text
from .test_timers import later

DEMO = json.loads((Path(__file__).parents[2] / "demo" / "cooperative.json").read_text())
CARDS = {card["name"]: card for card in DEMO["cards"]}


def at(shop_name: str, card: str, step: str, **more: Any) -> Shop:
    """A workshop with the demo's tray, a job on one of its cards, everything before a step ticked."""
    said = {"choices": {}, "bolt_rings": [], **CARDS[card], **more}
    said.setdefault("read_at", ["12", "6"])
    with as_owner():
        shop = make_shop(shop_name, **said)
        import_tray(shop.workshop, TRAY.read({**DEMO["stores"], "instruments": []}, ""))
    shop.until(step)
    return shop


def page(shop: Shop, stage: str, **query: str) -> BeautifulSoup:
    answer = shop.client().get(f"/jobs/{shop.job.pk}/1/{stage}/", query)
    assert answer.status_code == 200
    return BeautifulSoup(answer.content, "html.parser")


def words(soup: BeautifulSoup, css: str) -> str:
    found = soup.select_one(css)
    assert found is not None, css
    return " ".join(found.get_text(" ").split())


def read(shop: Shop, *typed: str, stage: str = "press", step: str = "warm") -> Any:
    answer = None
    for one in typed:
        answer = shop.post(shop.client(), step, stage, value=one)
        assert answer.status_code == 302, text(answer)
    return answer


@pytest.fixture
def upright(shop: Shop) -> Shop:
    return at("uprights", "Hill-climb car upright", "warm")


def test_the_fit_on_the_page_is_the_cores(upright: Shop) -> None:
    card = card_from(CARDS["Hill-climb car upright"])
    plan = plans(card, shed=Shed(100_000, -18, 200))[0]
    assert plan.least is not None and plan.most is not None
    told = words(page(upright, "press"), ".fit")
    assert wording.span(plan.loosest_mm, plan.tightest_mm, 0.001) in told
    assert f"{plan.most.force_N:.0f} N" in told
    assert f"{plan.most.pressure_MPa:.1f} MPa" in told
    left = wording.span(plan.least.service_mm, plan.most.service_mm, 0.001)
    assert f"{left} of it is left" in told
    assert told.startswith("Fit of the inner bearing and outer bearing")
    both = plan.way("both")
    assert both is not None
    assert f"{both.warm_degC:.0f} °C" in told


def test_the_countdown_is_the_cores_and_the_same_on_every_device(upright: Shop) -> None:
    read(upright, "21 degC", "-18", "108")
    assert "or more" in words(page(upright, "press"), ".next-line h1")
    with later(60):
        read(upright, "96")
        row = upright.unit.progress.row("warm", "")
        assert row is not None
        left = warmed(row.at).left_s(timezone.now().timestamp())
        assert left is not None
        shown = words(page(upright, "press"), ".countdown .left")
        assert shown in {clock(left), clock(left - 1)}
    with later(60 + left / 2):
        half = page(upright, "press")
        assert abs(int(half.select_one(".countdown")["data-left"]) - left / 2) < 3  # type: ignore[index, call-overload]
        for other in ("lead", "owner"):
            soup = BeautifulSoup(upright.client(other).get("/").content, "html.parser")
            assert "Drop it in within" in words(soup, "#timers")
    with later(60 + left + 2):
        assert "warm it again" in words(page(upright, "press"), ".next-line h1")


def test_the_cooling_timer_follows_the_readings_and_ends_with_it(upright: Shop) -> None:
    read(upright, "21", "-18", "108")
    assert not Timer.objects.filter(job=upright.job).exists()
    with later(60):
        read(upright, "98")
    with later(90):
        read(upright, "93")
        assert Timer.objects.filter(job=upright.job).count() == 2
        assert TimerChange.objects.filter(kind="stopped").count() == 1
        answer = upright.post(upright.client(), "warm", "press", answer="dropped")
        assert answer.status_code == 302
        assert "Drop it in" not in text(upright.client().get("/timers/"))


@pytest.mark.parametrize(
    ("typed", "says"),
    [("960", "not between"), ("-300 degC", "not between"), ("96 mm", "mm"), ("", "Nothing was typed"), ("warm", "warm")],
)  # fmt: skip
def test_a_temperature_that_cannot_be_is_said_and_kept(
    upright: Shop, typed: str, says: str
) -> None:
    answer = upright.post(upright.client(), "warm", "press", value=typed)
    assert answer.status_code == 422
    assert says in text(answer)
    soup = BeautifulSoup(answer.content, "html.parser")
    assert soup.select_one("[data-entry]")["value"] == typed  # type: ignore[index]


@pytest.mark.parametrize(
    ("changed", "says"),
    [({"around": "70 mm"}, "is not larger than the ring, 75 mm"), ({"seat_low": "7.4935 mm"}, "was a digit or the point lost"),
     ({"seat_high": "749.50 mm"}, "was a digit or the point lost")],
)  # fmt: skip
def test_a_ring_larger_than_its_housing_is_one_sentence(changed: dict[str, str], says: str) -> None:
    card = CARDS["Hill-climb car upright"]
    with pytest.raises(BadInput, match=says):
        card_from({**card, "fits": [{**card["fits"][0], **changed}]})


@pytest.mark.parametrize(
    ("typed", "meant"), [("210 degC", "21"), ("70 degC", "70 degF"), ("2.1 degC", None)], ids=["lost point", "other unit", "likely"]
)  # fmt: skip
def test_a_temperature_of_no_shed_is_asked_about(
    upright: Shop, typed: str, meant: str | None
) -> None:
    answer = upright.post(upright.client(), "warm", "press", value=typed)
    assert (answer.status_code == 422) is (meant is not None)
    if meant:
        assert meant in text(answer)
        assert f"You typed {typed}" in text(answer)
        assert not [row for row in upright.file.entries if row.step == "warm"], (
            "nothing is written yet"
        )


def test_a_depth_below_nothing_and_a_slipped_scale_are_asked_about(shop: Shop) -> None:
    truck = at("trucks", "Bin truck rear hub", "seal_level")
    answer = truck.post(truck.client(), "seal_level", "seal", value="-4.2 mm")
    assert "Is it 4.2 mm?" in text(answer)
    trailer = at("trailers", "Tipping trailer hub", "weighed")
    answer = trailer.post(trailer.client(), "weighed", "pack", value="2380 g")
    assert "238 g" in text(answer)
    assert answer.status_code == 422


def test_a_blade_that_enters_stops_and_the_cures_stand_there(shop: Shop) -> None:
    hub = at("hubs", "Bin truck front hub, preset", "cups_home")
    for item, answer in (("way", "sits"), ("surface", "oil"), ("tool", "press"), ("home", "no"),
                         ("p3_12", "out"), ("p3_2", "out"), ("p3_4", "enters")):  # fmt: skip
        assert (
            hub.post(hub.client(), "cups_home", "press", place=item, answer=answer).status_code
            == 302
        )
    soup = page(hub, "press")
    assert words(soup, ".next-line h1") == "Inner cup, blade at 4: not home ."
    assert len(soup.select(".cures li")) == 4
    assert "at 4: it enters" in words(soup, ".on-wide svg")
    refused = hub.post(hub.client(), "cups_home", "press", enough="yes")
    assert refused.status_code == 422
    assert "off its shoulder at 4 o’clock" in text(refused)
    due = hub.unit.progress.due
    assert due is not None
    assert due.step.id == "cups_home"


def test_grams_and_strokes_are_the_cores_and_a_void_is_seen(shop: Shop) -> None:
    trailer = at("trailers", "Tipping trailer hub", "weighed")
    wanted = grease(
        Bearing(30, 62, 17.25, 238), fill=0.7, cavity=(45, 0.35), density=0.9, per_stroke_g=1.2
    )
    told = words(page(trailer, "pack"), "[aria-label='How much grease']")
    assert f"{wanted.fill_g:.1f} g in the bearing" in told
    assert f"{wanted.strokes} strokes of the lever gun" in told
    read(trailer, "238", "240.4", stage="pack", step="weighed")
    soup = page(trailer, "pack")
    assert words(soup, ".next-line h1").startswith(f"Push in {wanted.fill_g - 2.4:.0f} g more")
    assert "hollow between" in words(soup, ".on-wide svg")
    read(trailer, "244", stage="pack", step="weighed")
    assert words(page(trailer, "pack"), ".next-line h1") == "Weigh the outer cone dry ."


def test_lighter_than_dry_asks_whether_the_two_were_exchanged(shop: Shop) -> None:
    trailer = at("trailers", "Tipping trailer hub", "weighed")
    read(trailer, "244", "238", stage="pack", step="weighed")
    soup = page(trailer, "pack")
    assert "were the two exchanged?" in words(soup, ".ask .held")
    shown = [row.typed for row in trailer.file.entries if row.kind == "value" and "g" in row.typed]
    assert shown[-2:] == ["244 g", "238 g"], "nothing is lost"


def test_a_cocked_seal_is_found_by_its_four_depths(shop: Shop) -> None:
    truck = at("trucks", "Bin truck rear hub", "seal_level")
    read(truck, "4.08", "4.50", "4.62", "4.20", stage="seal", step="seal_level")
    soup = page(truck, "seal")
    assert (
        words(soup, ".next-line h1")
        == "It stands high at 11 o’clock by 0.62 mm (24.3 thou): tap there ."
    )
    assert "too near to tell" in words(soup, ".gates"), "its deepest place is at the limit"
    assert "tilted" in words(soup, ".gates")
    read(truck, "4.3", "4.3", stage="seal", step="seal_level")
    assert "tap" not in words(page(truck, "seal"), ".next-line h1")


def test_oil_waits_by_the_cards_time_on_the_servers_clock(shop: Shop) -> None:
    tractor = at("tractors", "Orchard tractor rear hub", "oiled")
    stage = tractor.unit.progress.due.step.stage  # type: ignore[union-attr]
    post = tractor.client()
    assert tractor.post(post, "oiled", stage, answer="done").status_code == 302
    assert Timer.objects.get(job=tractor.job).seconds == 600
    soup = page(tractor, stage)
    assert 590 <= int(soup.select_one(".countdown")["data-left"]) <= 600  # type: ignore[index, call-overload]
    for answer in ("done", "done", "over"):
        assert tractor.post(post, "oiled", stage, answer=answer).status_code == 302
    told = page(tractor, stage)
    assert "run out to the mark" in words(told, ".next-line p")
    why = words(told, "[aria-label='Why never more']")
    assert "like a wall" in why
    cooled = oil(4200, 2100, 20, 70, cools_to_degC=10).gauge_cooled_bar
    assert cooled is not None
    assert f"with {-cooled:.2f} bar" in why
    assert not any(
        one.kind == "settling" and not one.changes.filter(kind="stopped")
        for one in Timer.objects.all()
    )


def test_cautions_are_acknowledged_once_in_a_job(upright: Shop) -> None:
    assert "Burns" in words(page(upright, "press"), ".caution-form")
    client = upright.client()
    for _ in range(2):
        answer = client.post(f"/jobs/{upright.job.pk}/1/press/seen", {"step": "warm"})
        assert answer.status_code == 302
    assert page(upright, "press").select_one(".caution-form") is None
    assert "Burns" in words(page(upright, "press"), ".cautions-seen")
    answer = client.post(f"/jobs/{upright.job.pk}/1/press/seen", {"step": "usage"})
    assert answer.status_code == 422


def test_the_shed_goes_out_and_comes_back(shop: Shop) -> None:
    with as_owner():
        import_tray(shop.workshop, TRAY.read({**DEMO["stores"], "instruments": []}, ""))
    sent = tray_document(shop.workshop)
    assert {one["name"] for one in sent["equipment"]} >= {"ten-tonne press", "chest freezer"}
    with as_owner():
        other = make_shop("elsewhere")
        import_tray(other.workshop, TRAY.read({**sent, "instruments": []}, ""))
    assert tray_document(other.workshop)["lubricants"] == sent["lubricants"]
    gun = Equipment.objects.get(workshop=other.workshop, name="lever gun")
    assert float(gun.value) == 1.2
    assert Lubricant.objects.filter(workshop=other.workshop).count() == 4


def test_what_a_page_shows_is_told_by_its_drawing_too(upright: Shop) -> None:
    read(upright, "21", "-18", "108")
    title = words(page(upright, "press"), ".on-wide svg title")
    found = re.search(r"now (\d+) °C, gap (\d\.\d+) mm", title)
    assert found is not None
    assert found[1] == "108"


def test_keys_and_units_of_every_kind(upright: Shop) -> None:
    """Typed in other units the same is meant."""
    read(upright, "70 degF", "0 degF", "226.4 degF")
    row = upright.unit.progress.row("warm", "")
    assert row is not None
    found = warmed(row.at)
    assert found.air == pytest.approx(21.11, abs=0.01)
    assert found.hub[0].value == pytest.approx(108, abs=0.01)


def test_a_seat_measured_tighter_than_the_cards_is_said(shop: Shop) -> None:
    hub = at("tight", "Bin truck front hub, preset", "seats")
    seats = {"p3": "109.90 mm", "p6": "79.935 mm"}
    for _ in range(12):
        due = hub.unit.progress.due
        assert due is not None
        assert due.step.id == "seats", due.step.id
        seat = seats[due.slot.place.partition(".")[0]]
        assert hub.post(hub.client(), "seats", "clean", value=seat).status_code == 302
    hub.until("cups_home")
    assert "tighter than the card’s" in text(hub.client().get(f"/jobs/{hub.job.pk}/1/press/"))


def test_each_kind_of_seal_says_what_it_wants(shop: Shop) -> None:
    truck = at("trucks", "Bin truck rear hub", "seal_in")
    told = words(page(truck, "seal"), "[aria-label='What the seal wants']")
    assert "cassette seal, on a wear sleeve" in told
    assert "4.0 mm to 4.6 mm below its face" in told


def test_a_driven_hub_is_given_its_own_first_charge(shop: Shop) -> None:
    card = CARDS["Orchard tractor rear hub"]
    lubricant = {**card["lubricant"], "charge": "400 mL"}
    tractor = at("tractors", card["name"], "oiled", lubricant=lubricant)
    stage = tractor.unit.progress.due.step.stage  # type: ignore[union-attr]
    assert "400 mL by the card" in words(page(tractor, stage), "[aria-label='Why never more']")
