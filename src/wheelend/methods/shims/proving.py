"""What a gauge can prove: the chance that a play comes out inside with all its doubt."""

import math
import statistics

from wheelend.verdict import Gauge, Limits

STEPS_MM = (0.01, 0.005, 0.002, 0.001, 0.0005)
"""The steps that dials are made with, coarsest first."""

_ENOUGH = 0.5
"""A gauge that proves a play in the very middle less than every other time is the wrong one."""

_GOOD = 0.8
_CERTIFICATE = 0.4
"""What a certificate of a dial states, as a share of its step. Source: usual for ISO 463 dials."""


def chance_inside(mean: float, deviation: float, U: float, limits: Limits) -> float:
    """The chance that a reading which scatters about `mean` lies inside by at least U; one unit.

    Source: the normal distribution; the acceptance limits of JCGM 106:2012, 8.3.

    >>> round(chance_inside(0.1, 0.01, 0.03, Limits(0.05, 0.15)), 3)
    0.954
    """
    low, high = limits.lowest + U, limits.highest - U
    if low > high:
        return 0.0
    if deviation <= 0:
        return float(low <= mean <= high)
    normal = statistics.NormalDist(mean, deviation)
    below = normal.cdf(low) if math.isfinite(low) else 0.0
    above = 1 - normal.cdf(high) if math.isfinite(high) else 0.0
    return max(0.0, 1 - below - above)


def deviation_of(gauge: Gauge, readings: int, repeatability_mm: float) -> float:
    """The standard deviation of the mean of some plays, all its terms together, in mm."""
    scatter = repeatability_mm**2 / max(readings, 1)
    return math.sqrt(gauge.resolution**2 / 6 + (gauge.calibration / 2) ** 2 + scatter)


def can_prove(gauge: Gauge, readings: int, repeatability_mm: float, limits: Limits) -> bool:
    """Whether a play in the middle of the limits would be proven at least every other time."""
    return _in_the_middle(gauge, readings, repeatability_mm, limits) >= _ENOUGH


def coarsest_that_proves(readings: int, repeatability_mm: float, limits: Limits) -> float:
    """The coarsest step of dials, with a certificate, that proves a play in the middle; mm."""
    for step in STEPS_MM:
        gauge = Gauge(step, _CERTIFICATE * step)
        if _in_the_middle(gauge, readings, repeatability_mm, limits) >= _GOOD:
            return step
    return STEPS_MM[-1]


def _in_the_middle(gauge: Gauge, readings: int, repeatability_mm: float, limits: Limits) -> float:
    deviation = deviation_of(gauge, readings, repeatability_mm)
    middle = (limits.lowest + limits.highest) / 2
    return chance_inside(middle, deviation, 2 * deviation, limits)
