"""Reload, a second tab, a server that does not answer: what was typed is there."""

from playwright.sync_api import Page, expect

from .conftest import Open


def fresh_trial(page: Page) -> None:
    page.goto("/jobs/2/set?panel=pack")
    page.get_by_role("button", name="Fitted and torqued: read").click()
    expect(page.locator("[data-entry]")).to_be_focused()


def enter(page: Page, value: str) -> None:
    page.locator("[data-entry]").fill(value)
    page.keyboard.press("Enter")


def test_a_reload_and_a_second_tab_show_what_was_entered(open_as: Open) -> None:
    page = open_as()
    fresh_trial(page)
    enter(page, "0.02")
    expect(page.locator(".readings td a")).to_have_text(["0.02"])
    page.reload()
    expect(page.locator(".readings td a")).to_have_text(["0.02"])
    second = page.context.new_page()
    second.goto("/jobs/2/set")
    expect(second.locator(".readings td a")).to_have_text(["0.02"])
    enter(second, "0.14")
    expect(second.locator(".readings td a")).to_have_text(["0.02", "0.14"])
    # The first tab still asks for the pull: its entry must not take the place of the other's.
    enter(page, "0.55")
    expect(page.locator(".error")).to_contain_text("has 0.14 mm already")
    expect(page.locator(".readings td a")).to_have_text(["0.02", "0.14"])


def test_two_people_on_one_job_see_each_others_trials_and_overwrite_nothing(open_as: Open) -> None:
    tech, lead = open_as("tech"), open_as("lead")
    fresh_trial(tech)
    lead.goto("/jobs/2/set?panel=pack")
    enter(tech, "0.02")
    expect(tech.locator(".readings td a")).to_have_text(["0.02"])
    lead.get_by_label("Shims in the pack").fill("0.20")
    lead.get_by_role("button", name="Fitted and torqued: read").click()
    expect(lead.locator(".trials-list tbody tr")).to_have_count(4)
    enter(tech, "0.14")
    expect(tech.locator(".error")).to_contain_text("trial 4 has begun meanwhile")
    expect(tech.locator(".trials-list tbody tr")).to_have_count(4)
    expect(tech.locator(".trials-list")).to_contain_text("12 in 0.02 mm")


def test_the_back_button_does_not_enter_twice(open_as: Open) -> None:
    page = open_as()
    fresh_trial(page)
    enter(page, "0.02")
    expect(page.locator(".entry label")).to_have_text("12 o'clock, pull out")
    page.goto("/tray/")
    page.go_back()
    expect(page.locator(".readings td a")).to_have_text(["0.02"])
    expect(page.locator(".entry label")).to_have_text("12 o'clock, pull out")


def test_a_server_that_does_not_answer_loses_nothing(open_as: Open) -> None:
    page = open_as()
    fresh_trial(page)
    page.route("**/reading", lambda route: route.abort())
    enter(page, "0.02")
    expect(page.locator(".unsaved")).to_be_visible()
    expect(page.locator("[data-entry]")).to_have_value("0.02")
    page.unroute("**/reading")
    page.locator("[data-entry]").press("Enter")
    expect(page.locator(".readings td a")).to_have_text(["0.02"])
    expect(page.locator(".unsaved")).to_be_hidden()


def test_a_wrong_unit_is_answered_and_kept(open_as: Open) -> None:
    page = open_as()
    fresh_trial(page)
    enter(page, "0.2 kg")
    expect(page.locator(".error")).to_have_text(
        '"0.2 kg" is not a length; give e.g. "0.05 mm" or "2 thou".'
    )
    expect(page.locator("[data-entry]")).to_have_value("0.2 kg")


def test_a_correction_by_tapping_the_reading(open_as: Open) -> None:
    page = open_as()
    fresh_trial(page)
    enter(page, "0.02")
    page.locator(".readings td a").first.click()
    page.get_by_label("It should be").fill("0.03")
    page.get_by_label("Because").fill("read the wrong ring")
    page.get_by_label("Because").press("Enter")
    expect(page.locator(".readings td a")).to_have_text(["0.03"])
    expect(page.locator(".history")).to_contain_text("0.02 mm → 0.03 mm: read the wrong ring")
