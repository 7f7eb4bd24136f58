"""The `verdict` case."""

from typing import Any

from wheelend.errors import BadInput, echo
from wheelend.quantity import ANGLE, FORCE, LENGTH, TORQUE, Dimension, dimension_of
from wheelend.readers import Flag, Json, ListOf, Quantity, Record
from wheelend.verdict import Gauge, Limits, of_band, of_readings

_MEASURED = (LENGTH, TORQUE, FORCE, ANGLE)


def limits_of(dimension: Dimension) -> Record:
    """The reader of a pair of limits, either of which may be missing."""
    return Record({}, {"low": Quantity(dimension), "high": Quantity(dimension)})


def gauge_of(case: dict[str, Any]) -> Gauge:
    """The gauge that a case names by its resolution and calibration."""
    return Gauge(case["resolution"], case.get("calibration", 0.0))


def limits_from(case: dict[str, Any]) -> Limits:
    """The limits of a case that has them."""
    return Limits(case["limits"].get("low"), case["limits"].get("high"))


def reader_for(dimension: Dimension) -> Record:
    """The reader of a verdict case whose measured values have one dimension."""
    value = Quantity(dimension)
    return Record(
        {"limits": limits_of(dimension), "resolution": Quantity(dimension, above=0)},
        {
            "readings": ListOf(value),
            "band": ListOf(value, least=2, most=2),
            "calibration": Quantity(dimension, least=0),
            "differences": Flag(),
            "repeatability": Quantity(dimension, least=0),
        },
    )


def calculate(value: object) -> Json:
    """Read a verdict case and answer it."""
    dimension = _dimension(value)
    case = reader_for(dimension).read(value, "")
    if ("readings" in case) == ("band" in case):
        raise BadInput("readings", "", "give either readings or a band")
    limits, gauge = limits_from(case), gauge_of(case)
    differences = case.get("differences", False)
    if "band" in case:
        if "repeatability" in case:
            raise BadInput("repeatability", "", "does not go with a band; leave it out")
        verdict = of_band(tuple(case["band"]), limits, gauge, differences=differences)
    else:
        verdict = of_readings(
            case["readings"],
            limits,
            gauge,
            differences=differences,
            repeatability=case.get("repeatability"),
        )
    unit = dimension.suffix
    return {
        "verdict": verdict.word,
        **({"because": verdict.because} if verdict.because else {}),
        f"mean_{unit}": verdict.mean,
        f"U_{unit}": verdict.U,
        f"margin_{unit}": verdict.margin,
    }


def _dimension(value: object) -> Dimension:
    """What is measured, told by the first value; a length where there is none to tell by."""
    for name in ("readings", "band"):
        values = value.get(name) if isinstance(value, dict) else None
        if isinstance(values, list) and values:
            return dimension_of(values[0], _MEASURED, f"{name}[0]")
        if values is not None and not isinstance(values, list):
            raise BadInput(name, echo(values), "is not a list")
    return LENGTH


def schema() -> Json:
    """The JSON schema of a verdict case, for lengths; other dimensions alike."""
    return reader_for(LENGTH).schema()
