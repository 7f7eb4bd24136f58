"""Papers of gauges and wrenches: entries, never overwritten, confirmed by a lead."""

from datetime import date, timedelta
from decimal import Decimal
from typing import Any

import pytest
from django.db import IntegrityError, ProgrammingError, transaction

from wheelend.procedure.log import Instrument as CoreInstrument
from wheelend.verdict import Gauge
from zesty.records.exchange.documents import dumps, loads
from zesty.records.exchange.trays import import_tray, instrument_content, tray_document
from zesty.stores.models import Calibration, Instrument
from zesty.stores.queries import facts_of, instruments_of

from .conftest import Shop, as_owner, text

TODAY = date.today()


def calibrated(shop: Shop, role: str, on: date, name: str = "half-inch wrench", **more: str) -> Any:
    tool = shop.tool(name)
    said = {"instrument_id": tool.pk, "on": on.isoformat(), **more}
    return shop.client(role).post("/tray/calibrated", said)


def facts(shop: Shop, name: str = "half-inch wrench") -> dict[str, Any]:
    return facts_of(next(t for t in instruments_of(shop.workshop) if t.name == name), TODAY)


def test_a_technician_reports_and_a_lead_confirms(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    assert facts(shop, "dial")["calibration_mm"] == 0.004
    assert (
        calibrated(shop, "tech", TODAY, "dial", certificate="C-17", doubt="0.002 mm").status_code
        == 302
    )
    assert facts(shop, "dial")["calibration_mm"] == 0.004
    page = shop.client("lead").get("/tray/").content.decode()
    assert "tech of ours reported it calibrated" in page
    assert "certificate C-17" in page
    report = Calibration.objects.get(reported=True)
    assert (
        shop.client("tech").post("/tray/confirmed", {"calibration_id": report.pk}).status_code
        == 403
    )
    assert (
        shop.client("lead").post("/tray/confirmed", {"calibration_id": report.pk}).status_code
        == 302
    )
    assert facts(shop, "dial")["calibration_mm"] == 0.002
    assert "reported it" not in shop.client("lead").get("/tray/").content.decode()


def test_cycles_count_from_the_papers_that_count(shop: Shop) -> None:
    Instrument.objects.filter(name="half-inch wrench").update(cycles=4900)
    calibrated(shop, "tech", TODAY)
    assert facts(shop)["cycles"] == 4900
    report = Calibration.objects.get(reported=True)
    shop.client("owner").post("/tray/confirmed", {"calibration_id": report.pk})
    assert facts(shop)["cycles"] == 0


@pytest.mark.parametrize(
    ("days", "more", "says"),
    [(1, {}, "has not come yet"), (-3, {}, "say why an earlier day holds"), (0, {"doubt": "-1"}, "is not between 0 and")],
)  # fmt: skip
def test_a_day_that_cannot_be_is_refused(
    shop: Shop, days: int, more: dict[str, str], says: str
) -> None:
    before = Calibration.objects.count()
    answer = calibrated(shop, "lead", TODAY + timedelta(days=days), certificate="C-9", **more)
    assert answer.status_code == 422
    assert says in answer.content.decode()
    assert 'value="C-9"' in answer.content.decode()
    assert Calibration.objects.count() == before


def test_an_earlier_day_rules_with_its_reason(shop: Shop) -> None:
    earlier = TODAY - timedelta(days=200)
    assert calibrated(shop, "lead", earlier, reason="the year was mistyped").status_code == 302
    assert facts(shop)["calibrated_on"] == earlier.isoformat()
    assert Calibration.objects.filter(instrument__name="half-inch wrench").count() == 2


def test_a_job_keeps_what_was_true_when_it_was_read(shop: Shop) -> None:
    shop.trial()
    read = next(row for row in shop.file.entries if row.kind == "out")
    calibrated(shop, "lead", TODAY, "dial", doubt="0.009 mm")
    again = next(row for row in shop.file.entries if row.kind == "out")
    assert again.facts == read.facts
    assert again.facts["calibration_mm"] == 0.004


def test_papers_are_only_added_to(shop: Shop) -> None:
    one = Calibration.objects.first()
    assert one
    for act in (one.delete, lambda: Calibration.objects.update(on=TODAY)):
        with pytest.raises(ProgrammingError, match="permission denied"), transaction.atomic():
            act()
        with as_owner(), pytest.raises(IntegrityError), transaction.atomic():
            act()


def test_nobody_confirms_their_own_report(shop: Shop) -> None:
    calibrated(shop, "tech", TODAY)
    report = Calibration.objects.get(reported=True)
    member = shop.people["tech"].membership
    member.role = "lead"
    member.save()
    answer = shop.client("tech").post("/tray/confirmed", {"calibration_id": report.pk})
    assert "You reported it yourself" in answer.content.decode()


def test_a_new_wrench_of_a_technician_waits_for_its_papers(shop: Shop) -> None:
    said = {"name": "small wrench", "low": "5", "high": "25", "accuracy_percent": Decimal(4),
            "multiplier": 1, "calibrated_on": TODAY}  # fmt: skip
    assert shop.client("tech").post("/tray/wrenches", said).status_code == 302
    assert facts(shop, "small wrench")["calibrated_on"] == "1970-01-01"


def add_meter(shop: Shop, **said: str) -> Any:
    sent = {"kind": "torque_meter", "name": "dial torque meter", "resolution": "0.05", **said}
    return shop.client("lead").post("/tray/meters", sent)


def test_a_torque_meter_and_a_scale_are_added_with_step_and_papers(shop: Shop) -> None:
    answer = add_meter(shop, doubt="0.03 N·m", calibrated_on=str(TODAY))
    assert answer.status_code == 302
    answer = add_meter(shop, kind="scale", name="spring scale", resolution="50 g")
    assert answer.status_code == 422, "grams are no force"
    answer = add_meter(shop, kind="scale", name="spring scale", resolution="0.5")
    assert answer.status_code == 302
    shown = text(shop.client("lead").get("/tray/"))
    assert "step 0.05 N·m" in shown
    assert "certificate ± 0.03 N·m" in shown
    meter = next(one for one in instruments_of(shop.workshop) if one.kind == "torque_meter")
    facts = facts_of(meter, TODAY)
    assert (facts["step"], facts["doubt"]) == (0.05, 0.03)
    assert "resolution_mm" not in facts
    assert CoreInstrument(meter.name, facts).meter == Gauge(0.05, 0.03)


@pytest.mark.parametrize(
    ("said", "says"),
    [
        ({"resolution": ""}, "Give the smallest step that it shows"),
        ({"resolution": "0.05 mm"}, "is not a torque"),
        ({"doubt": "0.03"}, "A certificate has a day"),
        ({"kind": "thermometer"}, "only its name and its check are kept"),
        ({"name": "dial"}, "give another name"),
        ({"kind": "hammer"}, "hammer is not one of the available choices"),
    ],
)
def test_a_meter_that_cannot_be_is_refused_and_what_was_typed_stays(
    shop: Shop, said: dict[str, str], says: str
) -> None:
    answer = add_meter(shop, **said)
    assert answer.status_code == 422
    assert says in text(answer)
    assert said.get("name", "dial torque meter") in answer.content.decode()
    assert not Instrument.objects.filter(kind="torque_meter").exists()


def test_a_meter_comes_back_from_calibration_with_its_own_doubt(shop: Shop) -> None:
    add_meter(shop)
    meter = Instrument.objects.get(kind="torque_meter")
    sent = {"instrument_id": meter.pk, "on": str(TODAY), "certificate": "C-7", "doubt": "0.02 mm"}
    answer = shop.client("lead").post("/tray/calibrated", sent)
    assert answer.status_code == 422
    assert "is not a torque" in text(answer)
    assert shop.client("lead").post("/tray/calibrated", sent | {"doubt": "0.02"}).status_code == 302
    found = next(one for one in instruments_of(shop.workshop) if one.pk == meter.pk)
    assert facts_of(found, TODAY)["doubt"] == 0.02
    content = instrument_content(found)
    assert content["doubt"] == "0.02 N·m"
    assert content["resolution"] == "0.05 N·m"


def test_a_meter_goes_out_and_comes_in_as_it_was(shop: Shop, other: Shop) -> None:
    add_meter(shop, doubt="0.03 N·m", calibrated_on=str(TODAY))
    here_all = tray_document(shop.workshop)
    instruments = [one for one in here_all["instruments"] if one["kind"] == "torque_meter"]
    import_tray(other.workshop, loads(dumps({**here_all, "instruments": instruments}))[2])
    there = next(one for one in instruments_of(other.workshop) if one.kind == "torque_meter")
    here = next(one for one in instruments_of(shop.workshop) if one.kind == "torque_meter")
    assert instrument_content(there) == instrument_content(here)
