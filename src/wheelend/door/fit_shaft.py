"""The `fit-shaft` case."""

from wheelend.door.fit import MATERIAL, OPTIONS, SIZE, answer_of, press_of, warmth_of
from wheelend.fit import Ring, fit_on_shaft
from wheelend.quantity import LENGTH, TEMPERATURE
from wheelend.readers import Json, Quantity, Record

_CASE = Record(
    {
        "ring": Record({"bore": SIZE, "outside": SIZE, "width": SIZE}, {"material": MATERIAL}),
        "shaft": Record({"material": MATERIAL}, {"hollow": SIZE}),
        "interference": Quantity(LENGTH, least=0),
    },
    {
        **OPTIONS,
        "shaft_temperature": Quantity(TEMPERATURE),
        "ring_limit": Quantity(TEMPERATURE),
    },
)


def calculate(value: object) -> Json:
    """Read a fit-shaft case and answer it."""
    case = _CASE.read(value, "")
    ring, shaft = case["ring"], case["shaft"]
    found = fit_on_shaft(
        Ring(ring["bore"], ring["outside"], ring["width"], ring.get("material", "bearing_steel")),
        shaft["material"],
        case["interference"],
        hollow_mm=shaft.get("hollow", 0.0),
        warmth=warmth_of(case, "shaft"),
        **press_of(case),
    )
    return answer_of(found, race="growth_mm", goes="slides_on", needed="ring_needed_degC")


def schema() -> Json:
    """The JSON schema of a fit-shaft case."""
    return _CASE.schema()
