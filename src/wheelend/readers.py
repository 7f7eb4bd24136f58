"""Readers of JSON values: each checks one kind of value, says what is wrong by path, and knows
its own JSON schema."""

import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any, Protocol

from wheelend.errors import BadInput, echo

if TYPE_CHECKING:
    from datetime import date
    from fractions import Fraction

    from wheelend.quantity import Dimension

Json = dict[str, Any]

# Readers are made, not compared or printed: without those methods the door starts sooner.
_DAY = re.compile(r"\d{4}-\d{2}-\d{2}", re.ASCII)


class Reader(Protocol):
    """Reads one JSON value."""

    def read(self, value: object, path: str) -> Any:
        """The value in plain Python. Raises BadInput with the path."""

    def schema(self) -> Json:
        """The JSON schema of the value."""


@dataclass(frozen=True, repr=False, eq=False)
class Quantity:
    """A typed quantity of one dimension; reads as a float in the dimension's output unit."""

    dimension: "Dimension"
    least: float | None = None
    above: float | None = None

    def read(self, value: object, path: str) -> float:
        number = float(_parsed(value, self.dimension, path))
        if self.least is not None and number < self.least:
            raise BadInput(path, echo(value), f"is below {self.least:g}; give {self._example()}")
        if self.above is not None and not number > self.above:
            need = f"is not above {self.above:g}; give {self._example()}"
            raise BadInput(path, echo(value), need)
        return number

    def _example(self) -> str:
        return f"e.g. {self.dimension.example}"

    def schema(self) -> Json:
        return {"type": "string", "description": f"{self.dimension.name}, e.g. {self._example()}"}


@dataclass(frozen=True, repr=False, eq=False)
class Exact:
    """A typed quantity above 0 or from 0 up, kept as an exact fraction."""

    dimension: "Dimension"
    above: int | None = None
    least: int | None = None

    def read(self, value: object, path: str) -> "Fraction":
        Quantity(self.dimension, self.least, self.above).read(value, path)
        return _parsed(value, self.dimension, path)

    def schema(self) -> Json:
        return Quantity(self.dimension).schema()


def _parsed(value: object, dimension: "Dimension", path: str) -> "Fraction":
    from wheelend.quantity import parse  # noqa: PLC0415  loaded by whoever has a dimension

    return parse(value, dimension, path)


@dataclass(frozen=True, repr=False, eq=False)
class Number:
    """A plain finite number."""

    least: float | None = None
    above: float | None = None
    most: float | None = None

    def read(self, value: object, path: str) -> float:
        plain = isinstance(value, int | float) and not isinstance(value, bool)
        if not plain or not math.isfinite(value):  # type: ignore[arg-type]
            raise BadInput(path, echo(value), "is not a plain number")
        number = float(value)  # type: ignore[arg-type]
        if self.least is not None and number < self.least:
            raise BadInput(path, echo(value), f"is below {self.least:g}")
        if self.above is not None and not number > self.above:
            raise BadInput(path, echo(value), f"is not above {self.above:g}")
        if self.most is not None and number > self.most:
            raise BadInput(path, echo(value), f"is above {self.most:g}")
        return number

    def schema(self) -> Json:
        return {"type": "number"}


@dataclass(frozen=True, repr=False, eq=False)
class Day:
    """A date, YYYY-MM-DD."""

    def read(self, value: object, path: str) -> "date":
        from datetime import date  # noqa: PLC0415  few cases have one, and it takes long to load

        if isinstance(value, str) and _DAY.fullmatch(value):
            try:
                return date.fromisoformat(value)
            except ValueError:
                pass
        raise BadInput(path, echo(value), 'is not a date; give YYYY-MM-DD, e.g. "2026-03-31"')

    def schema(self) -> Json:
        return {"type": "string", "format": "date"}


@dataclass(frozen=True, repr=False, eq=False)
class Text:
    """A string as it is."""

    description: str

    def read(self, value: object, path: str) -> str:
        if not isinstance(value, str):
            raise BadInput(path, echo(value), f"is not a text; give {self.description}")
        return value

    def schema(self) -> Json:
        return {"type": "string", "description": self.description}


