"""A warm housing and a chilled ring: the countdown followed, against a fixed minute and a touch of the hand.

Hidden are the true sizes, how fast this housing cools, how far it was warmed through, what the thermometer
is off by, and how quick the hands are. A ring drops in free where the true gap is more than nothing for as
long as it takes to go down; else it grips.
"""

import math
from dataclasses import dataclass
from random import Random
from typing import Literal

from wheelend.cooling import cooling
from wheelend.errors import BadInput
from wheelend.fit import ROOM_DEGC, Fit, Ring, Warmth, fit_in_housing

Way = Literal["countdown", "fixed minute", "touch"]
WAYS: tuple[Way, ...] = ("countdown", "fixed minute", "touch")
_GOES_DOWN_S = 4.0
_MOST_WARMINGS = 3
_TOUCH_DEGC = 18.0
"""How far a hand is off: skin tells hot, not how hot."""


@dataclass(frozen=True)
class Outcome:
    """How one ring went: free, gripped half way, or given up after three warmings; minutes; too hot or not."""

    free: bool
    gripped: bool
    minutes: float
    overheated: bool


@dataclass(frozen=True)
class Truth:
    """What nobody sees. Lengths in mm, temperatures in °C, times in s; `carried_K` is
    how much the ring warms on its way from the cold."""

    ring: Ring
    around_mm: float
    material: str
    low_mm: float
    high_mm: float
    interference_mm: float
    ring_degC: float
    air_degC: float
    tau_s: float
    limit_degC: float
    carried_K: float
    bias_degC: float
    hands_s: float

    def gap(self, degC: float) -> float:
        """The true gap at a temperature of the housing."""
        warmed = self.ring_degC + self.carried_K
        return self._fit(self.interference_mm, degC, warmed).gap_mm or 0.0

    def needed(self) -> float:
        """What the product says it must have: at the tightest of the card's sizes."""
        return self._fit(self.high_mm, ROOM_DEGC, self.ring_degC).needed_degC

    def _fit(self, interference: float, degC: float, ring_degC: float) -> Fit:
        warmth = Warmth(ring_degC, degC)
        return fit_in_housing(self.ring, self.around_mm, self.material, interference, warmth=warmth)

    def at(self, start: float, seconds: float) -> float:
        """The housing's temperature so long after it left the heat."""
        return self.air_degC + (start - self.air_degC) * math.exp(-seconds / self.tau_s)

    def reads(self, rng: Random, degC: float) -> float:
        """What the thermometer shows: to a whole degree."""
        return float(round(degC + self.bias_degC + rng.gauss(0, 0.7)))

    def drops(self, start: float, at_s: float) -> bool:
        """Whether it goes down free, begun at a time after the heat."""
        return self.gap(self.at(start, at_s + _GOES_DOWN_S)) > 0


def truth(rng: Random) -> Truth:
    """A housing and its ring that can be done warm within the limit: aluminium or iron, car's or truck's."""
    while True:
        drawn = _drawn(rng)
        if 40 < drawn.needed() < drawn.limit_degC - 12:
            return drawn


def _drawn(rng: Random) -> Truth:
    outside = rng.uniform(50, 130)
    material = rng.choice(("aluminium", "ductile_iron"))
    aim = outside * rng.uniform(0.0006, 0.0016)
    half = rng.uniform(0.004, 0.012)
    return Truth(
        ring=Ring(outside, outside * 0.9, outside * 0.22),
        around_mm=outside * rng.uniform(1.35, 1.8),
        material=material,
        low_mm=aim - half,
        high_mm=aim + half,
        interference_mm=rng.uniform(aim - half, aim + half),
        ring_degC=rng.uniform(-22, -15),
        air_degC=rng.uniform(8, 32),
        tau_s=rng.uniform(250, 1500),
        limit_degC=120,
        carried_K=rng.uniform(1, 6),
        bias_degC=rng.gauss(0, 1.5),
        hands_s=rng.uniform(8, 40),
    )


def press(rng: Random, seen: Truth, way: Way) -> Outcome:
    """Bring one ring home, warming the housing again at most twice."""
    minutes, hot = 0.0, 0.0
    for again in range(_MOST_WARMINGS):
        start = _warmed(rng, seen, way, again=again > 0)
        hot = max(hot, start)
        minutes += 15
        at_s = _waits(rng, seen, way, start, again=again > 0)
        if at_s is None:
            minutes += 2
            continue
        minutes += at_s / 60
        free = seen.drops(start, at_s)
        return Outcome(free, not free, minutes, hot > seen.limit_degC)
    return Outcome(False, False, minutes, hot > seen.limit_degC)


def _warmed(rng: Random, seen: Truth, way: Way, *, again: bool) -> float:
    """How warm it is as it leaves the heat: by the thermometer, or by time and habit."""
    if way != "countdown":
        return rng.gauss(95, 15)
    most = seen.limit_degC - 4
    wanted = most if again else min(seen.needed() + rng.uniform(10, 35), most)
    return wanted - seen.bias_degC + rng.gauss(0, 1)


def _waits(rng: Random, seen: Truth, way: Way, start: float, *, again: bool) -> float | None:
    """When it is begun, after the heat; None where it is warmed again instead."""
    if way == "fixed minute":
        return 60.0
    if way == "touch":
        at_s = rng.uniform(20, 120)
        felt = seen.at(start, at_s) + rng.gauss(0, _TOUCH_DEGC)
        return at_s if felt > 60 else None
    first, apart = rng.uniform(10, 30), rng.uniform(30, 45) if again else rng.uniform(45, 75)
    readings = [(s, seen.reads(rng, seen.at(start, s))) for s in (first, first + apart)]
    try:
        left = cooling(readings, seen.air_degC + rng.gauss(0, 0.5), seen.needed()).left_s
    except BadInput:
        left = None
    if left is not None and left < seen.hands_s + _GOES_DOWN_S:
        return None
    return first + apart + seen.hands_s
