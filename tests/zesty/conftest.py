"""A workshop with everything in it, and a second one that must see none of it."""

import uuid
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

import pytest
from bs4 import BeautifulSoup
from django.db import DatabaseError, connection
from django.test import Client

from wheelend.arrangements import Step
from wheelend.procedure.asking.listed import due_item
from wheelend.quantity import ANGLE, LENGTH, TORQUE, USAGE, Dimension
from zesty.bench.actions.jobs import open_job
from zesty.bench.actions.log import Say, write
from zesty.bench.forms import dial_in_use
from zesty.bench.models import Entry, Job
from zesty.bench.queries.jobfile import JobFile, UnitFile, job_file
from zesty.cards.actions import new_card
from zesty.cards.models import SpecCard
from zesty.elements.rights import grant_app
from zesty.elements.typed import Typed
from zesty.fleet.actions import add_vehicle
from zesty.fleet.models import Vehicle, WheelEnd
from zesty.people.models import Membership, Role, User, Workshop
from zesty.stores.actions import add_gauge, add_shims, add_wrench, recognised
from zesty.stores.models import Instrument
from zesty.stores.queries import instruments_of


def mm(text: str) -> Typed:
    return Typed.read(text, LENGTH, "mm")


def setting(**more: Any) -> dict[str, Any]:
    return {
        "method": "shims", "clamp": "main", "limits": {"low": "0.05 mm", "high": "0.15 mm"},
        "torque": "61 N·m", "torque_limits": {"low": "58 N·m", "high": "90 N·m"}, "source": "sheet",
        "torque_per_deg": "1.1 N·m/deg",
        "lock": {"kind": "pin", "pitch": "1.5 mm", "slots": 6, "openings": 2}, **more,
    }  # fmt: skip


def document(**more: Any) -> dict[str, Any]:
    return {
        "format": "zesty-spindle/card/2", "name": "hub", "arrangement": "shimmed_pair",
        "sources": [{"key": "sheet", "kind": "hub_maker", "ref": "Sheet 1 (invented)"}],
        "stack": [
            {"part": "collar", "name": "collar"},
            {"part": "seal", "name": "seal", "counts": False},
            {"part": "cone", "name": "inner cone", "seat": "inner", "bore": "35 mm"},
            {"part": "spacer", "name": "spacer", "width": "38 mm"},
            {"part": "shim", "name": "shims"},
            {"part": "cone", "name": "outer cone", "seat": "outer", "bore": "25 mm"},
            {"part": "nut", "name": "slotted nut"},
        ],
        "settings": [setting()], "bolt_rings": [{"ring": "wheel", "bolts": 5, "torque": "110 N·m"}],
        "read_at": ["12", "6"], "choices": {"lock_policy": "torque_window"}, **more,
    }  # fmt: skip


def axle_document() -> dict[str, Any]:
    return document(
        name="axle", arrangement="through_axle",
        settings=[
            setting(clamp="pair", lock={}),
            setting(clamp="hub", method="fixed_torque", torque="90 N·m",
                    torque_limits={"low": "88 N·m", "high": "140 N·m"}),
        ],
        stack=[{"part": "housing", "name": "centre block"}, {"part": "cone", "name": "bearing cone", "seat": "shaft"},
               {"part": "shim", "name": "shims"}, {"part": "plate", "name": "plate"}, {"part": "nut", "name": "nut"}],
        bolt_rings=[{"ring": "plate", "bolts": 4, "torque": "28 N·m"}, {"ring": "wheel", "bolts": 4, "torque": "45 N·m"}],
    )  # fmt: skip


def text(answer: Any) -> str:
    """What a page says, without its markup."""
    return " ".join(BeautifulSoup(answer.content, "html.parser").get_text(" ").split())


_ASKED = ("lock", "made_free")
"""Lists of which every item is answered, by its first answer."""


