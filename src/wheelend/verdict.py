"""Is a measured value inside its limits, given how well it was measured?

Source: JCGM 100:2008 (the doubt), JCGM 106:2012 and ISO 14253-1:2017 (the decision rule: a value
is inside only when all of its doubt is).
"""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput

SAME = 1e-9
"""Two values closer than this, in their unit, are the same."""

SEATING_AGAIN_MM = 0.003
"""Standard deviation of a play when the hub is seated anew. Source: shop practice, dials of 1 µm."""

KNOWN_FREEDOM = 4
"""Degrees of freedom that a repeatability known beforehand is worth beside what was read."""

_SURE = 3.0
"""Standard deviations of a difference beyond which two values are apart."""

Word = Literal["within", "below", "above", "undecided"]
Reason = Literal[
    "gauge_too_coarse", "band", "runout", "scatter", "resolution",
    "mixed_direction", "scattered", "runout_unknown",
]  # fmt: skip


@dataclass(frozen=True)
class Limits:
    """Inclusive limits, either of which may be missing but not both; in the reading's unit.

    Raises BadInput when there is none, or the low one is above the high one.
    """

    low: float | None = None
    high: float | None = None

    def __post_init__(self) -> None:
        if self.low is None and self.high is None:
            raise BadInput("limits", "", "give low, high or both")
        if self.low is not None and self.high is not None and self.low > self.high + SAME:
            raise BadInput("limits", f"low {self.low:g} is above high {self.high:g};", "swap them")

    @property
    def window(self) -> float | None:
        """From low to high, or None when one is missing."""
        if self.low is None or self.high is None:
            return None
        return self.high - self.low

    def inside(self, value: float) -> bool:
        """Whether a bare value is inside, both ends counted in."""
        return self.lowest - SAME <= value <= self.highest + SAME

    def margin(self, value: float) -> float:
        """From a value to the nearest limit; negative outside."""
        return min(value - self.lowest, self.highest - value)

    @property
    def lowest(self) -> float:
        """The low limit, or minus infinity."""
        return -math.inf if self.low is None else self.low

    @property
    def highest(self) -> float:
        """The high limit, or infinity."""
        return math.inf if self.high is None else self.high


@dataclass(frozen=True)
class Gauge:
    """How finely a gauge reads, and how well it is known, in its reading's unit.

    `resolution` is its smallest step (above 0), `calibration` the expanded doubt (k = 2) of its
    certificate. Raises BadInput for a resolution of 0 or less or a negative calibration.
    """

    resolution: float
    calibration: float = 0.0

    def __post_init__(self) -> None:
        if not self.resolution > 0:
            raise BadInput("resolution", f"{self.resolution:g}", "must be above 0")
        if self.calibration < 0:
            raise BadInput("calibration", f"{self.calibration:g}", "must not be negative")


@dataclass(frozen=True)
class Doubt:
    """The terms of u², each a variance: the gauge's step, its calibration, scatter, runout."""

    step: float
    calibration: float
    scatter: float = 0.0
    runout: float = 0.0

    @property
    def expanded(self) -> float:
        """U = 2u, the doubt that a reading is quoted with."""
        return 2 * math.sqrt(self.step + self.calibration + self.scatter + self.runout)

    @property
    def of_gauge(self) -> float:
        """U from the gauge alone."""
        return 2 * math.sqrt(self.step + self.calibration)

    def largest(self) -> Reason:
        """What most of the doubt comes from; a tie counts as the gauge's resolution."""
        terms: dict[Reason, float] = {
            "runout": self.runout,
            "scatter": self.scatter,
            "resolution": self.step,
        }
        names: tuple[Reason, Reason] = ("runout", "scatter")
        for name in names:
            others = [value for other, value in terms.items() if other != name]
            if terms[name] > max(*others, self.calibration) * (1 + SAME):
                return name
        return "resolution"


@dataclass(frozen=True)
class Verdict:
    """A verdict with what it was drawn from; `mean`, `U` and `margin` in the reading's unit."""

    word: Word
    because: Reason | None
    mean: float
    U: float
    margin: float


def sure(comparisons: int = 1) -> float:
    """How many standard deviations of their difference two values must differ to be apart.

    Three for one comparison; more for several, so that all of them together cry wolf as seldom as
    one does (0.27 %): the quantile of 1 − (1 − Φ(3))/comparisons. Source: Bonferroni's inequality.

    >>> sure(), round(sure(3), 3)
    (3.0, 3.32)
    """
    if comparisons < 2:
        return _SURE
    normal = statistics.NormalDist()
    return normal.inv_cdf(1 - normal.cdf(-_SURE) / comparisons)


