"""What is put into SQL once says the same as what is put into SQL anew."""

import threading
from datetime import timedelta
from typing import Any

import pytest
from django.contrib.sessions.models import Session
from django.db import connection, models
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from zesty.bench.models import Entry, Job, UnitPlace
from zesty.bench.queries import jobfile
from zesty.bench.queries.jobfile import job_file
from zesty.elements.prepared import Prepared
from zesty.people.models import Membership

from .conftest import Shop


def test_the_second_asking_has_other_rows(shop: Shop) -> None:
    people: Prepared[Membership] = Prepared(
        lambda user: Membership.objects.filter(user=user).select_related("user", "workshop"), "user"
    )
    for member in Membership.objects.all():
        with CaptureQueriesContext(connection) as caught:
            (found,) = people.ask(user=member.user_id)
            assert (found, found.user, found.workshop) == (member, member.user, member.workshop)
        assert len([one for one in caught if "SELECT" in one["sql"]]) <= 3
    assert people.ask(user=0) == []
    assert people.first(user=0) is None
    assert people.first(user=10**25) is None


def test_its_rows_are_those_of_its_queryset(shop: Shop) -> None:
    shop.trial()
    build = lambda job: (  # noqa: E731
        UnitPlace.objects.filter(unit__job=job)
        .select_related("unit__card_version__card", "wheel_end")
        .defer("unit__card_version__document")
        .annotate(twice=models.F("pk") * 2)
    )
    prepared: Prepared[UnitPlace] = Prepared(build, "job")
    for _ in range(2):
        found, plain = prepared.ask(job=shop.job.pk), list(build(shop.job.pk))
        assert found == plain
        assert [one.twice for one in found] == [2 * one.pk for one in plain]
        version = found[0].unit.card_version
        assert version.get_deferred_fields() == {"document"}
        assert version.document == plain[0].unit.card_version.document
    entries: Prepared[Entry] = Prepared(lambda job: Entry.objects.filter(job=job), "job")
    stored = list(Entry.objects.filter(job=shop.job))
    assert stored
    for one, other in zip(entries.ask(job=shop.job.pk), stored, strict=True):
        assert one.__dict__ | {"_state": 0} == other.__dict__ | {"_state": 0}


def test_named_values_come_as_they_are_named(shop: Shop) -> None:
    named: Prepared[Any] = Prepared(
        lambda job: Job.objects.filter(pk=job).values_list("number", "vehicle__name", named=True),
        "job",
    )
    (found,) = named.ask(job=shop.job.pk)
    assert (found.number, found.vehicle__name) == (shop.job.number, shop.job.vehicle.name)


def test_a_session_lasts_until_it_expires_or_is_ended(shop: Shop) -> None:
    tech, lead = shop.client(), shop.client("lead")
    assert [one.get("/").status_code for one in (tech, lead)] == [200, 200]
    mine = Session.objects.filter(session_key=tech.session.session_key)
    mine.update(expire_date=timezone.now() - timedelta(seconds=1))
    assert [one.get("/").status_code for one in (tech, lead)] == [302, 200]
    Session.objects.filter(session_key=lead.session.session_key).delete()
    assert lead.get("/").status_code == 302


def test_what_it_does_not_take_is_refused(shop: Shop) -> None:
    jobs: Prepared[Job] = Prepared(lambda job: Job.objects.filter(pk=job), "job")
    for asked in ({}, {"unit": 1}, {"job": 1, "unit": 1}):
        with pytest.raises(TypeError, match="takes"):
            jobs.ask(**asked)
    unused: Prepared[Job] = Prepared(lambda **_: Job.objects.all(), "job")
    with pytest.raises(TypeError, match="do not all stand in"):
        unused.ask(job=1)


@pytest.mark.django_db(transaction=True)
def test_each_thread_asks_by_its_own_connection() -> None:
    count: Prepared[Job] = Prepared(lambda job: Job.objects.filter(pk=job), "job")
    assert count.ask(job=1) == []
    answers: list[Any] = []

    def ask() -> None:
        try:
            answers.append(count.ask(job=1))
        finally:
            connection.close()

    threads = [threading.Thread(target=ask) for _ in range(3)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert answers == [[], [], []]


def test_a_pack_that_comes_in_while_a_job_is_read_is_left_for_the_next_page(
    shop: Shop, monkeypatch: pytest.MonkeyPatch
) -> None:
    shop.trial("0.50, 0.10")
    shop.say("pick", step="open", typed="change")
    before = list(shop.file.entries)
    shop.until("fit_pack")
    shop.pack("0.50, 0.05")
    monkeypatch.setattr(jobfile._ENTRIES, "ask", lambda job: before)  # noqa: ARG005
    file = job_file(shop.workshop, shop.job.pk)
    assert file.entries == tuple(before)
    packs = [row.pack_shims for row in file.entries if row.kind == "pack"]
    assert [[shim.typed for shim in one] for one in packs] == [["0.50 mm", "0.10 mm"]]


def test_a_job_that_is_held_is_the_same_job(shop: Shop) -> None:
    free, held = (
        job_file(shop.workshop, shop.job.pk),
        job_file(shop.workshop, shop.job.pk, hold=True),
    )
    assert free.job == held.job
    assert [one.unit for one in free.units] == [one.unit for one in held.units]
