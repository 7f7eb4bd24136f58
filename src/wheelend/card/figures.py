"""What a field of a card, or of a row of the log, holds: a quantity as it was typed, or a line of text."""

from dataclasses import dataclass
from fractions import Fraction

from wheelend.errors import BadInput, echo
from wheelend.quantity import Dimension, parse
from wheelend.readers import Json, Quantity


@dataclass(frozen=True)
class Figure:
    """A quantity as the card has it, and its exact value in the dimension's output unit."""

    text: str
    exact: Fraction

    @property
    def value(self) -> float:
        """The same as a plain number."""
        return float(self.exact)

    def __str__(self) -> str:
        return self.text


@dataclass(frozen=True)
class FigureOf:
    """Reads a quantity and keeps how it was typed; bounds in `unit`, both inclusive."""

    dimension: Dimension
    unit: str
    least: float
    most: float

    def read(self, value: object, path: str) -> Figure:
        exact = parse(value, self.dimension, path)
        counted = exact / self.dimension.units.get(self.unit, 1)
        if not Fraction(repr(self.least)) <= counted <= Fraction(repr(self.most)):
            span = f"{self.least:g} and {self.most:.9g} {self.unit}".rstrip()
            raise BadInput(path, echo(value), f"is not between {span}")
        return Figure(str(value), exact)

    def schema(self) -> Json:
        return Quantity(self.dimension).schema()


@dataclass(frozen=True)
class ShortText:
    """A text on one line, of at most so many letters."""

    most: int

    def read(self, value: object, path: str) -> str:
        if not isinstance(value, str) or not value.isprintable():
            raise BadInput(path, echo(value), "is not a line of text")
        if len(value) > self.most:
            raise BadInput(path, echo(value), f"is longer than {self.most} letters")
        return value

    def schema(self) -> Json:
        return {"type": "string", "maxLength": self.most}
