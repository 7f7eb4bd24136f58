"""Timers: by the server's clock, on every page, lengthened and stopped with a reason, rung once."""

import uuid
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from datetime import datetime, timedelta
from typing import Any
from unittest.mock import patch

import pytest
from django.test import Client
from django.utils import timezone

from tests.zesty.conftest import Shop, text
from zesty.bench.models import Entry, Timer, TimerChange

pytestmark = pytest.mark.django_db


def started(shop: Shop, **more: Any) -> Timer:
    said = {"kind": "oven", "minutes": "20", "words": "the hub", "token": uuid.uuid4(), **more}
    shop.client().post(f"/jobs/{shop.job.pk}/1/set/timer", said)
    return Timer.objects.get(job=shop.job, token=said["token"])


@contextmanager
def later(seconds: float) -> Iterator[None]:
    """As if so much time had passed on the server."""
    now = timezone.now

    def shifted() -> datetime:
        return now() + timedelta(seconds=seconds)

    with ExitStack() as stack:
        stack.enter_context(patch.object(timezone, "now", shifted))
        for model in (Entry, Timer, TimerChange):
            field = model._meta.get_field("at")
            stack.enter_context(patch.object(field, "_get_default", shifted))
        yield


def send(client: Client, timer: Timer, verb: str, **said: Any) -> Any:
    return client.post(
        f"/timers/{timer.pk}/{verb}",
        {"token": uuid.uuid4(), **said},
        headers={"HX-Request": "true"},
    )


def test_a_bare_number_is_minutes_and_the_same_token_is_one_timer(shop: Shop) -> None:
    token = uuid.uuid4()
    assert started(shop, token=token).seconds == 1200
    started(shop, token=token)
    assert started(shop, minutes="90 s").seconds == 90
    assert Timer.objects.filter(job=shop.job).count() == 2


@pytest.mark.parametrize(
    ("minutes", "says"),
    [("", "Nothing"), ("-5", "not between"), ("20 mm", "mm"), ("200 h", "10080 min"), ("x", "x")],
)
def test_a_time_that_is_none_is_said_and_kept(shop: Shop, minutes: str, says: str) -> None:
    answer = shop.client().post(
        f"/jobs/{shop.job.pk}/1/set/timer",
        {"kind": "oven", "minutes": minutes, "words": "the hub", "token": uuid.uuid4(),
         "at": f"/jobs/{shop.job.pk}/1/set/timer"},
        headers={"HX-Request": "true"},
    )  # fmt: skip
    assert answer.status_code == 422
    assert says in text(answer)
    assert 'value="the hub"' in answer.content.decode()
    assert not Timer.objects.filter(job=shop.job).exists()


def test_it_stands_on_the_job_the_yard_and_another_job(shop: Shop) -> None:
    started(shop)
    for address in (f"/jobs/{shop.job.pk}/1/take_in/", "/", "/timers/"):
        page = shop.client("lead").get(address)
        assert "the hub" in text(page), address
        assert 'data-left="1' in page.content.decode()


def test_to_stop_it_early_needs_a_reason_and_late_none(shop: Shop) -> None:
    early, late = started(shop), started(shop, minutes="1 s")
    assert send(shop.client(), early, "stop").status_code == 422
    assert send(shop.client(), early, "stop", reason="it is hot enough").status_code == 200
    with later(2):
        assert send(shop.client(), late, "stop").status_code == 200
    assert "the hub" not in text(shop.client().get("/timers/"))
    assert "stopped already" in text(send(shop.client(), early, "stop", reason="again"))


def test_lengthened_it_runs_on_from_now_where_it_had_run_out(shop: Shop) -> None:
    one = started(shop)
    with later(1800):
        assert send(shop.client(), one, "lengthen", minutes="5").status_code == 422
        why = {"minutes": "5", "reason": "cold oven"}
        assert send(shop.client(), one, "lengthen", **why).status_code == 200
        page = shop.client().get("/timers/").content.decode()
    left = int(page.split('data-left="')[1].split('"')[0])
    assert 290 <= left <= 300


def test_it_rings_once_and_with_whoever_started_it(shop: Shop) -> None:
    one = started(shop)
    mine, theirs = shop.client(), shop.client("lead")

    def rings(client: Client) -> bool:
        return "data-ringing" in send(client, one, "ring").content.decode()

    assert not rings(mine), "its time is not over"
    with later(1201):
        assert not rings(theirs), "the one who started it comes first"
        assert rings(mine)
        assert not rings(mine)
    with later(1400):
        assert not rings(theirs), "it has rung"
    assert TimerChange.objects.filter(timer=one, kind="rung").count() == 1


def test_another_page_rings_where_the_first_never_did(shop: Shop) -> None:
    one = started(shop)
    with later(1300):
        assert "data-ringing" in send(shop.client("lead"), one, "ring").content.decode()


def test_an_ended_job_has_no_timers(shop: Shop) -> None:
    started(shop)
    shop.client().post(
        f"/jobs/{shop.job.pk}/1/set/abandon", {"reason": "sold", "token": uuid.uuid4()}
    )
    assert "the hub" not in text(shop.client().get("/timers/"))
    answer = shop.client().post(
        f"/jobs/{shop.job.pk}/1/set/timer",
        {"kind": "oven", "minutes": "5", "token": uuid.uuid4()},
        headers={"HX-Request": "true"},
    )
    assert answer.status_code == 422


def test_as_many_as_fit_and_no_more(shop: Shop) -> None:
    for _ in range(12):
        started(shop)
    with pytest.raises(Timer.DoesNotExist):
        started(shop)
