"""Close, sign-off and the sheet."""

import io
import uuid
from datetime import date
from decimal import Decimal
from typing import Any

import pytest
from django.utils import timezone
from pypdf import PdfReader

from zesty.bench import actions as bench
from zesty.elements.refused import Refused
from zesty.records.actions import check, reopen_job, sign_off
from zesty.records.models import SignOff
from zesty.stores.actions import add_wrench, calibrate
from zesty.stores.models import Wrench

from .conftest import Shop, mm, torque


def pdf_text(content: bytes) -> str:
    pages = PdfReader(io.BytesIO(content)).pages
    return " ".join(" ".join(page.extract_text().split()) for page in pages)


def wrench(shop: Shop, calibrated: date | None = None) -> Wrench:
    return add_wrench(
        shop.workshop, name=f"wrench {Wrench.objects.count()}", low=torque("40 N·m"), high=torque("200 N·m"),
        accuracy_percent=Decimal(4), calibrated_on=calibrated or timezone.localdate(), multiplier=Decimal(1),
    )  # fmt: skip


def lock(shop: Shop, reached: str = "61 N·m", *, done: bool = True, **more: Any) -> None:
    more.setdefault("wrench", wrench(shop))
    bench.record_lock(
        shop.job,
        shop.tech,
        torque=torque(reached),
        lock="pin",
        done=done,
        note="",
        token=uuid.uuid4(),
        **more,
    )


def finish(shop: Shop) -> None:
    """Everything that makes a setting proven."""
    bench.take_in(shop.job, shop.tech, complaint="It wobbles.", usage=None, made_safe=True)
    shop.trial("0.50, 0.10")
    shop.read(("0.00", "0.10"), ("0.00", "0.11"))
    lock(shop)
    shop.trial("0.50, 0.10")
    shop.read(("0.00", "0.10"), ("0.00", "0.10"))


def open_claims(signed: SignOff) -> set[str]:
    return {claim["key"] for claim in signed.facts["claims"] if not claim["proven"]}


def test_proven_when_every_claim_stands_on_a_fact(shop: Shop) -> None:
    finish(shop)
    signed = sign_off(shop.job.pk, shop.people["lead"].membership)
    assert (signed.statement, open_claims(signed)) == ("proven", set())
    assert signed.facts["verdict"] == "within"
    shop.job.refresh_from_db()
    assert shop.job.closed_at is not None


def test_not_read_after_the_lock_is_set_not_proven(shop: Shop) -> None:
    bench.take_in(shop.job, shop.tech, complaint="x", usage=None, made_safe=True)
    shop.trial()
    shop.read(("0.00", "0.10"), ("0.00", "0.10"))
    lock(shop)
    signed = sign_off(shop.job.pk, shop.tech.membership)
    assert (signed.statement, open_claims(signed)) == ("set", {"after_lock"})


def test_outside_the_limits_or_off_torque_is_never_proven(shop: Shop) -> None:
    shop.trial()
    shop.read(("0.00", "0.30"), ("0.00", "0.30"))
    lock(shop, "50 N·m")
    signed = sign_off(shop.job.pk, shop.tech.membership)
    assert signed.statement == "set"
    assert open_claims(signed) == {"safe", "end_play", "torque", "after_lock"}


def test_without_a_source_it_is_unsourced(shop: Shop) -> None:
    version = shop.job.card_version
    version.source_kind, version.source = "unsourced", "asked the dealer"
    version.save()
    finish(shop)
    assert sign_off(shop.job.pk, shop.tech.membership).statement == "unsourced"


@pytest.mark.parametrize("upto", ["nothing", "read", "unlocked"])
def test_nothing_to_sign_is_refused_and_stays_open(shop: Shop, upto: str) -> None:
    if upto != "nothing":
        shop.trial()
        shop.read(("0.00", "0.10"), ("0.00", "0.10"))
    if upto == "unlocked":
        lock(shop, done=False)
    with pytest.raises(Refused, match="Not ready to sign"):
        sign_off(shop.job.pk, shop.tech.membership)
    shop.job.refresh_from_db()
    assert shop.job.closed_at is None
    page = shop.client().get(f"/jobs/{shop.job.pk}/close").content.decode()
    assert "Not ready to sign" in page


def test_a_closed_job_takes_nothing_more(shop: Shop) -> None:
    finish(shop)
    sign_off(shop.job.pk, shop.tech.membership)
    with pytest.raises(Refused, match="signed off"):
        shop.trial("0.10")
    with pytest.raises(Refused, match="signed off"):
        sign_off(shop.job.pk, shop.tech.membership)
    page = shop.client().get(f"/jobs/{shop.job.pk}/set").content.decode()
    assert "read only" in page


def test_the_sheet_says_all_of_it(shop: Shop) -> None:
    finish(shop)
    bench.choose(shop.job, shop.tech, what="aim", value="high", reason="runs hot")
    sign_off(shop.job.pk, shop.people["lead"].membership)
    answer = shop.client("desk").get(f"/jobs/{shop.job.pk}/sheet.pdf")
    assert answer["Content-Type"] == "application/pdf"
    text = pdf_text(answer.content)
    for said in (
        "trailer, axle 1 left", "proven", "Sheet 1 (invented)", "It wobbles.", "0.10 mm", "3.9 thou",
        "61 N·m (45 lbf·ft)", "0.50 + 0.10", "12 in 0.00 mm", "dial, step 0.01 mm", "runs hot",
        "lead of ours (lead)", "local rules come first", "inner bearing",
    ):  # fmt: skip
        assert said in text, said


