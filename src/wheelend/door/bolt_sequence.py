"""The `bolt-sequence` case."""

from wheelend.bolts import bolt_sequence, star_order
from wheelend.quantity import TORQUE
from wheelend.readers import Flag, Json, ListOf, Number, Quantity, Record, Whole

_CASE = Record(
    {"bolts": Whole(2), "torque": Quantity(TORQUE, above=0), "stages": ListOf(Number(above=0))},
    {"last_round": Flag()},
)


def calculate(value: object) -> Json:
    """Read a bolt-sequence case and answer it."""
    case = _CASE.read(value, "")
    passes = bolt_sequence(
        case["bolts"], case["torque"], case["stages"], last_round=case.get("last_round", True)
    )
    return {
        "order": list(star_order(case["bolts"])),
        "passes": [{"torque_N_m": one.torque_N_m, "order": list(one.order)} for one in passes],
    }


def schema() -> Json:
    """The JSON schema of a bolt-sequence case."""
    return _CASE.schema()
