"""The `compare` case."""

from wheelend.compare import Known, compare
from wheelend.errors import BadInput, echo
from wheelend.quantity import ANGLE, FORCE, LENGTH, TORQUE, Dimension, dimension_of
from wheelend.readers import Json, ListOf, Quantity, Record, Text

_MEASURED = (LENGTH, TORQUE, FORCE, ANGLE)


def reader_for(dimension: Dimension) -> Record:
    """The reader of a case whose values have one dimension."""
    value = Quantity(dimension)
    known = Record({"value": value, "doubt": Quantity(dimension, least=0)})
    effect = Record(
        {
            "name": Text("what happened between, in a few words"),
            "change": ListOf(value, least=2, most=2),
        }
    )
    return Record({"first": known, "second": known}, {"effects": ListOf(effect, least=0)})


def calculate(value: object) -> Json:
    """Read a compare case and answer it."""
    dimension = _dimension(value)
    case = reader_for(dimension).read(value, "")
    effects = []
    for index, one in enumerate(case.get("effects", ())):
        low, high = one["change"]
        if low > high:
            raise BadInput(f"effects[{index}].change", f"{low:g} to {high:g}", "is not low first")
        effects.append((low, high))
    first, second = (
        Known(case[name]["value"], case[name]["doubt"]) for name in ("first", "second")
    )
    found = compare(first, second, effects)
    unit = dimension.suffix
    return {
        f"difference_{unit}": found.difference,
        f"U_{unit}": found.U,
        f"expected_{unit}": list(found.expected),
        f"left_{unit}": found.left,
        "verdict": found.verdict,
        "flags": list(found.flags),
    }


def _dimension(value: object) -> Dimension:
    """What is measured, told by the first value; a length where there is none to tell by."""
    first = value.get("first") if isinstance(value, dict) else None
    said = first.get("value") if isinstance(first, dict) else None
    if said is None:
        return LENGTH
    if not isinstance(said, str):
        raise BadInput("first.value", echo(said), "is not a quantity with its unit")
    return dimension_of(said, _MEASURED, "first.value")


def schema() -> Json:
    """The JSON schema of a compare case, for lengths; other dimensions alike."""
    return reader_for(LENGTH).schema()
