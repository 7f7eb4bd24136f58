"""A workshop with everything in it, and a second one that must see none of it."""

import uuid
from dataclasses import dataclass
from typing import Any

import pytest
from django.test import Client

from wheelend.quantity import LENGTH, TORQUE
from zesty.bench import actions as bench
from zesty.bench.models import Job, Trial
from zesty.cards.actions import new_card
from zesty.cards.models import SpecCard
from zesty.elements.typed import Typed
from zesty.fleet.actions import add_vehicle
from zesty.fleet.models import Vehicle
from zesty.people.models import Membership, Role, User, Workshop
from zesty.stores.actions import add_gauge, add_shims
from zesty.stores.models import Gauge

STACK = [
    {"kind": kind, "name": kind.replace("_", " "), "counts": kind != "seal"}
    for kind in ("collar", "seal", "inner_bearing", "spacer", "shims", "outer_bearing", "nut")
]


def mm(text: str) -> Typed:
    return Typed.read(text, LENGTH, "mm")


def torque(text: str) -> Typed:
    return Typed.read(text, TORQUE)


SAYS: dict[str, Any] = {
    "effect": "opens", "low": mm("0.05 mm"), "high": mm("0.15 mm"), "aim": "middle",
    "nut_torque": torque("61 N·m"), "lock": "pin", "clocks": "12, 6", "max_shims": 8,
    "balance": "even", "source_kind": "hub", "source": "Sheet 1 (invented)", "note": "",
}  # fmt: skip


@dataclass
class Shop:
    """One workshop and the things in it."""

    workshop: Workshop
    people: dict[str, User]
    card: SpecCard
    vehicle: Vehicle
    gauge: Gauge
    job: Job

    def client(self, role: str = "tech") -> Client:
        """A browser signed in as a role."""
        client = Client()
        client.force_login(self.people[role])
        return client

    @property
    def tech(self) -> User:
        """The technician."""
        return self.people["tech"]

    def trial(self, shims: str = "0.50, 0.10", /, **changes: Any) -> Trial:
        """Begin a trial with a pack."""
        usual: dict[str, Any] = {
            "pack": [mm(shim) for shim in shims.split(",") if shim.strip()],
            "gauge": self.gauge, "dial_place": "axis", "turned": False, "nut_torque": torque("61 N·m"),
            "as_found": False, "after": self.job.trials.count(), "token": uuid.uuid4(),
        }  # fmt: skip
        return bench.begin_trial(self.job, self.tech, **{**usual, **changes})

    def read(self, *pairs: tuple[str, str]) -> None:
        """Read the latest trial at 12 and 6: pairs of (in, out)."""
        number = self.job.trials.count()
        for clock, pair in zip(("12", "6"), pairs, strict=False):
            for push, value in zip(("in", "out"), pair, strict=True):
                self.one(clock, push, value, number)

    def one(self, clock: str, push: str, value: str, number: int = 1, **more: Any) -> Any:
        """One reading."""
        more.setdefault("token", uuid.uuid4())
        return bench.read(
            self.job, self.tech, value=mm(value), clock=clock, push=push, trial=number, **more
        )


def make_shop(name: str) -> Shop:
    """A workshop with a card, a vehicle, a gauge, a tray and an open job."""
    workshop = Workshop.objects.create(name=name)
    people = {}
    for role in Role.values:
        people[role] = User.objects.create_user(f"{role} of {name}", password=f"{name} password")
        Membership.objects.create(user=people[role], workshop=workshop, role=role)
    card = new_card(
        workshop, people["lead"], name="hub", arrangement="shimmed_pair", stack=STACK, **SAYS
    )
    vehicle = add_vehicle(workshop, name="trailer", kind="trailer", axles=1, air_braked=True)
    gauge = add_gauge(workshop, name="dial", resolution=mm("0.01 mm"), calibration=None)
    for shim, count in (("0.05 mm", 2), ("0.10 mm", 3), ("0.50 mm", 1), ("4 thou", 1)):
        add_shims(workshop, nominal=mm(shim), measured=None, count=count)
    job = bench.open_job(workshop, people["tech"], vehicle.wheel_ends.first(), card=card)
    return Shop(workshop, people, card, vehicle, gauge, job)


@pytest.fixture
def shop(db: None) -> Shop:
    """Our workshop."""
    return make_shop("ours")


@pytest.fixture
def other(db: None) -> Shop:
    """Another workshop."""
    return make_shop("theirs")
