"""Remakes docs/screenshots from the demo: ./zesty shots. Not a test of anything."""

from pathlib import Path

import pytest

from .conftest import PHONE, WIDE, Open

SHOTS = Path(__file__).resolve().parents[2] / "docs" / "screenshots"
VIEWS = [
    ("yard", "/", WIDE, False),
    ("vehicle", "/vehicles/1/", WIDE, False),
    ("take-in", "/jobs/4/take-in", WIDE, False),
    ("set-does-not-add-up", "/jobs/2/set", WIDE, False),
    ("set-bound", "/jobs/3/set", WIDE, False),
    ("set-through-axle", "/jobs/5/set", WIDE, False),
    ("set-dark", "/jobs/3/set", WIDE, True),
    ("lock", "/jobs/2/lock", WIDE, False),
    ("close-signed", "/jobs/1/close", WIDE, False),
    ("tray", "/tray/", WIDE, False),
    ("card", "/cards/1/", WIDE, False),
    ("card-edit", "/cards/1/edit", WIDE, False),
    ("set-phone", "/jobs/3/set", PHONE, False),
    ("yard-phone", "/", PHONE, False),
]


@pytest.mark.parametrize(("name", "path", "size", "dark"), VIEWS, ids=[view[0] for view in VIEWS])
def test_shot(open_as: Open, name: str, path: str, size: tuple[int, int], dark: bool) -> None:
    page = open_as("lead", size, dark)
    page.goto(path)
    page.wait_for_timeout(200)
    SHOTS.mkdir(parents=True, exist_ok=True)
    page.screenshot(path=SHOTS / f"{name}.png")


@pytest.mark.parametrize(("name", "size"), [("set-reading", WIDE), ("set-reading-phone", PHONE)])
def test_shot_of_a_reading_due(open_as: Open, name: str, size: tuple[int, int]) -> None:
    page = open_as("tech", size)
    page.goto("/jobs/2/set?panel=pack")
    page.get_by_role("button", name="Fitted and torqued: read").click()
    for value, words in (("0.00", "12 o'clock, pull out"), ("0.18", "4 o'clock, push in")):
        page.locator("[data-entry]").fill(value)
        page.keyboard.press("Enter")
        page.get_by_text(words, exact=True).wait_for()
    page.locator("[data-entry]").fill("0.0")
    page.screenshot(path=SHOTS / f"{name}.png")


def test_shot_of_the_nut_clock(open_as: Open) -> None:
    page = open_as("tech", (1280, 1000))
    page.goto("/jobs/2/lock")
    page.get_by_label("Angle on to the next place").fill("20")
    page.get_by_label("Angle on to the next place").press("Enter")
    page.locator(".nut-clock").wait_for()
    page.screenshot(path=SHOTS / "lock-clock.png")
