"""The `seal-depth` case."""

from wheelend.door.verdict import limits_from, limits_of
from wheelend.quantity import LENGTH
from wheelend.readers import Json, ListOf, Quantity, Record, Text
from wheelend.sealdepth import seal_depth

_CASE = Record(
    {
        "depths": ListOf(
            Record(
                {
                    "clock": Text('a clock position, "1" to "12" or "4:30"'),
                    "depth": Quantity(LENGTH),
                }
            )
        ),
        "resolution": Quantity(LENGTH, above=0),
    },
    {"limits": limits_of(LENGTH), "even": Quantity(LENGTH, above=0)},
)


def calculate(value: object) -> Json:
    """Read a seal-depth case and answer it."""
    case = _CASE.read(value, "")
    found = seal_depth(
        [(one["clock"], one["depth"]) for one in case["depths"]],
        case["resolution"],
        limits=limits_from(case) if "limits" in case else None,
        even_mm=case.get("even"),
    )
    answer: Json = {
        "depth_mm": found.depth_mm,
        "tilt_mm": found.tilt_mm,
        "shallowest_deg": found.shallowest_deg,
        "flags": list(found.flags),
    }
    said = {"depth": found.depth, "even": found.even}
    if any(said.values()):
        answer["verdict"] = {name: word for name, word in said.items() if word}
    return answer


def schema() -> Json:
    """The JSON schema of a seal-depth case."""
    return _CASE.schema()
