"""axe finds nothing serious on any screen, light or dark, wide or on a phone."""

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page

from .conftest import PHONE, WIDE, Open

SCREENS = [
    "/", "/vehicles/1/", "/vehicles/new", "/wheel-ends/2/start", "/jobs/4/take-in", "/jobs/4/set",
    "/jobs/2/set", "/jobs/2/set?panel=pack", "/jobs/2/set?panel=choice", "/jobs/3/set", "/jobs/2/lock",
    "/jobs/2/close", "/jobs/1/lock", "/jobs/1/set",
    "/jobs/1/close", "/tray/", "/cards/", "/cards/1/", "/cards/1/edit",
    "/cards/new", "/import", "/tray/import", "/jobs/2/readings", "/no-such-page",
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


@pytest.mark.parametrize(
    ("size", "dark"), [(WIDE, False), (PHONE, False), (WIDE, True)], ids=["wide", "phone", "dark"]
)
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


def test_with_a_reading_due(open_as: Open) -> None:
    page = open_as("tech", PHONE)
    page.goto("/jobs/2/set?panel=pack")
    page.get_by_role("button", name="Fitted and torqued: read").click()
    page.wait_for_selector("[data-entry]")
    page.locator("[data-entry]").fill("x")
    page.keyboard.press("Enter")
    page.wait_for_selector(".error")
    assert serious(page) == []
