"""What past jobs know of a shop's hubs and hands: the packs they needed, how readings scatter."""

import math
import statistics
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from wheelend.methods.judgement import Usual

FEWEST_JOBS = 3
"""Fewer jobs say nothing about what a card's hubs usually need."""

FEWEST_SERIES = 10
"""Fewer series say nothing about how a shop's readings scatter."""

_LEAST_DEVIATION_MM = 0.05
"""A few packs that happen to be alike don't make the next hub alike."""


@dataclass(frozen=True)
class Scatter:
    """A shop's own scatter of a reading taken anew, in mm, and from how many series."""

    deviation_mm: float
    series: int


def usual_of(packs_mm: Sequence[float]) -> Usual | None:
    """What hubs needed: the middle of the packs that jobs were signed with and their deviation, mm.

    None where there are fewer than three.
    """
    if len(packs_mm) < FEWEST_JOBS:
        return None
    deviation = max(statistics.stdev(packs_mm), _LEAST_DEVIATION_MM)
    return Usual(statistics.median(packs_mm), deviation, len(packs_mm))


def scatter_of(series: Iterable[tuple[Sequence[float], float]]) -> Scatter | None:
    """The scatter of plays within their series, without what the dial's step adds; mm.

    `series` are the plays of each, with the step of its dial. ρ² = ΣS/Σ(n − 1) − mean of r²/6, never
    below nothing. None with fewer than ten series of two plays or more.
    Source: pooled variance, JCGM 100:2008, H.3.6.
    """
    squares, freedom, rounding, count = 0.0, 0, 0.0, 0
    for plays, step in series:
        if len(plays) < 2:
            continue
        mean = statistics.fmean(plays)
        squares += sum((play - mean) ** 2 for play in plays)
        freedom += len(plays) - 1
        rounding += step**2 / 6
        count += 1
    if count < FEWEST_SERIES:
        return None
    return Scatter(math.sqrt(max(squares / freedom - rounding / count, 0.0)), count)
