"""Press, pack and seal in a real browser: by keyboard, and on a phone with every due step above the fold."""

import json
import re
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from django.db import connection
from playwright.sync_api import Page, expect

from zesty.bench.models import Entry, Job
from zesty.records.management.commands import load_demo

from .conftest import PHONE, WIDE, Open
from .hand import Hand
from .test_access import serious

JOBS = {"press": 18, "blade": 19, "seal": 20, "pack": 21, "oil": 22}
SIZES = pytest.mark.parametrize("size", [WIDE, PHONE], ids=["keyboard", "phone"])


@pytest.fixture
def demo(django_db_reset_sequences: None, monkeypatch: pytest.MonkeyPatch) -> None:
    """The demo with the jobs that stand at these stages, and no others."""
    wanted = set(JOBS.values())
    whole = json.loads((load_demo.DEMO / "cooperative.json").read_text(encoding="utf-8"))
    jobs = [job for number, job in enumerate(whole["jobs"], 1) if number in wanted]
    read = Path.read_text

    def fewer(path: Path, *args: Any, **kwargs: Any) -> str:
        text = read(path, *args, **kwargs)
        return json.dumps({**whole, "jobs": jobs}) if path.name == "cooperative.json" else text

    monkeypatch.setattr(load_demo, "SCENARIOS", ("cooperative.json",))
    monkeypatch.setattr(Path, "read_text", fewer)
    call_command("load_demo")


def at(open_as: Open, size: tuple[int, int], vehicle: str, axle: int, side: str) -> Hand:
    hand = Hand(open_as("tech", size), touch=size == PHONE)
    job = Job.objects.get(vehicle__name=vehicle, units__places__wheel_end__axle=axle,
                          units__places__wheel_end__side=side)  # fmt: skip
    hand.page.goto(f"/jobs/{job.pk}/")
    return hand


def look(hand: Hand) -> None:
    if hand.touch:
        hand.fits_the_fold()


def ago(seconds: float) -> None:
    """As if the last temperature had been read so long ago: nobody waits a minute for a test."""
    last = Entry.objects.filter(kind="value").order_by("-pk").first()
    assert last is not None
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        Entry.objects.filter(pk=last.pk).update(at=last.at - timedelta(seconds=seconds))
        cursor.execute("SET session_replication_role = DEFAULT")


def seconds_of(page: Page) -> int:
    minutes, _, rest = page.locator(".countdown .left").inner_text().partition(":")
    return int(minutes) * 60 + int(rest)


@SIZES
def test_a_warm_upright_takes_its_frozen_ring_while_the_clock_runs(
    open_as: Open, size: tuple[int, int]
) -> None:
    hand = at(open_as, size, "Hill-climb car", 1, "left")
    page = hand.page
    hand.sees("Warm the housing to")
    look(hand)
    hand.value("108")
    hand.sees("Read the housing again")
    ago(60)
    page.reload()
    hand.sees("Read the housing again")
    hand.value("96")
    hand.sees("Drop it in now")
    look(hand)
    first = seconds_of(page)
    assert 60 < first < 1200
    expect(page.locator(".countdown .left")).not_to_have_text(
        page.locator(".countdown .left").inner_text()
    )
    page.reload()
    assert first - 60 < seconds_of(page) <= first
    other = open_as("lead", size)
    expect(other.locator("#timers")).to_contain_text("Drop it in within")
    other.goto(page.url)
    assert abs(seconds_of(other) - seconds_of(page)) <= 2
    hand.answer(1)
    expect(page.locator("#timers")).not_to_contain_text("Drop it in within")


@SIZES
def test_a_blade_that_enters_at_4_stops_the_stage_and_is_cured(
    open_as: Open, size: tuple[int, int]
) -> None:
    hand = at(open_as, size, "Bin truck 1", 1, "right")
    page = hand.page
    hand.sees("Inner cup, blade at 4: not home")
    look(hand)
    expect(page.locator(".cures li")).to_have_count(4)
    with page.expect_response("**/write"):
        hand.press("That is all")
    page.reload()
    hand.sees("Inner cup, blade at 4: not home")
    hand.answer(1)
    for place in ("6", "8", "10"):
        hand.sees(f"behind the inner cup at {place} o’clock")
        look(hand)
        hand.answer(1)
    hand.sees("behind the outer cup at 12 o’clock")


