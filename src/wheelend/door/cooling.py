"""The `cooling` case."""

from wheelend.cooling import cooling
from wheelend.quantity import TEMPERATURE, TIME
from wheelend.readers import Json, ListOf, Quantity, Record

_CASE = Record(
    {
        "readings": ListOf(Record({"at": Quantity(TIME), "temperature": Quantity(TEMPERATURE)})),
        "ambient": Quantity(TEMPERATURE),
        "until": Quantity(TEMPERATURE),
    },
    {"now": Quantity(TIME)},
)


def calculate(value: object) -> Json:
    """Read a cooling case and answer it."""
    case = _CASE.read(value, "")
    readings = [(one["at"], one["temperature"]) for one in case["readings"]]
    found = cooling(readings, case["ambient"], case["until"], case.get("now"))
    answer: Json = {
        "time_constant_s": found.time_constant_s,
        "temperature_now_degC": found.now_degC,
        "left_s": found.left_s,
    }
    return answer | {"never": True} if found.never else answer


def schema() -> Json:
    """The JSON schema of a cooling case."""
    return _CASE.schema()
