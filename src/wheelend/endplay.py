"""End play from a dial: the hub pushed in and pulled out, at one or more clock positions."""

import statistics
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal, get_args

from wheelend.circle import all_round, clock_angle, wave
from wheelend.errors import BadInput
from wheelend.verdict import SAME, SEATING_AGAIN_MM, Gauge, Limits, Verdict, doubt, of_mean

Flag = Literal["mixed_direction", "scattered", "runout_unknown"]
FLAGS: tuple[Flag, ...] = get_args(Flag)


@dataclass(frozen=True)
class Pair:
    """A push-in and a pull-out reading in mm, and where round the face they were taken.

    `clock` is "1" to "12" or "H:MM". Raises BadInput for any other clock.
    """

    in_mm: float
    out_mm: float
    clock: str | None = None

    def __post_init__(self) -> None:
        if self.clock is not None:
            clock_angle(self.clock)

    @property
    def play_mm(self) -> float:
        """The distance between the two readings, which way round they came."""
        return abs(self.out_mm - self.in_mm)


@dataclass(frozen=True)
class EndPlay:
    """The play with its doubt; lengths in mm. `verdict` where limits were given."""

    play_mm: float
    plays_mm: tuple[float, ...]
    spread_mm: float
    U_mm: float
    runout_mm: float | None
    flags: tuple[Flag, ...]
    verdict: Verdict | None


def coarsest_step(window: float) -> float:
    """The coarsest dial step that leaves room inside a window to prove a play; same unit.

    An eighth: by its steps alone the doubt of a play (k = 2) is then a tenth of the window on either
    side, so that at best four fifths of it can be proven. Source: u² = 2·r²/12, as in `end_play`.

    >>> coarsest_step(0.1)
    0.0125
    """
    return window / 8


def end_play(
    pairs: Sequence[Pair],
    gauge: Gauge,
    *,
    limits: Limits | None = None,
    runout_mm: float | None = None,
    turned: bool = False,
    repeatability_mm: float = SEATING_AGAIN_MM,
) -> EndPlay:
    """The end play of one dial series; lengths in mm.

    Play of a pair is |out − in|; the result is their mean. `runout_mm` is a known total movement
    of the face; without it the push-in readings give one where enough places were read. `turned`
    says that the hub was turned between in and out, so that the face's wobble is in the reading.
    `repeatability_mm` is the scatter of seating it again. A flag blocks: what would be within while
    one stands is undecided, because of the first flag. Raises BadInput for no pairs, a negative
    runout or repeatability. Source: geometry; JCGM 100:2008.

    >>> end_play([Pair(0.0, 0.11)], Gauge(0.01)).play_mm
    0.11
    """
    if not pairs:
        raise BadInput("pairs", "", "give one or more pairs of push-in and pull-out readings")
    if runout_mm is not None and runout_mm < 0:
        raise BadInput("runout", f"{runout_mm:g} mm", "must not be negative")
    plays = tuple(round(pair.play_mm, 12) for pair in pairs)
    known = runout_mm if runout_mm is not None else face_runout(pairs)
    terms = doubt(gauge, plays, differences=True, repeatability=repeatability_mm)
    if turned and known is not None:
        # Two points of a sine of total movement R, at unknown angles, differ with variance R²/4.
        terms = replace(terms, runout=known**2 / 4)
    mean = statistics.fmean(plays)
    flags = _flags(pairs, plays, gauge, limits, turned and known is None)
    return EndPlay(
        play_mm=mean,
        plays_mm=plays,
        spread_mm=max(plays) - min(plays),
        U_mm=terms.expanded,
        runout_mm=known,
        flags=flags,
        verdict=_blocked(of_mean(mean, terms, limits), flags) if limits else None,
    )


def _blocked(verdict: Verdict, flags: tuple[Flag, ...]) -> Verdict:
    if flags and verdict.word == "within":
        return replace(verdict, word="undecided", because=flags[0])
    return verdict


def _flags(
    pairs: Sequence[Pair],
    plays: Sequence[float],
    gauge: Gauge,
    limits: Limits | None,
    runout_unknown: bool,
) -> tuple[Flag, ...]:
    moves = [pair.out_mm - pair.in_mm for pair in pairs]
    spread = max(plays) - min(plays)
    window = limits.window if limits else None
    scattered = spread > 3 * gauge.resolution + SAME and (
        window is None or spread > window / 4 + SAME
    )
    found: dict[Flag, bool] = {
        "mixed_direction": max(moves) > SAME and min(moves) < -SAME,
        "scattered": scattered,
        "runout_unknown": runout_unknown,
    }
    return tuple(flag for flag, there in found.items() if there)


def face_runout(pairs: Sequence[Pair]) -> float | None:
    """Total movement of the face in mm, from the push-in readings, or None with too few places.

    Needs three or more different places, no two neighbours more than 150 degrees apart. A wobbling
    face shows only part of its swing at three places, so a least-squares sine is fitted too and
    the larger of the two taken. Source: geometry; first harmonic as in ISO 1101 runout practice.
    """
    places = _means_by_angle(pairs)
    if not all_round(tuple(places)):
        return None
    values = list(places.values())
    return max(max(values) - min(values), wave(tuple(places), values).swing)


def _means_by_angle(pairs: Sequence[Pair]) -> dict[float, float]:
    by_angle: dict[float, list[float]] = {}
    for pair in pairs:
        if pair.clock is not None:
            by_angle.setdefault(clock_angle(pair.clock), []).append(pair.in_mm)
    return {angle: statistics.fmean(values) for angle, values in by_angle.items()}
