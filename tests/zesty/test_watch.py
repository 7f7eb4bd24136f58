"""No request goes on for ever, and none waits for a database that does not answer."""

import os
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.db import OperationalError, connection, connections
from django.test import Client, RequestFactory

from zesty.elements import trouble, watch
from zesty.elements.watch import Running

from .conftest import Shop


@pytest.fixture
def down(settings: Any, tmp_path: Path) -> Iterator[None]:
    """The launcher's mark that PostgreSQL is silent."""
    settings.DATABASE_DOWN = tmp_path / "database.down"
    settings.DATABASE_DOWN.write_text("down")
    yield
    settings.DATABASE_DOWN.unlink()


def test_every_query_has_its_time(db: None) -> None:
    with connection.cursor() as cursor:
        for name in ("statement_timeout", "lock_timeout", "idle_in_transaction_session_timeout"):
            cursor.execute(f"SHOW {name}")
            assert cursor.fetchone() not in (None, ("0",))


def test_a_request_past_its_time_ends_its_process(monkeypatch: pytest.MonkeyPatch) -> None:
    ended: list[int] = []
    monkeypatch.setattr(os, "_exit", ended.append)
    old = Running(time.monotonic() - watch.TOO_LONG_S - 1, connections["default"])
    monkeypatch.setattr(watch, "_running", {1: old})
    watch.look()
    assert ended == [70]
    monkeypatch.setattr(watch, "_running", {1: Running(time.monotonic(), connections["default"])})
    watch.look()
    assert ended == [70]


@pytest.mark.django_db(transaction=True)
def test_whoever_waits_on_a_silent_database_is_let_go(down: None) -> None:
    failed: list[Exception] = []

    def waits() -> None:
        mine = connections["default"]
        try:
            with mine.cursor() as cursor:
                watch._running[0] = Running(time.monotonic(), mine)
                cursor.execute("SELECT pg_sleep(600)")
        except OperationalError as error:
            failed.append(error)
        finally:
            watch._running.pop(0, None)
            connections.close_all()

    thread = threading.Thread(target=waits)
    thread.start()
    while thread.is_alive():
        watch.look()
        thread.join(0.05)
    assert len(failed) == 1
    with connection.cursor() as cursor:
        # The server itself was only said to be silent, and sleeps on.
        cursor.execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity "
            "WHERE query LIKE '%pg_sleep(600)%' AND pid <> pg_backend_pid()"
        )


def test_while_it_is_silent_nothing_is_asked_of_it(down: None, shop: Shop) -> None:
    client = Client(raise_request_exception=False)
    said = {"value": "0.07", "place": "12", "token": "x", "password": "secret"}
    answer = client.post("/jobs/1/1/set/write", said)
    page = answer.content.decode()
    assert (answer.status_code, answer["Retry-After"]) == (503, "5")
    assert "<strong>0.07</strong>" in page
    assert "<strong>12</strong>" not in page
    assert 'name="place" value="12"' in page
    assert "secret" not in page
    assert client.get("/alive").status_code == 503


@pytest.mark.parametrize(
    ("error", "status"), [(OperationalError("gone"), 503), (KeyError("bug"), 500)]
)
def test_what_broke_is_one_sentence_and_keeps_what_was_typed(error: Exception, status: int) -> None:
    request = RequestFactory().post("/tray/", {"nominal": "0.10 mm"})
    try:
        raise error
    except (OperationalError, KeyError):
        answer = trouble.broke(request)
    page = answer.content.decode()
    assert answer.status_code == status
    assert "Traceback" not in page
    assert 'value="0.10 mm"' in page
