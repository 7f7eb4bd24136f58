"""The `fit` case."""

from typing import Any

from wheelend.fit import DROP_IN_MM, FRICTION, MATERIALS, Fit, Ring, Warmth, fit_in_housing
from wheelend.quantity import ANGLE, LENGTH, TEMPERATURE
from wheelend.readers import Json, Number, Quantity, Reader, Record, Word

SIZE = Quantity(LENGTH, above=0)
MATERIAL = Word(tuple(MATERIALS))
OPTIONS: dict[str, Reader] = {
    "contact_angle": Quantity(ANGLE, above=0),
    "friction": Number(above=0),
    "ring_temperature": Quantity(TEMPERATURE),
    "clearance": Quantity(LENGTH, least=0),
}
_CASE = Record(
    {
        "ring": Record({"outside": SIZE, "inside": SIZE, "width": SIZE}, {"material": MATERIAL}),
        "housing": Record({"outside": SIZE, "material": MATERIAL}),
        "interference": Quantity(LENGTH, least=0),
    },
    {
        **OPTIONS,
        "housing_temperature": Quantity(TEMPERATURE),
        "housing_limit": Quantity(TEMPERATURE),
        "service_temperature": Quantity(TEMPERATURE),
    },
)


def calculate(value: object) -> Json:
    """Read a fit case and answer it."""
    case = _CASE.read(value, "")
    ring, housing = case["ring"], case["housing"]
    found = fit_in_housing(
        Ring(ring["outside"], ring["inside"], ring["width"], ring.get("material", "bearing_steel")),
        housing["outside"],
        housing["material"],
        case["interference"],
        warmth=warmth_of(case, "housing"),
        **press_of(case),
    )
    return {
        **answer_of(found, race="bore_shrink_mm", goes="drops_in", needed="housing_needed_degC"),
        "flags": list(found.flags),
    }


def warmth_of(case: Json, other: str) -> Warmth:
    """The temperatures of a case; the limit is that of what is warmed."""
    warmed = "ring" if other == "shaft" else other
    return Warmth(
        case.get("ring_temperature"),
        case.get(f"{other}_temperature"),
        case.get("clearance", DROP_IN_MM),
        case.get(f"{warmed}_limit"),
        case.get("service_temperature"),
    )


def press_of(case: Json) -> dict[str, Any]:
    """The contact angle and the friction of a case."""
    return {
        "contact_angle_deg": case.get("contact_angle"),
        "friction": case.get("friction", FRICTION),
    }


def answer_of(found: Fit, *, race: str, goes: str, needed: str) -> Json:
    """A fit under the names of its case."""
    answer: Json = {
        "pressure_MPa": found.pressure_MPa,
        "press_force_N": found.force_N,
        race: found.race_mm,
        needed: found.needed_degC,
    }
    more = {
        "end_play_loss_mm": found.play_lost_mm,
        "gap_mm": found.gap_mm,
        goes: found.goes,
        "over_limit": found.over_limit,
        "interference_service_mm": found.service_mm,
    }
    return answer | {key: one for key, one in more.items() if one is not None}


def schema() -> Json:
    """The JSON schema of a fit case."""
    return _CASE.schema()
