"""The `nut-angle` case."""

from typing import Any

from wheelend.compare import Known
from wheelend.door.lock_nut import pitch_of, threads
from wheelend.door.verdict import limits_from, limits_of
from wheelend.errors import BadInput
from wheelend.nutangle import ANGLE_DOUBT_DEG, LASH_DOUBT_MM, nut_angle
from wheelend.quantity import ANGLE, LENGTH
from wheelend.readers import Either, Exact, Json, Quantity, Record, Word

_DOUBT = Quantity(LENGTH, least=0)
_CASE = Record(
    {"angle": Quantity(ANGLE, least=0)},
    {
        "pitch": Exact(LENGTH, above=0),
        "threads_per_inch": threads(),
        "angle_doubt": Quantity(ANGLE, least=0),
        "lash_doubt": _DOUBT,
        "limits": limits_of(LENGTH),
        "aim": Either(lambda value: value == "middle", Word(("middle",)), Quantity(LENGTH)),
        "measured": Record({"play": Quantity(LENGTH), "doubt": _DOUBT}),
    },
)


def calculate(value: object) -> Json:
    """Read a nut-angle case and answer it."""
    case = _CASE.read(value, "")
    measured = case.get("measured")
    limits = _limits(case)
    aim = case.get("aim")
    if aim == "middle" and (limits is None or limits.window is None):
        raise BadInput("aim", '"middle"', "needs limits with low and high")
    found = nut_angle(
        float(pitch_of(case)),
        case["angle"],
        angle_doubt_deg=case.get("angle_doubt", ANGLE_DOUBT_DEG),
        lash_doubt_mm=case.get("lash_doubt", LASH_DOUBT_MM),
        limits=limits,
        aim_mm=None if aim == "middle" else aim,
        measured=Known(measured["play"], measured["doubt"]) if measured else None,
    )
    return {
        "play_mm": found.play_mm,
        "U_mm": found.U_mm,
        **{
            name: said
            for name, said in (
                ("verdict", found.verdict), ("turn_deg", found.turn_deg),
                ("difference_mm", found.difference_mm), ("agrees", found.agrees),
            )
            if said is not None
        },
    }  # fmt: skip


def _limits(case: dict[str, Any]) -> Any:
    return limits_from(case) if "limits" in case else None


def schema() -> Json:
    """The JSON schema of a nut-angle case."""
    return _CASE.schema()
