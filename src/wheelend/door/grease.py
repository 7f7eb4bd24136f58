"""The `grease` case."""

from wheelend.grease import DENSITY, Bearing, grease
from wheelend.quantity import DENSITY as DENSITIES
from wheelend.quantity import LENGTH, MASS, VOLUME
from wheelend.readers import Json, Number, Quantity, Record

_SIZE = Quantity(LENGTH, above=0)
_PART = Number(least=0, most=1)
_CASE = Record(
    {
        "bearing": Record(
            {"bore": _SIZE, "outside": _SIZE, "width": _SIZE, "mass": Quantity(MASS, above=0)}
        )
    },
    {
        "density": Quantity(DENSITIES, above=0),
        "fill": _PART,
        "weighed": Record({"dry": Quantity(MASS, above=0), "packed": Quantity(MASS, above=0)}),
        "cavity": Record({"volume": Quantity(VOLUME, least=0), "fill": _PART}),
        "per_stroke": Quantity(MASS, above=0),
    },
)


def calculate(value: object) -> Json:
    """Read a grease case and answer it."""
    case = _CASE.read(value, "")
    size, weighed, cavity = case["bearing"], case.get("weighed"), case.get("cavity")
    found = grease(
        Bearing(size["bore"], size["outside"], size["width"], size["mass"]),
        density=case.get("density", DENSITY),
        fill=case.get("fill", 1.0),
        weighed_g=(weighed["dry"], weighed["packed"]) if weighed else None,
        cavity=(cavity["volume"], cavity["fill"]) if cavity else None,
        per_stroke_g=case.get("per_stroke"),
    )
    answer: Json = {
        "free_mL": found.free_mL,
        "fill_g": found.fill_g,
        "top_up_g": found.top_up_g,
    }
    more = {
        "cavity_g": found.cavity_g, "strokes": found.strokes, "packed_fraction": found.packed,
        "state": found.state,
    }  # fmt: skip
    return answer | {key: one for key, one in more.items() if one is not None}


def schema() -> Json:
    """The JSON schema of a grease case."""
    return _CASE.schema()
