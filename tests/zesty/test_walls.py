"""Every address, taken from the resolver: signed out, as each role, and as another workshop."""

from collections.abc import Iterator

import pytest
from bs4 import BeautifulSoup
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver, reverse

from zesty.people.models import BENCH_ROLES, CARD_ROLES, FLEET_ROLES, STORES_ROLES, Role

from .conftest import Shop

SELF = {"people:units"}
"""Every member may, for itself."""

OPEN = {"people:sign_in", "people:sign_out", "people:demo_enter", "people:first", "people:alive"}
WRITERS = {
    "bench:new_vehicle": FLEET_ROLES, "bench:vehicle": FLEET_ROLES, "cards:new": CARD_ROLES,
    "cards:edit": CARD_ROLES, "stores:tray": STORES_ROLES, "stores:count": STORES_ROLES,
    "stores:gauges": STORES_ROLES, "bench:start": BENCH_ROLES, "bench:take_in": BENCH_ROLES,
    "bench:reading": BENCH_ROLES, "bench:finding": BENCH_ROLES, "bench:trial": BENCH_ROLES,
    "bench:choice": BENCH_ROLES, "bench:aside": BENCH_ROLES, "bench:seat": BENCH_ROLES,
    "bench:place": BENCH_ROLES, "bench:tick": BENCH_ROLES, "stores:wrenches": STORES_ROLES,
    "stores:calibrated": STORES_ROLES, 
    "bench:correct": BENCH_ROLES, "bench:take_back": BENCH_ROLES,
    "bench:lock": BENCH_ROLES, "records:close": BENCH_ROLES,
    "records:check": CARD_ROLES, "records:import": CARD_ROLES, "records:import_readings": BENCH_ROLES,
    "records:import_tray_csv": STORES_ROLES, "records:reopen": CARD_ROLES,
}  # fmt: skip
READ_ONLY = {
    "bench:yard", "bench:job", "bench:set", "cards:list", "cards:card", "records:sheet", "records:old_sheet",
    "records:job_json", "records:card_json", "records:tray_json", "records:tray_csv", "records:readings_csv",
}  # fmt: skip


def every_pattern() -> Iterator[tuple[str, URLPattern]]:
    for resolver in get_resolver().url_patterns:
        assert isinstance(resolver, URLResolver)
        for pattern in resolver.url_patterns:
            yield f"{resolver.app_name}:{pattern.name}", pattern


def ids_of(shop: Shop) -> dict[str, object]:
    reading = shop.job.trials.first().readings.first()
    return {
        "job_id": shop.job.pk, "vehicle_id": shop.vehicle.pk, "card_id": shop.card.pk,
        "wheel_end_id": shop.vehicle.wheel_ends.last().pk, "reading_id": reading.pk, "account": "tech",
        "sheet_id": 0,
    }  # fmt: skip


def addresses(shop: Shop) -> dict[str, str]:
    """Every address by name, with this workshop's ids in it."""
    shop.trial()
    shop.read(("0.00", "0.10"))
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
            assert answer.status_code in (404, 405), f"{name}: {answer.status_code}"
        walked += 1
    assert walked >= 15


def test_another_workshops_things_are_refused_inside_forms(shop: Shop, other: Shop) -> None:
    shop.trial()
    trial = {
        "pack": "0.10", "gauge": other.gauge.pk, "dial_place": "axis", "nut_torque": "61 N·m",
        "after": 1, "token": "7b0f6a48-2f36-4b0f-8e55-0d1e2c9b0001",
    }  # fmt: skip
    answer = shop.client().post(f"/jobs/{shop.job.pk}/set/trial", trial)
    assert answer.status_code == 422
    shim = other.workshop.shim_set.first()
    answer = shop.client().post("/tray/count", {"shim_id": shim.pk, "count": 99})
    assert answer.status_code == 422
    shim.refresh_from_db()
    assert shim.count != 99
    free = shop.vehicle.wheel_ends.last()
    answer = shop.client().post(f"/wheel-ends/{free.pk}/start", {"card": other.card.pk})
    assert answer.status_code == 422


@pytest.mark.parametrize("role", Role.values)
def test_each_role_reads_all_and_writes_what_is_its_own(shop: Shop, role: str) -> None:
    client = shop.client(role)
    for name, address in addresses(shop).items():
        if name in OPEN:
            continue
        wanted = (404,) if name == "records:old_sheet" else (200, 302, 405)
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
