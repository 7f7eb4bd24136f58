"""The conditions that advice is tried under, each a way of drawing wheel ends and those who work them."""

from collections.abc import Callable
from dataclasses import dataclass
from random import Random
from typing import Any

from wheelend.arrangements import arrangement
from wheelend.card import Card, card_from
from wheelend.methods.judgement import Dial
from wheelend.shims import Pack
from wheelend.simulation.book import Book, instrument
from wheelend.simulation.dial import DialStand, dial_stand
from wheelend.simulation.follower import Follower
from wheelend.simulation.truth import FAULTS, Fault, FaultKind, Tray, WheelEnd

STOCK = (
    (0.05, 3), (0.0762, 2), (0.10, 3), (0.127, 2), (0.15, 2), (0.20, 3), (0.254, 2), (0.25, 2),
    (0.30, 2), (0.40, 2), (0.50, 3),
)  # fmt: skip
"""A tray as shops have it: metric and inch."""


_THIN = ((0.15,), (0.20,), (0.10, 0.05), (0.20, 0.05), (0.20, 0.10), (0.10, 0.10))
_HAIR = 1e-6
"""How far outside a truth on the limit lies, so that it is outside."""


@dataclass(frozen=True)
class Setup:
    """What stays the same over a condition. Lengths in mm.

    `away` is how far the first pack's play is from the middle of the window; `on_limit` puts the
    truth of it on one of the limits. `finer` are other dials of the shop.
    """

    step: float = 0.01
    places: tuple[str, ...] = ("12", "4", "8")
    arrangement: str = "shimmed_pair"
    effect: str = "opens"
    low: float = 0.05
    high: float = 0.15
    seat: float = 0.003
    repeatability: float | None = None
    away: tuple[float, float] = (-0.08, 0.35)
    on_limit: bool = False
    thin: bool = False
    faults: tuple[FaultKind, ...] = ()
    fault_trials: tuple[int, ...] = (0, 1)
    finer: tuple[float, ...] = ()
    needed: tuple[float, float] = (0.45, 0.95)


def card_of(setup: Setup) -> Card:
    """The card of a condition."""
    family = arrangement(setup.arrangement)
    said: dict[str, Any] = {
        "method": "shims", "clamp": family.setting_clamp.set_by, "effect": setup.effect, "source": "sheet",
        "limits": {"low": f"{setup.low:g} mm", "high": f"{setup.high:g} mm"},
        "torque": "61 N·m", "torque_limits": {"low": "55 N·m", "high": "90 N·m"},
    }  # fmt: skip
    if setup.repeatability is not None:
        said["repeatability"] = f"{setup.repeatability:g} mm"
    document: dict[str, Any] = {
        "format": "zesty-spindle/card/2", "name": "virtual hub",
        "arrangement": family.key,
        "sources": [{"key": "sheet", "kind": "hub_maker", "ref": "Sheet 1 (invented)"}],
        "stack": [{"part": "shim", "name": "shims"}], "settings": [said],
    }  # fmt: skip
    if family.read_at == "clock":
        document["read_at"] = list(setup.places)
    return card_from(document)


def follower_of(setup: Setup, card: Card, rng: Random) -> tuple[Follower, Pack]:
    """One wheel end of a condition, with someone at it, and the pack that they begin with."""
    tray = Tray(rng, STOCK, doubt_mm=0.0 if setup.on_limit else 0.004)
    fault = _fault(setup, rng)
    pack = _first_pack(setup, rng)
    end = WheelEnd(0.0, 1 if setup.effect == "opens" else -1, tray, fault, setup.seat)
    _place(setup, rng, end, pack)
    on_face = fault.kind == "runout" or (fault.kind == "moved" and rng.random() < 1 / 3)
    stands = {f"dial {step:g} mm": dial_stand(rng, step, on_face=on_face) for step in setup.finer}
    dials = tuple(Dial(name, instrument(stand.step_mm).gauge) for name, stand in stands.items())
    book = Book(card, instrument(setup.step, on_face=on_face), dials)
    stand = dial_stand(rng, setup.step, on_face=on_face)
    if setup.on_limit:
        stand = DialStand(setup.step)
    slip_at = _slip_at(card, rng, fault)
    worker = Follower(rng, end, card, book, stand, stands, slip_at, on_face)
    total = sum(shim for side in pack for shim in side)
    first = end.bare_mm + end.opens * total
    worker.out.least = 1 if worker.limits.inside(first) else 2 + (first < 0)
    return worker, pack