def test_a_signed_sheet_prints_the_same_for_ever(shop: Shop) -> None:
    finish(shop)
    signed = sign_off(shop.job.pk, shop.tech.membership)
    path = f"/jobs/{shop.job.pk}/sheet.pdf"
    before = pdf_text(shop.client().get(path).content)
    shop.vehicle.name = "renamed"
    shop.vehicle.save()
    shop.gauge.name = "another"
    shop.gauge.save()
    assert pdf_text(shop.client().get(path).content) == before
    assert signed.core_version in before


def test_before_it_is_signed_the_sheet_is_a_draft(shop: Shop) -> None:
    shop.trial()
    text = pdf_text(shop.client().get(f"/jobs/{shop.job.pk}/sheet.pdf").content)
    assert "draft, not signed" in text


def test_a_correction_stands_on_the_sheet(shop: Shop) -> None:
    shop.trial()
    old = shop.one("12", "in", "0.07")
    bench.correct(shop.job, shop.tech, old, value=mm("0.01"), reason="needle jumped")
    text = pdf_text(shop.client().get(f"/jobs/{shop.job.pk}/sheet.pdf").content)
    assert "0.07 mm became 0.01 mm: needle jumped" in text


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"wrench": None}, "no wrench named"),
        ({"lengthened": True}, "a tube on the handle voids its scale"),
    ],
)
def test_a_torque_is_worth_what_its_wrench_is(
    shop: Shop, changes: dict[str, Any], says: str
) -> None:
    finish(shop)
    lock(shop, **changes)
    shop.trial("0.50, 0.10")
    shop.read(("0.00", "0.10"), ("0.00", "0.10"))
    signed = sign_off(shop.job.pk, shop.tech.membership)
    assert (signed.statement, open_claims(signed)) == ("set", {"wrench"})
    assert says in next(c["fact"] for c in signed.facts["claims"] if c["key"] == "wrench")


def test_a_wrench_out_of_calibration_lowers_the_claim_even_if_calibrated_later(shop: Shop) -> None:
    finish(shop)
    old = wrench(shop, date(2020, 1, 1))
    lock(shop, wrench=old)
    shop.trial("0.50, 0.10")
    shop.read(("0.00", "0.10"), ("0.00", "0.10"))
    calibrate(shop.workshop, wrench_id=old.pk, on=timezone.localdate())
    signed = sign_off(shop.job.pk, shop.tech.membership)
    assert open_claims(signed) == {"wrench"}


def asks_for_a_second_person(shop: Shop) -> None:
    version = shop.job.card_version
    version.second_person = True
    version.save()


def test_a_second_person_is_never_the_one_who_did_the_work(shop: Shop) -> None:
    asks_for_a_second_person(shop)
    finish(shop)
    with pytest.raises(Refused, match="must be another account"):
        check(shop.job.pk, shop.tech.membership)
    check(shop.job.pk, shop.people["lead"].membership)
    with pytest.raises(Refused, match="another account signs it off"):
        sign_off(shop.job.pk, shop.people["lead"].membership)
    assert sign_off(shop.job.pk, shop.tech.membership).statement == "proven"


def test_a_check_counts_until_something_is_done_again(shop: Shop) -> None:
    asks_for_a_second_person(shop)
    finish(shop)
    check(shop.job.pk, shop.people["lead"].membership)
    shop.trial("0.50, 0.10")
    shop.read(("0.00", "0.10"), ("0.00", "0.10"))
    assert open_claims(sign_off(shop.job.pk, shop.tech.membership)) == {"second"}


def test_reopening_keeps_the_old_sheet_and_asks_for_a_reason(shop: Shop) -> None:
    finish(shop)
    old = sign_off(shop.job.pk, shop.tech.membership)
    client, base = shop.client("lead"), f"/jobs/{shop.job.pk}"
    before = pdf_text(client.get(f"{base}/sheet.pdf").content)
    assert shop.client("tech").post(f"{base}/reopen", {"reason": "x"}).status_code == 403
    assert client.post(f"{base}/reopen", {"reason": ""}).status_code == 422
    assert client.post(f"{base}/reopen", {"reason": "hub runs warm"}).status_code == 302
    shop.job.refresh_from_db()
    assert shop.job.closed_at is None
    assert "draft" in pdf_text(client.get(f"{base}/sheet.pdf").content)
    assert pdf_text(client.get(f"{base}/sheets/{old.pk}.pdf").content) == before
    shop.trial("0.50, 0.05")
    shop.read(("0.00", "0.06"), ("0.00", "0.06"))
    assert sign_off(shop.job.pk, shop.tech.membership).pk != old.pk
    page = client.get(f"{base}/close").content.decode()
    assert page.count("Sheet signed") == 2
    assert "eopened: hub runs warm" in page


def test_a_job_is_not_reopened_beside_another_on_its_wheel_end(shop: Shop) -> None:
    finish(shop)
    sign_off(shop.job.pk, shop.tech.membership)
    bench.open_job(shop.workshop, shop.tech, shop.job.wheel_end, card=shop.card)
    with pytest.raises(Refused, match="Job 2 is open on this wheel end"):
        reopen_job(shop.job.pk, shop.people["lead"].membership, reason="warm")
