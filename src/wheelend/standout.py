"""How far a stack stands proud of its housing face, and what is missing where it does not."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.errors import BadInput
from wheelend.verdict import SAME, Limits, Word, classify

TOLERANCE_MM = 0.1


@dataclass(frozen=True)
class StackedPart:
    """One part: its thickness in mm, and its height when turned round where that differs."""

    name: str
    thickness_mm: float
    reversed_mm: float | None = None


@dataclass(frozen=True)
class Explanation:
    """Parts left out, or one the wrong way round, and what it leaves unexplained in mm."""

    missing: tuple[str, ...]
    reversed: str | None
    residual_mm: float


@dataclass(frozen=True)
class StandOut:
    """What was expected and measured, in mm, and what explains the difference."""

    expected_mm: float
    measured_mm: float
    difference_mm: float
    verdict: Word | None
    explanations: tuple[Explanation, ...]
    flags: tuple[str, ...]


def stand_out(
    parts: Sequence[StackedPart],
    depth_mm: float,
    resolution_mm: float,
    *,
    measured_mm: float | None = None,
    feelers_mm: Sequence[float] = (),
    no_go_mm: Sequence[float] = (),
    limits: Limits | None = None,
    tolerance_mm: float = TOLERANCE_MM,
) -> StandOut:
    """Compare a stack's stand-out with what its parts should give; all in mm.

    Measured by depth gauge, or by feeler blades that go in together (`feelers_mm`), or between
    those and the blades that do not (`no_go_mm`). A difference beyond the tolerance is explained by
    one or two parts left out or one turned round, smallest residual first. Raises BadInput for no
    measurement, two, or a no-go not above the go. Source: geometry; JCGM 106:2012 for the verdict.
    """
    band = _band(measured_mm, feelers_mm, no_go_mm)
    expected = math.fsum([*(part.thickness_mm for part in parts), -depth_mm])
    measured = (band[0] + band[1]) / 2
    difference = round(expected - measured, 12)
    explained = (
        () if abs(difference) <= tolerance_mm + SAME else _explain(parts, difference, tolerance_mm)
    )
    unexplained = difference < -tolerance_mm - SAME and not explained
    U = 0.0 if no_go_mm else 2 * resolution_mm / math.sqrt(12)
    return StandOut(
        expected_mm=round(expected, 12),
        measured_mm=measured,
        difference_mm=difference,
        verdict=classify(*band, U, limits) if limits else None,
        explanations=explained,
        flags=("not_home_or_extra_part",) if unexplained else (),
    )


def _band(
    measured_mm: float | None, feelers_mm: Sequence[float], no_go_mm: Sequence[float]
) -> tuple[float, float]:
    """The measured stand-out as a band; a single value where it is one."""
    if no_go_mm and not feelers_mm:
        raise BadInput("no_go", "", "needs feelers that do go in")
    if (measured_mm is None) == (not feelers_mm):
        raise BadInput("measured", "", "give either measured or feelers")
    if measured_mm is not None:
        return measured_mm, measured_mm
    go = math.fsum(feelers_mm)
    if not no_go_mm:
        return go, go
    if math.fsum(no_go_mm) <= go + SAME:
        raise BadInput(
            "no_go", f"{math.fsum(no_go_mm):g} mm", f"is not above the {go:g} mm that goes in"
        )
    return go, math.fsum(no_go_mm)


def _explain(
    parts: Sequence[StackedPart], difference: float, tolerance_mm: float
) -> tuple[Explanation, ...]:
    found = []
    for count in (1, 2):
        for left_out in itertools.combinations(parts, count):
            explained = math.fsum(part.thickness_mm for part in left_out)
            names = tuple(part.name for part in left_out)
            found.append(Explanation(names, None, round(difference - explained, 12)))
    for part in parts:
        if part.reversed_mm is not None:
            explained = part.thickness_mm - part.reversed_mm
            found.append(Explanation((), part.name, round(difference - explained, 12)))
    close = [one for one in found if abs(one.residual_mm) <= tolerance_mm + SAME]
    return tuple(sorted(close, key=lambda one: abs(one.residual_mm)))