def doubt(
    gauge: Gauge,
    readings: Sequence[float] = (),
    *,
    differences: bool = False,
    repeatability: float | None = None,
) -> Doubt:
    """The doubt of readings: u² = r²/12 (twice for differences) + scatter of the mean + (calibration/2)².

    `readings` in the gauge's unit; `differences` when each is the difference of two readings.
    `repeatability` ρ, the standard deviation of one reading taken anew, is pooled with what was
    read as if it were worth four degrees of freedom, so that two lucky readings prove nothing:
    (4ρ² + S)/(4 + n − 1)/n. Raises BadInput for a negative one.
    Source: JCGM 100:2008, 4.2.3, 4.3.7 and F.2.2.1; pooling as in its H.3.6.

    >>> round(doubt(Gauge(0.01), [0.09, 0.10, 0.11]).expanded, 6)
    0.01291
    """
    if repeatability is not None and repeatability < 0:
        raise BadInput("repeatability", f"{repeatability:g}", "must not be negative")
    step = gauge.resolution**2 / 12 * (2 if differences else 1)
    return Doubt(
        step=step,
        calibration=(gauge.calibration / 2) ** 2,
        scatter=_scatter_of_mean(readings, repeatability),
    )


def _scatter_of_mean(readings: Sequence[float], repeatability: float | None) -> float:
    count = len(readings)
    if not count:
        return 0.0
    mean = statistics.fmean(readings)
    squares = sum((reading - mean) ** 2 for reading in readings)
    if repeatability is not None:
        freedom = KNOWN_FREEDOM + count - 1
        return (KNOWN_FREEDOM * repeatability**2 + squares) / freedom / count
    return squares / (count - 1) / count if count > 1 else 0.0


def classify(low: float, high: float, U: float, limits: Limits) -> Word:
    """The verdict of a value that swings from `low` to `high` with doubt `U`; all in one unit.

    Source: JCGM 106:2012, 8.3 (guard bands on both sides of each limit).

    >>> classify(0.1, 0.1, 0.02, Limits(0.05, 0.15))
    'within'
    """
    if limits.lowest <= low - U + SAME and high + U <= limits.highest + SAME:
        return "within"
    if high + U < limits.lowest - SAME:
        return "below"
    if low - U > limits.highest + SAME:
        return "above"
    return "undecided"


def too_coarse(terms: Doubt, limits: Limits) -> bool:
    """Whether the gauge alone could never say "within": 2·U of the gauge fills the window."""
    return limits.window is not None and 2 * terms.of_gauge >= limits.window - SAME


def of_readings(
    readings: Sequence[float],
    limits: Limits,
    gauge: Gauge,
    *,
    differences: bool = False,
    repeatability: float | None = None,
) -> Verdict:
    """The verdict of one or more readings of the same thing; all in one unit.

    Raises BadInput for no readings. Source: JCGM 106:2012, 8.3.
    """
    if not readings:
        raise BadInput("readings", "", "give one or more readings")
    terms = doubt(gauge, readings, differences=differences, repeatability=repeatability)
    return of_mean(statistics.fmean(readings), terms, limits)


def of_mean(mean: float, terms: Doubt, limits: Limits) -> Verdict:
    """The verdict of a mean whose doubt is known term by term; all in one unit."""
    word = classify(mean, mean, terms.expanded, limits)
    because: Reason | None = None
    if word == "undecided":
        because = "gauge_too_coarse" if too_coarse(terms, limits) else terms.largest()
    return Verdict(word, because, mean, terms.expanded, limits.margin(mean))


def of_band(
    band: tuple[float, float], limits: Limits, gauge: Gauge, *, differences: bool = False
) -> Verdict:
    """The verdict of a needle that swings from band[0] to band[1]; all in one unit.

    Raises BadInput when the higher value comes first.
    """
    low, high = band
    if low > high:
        raise BadInput("band", f"{low:g} to {high:g}", "is high first; give the lower value first")
    terms = doubt(gauge, differences=differences)
    word = classify(low, high, terms.expanded, limits)
    because: Reason | None = None
    if word == "undecided":
        because = "gauge_too_coarse" if too_coarse(terms, limits) else "band"
    mean = (low + high) / 2
    return Verdict(word, because, mean, terms.expanded, limits.margin(mean))
