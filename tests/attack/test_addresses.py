"""Every address, every role, values that nobody means: no answer breaks, and the job still opens."""

import random
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import pytest
from bs4 import BeautifulSoup
from django.test import Client

from tests.zesty.test_walls import addresses
from zesty.people.models import Role

from . import nasty
from .conftest import LONG, Shop, tries

BROKEN = 500


@dataclass(frozen=True)
class PageForm:
    """A form as a page offers it: where it goes, and what it carries."""

    action: str
    fields: tuple[tuple[str, str], ...]


def forms_of(page: str, path: str) -> Iterator[PageForm]:
    """Every form of a page that is posted."""
    for form in BeautifulSoup(page, "html.parser").select("form[method=post]"):
        fields = [
            (str(one["name"]), str(one.get("value") or one.text or ""))
            for one in form.select("[name]")
            if one["name"] != "csrfmiddlewaretoken"
        ]
        yield PageForm(str(form.get("action") or path), tuple(fields))


def client_of(shop: Shop, role: str | None) -> Client:
    client = Client(raise_request_exception=False)
    if role:
        client.force_login(shop.people[role], "zesty.people.backends.MemberBackend")
    return client


def still_opens(shop: Shop) -> None:
    """Every page of the job is there, judged, as it was before."""
    client = client_of(shop, "owner")
    for stage in ("take_in", "press", "set", "lock", "prove", "close"):
        answer = client.get(f"/jobs/{shop.job.pk}/1/{stage}/")
        assert answer.status_code == 200, stage
        assert b"be judged as it stands" not in answer.content, stage
    assert client.get("/").status_code == 200
    assert client.get("/tray/").status_code == 200


def sent(client: Client, path: str, fields: list[tuple[str, str]]) -> Any:
    body = b"&".join(nasty.quoted(name) + b"=" + nasty.quoted(value) for name, value in fields)
    kind = "application/x-www-form-urlencoded"
    return client.generic("POST", path, body, content_type=kind)


ROLES = tuple(Role.values) if LONG else (Role.OWNER, Role.LEARNER)
"""Who may most, and who may least; everybody behind the switch. Who may what is test_walls.py's."""


@pytest.mark.parametrize("role", [None, *ROLES])
def test_odd_questions_are_answered(busy: Shop, role: str | None) -> None:
    chance = random.Random(f"questions of {role}")
    client = client_of(busy, role)
    known = ("reading", "trial", "back", "next", "clock", "step", "station", "panel", "entry", "what",
             "find", "work", "rest", "page", "at", "version", "card", "ends")  # fmt: skip
    for path in addresses(busy).values():
        for _ in range(tries(3, 40)):
            asked = b"&".join(
                nasty.quoted(name) + b"=" + nasty.quoted(nasty.some(chance))
                for name in chance.sample(known, 3)
            )
            answer = client.generic("GET", path, QUERY_STRING=asked.decode("ascii"))
            assert answer.status_code < BROKEN, (path, asked)
    still_opens(busy)


@pytest.mark.parametrize("role", [None, *ROLES])
def test_bodies_that_are_no_form_are_answered(busy: Shop, role: str | None) -> None:
    client = client_of(busy, role)
    for name, path in addresses(busy).items():
        for body, kind in nasty.BODIES:
            if name == "people:sign_out":
                continue
            answer = client.generic("POST", path, body, content_type=kind)
            assert answer.status_code < BROKEN, (path, body[:40], kind)
    still_opens(busy)


@pytest.mark.parametrize("role", ROLES)
def test_every_form_with_values_that_nobody_means(busy: Shop, role: str) -> None:
    chance = random.Random(f"forms of {role}")
    client = client_of(busy, role)
    seeds = []
    for path in addresses(busy).values():
        for query in ("", "?panel=abandon", "?panel=card", "?panel=skip", "?panel=choose&what=aim"):
            answer = client.get(path + query)
            if answer.status_code == 200 and "html" in answer["Content-Type"]:
                seeds += list(forms_of(answer.content.decode(), path))
    forms = [one for one in dict.fromkeys(seeds) if one.fields and "sign-out" not in one.action]
    assert len(forms) >= (3 if role == "learner" else 12)
    for _ in range(tries(110, 4000)):
        form = chance.choice(forms)
        hit = chance.sample(
            range(len(form.fields)), min(len(form.fields), chance.choice((1, 1, 2)))
        )
        fields = [
            (name, nasty.some(chance) if number in hit else value)
            for number, (name, value) in enumerate(form.fields)
        ]
        answer = sent(client, form.action, fields)
        assert answer.status_code < BROKEN, (form.action, fields)
        if "abandon" in form.action or "password" in form.action:
            client = client_of(busy, role)
    still_opens(busy)


def test_what_a_refused_form_leaves_open_can_be_reloaded(busy: Shop) -> None:
    client = client_of(busy, "owner")
    for name, path in addresses(busy).items():
        answer = sent(client, path, [("value", "²")])
        if answer.status_code == 422:
            again = client.get(path, follow=True)
            assert again.status_code == 200, name
