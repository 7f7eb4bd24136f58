"""Every address, taken from the resolver: signed out, as each role, and as another workshop."""

import uuid
from collections.abc import Iterator

import pytest
from bs4 import BeautifulSoup
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver, reverse

from zesty.bench.models import Timer
from zesty.cards.models import CardDraft
from zesty.people.models import (
    BENCH_ROLES,
    CARD_ROLES,
    FLEET_ROLES,
    PEOPLE_ROLES,
    STORES_ROLES,
    Role,
)

from .conftest import Shop, document

SELF = {"people:units", "people:password"}
"""Every member may, for itself."""

OPEN = {
    "people:sign_in", "people:sign_out", "people:demo_enter", "people:first", "people:alive",
    "people:join",
}  # fmt: skip
WRITERS = {
    "people:members": PEOPLE_ROLES, "people:member": PEOPLE_ROLES,
    "yard:new_vehicle": FLEET_ROLES, "yard:vehicle": FLEET_ROLES, "yard:start": BENCH_ROLES,
    "yard:parts": BENCH_ROLES, "yard:recheck": BENCH_ROLES, "yard:part_event": BENCH_ROLES,
    "cards:new": CARD_ROLES, "cards:edit": CARD_ROLES, "cards:draft": CARD_ROLES,
    "cards:draft_line": CARD_ROLES, "cards:keep": CARD_ROLES,
    "stores:tray": STORES_ROLES, "stores:count": STORES_ROLES, "stores:gauges": STORES_ROLES,
    "stores:wrenches": STORES_ROLES,
    "stores:meters": STORES_ROLES, "stores:calibrated": STORES_ROLES, "stores:confirmed": CARD_ROLES,
    "stores:shed": STORES_ROLES, "stores:lubricants": STORES_ROLES, "stores:gone": STORES_ROLES,
    "stages:write": BENCH_ROLES, "stages:skip": BENCH_ROLES, "stages:aside": BENCH_ROLES,
    "stages:photo": BENCH_ROLES, "stages:seen": BENCH_ROLES, "stages:other_end": BENCH_ROLES,
    "stages:choose": BENCH_ROLES, "stages:card": BENCH_ROLES, "stages:abandon": BENCH_ROLES,
    "stages:correct": BENCH_ROLES, "stages:take_back": BENCH_ROLES, "stages:sign": BENCH_ROLES,
    "stages:reopen": CARD_ROLES, "records:import": CARD_ROLES, "records:import_readings": BENCH_ROLES,
    "records:import_tray_csv": STORES_ROLES,
    "stages:start_timer": BENCH_ROLES, "stages:lengthen_timer": BENCH_ROLES,
    "stages:stop_timer": BENCH_ROLES, "stages:ring_timer": BENCH_ROLES,
}  # fmt: skip
READ_ONLY = {
    "yard:yard", "stages:job", "stages:page", "stages:get_ready", "cards:list", "cards:card", "cards:gallery", "records:sheet",
    "records:old_sheet", "records:job_json", "records:job_zip", "records:card_json", "records:tray_json",
    "records:tray_csv", "records:readings_csv", "stages:photo_file", "stages:timers",
}  # fmt: skip
NOT_THERE = {"yard:recheck", "records:old_sheet", "cards:draft", "stages:photo_file"}
"""What the shop has none of for this role: a second sheet, a photo, somebody else's draft."""


def every_pattern() -> Iterator[tuple[str, URLPattern]]:
    for resolver in get_resolver().url_patterns:
        assert isinstance(resolver, URLResolver)
        for pattern in resolver.url_patterns:
            yield f"{resolver.app_name}:{pattern.name}", pattern


def ids_of(shop: Shop) -> dict[str, object]:
    last = shop.file.last_entry
    assert last is not None
    draft = CardDraft.objects.get_or_create(
        workshop=shop.workshop, card=shop.card, by=shop.people["owner"],
        defaults={"follows": 1, "document": document()},
    )[0]  # fmt: skip
    timer = Timer.objects.get_or_create(
        workshop=shop.workshop, job=shop.job, unit=shop.unit.unit, kind="oven", seconds=60,
        by=shop.people["owner"],
    )[0]  # fmt: skip
    return {
        "timer_id": timer.pk,
        "job_id": shop.job.pk, "vehicle_id": shop.vehicle.pk, "card_id": shop.card.pk, "index": 1,
        "wheel_end_id": shop.vehicle.wheel_ends.last().pk, "entry_id": last.pk, "account": "tech",
        "word": "none", "sheet_id": 0, "recheck_id": 0, "stage": "set", "size": "small", "draft_id": draft.pk,
    }  # fmt: skip


