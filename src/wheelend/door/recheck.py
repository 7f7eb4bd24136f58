"""The `recheck` case."""

from datetime import date
from fractions import Fraction
from typing import Any

from wheelend.errors import BadInput, echo
from wheelend.quantity import USAGE, parse, unit_of
from wheelend.readers import Day, Json, ListOf, Quantity, Record, Whole
from wheelend.recheck import Point, recheck

_USAGE = Quantity(USAGE, least=0)
_CASE = Record(
    {
        "serviced_on": Day(),
        "usage_at_service": _USAGE,
        "usage_log": ListOf(Record({"on": Day(), "usage": _USAGE})),
        "today": Day(),
    },
    {"every_days": Whole(1), "every_usage": Quantity(USAGE, above=0)},
)
_MILE = Fraction("1.609344")


def calculate(value: object) -> Json:
    """Read a recheck case and answer it."""
    case = _CASE.read(value, "")
    given: dict[str, Any] = value  # type: ignore[assignment]
    unit = unit_of(given["usage_at_service"])
    found = recheck(
        case["serviced_on"],
        parse(given["usage_at_service"], USAGE),
        [_point(one, unit, index) for index, one in enumerate(given["usage_log"])],
        case["today"],
        every_days=case.get("every_days"),
        every_usage=_in_unit(given["every_usage"], unit, "every_usage")
        if "every_usage" in given
        else None,
    )
    return {
        "due_on": found.due_on.isoformat(),
        "by": found.by,
        "rate_per_day": found.rate_per_day,
        "days_left": found.days_left,
    }


def _point(said: dict[str, Any], unit: str, index: int) -> Point:
    path = f"usage_log[{index}].usage"
    return date.fromisoformat(said["on"]), _in_unit(said["usage"], unit, path)


def _in_unit(typed: str, unit: str, path: str) -> Fraction:
    """A usage in the unit of the service: kilometres and miles change into each other, hours don't."""
    own = unit_of(typed)
    number = parse(typed, USAGE, path)
    if own == unit:
        return number
    if "h" in (own, unit):
        raise BadInput(path, echo(typed), f"is not in {unit}, as usage_at_service is")
    return number * _MILE if own == "mi" else number / _MILE


def schema() -> Json:
    """The JSON schema of a recheck case."""
    return _CASE.schema()
