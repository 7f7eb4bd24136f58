"""Reload, a second tab, a slow server, one that does not answer: what was typed is there."""

import re
import time

from playwright.sync_api import Page, Route, expect

from .conftest import Open
from .hand import Hand


def readings_due(page: Page, values: tuple[str, ...] = ()) -> Hand:
    """Job 6 opened again, a pack in, its nut torqued: the first reading is due."""
    hand = Hand(page)
    page.goto("/jobs/6/1/lock/")
    hand.value("20")
    hand.sees("Turn the nut 20° on")
    hand.value("82")
    hand.sees("Does the pin fill its hole")
    hand.answer(1)
    hand.sees("Push in at 12")
    for value in values:
        hand.value(value)
    return hand


def test_typing_while_saving_loses_nothing(open_as: Open) -> None:
    page = open_as("lead")
    page.goto("/cards/1/")
    page.get_by_role("button", name="Change it").click()
    page.goto(page.url.split("?")[0] + "?at=card")
    places = page.locator("form", has=page.locator("input[value=read_at]")).locator("[name=typed]")
    places.fill("12, 1, 2, 3, 4, 5, 6, 7, 8, 9")
    places.press("Enter")
    page.get_by_placeholder("because").fill("ten places")
    page.get_by_role("button", name="Keep it").click()
    page.goto("/")
    page.get_by_role("link", name="Bin trailer 5, axle 2 left: start a job").focus()
    page.keyboard.press("Enter")
    hand = Hand(page)
    hand.answer(2)
    page.get_by_label("What the driver says").fill("x")
    page.get_by_role("button", name="Write it down").click()
    hand.sees("What does the counter say")
    hand.value("29500 km")
    hand.sees("Is the axle")
    hand.answer(1)
    hand.before_setting()
    hand.value("0.50")
    hand.sees("Nut to")
    hand.value("61")
    hand.sees("Which dial")
    page.get_by_label("Dial", exact=True).select_option(label="dial 0.01 mm, step 0.01 mm")
    page.get_by_role("button", name="It stands").click()
    hand.sees("Push in at 12")

    def slowly(route: Route) -> None:
        time.sleep(0.4)
        route.continue_()

    page.route("**/write", slowly)
    values = [text for n in range(10) for text in (f"0.0{n % 4}", f"0.1{n % 4}")]
    for text in values:
        page.keyboard.type(text, delay=30)
        page.keyboard.press("Enter")
    page.keyboard.type("9", delay=30)
    expect(page.locator(".ask")).to_have_attribute("data-row", re.compile("^open/"), timeout=60_000)
    shown = [one.inner_text() for one in page.locator(".lines .value a").all()]
    assert shown[-20:] == values


def test_a_reload_and_a_second_tab_show_what_was_entered(open_as: Open) -> None:
    page = open_as()
    readings_due(page, ("0.02",)).sees("Pull out at 12")
    page.reload()
    Hand(page).sees("Pull out at 12")
    second = page.context.new_page()
    second.goto(page.url)
    Hand(second).value("0.12")
    Hand(second).sees("Push in at 4")
    # The first tab still asks for the pull: its entry must not take the place of the other's.
    Hand(page).value("0.55")
    expect(page.locator(".error")).to_contain_text("wrote 0.12 mm there already")


def test_two_people_on_one_job_overwrite_nothing(open_as: Open) -> None:
    tech, lead = open_as("tech"), open_as("lead")
    readings_due(tech, ("0.02",))
    Hand(tech).sees("Pull out at 12")
    lead.goto(tech.url)
    Hand(lead).value("0.12")
    Hand(lead).sees("Push in at 4")
    tech.locator("[data-entry]").fill("0.1")
    tech.keyboard.press("Enter")
    expect(tech.locator(".error")).to_contain_text("lead wrote 0.12 mm there already")
    expect(tech.locator("[data-entry]")).to_have_value("0.1")


def test_back_and_forward_keep_the_page_whole_and_enter_nothing_twice(open_as: Open) -> None:
    page = open_as()
    hand = readings_due(page, ("0.02",))
    hand.sees("Pull out at 12")
    page.goto("/tray/")
    page.go_back()
    hand.sees("Pull out at 12")
    expect(page.locator(".stage-rule .here")).to_have_text("Lock")
    expect(page.locator("header.top")).to_be_visible()
    page.go_forward()
    expect(page.locator("h1")).to_have_text("Shim tray")


def test_a_server_that_does_not_answer_loses_nothing(open_as: Open) -> None:
    page = open_as()
    hand = readings_due(page)
    page.route("**/write", lambda route: route.abort())
    hand.value("0.02")
    expect(page.locator(".unsaved")).to_be_visible()
    expect(page.locator("[data-entry]")).to_have_value("0.02")
    page.unroute("**/write")
    page.locator("[data-entry]").press("Enter")
    hand.sees("Pull out at 12")
    expect(page.locator(".unsaved")).to_be_hidden()


def test_a_wrong_unit_is_answered_and_kept(open_as: Open) -> None:
    page = open_as()
    readings_due(page).value("0.2 kg")
    expect(page.locator(".error")).to_have_text(
        '"0.2 kg" is not a length; give e.g. "0.05 mm" or "2 thou".'
    )
    expect(page.locator("[data-entry]")).to_have_value("0.2 kg")


def test_a_reading_is_corrected_by_a_tap_and_the_last_entry_taken_back(open_as: Open) -> None:
    page = open_as()
    hand = readings_due(page, ("0.02",))
    hand.sees("Pull out at 12")
    hand.value("0.12")
    hand.sees("Push in at 4")
    page.locator(".lines .value a", has_text="0.12").click()
    page.get_by_label("It should be").fill("0.13")
    page.get_by_role("button", name="Correct it").click()
    expect(page.locator(".lines .value a", has_text="0.13")).to_be_visible()
    page.keyboard.press("Alt+u")
    expect(page.locator(".ask-title")).to_contain_text("Take back")
    page.keyboard.press("3")
    hand.sees("Pull out at 12")


def test_a_half_typed_note_survives_a_look_elsewhere(open_as: Open) -> None:
    page = open_as()
    page.goto("/jobs/4/1/take_in/")
    page.get_by_label("What the driver says").fill("Hums from")
    page.evaluate("document.dispatchEvent(new Event('visibilitychange'))")
    page.wait_for_timeout(300)
    expect(page.get_by_label("What the driver says")).to_have_value("Hums from")
