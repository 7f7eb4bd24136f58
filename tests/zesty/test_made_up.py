"""An arrangement that is only a file runs through the pages, from the vehicle to the sheet."""

import io
import uuid
from typing import Any

import pytest
from bs4 import BeautifulSoup, Tag
from django.test import Client
from pypdf import PdfReader

from zesty.bench.models import Job
from zesty.cards.actions import new_card
from zesty.fleet.actions import add_vehicle
from zesty.fleet.models import WheelEnd
from zesty.records.models import SignOff

from .conftest import Shop, document, setting

OUT_AND_IN = {"complaint": {"text": "Hums."}, "usage": {"value": "45561 km"},
              "axle_there": {"answer": "yes"}}  # fmt: skip
"""What the take-in asks for besides ticks."""


class Robot:
    """Sends the one open form of each page, as a person without scripts would."""

    def __init__(self, client: Client, address: str) -> None:
        self.client = client
        self.page = self._at(client.get(address, follow=True))
        self.seen: list[str] = []

    def _at(self, answer: Any) -> BeautifulSoup:
        page = BeautifulSoup(answer.content, "html.parser")
        assert answer.status_code == 200, page.get_text(" ", strip=True)[:600]
        return page

    @property
    def form(self) -> Tag:
        """The open step's form."""
        found = self.page.select_one(".ask form")
        assert found is not None, self.page.get_text(" ", strip=True)
        return found

    @property
    def step(self) -> str:
        """The id of the step that is open."""
        field = self.form.select_one("input[name=step]")
        return str(field["value"]) if field else "sign"

    @property
    def line(self) -> str:
        """The next line."""
        found = self.page.select_one("h1")
        assert found is not None
        return " ".join(found.get_text().split())

    def send(self, **typed: Any) -> None:
        """Answer the open step: what the form holds already, and what is typed."""
        self.seen.append(self.step)
        said = {one["name"]: one.get("value", "") for one in self.form.select("input[type=hidden]")}
        answer = self.client.post(str(self.form["action"]), {**said, **typed}, follow=True)
        self.page = self._at(answer)

    def until(self, step: str) -> None:
        """Answer take-in's questions and tick what only wants a tick."""
        while self.step != step:
            self.send(**OUT_AND_IN.get(self.step, {}))


@pytest.mark.usefixtures("made_up")
def test_from_take_in_to_the_sheet(shop: Shop) -> None:
    said = document(
        name="made up", arrangement="made_up", settings=[setting(clamp="hub", lock={"kind": "pin"})],
        bolt_rings=[{"ring": "cover", "bolts": 3, "torque": "12 N·m"}],
    )  # fmt: skip
    card = new_card(shop.workshop, shop.people["lead"], document=said)
    vehicle = add_vehicle(shop.workshop, name="cart", kind="trailer", axles=1, air_braked=False)
    end = WheelEnd.objects.filter(vehicle=vehicle).latest("pk")
    client = shop.client()
    start = {"card": card.pk, "ends": "one", "token": uuid.uuid4()}
    begun = client.post(f"/wheel-ends/{end.pk}/start", start)
    wrench = shop.tool("half-inch wrench").pk

    robot = Robot(client, begun["Location"])
    robot.until("shims_in")
    robot.send(pack="0.50, 0.15", from_here="on")
    robot.until("gauge")
    robot.send(dial=shop.tool("dial").pk, dial_at="spindle_axis")
    for value in ("0", "0.18", "0", "0.18"):
        robot.send(value=value)
    assert robot.line.startswith("Take out 0.10 mm")
    robot.send(answer="change")
    robot.send(pack="0.50, 0.05")
    robot.until("measure")
    for value in ("0", "0.09", "0", "0.08"):
        robot.send(value=value)
    robot.send(answer="last")
    robot.send(pack="0.50, 0.05")
    robot.send(value="74", wrench=wrench)
    robot.send()
    for value in ("0", "0.08", "0", "0.08"):
        robot.send(value=value)
    assert robot.step == "sign"
    assert robot.line.endswith("proven. Sign: proven.")
    robot.send(handover="Good.")

    job = Job.objects.get(vehicle=vehicle)
    assert job.state == "signed"
    assert SignOff.objects.get(job=job).statement == "proven"
    assert {"shims_in", "cover_on", "once_more", "pinned"} <= set(robot.seen)
    sheet = client.get(f"/jobs/{job.pk}/sheet.pdf")
    pages = PdfReader(io.BytesIO(sheet.content)).pages
    words = " ".join(" ".join(page.extract_text() for page in pages).split())
    assert "cart, axle 1 right: proven" in words
    assert "Nut is locked, hub" in words
