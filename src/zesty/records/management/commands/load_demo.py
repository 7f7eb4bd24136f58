"""Loads the demo scenario: a script of the product's own actions, so that its sign-offs are ours."""

import json
import uuid
from datetime import date
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from wheelend.arrangements import Step
from wheelend.procedure.items import items_of
from wheelend.procedure.items.fasteners import of_card
from wheelend.procedure.items.pressing import CLOCK
from wheelend.quantity import (
    ANGLE,
    FORCE,
    LENGTH,
    MASS,
    TEMPERATURE,
    TORQUE,
    USAGE,
    Dimension,
    is_of,
)
from zesty.bench.actions.jobs import open_job, reopen
from zesty.bench.actions.log import Say, write
from zesty.bench.actions.photos import add_photo
from zesty.bench.forms import dial_in_use
from zesty.bench.models import Job
from zesty.bench.queries.jobfile import JobFile, job_file
from zesty.cards.actions import fit_card, new_card
from zesty.cards.models import SpecCard
from zesty.elements.pictures import picture_of
from zesty.elements.typed import Typed
from zesty.fleet.actions import add_vehicle, log_usage
from zesty.fleet.life import add_life_part, write_event
from zesty.fleet.models import Vehicle, WheelEnd
from zesty.people.models import Membership, Role, User, Workshop
from zesty.records.actions import sign_off
from zesty.records.demo_photos import photograph
from zesty.records.erasing import erase, seal_demo, written_in
from zesty.records.exchange.formats import TRAY
from zesty.records.exchange.trays import import_tray
from zesty.stores.actions import recognised
from zesty.stores.models import Instrument

DEMO = Path(__file__).resolve().parents[5] / "demo"
DONE_AS_THE_CARD_SAYS = "As the card says."
_CLOSED = {"pin": "pinned", "lock_ring": "pinned", "snap_ring": "capped", "cap": "capped"}
SCENARIOS = ("cooperative.json", "neighbour.json")


class Command(BaseCommand):
    """`load_demo`: does nothing where the demo stands, or where people's own work does.

    `--fresh` makes it anew where nobody wrote in it.
    """

    help = "Load the demo scenario into an empty installation."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--fresh", action="store_true")

    def handle(self, *, fresh: bool = False, **_: Any) -> None:
        if not settings.OWN_DATABASE:
            raise CommandError("The demo is only loaded into a database that ./zesty start made.")
        with transaction.atomic():
            if fresh:
                take_demo_away()
            if Workshop.objects.exists() or User.objects.exists():
                return
            for name in SCENARIOS:
                scenario = Scenario(json.loads((DEMO / name).read_text(encoding="utf-8")))
                scenario.load()
                seal_demo(scenario.workshop)


def take_demo_away() -> None:
    """Take the demo's workshops away. Refused where a person wrote in one."""
    demos = list(Workshop.objects.filter(is_demo=True).order_by("pk"))
    if not demos and Workshop.objects.exists():
        raise CommandError("There is no demo here, and what is here stays.")
    written = [str(one) for workshop in demos if (one := written_in(workshop))]
    if written:
        raise CommandError(
            f"People wrote in the demo, and it stays: {'; '.join(written)}. "
            "./zesty erase takes a workshop away for good, after a backup."
        )
    for workshop in demos:
        erase(workshop)


