"""Which readings of a series count: a place that stands apart is read again before it is believed.

All places of a series show one play. The largest group that agrees counts; a place outside of it is
read again, and is outvoted where its second reading joins the group.
"""

import math
import statistics
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass

from wheelend.verdict import SAME, sure

MOST_AGAIN = 2
"""How often one place is read again: three readings that all differ are scatter, no slip."""

_OF_A_JOB = 8
"""A job reads some series, and each reading may be asked for again: all of them together cry wolf no
oftener than one comparison of trials does."""

_AGAIN = " again"


@dataclass(frozen=True)
class Weighed:
    """What a series' readings say of each other, by the keys of their places.

    `again` is the reading that would settle it; empty where none is needed. `apart`: places that
    were read again and differ all the same. `moved`: read again to settle a doubt, it was another.
    """

    counted: tuple[str, ...]
    outvoted: tuple[str, ...] = ()
    again: str = ""
    apart: bool = False
    moved: bool = False


def base_of(place: str) -> str:
    """The place itself, whichever time it was read.

    >>> base_of("12 again"), base_of("left")
    ('12', 'left')
    """
    return place.partition(_AGAIN)[0]


def again_at(place: str, times: int) -> str:
    """The key of a place that was read `times` times and is read once more.

    >>> again_at("12", 1), again_at("12", 2)
    ('12 again', '12 again 2')
    """
    return f"{base_of(place)}{_AGAIN}{f' {times}' if times > 1 else ''}"


def weigh_places(
    moves: Mapping[str, float], doubt_mm: float, settling: Collection[str] = ()
) -> Weighed:
    """Weigh a whole series: `moves` are out − in by place in mm, in the order of reading.

    `doubt_mm` is the standard deviation of one play; two are apart beyond `sure` times that of
    their difference. `settling` are readings taken again for the sake of earlier trials: they
    don't vote. One place alone can't show a slip, so it is read twice.
    """
    plays = _one_way(moves)
    mine = {place: play for place, play in plays.items() if place not in settling}
    if len(mine) < 2:
        return Weighed(tuple(plays), again="" if settling else again_at(next(iter(mine)), 1))
    found = _vote(mine, doubt_mm)
    if found.again or not settling:
        return found
    middle = statistics.median(mine[place] for place in found.counted)
    agree = {p for p in settling if abs(plays[p] - middle) <= _width(2, doubt_mm) + SAME}
    counted = tuple(place for place in plays if place in agree or place in found.counted)
    return Weighed(counted, found.outvoted, "", found.apart, len(agree) < len(settling))


def _vote(plays: Mapping[str, float], doubt_mm: float) -> Weighed:
    group = _largest_group(plays, doubt_mm)
    voted = {base_of(place) for place in group}
    outvoted, again, apart = [], "", False
    for place in plays:
        if place in group:
            continue
        if base_of(place) in voted:
            outvoted.append(place)
            continue
        same = [play for other, play in plays.items() if base_of(other) == base_of(place)]
        sure_of_it = len(same) > 1 and max(same) - min(same) <= _width(len(same), doubt_mm)
        if sure_of_it or len(same) > MOST_AGAIN:
            apart = True
        else:
            again = again_at(place, len(same))
    counted = tuple(place for place in plays if place not in outvoted)
    return Weighed(counted, tuple(outvoted), again, apart)


def _largest_group(plays: Mapping[str, float], doubt_mm: float) -> frozenset[str]:
    """The places that agree, where no other group is as large; else nothing."""
    groups = set(_groups(plays, _width(len(plays), doubt_mm)))
    most = max(map(len, groups))
    largest = [group for group in groups if len(group) == most]
    if len(largest) > 1:
        wide = max(len({base_of(place) for place in group}) for group in largest)
        largest = [g for g in largest if len({base_of(place) for place in g}) == wide]
    return largest[0] if len(largest) == 1 else frozenset()


def _groups(plays: Mapping[str, float], width: float) -> Iterator[frozenset[str]]:
    order = sorted(plays, key=lambda place: plays[place])
    for start, first in enumerate(order):
        reach = plays[first] + width + SAME
        yield frozenset(place for place in order[start:] if plays[place] <= reach)


def _width(count: int, doubt_mm: float) -> float:
    return sure(_OF_A_JOB * math.comb(count, 2)) * math.sqrt(2) * doubt_mm


def _one_way(moves: Mapping[str, float]) -> dict[str, float]:
    """The plays, positive the way most of them went; one the other way stands apart as negative."""
    sign = 1 if sum(move > 0 for move in moves.values()) * 2 >= len(moves) else -1
    return {place: sign * move for place, move in moves.items()}
