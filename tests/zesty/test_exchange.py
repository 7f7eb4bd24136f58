"""Open formats: out, in and out again is the same; what comes in vouches for nothing here."""

import copy
import io
import json
import zipfile
from typing import Any
from uuid import uuid4

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.test import Client
from jsonschema import Draft202012Validator
from PIL import Image

from tests.wheelend.test_items import demo_cards
from zesty.bench.actions.jobs import open_job
from zesty.bench.models import Entry, Job, Photo, UnitPlace
from zesty.bench.queries.jobfile import job_file
from zesty.cards.actions import new_card
from zesty.cards.models import SpecCard
from zesty.elements.refused import Refused
from zesty.fleet.actions import add_vehicle
from zesty.records.exchange.documents import DEEPEST, dumps, loads
from zesty.records.exchange.formats import schema_of
from zesty.records.exchange.jobs import job_document
from zesty.records.exchange.trays import import_tray, tray_document
from zesty.records.models import SignOff
from zesty.stores.models import Instrument, Shim

from .conftest import Shop, document, text


def send(client: Client, text: str | bytes, path: str = "/import") -> Any:
    raw = text if isinstance(text, bytes) else text.encode()
    return client.post(path, {"file": SimpleUploadedFile("it.json", raw)})


def signed_job(shop: Shop) -> dict[str, Any]:
    shop.trial()
    shop.say("pick", step="open", typed="change")
    shop.trial("0.50, 10 thou", "0", "0.25", "0", "0.25")
    shop.say("pick", step="open", typed="change")
    shop.trial()
    shop.finish()
    shop.sign()
    return json.loads(dumps(job_document(shop.file)))  # type: ignore[no-any-return]


def without_names(said: dict[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in said.items() if key != "number"}


def test_a_job_goes_out_in_and_out_again_the_same(shop: Shop, other: Shop) -> None:
    said = signed_job(shop)
    answer = send(other.client("lead"), dumps(said))
    assert answer.status_code == 302, answer.content.decode()[:600]
    job = Job.objects.get(workshop=other.workshop, imported=True)
    again = json.loads(dumps(job_document(job_file(other.workshop, job.pk))))
    said_cards = [unit.pop("card") for unit in said["units"]]
    again_cards = [unit.pop("card") for unit in again["units"]]
    assert without_names(again) == without_names(said)
    assert again_cards == said_cards


def test_what_comes_in_is_marked_and_vouches_for_nothing(shop: Shop, other: Shop) -> None:
    said = signed_job(shop)
    instruments = Instrument.objects.filter(workshop=other.workshop).count()
    send(other.client("lead"), dumps(said))
    job = Job.objects.get(workshop=other.workshop, imported=True)
    signed = SignOff.objects.get(job=job)
    assert signed.elsewhere
    assert signed.by is None
    assert "signed elsewhere" in signed.sheet_html
    assert set(Entry.objects.filter(job=job).values_list("by", "instrument").distinct()) == {
        (None, None)
    }
    assert Instrument.objects.filter(workshop=other.workshop).count() == instruments
    assert other.client().get(f"/jobs/{job.pk}/sheet.pdf").content[:4] == b"%PDF"


def test_a_job_comes_in_once(shop: Shop, other: Shop) -> None:
    said = dumps(signed_job(shop))
    client = other.client("lead")
    assert send(client, said).status_code == 302
    answer = send(client, said)
    assert answer.status_code == 422
    assert "is here already" in answer.content.decode()


def test_a_namesake_card_stands_beside_ours(shop: Shop, other: Shop) -> None:
    said = signed_job(shop)
    said["units"][0]["card"]["note"] = "another card of the same name"
    send(other.client("lead"), dumps(said))
    names = set(SpecCard.objects.filter(workshop=other.workshop).values_list("name", flat=True))
    assert len(names) == 2
    assert "hub" in names
    assert other.card.versions.count() == 1


def damage(said: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    made = copy.deepcopy(said)
    *way, last = path.split(".")
    at: Any = made
    for word in way:
        at = at[int(word)] if word.isdigit() else at[word]
    if value is None:
        del at[last]
    else:
        at[int(last) if last.isdigit() else last] = value
    return made


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("state", "signed and sealed", "is not one of"),
        ("sign_offs", [], "has no sign-off"),
        ("vehicle.axles", 9000, "is above 9"),
        ("units.0.places.0.axle", 7, "has no axle 7"),
        ("units.0.places.0.station", "moon", "is no station"),
        ("units.0.card.settings", [], "too few"),
        ("entries.0.kind", "rumour", "is not one of"),
        ("entries.0.corrects", 400, "does not stand earlier"),
        ("entries.0.unit", 9, "there is no unit 9"),
        ("entries.3.at", "0001-01-01T00:00:00+00:00", "is not a time"),
        ("entries.3.at", "2026-01-01", "is not a time"),
        ("entries.1.value", "1e99", "is not a number"),
        ("opened_at", None, "is missing"),
        ("colour", "red", "is not a known key"),
        ("format", "zesty-spindle/job", "first format"),
        ("format", "spreadsheet", "known:"),
    ],
)
def test_a_damaged_job_is_refused_in_one_sentence(
    shop: Shop, other: Shop, path: str, value: Any, says: str
) -> None:
    said = damage(signed_job(shop), path, value)
    said["vehicle"]["name"] = "a vehicle of theirs"
    answer = send(other.client("lead"), dumps(said))
    assert answer.status_code == 422
    assert says in answer.content.decode()
    assert not Job.objects.filter(workshop=other.workshop, imported=True).exists()


