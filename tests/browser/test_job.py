"""A whole job as a technician does it: by keyboard and number entry, wide and on a phone."""

import io
import re

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from .conftest import PHONE, WIDE, Open


def type_readings(page: Page, readings: list[tuple[str, str]]) -> None:
    """Type each value where the focus is; Enter moves on to what is asked next."""
    for words, value in readings:
        expect(page.locator(".entry label")).to_have_text(words)
        expect(page.locator("[data-entry]")).to_be_focused()
        page.keyboard.type(value)
        page.keyboard.press("Enter")


def line(page: Page) -> str:
    return " ".join(page.locator(".next-line h1").inner_text().split())


def no_sideways_scrolling(page: Page) -> None:
    room = "document.documentElement.scrollWidth - document.documentElement.clientWidth"
    assert page.evaluate(room) <= 0


def take_in(page: Page) -> None:
    expect(page.locator(".stage-rule .here")).to_have_text("Take in")
    page.get_by_label("What the driver says").fill("Play at the wheel, both ways.")
    page.get_by_label("Counter").fill("655 h")
    page.get_by_label(re.compile("Made safe")).focus()
    page.keyboard.press("Space")
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")


def first_pack(page: Page) -> None:
    expect(page.locator(".next-line h1")).to_contain_text("shim pack")
    page.get_by_label("Shims in the pack").fill("0.50, 0.05")
    page.get_by_label("Gauge").select_option(label="dial 0.01 mm")
    page.get_by_label("Shims in the pack").press("Enter")


def lock_it(page: Page) -> None:
    expect(page.locator(".stage-rule .here")).to_have_text("Lock")
    page.get_by_label("Torque reached").fill("35.5 lbf·ft")
    page.get_by_label("Wrench").select_option(label="small click wrench")
    page.get_by_label("done: it cannot move").check()
    page.get_by_label("Torque reached").press("Enter")
    expect(page.locator(".next-line h1")).to_contain_text("Read once more")


@pytest.mark.parametrize("size", [WIDE, PHONE], ids=["wide", "phone"])
def test_a_job_from_the_yard_to_the_printed_sheet(open_as: Open, size: tuple[int, int]) -> None:
    page = open_as("tech", size)
    page.get_by_role("link", name="Boom sprayer, axle 1 left: job 4 is open").focus()
    page.keyboard.press("Enter")
    take_in(page)
    first_pack(page)
    no_sideways_scrolling(page)
    type_readings(
        page,
        [("12 o'clock, push in", "0"), ("12 o'clock, pull out", ".02"),
         ("6 o'clock, push in", "0.4 thou"), ("6 o'clock, pull out", "0.03")],
    )  # fmt: skip
    expect(page.locator(".next-line h1")).to_contain_text("Add")
    assert line(page).startswith("Add 0.05 mm (2.0 thou): take out 0.05, put in 4 thou.")
    expect(page.locator(".verdict strong")).to_have_text("too tight")
    no_sideways_scrolling(page)

    page.keyboard.press("Alt+f")
    readings = [("12 o'clock, push in", "0.00"), ("12 o'clock, pull out", "0.08"),
                ("6 o'clock, push in", "0.01"), ("6 o'clock, pull out", "0.09")]  # fmt: skip
    type_readings(page, readings)
    expect(page.locator(".next-line h1")).to_contain_text("is inside")
    page.keyboard.press("Alt+n")

    lock_it(page)
    page.keyboard.press("Alt+f")
    type_readings(page, readings)
    expect(page.locator(".next-line h1")).to_contain_text("is inside")
    page.keyboard.press("Alt+n")

    expect(page.locator(".next-line h1")).to_contain_text("unsourced")
    expect(page.locator(".claims .open strong")).to_have_text(["Setting has a source"])
    page.get_by_role("button", name="Sign off as unsourced").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".next-line h1")).to_contain_text("Signed off as unsourced by tech")
    no_sideways_scrolling(page)
    check_the_sheet(page)


def check_the_sheet(page: Page) -> None:
    href = page.get_by_role("link", name="The sheet (PDF)").get_attribute("href")
    assert href
    pages = PdfReader(io.BytesIO(page.request.get(href).body())).pages
    text = " ".join(" ".join(one.extract_text().split()) for one in pages)
    for said in (
        "Boom sprayer, axle 1 left", "unsourced", "taken from the other side of the axle",
        "Play at the wheel, both ways.", "655 h", "0.08 mm (3.1 thou)", "12 in 0.00 mm",
        "6 in 0.4 thou", "dial 0.01 mm, step 0.01 mm", "48 N·m (35 lbf·ft)",
        "local rules come first", "Signed by tech (technician)", "outer bearing",
    ):  # fmt: skip
        assert said in text, said


def test_the_number_pad_enters_a_reading_with_a_gloved_finger(open_as: Open) -> None:
    page = open_as("tech", PHONE)
    page.goto("/jobs/2/set?panel=pack")
    page.get_by_role("button", name="Fitted and torqued: read").tap()
    pad = page.locator(".keypad")
    for key in ("±", "1", ".", "2", "Rub out", "5", "thou"):
        box = pad.get_by_role("button", name=key, exact=True)
        box.tap()
        assert (box.bounding_box() or {})["height"] >= 48
    expect(page.locator("[data-entry]")).to_have_value("-1.5 thou")
    pad.get_by_role("button", name="Next").tap()
    expect(page.locator(".entry label")).to_have_text("12 o'clock, pull out")
    expect(page.locator(".readings td a").first).to_have_text("-1.5 thou")