class Scenario:
    """One scenario file on its way into the database."""

    def __init__(self, data: dict[str, Any]) -> None:
        self.data = data
        self.workshop = Workshop.objects.create(name=data["workshop"], is_demo=True)
        self.people = {
            account: self._person(account, role) for account, role in data["people"].items()
        }
        owner = next(iter(self.people.values()))
        self.owner = self.people.get(Role.OWNER, owner)
        self.tech = self.people.get(Role.TECH, owner)
        self.lead = self.people.get(Role.LEAD, owner)
        self.desk = self.people.get(Role.DESK, owner)

    def load(self) -> None:
        """Stores and cards first, then the fleet, then the jobs in their order."""
        import_tray(self.workshop, TRAY.read(self.data["stores"], ""))
        for document in self.data["cards"]:
            new_card(self.workshop, self.lead, document=document)
        for vehicle in self.data["vehicles"]:
            self._vehicle(vehicle)
        for part in self.data.get("life_parts", ()):
            self._life_part(part)
        for job in self.data["jobs"]:
            self._job(job)

    def _person(self, account: str, role: str) -> User:
        user = User.objects.create_user(account)
        Membership.objects.create(user=user, workshop=self.workshop, role=role)
        return user

    def _vehicle(self, says: dict[str, Any]) -> None:
        traits = ("air_braked", "electric_parking", "air_springs", "plate")
        vehicle = add_vehicle(
            self.workshop,
            name=says["name"],
            kind=says["kind"],
            axles=says["axles"],
            deck=says.get("deck", 0),
            **{name: says[name] for name in traits if name in says},
        )
        for day, usage in says["usage"]:
            log_usage(
                vehicle, self.desk, usage=Typed.read(usage, USAGE), on=date.fromisoformat(day)
            )
        cards = {card.name: card for card in SpecCard.objects.filter(workshop=self.workshop)}
        for wheel_end in vehicle.wheel_ends.all():
            name = says["card"] if "card" in says else says["cards"][str(wheel_end.axle)]
            fit_card(wheel_end, cards[name])

    def _life_part(self, says: dict[str, Any]) -> None:
        limit, every = (
            Typed.read(says[k], USAGE) if k in says else None for k in ("limit", "check_every")
        )
        part = add_life_part(
            self.workshop, serial=says["serial"], name=says["name"], limit=limit, check_every=every
        )
        for kind, vehicle, axle, side, counter in says["events"]:
            where = {"vehicle__name": vehicle, "axle": axle, "side": side}
            end = WheelEnd.objects.get(workshop=self.workshop, **where) if vehicle else None
            write_event(
                self.workshop, self.tech, part=part, kind=kind, wheel_end=end,
                counter=Typed.read(counter, USAGE),
            )  # fmt: skip

    def _job(self, says: dict[str, Any]) -> None:
        vehicle = Vehicle.objects.get(workshop=self.workshop, name=says["vehicle"])
        ends = WheelEnd.objects.filter(vehicle=vehicle, axle=says["axle"])
        if not says.get("both"):
            ends = ends.filter(side=says["side"])
        job = open_job(
            self.workshop, self.tech, list(ends), card=ends[0].fitment.card, token=uuid.uuid4()
        )
        Acts(self, job).all(says["acts"])


