"""The `bearing-number` case."""

from wheelend.bearingnumber import bearing_number, compare_numbers
from wheelend.readers import Json, Record, Text

_CASE = Record({"number": Text("a bearing's number")}, {"compare": Text("a bearing's number")})


def calculate(value: object) -> Json:
    """Read a bearing-number case and answer it."""
    case = _CASE.read(value, "")
    found = bearing_number(case["number"])
    answer: Json = {
        "type": found.type,
        "series": found.series,
        "bore_mm": found.bore_mm,
        "seals": found.seals,
        "clearance": found.clearance,
        "suffixes": list(found.suffixes),
        "differences": [],
    }
    for name in ("outside_mm", "width_mm"):
        if getattr(found, name) is not None:
            answer[name] = getattr(found, name)
    if "compare" in case:
        compared = compare_numbers(found, bearing_number(case["compare"], "compare"))
        answer |= {"same_size": compared.same_size, "differences": list(compared.differences)}
    return answer


def schema() -> Json:
    """The JSON schema of a bearing-number case."""
    return _CASE.schema()
