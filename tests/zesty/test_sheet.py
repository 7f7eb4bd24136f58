"""The signed sheet: it prints the same for ever, and says what is not proven."""

from django.template.loader import render_to_string
from django.utils import timezone

from zesty.records.models import SheetPdf, SignOff
from zesty.records.queries import closing_of, sheet_context

from .conftest import Shop, make_shop, mm


def test_a_sheet_is_printed_once_and_kept(shop: Shop) -> None:
    shop.trial()
    shop.finish()
    client = shop.client("lead")
    shop.sign(handover="Feel the hub after 50 km.")
    signed = SignOff.objects.get()
    assert signed.facts["handover"] == "Feel the hub after 50 km."
    assert "Feel the hub after 50 km." in signed.sheet_html
    first = client.get(f"/jobs/{shop.job.pk}/sheet.pdf").content
    assert first[:4] == b"%PDF"
    assert bytes(SheetPdf.objects.get().content) == first
    assert client.get(f"/jobs/{shop.job.pk}/sheet.pdf").content == first


def test_the_sheet_has_the_facts_and_what_was_struck(shop: Shop) -> None:
    shop.trial("0.50, 0.20", "0", "0.18", "0", "0.17")
    from zesty.bench.actions import log  # noqa: PLC0415

    last = shop.file.last_entry
    assert last is not None
    log.correct(
        shop.file, shop.people["tech"], last, typed="0.18 mm", value=mm("0.18").value,
        reason="misread",
    )  # fmt: skip
    file = shop.file
    statement = closing_of(file).statement
    html = render_to_string(
        "records/sheet.html",
        sheet_context(file, shop.people["tech"].membership, timezone.now(), statement),
    )
    assert "not set" in html
    assert "0.17 mm became 0.18 mm: misread" in html
    assert "Hums from 50 on." in html
    assert "0.05 mm to 0.15 mm" in html


def test_a_draft_says_that_it_is_one(shop: Shop) -> None:
    assert shop.client().get(f"/jobs/{shop.job.pk}/sheet.pdf").content[:4] == b"%PDF"
    assert not SignOff.objects.exists()


def test_an_unsourced_job_is_signed_as_what_it_is(db: None) -> None:
    shop = make_shop(
        "shed", sources=[{"key": "sheet", "kind": "unsourced", "ref": "asked at the dealer"}]
    )
    shop.trial()
    shop.finish()
    shop.sign("tech")
    signed = SignOff.objects.get()
    assert signed.statement == "unsourced"
    assert "asked at the dealer" in signed.sheet_html


def test_whoever_checked_does_not_sign(db: None) -> None:
    shop = make_shop("pairs", second_person=True)
    shop.trial()
    shop.finish(upto="second")
    shop.say("pick", typed="read", by="lead")
    answer = shop.sign("lead")
    assert answer.status_code == 422
    assert "another account signs it off" in answer.content.decode()
    assert shop.sign("tech").status_code == 302
    assert SignOff.objects.get().statement == "proven"
