"""Tables: what goes out comes in again the same, and no cell is run by a spreadsheet."""

import csv
import io
import uuid
from datetime import date
from decimal import Decimal
from typing import Any

import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from wheelend.quantity import LENGTH, TORQUE, is_quantity
from zesty.bench.actions.log import mark
from zesty.elements.typed import Typed
from zesty.records.exchange import tables
from zesty.records.exchange.documents import dumps, loads
from zesty.records.exchange.trays import import_tray, tray_document
from zesty.stores.actions import Count, Papers, add_instrument, put_counts
from zesty.stores.models import Shim

from .conftest import Shop, axle_document, make_shop, mm

RUNS = ("=1+1", "+1+1", "-1+1", "-2+3+cmd|' /C calc'!A0", "-.5+1", "@SUM(A1)", "\t=1", "\r=1", "|calc",
        " =1+1", "＝1", "−1−1", "+5 mm", "-1 mm;=2", "--1")  # fmt: skip
STAYS = (
    "-0.1 mm",
    "0.1 mm",
    "-5",
    "4 thou",
    "-1-1/8 in",
    "1/64 in",
    "word",
    "",
    "12:30",
    "2026-01-01",
)


@pytest.mark.parametrize("cell", RUNS)
def test_a_cell_that_would_run_is_text(cell: str) -> None:
    assert tables._plain(cell) == f"'{cell}"
    assert tables._bare(tables._plain(cell)) == cell


@pytest.mark.parametrize("cell", STAYS)
def test_a_plain_cell_stays(cell: str) -> None:
    assert tables._plain(cell) == cell


@example("'=")
@example("''-5 mm")
@given(st.text(max_size=30))
def test_no_text_at_all_begins_a_formula(cell: str) -> None:
    out = tables._plain(cell)
    assert out[:1] not in ("=", "@", "+", "|", "\t", "\r") or is_quantity(out)
    assert out[:1] != "-" or is_quantity(out)
    assert tables._bare(out) == cell


shims = st.lists(
    st.tuples(
        st.decimals("0.001", "20", places=3).map(lambda one: f"{one} mm")
        | st.integers(1, 700).map(lambda one: f"{one} thou"),
        st.none() | st.decimals("0.001", "20", places=3).map(lambda one: f"{one} mm"),
        st.integers(0, 999),
    ),
    max_size=8,
    unique_by=lambda one: (mm(one[0]).value, mm(one[1]).value if one[1] else None),
)
OFTEN = settings(max_examples=40, suppress_health_check=list(HealthCheck))


def fill(shop: Shop, tray: list[tuple[str, str | None, int]]) -> None:
    Shim.objects.filter(workshop=shop.workshop).delete()
    counts = [Count(mm(one), mm(two) if two else None, count) for one, two, count in tray]
    put_counts(shop.workshop, counts)


@OFTEN
@given(tray=shims)
def test_a_tray_comes_back(
    shop: Shop, other: Shop, tray: list[tuple[str, str | None, int]]
) -> None:
    fill(shop, tray)
    Shim.objects.filter(workshop=other.workshop).delete()
    table = tables.tray_csv(shop.workshop)
    if tray:
        tables.save_tray(other.workshop, tables.read_tray(table))
    assert tables.tray_csv(other.workshop) == table
    Shim.objects.filter(workshop=other.workshop).delete()
    import_tray(
        other.workshop, {**loads(dumps(tray_document(shop.workshop)))[2], "instruments": []}
    )
    assert tray_document(other.workshop)["shims"] == tray_document(shop.workshop)["shims"]


