"""Accounts: the first owner, invitations, roles, passwords, and where the demo opens."""

import re
from datetime import timedelta
from typing import Any

import pytest
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management import call_command
from django.test import Client, override_settings
from django.utils import timezone

from zesty.people import actions
from zesty.people.models import Invitation, Membership, User

from .conftest import Shop

LINK = re.compile(r"http://testserver(/join/[\w-]+)")
PASSWORD = "three worn bearings"


def invited(shop: Shop, role: str = "tech") -> str:
    page = shop.client("owner").post("/members", {"role": role}).content.decode()
    found = LINK.search(page)
    assert found
    return found[1]


def signs_in(name: str, password: str) -> bool:
    answer = Client().post("/sign-in", {"username": name, "password": password})
    return bool(answer.status_code == 302)


def test_an_invitation_opens_one_account_in_its_role(shop: Shop) -> None:
    link = invited(shop, "lead")
    assert "as lead" in Client().get(link).content.decode()
    said = {"username": "newcomer", "password": PASSWORD}
    assert Client().post(link, said)["Location"] == "/"
    member = Membership.objects.get(user__username="newcomer")
    assert (member.workshop, member.role) == (shop.workshop, "lead")
    again = Client().post(link, {**said, "username": "second"})
    assert again.status_code == 404
    assert "was used" in again.content.decode()
    assert not User.objects.filter(username="second").exists()
    # Only a digest of the link is kept.
    assert link.rpartition("/")[2] not in str(list(Invitation.objects.values()))


def test_an_old_link_opens_nothing(shop: Shop) -> None:
    link = invited(shop)
    Invitation.objects.update(made_at=timezone.now() - timedelta(days=8))
    assert Client().get(link).status_code == 404


def test_a_taken_name_keeps_the_link(shop: Shop) -> None:
    link = invited(shop)
    taken = {"username": "tech of ours".replace(" ", "."), "password": PASSWORD}
    User.objects.create_user(taken["username"])
    answer = Client().post(link, taken)
    assert "is taken; give another name" in answer.content.decode()
    assert Client().post(link, {**taken, "username": "another"}).status_code == 302


@pytest.mark.parametrize(
    ("name", "password"),
    [("newcomer", "short"), ("newcomer", "password"), ("newcomer", "8675309421"), ("newcomer7", "newcomer7")],
)  # fmt: skip
def test_a_weak_password_is_refused(shop: Shop, name: str, password: str) -> None:
    link = invited(shop)
    assert Client().post(link, {"username": name, "password": password}).status_code == 422
    with pytest.raises(ValidationError):
        validate_password(password, User(username=name))


def test_only_an_owner_invites_and_changes(shop: Shop, other: Shop) -> None:
    for role in ("tech", "lead", "desk", "learner"):
        assert shop.client(role).post("/members", {"role": "owner"}).status_code == 403
        assert shop.client(role).post("/members/change", {"act": "remove"}).status_code == 403
    theirs = other.people["tech"].membership
    answer = shop.client("owner").post(
        "/members/change", {"member_id": theirs.pk, "act": "role", "role": "learner"}
    )
    assert "no longer here" in answer.content.decode()
    theirs.refresh_from_db()
    assert theirs.role == "tech"


def change(shop: Shop, role: str, act: str, to: str = "") -> Any:
    member = shop.people[role].membership
    return shop.client("owner").post(
        "/members/change", {"member_id": member.pk, "act": act, "role": to}
    )


def test_a_workshop_keeps_an_owner(shop: Shop) -> None:
    answer = change(shop, "owner", "role", "tech")
    assert "keeps an owner" in answer.content.decode()
    assert change(shop, "lead", "role", "owner").status_code == 302
    assert change(shop, "owner", "role", "tech").status_code == 302


def test_who_is_taken_away_is_out_at_once_and_their_work_stays(shop: Shop) -> None:
    shop.trial()
    signed_in = shop.client("tech")
    assert signed_in.get("/").status_code == 200
    assert change(shop, "tech", "remove").status_code == 302
    assert signed_in.get("/")["Location"].startswith("/sign-in")
    assert not signs_in("tech of ours", "ours password")
    assert shop.file.entries[0].by_name == "tech of ours"


