"""Where a nut can be locked, and what each place would set.

Angles are degrees from where the nut stands, tightening positive. Pitch times angle is play.
"""

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from wheelend.errors import BadInput
from wheelend.verdict import SAME, Limits

Policy = Literal["advance_only", "loosen_to_next", "nearest_within", "torque_window"]
WhyNot = Literal[
    "preloaded", "play_low", "play_high", "torque_low", "torque_high", "loosening", "tightening"
]

MOST_POSITIONS = 3600
"""Per turn; no lock has more."""


@dataclass(frozen=True)
class Lock:
    """The lock's geometry: `per_turn` positions, `to_next_deg` to the next one when tightening.

    Raises BadInput for no positions, too many, or a next one a step or more away.
    """

    per_turn: int
    to_next_deg: Fraction

    def __post_init__(self) -> None:
        if not 1 <= self.per_turn <= MOST_POSITIONS:
            raise BadInput(
                "positions", str(self.per_turn), f"is not 1 to {MOST_POSITIONS} per turn"
            )
        if not 0 <= self.to_next_deg < self.step_deg:
            given = f"{float(self.to_next_deg):g} deg"
            need = f"is not from 0 to below the step of {float(self.step_deg):g} deg"
            raise BadInput("to_next", given, need)

    @property
    def step_deg(self) -> Fraction:
        """From one position to the next."""
        return Fraction(360, self.per_turn)

    def angles(self) -> tuple[Fraction, ...]:
        """Every position within a turn either way, ascending."""
        turn = range(-self.per_turn, self.per_turn + 1)
        return tuple(self.to_next_deg + k * self.step_deg for k in turn)


def slotted(slots: int, openings: int, *, through: bool = False, flip: bool = False) -> int:
    """Positions per turn of a slotted nut on a drilled spindle.

    `openings` counts single pin-hole mouths round the spindle. `through`: one pin goes through both
    walls, so an odd number of slots raises BadInput. `flip`: the ring turned over gives positions
    half-way between. Source: geometry (slots and holes come into line lcm times a turn).

    >>> slotted(6, 4)
    12
    """
    for name, number in (("slots", slots), ("openings", openings)):
        if number < 1:
            raise BadInput(name, str(number), "is not 1 or more")
    if through and slots % 2:
        raise BadInput("slots", str(slots), "is odd: a pin through both walls would meet a wall")
    return math.lcm(slots, openings) * (2 if flip else 1)


@dataclass(frozen=True)
class Nut:
    """The nut as it stands; play and pitch in mm, torques in N·m.

    `play_mm` is 0 at lash-free. `torque_per_deg` is how much a degree of tightening adds.
    `aim_mm` None aims at the middle of the limits. Raises BadInput naming a key that is missing.
    """

    pitch_mm: Fraction
    policy: Policy
    play_mm: Fraction | None = None
    limits: Limits | None = None
    aim_mm: Fraction | None = None
    torque_N_m: Fraction | None = None
    torque_per_deg: Fraction | None = None
    torque_limits: Limits | None = None

    def __post_init__(self) -> None:
        if not self.pitch_mm > 0:
            raise BadInput("pitch", f"{float(self.pitch_mm):g} mm", "must be above 0")
        for name, missing, why in (
            (
                "torque_per_deg",
                self.torque_N_m is not None and self.torque_per_deg is None,
                "torque",
            ),
            ("play", self.limits is not None and self.play_mm is None, "limits"),
            (
                "torque",
                self._needs_torque and self.torque_N_m is None,
                "this policy or torque_limits",
            ),
            (
                "torque_limits",
                self.policy == "torque_window" and not self.torque_limits,
                "torque_window",
            ),
            ("limits", self.policy == "nearest_within" and not self.limits, "nearest_within"),
        ):
            if missing:
                raise BadInput(name, "", f"is missing; it is needed with {why}")
        if self.policy == "nearest_within" and self.aim_mm is None and self._one_sided:
            raise BadInput("limits", "", "need low and high where no aim is given")

    @property
    def _needs_torque(self) -> bool:
        return self.policy == "torque_window" or self.torque_limits is not None

    @property
    def _one_sided(self) -> bool:
        return self.limits is None or self.limits.window is None

    def play_at(self, angle: Fraction) -> Fraction | None:
        """The play at an angle, below 0 where the bearing is preloaded."""
        return None if self.play_mm is None else self.play_mm - self.pitch_mm * angle / 360

    def torque_at(self, angle: Fraction) -> Fraction | None:
        """The torque at an angle; unknown once a torqued nut is loosened."""
        if self.torque_N_m is None or self.torque_per_deg is None or angle < 0:
            return None
        return self.torque_N_m + self.torque_per_deg * angle

    def why_not(self, angle: Fraction) -> WhyNot | None:
        """Why the nut may not go to an angle, or None where it may."""
        play, torque = self.play_at(angle), self.torque_at(angle)
        checks: tuple[tuple[WhyNot, bool], ...] = (
            ("preloaded", play is not None and play < -SAME),
            ("play_low", _below(play, self.limits)),
            ("play_high", _above(play, self.limits)),
            ("torque_low", _below(torque, self.torque_limits)),
            ("torque_high", _above(torque, self.torque_limits)),
            ("loosening", angle < 0 and (self._only_on or self.torque_N_m is not None)),
            ("tightening", angle > 0 and self.policy == "loosen_to_next"),
        )
        return next((name for name, applies in checks if applies), None)

    @property
    def _only_on(self) -> bool:
        return self.policy in ("advance_only", "torque_window")

    def wanted(self, step: Fraction) -> tuple[Fraction, Fraction] | None:
        """The angles that limits and policy leave, lowest and highest; None where there are none."""
        low, high = [-_UNBOUNDED], [_UNBOUNDED]
        per_mm = 360 / self.pitch_mm
        if self.play_mm is not None:
            high.append(self.play_mm * per_mm)
            if self.limits and self.limits.low is not None:
                high.append((self.play_mm - _exact(self.limits.low)) * per_mm)
            if self.limits and self.limits.high is not None:
                low.append((self.play_mm - _exact(self.limits.high)) * per_mm)
        if self.torque_N_m is not None and self.torque_per_deg and self.torque_limits:
            if self.torque_limits.low is not None:
                low.append((_exact(self.torque_limits.low) - self.torque_N_m) / self.torque_per_deg)
            if self.torque_limits.high is not None:
                high.append(
                    (_exact(self.torque_limits.high) - self.torque_N_m) / self.torque_per_deg
                )
        if self._only_on or self.torque_N_m is not None:
            low.append(Fraction(0))
        if self.policy == "loosen_to_next":
            high.append(Fraction(0))
            # Only the first position back is ever taken.
            low.append(-step + Fraction(1, 10**9))
        return (max(low), min(high)) if max(low) <= min(high) else None


