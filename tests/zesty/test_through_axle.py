"""The through-axle pair: two packs, one play, read from both ends."""

from typing import Any

import pytest
from bs4 import BeautifulSoup

from wheelend.arrangements import THROUGH_AXLE
from zesty.bench import actions
from zesty.bench.models import Trial
from zesty.bench.queries.jobfile import job_file
from zesty.bench.queries.set_page import SetPage, set_page
from zesty.cards.actions import new_card
from zesty.elements.refused import Refused

from .conftest import SAYS, Shop, mm, torque

STACK = [{"kind": kind, "name": kind, "counts": kind != "pin"} for kind in THROUGH_AXLE.usual]


@pytest.fixture
def quad(shop: Shop) -> Shop:
    """A shop whose job is on a through-axle."""
    says = {**SAYS, "bolts": 4, "bolt_torque": torque("28 N·m")}
    card = new_card(
        shop.workshop, shop.people["lead"], name="quad", arrangement="through_axle", stack=STACK, **says
    )  # fmt: skip
    wheel_end = shop.vehicle.wheel_ends.last()
    shop.job = actions.open_job(shop.workshop, shop.tech, wheel_end, card=card)
    return shop


def fit(shop: Shop, left: str, right: str, **more: Any) -> Trial:
    packs = [[mm(one) for one in side.split(",") if one.strip()] for side in (left, right)]
    return shop.trial("", **{"pack": packs[0], "pack_right": packs[1], "closed": True, **more})


def read_ends(shop: Shop, left: str, right: str) -> None:
    number = shop.job.trials.count()
    for end, play in (("left", left), ("right", right)):
        shop.one(end, "in", "0.00", number)
        shop.one(end, "out", play, number)


def page_of(shop: Shop) -> SetPage:
    return set_page(job_file(shop.workshop, shop.job.pk))


def test_nothing_is_read_before_both_sides_are_closed(quad: Shop) -> None:
    with pytest.raises(Refused, match="Close and bolt both sides"):
        fit(quad, "0.10", "0.10", closed=False)
    fit(quad, "0.10", "0.10")
    assert str(page_of(quad).line) == (
        "Both plates to 28 N·m (21 lbf·ft) crosswise, seat both ways, zero the dial, "
        "push in at the left end and read."
    )


def test_one_reading_from_each_end_makes_one_play(quad: Shop) -> None:
    fit(quad, "0.10", "0.05")
    read_ends(quad, "0.10", "0.11")
    page = page_of(quad)
    assert (page.line.kind, page.is_set) == ("set", True)
    assert page.line.key == "0.11 mm (4.1 thou)"
    assert page.trials[0].pack == "left 0.10, right 0.05"


def test_ends_that_do_not_agree_stop_the_work(quad: Shop) -> None:
    fit(quad, "0.10", "0.10")
    read_ends(quad, "0.10", "0.12")
    page = page_of(quad)
    assert str(page.line) == (
        "Stop: the ends read 0.02 mm apart: a shaft or a cup is not home. "
        "Seat both ways and read both ends again."
    )
    assert not page.is_set


def test_the_plan_evens_out_and_says_which_side(quad: Shop) -> None:
    fit(quad, "0.10", "0.10", as_found=True)
    read_ends(quad, "0.02", "0.02")
    page = page_of(quad)
    assert str(page.line).startswith("Add 0.10 mm (3.9 thou): put in ")
    best = page.plan[0]
    assert (best.typed, best.typed_right) in (
        ("0.10 mm", "0.10 mm, 0.10 mm"), ("0.10 mm, 0.10 mm", "0.10 mm"),
    )  # fmt: skip
    assert len(best.bars) == 2


def test_as_found_changes_only_the_side_that_has_shims(quad: Shop) -> None:
    version = quad.job.card_version
    version.balance = "as_found"
    version.save()
    fit(quad, "", "0.50", as_found=True)
    read_ends(quad, "0.02", "0.02")
    assert {row.typed for row in page_of(quad).plan} == {""}


def test_a_shim_that_moves_across_never_passes_the_tray(quad: Shop) -> None:
    fit(quad, "0.50", "")
    fit(quad, "", "0.50")
    assert quad.workshop.shim_set.get(nominal="0.50 mm").count == 0


def test_through_the_page_with_both_packs_drawn(quad: Shop) -> None:
    client, path = quad.client(), f"/jobs/{quad.job.pk}/set"
    data = {
        "pack": "0.10", "pack_right": "4 thou", "gauge": quad.gauge.pk, "dial_place": "shaft",
        "nut_torque": "28 N·m", "after": 0, "token": "7b0f6a48-2f36-4b0f-8e55-0d1e2c9b0001",
    }  # fmt: skip
    answer = client.post(f"{path}/trial", data)
    assert answer.status_code == 422
    page = BeautifulSoup(answer.content, "html.parser")
    assert "Close and bolt both sides" in page.get_text()
    assert page.select_one("[name=pack_right]")["value"] == "4 thou"
    assert client.post(f"{path}/trial", {**data, "closed": "on"}).status_code == 302
    page = BeautifulSoup(client.get(path).content, "html.parser")
    assert "left 0.10 mm" in page.get_text()
    assert "right 0.1016 mm" in page.get_text()
    assert page.select_one("[name=clock]")["value"] == "left"


def test_a_card_of_this_family_needs_its_own_parts(shop: Shop) -> None:
    client = shop.client("lead")
    page = BeautifulSoup(client.get("/cards/new?arrangement=through_axle").content, "html.parser")
    chosen = [one["value"] for one in page.select(".stack-line option[selected]")]
    assert chosen[:4] == ["centre_block", "bearing", "shims", "plate"]
