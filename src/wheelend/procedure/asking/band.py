"""Turning torque, or a pull: the band between which the needle swings, the first jerk left out.

Places: `low` and `high`, and `radius` where a string's force is to be a torque. It may end in a word instead:
moved by thumb, which is set by feel.
"""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from wheelend.card import Figure
from wheelend.compare import Known
from wheelend.drag import band_of_pull
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Instrument, Written
from wheelend.quantity import FORCE, TORQUE, Dimension, is_of, last_digit
from wheelend.verdict import Gauge, Limits, Verdict, of_band

PLACES = ("low", "high", "radius")
WORDS = {"low": "least of the swing", "high": "most of the swing", "radius": "radius of the pull"}
ADDING = {"fit_drag": "the fit", "seal_drag": "the seals", "grease_drag": "the grease"}
"""Kinds of step at which it is said what something adds, each in words."""
UNLIMITED = frozenset({"drag_in_fork", *ADDING})
"""Kinds that the card gives no window: held against what was read in the hub, or adding to it."""
THUMB = "thumb"
ANSWERS = (THUMB,)


@dataclass(frozen=True)
class Swing:
    """A band as it was read, in N·m or, of a pull that is judged as one, in N.

    `step` is the last digit, or the instrument's own where that is coarser; `off` what the instrument may
    be off (k = 2), and `wrong` why it proves nothing, empty where it may.
    """

    band: tuple[float, float]
    step: float
    unit: Literal["N·m", "N"]
    rows: tuple[Written, ...]
    off: float = 0.0
    wrong: str = ""

    @property
    def middle(self) -> float:
        """The middle of the band."""
        return sum(self.band) / 2

    @property
    def U(self) -> float:  # noqa: N802
        """The expanded doubt of its middle: the last digit, half the swing, and the instrument's."""
        return math.hypot(self._own, self.off)

    @property
    def _own(self) -> float:
        return math.hypot(2 * self.step / 12**0.5, (self.band[1] - self.band[0]) / 2)

    def beside(self, other: "Swing") -> Known:
        """Its middle beside another swing: what an instrument is off by is the same in both that it read."""
        same = bool(self.tools) and self.tools == other.tools
        return Known(self.middle, self._own if same else self.U)

    @property
    def tools(self) -> frozenset[str]:
        """The names of the instruments that it was read with."""
        return frozenset(row.instrument.name for row in self.rows if row.instrument)

    def verdict(self, limits: Limits) -> Verdict:
        """Whether all of the swing is inside."""
        return of_band(self.band, limits, Gauge(self.step, self.off))


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
    if at.step.kind in UNLIMITED:
        return None, TORQUE
    window = setting.drag
    if at.step.kind == "drag_in_hub":
        window = setting.drag_in_hub or setting.drag
    if window is None and setting.pull is not None:
        return setting.pull.limits, FORCE
    return (window.limits if window else None), TORQUE


def swing_of(at: At, rows: Mapping[str, Written] | None = None) -> Swing | None:
    """The band that was read at a step; None while one of its places is missing."""
    said = current(at) if rows is None else rows
    return swing_from(said, at.setting.arm, limits_of(at)[1])


def swing_from(
    said: Mapping[str, Written], arm: Figure | None, wanted: Dimension = TORQUE
) -> Swing | None:
    """The band of what was said at its places; None while it is not whole, or a pull has no radius."""
    if "low" not in said or "high" not in said:
        return None
    ends = (said["low"], said["high"])
    forces = _is_force(said)
    if forces != all(is_of(row.typed, FORCE) for row in ends):
        return None  # One a pull, the other a torque: no swing goes from one to the other.
    low, high = sorted(float(row.value or 0) for row in ends)
    step = max(float(last_digit(row.typed, FORCE if forces else TORQUE)) for row in ends)
    meters = [row.instrument.meter for row in ends if row.instrument]
    step = max([step, *(one.resolution for one in meters)])
    off = max((one.calibration for one in meters), default=0.0)
    kept = tuple(said[place] for place in PLACES if place in said)
    if not forces or wanted is FORCE:
        return Swing((low, high), step, "N" if forces else "N·m", kept, off, _wrong(ends))
    arm_mm = _radius(said, arm)
    if not arm_mm:
        return None
    band, lever = band_of_pull((low, high), arm_mm), arm_mm / 1000
    return Swing(band, step * lever, "N·m", kept, off * lever, _wrong(ends))


def _wrong(ends: Iterable[Written]) -> str:
    """Why least and most prove nothing by what they were read with; empty where they may."""
    for row in ends:
        if row.instrument is None:
            return "no instrument named"
        if misread(row.typed, row.instrument):
            return misread(row.typed, row.instrument)
        if row.instrument.wrench.calibration_due:
            return f"{row.instrument.name} is past its check"
    return ""


def mixed(at: At, place: str, typed: str) -> str:
    """What is wrong where one end of a swing is a pull and the other a torque; empty where both are alike."""
    beside = current(at).get({"low": "high", "high": "low"}.get(place, ""))
    if beside is None or at.step.entry != "band":
        return ""
    wanted = FORCE if is_of(beside.typed, FORCE) else TORQUE
    if is_of(typed, wanted):
        return ""
    where = _words(at, beside.place)
    return f"{typed} is no {wanted.name}, and the {where} was {beside.typed}; give both alike."


_READS = {"scale": FORCE, "torque_meter": TORQUE}


def misread(typed: str, tool: Instrument) -> str:
    """What is wrong where an instrument does not read what was typed; empty where it may."""
    reads = _READS.get(str(tool.facts.get("kind")))
    if reads is None or is_of(typed, reads):
        return ""
    return f"{tool.name} reads {reads.article} {reads.name}, and {typed} is none"


def _is_force(said: Mapping[str, Written]) -> bool:
    return any(is_of(said[place].typed, FORCE) for place in ("low", "high") if place in said)


def _radius(said: Mapping[str, Written], arm: Figure | None) -> float:
    if "radius" in said:
        return float(said["radius"].value or 0)
    return arm.value if arm else 0.0


def needs_radius(at: At, said: Mapping[str, Written]) -> bool:
    """Whether a force was read where a torque is judged, and nobody said at which radius."""
    return _is_force(said) and limits_of(at)[1] is TORQUE and not _radius(said, at.setting.arm)


def outside(at: At) -> Verdict | None:
    """The verdict where it keeps the step open: all of the swing is not inside; None where it does not."""
    swing, (limits, wanted) = swing_of(at), limits_of(at)
    if swing is None or limits is None or (wanted is FORCE) != (swing.unit == "N"):
        return None
    said = swing.verdict(limits)
    if said.because == "gauge_too_coarse":
        return None  # Read again it says no more: it is not proven, and the work goes on.
    return None if said.word == "within" or at.step.phase == "trial" else said


def _words(at: At, place: str) -> str:
    if at.step.kind in ADDING and place != "radius":
        return "at least" if place == "low" else "at most"
    return WORDS[place]


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
        return Slot(place, number, words=_words(at, place))

    def lines(self, at: At) -> tuple[Line, ...]:
        if by_thumb(at):
            return (Line(titled(at), "stiff, but it moves", at.entries),)
        said = current(at)
        rows = tuple(said[place] for place in PLACES if place in said)
        shown = " to ".join(said[place].typed for place in ("low", "high") if place in said)
        return (Line(titled(at), shown, rows, due=True),)