def addresses(shop: Shop) -> dict[str, str]:
    """Every address by name, with this workshop's ids in it."""
    if not shop.file.entries:
        shop.trial()
    ids = ids_of(shop)
    return {
        name: reverse(name, kwargs={key: ids[key] for key in pattern.pattern.converters})
        for name, pattern in every_pattern()
    }


def test_the_table_knows_every_address() -> None:
    assert {name for name, _ in every_pattern()} == OPEN | SELF | set(WRITERS) | READ_ONLY


def test_signed_out_everything_but_the_door_is_shut(shop: Shop) -> None:
    for name, address in addresses(shop).items():
        if name in OPEN:
            continue
        for send in (Client().get, Client().post):
            answer = send(address)
            assert answer.status_code == 302, name
            assert answer["Location"].startswith("/sign-in"), name


def test_another_workshops_ids_answer_404(shop: Shop, other: Shop) -> None:
    theirs = addresses(other)
    client = shop.client("owner")
    patterns = dict(every_pattern())
    walked = 0
    for name, address in theirs.items():
        if name in OPEN or not patterns[name].pattern.converters:
            continue
        for send in (client.get, client.post):
            answer = send(address)
            if answer.status_code == 302:  # a posting address leads to its page, there or not
                answer = client.get(answer["Location"])
            assert answer.status_code in (404, 405), f"{name}: {answer.status_code}"
        walked += 1
    assert walked >= 20


def test_another_workshops_things_are_refused_inside_forms(shop: Shop, other: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    wrench = other.tool("half-inch wrench")
    answer = shop.post(shop.client(), "trial_torque", value="61", wrench=wrench.pk)
    assert answer.status_code == 422
    shim = other.workshop.shim_set.first()
    answer = shop.client().post("/tray/count", {"shim_id": shim.pk, "count": 99})
    assert answer.status_code == 422
    shim.refresh_from_db()
    assert shim.count != 99
    free = shop.vehicle.wheel_ends.last()
    answer = shop.client().post(
        f"/wheel-ends/{free.pk}/start", {"card": other.card.pk, "ends": "one"}
    )
    assert answer.status_code == 422
    answer = shop.client().post(
        f"/jobs/{shop.job.pk}/1/set/card",
        {"card": other.card.pk, "reason": "x", "token": uuid.uuid4()},
    )
    assert answer.status_code == 422


@pytest.mark.parametrize("role", Role.values)
def test_each_role_reads_all_and_writes_what_is_its_own(shop: Shop, role: str) -> None:
    client = shop.client(role)
    for name, address in addresses(shop).items():
        if name in OPEN:
            continue
        wanted = (200, 302, 404, 405) if name in NOT_THERE else (200, 302, 405)
        assert client.get(address).status_code in wanted, name
        if name in WRITERS:
            forbidden = client.post(address).status_code == 403
            assert forbidden is (role not in WRITERS[name]), name


def test_every_page_has_the_strict_policy(shop: Shop) -> None:
    client = shop.client()
    for name, address in addresses(shop).items():
        policy = client.get(address).get("Content-Security-Policy", "")
        assert "default-src 'self'" in policy, name
        assert "unsafe" not in policy, name


def test_no_page_has_inline_script_or_style(shop: Shop) -> None:
    client = shop.client("owner")
    for name, address in addresses(shop).items():
        answer = client.get(address)
        if answer.status_code != 200 or "html" not in answer["Content-Type"]:
            continue
        page = answer.content.decode()
        assert " style=" not in page, name
        assert "<style" not in page, name
        assert "onclick" not in page, name
        assert page.count("<script") == page.count("<script src="), name


def test_no_id_stands_twice_on_a_page(shop: Shop) -> None:
    client = shop.client("owner")
    for name, address in addresses(shop).items():
        answer = client.get(address)
        if answer.status_code != 200 or "html" not in answer["Content-Type"]:
            continue
        ids = [one["id"] for one in BeautifulSoup(answer.content, "html.parser").select("[id]")]
        assert sorted(set(ids)) == sorted(ids), name