@dataclass(frozen=True, repr=False, eq=False)
class Whole:
    """A whole number from `least` up, to `most` where there is one."""

    least: int = 0
    most: int | None = None

    def read(self, value: object, path: str) -> int:
        whole = isinstance(value, int) and not isinstance(value, bool)
        if isinstance(value, float) and math.isfinite(value) and value.is_integer():
            value, whole = int(value), True
        if not whole or value < self.least:  # type: ignore[operator]
            raise BadInput(path, echo(value), f"is not a whole number from {self.least} up")
        if self.most is not None and value > self.most:  # type: ignore[operator]
            raise BadInput(path, echo(value), f"is above {self.most}")
        return value  # type: ignore[return-value]

    def schema(self) -> Json:
        most = {} if self.most is None else {"maximum": self.most}
        return {"type": "integer", "minimum": self.least, **most}


@dataclass(frozen=True, repr=False, eq=False)
class Flag:
    """True or false."""

    def read(self, value: object, path: str) -> bool:
        if not isinstance(value, bool):
            raise BadInput(path, echo(value), "is not true or false")
        return value

    def schema(self) -> Json:
        return {"type": "boolean"}


@dataclass(frozen=True, repr=False, eq=False)
class Word:
    """One of a few words."""

    words: tuple[str, ...]

    def read(self, value: object, path: str) -> str:
        if not isinstance(value, str) or value not in self.words:
            raise BadInput(path, echo(value), f"is not one of {', '.join(self.words)}")
        return value

    def schema(self) -> Json:
        return {"enum": list(self.words)}


@dataclass(frozen=True, repr=False, eq=False)
class Either:
    """A value that one of two readers takes; `picks` says which by looking at it."""

    picks: Callable[[object], bool]
    first: Reader
    second: Reader

    def read(self, value: object, path: str) -> Any:
        return (self.first if self.picks(value) else self.second).read(value, path)

    def schema(self) -> Json:
        return {"oneOf": [self.first.schema(), self.second.schema()]}


@dataclass(frozen=True, repr=False, eq=False)
class ListOf:
    """A list of one kind of value; empty only where `least` is 0."""

    item: Reader
    least: int = 1
    most: int | None = None

    def read(self, value: object, path: str) -> list[Any]:
        if not isinstance(value, list):
            raise BadInput(path, echo(value), "is not a list")
        if len(value) < self.least:
            raise BadInput(path, echo(value), f"has too few entries; give {self.least} or more")
        if self.most is not None and len(value) > self.most:
            raise BadInput(path, echo(value), f"has too many entries; give {self.most}")
        return [self.item.read(item, f"{path}[{index}]") for index, item in enumerate(value)]

    def schema(self) -> Json:
        most = {} if self.most is None else {"maxItems": self.most}
        return {"type": "array", "items": self.item.schema(), "minItems": self.least, **most}


@dataclass(frozen=True, repr=False, eq=False)
class Record:
    """An object with named fields; a name not in the tables is refused."""

    required: Mapping[str, Reader]
    optional: Mapping[str, Reader] = field(default_factory=dict)

    def read(self, value: object, path: str) -> dict[str, Any]:
        if not isinstance(value, dict):
            raise BadInput(path, echo(value), f"is not an object with {', '.join(self.required)}")
        fields = {**self.required, **self.optional}
        for name in value:
            if name not in fields:
                known = ", ".join(fields)
                raise BadInput(join(path, name), "", f"is not a known key; known: {known}")
        for name, reader in self.required.items():
            if name not in value:
                raise BadInput(join(path, name), "", f"is missing; give {_sort_of(reader)}")
        return {name: fields[name].read(given, join(path, name)) for name, given in value.items()}

    def schema(self) -> Json:
        properties = {**self.required, **self.optional}
        return {
            "type": "object",
            "properties": {name: reader.schema() for name, reader in properties.items()},
            "required": list(self.required),
            "additionalProperties": False,
        }


def join(path: str, name: str) -> str:
    """The path of a field inside another; an odd name is quoted."""
    shown = name if name.isidentifier() or name.replace("-", "_").isidentifier() else echo(name)
    return f"{path}.{shown}" if path else shown


def _sort_of(reader: Reader) -> str:
    if isinstance(reader, Quantity):
        return (
            f"{reader.dimension.article} {reader.dimension.name} such as {reader.dimension.example}"
        )
    if isinstance(reader, Word):
        return "one of " + ", ".join(reader.words)
    kinds = {"array": "a list", "object": "an object", "integer": "a whole number"}
    return kinds.get(str(reader.schema().get("type")), "a value")
