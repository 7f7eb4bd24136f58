"""Loads the demo scenario through the same actions that people use."""

import json
import uuid
from datetime import date
from decimal import Decimal
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from wheelend.quantity import ANGLE, LENGTH, TORQUE, TORQUE_PER_DEG, USAGE, Dimension
from zesty.bench import actions as bench
from zesty.bench.models import DialPlace, Job
from zesty.cards.actions import fit_card, new_card
from zesty.cards.models import SpecCard
from zesty.cards.queries import bolt_laps
from zesty.elements.typed import Typed
from zesty.fleet.actions import add_vehicle, log_usage
from zesty.fleet.models import Vehicle, WheelEnd
from zesty.people.models import Membership, Role, User, Workshop
from zesty.records.actions import sign_off
from zesty.stores.actions import add_gauge, add_shims, add_wrench
from zesty.stores.models import Gauge, Wrench

DEMO = Path(__file__).resolve().parents[5] / "demo"
SCENARIOS = ("cooperative.json", "neighbour.json")
NO_DEMO_HERE = 3

_PART = ("kind", "name", "width", "bore", "outside", "way_round", "counts")
_SIZES = {"low": LENGTH, "high": LENGTH, "nut_torque": TORQUE, "width": LENGTH, "bore": LENGTH,
          "outside": LENGTH, "pitch": LENGTH, "torque_low": TORQUE, "torque_high": TORQUE,
          "torque_per_deg": TORQUE_PER_DEG, "bolt_torque": TORQUE,
          "hands_radius": LENGTH, "spread": LENGTH, "contact_angle": ANGLE}  # fmt: skip


class Command(BaseCommand):
    """`load_demo`: does nothing where the demo stands; exits 3 where people's own work does."""

    help = "Load the demo scenario into an empty installation."

    def handle(self, **_: Any) -> None:
        if Workshop.objects.filter(is_demo=True).exists():
            return
        if User.objects.exists():
            raise SystemExit(NO_DEMO_HERE)
        with transaction.atomic():
            for name in SCENARIOS:
                Scenario(json.loads((DEMO / name).read_text(encoding="utf-8"))).load()