@SIZES
def test_a_weighed_bearing_has_a_void_and_is_filled(open_as: Open, size: tuple[int, int]) -> None:
    hand = at(open_as, size, "Tipping trailer 2", 1, "right")
    hand.sees("Pack the inner cone from its wide end")
    look(hand)
    hand.value("240.4")
    hand.sees("Push in 4 g more")
    look(hand)
    hand.value("2440 g")
    hand.sees("You typed 2440 g. Is it 244 g?")
    hand.answer(1)
    hand.sees("Weigh the outer cone dry")


@SIZES
def test_an_overfilled_hub_is_let_down_and_read_until_it_stays(
    open_as: Open, size: tuple[int, int]
) -> None:
    hand = at(open_as, size, "Orchard tractor", 2, "right")
    page = hand.page
    hand.sees("Oil to its mark: wait")
    look(hand)
    page.get_by_role("button", name="10 min").click()
    expect(page.locator(".countdown")).to_be_visible()
    assert 500 < seconds_of(page) <= 600
    for words in ("wait", "turn it"):
        hand.sees(words)
        look(hand)
        hand.next()
    hand.sees("read it")
    look(hand)
    hand.answer(3)
    hand.sees("turn it")
    expect(page.locator(".next-line p")).to_contain_text("Let it run out to the mark")
    look(hand)
    hand.next()
    hand.sees("read it")
    hand.answer(1)
    expect(page.locator(".next-line h1")).not_to_contain_text("read it")


@SIZES
def test_a_cocked_seal_is_found_by_its_four_depths_and_tapped(
    open_as: Open, size: tuple[int, int]
) -> None:
    hand = at(open_as, size, "Bin truck 1", 2, "left")
    hand.sees("How deep sits")
    look(hand)
    hand.value("4.24")
    hand.sees("It stands high at 11 o’clock by 0.44 mm (17.3 thou): tap there")
    look(hand)
    for depth, then in (("4.32", "At 3"), ("4.34", "At 6"), ("4.36", "At 9")):
        hand.value(depth)
        expect(hand.page.locator(".ask .ask-title").first).to_have_text(then)
        hand.sees("How deep sits")
        look(hand)
    hand.value("4.32")
    expect(hand.page.locator(".next-line h1")).not_to_contain_text("How deep sits")


def test_a_timer_rings_once_where_the_technician_is(open_as: Open) -> None:
    hand = at(open_as, WIDE, "Orchard tractor", 2, "right")
    page = hand.page
    page.get_by_text("Start a timer").click()
    page.get_by_label("What waits").select_option("cure")
    page.get_by_label("How long, min").fill("3 s")
    page.get_by_label("What it is").fill("cover's sealant")
    page.get_by_role("button", name="Start", exact=True).click()
    timer = page.locator(".timers li", has_text="cover's sealant")
    expect(timer).to_be_visible()
    other = open_as("tech")
    expect(other.locator("#timers")).to_contain_text("cover's sealant")
    theirs = other.locator(".timers li", has_text="cover's sealant")
    expect(timer).to_have_class(re.compile("over"))
    expect(theirs).to_have_class(re.compile("over"))
    for _ in range(100):
        rung = [one.locator(".timers .rung").count() for one in (page, other)]
        if any(rung):
            break
        page.wait_for_timeout(100)
    assert sum(rung) == 1, "it rings on one of them"
    page.reload()
    expect(timer).to_have_class("over")
    timer.get_by_text("Done").click()
    timer.get_by_role("button", name="Stop it").click()
    expect(timer).to_have_count(0)


def test_axe_finds_nothing_serious(open_as: Open) -> None:
    page = open_as("tech", PHONE)
    found = []
    for job in Job.objects.order_by("pk"):
        page.goto(f"/jobs/{job.pk}/")
        found += serious(page)
    assert found == []