class Acts:
    """What is done in one job, each act at the step that is due."""

    def __init__(self, scenario: Scenario, job: Job) -> None:
        self.scenario, self.job = scenario, job
        self.file: JobFile = job_file(scenario.workshop, job.pk)

    def all(self, acts: list[dict[str, Any]]) -> None:
        """Every act in its order."""
        for act in acts:
            name = next(
                key for key in act if key not in ("with", "at", "from_here", "says", "done")
            )
            getattr(self, f"_{name}")(act[name], act)

    def _due(self) -> Any:
        due = self.file.units[0].progress.due
        if due is None:
            raise ValueError(f"{self.job}: nothing is due")
        return due

    def _write(self, kind: str, **more: Any) -> None:
        due = self._due()
        say = Say(step=due.step.id, kind=kind, station=due.station, sure=True, **more)
        self.file = write(self.file, self.file.units[0], self.scenario.tech, say)

    def _tool(self, name: str) -> Instrument | None:
        return next((one for one in self.file.instruments if one.name == name), None)

    def _text(self, words: str, _: dict[str, Any]) -> None:
        self._write("text", typed=words)

    def _value(self, text: str, act: dict[str, Any], dimension: Dimension = USAGE) -> None:
        typed = Typed.read(text, dimension)
        tool = self._tool(act["with"]) if "with" in act else None
        self._write("value", typed=typed.text, value=typed.value, instrument=tool)
        if dimension is USAGE:
            log_usage(self.job.vehicle, self.scenario.tech, usage=typed, on=self.file.today)

    def _torque(self, text: str, act: dict[str, Any]) -> None:
        self._value(text, act, TORQUE)

    def _angle(self, text: str, act: dict[str, Any]) -> None:
        self._value(text, act, ANGLE)

    def _pick(self, answer: str, _: dict[str, Any]) -> None:
        self._write("pick", typed=answer)

    def _found(self, answers: dict[str, str], _: dict[str, Any]) -> None:
        """What checks found, and that it is enough where the next act says what it is."""
        for check, answer in answers.items():
            self._write("found", place=check, round=1, typed=answer)

    def _noted(self, answers: dict[str, str], act: dict[str, Any]) -> None:
        """Items of the list that is due, answered; parts may be called by their card's name."""
        due = self._due()
        keys = {item.words.partition(",")[0]: item.key for item in items_of(due.at)}
        for item, answer in answers.items():
            _, _, detail = answer.partition(" ")
            lengths = answer.startswith(("other", "measured")) and detail
            value = Typed.read(detail, LENGTH).value if lengths else None
            self._write("noted", place=keys.get(item, item), round=1, typed=answer, value=value)
        if act.get("done"):
            self._write("done")

    def _measured(self, values: list[str], _: dict[str, Any]) -> None:
        """Lengths at the places of the step that is due."""
        for text in values:
            self._value(text, {}, LENGTH)

    def _temperatures(self, values: list[str], _: dict[str, Any]) -> None:
        for text in values:
            self._value(text, {}, TEMPERATURE)

    def _masses(self, values: list[str], _: dict[str, Any]) -> None:
        for text in values:
            self._value(text, {}, MASS)

    def _level(self, answers: list[str], _: dict[str, Any]) -> None:
        for answer in answers:
            self._write("pick", typed=answer)

    def _photo(self, subject: str, act: dict[str, Any]) -> None:
        picture = picture_of(photograph(subject))
        self.file = add_photo(
            self.file, self.file.units[0], self.scenario.tech, picture, words=act["says"],
            token=uuid.uuid4(),
        )  # fmt: skip

    def _enough(self, verdict: str, _: dict[str, Any]) -> None:
        self._write("done")
        self._write("pick", typed=verdict)

    def _until(self, step: str, _: dict[str, Any]) -> None:
        while self._due().step.id != step:
            self._plainly(self._due().step)

    def _plainly(self, step: Step) -> None:
        """The plain answer of a step: done, or its first option."""
        if step.kind in ("lock", "made_free") and items_of(self._due().at):
            for item in items_of(self._due().at):
                self._note(item.key, item.choices[0].key)
        elif step.kind in ("fasteners", "fastened"):
            self._fasteners(step)
        elif step.entry == "second":
            self._second(step.options[0].key)
        elif step.entry == "pick":
            self._write("pick", typed=step.options[0].key)
        elif step.entry == "text":
            self._write("text", typed=DONE_AS_THE_CARD_SAYS)
        elif step.entry == "opening":
            self._write("pick", typed=step.options[0].key)
        elif step.entry in ("band", "series", "stand_out", "torque", "place", "seat", "turns"):
            raise ValueError(f"{self.job}: {step.id} wants a value")
        else:
            self._write("bolt" if step.entry == "bolts" else "done")

    def _fasteners(self, step: Step) -> None:
        """What the card knows is undone, and each is closed again by what it is."""
        at = self._due().at
        for key, _ in of_card(at) if step.kind == "fasteners" else ():
            self._note(key, "undone")
        for item in items_of(at) if step.kind == "fastened" else ():
            self._note(item.key, _CLOSED.get(item.key, "torqued"))
        if self._due().step.id == step.id:
            self._write("done")

    def _note(self, key: str, answer: str) -> None:
        self._write("noted", place=key, round=1, typed=answer)

    def _second(self, answer: str) -> None:
        due = self._due()
        say = Say(step=due.step.id, kind="pick", station=due.station, typed=answer)
        self.file = write(self.file, self.file.units[0], self.scenario.owner, say)

    def _swing(self, values: list[str], act: dict[str, Any]) -> None:
        """Least and most of a needle's swing, as torque or as a pull."""
        for text in values:
            self._value(text, act, FORCE if is_of(text, FORCE) else TORQUE)

    def _turns(self, ways: list[str], _: dict[str, Any]) -> None:
        for way in ways:
            self._write("pick", typed=way)
        self._write("done")

    def _fitted(self, rings: list[str], _: dict[str, Any]) -> None:
        """How rings were pressed, and a blade tried behind each, all round; then the list is closed."""
        said = {"way": "sits", "surface": "oil", "tool": "press", "home": "yes"}
        step = self._due().step.id
        for key in [item.key for item in items_of(self._due().at)]:
            if key in said:
                self._write("noted", place=key, round=1, typed=said[key])
        for ring in rings:
            for clock in CLOCK:
                self._write("noted", place=f"{ring}_{clock}", round=1, typed="out")
        if self._due().step.id == step:
            self._write("done")

    def _closed(self, how: str, _: dict[str, Any]) -> None:
        """Every fastener that was undone, closed the same way."""
        for item in items_of(self._due().at):
            self._write("noted", place=item.key, round=1, typed=how)

    def _until_open(self, step: str, _: dict[str, Any]) -> None:
        """What the method offers where what was read is outside: it is opened."""
        unit = self.file.units[0]
        offered = unit.judgement.remedy(self._due())
        if offered is None or offered.step != step:
            raise ValueError(f"{self.job}: {step} is not offered at {self._due().step.id}")
        say = Say(step=step, kind="pick", station=offered.station, typed=offered.answer, sure=True)
        self.file = write(self.file, unit, self.scenario.tech, say)

    def _reopen(self, touched: str, act: dict[str, Any]) -> None:
        self.file = reopen(self.file, self.scenario.lead, reason=act["says"], touched=touched)

    def _pack(self, text: str, act: dict[str, Any]) -> None:
        shims = [Typed.read(one.strip(), LENGTH) for one in text.split(",")]
        fitted = [recognised(self.file.loose, one) for one in shims]
        self._write("pack", shims=fitted, typed=text, from_here=act.get("from_here", False))
        self.file = job_file(self.scenario.workshop, self.job.pk)

    def _hands(self, _: object, __: dict[str, Any]) -> None:
        self._write("pick", typed="hands")

    def _dial(self, name: str, act: dict[str, Any]) -> None:
        facts = {"dial_at": act["at"], "turned": False}
        self._write("pick", typed=act["at"], instrument=self._tool(name), facts=facts)

    def _read(self, values: list[str], _: dict[str, Any]) -> None:
        for text in values:
            used = dial_in_use(self.file.units[0]) or {}
            typed = Typed.read(text, LENGTH)
            self._write(
                self._due().slot.push, typed=typed.text, value=typed.value,
                instrument=self.file.instrument(used.get("pk")),
                facts={key: used[key] for key in ("dial_at", "turned")},
            )  # fmt: skip

    def _find(self, kind: str, _: dict[str, Any]) -> None:
        used = dial_in_use(self.file.units[0]) or {}
        self._write(kind, place="", instrument=self.file.instrument(used.get("pk")))

    def _sign(self, by: str, act: dict[str, Any]) -> None:
        sign_off(self.file, self.scenario.people[by].membership, reason=act.get("says", ""))
        self.file = job_file(self.scenario.workshop, self.job.pk)
