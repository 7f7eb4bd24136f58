"""The log's one writer: what it takes, what it refuses, what it never loses or doubles."""

import uuid
from contextlib import nullcontext
from decimal import Decimal

import pytest
from django.db import IntegrityError, connection, transaction
from django.db.utils import DatabaseError

from wheelend.procedure.log import ENTRY_KINDS
from zesty.bench.actions import log
from zesty.bench.actions.log import Held, Say
from zesty.bench.models import Entry
from zesty.cards.models import CardVersion
from zesty.elements.refused import Refused
from zesty.records.actions import sign_off
from zesty.records.models import SignOff

from .conftest import Shop, as_owner, mm


def test_a_row_keeps_what_was_typed_and_what_it_means(shop: Shop) -> None:
    shop.trial("0.50, 0.10", "0", "4 thou", "0", "0,10 mm")
    rows = list(Entry.objects.filter(step="read").order_by("pk"))
    assert [row.typed for row in rows] == ["0 mm", "4 thou", "0 mm", "0,10 mm"]
    assert rows[1].value == Decimal("0.1016")
    assert (rows[0].place, rows[0].aspect, rows[0].by_name) == ("12", "in", "tech of ours")
    assert rows[0].facts["calibration_mm"] == 0.004


def test_the_same_token_counts_once_and_carries_one_thing(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    token = uuid.uuid4()
    first = shop.torque(token=token)
    file = shop.file
    again = Say(step="trial_torque", kind="value", station="main", typed="61 N·m", value=Decimal(61),
                instrument=shop.tool("half-inch wrench"), token=token)  # fmt: skip
    assert log.write(file, file.units[0], shop.people["tech"], again) is file
    other = Say(
        step="trial_torque",
        kind="value",
        station="main",
        typed="70 N·m",
        value=Decimal(70),
        token=token,
    )
    with pytest.raises(Refused, match="sent before as 61 N·m"):
        log.write(file, file.units[0], shop.people["tech"], other)
    assert Entry.objects.filter(step="trial_torque").get() == first


def test_a_place_has_one_root_and_one_successor(shop: Shop) -> None:
    shop.trial()
    row = Entry.objects.filter(step="read").first()
    assert row is not None
    copy = {
        f.name: getattr(row, f.name)
        for f in Entry._meta.fields
        if f.name not in ("id", "token", "corrects")
    }
    with pytest.raises(IntegrityError), transaction.atomic():
        Entry.objects.create(**copy)
    file = log.correct(
        shop.file,
        shop.people["tech"],
        row,
        typed="0.02 mm",
        value=Decimal("0.02"),
        reason="misread",
    )
    assert file.units[0].progress.standing[-1].typed == "0.02 mm"
    with pytest.raises(IntegrityError), transaction.atomic():
        Entry.objects.create(**{**copy, "corrects": row, "reason": "again"})


def test_a_place_that_is_taken_says_by_whom(shop: Shop) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    shop.dial()
    shop.read("0")
    with pytest.raises(Refused, match="tech of ours wrote 0 mm there already"):
        shop.say(
            "in",
            place="12",
            round=1,
            typed="0.01 mm",
            value=Decimal("0.01"),
            instrument=shop.tool("dial"),
        )


def test_taking_back_frees_the_place_and_keeps_the_row(shop: Shop) -> None:
    shop.trial()
    last = shop.file.last_entry
    assert last is not None
    log.take_back(shop.file, shop.people["tech"], last, reason="misread")
    due = shop.unit.progress.due
    assert due is not None
    assert (due.step.id, due.slot.place, due.slot.push) == ("read", "6", "out")
    shop.read("0.12")
    chain = Entry.objects.filter(step="read", place="6", aspect="out").order_by("pk")
    assert [row.kind for row in chain] == ["out", "withdrawn", "out"]
    assert [row.typed for row in chain] == ["0.10 mm", "0.10 mm", "0.12 mm"]


def test_older_rows_are_taken_back_after_the_newer_ones(shop: Shop) -> None:
    shop.trial()
    torque = Entry.objects.get(step="trial_torque")
    with pytest.raises(Refused, match="newer ones first"):
        log.take_back(shop.file, shop.people["tech"], torque, reason="typed wrong")


def test_every_kind_of_last_entry_can_be_taken_back(shop: Shop) -> None:
    shop.trial()
    shop.finish()
    kinds = set()
    while (last := shop.file.last_entry) is not None:
        kinds.add(last.kind)
        log.take_back(shop.file, shop.people["tech"], last, reason="all of it")
    assert {"done", "text", "value", "pick", "pack", "in", "out", "bolt"} <= kinds
    due = shop.unit.progress.due
    assert due is not None
    assert due.step.id == "complaint"


def test_taking_an_opening_back_brings_the_closing_back(shop: Shop) -> None:
    shop.trial()
    entry = shop.say("pick", step="open", typed="change")
    assert shop.unit.progress.setting_closing == 1
    log.take_back(shop.file, shop.people["tech"], entry, reason="pressed by mistake")
    assert shop.unit.progress.setting_closing == 0
    assert shop.unit.judgement.is_set


@pytest.mark.parametrize(
    ("text", "kind"),
    [("18 mm", "in"), ("0.183 mm", "in")],
)
def test_a_slip_is_held_with_a_question(shop: Shop, text: str, kind: str) -> None:
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    shop.dial()
    with pytest.raises(Held) as held:
        shop.say(kind, typed=text, value=mm(text).value, instrument=shop.tool("dial"))
    assert text in held.value.asked.words
    assert not Entry.objects.filter(step="read").exists()
    shop.say(kind, typed=text, value=mm(text).value, instrument=shop.tool("dial"), sure=True)
    assert Entry.objects.get(step="read").typed == text


def test_what_waits_says_for_what(shop: Shop) -> None:
    with pytest.raises(Refused, match="First: chock the wheels"):
        shop.say(step="on_stands")
    with pytest.raises(Refused, match="another part of the work"):
        shop.say(step="lock")


def test_bolts_go_in_their_order(shop: Shop) -> None:
    shop.trial()
    shop.finish(upto="wheel_bolts")
    with pytest.raises(Refused, match="bolt 1 of round 1 is next"):
        shop.say("bolt", place="1.3")
    shop.say("bolt")
    with pytest.raises(Refused, match="asked in the last round"):
        shop.say("moved")


def test_a_place_further_on_than_a_step_is_refused(shop: Shop) -> None:
    shop.trial()
    shop.say("pick", step="open", typed="last")
    shop.until("refit")
    shop.pack("0.50, 0.10")
    shop.torque()
    shop.angle("1 deg")
    with pytest.raises(Refused, match="60 deg between places"):
        shop.angle("60 deg")


def test_only_what_may_be_left_out_is_left_out_and_says_why(shop: Shop) -> None:
    file = shop.file
    unit = file.units[0]
    with pytest.raises(Refused, match="can't be left out"):
        log.skip(
            file, unit, shop.people["tech"], Say(step="chocked", kind="skip", reason="in a hurry")
        )
    shop.until("usage")
    file = shop.file
    log.skip(
        file,
        file.units[0],
        shop.people["tech"],
        Say(step="usage", kind="skip", reason="no counter"),
    )
    row = shop.unit.progress.row("usage", "")
    assert row is not None
    assert row.skipped is not None
    assert row.skipped.reason == "no counter"


def test_the_second_person_has_written_nothing_about_the_unit(shop: Shop) -> None:
    CardVersion.objects.create(
        workshop=shop.workshop, card=shop.card, number=2, made_by=shop.people["lead"],
        document=shop.card.versions.get().document | {"second_person": True},
    )  # fmt: skip
    log_user = shop.people["lead"]
    shop.job.units.update(card_version=shop.card.versions.get(number=2))
    shop.trial()
    shop.finish(upto="second")
    with pytest.raises(Refused, match="second person must be another"):
        shop.say("pick", typed="read", by="tech")
    shop.say("pick", typed="read", by="lead")
    assert shop.unit.statement == "proven"
    file = shop.file
    log.choose(
        file,
        file.units[0],
        log_user,
        what="aim",
        value="loose_end",
        reason="runs hot",
        token=uuid.uuid4(),
    )
    assert shop.unit.statement == "set"


def test_nothing_is_written_in_a_job_that_was_signed(shop: Shop) -> None:
    shop.trial()
    shop.finish()
    with transaction.atomic():
        sign_off(shop.file, shop.people["lead"].membership)
    with pytest.raises(Refused, match="signed off"):
        shop.say("pick", step="open", typed="change")
    entry = shop.file.entries[0]
    with pytest.raises(Refused, match="signed off"):
        log.take_back(shop.file, shop.people["tech"], entry, reason="no")


@pytest.mark.parametrize(
    "table", ["bench_entry", "bench_entryshim", "cards_cardversion", "records_signoff"]
)
@pytest.mark.parametrize("verb", ["update {} set id = id", "delete from {}"])
def test_postgresql_itself_refuses_to_change_what_was_written(
    shop: Shop, table: str, verb: str
) -> None:
    shop.trial()
    shop.finish()
    with transaction.atomic():
        sign_off(shop.file, shop.people["lead"].membership)
    for who, says in ((nullcontext, "permission denied"), (as_owner, "only added to")):
        with (
            who(),
            pytest.raises(DatabaseError, match=says),
            transaction.atomic(),
            connection.cursor() as cursor,
        ):
            cursor.execute(verb.format(table))


@pytest.mark.django_db(transaction=True)
def test_postgresql_refuses_a_reference_into_another_workshop() -> None:
    from .conftest import make_shop  # noqa: PLC0415

    ours, theirs = make_shop("ours"), make_shop("theirs")
    with pytest.raises(IntegrityError), transaction.atomic():
        Entry.objects.create(workshop=ours.workshop, job=theirs.job, step="complaint", kind="text", aspect="answer",
                             typed="x", digest="", by_name="x")  # fmt: skip
    with pytest.raises(IntegrityError), transaction.atomic():
        SignOff.objects.create(workshop=ours.workshop, job=theirs.job, number=1, by_name="x", role="lead",
                               at=theirs.job.opened_at, core_version="1", statement="set", facts={}, sheet_html="")  # fmt: skip


def test_the_vocabulary_is_held_by_the_database(shop: Shop) -> None:
    base = {
        "workshop": shop.workshop,
        "job": shop.job,
        "step": "x",
        "aspect": "answer",
        "digest": "",
        "by_name": "x",
    }
    for kind, more in (("rumour", {}), ("value", {}), ("skip", {}), ("choice", {})):
        with pytest.raises(IntegrityError), transaction.atomic():
            Entry.objects.create(**base, kind=kind, **more)
    assert "withdrawn" in ENTRY_KINDS


def test_a_token_counts_in_its_own_job_and_says_nothing_of_others(shop: Shop, other: Shop) -> None:
    token = uuid.uuid4()
    for one in (shop, other):
        one.until("fit_pack")
        one.pack("0.50")
        one.torque()
        one.dial()
        answer = one.post(one.client(), "read", value="0.01", token=token)
        assert answer.status_code == 302
        assert one.file.entries[-1].typed == "0.01 mm"