@OFTEN
@given(
    accuracy=st.decimals("0.1", "50", places=1), multiplier=st.decimals("1", "1000", places=2),
    low=st.integers(1, 100), step=st.decimals("0.001", "1", places=3), doubt=st.booleans(),
)  # fmt: skip
def test_an_instrument_comes_back(
    shop: Shop, other: Shop, accuracy: Decimal, multiplier: Decimal, low: int, step: Decimal,
    doubt: bool,
) -> None:  # fmt: skip
    fresh = uuid.uuid4().hex[:12]
    papers = Papers(date(2026, 3, 1), "C-1", mm("0.002")) if doubt else None
    add_instrument(
        shop.workshop, kind="wrench", name=f"w {fresh}", low=Typed.read(f"{low} N·m", TORQUE),
        high=Typed.read(f"{low + 50} N·m", TORQUE), accuracy_percent=accuracy,
        multiplier=multiplier,
    )  # fmt: skip
    add_instrument(
        shop.workshop, kind="dial", name=f"d {fresh}", papers=papers,
        resolution=Typed.read(f"{step} mm", LENGTH),
    )  # fmt: skip
    said = [one for one in tray_document(shop.workshop)["instruments"] if fresh in one["name"]]
    assert len(said) == 2
    document = {"format": "zesty-spindle/tray/2", "shims": [], "instruments": said}
    import_tray(other.workshop, loads(dumps(document))[2])
    again = [one for one in tray_document(other.workshop)["instruments"] if fresh in one["name"]]
    assert again == said


def columns(table: str) -> list[list[str]]:
    return [row[:3] for row in csv.reader(io.StringIO(table))]


def at_the_dial(workshop: str, **card: Any) -> Shop:
    """A workshop whose job waits for its first reading."""
    made = make_shop(workshop, **card)
    made.until("fit_pack")
    made.pack("0.50")
    for _ in range(200):
        due = made.unit.progress.due
        assert due
        if due.step.entry == "series":
            break
        acts = {"torque": made.torque, "dial": made.dial, "pack": lambda: made.pack("0.10")}
        acts.get(due.step.entry, made.say)(*(["bolt"] if due.step.entry == "bolts" else []))
    return made


AXLE = {key: value for key, value in axle_document().items() if key != "name"}


@pytest.mark.parametrize("card", [{}, AXLE], ids=["hub", "axle"])
def test_readings_come_back(db: None, card: dict[str, Any]) -> None:
    ours, theirs = at_the_dial("ours", **card), at_the_dial("theirs", **card)
    ours.read("-0.02", "0.05", "0", "0.07")
    table = ours.client().get(f"/jobs/{ours.job.pk}/readings.csv").content.decode()
    answer = theirs.client().post(f"/jobs/{theirs.job.pk}/1/readings", {"text": table})
    assert answer.status_code == 302, answer.content.decode()
    again = theirs.client().get(f"/jobs/{theirs.job.pk}/readings.csv").content.decode()
    assert columns(again) == columns(table)
    assert len(columns(table)) == 5


def test_of_several_series_the_last_comes_back(shop: Shop) -> None:
    shop.trial("0.50", "0", "0.20", "0", "0.20")
    shop.say("pick", step="open", typed="change")
    shop.trial("0.50, 0.10", "0", "0.30", "0", "0.30")
    lines = tables.read_readings(tables.readings_csv(shop.file), "mm")
    assert [line.cells["value"] for line in lines] == ["0 mm", "0.30 mm", "0 mm", "0.30 mm"]


def test_a_table_of_too_many_lines_is_refused_before_it_is_read() -> None:
    with pytest.raises(Exception, match="more than 5000 lines"):
        tables.read_tray("nominal,measured,count\n" + "0.1 mm,,1\n" * 6000)
    with pytest.raises(Exception, match="more than 5000 lines"):
        tables.read_tray("nominal,measured,count\n" + "\n" * 1_000_000)


def test_places_that_were_read_again_come_back_asked_for_or_not(db: None) -> None:
    ours, theirs = at_the_dial("ours"), at_the_dial("theirs")
    ours.read("0", "0.10", "0", "0.17", "0", "0.10")
    first = ours.unit.progress.row("read", "")
    assert first is not None
    series = first.at
    mark(
        ours.file, ours.unit, ours.people["tech"], step="read", closing=series.closing, number=1,
        kind="again", place="12 again", reason="do not add up", token=uuid.uuid4(),
    )  # fmt: skip
    ours.read("0", "0.11")
    table = ours.client().get(f"/jobs/{ours.job.pk}/readings.csv").content.decode()
    assert "6 again" in table
    assert "12 again" in table
    answer = theirs.client().post(f"/jobs/{theirs.job.pk}/1/readings", {"text": table})
    assert answer.status_code == 302, answer.content.decode()
    again = theirs.client().get(f"/jobs/{theirs.job.pk}/readings.csv").content.decode()
    assert columns(again) == columns(table)
