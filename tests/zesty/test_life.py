"""Life-limited parts through their page: usage travels with the part, and a part past its life is refused."""

from typing import Any

import pytest

from zesty.fleet.models import LifeEvent, LifePart

from .conftest import Shop, text


@pytest.fixture
def part(shop: Shop) -> LifePart:
    answer = shop.client().post(
        "/parts/", {"name": "hub", "serial": "H-204", "limit": "40 h", "check_every": "10 h"}
    )
    assert answer.status_code == 302
    return LifePart.objects.get(serial="H-204")


def write(shop: Shop, part: LifePart, kind: str, counter: str, **more: Any) -> Any:
    if kind == "fitted":
        more.setdefault("wheel_end", shop.vehicle.wheel_ends.first().pk)
    said = {"part": part.pk, "kind": kind, "counter": counter, **more}
    return shop.client().post("/parts/events", said)


def test_usage_travels_with_the_part_and_past_its_life_it_is_not_fitted(
    shop: Shop, part: LifePart
) -> None:
    for kind, counter in (("fitted", "100 h"), ("checked", "110 h"), ("off", "120 h"), ("checked", "0 h"),
                          ("fitted", "7 h"), ("off", "27 h")):  # fmt: skip
        assert write(shop, part, kind, counter).status_code == 302, (kind, counter)
    page = text(shop.client().get("/parts/"))
    assert "40 h" in page
    assert "over: not fitted again" in page
    answer = write(shop, part, "fitted", "27 h")
    assert answer.status_code == 422
    assert "has run 40 of 40 h: its life is over" in text(answer)


def test_a_crack_check_that_is_due_comes_before_the_next_fitting(
    shop: Shop, part: LifePart
) -> None:
    write(shop, part, "fitted", "0 h")
    write(shop, part, "off", "11 h")
    assert "due now" in text(shop.client().get("/parts/"))
    assert "check it first" in text(write(shop, part, "fitted", "11 h"))
    write(shop, part, "checked", "11 h")
    assert write(shop, part, "fitted", "11 h").status_code == 302


@pytest.mark.parametrize(
    ("kind", "counter", "says"),
    [("off", "5 h", "is not on anything"), ("fitted", "5 km", "give the counter in h"), ("fitted", "five", "is not a usage"),
     ("fitted", "", "required"), ("eaten", "5 h", "Select a valid choice")],
)  # fmt: skip
def test_what_can_not_be_is_one_sentence_and_nothing_is_written(
    shop: Shop, part: LifePart, kind: str, counter: str, says: str
) -> None:
    answer = write(shop, part, kind, counter)
    assert answer.status_code == 422
    assert says in text(answer)
    assert not LifeEvent.objects.exists()


def test_fitted_twice_or_a_counter_that_runs_back_is_refused(shop: Shop, part: LifePart) -> None:
    write(shop, part, "fitted", "5 h")
    assert "is on already" in text(write(shop, part, "fitted", "6 h"))
    assert "is less than" in text(write(shop, part, "off", "4 h"))


def test_a_serial_number_is_known_once_and_belongs_to_its_workshop(
    shop: Shop, other: Shop, part: LifePart
) -> None:
    again = {"name": "hub", "serial": "H-204", "limit": "40 h"}
    assert "is known already" in text(shop.client().post("/parts/", again))
    assert other.client().post("/parts/", again).status_code == 302
    assert write(other, part, "fitted", "1 h").status_code == 422
    assert "H-204" in text(other.client().get("/parts/"))


def test_a_part_past_its_life_is_refused_in_the_job_that_would_fit_it(
    shop: Shop, part: LifePart
) -> None:
    write(shop, part, "fitted", "0 h")
    write(shop, part, "off", "41 h")
    shop.until("matched")
    before = len(shop.file.entries)
    client = shop.client()
    item = shop.unit.progress.due
    assert item is not None
    for typed, status in (("B-1 on hub h-204", 422), ("B-1 on hub H-205", 302)):
        answer = shop.post(client, "matched", "match", answer="number", detail=typed)
        assert answer.status_code == status, text(answer)[:300]
        if status == 422:
            assert "has run 41 of 40 h: its life is over" in text(answer)
            assert len(shop.file.entries) == before


def test_what_is_due_stands_in_the_yard_and_in_the_job(shop: Shop, part: LifePart) -> None:
    client = shop.client()
    assert "Nothing is due" in text(client.get("/?show=due"))
    shop.vehicle.usage_log.create(
        on="2026-05-01", typed="111 h", value=111, unit="h", entered_by=shop.people["tech"]
    )
    write(shop, part, "fitted", "100 h", wheel_end=shop.unit.places[0].wheel_end_id)
    page = text(client.get("/?show=due"))
    assert "hub H-204: crack check due" in page
    assert "trailer" in page
    shop.until("matched")
    assert "has run 11 of 40 h : crack check first" in text(
        client.get(f"/jobs/{shop.job.pk}/1/match/")
    )
    assert "trailer" in text(client.get("/?find=h-204"))
