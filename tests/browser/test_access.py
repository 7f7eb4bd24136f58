"""axe finds nothing serious on any screen, light or dark, wide or on a phone."""

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page

from .conftest import PHONE, WIDE, Open

SCREENS = [
    "/", "/?find=nothing", "/vehicles/1/", "/vehicles/new", "/wheel-ends/2/start", "/jobs/4/1/take_in/",
    "/jobs/2/1/set/", "/jobs/2/1/set/?step=dial", "/jobs/2/1/set/?step=trial_torque&station=main",
    "/jobs/2/1/set/?panel=choose&what=aim", "/jobs/2/1/set/?panel=abandon", "/jobs/2/1/set/?panel=card",
    "/jobs/3/1/set/", "/jobs/5/1/set/", "/jobs/6/1/lock/", "/jobs/6/2/check/", "/jobs/6/1/prove/",
    "/jobs/2/1/close/", "/shed/", "/jobs/1/1/set/", "/jobs/1/1/close/", "/tray/", "/cards/",
    "/cards/1/", "/cards/new", "/cards/arrangements", "/jobs/2/1/strip/", "/jobs/2/1/clean/", "/jobs/2/1/match/", "/import", "/tray/import", "/jobs/2/1/readings", "/no-such-page",
]  # fmt: skip


def serious(page: Page, *rules: str) -> list[str]:
    """What axe calls serious or critical, with where; by these rules alone where some are named."""
    options: dict[str, object] = {"resultTypes": ["violations"]}
    if rules:
        options["runOnly"] = list(rules)
    found = Axe().run(page, options=options).response["violations"]
    return [
        f"{page.url}: {one['id']}: {node['html'][:140]}"
        for one in found
        if one["impact"] in ("serious", "critical")
        for node in one["nodes"]
    ]


@pytest.mark.parametrize("half", [0, 1])
def test_nothing_serious(open_as: Open, half: int) -> None:
    """On a phone by daylight every rule; wide and in the dark what differs: contrast."""
    page = open_as("owner", PHONE)
    found = []
    for screen in SCREENS[half::2]:
        page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        page.emulate_media(color_scheme="light")
        answer = page.goto(screen)
        assert answer and answer.status == (404 if screen == "/no-such-page" else 200), screen
        found += serious(page)
        page.set_viewport_size({"width": WIDE[0], "height": WIDE[1]})
        page.emulate_media(color_scheme="dark")
        found += serious(page, "color-contrast")
    page.context.clear_cookies()
    page.goto("/sign-in")
    found += serious(page)
    assert found == []


def test_with_a_reading_due_a_slip_and_a_card_being_changed(open_as: Open) -> None:
    page = open_as("owner", PHONE)
    page.goto("/jobs/6/1/lock/")
    found = serious(page)
    for value, then in (("20", "Turn the nut"), ("820", "You typed")):
        page.locator("[data-entry]").fill(value)
        page.keyboard.press("Enter")
        page.get_by_text(then).first.wait_for()
        found += serious(page)
    page.goto("/cards/1/")
    page.get_by_role("button", name="Change it").click()
    page.locator("details.further summary").click()
    found += serious(page)
    assert found == []
