"""What a page may cost: queries are counted, never seconds."""

import pytest
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext

from zesty.bench.actions import log
from zesty.fleet.actions import add_vehicle

from .conftest import Shop

MOST = 12


def queries(client: Client, path: str) -> int:
    client.get(path)
    with CaptureQueriesContext(connection) as caught:
        assert client.get(path).status_code == 200
    return len(caught)


def test_a_reading_takes_at_most_twelve_queries(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50, 0.10")
    shop.torque()
    shop.dial()
    client = shop.client()
    assert shop.post(client, "read", value="0").status_code == 302
    with CaptureQueriesContext(connection) as caught:
        assert shop.post(client, "read", value="0.10").status_code == 302
    # In a test the outer transaction stands already: what is a BEGIN there is a savepoint here.
    bare = [one["sql"] for one in caught if "SAVEPOINT" not in one["sql"]]
    ours = [sql for sql in bare if "django_session" not in sql or "SELECT" in sql]
    assert len(ours) - _of_the_test(shop) <= MOST


def _of_the_test(shop: Shop) -> int:
    """What `Shop.post` itself asks to know the step that is due."""
    with CaptureQueriesContext(connection) as caught:
        _ = shop.unit.progress.due
    return len(caught)


@pytest.mark.parametrize("stage", ["take_in", "set", "lock", "prove", "close"])
def test_a_stage_takes_at_most_twelve_queries_whatever_was_written(shop: Shop, stage: str) -> None:
    client = shop.client()
    path = f"/jobs/{shop.job.pk}/1/{stage}/"
    few = queries(client, path)
    shop.trial()
    for _ in range(4):
        last = shop.file.last_entry
        assert last is not None
        log.take_back(shop.file, shop.people["tech"], last, reason="misread")
        shop.read("0.10")
    shop.say("pick", step="open", typed="change")
    shop.trial("0.50, 0.05")
    many = queries(client, path)
    # A pack's shims, and what the close page has beside the job, are one query each.
    assert many <= few + 1
    assert many <= MOST + (2 if stage == "close" else 0)


def test_the_yard_asks_the_same_for_two_vehicles_and_for_forty(shop: Shop) -> None:
    client = shop.client()
    few = queries(client, "/")
    for number in range(40):
        add_vehicle(shop.workshop, name=f"van {number}", kind="van", axles=2, air_braked=False)
    # The band of those at rest, its wheel ends and their work: three more, however many there are.
    assert queries(client, "/") <= few + 3
    assert queries(client, "/?find=van") <= few + 3
    shown = client.get("/").content.decode()
    assert shown.count("<figure") <= 12 + 24
