"""A page whose rule fails on what is stored still opens, and says which entry to take back."""

import uuid
from typing import Any

import pytest

from wheelend.errors import BadInput
from wheelend.methods.drag import DragJudgement
from wheelend.methods.nut_angle import NutAngleJudgement
from wheelend.methods.shims import trials
from wheelend.procedure.log import Written
from zesty.bench.models import Entry
from zesty.cards.models import CardVersion

from .conftest import Shop
from .test_set_pages import Hand, shop_of


@pytest.fixture
def poisoned(shop: Shop, monkeypatch: pytest.MonkeyPatch) -> Entry:
    """A job with a row on which a rule fails, and rows after it."""
    shop.trial("0.50", "0", "0.07", "0", "0.05")
    bad = next(row for row in shop.file.entries if row.typed == "0.07 mm")
    rule = trials.trials_of

    def fails(progress: Any, *more: Any) -> Any:
        if any(one.id == bad.pk for one in progress.standing):
            raise ZeroDivisionError
        return rule(progress, *more)

    monkeypatch.setattr("wheelend.methods.shims.assessing.trials_of", fails)
    return bad


def test_the_log_is_shown_and_the_entry_named(shop: Shop, poisoned: Entry) -> None:
    client = shop.client()
    for stage in ("set", "lock", "close"):
        answer = client.get(f"/jobs/{shop.job.pk}/1/{stage}/")
        assert answer.status_code == 200
        page = answer.content.decode()
        assert "be judged as it stands" in page
        assert f"entries/{poisoned.pk}/take-back" in page
        assert "Hums from 50 on." in page


def test_taking_it_back_mends_the_page(shop: Shop, poisoned: Entry) -> None:
    client = shop.client()
    answer = client.post(
        f"/jobs/{shop.job.pk}/1/set/entries/{poisoned.pk}/take-back",
        {"reason": "it can’t be judged", "token": shop.job.token},
    )
    assert answer.status_code == 302
    page = client.get(f"/jobs/{shop.job.pk}/1/set/").content.decode()
    assert "be judged as it stands" not in page
    assert Entry.objects.filter(corrects=poisoned).exists()


def test_whoever_only_reads_is_offered_nothing(shop: Shop, poisoned: Entry) -> None:
    page = shop.client("learner").get(f"/jobs/{shop.job.pk}/1/set/").content.decode()
    assert "be judged as it stands" in page
    assert "take-back" not in page


def test_other_pages_open_all_the_same(shop: Shop, poisoned: Entry) -> None:
    client = shop.client()
    for path in ("/", f"/jobs/{shop.job.pk}/", f"/jobs/{shop.job.pk}/job.json", "/tray/"):
        assert client.get(path, follow=True).status_code == 200
    sheet = client.get(f"/jobs/{shop.job.pk}/sheet.pdf")
    assert sheet.status_code == 409
    assert "can&#x27;t be" in sheet.content.decode()


def test_what_no_page_could_show_is_not_written(
    shop: Shop, monkeypatch: pytest.MonkeyPatch
) -> None:
    shop.trial("0.50", "0", "0.07", "0")
    rule = trials.trials_of

    def fails(progress: Any, *more: Any) -> Any:
        readings: list[Written] = [one for one in progress.standing if one.kind == "out"]
        if len(readings) > 1:
            raise KeyError("a rule that never expected this")
        return rule(progress, *more)

    monkeypatch.setattr("wheelend.methods.shims.assessing.trials_of", fails)
    rows = Entry.objects.count()
    answer = shop.post(shop.client(), "read", value="0.05")
    assert answer.status_code == 422
    page = answer.content.decode()
    assert "Nothing was written" in page
    assert 'value="0.05"' in page
    assert Entry.objects.count() == rows


def test_a_card_that_cannot_be_read_is_said_in_a_sentence(
    shop: Shop, monkeypatch: pytest.MonkeyPatch
) -> None:
    def unreadable(_: CardVersion) -> Any:
        raise BadInput("stack", "", "has too few entries; give 1 or more")

    monkeypatch.setattr("zesty.bench.queries.jobfile.card_of_version", unreadable)
    answer = shop.client().get(f"/jobs/{shop.job.pk}/1/set/")
    assert answer.status_code == 409
    assert (
        "The card of job 1 can&#x27;t be read: stack: has too few entries"
        in answer.content.decode()
    )


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("key", "step", "value", "judgement"),
    [
        ("bearing_pack", "bench_drag", "0.6 N·m", DragJudgement),
        ("slotted_nut", "turned_back", "30 deg", NutAngleJudgement),
    ],
)
def test_nor_where_what_is_due_next_could_not_be_said(
    monkeypatch: pytest.MonkeyPatch, key: str, step: str, value: str, judgement: Any
) -> None:
    hand = Hand(shop_of(key))
    hand.until(step)
    hand.file = None
    due, rows = hand.due(), Entry.objects.count()

    line = judgement.line
    stood = len(hand.shop.file.units[0].progress.standing)

    def fails(self: Any, row: Any) -> Any:
        if len(self.progress.standing) > stood:
            raise KeyError("a rule that never expected this")
        return line(self, row)

    monkeypatch.setattr(judgement, "line", fails)
    sent = {
        "step": due.step.id, "station": due.station, "place": due.slot.place,
        "round": due.slot.round, "token": uuid.uuid4(), "value": value, "sure": "on",
    }  # fmt: skip
    where = f"/jobs/{hand.shop.job.pk}/1/{due.step.stage}/write"
    answer = hand.client.post(where, sent)
    assert "Nothing was written" in answer.content.decode()
    assert Entry.objects.count() == rows
