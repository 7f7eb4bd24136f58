"""A real browser on a real server: Debian's Chromium, driven by Playwright."""

import os
import shutil
from collections.abc import Callable, Iterator

import pytest
from django.apps import apps
from django.core.management import call_command
from django.core.management.color import no_style
from django.db import connection, transaction
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


@pytest.fixture(scope="session")
def kept() -> dict[str, bytes]:
    """The rows of each table as the demo left them, once it was loaded."""
    return {}


@pytest.fixture
def demo(django_db_reset_sequences: None, small_demo: None, kept: dict[str, bytes]) -> None:
    """The demo scenario, its first jobs: loaded once a run, then put back as it was."""
    if kept:
        put_back(kept)
    else:
        call_command("load_demo")
        kept.update(rows_of_all())


def rows_of_all() -> dict[str, bytes]:
    """The rows of every table of ours."""
    found = {}
    with connection.cursor() as cursor:
        for model in apps.get_models(include_auto_created=True):
            table = model._meta.db_table
            with cursor.copy(f'COPY "{table}" TO STDOUT') as rows:
                found[table] = b"".join(map(bytes, rows))
    # What a test's end makes anew by itself is there already.
    return {table: rows for table, rows in found.items() if rows and table not in MADE_ANEW}


MADE_ANEW = ("django_content_type", "auth_permission")


def put_back(kept: dict[str, bytes]) -> None:
    """Put rows into empty tables, past guards and references: they were let in once."""
    models = apps.get_models(include_auto_created=True)
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("SET LOCAL session_replication_role = replica")
        for table, rows in kept.items():
            with cursor.copy(f'COPY "{table}" FROM STDIN') as into:
                into.write(rows)
        for text in connection.ops.sequence_reset_sql(no_style(), models):
            cursor.execute(text)


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
