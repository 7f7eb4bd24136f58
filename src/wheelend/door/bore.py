"""The `bore` case."""

from wheelend.bore import bore
from wheelend.quantity import LENGTH
from wheelend.readers import Json, ListOf, Quantity, Record

_DIAMETER = Quantity(LENGTH, above=0)
_CASE = Record(
    {"planes": ListOf(ListOf(_DIAMETER)), "resolution": Quantity(LENGTH, above=0)},
    {
        "limits": Record(
            {}, {"ovality": Quantity(LENGTH, least=0), "taper": Quantity(LENGTH, least=0)}
        ),
        "ring": _DIAMETER,
    },
)


def calculate(value: object) -> Json:
    """Read a bore case and answer it."""
    case = _CASE.read(value, "")
    limits = case.get("limits", {})
    found = bore(
        case["planes"],
        case["resolution"],
        ovality_limit_mm=limits.get("ovality"),
        taper_limit_mm=limits.get("taper"),
        ring_mm=case.get("ring"),
    )
    answer: Json = {
        "ovality_mm": found.ovality_mm,
        "taper_mm": found.taper_mm,
        "mean_mm": found.mean_mm,
    }
    if found.interference_mm is not None:
        answer["interference_mm"] = found.interference_mm
    words = {"ovality": found.ovality, "taper": found.taper}
    if limits:
        answer["verdict"] = {name: word for name, word in words.items() if word}
    return answer


def schema() -> Json:
    """The JSON schema of a bore case."""
    return _CASE.schema()