@pytest.mark.parametrize(
    ("raw", "says"),
    [
        (b"\xff\xfe{\x00", "not UTF-8"),
        (b"{", "is not JSON"),
        (b'{"format": 1, "format": 2}', "twice"),
        (b"[" * (DEEPEST + 1), "nested deeper"),
        (b"[" + b"[]," * 70_000 + b"[]]", "records"),
        (b'"' + b"x" * 5_000_001 + b'"', "MB"),
        (b"[" + b"1," * 260_000 + b"1]", "values"),
        (b'["' + b'[{,\\\\\\"' * 200_000 + b'"]', "known:"),
        (b'{"format": NaN}', "NaN"),
        (b"", "empty"),
    ],
)
def test_what_is_no_document_is_refused_before_anything_is_built(
    shop: Shop, raw: bytes, says: str
) -> None:
    answer = send(shop.client("lead"), raw)
    assert answer.status_code == 422
    assert says in answer.content.decode()


def test_a_tray_goes_out_in_and_out_again(shop: Shop, other: Shop) -> None:
    said = tray_document(shop.workshop)
    Shim.objects.filter(workshop=other.workshop).delete()
    import_tray(other.workshop, loads(dumps(said))[2])
    assert tray_document(other.workshop) == said


@pytest.mark.parametrize(
    ("odd", "shown"),
    [
        ({"kind": "torque_meter", "low": "40 N·m", "accuracy_percent": "4"}, 302),
        ({"kind": "scale", "accuracy_percent": "6"}, 302),
        ({"kind": "torque_meter", "low": "40 N·m", "high": "5 N·m", "accuracy_percent": "4"}, 422),
        ({"kind": "scale", "resolution": "20000 N"}, 422),
        ({"kind": "torque_meter", "resolution": "1 N·m", "doubt": "99999 N·m"}, 422),
    ],
)
def test_what_the_stores_could_not_show_does_not_come_in(
    other: Shop, odd: dict[str, str], shown: int
) -> None:
    said = {**tray_document(other.workshop), "instruments": [{"name": "odd one", **odd}]}
    client = other.client("owner")
    answer = send(client, dumps(said))
    assert answer.status_code == shown
    if shown == 422:
        assert "“odd one”: " in answer.content.decode()
    assert client.get("/tray/").status_code == 200


def test_an_instrument_with_other_figures_is_not_taken_for_ours(shop: Shop, other: Shop) -> None:
    said = tray_document(shop.workshop)
    said["instruments"][0]["resolution"] = "0.5 mm"
    with pytest.raises(Refused, match="other figures"):
        import_tray(other.workshop, loads(dumps(said))[2])


def test_a_card_goes_out_and_in(shop: Shop, other: Shop) -> None:
    exported = shop.client().get(f"/cards/{shop.card.pk}/card.json").content.decode()
    assert json.loads(exported) == document()
    assert send(other.client("lead"), exported).status_code == 422  # the name is taken
    renamed = exported.replace('"name": "hub"', '"name": "hub of theirs"')
    assert send(other.client("lead"), renamed).status_code == 302
    assert SpecCard.objects.filter(workshop=other.workshop, name="hub of theirs").exists()


def test_the_published_schemas_are_current_and_take_what_we_write(shop: Shop) -> None:
    call_command("schemas", check=True)
    for kind, said in (
        ("job", signed_job(shop)),
        ("tray", tray_document(shop.workshop)),
        ("card", document()),
    ):
        assert list(Draft202012Validator(schema_of(kind)).iter_errors(said)) == []


