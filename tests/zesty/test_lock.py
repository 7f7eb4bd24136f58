"""Torque and lock: seating, the nut clock, the star order, the wrench."""

import uuid
from typing import Any

import pytest
from bs4 import BeautifulSoup
from django.utils import timezone

from wheelend.quantity import ANGLE
from zesty.bench import actions
from zesty.bench.models import BoltTick, LockTry, SeatMove
from zesty.bench.queries.jobfile import job_file
from zesty.bench.queries.lock_page import LockPage, lock_page
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.stores.models import Wrench

from .conftest import Shop, torque
from .test_records import lock, wrench

GEOMETRY = {
    "pitch": "1.5 mm", "slots": 6, "openings": 2, "lock_policy": "torque_window", "torque_low": "58 N·m",
    "torque_high": "90 N·m", "torque_per_deg": "1.1 N·m/deg", "bolts": 5, "bolt_torque": "110 N·m",
}  # fmt: skip


@pytest.fixture
def locking(shop: Shop) -> Shop:
    """A job whose card knows its lock places and bolts."""
    version = shop.job.card_version
    for name, value in GEOMETRY.items():
        setattr(version, name, value)
    version.save()
    shop.trial()
    shop.read(("0.00", "0.10"), ("0.00", "0.10"))
    return shop


def page_of(shop: Shop) -> LockPage:
    wrenches = list(Wrench.objects.filter(workshop=shop.workshop))
    return lock_page(job_file(shop.workshop, shop.job.pk), wrenches, timezone.localdate())


def try_place(shop: Shop, to_next: str, reached: str = "61 N·m") -> LockTry:
    return actions.try_place(
        shop.job, shop.tech, torque=torque(reached), to_next=Typed.read(to_next, ANGLE),
        token=uuid.uuid4(),
    )  # fmt: skip


def seat(shop: Shop, *moves: str) -> None:
    for move in moves:
        actions.seat(shop.job, shop.tech, move=Typed.read(move, ANGLE), token=uuid.uuid4())


def test_without_geometry_it_says_the_torque_and_shows_no_clock(shop: Shop) -> None:
    shop.trial()
    page = page_of(shop)
    assert str(page.line) == "Torque the nut to 61 N·m (45 lbf·ft), then lock it: pin."
    assert (page.reckons, page.places) == (False, ())
    with pytest.raises(Refused, match="says nothing of lock places"):
        try_place(shop, "5 deg")


def test_seating_is_repeated_until_the_nut_is_still(locking: Shop) -> None:
    seat(locking, "20 deg", "8 deg")
    page = page_of(locking)
    assert page.line.kind == "seat"
    assert "moved 20, 8 deg in 2 repeats" in page.line.why
    seat(locking, "1 deg")
    assert page_of(locking).line.kind == "torque"


def test_a_nut_that_does_not_settle_stops_the_work(locking: Shop) -> None:
    seat(locking, "5 deg", "20 deg")
    assert str(page_of(locking).line) == "Stop: the nut does not settle. Take it apart and look."


def test_the_nut_goes_on_to_its_pin_and_says_what_that_sets(locking: Shop) -> None:
    try_place(locking, "12 deg")
    page = page_of(locking)
    assert str(page.line) == "Turn the nut 12 deg on, then lock it: pin."
    assert "about 74 N·m (55 lbf·ft)" in page.line.why
    chosen = [place for place in page.places if place.chosen]
    assert [(place.angle, place.torque) for place in chosen] == [
        ("12 deg on", "74 N·m (55 lbf·ft)")
    ]
    back = next(place for place in page.places if place.angle == "48 deg back")
    assert back.why_not == "a torqued nut is not loosened to find a place"


def test_where_nothing_lines_up_a_washer_is_advised(locking: Shop) -> None:
    try_place(locking, "50 deg")
    line = page_of(locking).line
    assert line.kind == "washer"
    assert (
        str(line)
        == "Fit a washer 0.04 mm (1.6 thou) thicker or 0.10 mm (3.9 thou) thinner, then torque again."
    )


def test_a_place_a_step_away_is_refused_in_words(locking: Shop) -> None:
    with pytest.raises(Refused, match="not below the step of 60 deg"):
        try_place(locking, "60 deg")


def test_bolts_go_in_the_star_order_and_each_counts_once(locking: Shop) -> None:
    order = [1, 3, 5, 2, 4]
    with pytest.raises(Refused, match="bolt 1 of pass 1 is next"):
        actions.tick_bolt(locking.job, locking.tech, lap=1, bolt=2)
    for lap, bolts in ((1, order), (2, order), (3, [1, 2, 3, 4, 5])):
        for bolt in bolts:
            page = page_of(locking)
            assert page.lap is not None
            assert (page.lap.number, page.lap.due) == (lap, bolt)
            actions.tick_bolt(locking.job, locking.tech, lap=lap, bolt=bolt)
            actions.tick_bolt(locking.job, locking.tech, lap=lap, bolt=bolt)
    assert page_of(locking).lap is None
    assert BoltTick.objects.count() == 15


def test_each_wrench_says_what_to_set_and_what_is_wrong(locking: Shop) -> None:
    wrench(locking)
    row = page_of(locking).wrenches[0]
    assert row.setting.startswith("61 N·m (45 lbf·ft), reaches 59 to 63 N·m")
    assert row.wrong == ""
    Wrench.objects.update(cycles=5000, low_N_m=70, low="70 N·m")
    assert page_of(locking).wrenches[0].wrong == (
        "below its range, or below a fifth of its top; its calibration is due"
    )


def test_a_click_counts_as_a_cycle(locking: Shop) -> None:
    one = wrench(locking)
    lock(locking, wrench=one)
    one.refresh_from_db()
    assert one.cycles == 1


@pytest.mark.parametrize(
    ("path", "data", "says"),
    [
        ("seat", {"move": "-1 deg"}, "is below 0"), ("seat", {"move": "x"}, "is not an angle"),
        ("place", {"to_next": "90", "torque": "61"}, "is not below the step"),
        ("place", {"to_next": "5", "torque": "61 mm"}, "is not a torque"),
        ("tick", {"lap": 2, "bolt": 1}, "bolt 1 of pass 1 is next"),
        ("", {"torque": "61 kg", "lock": "pin", "done": "yes"}, "is not a torque"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_answered_and_kept(
    locking: Shop, path: str, data: dict[str, Any], says: str
) -> None:
    data["token"] = str(uuid.uuid4())
    answer = locking.client().post(f"/jobs/{locking.job.pk}/lock/{path}".rstrip("/"), data)
    page = BeautifulSoup(answer.content, "html.parser")
    assert answer.status_code == 422
    assert says in page.get_text()
    assert not SeatMove.objects.exists()


def test_all_of_it_through_the_page(locking: Shop) -> None:
    client, base = locking.client(), f"/jobs/{locking.job.pk}/lock"
    token = lambda: str(uuid.uuid4())  # noqa: E731
    assert client.post(f"{base}/seat", {"move": "1", "token": token()}).status_code == 302
    assert (
        client.post(f"{base}/place", {"to_next": "0", "torque": "61", "token": token()}).status_code
        == 302
    )
    assert "A place is in line:" in client.get(base).content.decode()
    assert client.post(f"{base}/tick", {"lap": 1, "bolt": 1}).status_code == 302
    one = wrench(locking)
    data = {"torque": "61", "lock": "pin", "done": "yes", "wrench": one.pk, "token": token()}
    assert client.post(base, data).status_code == 302
    assert "Read once more" in client.get(base).content.decode()
