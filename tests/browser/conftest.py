"""A real browser on a real server: Debian's Chromium, driven by Playwright."""

import os
import shutil
from collections.abc import Callable, Iterator

import pytest
from django.core.management import call_command
from playwright.sync_api import Browser, BrowserContext, Page, sync_playwright

os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"

FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
WIDE, PHONE = (1280, 800), (390, 844)

Open = Callable[..., Page]


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    """One browser for the run."""
    with sync_playwright() as playwright:
        found = shutil.which("chromium")
        assert found, "Chromium is not installed; ./zesty check installs it."
        started = playwright.chromium.launch(executable_path=found, args=FLAGS)
        yield started
        started.close()


@pytest.fixture
def demo(django_db_reset_sequences: None, small_demo: None) -> None:
    """The demo scenario, its first jobs."""
    call_command("load_demo")


@pytest.fixture
def open_as(demo: None, live_server: object, browser: Browser) -> Iterator[Open]:
    """Opens a window signed in as a demo role; anything on its console fails the test."""
    contexts: list[BrowserContext] = []
    complaints: list[str] = []

    def listen(page: Page) -> None:
        page.on("pageerror", lambda error: complaints.append(str(error)))
        page.on(
            "console",
            lambda said: complaints.append(said.text) if "Content Security" in said.text else None,
        )

    def opened(role: str = "tech", size: tuple[int, int] = WIDE, dark: bool = False) -> Page:
        context = browser.new_context(
            base_url=str(live_server.url),  # type: ignore[attr-defined]
            viewport={"width": size[0], "height": size[1]},
            color_scheme="dark" if dark else "light",
            has_touch=size == PHONE,
        )
        context.set_default_timeout(15_000)
        contexts.append(context)
        page = context.new_page()
        listen(page)
        page.goto("/sign-in")
        page.click(f"form[action='/demo/{role}'] button")
        page.wait_for_url("**/")
        return page

    yield opened
    for context in contexts:
        context.close()
    assert complaints == []
