"""The `seating` case."""

from wheelend.quantity import ANGLE
from wheelend.readers import Json, ListOf, Quantity, Record, Whole
from wheelend.seating import MOST_REPEATS, STILL_DEG, seating

_CASE = Record(
    {"moves": ListOf(Quantity(ANGLE, least=0))},
    {"still": Quantity(ANGLE, least=0), "most": Whole(1)},
)


def calculate(value: object) -> Json:
    """Read a seating case and answer it."""
    case = _CASE.read(value, "")
    found = seating(
        case["moves"], still_deg=case.get("still", STILL_DEG), most=case.get("most", MOST_REPEATS)
    )
    return {"state": found.state, "repeats": found.repeats}


def schema() -> Json:
    """The JSON schema of a seating case."""
    return _CASE.schema()