def test_readings_from_a_table_go_through_the_one_writer(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50, 0.10")
    shop.torque()
    shop.dial()
    client = shop.client()
    table = "clock,push,value\n12,in,0\n12,out,0.10\n6,in,0\n6,out,0.10\n"
    path = f"/jobs/{shop.job.pk}/1/readings"
    assert "Every line is sound" in send(client, table, path).content.decode()
    assert client.post(path, {"text": table}).status_code == 302
    assert shop.unit.judgement.is_set
    answer = client.post(path, {"text": table})
    assert answer.status_code == 422
    assert "no reading is due" in answer.content.decode()
    out = client.get(f"/jobs/{shop.job.pk}/readings.csv").content.decode()
    assert out.splitlines()[1].startswith("12,in,0 mm,1,0,1,,")


@pytest.mark.parametrize("cell", ["left", "13", ""])
def test_a_place_that_the_card_does_not_ask_for_is_refused(shop: Shop, cell: str) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    shop.dial()
    answer = shop.client().post(
        f"/jobs/{shop.job.pk}/1/readings", {"text": f"clock,push,value\n{cell},in,0\n"}
    )
    assert answer.status_code == 422
    assert not Entry.objects.filter(step="read").exists()


def test_a_cell_that_a_spreadsheet_would_run_is_made_harmless(shop: Shop) -> None:
    Shim.objects.create(workshop=shop.workshop, nominal="=1+1", nominal_mm="0.7", count=1)
    assert "'=1+1" in shop.client().get("/tray/tray.csv").content.decode()


def photographed(shop: Shop) -> bytes:
    """The archive of a job with one photograph, on a vehicle that nobody else has."""
    shop.vehicle.name = "bin trailer"
    shop.vehicle.save()
    shop.until("marks")
    out = io.BytesIO()
    Image.new("RGB", (640, 480), "orange").save(out, "JPEG")
    sent = {
        "photo": SimpleUploadedFile("a.jpg", out.getvalue()),
        "token": uuid4(),
        "words": "as found",
    }
    assert shop.client().post(f"/jobs/{shop.job.pk}/1/strip/photo", sent).status_code == 302
    return bytes(shop.client().get(f"/jobs/{shop.job.pk}/job.zip").content)


def test_a_job_travels_with_its_photos(shop: Shop, other: Shop) -> None:
    zipped = photographed(shop)
    answer = send(other.client("lead"), zipped)
    assert answer.status_code == 302, text(answer)[-600:]
    kept = Photo.objects.get(workshop=other.workshop)
    assert (kept.width, kept.height) == (640, 480)
    assert kept.entry.typed == "as found"
    client = other.client()
    assert client.get(f"/photos/{kept.entry_id}/small").content[:2] == b"\xff\xd8"
    again = client.get(f"/jobs/{kept.entry.job_id}/job.zip").content
    assert (
        zipfile.ZipFile(io.BytesIO(again)).namelist()
        == zipfile.ZipFile(io.BytesIO(zipped)).namelist()
    )


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"photos/0.jpg": b"x"}, "belongs to no photo"),
        ({"../evil.jpg": b"x"}, "is no photo of a row"),
        ({"photos/99999.jpg": b"x"}, "belongs to no photo"),
        ({"job.json": b"{}"}, "“format” is"),
        ({"job.json": b"\xff\xfe"}, "not UTF-8"),
        ({"job.json": None}, "has no job.json"),
        ({"job.json": b" " * 5_000_001}, "more than 5 MB"),
        ({"photos/{photo}.jpg": b"no picture"}, "no photo that can be read"),
    ],
)
def test_a_damaged_archive_is_refused_whole(
    shop: Shop, other: Shop, change: dict[str, bytes | None], says: str
) -> None:
    found = zipfile.ZipFile(io.BytesIO(photographed(shop)))
    members: dict[str, bytes | None] = {name: found.read(name) for name in found.namelist()}
    photo = next(name for name in members if name.startswith("photos/"))
    members |= {photo if "{" in name else name: data for name, data in change.items()}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        for name, data in members.items():
            if data is not None:
                made.writestr(name, data)
    answer = send(other.client("lead"), out.getvalue())
    assert answer.status_code == 422
    assert says in answer.content.decode()
    assert not Job.objects.filter(workshop=other.workshop, imported=True).exists()


def test_a_zip_that_is_cut_off_is_one_sentence(shop: Shop, other: Shop) -> None:
    answer = send(other.client("lead"), photographed(shop)[:-40])
    assert answer.status_code == 422
    assert "zip can’t be read" in answer.content.decode()


@pytest.mark.parametrize("key", ["mower_tapered", "bearing_pack"])
def test_a_deck_and_a_motorcycle_travel_too(shop: Shop, other: Shop, key: str) -> None:
    kind, deck = ("mower", 3) if key == "mower_tapered" else ("motorcycle", 0)
    vehicle = add_vehicle(shop.workshop, name="of ours", kind=kind, axles=2, deck=deck)
    end = vehicle.wheel_ends.order_by("axle").first()
    card = new_card(shop.workshop, shop.people["lead"], document=demo_cards()[key])
    job = open_job(shop.workshop, shop.people["tech"], [end], card=card, token=uuid4())
    said = json.loads(dumps(job_document(job_file(shop.workshop, job.pk))))
    answer = send(other.client("lead"), dumps(said))
    assert answer.status_code == 302, answer.content.decode()[:600]
    came = Job.objects.get(workshop=other.workshop, imported=True)
    place = UnitPlace.objects.get(unit__job=came)
    assert (place.wheel_end.axle, place.wheel_end.side) == (end.axle, end.side)
    assert came.vehicle.wheel_ends.count() == vehicle.wheel_ends.count()
