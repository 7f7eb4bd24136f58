"""The `wrench` case."""

from wheelend.door.verdict import limits_from, limits_of
from wheelend.quantity import ANGLE, LENGTH, TORQUE
from wheelend.readers import Day, Flag, Json, Number, Quantity, Record, Whole
from wheelend.wrench import ACCURACY, Adaptor, Wrench, wrench_setting

_CASE = Record(
    {"target": Quantity(TORQUE, above=0)},
    {
        "limits": limits_of(TORQUE),
        "adaptor": Record(
            {"wrench_length": Quantity(LENGTH, above=0), "offset": Quantity(LENGTH)},
            {"angle": Quantity(ANGLE)},
        ),
        "multiplier": Number(least=1),
        "lengthened": Flag(),
        "range": Record({"low": Quantity(TORQUE, least=0), "high": Quantity(TORQUE, above=0)}),
        "accuracy": Number(least=0),
        "calibrated_on": Day(),
        "today": Day(),
        "cycles": Whole(),
    },
)


def calculate(value: object) -> Json:
    """Read a wrench case and answer it."""
    case = _CASE.read(value, "")
    span = case.get("range", {})
    adaptor = case.get("adaptor")
    wrench = Wrench(
        low_N_m=span.get("low"),
        high_N_m=span.get("high"),
        accuracy=case.get("accuracy", ACCURACY),
        adaptor=Adaptor(adaptor["wrench_length"], adaptor["offset"], adaptor.get("angle", 0.0))
        if adaptor
        else None,
        multiplier=case.get("multiplier", 1.0),
        lengthened=case.get("lengthened", False),
        calibrated_on=case.get("calibrated_on"),
        today=case.get("today"),
        cycles=case.get("cycles", 0),
    )
    found = wrench_setting(case["target"], wrench, limits_from(case) if "limits" in case else None)
    return {
        "setting_N_m": found.setting_N_m,
        "achieved_low_N_m": found.achieved_low_N_m,
        "achieved_high_N_m": found.achieved_high_N_m,
        **({"verdict": found.verdict} if found.verdict else {}),
        "flags": list(found.flags),
    }


def schema() -> Json:
    """The JSON schema of a wrench case."""
    return _CASE.schema()
