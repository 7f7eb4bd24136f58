"""How round and straight a bore is, from diameters in several directions and planes."""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.errors import BadInput
from wheelend.verdict import Limits, Word, classify

LEAST_DIRECTIONS = 3


@dataclass(frozen=True)
class Bore:
    """Ovality, taper and mean diameter in mm; what a ring of a given outside has of interference."""

    ovality_mm: float
    taper_mm: float
    mean_mm: float
    interference_mm: float | None = None
    ovality: Word | None = None
    taper: Word | None = None


def bore(
    planes: Sequence[Sequence[float]],
    resolution_mm: float,
    *,
    ovality_limit_mm: float | None = None,
    taper_limit_mm: float | None = None,
    ring_mm: float | None = None,
) -> Bore:
    """A bore from its diameters, a list for each plane; all in mm.

    ovality = the worst plane's max − min; taper = largest − smallest plane mean; mean of the plane
    means; interference = ring − mean. Verdicts against upper limits with U = 2·√(2·r²/12), for each is a
    difference of two readings. Raises BadInput for no plane, or fewer than three directions in one.
    Source: ISO 1132-1:2000 (definitions); JCGM 106:2012 for the verdict.

    >>> round(bore([[72.00, 72.02, 72.01]], 0.002).ovality_mm, 3)
    0.02
    """
    if not planes:
        raise BadInput("planes", "[]", "has no plane; give three directions or more of each")
    for index, plane in enumerate(planes):
        if len(plane) < LEAST_DIRECTIONS:
            need = (
                f"directions are too few; give {LEAST_DIRECTIONS} or more, or an oval looks round"
            )
            raise BadInput(f"planes[{index}]", str(len(plane)), need)
    means = [statistics.fmean(plane) for plane in planes]
    ovality = max(max(plane) - min(plane) for plane in planes)
    taper = max(means) - min(means)
    mean = statistics.fmean(means)
    doubt = 2 * math.sqrt(2 * resolution_mm**2 / 12)

    def judged(value: float, most: float | None) -> Word | None:
        return None if most is None else classify(value, value, doubt, Limits(None, most))

    return Bore(
        ovality_mm=ovality,
        taper_mm=taper,
        mean_mm=mean,
        interference_mm=None if ring_mm is None else ring_mm - mean,
        ovality=judged(ovality, ovality_limit_mm),
        taper=judged(taper, taper_limit_mm),
    )
