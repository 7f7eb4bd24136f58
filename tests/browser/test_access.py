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
    "/jobs/2/1/close/", "/jobs/1/1/lock/", "/jobs/1/1/set/", "/jobs/1/1/close/", "/tray/", "/cards/",
    "/cards/1/", "/cards/new", "/cards/arrangements", "/jobs/2/1/strip/", "/jobs/2/1/clean/", "/jobs/2/1/match/", "/import", "/tray/import", "/jobs/2/1/readings", "/no-such-page",
]  # fmt: skip


def serious(page: Page) -> list[str]:
    """What axe calls serious or critical, with where."""
    found = Axe().run(page, options={"resultTypes": ["violations"]}).response["violations"]
    return [
        f"{page.url}: {one['id']}: {node['html'][:140]}"
        for one in found
        if one["impact"] in ("serious", "critical")
        for node in one["nodes"]
    ]


@pytest.mark.parametrize(("size", "dark"), [(PHONE, False), (WIDE, True)], ids=["phone", "dark"])
def test_nothing_serious(open_as: Open, size: tuple[int, int], dark: bool) -> None:
    page = open_as("owner", size, dark)
    found = []
    for screen in SCREENS:
        answer = page.goto(screen)
        assert answer and answer.status == (404 if screen == "/no-such-page" else 200), screen
        found += serious(page)
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
    page.locator(".field-lines").wait_for()
    found += serious(page)
    assert found == []
