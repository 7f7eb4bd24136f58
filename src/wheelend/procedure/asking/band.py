"""Turning torque, or a pull: the band between which the needle swings, the first jerk left out.

Places: `low` and `high`, and `radius` where a string's force is to be a torque. It may end in a word instead:
moved by thumb, which is set by feel.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from wheelend.drag import band_of_pull
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written
from wheelend.quantity import FORCE, TORQUE, Dimension, is_of, last_digit
from wheelend.verdict import Gauge, Limits, Verdict, of_band

PLACES = ("low", "high", "radius")
WORDS = {"low": "least of the swing", "high": "most of the swing", "radius": "radius of the pull"}
THUMB = "thumb"
ANSWERS = (THUMB,)


@dataclass(frozen=True)
class Swing:
    """A band as it was read, in N·m or, of a pull that is judged as one, in N; `step` its last digit."""

    band: tuple[float, float]
    step: float
    unit: Literal["N·m", "N"]
    rows: tuple[Written, ...]

    @property
    def middle(self) -> float:
        """The middle of the band."""
        return sum(self.band) / 2

    @property
    def U(self) -> float:  # noqa: N802
        """The expanded doubt of its middle: the last digit, and half the swing."""
        digit = 2 * self.step / 12**0.5
        return float((digit**2 + ((self.band[1] - self.band[0]) / 2) ** 2) ** 0.5)

    def verdict(self, limits: Limits) -> Verdict:
        """Whether all of the swing is inside."""
        return of_band(self.band, limits, Gauge(self.step))


def current(at: At) -> Mapping[str, Written]:
    """What stands at each place in the round that lasts."""
    last = round_of(at)
    return {row.place: row for row in at.entries if row.kind == "value" and row.round == last}


def round_of(at: At) -> int:
    """The round that is being read."""
    return max([at.gone + 1, *(row.round for row in at.entries)])


def by_thumb(at: At) -> Written | None:
    """The row that says that it was judged by thumb, in the round that lasts."""
    mine = (row for row in at.entries if row.kind == "pick" and row.round == round_of(at))
    return next(iter(mine), None)


def limits_of(at: At) -> tuple[Limits | None, Dimension]:
    """What the card allows here, and in what it is measured: turning torque, or a pull."""
    setting = at.setting
    if at.step.kind == "drag_in_fork":
        return None, TORQUE  # It is held against what was read in the hub.
    window = setting.drag
    if at.step.kind == "drag_in_hub":
        window = setting.drag_in_hub or setting.drag
    if window is None and setting.pull is not None:
        return setting.pull.limits, FORCE
    return (window.limits if window else None), TORQUE


def swing_of(at: At, rows: Mapping[str, Written] | None = None) -> Swing | None:
    """The band that was read; None while one of its places is missing."""
    said = current(at) if rows is None else rows
    if "low" not in said or "high" not in said or needs_radius(at, said):
        return None
    forces = is_of(said["low"].typed, FORCE)
    dimension = FORCE if forces else TORQUE
    low, high = sorted(float(said[place].value or 0) for place in ("low", "high"))
    step = max(float(last_digit(said[place].typed, dimension)) for place in ("low", "high"))
    kept = tuple(said[place] for place in PLACES if place in said)
    _, wanted = limits_of(at)
    if forces and wanted is FORCE:
        return Swing((low, high), step, "N", kept)
    if forces:
        radius = _radius(at, said)
        band = band_of_pull((low, high), radius)
        return Swing(band, step * radius / 1000, "N·m", kept)
    return Swing((low, high), step, "N·m", kept)


def _radius(at: At, said: Mapping[str, Written]) -> float:
    if "radius" in said:
        return float(said["radius"].value or 0)
    return at.setting.arm.value if at.setting.arm else 0.0


def needs_radius(at: At, said: Mapping[str, Written]) -> bool:
    """Whether a force was read where a torque is judged, and nobody said at which radius."""
    forces = any(is_of(said[p].typed, FORCE) for p in ("low", "high") if p in said)
    return forces and limits_of(at)[1] is TORQUE and not _radius(at, said)


def outside(at: At) -> Verdict | None:
    """The verdict where it keeps the step open: all of the swing is not inside; None where it does not."""
    swing, (limits, wanted) = swing_of(at), limits_of(at)
    if swing is None or limits is None or (wanted is FORCE) != (swing.unit == "N"):
        return None
    said = swing.verdict(limits)
    return None if said.word == "within" or at.step.phase == "trial" else said


class BandAsked:
    """Least and most of the swing; what is outside is read again, or opened."""

    def complete(self, at: At) -> bool:
        if by_thumb(at):
            return True
        return swing_of(at) is not None and outside(at) is None

    def slot(self, at: At) -> Slot:
        said = current(at)
        whole = swing_of(at) is not None
        number = round_of(at) + 1 if whole or by_thumb(at) else round_of(at)
        place = "low" if whole else next((one for one in ("low", "high") if one not in said), "")
        place = place or "radius"
        return Slot(place, number, words=WORDS[place])

    def lines(self, at: At) -> tuple[Line, ...]:
        if by_thumb(at):
            return (Line(titled(at), "stiff, but it moves", at.entries),)
        said = current(at)
        rows = tuple(said[place] for place in PLACES if place in said)
        shown = " to ".join(said[place].typed for place in ("low", "high") if place in said)
        return (Line(titled(at), shown, rows, due=True),)
