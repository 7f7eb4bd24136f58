"""What to set a torque wrench to, whether it is fit for it, and what will then be reached."""

import math
from dataclasses import dataclass
from datetime import date

from wheelend.errors import BadInput
from wheelend.verdict import SAME, Limits, Word, classify

ACCURACY = 0.04
"""Permissible deviation of a setting wrench, class A (ISO 6789-1:2017, 5.1.3)."""

LOWEST_SHARE = 0.2
"""Of the top of its range: below it no wrench is held to its accuracy (ISO 6789-1:2017, 5.1.2)."""

CYCLES = 5000
"""Between calibrations, or a year (ISO 6789-1:2017, 5.3)."""


@dataclass(frozen=True)
class Adaptor:
    """An adaptor that moves the square drive: lengths in mm, angle in degrees from the handle's line.

    An extension along the square drive's own axis changes nothing and is no adaptor.
    """

    wrench_length_mm: float
    offset_mm: float
    angle_deg: float = 0.0

    def __post_init__(self) -> None:
        if not self.wrench_length_mm > 0:
            raise BadInput(
                "adaptor.wrench_length", f"{self.wrench_length_mm:g} mm", "must be above 0"
            )
        if not self.arm_mm > SAME:
            raise BadInput("adaptor.offset", f"{self.offset_mm:g} mm", "leaves the wrench no arm")

    @property
    def arm_mm(self) -> float:
        """From the hand to the fastener."""
        return self.wrench_length_mm + self.offset_mm * math.cos(math.radians(self.angle_deg))

    @property
    def factor(self) -> float:
        """Setting over torque at the fastener."""
        return self.wrench_length_mm / self.arm_mm


@dataclass(frozen=True)
class Wrench:
    """One wrench and how it is used; torques in N·m, `accuracy` a fraction.

    `low_N_m`, `high_N_m`: its range. `calibrated_on` and `today` both or neither.
    """

    low_N_m: float | None = None
    high_N_m: float | None = None
    accuracy: float = ACCURACY
    adaptor: Adaptor | None = None
    multiplier: float = 1.0
    lengthened: bool = False
    calibrated_on: date | None = None
    today: date | None = None
    cycles: int = 0

    def __post_init__(self) -> None:
        if self.low_N_m is not None and self.high_N_m is not None and self.low_N_m > self.high_N_m:
            raise BadInput(
                "range", f"low {self.low_N_m:g} is above high {self.high_N_m:g};", "swap them"
            )
        if not 0 <= self.accuracy < 1:
            raise BadInput("accuracy", f"{self.accuracy:g}", "is not a fraction such as 0.04")
        if self.multiplier < 1:
            raise BadInput("multiplier", f"{self.multiplier:g}", "is below 1")
        if (self.calibrated_on is None) != (self.today is None):
            missing = "today" if self.today is None else "calibrated_on"
            raise BadInput(missing, "", "is missing; give calibrated_on and today, or neither")

    @property
    def calibration_due(self) -> bool:
        """From the same date a year later, or at 5000 cycles."""
        if self.cycles >= CYCLES:
            return True
        if self.calibrated_on is None or self.today is None:
            return False
        due = (self.calibrated_on.year + 1, self.calibrated_on.month, self.calibrated_on.day)
        return (self.today.year, self.today.month, self.today.day) >= due


@dataclass(frozen=True)
class WrenchSetting:
    """What to set, what is then reached at the fastener (N·m), the verdict, and what is wrong."""

    setting_N_m: float
    achieved_low_N_m: float
    achieved_high_N_m: float
    verdict: Word | None
    flags: tuple[str, ...]


def wrench_setting(
    target_N_m: float, wrench: Wrench, limits: Limits | None = None
) -> WrenchSetting:
    """The setting for a target torque in N·m.

    setting = target·L/(L + E·cos θ)/multiplier. Flags: below_range (also below a fifth of the top),
    above_range, calibration_due, lengthened_handle (a wrench is loaded only at the mark on its
    grip). Raises BadInput for a target that is not above 0. Source: lever law; ISO 6789-1:2017.

    >>> round(wrench_setting(120, Wrench(adaptor=Adaptor(450, 60))).setting_N_m, 3)
    105.882
    """
    if not target_N_m > 0:
        raise BadInput("target", f"{target_N_m:g} N·m", "must be above 0")
    factor = wrench.adaptor.factor if wrench.adaptor else 1.0
    setting = target_N_m * factor / wrench.multiplier
    low, high = target_N_m * (1 - wrench.accuracy), target_N_m * (1 + wrench.accuracy)
    found = {
        "below_range": _below(setting, wrench),
        "above_range": wrench.high_N_m is not None and setting > wrench.high_N_m + SAME,
        "calibration_due": wrench.calibration_due,
        "lengthened_handle": wrench.lengthened,
    }
    return WrenchSetting(
        setting_N_m=setting,
        achieved_low_N_m=low,
        achieved_high_N_m=high,
        verdict=classify(low, high, 0.0, limits) if limits else None,
        flags=tuple(flag for flag, there in found.items() if there),
    )


def _below(setting: float, wrench: Wrench) -> bool:
    if wrench.low_N_m is not None and setting < wrench.low_N_m - SAME:
        return True
    return wrench.high_N_m is not None and setting < LOWEST_SHARE * wrench.high_N_m - SAME
