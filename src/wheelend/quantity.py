"""Quantities as people type them: a number in one of three spellings, then a unit.

Parsed exactly, as fractions; lengths land on a 10 nm grid so that inch and metric shims add up.
Source of the factors: NIST SP 811 (2008), appendix B; BIPM SI brochure, 9th edition.
"""

import re
from dataclasses import dataclass, field
from fractions import Fraction

from wheelend.errors import BadInput, echo

GRID_PER_MM = 100_000
"""Steps of the length grid in one millimetre: 10 nm each."""

LARGEST = 10**15

_LBF_FT = Fraction("1.3558179483")
_LBF_IN = Fraction("0.1129848290")
_OZF_IN = Fraction("0.0070615518")
_KGF = Fraction("9.80665")
_LBF = Fraction("4.4482216153")
_INCH = Fraction("25.4")
_THOU = _INCH / 1000


@dataclass(frozen=True)
class Dimension:
    """A kind of quantity: its output unit, the factor from every spelling to that unit, and what is
    added where a unit's zero lies elsewhere."""

    name: str
    suffix: str
    article: str
    example: str
    units: dict[str, Fraction]
    zeros: dict[str, Fraction] = field(default_factory=dict)


def _joined(
    first: str, second: str, factor: Fraction, joints: str = "·*-. "
) -> dict[str, Fraction]:
    return {first + joint + second: factor for joint in joints}


def _torque_units() -> dict[str, Fraction]:
    units: dict[str, Fraction] = {}
    for prefix, factor in (("", Fraction(1)), ("m", Fraction(1, 1000)), ("c", Fraction(1, 100))):
        units[prefix + "Nm"] = factor
        units |= _joined(prefix + "N", "m", factor)
    for pounds in ("lbf", "lb"):
        units |= _joined(pounds, "ft", _LBF_FT) | _joined("ft", pounds, _LBF_FT)
        units |= _joined(pounds, "in", _LBF_IN) | _joined("in", pounds, _LBF_IN)
    for ounces in ("ozf", "oz"):
        units |= _joined(ounces, "in", _OZF_IN) | _joined("in", ounces, _OZF_IN)
    units |= _joined("kgf", "m", _KGF) | _joined("kgf", "cm", _KGF / 100)
    return units


LENGTH = Dimension(
    "length", "mm", "a", '"0.05 mm" or "2 thou"',
    {
        "mm": Fraction(1), "cm": Fraction(10), "m": Fraction(1000),
        "um": Fraction(1, 1000), "\u00b5m": Fraction(1, 1000), "\u03bcm": Fraction(1, 1000),
        "in": _INCH, "inch": _INCH, "inches": _INCH, '"': _INCH, "thou": _THOU, "mil": _THOU,
    },
)  # fmt: skip
TORQUE = Dimension("torque", "N_m", "a", '"60 N·m" or "45 lbf·ft"', _torque_units())
TORQUE_PER_DEG = Dimension(
    "torque per degree", "N_m_per_deg", "a", '"1.5 N·m/deg"',
    {f"{unit}/{deg}": factor for unit, factor in _torque_units().items() for deg in ("deg", "°")},
)  # fmt: skip
FORCE = Dimension(
    "force", "N", "a", '"12 N" or "3 lbf"',
    {"N": Fraction(1), "kN": Fraction(1000), "lbf": _LBF, "kgf": _KGF},
)  # fmt: skip
ANGLE = Dimension("angle", "deg", "an", '"30 deg"', {"deg": Fraction(1), "°": Fraction(1)})
USAGE = Dimension(
    "usage", "usage", "a", '"84200 km", "52000 mi" or "310 h"',
    {"km": Fraction(1), "mi": Fraction(1), "h": Fraction(1)},
)  # fmt: skip

_DEGC, _DEGF = ("degC", "°C"), ("degF", "°F")
TEMPERATURE = Dimension(
    "temperature", "degC", "a", '"80 degC" or "175 degF"',
    {**dict.fromkeys((*_DEGC, "K"), Fraction(1)), **dict.fromkeys(_DEGF, Fraction(5, 9))},
    {**dict.fromkeys(_DEGF, Fraction(-160, 9)), "K": Fraction("-273.15")},
)  # fmt: skip

TIME = Dimension(
    "time", "s", "a", '"90 s" or "15 min"',
    {"s": Fraction(1), "min": Fraction(60), "h": Fraction(3600)},
)  # fmt: skip
MASS = Dimension(
    "mass", "g", "a", '"12 g" or "0.4 oz"',
    {
        "g": Fraction(1), "kg": Fraction(1000), "mg": Fraction(1, 1000),
        "oz": Fraction("28.349523125"), "lb": Fraction("453.59237"),
    },
)  # fmt: skip
VOLUME = Dimension(
    "volume", "mL", "a", '"60 mL" or "0.5 L"',
    {"mL": Fraction(1), "L": Fraction(1000), "cm3": Fraction(1)},
)  # fmt: skip
_PSI = _LBF / (_INCH / 1000) ** 2 / 10**5
PRESSURE = Dimension(
    "pressure", "bar", "a", '"0.3 bar" or "4 psi"',
    {
        "bar": Fraction(1), "mbar": Fraction(1, 1000), "kPa": Fraction(1, 100),
        "MPa": Fraction(10), "psi": _PSI,
    },
)  # fmt: skip
DENSITY = Dimension(
    "density", "g_per_mL", "a", '"0.9 g/mL"',
    {
        "g/mL": Fraction(1), "g/cm3": Fraction(1), "kg/L": Fraction(1), "kg/m3": Fraction(1, 1000),
    },
)  # fmt: skip