class Scenario:
    """One scenario file on its way into the database."""

    def __init__(self, data: dict[str, Any]) -> None:
        self.data = data
        self.workshop = Workshop.objects.create(name=data["workshop"], is_demo=True)
        self.people = {
            account: self._person(account, role) for account, role in data["people"].items()
        }
        owner = next(iter(self.people.values()))
        self.tech = self.people.get(Role.TECH, owner)
        self.lead = self.people.get(Role.LEAD, owner)
        self.desk = self.people.get(Role.DESK, owner)

    def load(self) -> None:
        """Stores and cards first, then the fleet, then the jobs in their order."""
        self._stores()
        self._cards()
        for vehicle in self.data["vehicles"]:
            self._vehicle(vehicle)
        for job in self.data["jobs"]:
            self._job(job)

    def _person(self, account: str, role: str) -> User:
        user = User.objects.create_user(account)
        Membership.objects.create(user=user, workshop=self.workshop, role=role)
        return user

    def _stores(self) -> None:
        for gauge in self.data["gauges"]:
            add_gauge(
                self.workshop,
                name=gauge["name"],
                resolution=Typed.read(gauge["resolution"], LENGTH),
                calibration=_typed(gauge["calibration"], LENGTH),
            )
        for wrench in self.data["wrenches"]:
            add_wrench(
                self.workshop,
                name=wrench["name"],
                low=Typed.read(wrench["low"], TORQUE),
                high=Typed.read(wrench["high"], TORQUE),
                accuracy_percent=Decimal(wrench["accuracy_percent"]),
                calibrated_on=date.fromisoformat(wrench["calibrated_on"]),
                multiplier=Decimal(wrench["multiplier"]),
            )
        for nominal, measured, count in self.data["tray"]:
            add_shims(
                self.workshop,
                nominal=Typed.read(nominal, LENGTH),
                measured=_typed(measured, LENGTH),
                count=count,
            )

    def _cards(self) -> None:
        for card in self.data["cards"]:
            stack = [_columns(dict(zip(_PART, part, strict=True))) for part in card["stack"]]
            new_card(
                self.workshop,
                self.lead,
                name=card["name"],
                arrangement=card.get("arrangement", "shimmed_pair"),
                stack=stack,
                **_columns(card["says"]),
            )

    def _vehicle(self, says: dict[str, Any]) -> None:
        vehicle = add_vehicle(
            self.workshop,
            name=says["name"],
            kind=says["kind"],
            axles=says["axles"],
            air_braked=says["air_braked"],
        )
        for day, usage in says["usage"]:
            log_usage(
                vehicle,
                self.desk,
                usage=Typed.read(usage, USAGE),
                on=date.fromisoformat(day),
            )
        card = SpecCard.objects.get(workshop=self.workshop, name=says["card"])
        for wheel_end in vehicle.wheel_ends.all():
            fit_card(wheel_end, card)

    def _job(self, says: dict[str, Any]) -> None:
        wheel_end = WheelEnd.objects.get(
            vehicle=Vehicle.objects.get(workshop=self.workshop, name=says["vehicle"]),
            axle=says["axle"],
            side=says["side"],
        )
        tech = self.tech
        job = bench.open_job(self.workshop, tech, wheel_end, card=wheel_end.fitment.card)
        for step in says["steps"]:
            getattr(self, f"_{step['do']}")(job, tech, step)

    def _take_in(self, job: Job, tech: User, step: dict[str, Any]) -> None:
        usage = Typed.read(step["usage"], USAGE)
        bench.take_in(job, tech, complaint=step["complaint"], usage=usage, made_safe=True)

    def _trial(self, job: Job, tech: User, step: dict[str, Any]) -> None:
        bench.begin_trial(
            job,
            tech,
            pack=_pack(step["pack"]),
            pack_right=_pack(step.get("pack_right", "")),
            closed=True,
            gauge=Gauge.objects.get(workshop=self.workshop, name=step.get("gauge", "dial 0.01 mm")),
            dial_place=DialPlace.AXIS,
            turned=False,
            nut_torque=Typed.read(step.get("torque", job.card_version.nut_torque), TORQUE),
            as_found=step.get("as_found", False),
            after=job.trials.count(),
            token=uuid.uuid4(),
        )

    def _read(self, job: Job, tech: User, step: dict[str, Any]) -> None:
        number = job.trials.count()
        for clock, *pair in step["readings"]:
            for push, value in zip(("in", "out"), pair, strict=True):
                bench.read(
                    job, tech, value=Typed.read(value, LENGTH), clock=clock, push=push,
                    trial=number, token=uuid.uuid4(),
                )  # fmt: skip

    def _find(self, job: Job, tech: User, step: dict[str, Any]) -> None:
        bench.find(job, tech, kind=step["kind"], trial=job.trials.count(), token=uuid.uuid4())

    def _lock(self, job: Job, tech: User, step: dict[str, Any]) -> None:
        bench.record_lock(
            job, tech, torque=Typed.read(step["torque"], TORQUE), lock=job.card_version.lock,
            done=True, note=step["note"], token=uuid.uuid4(),
            wrench=Wrench.objects.get(workshop=self.workshop, name=step["wrench"]),
        )  # fmt: skip

    def _bolts(self, job: Job, tech: User, _: dict[str, Any]) -> None:
        for lap, one in enumerate(bolt_laps(job.card_version), 1):
            for bolt in one.order:
                bench.tick_bolt(job, tech, lap=lap, bolt=bolt)

    def _sign(self, job: Job, _: User, step: dict[str, Any]) -> None:
        sign_off(job.pk, self.people[step["by"]].membership)


def _typed(text: str, dimension: Dimension) -> Typed | None:
    return Typed.read(text, dimension) if text else None


def _columns(says: dict[str, Any]) -> dict[str, Any]:
    """Sizes of a card or a part as quantities, the rest as it is."""
    return {
        key: _typed(value, _SIZES[key]) if key in _SIZES else value for key, value in says.items()
    }


def _pack(text: str) -> list[Typed]:
    return [Typed.read(shim.strip(), LENGTH) for shim in text.split(",") if shim.strip()]
