"""A whole job as a technician does it: by keyboard and by glove, from the yard to the sheet."""

import io

import pytest
from playwright.sync_api import expect
from pypdf import PdfReader

from .conftest import PHONE, WIDE, Open
from .hand import Hand

MOST_KEYS, MOST_TAPS = 152, 72


def whole_job(hand: Hand) -> None:
    """Two trials, lock, fifteen bolts, signature, on a bin trailer's wheel end."""
    page = hand.page
    page.get_by_role("link", name="Bin trailer 5, axle 2 left: start a job").focus()
    page.keyboard.press("Enter")
    hand.acts += 1
    hand.answer(2)
    hand.sees("What does the driver say")
    page.get_by_label("What the driver says").fill("Hums from 50 on.")
    page.get_by_role("button", name="Write it down").click()
    hand.acts += 2
    hand.sees("What does the counter say")
    hand.value("29400")
    hand.sees("Is the axle that is there")
    hand.answer(1)
    hand.before_setting(fold)
    hand.sees("Which shims go in")
    fold(hand)
    hand.value("0.50, 0.20")
    hand.sees("Nut to 61 N·m")
    fold(hand)
    hand.value("61")
    hand.sees("Which dial")
    page.get_by_label("Dial", exact=True).select_option(label="dial 0.01 mm, step 0.01 mm")
    page.get_by_role("button", name="It stands, zeroed").click()
    hand.acts += 2
    read(hand, ["0", "0.18", "0", "0.18", "0", "0.18"])
    hand.sees("Take out")
    hand.answer(1)
    hand.sees("Fit")
    hand.next()
    hand.sees("Nut to 61 N·m")
    hand.value("61")
    read(hand, ["0", "0.11", "0", "0.10", "0", "0.11"])
    hand.sees("inside. Open, pack, seal, refit the same pack.")
    hand.answer(2)
    measured, listed = "Not measured, or that is all", "That is all"
    for words, button in (("Weigh the inner cone dry", measured), ("What was in there", listed),
                          ("Look at the lip", listed), ("How deep sits", measured)):  # fmt: skip
        hand.sees(words)
        hand.press(button)
    hand.sees("Refit the identical pack")
    hand.next()
    hand.sees("Nut to 61 N·m")
    hand.value("61")
    hand.sees("Turn the hub, torque again")
    hand.value("14")
    expect(page.locator(".next-line p")).to_contain_text("The nut moved 14 deg")
    hand.value("1")
    hand.sees("how far on is the next place")
    fold(hand)
    hand.value("20")
    hand.sees("Turn the nut 20° on")
    hand.value("82")
    hand.sees("Does the pin fill its hole")
    hand.answer(1)
    read(hand, ["0", "0.10", "0", "0.10", "0", "0.11"])
    for words in ("Spin it", "Wipe hub"):
        hand.sees(words)
        hand.next()
    for lap in range(3):
        for _ in range(5):
            expect(page.locator(".ring-and-tap")).to_be_visible()
            before = page.locator(".ring-and-tap .ask-title").inner_text()
            fold(hand)
            hand.next()
            expect(page.locator("body")).not_to_contain_text(
                before
            ) if lap < 2 else page.wait_for_timeout(150)
    hand.sees("Stand it on the ground")
    hand.next()
    for words in ("Brake pumped up", "Chocks away, last"):
        hand.sees(words)
        hand.answer(1)
    hand.sees("Road or yard")
    hand.next()
    hand.sees("Sign: proven")
    page.get_by_role("button", name="Sign off as proven").click()
    hand.acts += 1
    hand.sees("Signed off as proven by tech")


def read(hand: Hand, values: list[str]) -> None:
    for index, text in enumerate(values):
        hand.sees("Pull out" if index % 2 else "Push in")
        if index == 0:
            fold(hand)
        hand.value(text)


def fold(hand: Hand) -> None:
    if hand.touch:
        hand.fits_the_fold()


@pytest.mark.parametrize(
    ("size", "most"), [(WIDE, MOST_KEYS), (PHONE, MOST_TAPS)], ids=["keyboard", "phone"]
)
def test_a_job_from_the_yard_to_the_printed_sheet(
    open_as: Open, size: tuple[int, int], most: int
) -> None:
    page = open_as("tech", size)
    hand = Hand(page, touch=size == PHONE)
    whole_job(hand)
    assert hand.acts <= most, hand.acts
    answer = page.request.get(
        page.get_by_role("link", name="The sheet (PDF)").get_attribute("href") or ""
    )
    text = "".join(one.extract_text() for one in PdfReader(io.BytesIO(answer.body())).pages)
    for words in ("Bin trailer 5", "proven", "Hums from 50 on.", "82 N·m", "pin in a slotted nut"):
        assert words in text, words


