"""Who may vouch for a setting, and on what they looked."""

import uuid
from typing import Any

import pytest

from zesty.bench.actions import log
from zesty.bench.models import Entry, Job
from zesty.bench.queries.jobfile import job_file
from zesty.elements.refused import Refused
from zesty.people.models import User
from zesty.records.exchange.documents import dumps
from zesty.records.models import SignOff

from .conftest import Shop, make_shop
from .test_exchange import send, signed_job


@pytest.fixture
def checked_shop(db: None) -> Shop:
    """A job that a second person must check, ready for it."""
    made = make_shop("ours", second_person=True)
    made.trial()
    made.finish(upto="second")
    return made


def check(shop: Shop, role: str = "lead", **data: Any) -> Any:
    row = next(row for row in shop.unit.progress.rows if row.step.kind == "second")
    option = row.step.options[0].key
    return shop.post(shop.client(role), row.step.id, row.step.stage, answer=option, **data)


def is_checked(shop: Shop) -> bool:
    return shop.unit.progress.of_kind("second")[0].state == "done"


def test_a_second_person_vouches_and_any_later_entry_voids_it(checked_shop: Shop) -> None:
    shop = checked_shop
    assert check(shop).status_code == 302
    assert is_checked(shop)
    last = next(row for row in reversed(shop.file.entries) if row.kind == "out")
    log.take_back(shop.file, shop.people["tech"], last, reason="misread")
    assert not is_checked(shop)
    claim = next(one for one in shop.unit.claims if one.key == "second")
    assert (claim.proven, claim.fact) == (False, "nobody has checked since the last entry")


def test_after_a_later_entry_the_second_person_checks_once_more(checked_shop: Shop) -> None:
    shop = checked_shop
    assert check(shop).status_code == 302
    log.choose(shop.file, shop.unit, shop.people["tech"], what="aim", value="loose_end",
               reason="hot brakes", token=uuid.uuid4())  # fmt: skip
    assert not is_checked(shop)
    assert check(shop).status_code == 302
    assert is_checked(shop)


def test_a_check_of_an_old_page_does_not_count(checked_shop: Shop) -> None:
    shop = checked_shop
    saw = shop.unit.progress.digest
    log.choose(shop.file, shop.unit, shop.people["tech"], what="aim", value="loose_end",
               reason="hot brakes", token=shop.file.job.token)  # fmt: skip
    answer = check(shop, saw=saw)
    assert answer.status_code == 422
    assert "Something was written since this page was shown" in answer.content.decode()
    assert not is_checked(shop)


def wrote_a_choice(shop: Shop, user: User) -> None:
    log.choose(shop.file, shop.unit, user, what="aim", value="tight_end", reason="x",
               token=shop.file.job.token)  # fmt: skip


def set_a_mark(shop: Shop, user: User) -> None:
    row = next(row for row in shop.file.entries if row.kind == "out")
    log.mark(shop.file, shop.unit, user, step=row.step, closing=row.closing, number=row.round,
             kind="aside", reason="slipped", token=shop.file.job.token)  # fmt: skip


def took_back(shop: Shop, user: User) -> None:
    row = next(row for row in reversed(shop.file.entries) if row.kind == "out")
    log.take_back(shop.file, user, row, reason="misread")


@pytest.mark.parametrize("act", [wrote_a_choice, set_a_mark, took_back])
def test_who_decided_anything_is_no_second_person(checked_shop: Shop, act: Any) -> None:
    act(checked_shop, checked_shop.people["lead"])
    with pytest.raises(Refused, match="second person must be another"):
        _say(checked_shop, "lead")


def _say(shop: Shop, by: str) -> None:
    row = next(row for row in shop.unit.progress.rows if row.step.kind == "second")
    shop.say("pick", step=row.step.id, typed=row.step.options[0].key, by=by)


def test_another_name_is_the_same_account(checked_shop: Shop) -> None:
    lead = checked_shop.people["lead"]
    wrote_a_choice(checked_shop, lead)
    lead.username, lead.shown_name = "somebody else", "A. Nother"
    lead.save()
    with pytest.raises(Refused, match="second person must be another"):
        _say(checked_shop, "lead")
    _say(checked_shop, "owner")
    assert is_checked(checked_shop)


def test_a_signature_of_an_old_page_is_refused_and_keeps_its_note(shop: Shop) -> None:
    shop.trial()
    shop.finish()
    saw = shop.file.digest
    last = next(row for row in reversed(shop.file.entries) if row.kind == "out")
    log.take_back(shop.file, shop.people["tech"], last, reason="misread")
    answer = shop.sign("lead", saw=saw, handover="Feel it after 50 km.")
    assert answer.status_code == 422
    assert "look at it, then sign again" in answer.content.decode()
    assert not SignOff.objects.exists()


def test_a_signature_carries_what_it_saw_and_locks_the_job(shop: Shop) -> None:
    shop.trial()
    shop.finish()
    saw = shop.file.digest
    assert shop.sign("lead", handover="Feel it after 50 km.").status_code == 302
    assert SignOff.objects.get().saw == saw
    rows = Entry.objects.count()
    with pytest.raises(Refused, match="A lead can open it again"):
        shop.say("pick", step="open", typed="change")
    with pytest.raises(Refused, match="A lead can open it again"):
        took_back(shop, shop.people["tech"])
    assert Entry.objects.count() == rows


def test_readings_from_elsewhere_prove_nothing_here(shop: Shop, other: Shop) -> None:
    said = signed_job(shop)
    said["state"], said["sign_offs"] = "open", []
    del said["ended_at"]
    for place in said["units"][0]["places"]:
        place["side"] = "right"
    said["vehicle"]["name"] = "from elsewhere"
    assert send(other.client("lead"), dumps(said)).status_code == 302
    job = Job.objects.get(workshop=other.workshop, imported=True)
    (unit,) = job_file(other.workshop, job.pk).units
    assert unit.statement != "proven"
    play = next(one for one in unit.claims if one.key == "end_play")
    assert (play.proven, play.fact.endswith("written elsewhere")) == (False, True)
    page = other.client("lead").get(f"/jobs/{job.pk}/1/close/").content.decode()
    assert "from elsewhere" in page