_UNBOUNDED = Fraction(10**9)
"""Degrees that no nut is turned: where nothing limits the angle."""


@dataclass(frozen=True)
class Position:
    """One lock position: the angle to it, what it would set, and why it is not allowed."""

    angle_deg: float
    play_mm: float | None
    torque_N_m: float | None
    why_not: WhyNot | None


@dataclass(frozen=True)
class Washer:
    """Changes of washer thickness in mm that bring a position to where it is wanted.

    The near edge of what is wanted, and (`_to_mm`) the far edge, so that a person can pick between.
    """

    thicker_mm: float | None
    thinner_mm: float | None
    thicker_to_mm: float | None = None
    thinner_to_mm: float | None = None


@dataclass(frozen=True)
class LockPlan:
    """Every position, the chosen one's index, and a washer where none is chosen."""

    step_deg: float
    per_turn: int
    positions: tuple[Position, ...]
    chosen: int | None
    washer: Washer | None


def lock_positions(lock: Lock, nut: Nut) -> LockPlan:
    """Where the nut can be locked within a turn either way, and which place to take.

    advance_only and torque_window take the smallest allowed angle from 0 up; loosen_to_next the
    first position back or none; nearest_within the allowed one with play nearest the aim, then the
    smaller turn. Source: geometry; play = play − pitch·angle/360.

    >>> found = lock_positions(Lock(6, Fraction(25)), Nut(Fraction(3, 2), "nearest_within",
    ...     play_mm=Fraction(15, 100), limits=Limits(0.02, 0.16)))
    >>> found.positions[found.chosen].angle_deg
    25.0
    """
    angles = lock.angles()
    allowed = [index for index, angle in enumerate(angles) if nut.why_not(angle) is None]
    chosen = _choose(nut, angles, allowed)
    return LockPlan(
        step_deg=float(lock.step_deg),
        per_turn=lock.per_turn,
        positions=tuple(
            Position(float(a), _float(nut.play_at(a)), _float(nut.torque_at(a)), nut.why_not(a))
            for a in angles
        ),
        chosen=chosen,
        washer=_washer(lock, nut, angles) if chosen is None else None,
    )


def _choose(nut: Nut, angles: tuple[Fraction, ...], allowed: list[int]) -> int | None:
    if nut.policy == "loosen_to_next":
        back = max(index for index, angle in enumerate(angles) if angle <= 0)
        return back if back in allowed else None
    if nut.policy == "nearest_within":
        return min(allowed, key=lambda i: (_off_aim(nut, angles[i]), abs(angles[i])), default=None)
    return next((index for index in allowed if angles[index] >= 0), None)


def _off_aim(nut: Nut, angle: Fraction) -> Fraction:
    play, aim, limits = nut.play_at(angle), nut.aim_mm, nut.limits
    if aim is None and limits:
        aim = (_exact(limits.lowest) + _exact(limits.highest)) / 2
    return abs((play or Fraction(0)) - (aim or Fraction(0)))


def _washer(lock: Lock, nut: Nut, angles: tuple[Fraction, ...]) -> Washer:
    """A washer thicker by t moves every position on by 360·t/pitch."""
    wanted = nut.wanted(lock.step_deg)
    if wanted is None:
        return Washer(None, None)
    low, high = wanted
    below = [low - angle for angle in angles if angle <= low]
    above = [angle - high for angle in angles if angle >= high]
    per_deg = nut.pitch_mm / 360
    thicker = min(below, default=None)
    thinner = min(above, default=None)

    def change(angle: Fraction | None, more: Fraction = Fraction(0)) -> float | None:
        return None if angle is None else float((angle + more) * per_deg)

    if high - low >= _UNBOUNDED:
        return Washer(change(thicker), change(thinner))
    width = high - low
    return Washer(change(thicker), change(thinner), change(thicker, width), change(thinner, width))


def _below(value: Fraction | None, limits: Limits | None) -> bool:
    return value is not None and limits is not None and value < limits.lowest - SAME


def _above(value: Fraction | None, limits: Limits | None) -> bool:
    return value is not None and limits is not None and value > limits.highest + SAME


def _exact(value: float) -> Fraction:
    """A limit as the decimal that was typed, not as the binary fraction beside it."""
    return Fraction(repr(value))


def _float(value: Fraction | None) -> float | None:
    return None if value is None else float(value)
