"""Two at the same moment: one wins, nobody waits for ever, nothing is half."""

import threading
import uuid
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from django.db import ProgrammingError, connection, connections
from django.test import Client

from tests.zesty.conftest import make_shop, mm
from zesty.bench.models import Entry, Job
from zesty.elements.refused import Refused
from zesty.elements.rights import append_only_tables
from zesty.people.models import Membership, User, Workshop
from zesty.records.exchange.documents import dumps, loads
from zesty.records.exchange.trays import import_tray, tray_document
from zesty.stores.actions import Fitted, swap
from zesty.stores.models import Calibration

TOGETHER = 6

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture(autouse=True)
def emptied(transactional_db: None) -> Iterator[None]:
    """The log does not let itself be emptied: its guards are lifted for it, as the owner may."""
    yield
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        names = ", ".join(
            t for t in connection.introspection.table_names() if t != "django_migrations"
        )
        cursor.execute(f"TRUNCATE {names} CASCADE")
        cursor.execute("SET session_replication_role = DEFAULT")


def at_once(*acts: Callable[[], Any]) -> list[Any]:
    """Do all of them at the same moment; what each answered, or raised."""
    ready = threading.Barrier(len(acts))
    answers: list[Any] = [None] * len(acts)

    def run(number: int, act: Callable[[], Any]) -> None:
        ready.wait()
        try:
            answers[number] = act()
        except Refused as refused:
            answers[number] = refused
        finally:
            connections.close_all()

    threads = [threading.Thread(target=run, args=one) for one in enumerate(acts)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return answers


def test_six_first_owners_make_one() -> None:
    def post(number: int) -> int:
        said = {
            "workshop": f"Shed {number}",
            "username": f"owner{number}",
            "password": "three worn bearings",
        }
        return Client().post("/first", said).status_code

    assert set(at_once(*(lambda n=n: post(n) for n in range(TOGETHER)))) == {302}
    assert (User.objects.count(), Workshop.objects.count(), Membership.objects.count()) == (1, 1, 1)


def test_one_invitation_opens_one_account_however_often_it_is_sent() -> None:
    shop = make_shop("ours")
    page = shop.client("owner").post("/members", {"role": "tech"}).content.decode()
    link = "/join/" + page.split("/join/")[1].split("<")[0]

    def post(number: int) -> int:
        said = {"username": f"new{number}", "password": "three worn bearings"}
        return Client(raise_request_exception=False).post(link, said).status_code

    answers = at_once(*(lambda n=n: post(n) for n in range(TOGETHER)))
    assert answers.count(302) == 1
    assert max(answers) < 500
    assert User.objects.filter(username__startswith="new").count() == 1


def test_two_owners_who_step_down_leave_one() -> None:
    shop = make_shop("ours")
    lead = shop.people["lead"].membership
    lead.role = "owner"
    lead.save()
    both = {"owner": shop.people["owner"].membership.pk, "lead": lead.pk}

    def step_down(role: str) -> int:
        said = {"member_id": both[role], "act": "role", "role": "tech"}
        return shop.client(role).post("/members/change", said).status_code

    at_once(lambda: step_down("owner"), lambda: step_down("lead"))
    assert Membership.objects.filter(workshop=shop.workshop, role="owner").count() == 1


def test_one_token_counts_once_and_readings_of_two_phones_do_not_mix() -> None:
    shop = make_shop("ours")
    shop.until("fit_pack")
    shop.pack("0.50")
    shop.torque()
    shop.dial()
    path, token = f"/jobs/{shop.job.pk}/1/set/write", uuid.uuid4()

    def post(value: str, mark: uuid.UUID) -> int:
        said = {
            "step": "read",
            "place": "12",
            "round": 1,
            "value": value,
            "push": "in",
            "token": mark,
        }
        return shop.client().post(path, said).status_code

    same = at_once(*(lambda: post("0.01", token) for _ in range(TOGETHER)))
    assert set(same) == {302}
    assert Entry.objects.filter(kind="in").count() == 1
    at_once(*(lambda n=n: post(f"0.0{n}", uuid.uuid4()) for n in range(2, TOGETHER)))
    assert Entry.objects.filter(kind="in", corrects=None).count() == 1


def test_tray_imports_and_a_pack_at_once_do_not_lock_each_other() -> None:
    shop = make_shop("ours")
    said = tray_document(shop.workshop)
    turned = {**said, "shims": said["shims"][::-1]}

    def come_in(document: dict[str, Any]) -> None:
        import_tray(shop.workshop, loads(dumps(document))[2])

    def fit() -> None:
        swap(shop.workshop, put_in=[Fitted("0.10 mm", mm("0.10").value)], taken_out=[])

    acts = [lambda: come_in(said), lambda: come_in(turned), fit] * 3
    assert at_once(*acts) == [None] * 9


def test_reopening_meets_another_job_on_the_wheel() -> None:
    shop = make_shop("ours")
    shop.trial()
    shop.finish()
    assert shop.sign("lead").status_code == 302
    end = shop.vehicle.wheel_ends.first()

    def start() -> int:
        said = {"card": shop.card.pk, "ends": "one", "token": uuid.uuid4()}
        return shop.client("tech").post(f"/wheel-ends/{end.pk}/start", said).status_code

    def reopen() -> int:
        said = {"reason": "slack", "touched": "paper", "token": uuid.uuid4()}
        return shop.client("lead").post(f"/jobs/{shop.job.pk}/reopen", said).status_code

    answers = at_once(start, reopen)
    assert max(answers) < 500
    assert Job.objects.filter(state="open").count() == 1


def test_two_calibrations_at_once_are_both_written_in_order() -> None:
    shop = make_shop("ours")
    tool = shop.tool("half-inch wrench")
    day = shop.file.today.isoformat()

    def post(role: str) -> int:
        said = {"instrument_id": tool.pk, "on": day}
        return shop.client(role).post("/tray/calibrated", said).status_code

    assert at_once(lambda: post("lead"), lambda: post("owner")) == [302, 302]
    assert Calibration.objects.filter(instrument=tool).count() == 3


def test_the_web_servers_role_may_not_change_what_was_written(app_role: str) -> None:
    make_shop("ours").trial()
    with connection.cursor() as cursor:
        tables = append_only_tables()
        assert {"bench_entry", "bench_entryshim", "records_signoff", "cards_cardversion"} <= set(
            tables
        )
        cursor.execute(f"SET ROLE {app_role}")
        for table in tables:
            cursor.execute(f"SELECT count(*) FROM {table}")
            for change in (f"UPDATE {table} SET id = id", f"DELETE FROM {table}",
                           f"TRUNCATE {table}", f"ALTER TABLE {table} DISABLE TRIGGER ALL"):  # fmt: skip
                with pytest.raises(ProgrammingError, match=r"permission denied|must be owner"):
                    cursor.execute(change)
        cursor.execute("UPDATE bench_job SET state_reason = ''")
        cursor.execute("RESET ROLE")
