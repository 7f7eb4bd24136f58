"""When a recheck is due: by the date, or by the usage that the vehicle's counter has been running up."""

import itertools
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from fractions import Fraction
from typing import Literal

from wheelend.errors import BadInput

LOOKED_BACK_DAYS = 180
"""Older counter readings say little of how much a vehicle runs now."""

Point = tuple[date, Fraction]


@dataclass(frozen=True)
class Due:
    """The day, whether date or usage makes it, usage a day, and the days left (negative: overdue)."""

    due_on: date
    by: Literal["date", "usage"]
    rate_per_day: float | None
    days_left: int


def rate_per_day(log: Sequence[Point], today: date) -> Fraction | None:
    """How much a vehicle runs a day, by what its counter showed in the last 180 days.

    The median of the slopes between all pairs of points; None where there is no pair.
    Source: Theil (1950), Sen (1968).
    """
    recent = sorted(
        point for point in log if 0 <= (today - point[0]).days <= LOOKED_BACK_DAYS
    )  # fmt: skip
    slopes = [
        (later[1] - earlier[1]) / (later[0] - earlier[0]).days
        for earlier, later in itertools.combinations(recent, 2)
        if later[0] > earlier[0]
    ]
    return statistics.median(slopes) if slopes else None


def recheck(
    serviced_on: date,
    usage_at_service: Fraction,
    log: Sequence[Point],
    today: date,
    *,
    every_days: int | None = None,
    every_usage: Fraction | None = None,
) -> Due:
    """When to look again; usages in one unit.

    The earlier of `serviced_on` + `every_days` and the day on which the usage is reached at the present
    rate; a tie goes to the date. Raises BadInput where neither can be told.
    Source: Theil–Sen estimator; arithmetic.

    >>> recheck(date(2031, 1, 10), Fraction(0), [], date(2031, 1, 12), every_days=30).days_left
    28
    """
    by_date = None if every_days is None else _later(serviced_on, every_days)
    rate = rate_per_day(log, today)
    by_usage = None
    if every_usage is not None and rate is not None and rate > 0:
        on, usage = max(point for point in log if point[0] <= today)
        by_usage = _later(on, (usage_at_service + every_usage - usage) // rate)
    if by_date is None and by_usage is None:
        need = "is missing; it is needed where usage tells no day"
        raise BadInput("every_days", "", need)
    ends = [one for one in (by_date, by_usage) if one is not None]
    due_on = min(ends)
    return Due(
        due_on,
        "date" if due_on == by_date else "usage",
        None if rate is None else float(rate),
        (due_on - today).days,
    )


def _later(day: date, days: int) -> date | None:
    """A day so many days later; None where no calendar reaches it."""
    try:
        return day + timedelta(days=int(days))
    except OverflowError:
        return None
