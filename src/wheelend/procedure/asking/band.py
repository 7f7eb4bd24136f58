"""Turning torque, or a pull: the band between which the needle swings, the first jerk left out.

Places: `low` and `high`, and `radius` where a string's force is to be a torque. It may end in a word instead:
moved by thumb, which is set by feel.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from wheelend.card import Figure
from wheelend.compare import Known
from wheelend.drag import band_of_pull
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written
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
        digit, half = 2 * self.step / 12**0.5, (self.band[1] - self.band[0]) / 2
        return math.hypot(digit, half, self.off)

    def beside(self, other: "Swing") -> Known:
        """Its middle beside another swing: what an instrument is off by is the same in both that it read."""
        digit, half = 2 * self.step / 12**0.5, (self.band[1] - self.band[0]) / 2
        same = bool(self.tools) and self.tools == other.tools
        return Known(self.middle, math.hypot(digit, half, 0.0 if same else self.off))

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
    """The band that was read; None while one of its places is missing."""
    said = current(at) if rows is None else rows
    if "low" not in said or "high" not in said:
        return None
    forces = is_force(said)
    step, off, wrong = known_to(said, forces=forces)
    kept = tuple(said[place] for place in PLACES if place in said)
    if forces and limits_of(at)[1] is FORCE:
        return Swing(_ends(said), step, "N", kept, off, wrong)
    band = torque_band(said, at.setting.arm)
    if band is None:
        return None
    arm = _radius(said, at.setting.arm) / 1000 if forces else 1.0
    return Swing(band, step * arm, "N·m", kept, off * arm, wrong)


def known_to(said: Mapping[str, Written], *, forces: bool) -> tuple[float, float, str]:
    """How finely least and most were read, what their instruments may be off, and why they prove nothing."""
    ends = [said[place] for place in ("low", "high")]
    step = max(float(last_digit(row.typed, FORCE if forces else TORQUE)) for row in ends)
    tools = [row.instrument for row in ends if row.instrument]
    if len(tools) < len(ends):
        return step, 0.0, "no instrument named"
    wrong = ""
    if any(tool.facts.get("kind") == ("torque_meter" if forces else "scale") for tool in tools):
        wrong = f"{tools[-1].name} reads no {'force' if forces else 'torque'}"
    elif any(tool.wrench.calibration_due for tool in tools):
        wrong = f"{tools[-1].name} is past its check"
    meters = [tool.meter for tool in tools]
    return (
        max(step, *(one.resolution for one in meters)), max(one.calibration for one in meters), wrong,
    )  # fmt: skip


def torque_band(said: Mapping[str, Written], arm: Figure | None) -> tuple[float, float] | None:
    """A swing as turning torque, N·m; None while it was not said whole, or at no radius."""
    if "low" not in said or "high" not in said:
        return None
    if not is_force(said):
        return _ends(said)
    radius = _radius(said, arm)
    return band_of_pull(_ends(said), radius) if radius else None


def _ends(said: Mapping[str, Written]) -> tuple[float, float]:
    low, high = sorted(float(said[place].value or 0) for place in ("low", "high"))
    return low, high


def is_force(said: Mapping[str, Written]) -> bool:
    """Whether a pull was read, not a torque."""
    return any(is_of(said[place].typed, FORCE) for place in ("low", "high") if place in said)


def _radius(said: Mapping[str, Written], arm: Figure | None) -> float:
    if "radius" in said:
        return float(said["radius"].value or 0)
    return arm.value if arm else 0.0


def needs_radius(at: At, said: Mapping[str, Written]) -> bool:
    """Whether a force was read where a torque is judged, and nobody said at which radius."""
    return is_force(said) and limits_of(at)[1] is TORQUE and not _radius(said, at.setting.arm)


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
