"""Each method from Set to the sheet in a window of a phone's size, by keyboard: every due step above the fold."""

import json
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from playwright.sync_api import expect

from wheelend.procedure.asking import band
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.progress import Row
from wheelend.quantity import FORCE
from zesty.bench.models import Job
from zesty.bench.queries.jobfile import job_file
from zesty.records.management.commands import load_demo
from zesty.records.models import SignOff

from .conftest import Open
from .hand import Hand
from .test_access import serious

NARROW = (391, 844)
"""As wide as a phone, with a keyboard before it."""

BEGINS = {
    "Tipping trailer hub": "seat_torque", "Bin truck rear hub": "seat_torque",
    "Motorcycle front wheel pack": "shim_measured", "Crew van rear axle bearing": "stands_out",
    "Orchard tractor rear hub": "ring_bolts", "Hill-climb car upright": "nut_torque",
    "Mower deck spindle, tapered": "nut_torque",
}  # fmt: skip
"""Where each job begins: the first step of its setting."""


@pytest.fixture
def card(request: pytest.FixtureRequest) -> str:
    return str(request.param)


@pytest.fixture
def demo(django_db_reset_sequences: None, monkeypatch: pytest.MonkeyPatch, card: str) -> None:
    """The demo with one job, that stands at the first step of its setting."""
    whole = json.loads((load_demo.DEMO / "cooperative.json").read_text(encoding="utf-8"))
    vehicles = {one["name"]: one for one in whole["vehicles"]}

    def card_of(job: dict[str, Any]) -> str:
        vehicle = vehicles[job["vehicle"]]
        return str(vehicle.get("card") or vehicle["cards"][str(job["axle"])])

    job = next(one for one in whole["jobs"] if one.get("whole") and card_of(one) == card)
    begin = [*job["acts"][:6], {"until": BEGINS[card]}]
    for one in whole["cards"]:
        for ring in one.get("bolt_rings", []):
            # The wheel's ring is not what these jobs are about; that of the preload is.
            ring["bolts"] = {"wheel": 4, "preload": 9}.get(ring["ring"], ring["bolts"])
    read = Path.read_text

    def fewer(path: Path, *args: Any, **kwargs: Any) -> str:
        text = read(path, *args, **kwargs)
        if path.name != "cooperative.json":
            return text
        return json.dumps({**whole, "jobs": [{**job, "acts": begin}]})

    monkeypatch.setattr(load_demo, "SCENARIOS", ("cooperative.json",))
    monkeypatch.setattr(Path, "read_text", fewer)
    call_command("load_demo")


TOKEN = """() => document.querySelector(".ask [name=token]")?.value"""
"""What the open step's form is sent with: another one once what was written is answered."""


class Keys(Hand):
    """Answers whatever is due by keys alone, with what lies in the middle of what the card allows."""

    def due(self) -> Row:
        job = Job.objects.get()
        due = job_file(job.workshop, job.pk).units[0].progress.due
        assert due is not None
        return due

    def go_on(self, due: Row, *, look: bool) -> Row:
        """The step that is due by its keys, and what is due then."""
        expect(self.page.locator(f'.ask[data-row^="{due.step.id}/"]')).to_be_visible()
        if look:
            self.fits_the_fold()
        token = self.page.evaluate(TOKEN)
        self.by_keys(due)
        self.page.wait_for_function(f"(old) => ({TOKEN})() !== old", arg=token)
        return self.due()

    def by_keys(self, due: Row) -> None:
        typed = self.typed(due)
        if typed:
            self.value(typed)
        else:
            getattr(self, f"_{due.step.entry}", self._else)(due)

    def _pick(self, due: Row) -> None:
        keys = [option.key for option in due.step.options]
        self.answer(keys.index("last") + 1 if "last" in keys else 1)

    _opening = _pick

    def _level(self, due: Row) -> None:
        if due.slot.place == "level":
            self.answer(1)
        else:
            self.next()

    def _turns(self, due: Row) -> None:
        done = len(due.at.entries)
        if done > 3:
            self.next()
        else:
            self.answer(1 if done % 2 else 2)

    def _list(self, due: Row) -> None:
        item = due_item(due.at)
        if item and due.step.kind in ("lock", "made_free", "fastened"):
            self.answer(1)
        elif item:
            self.press("That is all")
        else:
            self.next()

    def _measure(self, _: Row) -> None:
        self.press("Not measured, or that is all")

    def _dial(self, _: Row) -> None:
        dial = self.page.get_by_label("Dial", exact=True)
        dial.select_option(label="lever dial 0.002 mm, step 0.002 mm")
        self.press("It stands")

    def _warmth(self, _: Row) -> None:
        if self.page.get_by_role("button", name="Pressed cold after all").count():
            self.press("Pressed cold after all")
        else:
            self.value("20")

    def _text(self, _: Row) -> None:
        self.page.locator(".ask textarea").fill("By hand.")
        self.press("Write it down")

    def _else(self, _: Row) -> None:
        self.next()

    def typed(self, due: Row) -> str:
        """What is typed at a step that takes a number; empty at others."""
        setting, step = due.at.setting, due.step
        known = {
            "seat": "1",
            "place": "1",
            "turned_back": "20",
            "spacer": "0.350",
            "stand_out": "0.15",
        }
        if step.entry == "torque":
            return setting.torque.text if setting.torque else "50 N·m"
        if step.entry == "series" and setting.limits:
            middle = (setting.limits.limits.lowest + setting.limits.limits.highest) / 2
            return "0" if due.slot.push == "in" else f"{middle:.2f}"
        if step.entry == "band":
            return self._swing(due)
        return known.get(step.entry) or known.get(step.kind, "")

    def _swing(self, due: Row) -> str:
        limits, wanted = band.limits_of(due.at)
        middle = (limits.lowest + limits.highest) / 2 if limits else 1.0
        share = 0.9 if due.slot.place == "low" else 1.1
        return f"{middle * share:.2f} {'N' if wanted is FORCE else 'N·m'}"


@pytest.mark.parametrize("card", BEGINS, indirect=True)
def test_from_set_to_the_sheet_by_keys(open_as: Open, card: str) -> None:
    page = open_as("tech", NARROW)
    keys = Keys(page)
    page.goto(f"/jobs/{Job.objects.get().pk}/")
    due = keys.due()
    steps = [due.step.id]
    while due.step.entry not in ("sign", "second"):
        assert len(steps) < 120, "no way on"
        # Each bolt of a ring has the same page.
        due = keys.go_on(due, look=steps[-2:] != [due.step.id] * 2)
        steps.append(due.step.id)
    assert steps[0] == BEGINS[card]
    assert steps[-1] in ("sign", "second")
    if card == "Orchard tractor rear hub":
        assert steps.count("ring_bolts") == 27, "nine bolts in three stages, a tap each"
    page.goto(f"/jobs/{Job.objects.get().pk}/1/close/")
    assert serious(page) == []
    if steps[-1] == "second":
        page = open_as("owner", NARROW)
        page.goto(f"/jobs/{Job.objects.get().pk}/1/close/")
        Hand(page).answer(1)
        page.wait_for_timeout(300)
        page = open_as("lead", NARROW)
        page.goto(f"/jobs/{Job.objects.get().pk}/1/close/")
    page.get_by_role("button", name="Sign off as").click()
    expect(page.locator(".next-line h1")).to_contain_text("Signed off as")
    assert SignOff.objects.get().statement in ("set", "proven")
