"""Open formats: out of one workshop, into another, out again: the same text."""

import io
import json
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.test import Client

from zesty.bench import actions as bench
from zesty.bench.models import Job, Reading
from zesty.bench.queries.jobfile import job_file
from zesty.cards.models import SpecCard
from zesty.people.models import User, Workshop
from zesty.records.actions import check, reopen_job, sign_off
from zesty.records.exchange.documents import dumps, loads
from zesty.records.exchange.jobs import job_document
from zesty.stores.models import Shim

from .conftest import Shop
from .test_records import asks_for_a_second_person, finish, lock, pdf_text


def upload(client: Client, path: str, text: str) -> Any:
    file = SimpleUploadedFile("document", text.encode())
    return client.post(path, {"file": file})


def export(client: Client, path: str) -> str:
    answer = client.get(path)
    assert "attachment" in answer["Content-Disposition"]
    return str(answer.content.decode())


def a_full_job(shop: Shop) -> None:
    """A job with a row of every kind in it."""
    asks_for_a_second_person(shop)
    finish(shop)
    old = shop.one("3", "in", "1.5 thou", 2)
    bench.take_back(shop.job, shop.tech, old, reason="slip")
    bench.set_aside(shop.job, shop.tech, trial=1, aside=True, reason="dirt")
    bench.choose(shop.job, shop.tech, what="aim", value="low", reason="runs cold")
    lock(shop)
    check(shop.job.pk, shop.people["lead"].membership)
    sign_off(shop.job.pk, shop.tech.membership)
    reopen_job(shop.job.pk, shop.people["lead"].membership, reason="warm")
    sign_off(shop.job.pk, shop.tech.membership)


def test_a_job_comes_into_another_workshop_without_loss(shop: Shop, other: Shop) -> None:
    a_full_job(shop)
    other.job.delete()
    other.card.delete()
    first = export(shop.client("lead"), f"/jobs/{shop.job.pk}/job.json")
    answer = upload(other.client("lead"), "/import", first)
    assert answer.status_code == 302, answer.content.decode()
    came = Job.objects.get(workshop=other.workshop)
    assert export(other.client("lead"), f"/jobs/{came.pk}/job.json") == first
    ours, theirs = (
        pdf_text(s.client().get(f"/jobs/{job.pk}/sheet.pdf").content)
        for s, job in ((shop, shop.job), (other, came))
    )
    assert ours == theirs


def test_every_demo_job_survives_the_journey(db: None) -> None:
    call_command("load_demo")
    here = Workshop.objects.get(name__startswith="Citrus")
    there = Workshop.objects.get(name__startswith="Neighbour")
    client = Client()
    client.post("/demo/neighbour")
    for job in here.job_set.exclude(number=1).order_by("number"):
        text = dumps(job_document(job_file(here, job.pk)))
        assert upload(client, "/import", text).status_code == 302
        came = there.job_set.get(number=job.number)
        assert dumps(job_document(job_file(there, came.pk))) == text


def test_a_taken_number_gives_way_and_names_give_nobody_access(shop: Shop, other: Shop) -> None:
    shop.trial()
    text = export(shop.client(), f"/jobs/{shop.job.pk}/job.json").replace('"trailer"', '"van"', 1)
    document = json.loads(text)
    document["vehicle"]["name"] = "another trailer"
    document["card"]["name"] = "another card"
    assert upload(other.client("lead"), "/import", dumps(document)).status_code == 302
    came = Job.objects.filter(workshop=other.workshop).first()
    assert came.number == 2
    assert str(came.opened_by) == "tech of ours"
    assert came.opened_by != shop.tech
    assert not came.opened_by.is_active
    assert not hasattr(came.opened_by, "membership")


def test_cards_and_trays_make_the_same_journey(shop: Shop, other: Shop) -> None:
    other.job.delete()
    other.card.delete()
    Shim.objects.filter(workshop=other.workshop).delete()
    client, there = shop.client("lead"), other.client("lead")
    card = export(client, f"/cards/{shop.card.pk}/card.json")
    assert upload(there, "/import", card).status_code == 302
    came = SpecCard.objects.get(workshop=other.workshop)
    assert export(there, f"/cards/{came.pk}/card.json") == card
    assert "already; rename" in upload(there, "/import", card).content.decode()
    tray = export(client, "/tray/tray.json")
    for _ in range(2):
        assert upload(there, "/import", tray).status_code == 302
        assert export(there, "/tray/tray.json") == tray


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda d: d.update(format="other/job"), "“format” is"),
        (lambda d: d.update(version=2), "version: 1 was expected"),
        (lambda d: d.pop("trials"), "required property"),
        (lambda d: d.update(colour="red"), "colour"),
        (lambda d: d["trials"][0]["readings"][0].update(typed="0.1 kg"), "is not a length"),
        (
            lambda d: d["trials"][0]["readings"][0].update(corrects=5),
            "corrects one that comes after",
        ),
        (lambda d: d["trials"][0].update(gauge="nobody's"), "is used and not listed"),
        (lambda d: d.update(opened_at="yesterday"), "is not a time"),
        (lambda d: d.update(opened_at="2026-01-01T00:00:00"), "has no time zone"),
        (lambda d: d["card"]["version"]["says"].update(high="9 mm"), "says something else here"),
        (lambda d: d.update(number=10**12), "maximum"),
        (lambda d: d["trials"][0]["readings"][0].update(clock="99"), "is not a clock position"),
        (lambda d: d["trials"][0]["readings"][0].update(typed="1e12 mm"), "is too large"),
        (lambda d: d["trials"].append(d["trials"][0]), "contradicts itself"),
        (lambda d: d["trials"][0]["readings"][0].update(typed=""), "contradicts itself"),
        (lambda d: d["trials"][0]["readings"][0].update(by="a\u0000b"), "contradicts itself"),
        (
            lambda d: d["choices"].append(
                {"what": "aim", "value": "up", "reason": "x", "by": "a", "at": d["opened_at"]}
            ),
            "is not an aim",
        ),
        (
            lambda d: d["take_ins"].append(
                {
                    "complaint": "x",
                    "made_safe": True,
                    "by": "a",
                    "at": d["opened_at"],
                    "usage": {"on": "2026-13-01", "typed": "1 km", "by": "a"},
                }
            ),
            "is not a day",
        ),
        (
            lambda d: (
                d["card"].update(name="new"),
                d["card"]["version"]["says"].update(clocks="13"),
            ),
            "is not a clock position",
        ),
        (
            lambda d: (
                d["card"].update(name="new"),
                d["card"]["version"]["says"].update(high="0.01 mm"),
            ),
            "swap them",
        ),
        (
            lambda d: (d["card"].update(name="new"), d["card"]["version"]["stack"].pop(2)),
            "needs one part",
        ),
    ],
)
def test_a_document_that_does_not_fit_saves_nothing(shop: Shop, change: Any, says: str) -> None:
    shop.trial()
    shop.read(("0.00", "0.10"))
    client = shop.client("lead")
    document = json.loads(export(client, f"/jobs/{shop.job.pk}/job.json"))
    document["wheel_end"]["side"] = "right"
    change(document)
    answer = upload(client, "/import", json.dumps(document))
    assert answer.status_code == 422
    assert says in answer.content.decode().replace("&#x27;", "'")
    assert Job.objects.filter(workshop=shop.workshop).count() == 1


