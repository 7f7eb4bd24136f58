"""The `shim-plan` case."""

from typing import Any

from wheelend.errors import BadInput, echo
from wheelend.quantity import LENGTH
from wheelend.readers import Either, Json, ListOf, Quantity, Record, Whole, Word
from wheelend.shims import Pack, Problem, ShimPlan, TrayShim, Trial, plan
from wheelend.shims.problem import MOST_SIDES, THICKEST_MM, Choice
from wheelend.verdict import Limits


class _Thickness(Quantity):
    """A length that a shim can have."""

    def read(self, value: object, path: str) -> float:
        thickness = super().read(value, path)
        if thickness > THICKEST_MM:
            need = f"is too thick for a shim; give at most {THICKEST_MM:g} mm"
            raise BadInput(path, echo(value), need)
        return thickness


_THICKNESS = _Thickness(LENGTH, least=0)
_SIDE = ListOf(_THICKNESS, least=0)
_AIMS = ("middle", "low", "high")
_NO_PLAY = ("bound", "no_play")


def _is_word(words: tuple[str, ...]) -> Any:
    return lambda value: isinstance(value, str) and value in words


_TRIAL = Record(
    {
        "pack": Either(
            lambda value: isinstance(value, dict), Record({"left": _SIDE, "right": _SIDE}), _SIDE
        ),
        "result": Either(
            lambda value: isinstance(value, dict),
            Record({"play": Quantity(LENGTH, least=0)}),
            Word(_NO_PLAY),
        ),
    }
)
_CASE = Record(
    {
        "effect": Word(("opens", "closes")),
        "sides": Whole(1),
        "trials": ListOf(_TRIAL),
        "tray": ListOf(Record({"thickness": _THICKNESS, "count": Whole()}), least=0),
        "limits": Record({"low": Quantity(LENGTH), "high": Quantity(LENGTH)}),
        "aim": Either(_is_word(_AIMS), Word(_AIMS), Quantity(LENGTH)),
        "resolution": Quantity(LENGTH, above=0),
    },
    {
        "pack_resolution": Quantity(LENGTH, least=0),
        "repeatability": Quantity(LENGTH, least=0),
        "shim_doubt": Quantity(LENGTH, least=0),
        "max_shims": Whole(1),
        "balance": Word(("even", "as_found")),
        "balance_tolerance": Quantity(LENGTH, least=0),
        "search_step": Quantity(LENGTH, above=0),
    },
)
_IN_MM = (
    "resolution", "pack_resolution", "balance_tolerance", "search_step", "repeatability", "shim_doubt",
)  # fmt: skip
_AS_GIVEN = ("effect", "sides", "aim", "max_shims", "balance")


def calculate(value: object) -> Json:
    """Read a shim-plan case and answer it."""
    case = _CASE.read(value, "")
    if case["sides"] > MOST_SIDES:
        raise BadInput("sides", str(case["sides"]), "is not 1 or 2")
    problem = Problem(
        trials=tuple(_trial(trial, case["sides"], i) for i, trial in enumerate(case["trials"])),
        tray=tuple(TrayShim(shim["thickness"], shim["count"]) for shim in case["tray"]),
        limits=Limits(case["limits"]["low"], case["limits"]["high"]),
        **{name: case[name] for name in _AS_GIVEN if name in case},
        **{f"{name}_mm": case[name] for name in _IN_MM if name in case},
    )
    return _answer(plan(problem))


def _trial(trial: dict[str, Any], sides: int, index: int) -> Trial:
    pack = _pack(trial["pack"], sides, f"trials[{index}].pack")
    result = trial["result"]
    if isinstance(result, dict):
        return Trial(pack, "play", result["play"])
    return Trial(pack, result)


def _pack(given: Any, sides: int, path: str) -> Pack:
    two = sides > 1
    if isinstance(given, dict) != two:
        form = "{left, right}" if two else "one list"
        raise BadInput(path, "", f"does not fit sides {sides}; give {form}")
    return (tuple(given["left"]), tuple(given["right"])) if two else (tuple(given),)


def _sided(pack: Pack) -> Any:
    left, *right = pack
    return {"left": list(left), "right": list(right[0])} if right else list(left)


def _fitted(choice: Choice) -> Json:
    sides = _sided(choice.pack)
    answer: Json = sides if isinstance(sides, dict) else {"pack": sides}
    answer = {**answer, "add": _sided(choice.add), "remove": _sided(choice.remove)}
    if choice.predicted_mm is not None:
        answer |= {"predicted_mm": choice.predicted_mm, "verdict": choice.verdict}
    return answer


def _answer(found: ShimPlan) -> Json:
    answer: Json = {"kind": found.kind, "U_mm": found.U_mm, "flags": list(found.flags)}
    if found.choice:
        answer |= _fitted(found.choice)
    answer["alternatives"] = [_fitted(choice) for choice in found.alternatives]
    if found.buy:
        answer["buy"] = {"metric_mm": found.buy.metric_mm, "inch_mm": found.buy.inch_mm}
    if found.disagree:
        answer["disagree"] = list(found.disagree)
    if found.contradicted:
        answer["contradicted"] = list(found.contradicted)
    return answer


def schema() -> Json:
    """The JSON schema of a shim-plan case."""
    return _CASE.schema()
