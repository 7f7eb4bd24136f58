"""Setting a spacer by turning torque: the line through the trials, and the next spacer.

Torques in N·m, lengths in mm. Of one spacer the latest trial counts.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput
from wheelend.verdict import SAME, Gauge, Limits, Word, of_band

Basis = Literal["keep", "interpolated", "extrapolated", "first_step"]
Thicker = Literal["loosens", "tightens"]
Band = tuple[float, float]


@dataclass(frozen=True)
class DragTrial:
    """One trial: the spacer that was in, and the swing of the needle while it was turned steadily."""

    spacer_mm: float
    band: Band

    @property
    def drag(self) -> float:
        """The middle of the band, N·m."""
        return (self.band[0] + self.band[1]) / 2


@dataclass(frozen=True)
class Steps:
    """Which way a thicker spacer works, and how much to dare at once; the card says so."""

    thicker: Thicker
    first_mm: float
    most_mm: float

    def __post_init__(self) -> None:
        if not self.first_mm > 0:
            raise BadInput("first_step", f"{self.first_mm:g} mm", "must be above 0")
        if self.first_mm > self.most_mm + SAME:
            need = f"is above max_step, {self.most_mm:g} mm; give a smaller one"
            raise BadInput("first_step", f"{self.first_mm:g} mm", need)

    @property
    def sign(self) -> int:
        """+1 where a thicker spacer gives more drag."""
        return 1 if self.thicker == "tightens" else -1


@dataclass(frozen=True)
class Drag:
    """The latest trial's verdict and drag, the next spacer and the change to it; `slope` in N·m/mm."""

    verdict: Word
    drag: float
    U: float
    basis: Basis
    change_mm: float | None = None
    next_mm: float | None = None
    slope: float | None = None
    flags: tuple[str, ...] = ()


def band_of_pull(force_N: Band, radius_mm: float) -> Band:
    """The turning torque of a string's pull at a radius, N·m. Raises BadInput for no radius.

    >>> band_of_pull((20.0, 24.0), 50.0)
    (1.0, 1.2)
    """
    if not radius_mm > 0:
        raise BadInput("radius", f"{radius_mm:g} mm", "must be above 0")
    return force_N[0] * radius_mm / 1000, force_N[1] * radius_mm / 1000


def next_spacer(
    trials: Sequence[DragTrial],
    limits: Limits,
    resolution: float,
    steps: Steps,
    *,
    aim: float | None = None,
    calibration: float = 0.0,
) -> Drag:
    """What the trials say, and which spacer to fit next.

    Within the limits with all its doubt: keep. Else a straight line through the two trials of different
    spacers whose drags lie nearest the aim, on both sides of it where possible, and a change of at most
    `steps.most_mm`; with one trial, or no line that can be believed, the first step the right way. `aim`
    None aims at the middle. Raises BadInput for no trials, or limits with an end missing.
    Source: turning torque is near linear in the squeeze of the bearings over one small step (shop practice).

    >>> trials = [DragTrial(8.0, (1.5, 1.7)), DragTrial(8.02, (0.5, 0.7))]
    >>> found = next_spacer(trials, Limits(0.8, 1.4), 0.05, Steps("loosens", 0.02, 0.05))
    >>> found.basis, round(found.next_mm, 3)
    ('interpolated', 8.01)
    """
    if not trials:
        raise BadInput("trials", "", "give one or more trials")
    if limits.low is None or limits.high is None:
        raise BadInput("limits", "", "need low and high")
    last = trials[-1]
    said = of_band(last.band, limits, Gauge(resolution, calibration))
    wanted = (limits.low + limits.high) / 2 if aim is None else aim
    slope, between, flags = _line(trials, wanted, steps)
    if said.word == "within":
        return Drag(said.word, last.drag, said.U, "keep", slope=slope)
    off = wanted - last.drag
    if slope is None:
        change = steps.first_mm * math.copysign(1, off) * steps.sign if abs(off) > SAME else 0.0
        basis: Basis = "first_step"
    else:
        change = max(-steps.most_mm, min(steps.most_mm, off / slope))
        basis = "interpolated" if between else "extrapolated"
    return Drag(
        said.word, last.drag, said.U, basis, change, last.spacer_mm + change, slope, flags
    )  # fmt: skip


def _line(
    trials: Sequence[DragTrial], aim: float, steps: Steps
) -> tuple[float | None, bool, tuple[str, ...]]:
    """The slope of the line that is believed, whether the aim lies on it between two trials, flags."""
    latest = {round(one.spacer_mm, 6): one for one in trials}
    nearest = sorted(latest.values(), key=lambda one: abs(one.drag - aim))
    if len(nearest) < 2:
        return None, False, ()
    below = [one for one in nearest if one.drag <= aim]
    above = [one for one in nearest if one.drag > aim]
    between = bool(below and above)
    first, second = (below[0], above[0]) if between else nearest[:2]
    rise = second.drag - first.drag
    run = second.spacer_mm - first.spacer_mm
    if abs(rise) <= SAME:
        return None, False, ()
    if rise / run * steps.sign < 0:
        return None, False, ("wrong_way",)
    return rise / run, between, ()