_DIMENSIONS = (
    LENGTH, TORQUE, TORQUE_PER_DEG, FORCE, ANGLE, USAGE, TEMPERATURE, TIME, MASS, VOLUME, PRESSURE,
    DENSITY,
)  # fmt: skip

_NUMBER = re.compile(
    r"(?P<sign>[\-\u2212]?)\s*(?:"
    r"(?P<whole>\d+)(?:\s+|-)(?P<over>\d+)/(?P<under>\d+)"
    r"|(?P<top>\d+)/(?P<bottom>\d+)"
    r"|(?P<decimal>(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:[eE][+-]?\d+)?)"
    r")\s*(?P<unit>\D.*)?",
    re.ASCII,
)
_DOTS = str.maketrans("\u22c5\u2219", "··")


def parse(text: object, dimension: Dimension, path: str = "") -> Fraction:
    """The exact value of a typed quantity, in the dimension's output unit.

    Lengths are rounded to the 10 nm grid, halves away from zero.
    Raises BadInput for anything that is not a finite quantity of that dimension.

    >>> float(parse("1-1/8 in", LENGTH)), float(parse("2 thou", LENGTH))
    (28.575, 0.0508)
    """
    value = _number_in(text, dimension)
    if value is None:
        need = f"is not {dimension.article} {dimension.name}; give e.g. {dimension.example}"
        raise BadInput(path, echo(text), need)
    if abs(value) > LARGEST:
        raise BadInput(path, echo(text), f"is too large; give e.g. {dimension.example}")
    return on_grid(value) if dimension is LENGTH else value


def on_grid(length_mm: Fraction) -> Fraction:
    """A length in mm on the nearest step of the 10 nm grid, halves away from zero."""
    steps = (abs(length_mm) * GRID_PER_MM * 2 + 1) // 2
    return Fraction(steps if length_mm >= 0 else -steps, GRID_PER_MM)


def unit_of(text: str) -> str:
    """The unit as it was typed, or an empty string."""
    match = _NUMBER.fullmatch(text.strip())
    return (match["unit"] or "").strip() if match else ""


def is_quantity(text: str) -> bool:
    """Whether a text is a plain number, or one with a unit of the trade, and nothing else."""
    match = _NUMBER.fullmatch(text.strip())
    if match is None or _magnitude(match) is None:
        return False
    return not match["unit"] or any(_number_in(text, one) is not None for one in _DIMENSIONS)


def is_of(text: str, dimension: Dimension) -> bool:
    """Whether a typed quantity has a dimension."""
    return _number_in(text, dimension) is not None


def dimension_of(text: object, among: tuple[Dimension, ...], path: str = "") -> Dimension:
    """Which of some dimensions a typed quantity has. Raises BadInput when it has none of them."""
    for dimension in among:
        if _number_in(text, dimension) is not None:
            return dimension
    names = " or ".join(dimension.name for dimension in among)
    raise BadInput(path, echo(text), f"is not a {names}; give e.g. {among[0].example}")


def _number_in(text: object, dimension: Dimension) -> Fraction | None:
    match = _NUMBER.fullmatch(text.strip()) if isinstance(text, str) else None
    if match is None:
        return None
    unit = (match["unit"] or "").strip().translate(_DOTS)
    factor = dimension.units.get(unit)
    number = _magnitude(match)
    if factor is None or number is None:
        return None
    signed = -number if match["sign"] in ("-", "\u2212") else number
    return signed * factor + dimension.zeros.get(unit, 0)


def last_digit(text: str, dimension: Dimension) -> Fraction:
    """What one more in the last place of a typed quantity means, in the dimension's output unit.

    A fraction counts in its own parts. Raises BadInput for what is no quantity.

    >>> float(last_digit("0.02 mm", LENGTH)), float(last_digit("71 degC", TEMPERATURE))
    (0.01, 1.0)
    """
    parse(text, dimension)
    match = _NUMBER.fullmatch(text.strip())
    if match is None:
        return Fraction(0)
    factor = dimension.units[(match["unit"] or "").strip().translate(_DOTS)]
    parts = match["under"] or match["bottom"]
    if parts:
        return factor / int(parts)
    digits, _, power = match["decimal"].lower().replace(",", ".").partition("e")
    return factor * Fraction(10) ** (int(power or 0) - len(digits.partition(".")[2]))


def _magnitude(match: re.Match[str]) -> Fraction | None:
    try:
        if match["whole"] is not None:
            return int(match["whole"]) + Fraction(int(match["over"]), int(match["under"]))
        if match["top"] is not None:
            return Fraction(int(match["top"]), int(match["bottom"]))
        mantissa, _, exponent = match["decimal"].lower().replace(",", ".").partition("e")
        if len(exponent.lstrip("+-")) > 3:
            return None
        return Fraction(mantissa) * Fraction(10) ** int(exponent or 0)
    except (ValueError, ZeroDivisionError):
        # A zero below the bar, or more digits than Python will read as a number.
        return None
