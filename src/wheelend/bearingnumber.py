"""Reading a bearing's basic designation: type, series, bore, sizes, seals, clearance."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, Literal

from wheelend.datafiles import data_file
from wheelend.errors import BadInput, echo

Type = Literal[
    "deep_groove_ball", "angular_contact_ball", "tapered_roller", "cylindrical_roller",
    "spherical_roller", "thrust_ball",
]  # fmt: skip
Seals = Literal["open", "one_shield", "two_shields", "one_seal", "two_seals"]

_LONGEST = 40
_SMALL_BORES = {"00": 10.0, "01": 12.0, "02": 15.0, "03": 17.0}
_CODES = range(4, 97)
_CYLINDRICAL = re.compile(r"^(?:NUP|NU|NJ|NF|NN|N)[ ]?(\d{3,5})(.*)$")
_PLAIN = re.compile(r"^(\d{2,6})(?:/(\d{1,3}(?:\.\d+)?))?(.*)$")
_SEALS: tuple[tuple[re.Pattern[str], Seals], ...] = (
    (re.compile(r"^(2Z|ZZ|2ZR)$"), "two_shields"),
    (re.compile(r"^ZR?$"), "one_shield"),
    (re.compile(r"^2(RS|RSR|RS1|RS2|RSH|RSL|RZ)$"), "two_seals"),
    (re.compile(r"^(RS|RSR|RS1|RS2|RSH|RSL|RZ)$"), "one_seal"),
)
_CLEARANCE = re.compile(r"^C([1-5N])$")


@dataclass(frozen=True)
class Bearing:
    """What a designation says; sizes in mm, None where the series is not in the table."""

    type: Type
    series: str
    bore_mm: float
    outside_mm: float | None
    width_mm: float | None
    seals: Seals
    clearance: str
    suffixes: tuple[str, ...]

    @property
    def sizes(self) -> tuple[float | None, ...]:
        """Bore, outside and width."""
        return self.bore_mm, self.outside_mm, self.width_mm


def bearing_number(number: str, path: str = "number") -> Bearing:
    """Read an ISO basic designation such as `6204-2RS/C3`, `30206`, `NU 205`.

    Raises BadInput that says what was understood. Sources: ISO 15:2017, ISO 355:2019, ISO 104:2015 for
    the sizes; bore code 00 to 03 are 10, 12, 15, 17 mm, 04 to 96 times five, after `/` in mm; of three
    digits the last is the bore in mm.

    >>> bearing_number("6204-2RS/C3").outside_mm
    47.0
    """
    text = " ".join(number.upper().split())
    if not text or len(text) > _LONGEST:
        raise BadInput(path, echo(number), "is not a bearing's number; give e.g. 6204-2RS or 30206")
    cylindrical = _CYLINDRICAL.match(text)
    if cylindrical:
        digits, rest = cylindrical[1], cylindrical[2]
        return _made(
            "cylindrical_roller", digits[:-2], _bore(digits[-2:], number, path), digits[-2:], rest
        )
    plain = _PLAIN.match(text)
    if plain is None:
        raise BadInput(path, echo(number), "does not begin with digits, N, NU, NJ or NUP")
    digits, slash, rest = plain.groups()
    if slash:
        return _made(_type(digits + "00", number, path), digits, float(slash), "", rest)
    if len(digits) == 3:
        return _made(_type(digits, number, path), digits[:2], float(digits[2]), "", rest)
    if len(digits) < 4:
        raise BadInput(
            path, echo(number), f"has only the digits {digits}; a number has three or more"
        )
    kind = _type(digits, number, path)
    return _made(kind, digits[:-2], _bore(digits[-2:], number, path), digits[-2:], rest)


def _type(digits: str, number: str, path: str) -> Type:
    """The type by the first digit and how many there are."""
    first, count = digits[0], len(digits)
    if first == "6":
        return "deep_groove_ball"
    if first == "7":
        return "angular_contact_ball"
    if first == "3":
        return "tapered_roller" if count >= 5 else "angular_contact_ball"
    if first == "2" and count == 5:
        return "spherical_roller"
    if first == "5" and count == 5:
        return "thrust_ball"
    raise BadInput(path, echo(number), f"begins with {first}, which is no type that is known here")


def _bore(code: str, number: str, path: str) -> float:
    if code in _SMALL_BORES:
        return _SMALL_BORES[code]
    if int(code) in _CODES:
        return 5.0 * int(code)
    raise BadInput(path, echo(number), f"has the bore code {code}; known are 00 to 96, or / and mm")


def _made(kind: Type, series: str, bore: float, code: str, rest: str) -> Bearing:
    outside, width = _sizes(kind, series, code)
    suffixes = tuple(one for one in re.split(r"[\s\-/.]+", rest) if one)
    seals, clearance = _said(suffixes)
    return Bearing(kind, series, bore, outside, width, seals, clearance, suffixes)


def _said(suffixes: tuple[str, ...]) -> tuple[Seals, str]:
    seals: Seals = "open"
    clearance = "normal"
    for one in suffixes:
        seals = next((word for pattern, word in _SEALS if pattern.match(one)), seals)
        found = _CLEARANCE.match(one)
        if found and found[1] != "N":
            clearance = f"C{found[1]}"
    return seals, clearance


def _sizes(kind: Type, series: str, code: str) -> tuple[float | None, float | None]:
    table = _table()
    dimension = table["of"].get(kind, {}).get(series)
    if dimension is None or not code:
        return None, None
    row: Mapping[str, Any] = table["series"][dimension]
    index = int(code) - row["first"]
    if not 0 <= index < len(row["sizes"]):
        return None, None
    outside, width = row["sizes"][index]
    return float(outside), float(width)


@cache
def _table() -> Mapping[str, Any]:
    return data_file("bearing_sizes")


@dataclass(frozen=True)
class Compared:
    """Whether two bearings fill the same place, and in what they differ."""

    same_size: bool
    differences: tuple[str, ...]


def compare_numbers(one: Bearing, other: Bearing) -> Compared:
    """Compare what two numbers say.

    The same size: bore, outside and width agree where both are known, else series and bore do.
    """
    known = None not in one.sizes and None not in other.sizes
    same = (
        one.sizes == other.sizes
        if known
        else (one.series, one.bore_mm) == (other.series, other.bore_mm)
    )
    return Compared(same and one.type == other.type, tuple(_differences(one, other)))


def _differences(one: Bearing, other: Bearing) -> Iterator[str]:
    for name, words in (
        ("type", "type"), ("series", "series"), ("bore_mm", "bore"), ("outside_mm", "outside"),
        ("width_mm", "width"), ("seals", "seals"), ("clearance", "clearance"),
    ):  # fmt: skip
        mine, theirs = getattr(one, name), getattr(other, name)
        if mine != theirs and mine is not None and theirs is not None:
            yield f"{words}: {_plain(mine)}, {_plain(theirs)}"


def _plain(value: object) -> str:
    return f"{value:g} mm" if isinstance(value, float) else str(value).replace("_", " ")