@pytest.mark.parametrize(
    "text", ["", "[]", "{", "[" * 5000, "null", '{"format": "zesty-spindle/plan"}']
)
def test_what_is_no_document_is_refused_in_words(shop: Shop, text: str) -> None:
    answer = upload(shop.client("lead"), "/import", text)
    assert answer.status_code == 422
    assert 'class="error"' in answer.content.decode()


def test_the_schemas_hold_what_is_exported(shop: Shop) -> None:
    client = shop.client("lead")
    shop.trial()
    for path in (
        f"/jobs/{shop.job.pk}/job.json",
        f"/cards/{shop.card.pk}/card.json",
        "/tray/tray.json",
    ):
        kind, document = loads(export(client, path))
        assert document["format"] == f"zesty-spindle/{kind}"


def test_a_tray_as_csv_both_ways(shop: Shop, other: Shop) -> None:
    Shim.objects.filter(workshop=other.workshop).delete()
    table = export(shop.client(), "/tray/tray.csv")
    there = other.client()
    seen = upload(there, "/tray/import", table)
    assert seen.status_code == 200
    assert "Every line is sound" in seen.content.decode()
    assert not Shim.objects.filter(workshop=other.workshop).exists()
    assert there.post("/tray/import", {"text": table}).status_code == 302
    assert export(there, "/tray/tray.csv") == table


def test_each_faulty_line_is_named_before_anything_is_saved(shop: Shop) -> None:
    table = "nominal,measured,count\n0.10 mm,,3\n0.1 kg,,1\n0.2 mm,,-1\n\n0.3,,2\n"
    client = shop.client()
    before = export(client, "/tray/tray.csv")
    seen = upload(client, "/tray/import", table)
    page = seen.content.decode()
    assert seen.status_code == 422
    assert "is not a length" in page
    assert "“-1” is not a whole number from 0 to 999" in page
    assert "Save" not in page
    assert client.post("/tray/import", {"text": table}).status_code == 422
    assert export(client, "/tray/tray.csv") == before
    missing = upload(client, "/tray/import", "thickness\n1\n")
    assert "missing: nominal, measured, count" in missing.content.decode()


def test_readings_as_csv_go_into_the_trial_on_the_dial(shop: Shop) -> None:
    client, path = shop.client(), f"/jobs/{shop.job.pk}/readings"
    table = "clock,push,value\n12,in,0.00\n12,out,4 thou\n"
    assert "begin a trial" in client.post(path, {"text": table}).content.decode()
    shop.trial()
    assert "Every line is sound" in upload(client, path, table).content.decode()
    assert client.post(path, {"text": table}).status_code == 302
    assert [row.typed for row in Reading.objects.all()] == ["0.00 mm", "4 thou"]
    again = client.post(path, {"text": table})
    assert "already" in again.content.decode()
    wrong = upload(client, path, "clock,push,value\n13,in,1\n6,up,1\n6,in,x\n3,in,1\n3,in,1\n")
    page = wrong.content.decode()
    for said in ("is not a clock position", "is not in or out", "is not a length", "a place twice"):
        assert said in page
    assert export(client, f"/jobs/{shop.job.pk}/readings.csv").count("\n") == 3


def test_a_spreadsheet_takes_no_cell_for_a_formula(shop: Shop) -> None:
    shop.trial()
    shop.one("12", "in", "-0.01")
    evil = User.objects.create_user("=cmd()")
    Reading.objects.update(by=evil)
    table = export(shop.client(), f"/jobs/{shop.job.pk}/readings.csv")
    assert "'=cmd()" in table
    assert ",-0.01 mm," in table


def test_a_file_that_is_not_text_is_refused(shop: Shop) -> None:
    file = io.BytesIO(b"\xff\xfe\x00")
    file.name = "x"
    answer = shop.client("lead").post("/import", {"file": file})
    assert "not UTF-8" in answer.content.decode()