def test_bound_then_over_shim_then_come_down(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/3/")
    assert line(page) == "Add 0.20 mm (8.0 thou): put in 2 × 4 thou. Torque, seat both ways, read."
    page.keyboard.press("Alt+f")
    expect(page.locator(".entry label")).to_have_text("12 o'clock, push in")
    places = [
        f"{clock} o'clock, {push}" for clock in (12, 3, 6, 9) for push in ("push in", "pull out")
    ]
    type_readings(page, list(zip(places, ["0", "8"] * 4, strict=True)))
    expect(page.locator(".next-line h1")).to_contain_text("Take out")
    expect(page.locator(".verdict strong")).to_have_text("too loose")


def test_a_bound_trial_is_one_key(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/2/set?panel=pack")
    page.get_by_label("Shims in the pack").fill("0.10")
    page.get_by_label("Shims in the pack").press("Enter")
    expect(page.locator("[data-entry]")).to_be_focused()
    page.keyboard.press("Alt+b")
    expect(page.locator(".found-words")).to_have_text("Bound: too tight to read.")
    page.keyboard.press("Alt+u")
    expect(page.locator(".entry label")).to_have_text("12 o'clock, push in")


def test_does_not_add_up_stands_out_and_says_what_to_check(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/2/")
    assert line(page).startswith("Stop: trials 1 and 2 do not add up: 0.09 mm of play")
    expect(page.locator(".causes li").first).to_contain_text("not home")
    assert page.locator(".chart .trial-odd, .trials-chart .trial-odd").count() == 2


def test_the_cause_found_the_work_goes_on(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/2/")
    page.get_by_role("link", name="Set trial 1 aside").click()
    page.get_by_label("Because").fill("inner cup was not home")
    page.get_by_label("Because").press("Enter")
    expect(page.locator(".next-line h1")).to_contain_text("Take out 0.07 mm")
    expect(page.locator(".trials-list .aside")).to_contain_text("set aside: inner cup was not home")


def test_a_nut_goes_on_to_its_pin_and_an_old_wrench_lowers_the_claim(open_as: Open) -> None:
    page = open_as("tech", PHONE)
    page.goto("/jobs/2/lock")
    page.get_by_label("Angle on to the next place").fill("50")
    page.get_by_label("Angle on to the next place").press("Enter")
    expect(page.locator(".next-line h1")).to_contain_text("Fit a washer")
    page.get_by_label("Angle on to the next place").fill("20")
    page.get_by_label("Angle on to the next place").press("Enter")
    expect(page.locator(".next-line h1")).to_have_text(
        "Turn the nut 20 deg on, then lock it: pin in a slotted nut."
    )
    expect(page.locator(".places tbody tr").first).to_contain_text("take it")
    back = page.locator(".places tbody tr", has_text="340 deg back")
    expect(back).to_contain_text("no: a torqued nut is not loosened to find a place")
    no_sideways_scrolling(page)
    page.get_by_role("button", name="Bolt 1 done").tap()
    expect(page.locator(".bolt-line")).to_contain_text("bolt 3 to 55 N·m")
    page.get_by_label("Torque reached").fill("83 N·m")
    page.get_by_label("Wrench").select_option(label="old long wrench")
    page.get_by_label("done: it cannot move").check()
    page.get_by_label("Torque reached").press("Enter")
    expect(page.locator(".next-line h1")).to_contain_text("Read once more")
    page.goto("/jobs/2/close")
    expect(page.locator(".claims li", has_text="Wrench is fit")).to_contain_text(
        "calibration is due"
    )
    expect(page.locator(".claims li", has_text="Nut at its torque")).to_contain_text(
        "card allows 58 N·m (43 lbf·ft) to 90 N·m (66 lbf·ft)"
    )


@pytest.mark.parametrize("size", [WIDE, PHONE], ids=["wide", "phone"])
def test_a_through_axle_from_its_first_bound_trial_to_a_balanced_setting(
    open_as: Open, size: tuple[int, int]
) -> None:
    page = open_as("tech", size)
    page.goto("/jobs/5/")
    expect(page.locator(".next-line h1")).to_contain_text("Add 0.30 mm (11.8 thou)")
    no_sideways_scrolling(page)
    places = [
        "left end, push in",
        "left end, pull out",
        "right end, push in",
        "right end, pull out",
    ]
    page.keyboard.press("Alt+f")
    type_readings(page, list(zip(places, ["0", "0.26", "0", "0.32"], strict=True)))
    expect(page.locator(".next-line h1")).to_contain_text("the ends read 0.06 mm apart")
    page.locator(".readings td a").last.click()
    page.get_by_label("It should be").fill("0.27")
    page.get_by_label("Because").press("Enter")
    expect(page.locator(".next-line h1")).to_contain_text("Take out 0.15 mm")
    page.keyboard.press("Alt+f")
    type_readings(page, list(zip(places, ["0", "0.12", "0.01", "0.13"], strict=True)))
    expect(page.locator(".next-line h1")).to_contain_text("and is inside")
    expect(page.locator(".trials-list tr").last).to_contain_text(
        "left 0.30 + 0.10, right 0.20 + 0.15"
    )
    no_sideways_scrolling(page)


def test_keys_are_shown_by_a_question_mark(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/2/set")
    page.keyboard.press("?")
    expect(page.locator("dialog.keys")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator("dialog.keys")).to_be_hidden()
