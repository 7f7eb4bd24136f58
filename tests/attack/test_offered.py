"""What a role may not do is not offered: every page that links lead to is walked as each role."""

from urllib.parse import parse_qs, urljoin, urlsplit

import pytest
from bs4 import BeautifulSoup
from django.test import Client

from zesty.people.models import Role

from .conftest import Shop

PAGES_AT_MOST = 150


def kind_of(path: str) -> tuple[str, str]:
    """What a page is, whichever row of the log it opens: its path, and the form beside the step."""
    parts = urlsplit(path)
    return parts.path, parse_qs(parts.query).get("panel", [""])[0]


def walk(client: Client) -> dict[str, BeautifulSoup]:
    """Every page that can be reached by links from the yard."""
    seen: dict[str, BeautifulSoup] = {}
    kinds: set[tuple[str, str]] = set()
    todo = ["/"]
    while todo and len(seen) < PAGES_AT_MOST:
        path = todo.pop(0)
        if kind_of(path) in kinds:
            continue
        kinds.add(kind_of(path))
        answer = client.get(path, follow=True)
        assert answer.status_code == 200, path
        if "html" not in answer["Content-Type"]:
            continue
        page = BeautifulSoup(answer.content, "html.parser")
        seen[path] = page
        links = [urljoin(path, str(one["href"])) for one in page.select("a[href]")]
        todo += [one for one in links if one.startswith("/") and one not in seen and "#" not in one]
    return seen


@pytest.mark.parametrize("role", Role.values)
def test_no_form_is_offered_that_answers_not_for_your_role(busy: Shop, role: str) -> None:
    client = busy.client(role)
    pages = walk(client)
    assert len(pages) >= 12
    offered = {
        urlsplit(urljoin(path, str(form.get("action") or path))).path
        for path, page in pages.items()
        for form in page.select("form[method=post]")
    }
    shut = {to for to in offered if client.post(to, {}).status_code == 403}
    assert shut == set()


def test_a_signed_job_offers_nothing_to_write(busy: Shop) -> None:
    busy.read("0", "0.05")
    busy.say("pick", step="open", typed="change")
    busy.trial()
    busy.finish()
    assert busy.sign("lead").status_code == 302
    page = busy.client("tech").get(f"/jobs/{busy.job.pk}/1/set/")
    offered = BeautifulSoup(page.content, "html.parser").select("form[action*='/write']")
    assert offered == []
    answer = busy.client("tech").post(
        f"/jobs/{busy.job.pk}/1/set/write", {"step": "read", "value": "0.1"}
    )
    assert "A lead can open it again" in answer.content.decode()
