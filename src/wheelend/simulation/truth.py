"""What a virtual wheel end is in truth: its parts, its shims as they are, and what is wrong with it."""

from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, field
from random import Random
from typing import Literal

from wheelend.shims import Pack, TrayShim
from wheelend.shims.problem import millimetres, steps
from wheelend.wording import MM_PER_THOU

FaultKind = Literal[
    "none", "slip", "moved", "runout", "not_home", "dirt", "torque", "miscounted", "mixed_units"
]

FAULTS: tuple[FaultKind, ...] = (
    "slip", "moved", "runout", "not_home", "dirt", "torque", "miscounted", "mixed_units"
)  # fmt: skip
"""Every fault that can be put into a job."""

_MARKED = 0.02
"""How near a thickness must be to whole thou to be marked in them."""

_GOES_HOME = 0.65
"""How often a ring that is off its shoulder goes home when it is seated again with a mallet."""


@dataclass(frozen=True)
class Shim:
    """One shim: the thickness that it counts as, and the one that it has; mm."""

    counts_mm: float
    true_mm: float


@dataclass
class Fault:
    """What is wrong in one trial of a job, counted from 0; `size_mm` how much, always positive.

    `sign` is the way in which the play is off where the kind leaves it open. `other_wrench`: the
    fault of torque left its trace on the page.
    """

    kind: FaultKind
    trial: int = 0
    size_mm: float = 0.0
    sign: int = 1
    other_wrench: bool = False
    over: bool = False

    def extra_mm(self, trial: int, opens: int) -> float:
        """By how much the play of a trial is off its true value, in mm."""
        if trial != self.trial or self.over:
            return 0.0
        if self.kind == "not_home":
            return -self.size_mm if opens > 0 else self.sign * self.size_mm
        if self.kind == "dirt":
            return opens * self.size_mm
        return self.size_mm if self.kind == "torque" else 0.0

    def seat_again(self, rng: Random) -> None:
        """Seat it both ways at working torque: the nut is tight then, a ring may go home."""
        if self.kind == "torque" or (self.kind == "not_home" and rng.random() < _GOES_HOME):
            self.over = True


class Tray:
    """Loose shims, each with its own true thickness; what counts as one thickness lies together."""

    def __init__(
        self, rng: Random, stock: Iterable[tuple[float, int]], doubt_mm: float = 0.004
    ) -> None:
        self.rng, self.doubt_mm = rng, doubt_mm
        self.loose: dict[int, list[Shim]] = defaultdict(list)
        for thickness, count in stock:
            self.put(thickness, count)

    def put(self, thickness_mm: float, count: int = 1) -> None:
        """Lay new shims of one thickness in."""
        for _ in range(count):
            true = max(thickness_mm + self.rng.gauss(0, self.doubt_mm), 0.001)
            self.loose[steps(thickness_mm)].append(Shim(thickness_mm, true))

    def take(self, thickness_mm: float) -> Shim:
        """Take one. Raises IndexError where none is left."""
        return self.loose[steps(thickness_mm)].pop()

    def give_back(self, shims: Iterable[Shim]) -> None:
        """Lay shims back."""
        for shim in shims:
            self.loose[steps(shim.counts_mm)].append(shim)

    @property
    def listed(self) -> tuple[TrayShim, ...]:
        """The tray as a list of thicknesses and counts."""
        there = sorted((thick, len(shims)) for thick, shims in self.loose.items() if shims)
        return tuple(TrayShim(millimetres(thick), count) for thick, count in there)


@dataclass
class WheelEnd:
    """A wheel end: its play without any shim, what a thicker pack does, and the shims that are in.

    `fitted` are the shims of each side as they are, `listed` as the list says. `seat_mm` is the
    standard deviation of a play when it is seated anew. Lengths in mm.
    """

    bare_mm: float
    opens: int
    tray: Tray
    fault: Fault
    seat_mm: float = 0.003
    fitted: tuple[list[Shim], ...] = ()
    listed: Pack = ()
    trial: int = -1
    strays: list[Shim] = field(default_factory=list)
    mislabelled: dict[int, float] = field(default_factory=dict)

    def fit(self, pack: Pack) -> Pack:
        """Open, fit a pack by its list, close: the next trial. Returns the list as it is written."""
        self.trial += 1
        before = Counter(steps(one) for side in self.listed for one in side)
        for side in self.fitted:
            self.tray.give_back(side)
        self.fitted = tuple([self._take(one) for one in side] for side in pack)
        self.listed = pack
        self._part_strays(before)
        if self.fault.trial == self.trial and not self.fault.over:
            self._handle_badly(before)
        return self.listed

    def _take(self, thickness_mm: float) -> Shim:
        """A shim as the list has it: one that is written wrongly is known by its wrong mark."""
        real = self.mislabelled.get(steps(thickness_mm), thickness_mm)
        return self.tray.take(real if self.tray.loose[steps(real)] else thickness_mm)

    def _part_strays(self, before: Counter[int]) -> None:
        """A shim that sticks to another goes where that one goes."""
        now = Counter(steps(one) for side in self.listed for one in side)
        for stray in self.strays[:]:
            if now[steps(stray.counts_mm)] < before[steps(stray.counts_mm)]:
                self.strays.remove(stray)
                self.tray.give_back([stray])

    def _handle_badly(self, before: Counter[int]) -> None:
        """A shim sticks to one that is put in, or stays behind; or one is written in the other unit."""
        now = Counter(steps(one) for side in self.listed for one in side)
        put_in = [millimetres(one) for one in (now - before).elements()]
        taken_out = [millimetres(one) for one in (before - now).elements()]
        if self.fault.kind == "miscounted" and (put_in or taken_out):
            thickness = self.tray.rng.choice(put_in or taken_out)
            if self.tray.loose[steps(thickness)]:
                self.strays.append(self.tray.take(thickness))
        if self.fault.kind == "mixed_units" and put_in:
            thickness = self.tray.rng.choice(put_in)
            other = in_other_unit(thickness)
            self.mislabelled[steps(other)] = thickness
            self.listed = tuple(_put(side, thickness, other) for side in self.listed)

    @property
    def really_in(self) -> Pack:
        """The pack as a micrometer finds it."""
        sides = [[shim.counts_mm for shim in side] for side in self.fitted]
        sides[0] += [shim.counts_mm for shim in self.strays]
        return tuple(tuple(side) for side in sides)

    @property
    def play_mm(self) -> float:
        """The true play as it is closed now; negative where it binds."""
        pack = sum(shim.true_mm for side in self.fitted for shim in side)
        pack += sum(shim.true_mm for shim in self.strays)
        extra = self.fault.extra_mm(self.trial, self.opens)
        return self.bare_mm + self.opens * pack + extra

    def measured(self) -> None:
        """The pack was measured shim by shim: what was wrong with it is over."""
        self.listed = self.really_in
        self.fitted[0].extend(self.strays)
        self.strays, self.mislabelled = [], {}
        self.fault.over = True


def in_other_unit(thickness_mm: float) -> float:
    """A thickness as it counts when its mark is read in the unit that is not on it; mm.

    >>> in_other_unit(0.1016), in_other_unit(0.10)
    (0.04, 0.254)
    """
    thou = thickness_mm / MM_PER_THOU
    if abs(thou - round(thou)) < _MARKED:
        return round(thou) / 100
    return round(round(thickness_mm * 100) * MM_PER_THOU, 4)


def _put(side: tuple[float, ...], one: float, other: float) -> tuple[float, ...]:
    """A side's list with one of its thicknesses written as another."""
    if one not in side:
        return side
    at = side.index(one)
    return (*side[:at], other, *side[at + 1 :])
