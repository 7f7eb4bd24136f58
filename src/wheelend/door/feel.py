"""The `feel` case."""

from wheelend.feel import THRESHOLD_MM, at_hands, smallest_felt
from wheelend.quantity import ANGLE, LENGTH
from wheelend.readers import Json, Quantity, Record

_CASE = Record(
    {
        "radius": Quantity(LENGTH, above=0),
        "spread": Quantity(LENGTH, above=0),
        "contact_angle": Quantity(ANGLE, above=0),
    },
    {"play": Quantity(LENGTH, least=0), "threshold": Quantity(LENGTH, above=0)},
)


def calculate(value: object) -> Json:
    """Read a feel case and answer it."""
    case = _CASE.read(value, "")
    sizes = case["radius"], case["spread"], case["contact_angle"]
    answer: Json = {"smallest_felt_mm": smallest_felt(*sizes, case.get("threshold", THRESHOLD_MM))}
    if "play" in case:
        answer["at_hands_mm"] = at_hands(*sizes, case["play"])
    return answer


def schema() -> Json:
    """The JSON schema of a feel case."""
    return _CASE.schema()