@dataclass
class Shop:
    """One workshop and the things in it, and a hand that works at its job."""

    workshop: Workshop
    people: dict[str, User]
    card: SpecCard
    vehicle: Vehicle
    job: Job

    def client(self, role: str = "tech") -> Client:
        """A browser signed in as a role."""
        client = Client()
        client.force_login(self.people[role])
        return client

    @property
    def file(self) -> JobFile:
        """The job as it stands."""
        return job_file(self.workshop, self.job.pk)

    @property
    def unit(self) -> UnitFile:
        """Its first unit."""
        return self.file.units[0]

    def tool(self, name: str) -> Instrument:
        """An instrument by name, with its papers."""
        return next(one for one in instruments_of(self.workshop) if one.name == name)

    def say(self, kind: str = "done", /, *, by: str = "tech", step: str = "", **more: Any) -> Entry:
        """One row at the step that is due, or at one that is named."""
        file = self.file
        unit = file.units[0]
        rows = [r for r in unit.progress.rows if r.step.id == step] if step else []
        row = next((r for r in rows if not r.settled), rows[0] if rows else unit.progress.due)
        assert row is not None
        said = Say(step=row.step.id, kind=kind, station=row.station, **more)
        return write(file, unit, self.people[by], said).entries[-1]

    def value(self, text: str, dimension: Dimension, **more: Any) -> Entry:
        """A quantity."""
        typed = Typed.read(text, dimension)
        more.setdefault(
            "instrument", self.tool("half-inch wrench") if dimension is TORQUE else None
        )
        return self.say("value", typed=typed.text, value=typed.value, **more)

    def torque(self, text: str = "61 N·m", **more: Any) -> Entry:
        return self.value(text, TORQUE, **more)

    def angle(self, text: str, **more: Any) -> Entry:
        return self.value(text, ANGLE, **more)

    def pack(self, text: str, **more: Any) -> Entry:
        """A pack at the due station."""
        loose = self.file.loose
        shims = [recognised(loose, mm(one.strip())) for one in text.split(",") if one.strip()]
        return self.say("pack", typed=text or "no shims", shims=shims, **more)

    def dial(self, name: str = "dial", **facts: Any) -> Entry:
        more = {"dial_at": "spindle_axis", "turned": False, **facts}
        return self.say("pick", typed="spindle_axis", instrument=self.tool(name), facts=more)

    def read(self, *values: str, **more: Any) -> Entry | None:
        """Dial readings in the order in which they fall due."""
        entry = None
        for text in values:
            file = self.file
            used = dial_in_use(file.units[0]) or {}
            due = file.units[0].progress.due
            assert due is not None
            typed = mm(text)
            entry = self.say(
                due.slot.push, typed=typed.text, value=typed.value, sure=True,
                instrument=file.instrument(used.get("pk")),
                facts={key: used[key] for key in ("dial_at", "turned") if key in used}, **more,
            )  # fmt: skip
        return entry

    def until(self, step: str) -> None:
        """Answer every simple step up to one; the job is loaded once for all of them."""
        file = self.file
        for _ in range(80):
            due = file.units[0].progress.due
            assert due is not None
            if due.step.id == step:
                return
            kind, more = self._plain(due.step, step)
            item = due_item(due.at) if due.step.kind in _ASKED else None
            if item:
                kind, more = "noted", {"place": item.key, "typed": item.choices[0].key}
            said = Say(step=due.step.id, kind=kind, station=due.station, sure=True, **more)
            file = write(file, file.units[0], self.people["tech"], said)

    def _plain(self, due: Step, step: str) -> tuple[str, dict[str, Any]]:
        """The plain answer of a step on the way to another."""
        if due.kind == "verdict":
            return "pick", {"typed": self._way_to(step, due)}
        if due.entry == "pick":
            return "pick", {"typed": due.options[0].key}
        if due.entry == "text":
            return "text", {"typed": "Hums from 50 on."}
        if due.entry == "usage":
            typed = Typed.read("45560 km", USAGE)
            return "value", {"typed": typed.text, "value": typed.value}
        return ("bolt" if due.entry == "bolts" else "done"), {}

    def _way_to(self, step: str, verdict: Step) -> str:
        """The verdict with the shortest way to a step: what is sound is not taken apart for it."""
        family = self.unit.card.arrangement
        stages = {one.key: one for one in family.stages}
        wanted = next((stages[one.stage] for one in family.steps if one.id == step), None)
        offered = {option.key for option in verdict.options}
        through = wanted is not None and "setting" in wanted.verdicts and "setting" in offered
        return "setting" if through else "strip"

    def trial(self, pack: str = "0.50, 0.10", *values: str) -> None:
        """A whole trial."""
        self.until("fit_pack")
        self.pack(pack)
        self.torque()
        due = self.unit.progress.due
        assert due is not None
        if due.step.id == "dial":
            self.dial()
        self.read(*(values or ("0", "0.10", "0", "0.10")))

    def finish(self, pack: str = "0.50, 0.10", upto: str = "sign") -> None:
        """Everything after the last trial."""
        self.say("pick", step="open", typed="last")
        self.until("refit")
        self.pack(pack)
        self.torque()
        self.angle("14 deg")
        self.angle("1 deg")
        self.angle("20 deg")
        self.torque("83 N·m")
        self.until("locked_reading")
        self.read("0", "0.10", "0", "0.10")
        self.until(upto)

    def post(self, client: Client, step: str, stage: str = "set", **data: Any) -> Any:
        """Send the form of a step, as a page without scripts would."""
        now = self.unit.progress
        mine = [one for one in now.rows if one.step.id == step]
        row = next((one for one in mine if not one.settled), mine[0])
        slot = row.slot
        sent = {"step": step, "station": row.station, "place": slot.place, "round": slot.round,
                "token": uuid.uuid4(), "saw": now.digest, **data}  # fmt: skip
        return client.post(f"/jobs/{self.job.pk}/1/{stage}/write", sent)

    def sign(self, role: str = "lead", **data: str) -> Any:
        """Sign the job off from a page that shows what stands now."""
        said = {"saw": self.file.digest, **data}
        return self.client(role).post(f"/jobs/{self.job.pk}/sign", said)