def test_a_trial_that_does_not_add_up_stops_with_causes_and_can_be_set_aside(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/2/1/set/")
    hand = Hand(page)
    hand.sees("Seat both ways, then read 12 o’clock once more.")
    expect(page.locator(".causes")).to_have_count(0)
    hand.next()
    for value in ("0", "0.18"):
        hand.sees("12 o’clock, again")
        hand.value(value)
    hand.sees("Set aside trial 1")
    expect(page.locator(".causes li").first).to_contain_text("home")
    hand.next()
    hand.sees("Take out")
    expect(page.locator(".trials-list")).to_contain_text("set aside: a cup or cone was not home")


def test_an_axle_is_bound_opened_evenly_and_read_from_both_ends(open_as: Open) -> None:
    page = open_as()
    hand = Hand(page)
    page.goto("/jobs/5/1/set/")
    hand.sees("Add 0.30 mm")
    expect(page.locator(".plan .best")).to_contain_text("left 0.30 + 0.10")
    hand.answer(1)
    for side in ("left", "right"):
        expect(page.locator(".ask-title")).to_have_text(f"The pack, {side}")
        hand.next()
    for _ in range(24):
        before = page.locator(".ring-and-tap .ask-title").inner_text()
        hand.next()
        expect(page.locator(".ring-and-tap .ask-title", has_text=before)).to_have_count(0)
    hand.sees("Soft mallet")
    hand.next()
    for value in ("0", "0.12", "0", "0.13"):
        hand.value(value)
    hand.sees("End play is 0.13 mm (4.9 thou) and inside")


def test_a_slip_is_asked_about_and_cleared_in_two_acts(open_as: Open) -> None:
    page = open_as()
    hand = Hand(page)
    page.goto("/jobs/6/1/lock/")
    hand.value("20")
    hand.sees("Turn the nut 20° on")
    hand.acts = 0
    hand.value("820")
    hand.sees("You typed 820 N·m. Is it 82 N·m?")
    hand.answer(1)
    hand.sees("Does the pin fill its hole")
    assert hand.acts == 2


def _up_to_the_readings(hand: Hand, dial: str) -> None:
    """A job on a bin trailer, up to its first dial reading."""
    page = hand.page
    page.get_by_role("link", name="Bin trailer 5, axle 2 left: start a job").click()
    hand.answer(2)
    hand.sees("What does the driver say")
    page.get_by_label("What the driver says").fill("Hums.")
    page.get_by_role("button", name="Write it down").click()
    hand.sees("What does the counter say")
    hand.value("29400")
    hand.sees("Is the axle that is there")
    hand.answer(1)
    hand.before_setting()
    hand.sees("Which shims go in")
    hand.value("0.50, 0.20")
    hand.sees("Nut to 61 N·m")
    hand.value("61")
    hand.sees("Which dial")
    page.get_by_label("Dial", exact=True).select_option(label=dial)
    page.get_by_role("button", name="It stands, zeroed").click()


def test_a_misread_place_is_asked_about_and_cleared_in_two_acts(open_as: Open) -> None:
    page = open_as()
    hand = Hand(page)
    _up_to_the_readings(hand, "dial 0.01 mm, step 0.01 mm")
    read(hand, ["0", "0.12", "0"])
    hand.acts = 0
    hand.value("0.21")
    hand.sees("You typed 0.21 mm. Is it 0.12 mm?")
    expect(page.locator(".next-line p")).to_contain_text("two digits swapped")
    hand.answer(1)
    hand.sees("8 o’clock")
    assert hand.acts == 2


def test_a_place_that_stands_apart_is_read_again_and_outvoted(open_as: Open) -> None:
    page = open_as(size=PHONE)
    hand = Hand(page, touch=True)
    _up_to_the_readings(hand, "dial 0.01 mm, step 0.01 mm")
    read(hand, ["0", "0.12", "0", "0.17", "0", "0.12"])
    hand.sees("Push in at 4 o’clock, again")
    fold(hand)
    hand.value("0")
    hand.value("0.12")
    hand.sees("End play is 0.12 mm")
    expect(page.locator(".next-line p")).to_contain_text("its first reading does not count")
    expect(page.locator(".trials-list")).to_contain_text("4 o’clock read again")


def test_a_fine_dial_works_a_clean_job_without_an_alarm(open_as: Open) -> None:
    page = open_as()
    hand = Hand(page)
    _up_to_the_readings(hand, "lever dial 0.002 mm, step 0.002 mm")
    read(hand, ["0.000", "0.183", "0.002", "0.181", "-0.001", "0.186"])
    hand.sees("Take out")
    hand.answer(1)
    hand.sees("Fit")
    hand.next()
    hand.sees("Nut to 61 N·m")
    hand.value("61")
    read(hand, ["0.000", "0.112", "0.001", "0.108", "0.000", "0.105"])
    hand.sees("inside. Open, pack, seal, refit the same pack.")
    expect(page.locator(".causes")).to_have_count(0)
    expect(page.locator(".trials-list")).not_to_contain_text("does not add up")


@pytest.mark.parametrize("role", ["lead"])
def test_a_card_is_changed_on_its_section(open_as: Open, role: str) -> None:
    page = open_as(role)
    page.goto("/cards/1/")
    page.get_by_role("button", name="Change it").click()
    page.get_by_role("link", name="outer bearing").first.click()
    width = page.get_by_label("Width", exact=False).first
    width.fill("17.2")
    width.press("Enter")
    expect(page.locator(".ask-title")).to_have_text("1 figure changed")
    page.get_by_placeholder("because").fill("measured")
    page.get_by_role("button", name="Keep it").click()
    expect(page.locator(".page-head")).to_contain_text("version 2")
    expect(page.locator("body")).to_contain_text("What version 2 changed")
