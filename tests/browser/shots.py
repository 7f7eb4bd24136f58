"""Remakes docs/screenshots from the demo: ./zesty shots. Not a test of anything."""

from pathlib import Path

import pytest
from playwright.sync_api import Page

from .conftest import PHONE, WIDE, Open
from .hand import Hand
from .test_press_half import ago

SHOTS = Path(__file__).resolve().parents[2] / "docs" / "screenshots"
VIEWS = [
    ("yard", "/", WIDE, False),
    ("lock", "/jobs/6/", WIDE, False),
    ("nut", "/jobs/39/", WIDE, False),
    ("drag", "/jobs/40/", (1280, 1000), False),
    ("prove", "/jobs/41/", (1280, 1000), False),
    ("tray", "/tray/", WIDE, False),
]


@pytest.fixture
def small_demo() -> None:
    """Pictures are of the whole demo."""


def keep(page: Page, name: str) -> None:
    """One picture."""
    page.wait_for_timeout(200)
    SHOTS.mkdir(parents=True, exist_ok=True)
    page.screenshot(path=SHOTS / f"{name}.png")


@pytest.mark.parametrize(("name", "path", "size", "dark"), VIEWS, ids=[view[0] for view in VIEWS])
def test_shot(open_as: Open, name: str, path: str, size: tuple[int, int], dark: bool) -> None:
    page = open_as("lead", size, dark)
    page.goto(path)
    keep(page, name)


def test_shots_of_a_trial(open_as: Open) -> None:
    wide = open_as("tech", WIDE)
    wide.goto("/jobs/2/")
    hand = Hand(wide)
    hand.answer(1)
    hand.sees("shims go in")
    hand.value("0.50, 0.05")
    hand.sees("Nut to")
    hand.value("61")
    hand.sees("12 o’clock")
    hand.value("0.00")
    hand.sees("Pull out")
    hand.value("0.10")
    hand.sees("4 o’clock")
    hand.value("0.00")
    hand.sees("Pull out")
    wide.keyboard.type("0.1")
    keep(wide, "set-reading")
    phone = open_as("tech", PHONE)
    phone.goto("/jobs/2/")
    phone.locator("[data-entry]").fill("0.1")
    keep(phone, "set-reading-phone")


def test_shot_of_what_is_claimed(open_as: Open) -> None:
    page = open_as("lead", WIDE)
    page.goto("/jobs/1/1/close/")
    keep(page, "close")


def test_shot_of_a_card_that_is_changed(open_as: Open) -> None:
    page = open_as("lead", WIDE)
    page.goto("/cards/1/")
    page.get_by_role("button", name="Change it").click()
    page.goto(page.url.partition("?")[0] + "?at=stack.1")
    keep(page, "card-edit")


def test_shot_of_what_it_may_be(open_as: Open) -> None:
    page = open_as("tech", (1280, 1500))
    page.goto("/jobs/2/1/set/")
    hand = Hand(page)
    hand.next()
    for value in ("0", "0.18"):
        hand.sees("12 o’clock, again")
        hand.value(value)
    hand.sees("Set aside trial 1")
    keep(page, "set-does-not-add-up")


def test_shot_of_the_gallery(open_as: Open) -> None:
    page = open_as("lead", (1280, 1240))
    page.goto("/cards/arrangements")
    keep(page, "gallery")


def test_shots_of_the_first_half(open_as: Open) -> None:
    page = open_as("tech", (1280, 900))
    hand = Hand(page)
    page.goto("/jobs/10/1/check/")
    keep(page, "check")
    page.goto("/jobs/14/1/strip/")
    for words in (
        "As the card",
        "As the card",
        "As the card",
        "As the card",
        "As the card",
        "Not there",
    ):
        before = page.locator(".ask-title").inner_text()
        hand.press(words)
        page.locator(".ask-title", has_text=before).wait_for(state="detached")
    keep(page, "strip")
    page.goto("/jobs/9/1/clean/?step=judged&place=p2")
    hand.press("Straw to blue")
    hand.sees("Look at the spindle")
    page.goto("/jobs/9/1/clean/?step=judged&place=p1")
    keep(page, "inspect")
    page.goto("/jobs/13/1/match/")
    page.locator("#detail").fill("52X72, 52X72, 50X72")
    hand.press("Seal, box and driver")
    hand.sees("does not match")
    keep(page, "match")


def test_shots_of_the_second_half(open_as: Open) -> None:
    page = open_as("tech", WIDE)
    hand = Hand(page)
    page.goto("/jobs/18/1/press/")
    hand.value("108")
    hand.sees("Read the housing again")
    ago(60)
    page.reload()
    hand.value("98")
    hand.sees("Drop it in now")
    keep(page, "press")
    page.goto("/jobs/20/1/seal/")
    hand.value("4.24")
    hand.sees("tap there")
    keep(page, "seal")
    page.goto("/jobs/21/1/pack/")
    hand.value("240.4")
    hand.sees("Push in")
    keep(page, "pack")
