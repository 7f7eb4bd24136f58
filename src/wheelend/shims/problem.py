"""What the shim planner is asked, and what it answers."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput
from wheelend.quantity import GRID_PER_MM
from wheelend.verdict import SEATING_AGAIN_MM, Limits, Word

Effect = Literal["opens", "closes"]
Outcome = Literal["play", "bound", "no_play"]
Kind = Literal["fit", "keep", "over_shim", "none"]
Pack = tuple[tuple[float, ...], ...]
"""Thicknesses in mm, one tuple a side: one side, or left and right."""

MOST_SIDES = 2
"""Left and right: no more packs set one play between them."""

MOST_SHIMS = 50
"""No side of a wheel end takes a pack of more."""

SHIM_DOUBT_MM = 0.004
"""Standard deviation of one shim about what it counts as. Source: shop practice, micrometer."""

THICKEST_MM = 100.0
"""Anything thicker is no shim; planning with it would only cost memory."""


@dataclass(frozen=True)
class Trial:
    """A pack that was fitted, and what was found; lengths in mm.

    `play_mm` belongs to the outcome "play" and to no other. "bound": too tight to read;
    "no_play": free, and no movement to be read. Raises BadInput where these do not fit together.
    """

    pack: Pack
    outcome: Outcome
    play_mm: float | None = None

    def __post_init__(self) -> None:
        check_thicknesses((shim for side in self.pack for shim in side), "pack")
        if (self.outcome == "play") != (self.play_mm is not None):
            raise BadInput("result", "", 'give {"play": …}, "bound" or "no_play"')
        if self.play_mm is not None and self.play_mm < 0:
            raise BadInput("result.play", f"{self.play_mm:g} mm", "must not be negative")


@dataclass(frozen=True)
class TrayShim:
    """Loose shims of one thickness in mm."""

    thickness_mm: float
    count: int

    def __post_init__(self) -> None:
        check_thicknesses([self.thickness_mm], "thickness")
        if self.count < 0:
            raise BadInput("count", str(self.count), "must not be negative")


@dataclass(frozen=True)
class Problem:
    """A shim-planning case; lengths in mm.

    `effect` is what a thicker pack does to play. `trials` come oldest first, at least one.
    `aim` is "middle", "low", "high" or a play in mm. `max_shims` counts per side.
    `balance` "even" keeps left and right within `balance_tolerance_mm` (default: the window);
    "as_found" changes only a side that has shims. `search_step_mm` (default: twice the window) is
    how far to open after trials without play. `repeatability_mm` is the scatter of seating it again,
    `shim_doubt_mm` that of one shim about what it counts as. Raises BadInput naming the field.
    """

    effect: Effect
    sides: int
    trials: tuple[Trial, ...]
    tray: tuple[TrayShim, ...]
    limits: Limits
    resolution_mm: float
    aim: Literal["middle", "low", "high"] | float = "middle"
    pack_resolution_mm: float = 0.0
    repeatability_mm: float = SEATING_AGAIN_MM
    shim_doubt_mm: float = SHIM_DOUBT_MM
    max_shims: int = 8
    balance: Literal["even", "as_found"] = "even"
    balance_tolerance_mm: float | None = None
    search_step_mm: float | None = None

    def __post_init__(self) -> None:
        if not 1 <= self.sides <= MOST_SIDES:
            raise BadInput("sides", str(self.sides), "is not 1 or 2")
        if not self.trials:
            raise BadInput("trials", "", "give one or more trials, oldest first")
        if any(len(trial.pack) != self.sides for trial in self.trials):
            raise BadInput("trials", "", f"every pack needs {self.sides} side(s)")
        self._check_limits()
        self._check_lengths()
        if not 1 <= self.max_shims <= MOST_SHIMS:
            raise BadInput("max_shims", str(self.max_shims), f"is not 1 to {MOST_SHIMS}")

    def _check_limits(self) -> None:
        if self.limits.window is None:
            raise BadInput("limits", "", "give both low and high")
        if self.search_step_mm is None and not self.window_mm > 0:
            raise BadInput("search_step", "", "give it where the limits leave no window")

    def _check_lengths(self) -> None:
        for name in ("resolution", "search_step"):
            value = getattr(self, f"{name}_mm")
            if value is not None and not value > 0:
                raise BadInput(name, f"{value:g} mm", "must be above 0")
        for name in ("pack_resolution", "balance_tolerance", "repeatability", "shim_doubt"):
            value = getattr(self, f"{name}_mm")
            if value is not None and value < 0:
                raise BadInput(name, f"{value:g} mm", "must not be negative")

    @property
    def window_mm(self) -> float:
        """From the low to the high limit."""
        return self.limits.window or 0.0

    @property
    def sign(self) -> int:
        """+1 where a thicker pack opens, −1 where it closes."""
        return 1 if self.effect == "opens" else -1

    @property
    def shared(self) -> bool:
        """Whether two packs set one play between them."""
        return self.sides > 1

    @property
    def latest(self) -> Trial:
        """The trial whose pack is on the shaft."""
        return self.trials[-1]


@dataclass(frozen=True)
class Buy:
    """The shim that would do, on the 0.01 mm and on the 1 thou grid; None where none would."""

    metric_mm: float | None
    inch_mm: float | None


@dataclass(frozen=True)
class Choice:
    """One pack that could be fitted; lengths in mm, one tuple a side."""

    pack: Pack
    add: Pack
    remove: Pack
    predicted_mm: float | None
    verdict: Word | None

    @property
    def changes(self) -> int:
        """Shims taken out plus shims put in."""
        return sum(len(side) for side in (*self.add, *self.remove))


@dataclass(frozen=True)
class ShimPlan:
    """What to fit next, what it will give, and what else would do; lengths in mm."""

    kind: Kind
    U_mm: float
    flags: tuple[str, ...]
    choice: Choice | None = None
    alternatives: tuple[Choice, ...] = ()
    buy: Buy | None = None
    disagree: tuple[int, int] | None = None
    contradicted: tuple[int, ...] = ()


def check_thicknesses(thicknesses: Iterable[float], path: str) -> None:
    """Raise BadInput for a thickness in mm that no shim has."""
    for thickness in thicknesses:
        if thickness < 0:
            raise BadInput(path, f"{thickness:g} mm", "must not be negative")
        if thickness > THICKEST_MM:
            need = f"is too thick for a shim; give at most {THICKEST_MM:g} mm"
            raise BadInput(path, f"{thickness:g} mm", need)


def steps(length_mm: float) -> int:
    """A length in mm as whole 10 nm steps."""
    return round(length_mm * GRID_PER_MM)


def millimetres(length_steps: float) -> float:
    """A length in 10 nm steps as mm."""
    return length_steps / GRID_PER_MM


def total_mm(pack: Pack) -> float:
    """The thickness of a pack, both sides together, in mm."""
    return millimetres(sum(steps(shim) for side in pack for shim in side))