def make_shop(name: str, /, **card: Any) -> Shop:
    """A workshop with a card, a vehicle, instruments, a tray and an open job."""
    workshop = Workshop.objects.create(name=name)
    people = {}
    for role in Role.values:
        people[role] = User.objects.create_user(f"{role} of {name}", password=f"{name} password")
        Membership.objects.create(user=people[role], workshop=workshop, role=role)
    made = new_card(workshop, people["lead"], document=document(**card))
    vehicle = add_vehicle(workshop, name="trailer", kind="trailer", axles=2, air_braked=True)
    add_gauge(workshop, name="dial", resolution=mm("0.01 mm"), calibration=mm("0.004 mm"))
    add_gauge(workshop, name="bare dial", resolution=mm("0.01 mm"), calibration=None)
    torques = [Typed.read(one, TORQUE) for one in ("40 N·m", "210 N·m")]
    add_wrench(workshop, name="half-inch wrench", low=torques[0], high=torques[1],
               accuracy_percent=Decimal(4), calibrated_on=date.today(), multiplier=Decimal(1))  # fmt: skip
    for shim, measured, count in (("0.05 mm", None, 2), ("0.10 mm", None, 3), ("0.50 mm", None, 1),
                                  ("10 thou", "9.9 thou", 1)):  # fmt: skip
        add_shims(
            workshop, nominal=mm(shim), measured=mm(measured) if measured else None, count=count
        )
    end = WheelEnd.objects.filter(vehicle=vehicle).first()
    job = open_job(workshop, people["tech"], [end], card=made, token=uuid.uuid4())
    return Shop(workshop, people, made, vehicle, job)


APP_ROLE = "zesty_app_of_the_tests"


@pytest.fixture(scope="session")
def app_role(django_db_setup: None, django_db_blocker: Any) -> str:
    """The role that the web server has: what it may not do, no page can need."""
    with django_db_blocker.unblock(), connection.cursor() as cursor:
        with suppress(DatabaseError):  # where another worker made it
            cursor.execute(f"CREATE ROLE {APP_ROLE}")
        grant_app(APP_ROLE)
    return APP_ROLE


@contextmanager
def as_owner() -> Iterator[None]:
    """As the owner of the tables, whose commands may more than the web server."""
    with connection.cursor() as cursor:
        cursor.execute("RESET ROLE")
        try:
            yield
        finally:
            cursor.execute(f"SET LOCAL ROLE {APP_ROLE}")


@pytest.fixture
def shop(db: None, app_role: str) -> Shop:
    """Our workshop; from here on the test may what the web server may."""
    made = make_shop("ours")
    with connection.cursor() as cursor:
        cursor.execute(f"SET LOCAL ROLE {app_role}")
    return made


@pytest.fixture
def other(db: None) -> Shop:
    """Another workshop."""
    return make_shop("theirs")
