"""For every test: Hypothesis without deadlines, and an arrangement that is nobody's."""

import json
import tomllib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from wheelend import arrangements
from wheelend.arrangements import loading

# A test must pass on a machine ten times slower.
settings.register_profile("patient", deadline=None)
settings.load_profile("patient")

MADE_UP = Path(__file__).with_name("made_up.toml").read_text(encoding="utf-8")


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup: None, django_db_blocker: Any) -> Iterator[None]:
    """The test database; at its end whoever is still on the line, a browser's last request, is let go."""
    yield
    from django.db import connection  # noqa: PLC0415  the core's tests have no Django

    with django_db_blocker.unblock(), connection.cursor() as cursor:
        cursor.execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity"
            " WHERE datname = current_database() AND pid <> pg_backend_pid()"
        )


@pytest.fixture
def small_demo(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """The demo with its first jobs only: loading it whole takes seconds, and few tests need it."""
    from zesty.records.management.commands import load_demo  # noqa: PLC0415  the core's tests have no Django

    for name in load_demo.SCENARIOS:
        scenario = json.loads((load_demo.DEMO / name).read_text("utf-8"))
        scenario["jobs"] = scenario["jobs"][:6]
        (tmp_path / name).write_text(json.dumps(scenario), "utf-8")
    monkeypatch.setattr(load_demo, "DEMO", tmp_path)


@pytest.fixture
def made_up(monkeypatch: pytest.MonkeyPatch) -> None:
    """One more file among the arrangements: `made_up`. No Python knows it."""
    monkeypatch.setattr(arrangements, "KEYS", (*arrangements.KEYS, "made_up"))
    monkeypatch.setattr(
        arrangements,
        "data_of",
        lambda key: tomllib.loads(MADE_UP) if key == "made_up" else loading.data_of(key),
    )


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Two workers begin with half each: one at the browser, which keeps a processor busy, the other at the
    launcher, which mostly waits; short tests are left for the end, where one may take them from the other."""
    rooms: dict[str, list[pytest.Item]] = {"browser": [], "launch": [], "": []}
    for item in items:
        rooms.get(item.path.parent.name, rooms[""]).append(item)
    first, other, short = rooms.values()
    split = max(len(items) // 2 - len(first), 0)
    items[:] = [*first, *short[:split], *other, *short[split:]]