def _fault(setup: Setup, rng: Random) -> Fault:
    if not setup.faults:
        return Fault("none")
    kind = rng.choice(setup.faults)
    draw: Callable[[], float] = {
        "not_home": lambda: 0.03 + rng.expovariate(1 / 0.08),
        "dirt": lambda: 0.012 + rng.expovariate(1 / 0.02),
        "torque": lambda: 0.01 + rng.expovariate(1 / 0.025),
        "moved": lambda: 0.02 + rng.expovariate(1 / 0.06),
    }.get(kind, lambda: 0.0)
    trial = rng.choice(setup.fault_trials)
    if kind == "not_home" and rng.random() < 0.5:
        trial = 0
    return Fault(kind, trial, draw(), rng.choice((-1, 1)), rng.random() < 0.5)


def _slip_at(card: Card, rng: Random, fault: Fault) -> int:
    if fault.kind != "slip":
        return -1
    readings = 2 * len(card.places)
    return fault.trial * readings + rng.randrange(readings)


def _first_pack(setup: Setup, rng: Random) -> Pack:
    if setup.thin:
        return (rng.choice(_THIN),)
    return tuple(
        (rng.choice((0.50, 0.30)), *sorted(rng.sample((0.20, 0.10, 0.05), 2), reverse=True))
        for _ in arrangement(setup.arrangement).setting_clamp.stations
    )


def _place(setup: Setup, rng: Random, end: WheelEnd, pack: Pack) -> None:
    """Give the wheel end a truth such that its first pack plays as the condition wants."""
    total = sum(shim for side in pack for shim in side)
    middle = (setup.low + setup.high) / 2
    play = middle + rng.uniform(*setup.away)
    if setup.thin:
        # Bound, and the pack that sets it is what is left when some of a thin pack is taken out.
        play = -rng.uniform(0.0, total - middle)
    end.bare_mm = play - end.opens * total
    if setup.on_limit:
        limit = rng.choice((setup.low - _HAIR, setup.high + _HAIR))
        end.bare_mm = limit - end.opens * total


def conditions() -> dict[str, Setup]:
    """Every condition by its name."""
    made: dict[str, Setup] = {}
    for step in (0.01, 0.005, 0.002, 0.001):
        made[f"clean, {step:g} mm dial"] = Setup(step)
    for step in (0.01, 0.002):
        made[f"clean, ends of an axle, {step:g} mm dial"] = Setup(step, arrangement="through_axle")
    for count, places in ((1, ("12",)), (2, ("12", "6"))):
        for step in (0.01, 0.005, 0.002, 0.001):
            name = f"on the limit, {count} place{'s' * (count > 1)}, {step:g} mm dial"
            made[name] = Setup(step, places, seat=0.004, on_limit=True)
            made[f"{name}, card’s scatter"] = Setup(
                step, places, seat=0.004, on_limit=True, repeatability=0.004
            )
    slip = {"faults": ("slip",), "fault_trials": (0,)}
    made["a slip, 3 places"] = Setup(**slip)  # type: ignore[arg-type]
    made["a slip, 1 place"] = Setup(places=("12",), **slip)  # type: ignore[arg-type]
    made["a slip, ends of an axle"] = Setup(arrangement="through_axle", **slip)  # type: ignore[arg-type]
    made["bound, thicker tightens, thin pack"] = Setup(effect="closes", thin=True)
    made["bound, thicker opens"] = Setup(away=(-0.35, -0.12))
    made["window of two dial steps"] = Setup(low=0.09, high=0.11)
    made["the same, a 0.001 mm dial in the shed"] = Setup(low=0.09, high=0.11, finer=(0.001,))
    made["any fault"] = Setup(faults=FAULTS, away=(-0.2, 0.35))
    made["any fault, 0.002 mm dial"] = Setup(0.002, faults=FAULTS, away=(-0.2, 0.35))
    return made
