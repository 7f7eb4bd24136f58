"""Is a seal straight, and at its depth? Depths below its face at clock positions; lengths in mm."""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from wheelend.circle import all_round, clock_angle, wave
from wheelend.errors import BadInput
from wheelend.verdict import Limits, Word, classify

SealFlag = Literal["not_flat"]


@dataclass(frozen=True)
class SealDepth:
    """The plane through the depths. `shallowest_deg` is where to tap, None where no tilt can be told;
    `tilt_U_mm` is the tilt's expanded doubt."""

    depth_mm: float
    tilt_mm: float
    tilt_U_mm: float
    shallowest_deg: float | None
    depth: Word | None = None
    even: Word | None = None
    flags: tuple[SealFlag, ...] = ()


def seal_depth(
    depths: Sequence[tuple[str, float]],
    resolution_mm: float,
    *,
    limits: Limits | None = None,
    even_mm: float | None = None,
) -> SealDepth:
    """The depth and tilt of a seal from depths at three clock positions or more, all round.

    Least squares depth = a + b·cos θ + c·sin θ, θ clockwise from the top; tilt = 2·√(b²+c²), with
    U = 2·√(2·r²/12). `even_mm` is the most tilt that is allowed. Raises BadInput where places are too
    few, or half of the face was not read. Source: geometry.

    >>> seal_depth([("12", 2.02), ("4", 2.0), ("8", 2.01)], 0.05, even_mm=0.2).even
    'within'
    """
    by_angle: dict[float, list[float]] = {}
    for clock, depth in depths:
        by_angle.setdefault(clock_angle(clock), []).append(depth)
    if not all_round(tuple(by_angle)):
        need = "are too few or all on one side; give three or more, at most 150 degrees apart"
        raise BadInput("depths", ", ".join(clock for clock, _ in depths), need)
    places = {angle: statistics.fmean(values) for angle, values in by_angle.items()}
    plane = wave(tuple(places), tuple(places.values()))
    tilt_doubt = 2 * math.sqrt(2 * resolution_mm**2 / 12)
    bent = any(abs(d - plane.at(angle)) > 3 * resolution_mm + 1e-9 for angle, d in places.items())
    low, high = min(places.values()), max(places.values())
    return SealDepth(
        depth_mm=plane.mean,
        tilt_mm=plane.swing,
        tilt_U_mm=tilt_doubt,
        shallowest_deg=plane.lowest_deg if plane.swing > tilt_doubt + 1e-9 else None,
        depth=classify(low, high, 2 * resolution_mm / math.sqrt(12), limits) if limits else None,
        even=None
        if even_mm is None
        else classify(plane.swing, plane.swing, tilt_doubt, Limits(None, even_mm)),
        flags=("not_flat",) if bent else (),
    )