def test_a_changed_password_ends_every_other_session(shop: Shop) -> None:
    here, there = Client(), Client()
    for client in (here, there):
        client.post("/sign-in", {"username": "tech of ours", "password": "ours password"})
    said = {"old_password": "ours password", "new_password1": PASSWORD, "new_password2": PASSWORD}
    assert here.post("/password", said).status_code == 302
    assert here.get("/").status_code == 200
    assert there.get("/")["Location"].startswith("/sign-in")


def test_an_owner_makes_a_link_for_a_new_password(shop: Shop) -> None:
    page = change(shop, "tech", "password").content.decode()
    found = LINK.search(page)
    assert found
    assert "A new password for tech of ours" in Client().get(found[1]).content.decode()
    Client().post(found[1], {"password": PASSWORD})
    assert signs_in("tech of ours", PASSWORD)
    assert User.objects.count() == len(shop.people)


def test_wrong_passwords_are_slowed_down_by_account_and_by_address(shop: Shop) -> None:
    wrong = {"username": "tech of ours", "password": "guess"}
    answers = [Client().post("/sign-in", wrong) for _ in range(9)]
    assert answers[0].status_code == 200
    assert answers[-1].status_code == 429
    assert "Wait five minutes" in answers[-1].content.decode()
    # The right one waits as well, from wherever; and from this address, so does another account.
    assert Client(REMOTE_ADDR="10.0.0.9").post(
        "/sign-in", {**wrong, "password": "ours password"}
    ).status_code == 429  # fmt: skip
    assert not signs_in("lead of ours", "ours password")
    assert Client(REMOTE_ADDR="10.0.0.9").post(
        "/sign-in", {"username": "lead of ours", "password": "ours password"}
    ).status_code == 302  # fmt: skip


FROM_WHERE: list[tuple[dict[str, str], bool]] = [
    ({}, True), ({"REMOTE_ADDR": "::1"}, True), ({"REMOTE_ADDR": "192.168.1.7"}, False),
    ({"HTTP_X_FORWARDED_FOR": "127.0.0.1"}, False), ({"HTTP_FORWARDED": "for=127.0.0.1"}, False),
    ({"REMOTE_ADDR": ""}, False), ({"REMOTE_ADDR": "rubbish"}, False),
]  # fmt: skip


@pytest.mark.usefixtures("small_demo")
def test_the_demo_opens_from_this_machine_only(db: None) -> None:
    call_command("load_demo")
    for more, opens in FROM_WHERE:
        client = Client(**more)
        assert ("one click" in client.get("/sign-in").content.decode()) is opens, more
        assert client.post("/demo/tech").status_code == (302 if opens else 404), more


@pytest.mark.usefixtures("small_demo")
def test_the_demo_lives_in_no_database_but_our_own(db: None) -> None:
    call_command("load_demo")
    with override_settings(OWN_DATABASE=False):
        assert Client().post("/demo/tech").status_code == 404
        with pytest.raises(
            Exception, match=r"only loaded into a database that \./zesty start made"
        ):
            call_command("load_demo")


def test_a_signed_in_page_is_stored_by_nobody(shop: Shop) -> None:
    for path in ("/", "/tray/", "/members", f"/jobs/{shop.job.pk}/job.json"):
        said = shop.client().get(path)["Cache-Control"]
        assert {"private", "no-store"} <= {one.strip() for one in said.split(",")}


def test_the_second_first_owner_is_sent_to_sign_in(db: None) -> None:
    said = {"workshop": "Shed", "username": "me", "password": PASSWORD}
    assert Client().post("/first", said).status_code == 302
    with pytest.raises(Exception, match="accounts already"):
        actions.open_workshop("Another", "you", PASSWORD)
    assert Client().post("/first", {**said, "workshop": "B", "username": "b"}).status_code == 302
    assert User.objects.count() == 1
