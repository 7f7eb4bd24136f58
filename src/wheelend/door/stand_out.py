"""The `stand-out` case."""

from wheelend.door.verdict import limits_from, limits_of
from wheelend.quantity import LENGTH
from wheelend.readers import Json, ListOf, Quantity, Record, Text
from wheelend.standout import TOLERANCE_MM, Explanation, StackedPart, stand_out

_HEIGHT = Quantity(LENGTH, least=0)
_CASE = Record(
    {
        "parts": ListOf(
            Record({"name": Text("a part's name"), "thickness": _HEIGHT}, {"reversed": _HEIGHT})
        ),
        "depth": _HEIGHT,
        "resolution": Quantity(LENGTH, above=0),
    },
    {
        "measured": Quantity(LENGTH),
        "feelers": ListOf(_HEIGHT),
        "no_go": ListOf(_HEIGHT),
        "limits": limits_of(LENGTH),
        "tolerance": _HEIGHT,
    },
)


def calculate(value: object) -> Json:
    """Read a stand-out case and answer it."""
    case = _CASE.read(value, "")
    found = stand_out(
        [StackedPart(p["name"], p["thickness"], p.get("reversed")) for p in case["parts"]],
        case["depth"],
        case["resolution"],
        measured_mm=case.get("measured"),
        feelers_mm=case.get("feelers", ()),
        no_go_mm=case.get("no_go", ()),
        limits=limits_from(case) if "limits" in case else None,
        tolerance_mm=case.get("tolerance", TOLERANCE_MM),
    )
    return {
        "expected_mm": found.expected_mm,
        "measured_mm": found.measured_mm,
        "difference_mm": found.difference_mm,
        **({"verdict": found.verdict} if found.verdict else {}),
        "explanations": [_explanation(one) for one in found.explanations],
        "flags": list(found.flags),
    }


def _explanation(one: Explanation) -> Json:
    what: Json = {"reversed": one.reversed} if one.reversed else {"missing": list(one.missing)}
    return {**what, "residual_mm": one.residual_mm}


def schema() -> Json:
    """The JSON schema of a stand-out case."""
    return _CASE.schema()
