"""The `oil` case."""

from wheelend.oil import EXPANSION, oil
from wheelend.quantity import PRESSURE, TEMPERATURE, VOLUME
from wheelend.readers import Flag, Json, Number, Quantity, Record

_CASE = Record(
    {
        "cavity": Quantity(VOLUME, above=0),
        "oil": Quantity(VOLUME, least=0),
        "fill_temperature": Quantity(TEMPERATURE),
        "running_temperature": Quantity(TEMPERATURE),
    },
    {
        "limit": Quantity(PRESSURE, least=0),
        "expansion": Number(least=0),
        "vented": Flag(),
        "cools_to": Quantity(TEMPERATURE),
    },
)


def calculate(value: object) -> Json:
    """Read an oil case and answer it."""
    case = _CASE.read(value, "")
    found = oil(
        case["cavity"],
        case["oil"],
        case["fill_temperature"],
        case["running_temperature"],
        limit_bar=case.get("limit"),
        expansion=case.get("expansion", EXPANSION),
        vented=case.get("vented", False),
        cools_to_degC=case.get("cools_to"),
    )
    answer: Json = {
        "gauge_bar": found.gauge_bar,
        "air_mL": found.air_mL,
        "air_warm_mL": found.air_warm_mL,
        "flags": list(found.flags),
    }
    if "cools_to" in case:
        answer["gauge_cooled_bar"] = found.gauge_cooled_bar
    if found.verdict:
        answer["verdict"] = found.verdict
    return answer


def schema() -> Json:
    """The JSON schema of an oil case."""
    return _CASE.schema()
