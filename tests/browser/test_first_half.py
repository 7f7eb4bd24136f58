"""The first half of a job in a real browser: taken in, checked, stripped, inspected, matched."""

import pytest
from playwright.sync_api import expect

from .conftest import PHONE, WIDE, Open
from .hand import Hand


def look(hand: Hand) -> None:
    if hand.touch:
        hand.fits_the_fold()


def answers(hand: Hand, words: str) -> None:
    """One of the plain answers, by its words."""
    look(hand)
    hand.press(words)


def take_in(hand: Hand) -> None:
    page = hand.page
    page.get_by_role("link", name="Bin trailer 5, axle 2 left: start a job").focus()
    page.keyboard.press("Enter")
    hand.answer(2)
    hand.sees("What does the driver say")
    look(hand)
    page.get_by_label("What the driver says").fill("Hums from 50 on, warm hub.")
    hand.press("Write it down")
    hand.sees("What does the counter say")
    hand.value("29400")
    hand.sees("Is the axle that is there")
    hand.answer(1)
    hand.tick_on(("Chock", "Lift it"), look)


def check(hand: Hand) -> None:
    """Follows the advice until it is enough; every answer is what a worn bearing gives."""
    worn = {
        "Noise": "hum", "Turned by hand": "rough", "Felt at the knuckle": "trembles", "Noise follows": "road speed",
        "Since when": "slowly", "Rocked at 12 and 6": "slight", "Rocked at 9 and 3": "slight", "Loudest at": "this hub",
        "In bends": "louder loaded", "Grease": "metallic", "Nut and its lock": "tight and locked",
        "Warmth, left against right": "hub warmer", "Brake held, rocked again": "gone", "Tread": "even",
        "Wheel fasteners": "tight", "Seen to move": "hub in knuckle", "Hub-face runout": "within",
    }  # fmt: skip
    page = hand.page
    for _ in range(12):
        expect(page.locator(".ask .answers")).to_be_visible()
        look(hand)
        if page.locator(".ask .next-act").count():
            break
        name = page.locator(".ask .ask-title").first.inner_text()
        before = page.locator(".lines li").count()
        hand.press(next(words for check, words in worn.items() if name.startswith(check)))
        expect(page.locator(".lines li")).not_to_have_count(before)
    hand.sees("Likeliest: bearing worn")
    page.goto(page.url.split("?")[0] + "?step=findings&station=&place=face_runout")
    for place, reading in (("12", "0"), ("3", "0.02"), ("6", "0.03"), ("9", "0.01")):
        expect(page.locator(".ask .ask-title").first).to_have_text(f"Hub-face runout, at {place}")
        look(hand)
        hand.value(reading)
    expect(page.locator("body")).to_contain_text("0.03 mm of runout")
    hand.sees("Likeliest: bearing worn")
    hand.press("Enough: to the verdict")
    hand.sees("What is it, and what has to be done")
    answers(hand, "Take it apart")


def strip(hand: Hand) -> None:
    page = hand.page
    hand.tick_on(("Have in hand",), look)
    hand.sees("Photograph it")
    answers(hand, "Without a photo")
    for question, words in (("Is anything hidden", "Looked: none"), ("Which hand", "Right hand"),
                            ("Mark nut to shaft", "Marked")):  # fmt: skip
        hand.sees(question)
        answers(hand, words)
    hand.sees("Count the turns")
    page.locator("#detail").fill("6 1/4")
    answers(hand, "Counted")
    hand.sees("tag each side")
    answers(hand, "Only one side")
    hand.tick_on(("Take it apart",), look)
    for place in ("4.0", "4.1", "4.0"):
        hand.sees("How deep sits")
        look(hand)
        hand.value(place)
    hand.sees("as it comes off")
    while True:
        expect(page.locator(".ask-title")).to_be_visible()
        name = page.locator(".ask-title").inner_text()
        if not page.get_by_role("button", name="As the card has it").count():
            break
        answers(hand, "Not there" if name.startswith("Spacer") else "As the card has it")
        expect(page.locator(".ask-title")).not_to_have_text(name)
    expect(page.locator("body")).to_contain_text("The spacer is not there: 38 mm missing.")
    if page.get_by_role("button", name="Not measured").count():
        answers(hand, "Not measured")
    hand.sees("The print of the nut")
    answers(hand, "Even")
    hand.sees("Which face of the washer")
    answers(hand, "Marked with paint")
    hand.sees("The print of the ring")
    answers(hand, "On one side")
    hand.sees("The spacer is not there: 38 mm missing.")
    expect(page.locator(".ask-title")).to_contain_text("Wheel bolts")
    answers(hand, "Undone")
    expect(page.locator(".ask-title")).not_to_contain_text("Wheel bolts")
    answers(hand, "That is all")


def inspect(hand: Hand) -> None:
    page = hand.page
    hand.tick_on(("Wash",), look)
    hand.sees("Measure the bore")
    hand.press("Not measured")
    hand.sees("Polish the track")
    answers(hand, "It glides")
    hand.sees("Look at the")
    page.goto(page.url.split("?")[0] + "?step=judged&place=p2")
    hand.sees("Look at the inner cone")
    answers(hand, "Straw to blue")
    hand.sees("Look at the collar")
    answers(hand, "That is all")
    hand.sees("aim moved to the loose end")
    answers(hand, "Accept the change")
    hand.sees("The races next to this one")
    for words in ("Sound", "Sound", "No play"):
        title = page.locator(".ask-title").inner_text()
        answers(hand, words)
        expect(page.locator(".ask-title")).not_to_have_text(title)


def match(hand: Hand) -> None:
    page = hand.page
    hand.sees("numbers on seal, box and driver")
    look(hand)
    page.locator("#detail").fill("52X72, 52X72, 50X72")
    hand.press("Seal, box and driver")
    hand.sees("does not match")
    expect(page.locator("body")).to_contain_text(
        "They differ: seal 52X72, box 52X72, driver 50X72."
    )
    page.locator("#detail").fill("52X72, 52X72, 52X72")
    hand.press("Seal, box and driver")
    hand.sees("The new inner cone: which number is on it?")


@pytest.mark.parametrize("size", [WIDE, PHONE], ids=["keyboard", "phone"])
def test_a_noise_is_checked_stripped_inspected_and_matched(
    open_as: Open, size: tuple[int, int]
) -> None:
    hand = Hand(open_as("tech", size), touch=size == PHONE)
    take_in(hand)
    check(hand)
    strip(hand)
    inspect(hand)
    match(hand)
