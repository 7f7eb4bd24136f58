"""The `drag` case."""

from typing import Any

from wheelend.door.verdict import limits_from
from wheelend.drag import Band, DragTrial, Steps, band_of_pull, next_spacer
from wheelend.errors import BadInput, echo
from wheelend.quantity import FORCE, LENGTH, TORQUE
from wheelend.readers import Either, Json, ListOf, Quantity, Record, Word

_SPACER = Quantity(LENGTH, least=0)
_PULL = Record(
    {
        "force_band": ListOf(Quantity(FORCE), least=2, most=2),
        "radius": Quantity(LENGTH, above=0),
    }
)
_TRIAL = Record(
    {"spacer": _SPACER}, {"band": ListOf(Quantity(TORQUE), least=2, most=2), "pull": _PULL}
)
_STEP = Quantity(LENGTH, above=0)
_CASE = Record(
    {
        "trials": ListOf(_TRIAL),
        "limits": Record({"low": Quantity(TORQUE), "high": Quantity(TORQUE)}),
        "resolution": Quantity(TORQUE, above=0),
        "thicker": Word(("loosens", "tightens")),
        "first_step": _STEP,
        "max_step": _STEP,
    },
    {"aim": Either(lambda value: value == "middle", Word(("middle",)), Quantity(TORQUE))},
)


def calculate(value: object) -> Json:
    """Read a drag case and answer it."""
    case = _CASE.read(value, "")
    trials = [_trial(one, f"trials[{index}]") for index, one in enumerate(case["trials"])]
    aim = case.get("aim", "middle")
    found = next_spacer(
        trials,
        limits_from(case),
        case["resolution"],
        Steps(case["thicker"], case["first_step"], case["max_step"]),
        aim=None if aim == "middle" else aim,
    )
    answer: Json = {"verdict": found.verdict, "drag_N_m": found.drag, "U_N_m": found.U}
    if found.next_mm is not None:
        answer |= {"next_spacer_mm": found.next_mm, "change_mm": found.change_mm}
    return {**answer, "basis": found.basis, "flags": list(found.flags)}


def _trial(said: dict[str, Any], path: str) -> DragTrial:
    if ("band" in said) == ("pull" in said):
        raise BadInput(path, "", "give either band or pull")
    where = f"{path}.band" if "band" in said else f"{path}.pull.force_band"
    low, high = said["band"] if "band" in said else said["pull"]["force_band"]
    if low > high:
        need = "is high first; give the lower value first"
        raise BadInput(where, echo(f"{low:g} to {high:g}"), need)
    band: Band = (low, high)
    if "pull" in said:
        band = band_of_pull(band, said["pull"]["radius"])
    return DragTrial(said["spacer"], band)


def schema() -> Json:
    """The JSON schema of a drag case."""
    return _CASE.schema()
