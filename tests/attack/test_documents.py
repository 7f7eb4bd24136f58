"""Our own documents, damaged: refused in one sentence, or taken in and shown. Never half."""

import copy
import json
import random
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import Client
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.zesty.conftest import Shop, axle_document, document
from tests.zesty.test_exchange import signed_job
from zesty.bench.models import Entry, Job
from zesty.bench.queries.jobfile import job_file
from zesty.cards.models import CardVersion, SpecCard
from zesty.elements.refused import Refused
from zesty.people.models import Workshop
from zesty.records.exchange.documents import dumps, loads
from zesty.records.exchange.jobs import job_document
from zesty.records.exchange.trays import tray_document
from zesty.stores.models import Instrument, Shim

from .conftest import tries

Path = tuple[Any, ...]
Way = Callable[[Any, random.Random], Any]


def put(value: Any) -> Way:
    """Another value in its place."""
    return lambda _, __: copy.deepcopy(value)


def text(change: Callable[[str], str]) -> Way:
    """Its text, changed."""
    return lambda old, _: change(old if isinstance(old, str) else json.dumps(old))


WAYS: dict[str, Way] = {
    "null": put(None), "true": put(True), "zero": put(0), "minus one": put(-1), "half": put(0.5),
    "huge": put(10**30), "large": put(2**31), "larger": put(2**63), "tiny": put(1e-300),
    "empty text": put(""), "blank": put("   "), "empty list": put([]), "empty table": put({}),
    "a list of it": lambda old, _: [old], "a table of it": lambda old, _: {"value": old},
    "deep": put([[[[[[[[[[[[1]]]]]]]]]]]]), "no number": put("NaN"), "word": put("moon"),
    "long word": put("x" * 5000), "digits": put("9" * 5000), "superscript": put("²"),
    "other digits": put("١٢"), "nul": text(lambda old: old + "\x00"), "surrogate": put("\ud800"),
    "turned text": put("\u202eabc"), "lines": text(lambda old: old + "\nmore"), "plus": put("+5 mm"),
    "dot": put("5. mm"), "slipped": put("150 mm"), "ten metres": put("10000 mm"), "negative": put("-3 mm"),
    "other unit": put("5 N·m"), "no unit": put("5"), "exponent": put("1e300 mm"), "fraction": put("1/0 in"),
    "clock": put("12:00"), "no clock": put("25:00"), "side": put("left"), "year one": put("0001-01-01T00:00:00+00:00"),
    "year 9999": put("9999-12-31T23:59:59+00:00"), "no zone": put("2026-01-01T00:00:00"), "no day": put("2026-02-30"),
    "old day": put("1800-01-01"), "kind": put("withdrawn"), "other kind": put("aside"), "a pick": put("pick"),
    "shout": text(str.upper), "twice": text(lambda old: old + old), "markup": put("<b>{{ 1 }}</b>"),
    "formula": put("=1+1"), "reversed": lambda old, _: old[::-1] if isinstance(old, list | str) else old,
    "doubled": lambda old, _: old * 2 if isinstance(old, list) else old,
    "hundredfold": lambda old, _: old * 100 if isinstance(old, list) else old,
    "shuffled": lambda old, chance: chance.sample(old, len(old)) if isinstance(old, list) else old,
    "halved": lambda old, _: old[: len(old) // 2] if isinstance(old, list) else old,
    "first lost": lambda old, _: old[1:] if isinstance(old, list) else old,
    "strange key": lambda old, _: {**old, "strange": 1} if isinstance(old, dict) else old,
    "key lost": lambda old, chance: _without_one(old, chance) if isinstance(old, dict) else old,
}  # fmt: skip


def _without_one(old: dict[str, Any], chance: random.Random) -> dict[str, Any]:
    lost = chance.choice(sorted(old)) if old else ""
    return {key: value for key, value in old.items() if key != lost}


def paths(at: Any, here: Path = ()) -> Iterator[Path]:
    """Every place in a document."""
    yield here
    inner = at.items() if isinstance(at, dict) else enumerate(at) if isinstance(at, list) else ()
    for key, value in inner:
        yield from paths(value, (*here, key))


def damaged(said: Any, path: Path, way: Way, chance: random.Random) -> Any:
    """A document with one place changed."""
    if not path:
        return way(said, chance)
    made = copy.copy(said)
    made[path[0]] = damaged(said[path[0]], path[1:], way, chance)
    return made


def owner(shop: Shop) -> Client:
    client = Client(raise_request_exception=False)
    client.force_login(shop.people["owner"], "zesty.people.backends.MemberBackend")
    return client


def count(workshop: Workshop) -> list[int]:
    """How many rows of each kind a workshop has."""
    kinds = (Job, Entry, SpecCard, CardVersion, Shim, Instrument)
    return [kind.objects.filter(workshop=workshop).count() for kind in kinds]


class Back(Exception):
    """Take everything back that one try did."""


def take_in(shop: Shop, raw: bytes) -> None:
    """Send a document: refused without a trace, or in and shown on every page."""
    client = owner(shop)
    before = count(shop.workshop)
    try:
        with transaction.atomic():
            answer = client.post("/import", {"file": SimpleUploadedFile("it.json", raw)})
            assert answer.status_code in (302, 422), raw[:300]
            if answer.status_code == 422:
                assert answer.content.count(b'class="error"') == 1
                assert count(shop.workshop) == before
            else:
                shown(shop, client)
            raise Back
    except Back:
        pass


def shown(shop: Shop, client: Client) -> None:
    """Whatever came in, its pages open, and those that show it beside others."""
    for job in Job.objects.filter(workshop=shop.workshop, imported=True):
        for unit in job_file(shop.workshop, job.pk).units:
            for stage in unit.card.arrangement.stages:
                answer = client.get(f"/jobs/{job.pk}/{unit.index}/{stage.key}/")
                assert answer.status_code == 200
                assert b"be judged as it stands" not in answer.content
        assert client.get(f"/jobs/{job.pk}/job.json").status_code == 200
    for card in SpecCard.objects.filter(workshop=shop.workshop):
        assert client.get(f"/cards/{card.pk}/").status_code == 200
    assert client.get("/").status_code == 200
    assert client.get("/tray/").status_code == 200


def as_bytes(said: Any) -> bytes:
    return json.dumps(said).encode("utf-8", "surrogatepass")


def theirs(shop: Shop) -> dict[str, dict[str, Any]]:
    """A document of each kind, as another workshop exports them."""
    job = signed_job(shop)
    job["vehicle"]["name"] = "a vehicle from elsewhere"
    tray = tray_document(shop.workshop)
    for one in tray["instruments"]:
        one["name"] += ", from elsewhere"
    return {
        "job": job, "tray": tray, "card": {**document(), "name": "a card from elsewhere"},
        "axle": {**axle_document(), "name": "an axle from elsewhere"},
    }  # fmt: skip


@pytest.fixture
def exported(shop: Shop) -> dict[str, dict[str, Any]]:
    """One document of each kind."""
    return theirs(shop)


def test_there_are_ways_enough() -> None:
    assert len(WAYS) >= 40


def test_undamaged_they_come_in(shop: Shop, other: Shop) -> None:
    for said in theirs(shop).values():
        raw = SimpleUploadedFile("it.json", as_bytes(said))
        assert owner(other).post("/import", {"file": raw}).status_code == 302
    shown(other, owner(other))


@pytest.mark.parametrize("kind", ["job", "tray", "card", "axle"])
def test_damaged_in_every_way(shop: Shop, other: Shop, kind: str) -> None:
    said = theirs(shop)[kind]
    everywhere = list(paths(said))
    chance = random.Random(kind)
    for way in WAYS.values():
        for path in chance.sample(everywhere, min(tries(1, 40), len(everywhere))):
            take_in(other, as_bytes(damaged(said, path, way, chance)))


@pytest.mark.parametrize(
    "name", [[], ["zesty-spindle/card/2"], {}, 2, True, None, "zesty-spindle/card/3"]
)
def test_a_format_that_is_none_is_said_in_one_sentence(name: object) -> None:
    with pytest.raises(Refused, match=r"“format” is .*known: zesty-spindle/"):
        loads(dumps({**document(), "format": name}))


@settings(max_examples=tries(40, 2000), suppress_health_check=list(HealthCheck), derandomize=True)
@given(data=st.data())
def test_damaged_by_chance(exported: Any, other: Shop, data: st.DataObject) -> None:
    said = exported["job"]
    path = data.draw(st.sampled_from(list(paths(said))))
    anything = st.recursive(
        st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=40),
        lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
        max_leaves=8,
    )  # fmt: skip
    take_in(other, as_bytes(damaged(said, path, put(data.draw(anything)), random.Random(0))))


@settings(max_examples=tries(30, 1000), suppress_health_check=list(HealthCheck), derandomize=True)
@given(data=st.data())
def test_damaged_as_text(shop: Shop, other: Shop, data: st.DataObject) -> None:
    raw = bytearray(dumps({**document(), "name": "a card from elsewhere"}).encode())
    for _ in range(data.draw(st.integers(1, 4))):
        at = data.draw(st.integers(0, len(raw) - 1))
        raw[at : at + data.draw(st.integers(0, 3))] = data.draw(st.binary(max_size=3))
    take_in(other, bytes(raw))


def test_what_came_in_goes_out_the_same(shop: Shop, other: Shop) -> None:
    said = theirs(shop)["job"]
    raw = SimpleUploadedFile("it.json", as_bytes(said))
    assert owner(other).post("/import", {"file": raw}).status_code == 302
    job = Job.objects.get(workshop=other.workshop, imported=True)
    again = json.loads(dumps(job_document(job_file(other.workshop, job.pk))))
    assert {**again, "number": 0} == {**said, "number": 0}
