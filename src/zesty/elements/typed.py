"""A quantity as it was typed, and the number it means: what is stored of every measured value."""

from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from django import forms
from django.db import models

from wheelend.card.figures import FigureOf
from wheelend.errors import BadInput, echo
from wheelend.quantity import LENGTH, Dimension, parse, unit_of

PLACES = {"mm": 5, "N_m": 6}
CEILING = {"usage": 10**8}
"""What the columns hold; anything higher was mistyped."""

_CEILING = 10**6
_LONGEST_TYPED = 34
"""With a unit added it must still fit its column."""


@dataclass(frozen=True)
class Typed:
    """What was typed, with its unit, and its value in the dimension's output unit."""

    text: str
    value: Decimal

    @classmethod
    def read(cls, text: str, dimension: Dimension, unit: str = "") -> "Typed":
        """Read typed text; a bare number takes `unit`. Raises BadInput."""
        text = " ".join(text.split())
        if unit and not unit_of(text) and any(letter.isdigit() for letter in text):
            text = f"{text} {unit}"
        exact = parse(text, dimension)
        if abs(exact) >= CEILING.get(dimension.suffix, _CEILING):
            raise BadInput("", echo(text), f"is too large; give e.g. {dimension.example}")
        places = PLACES.get(dimension.suffix, 3)
        number = Decimal(exact.numerator) / Decimal(exact.denominator)
        return cls(text, round(number, places))

    @classmethod
    def within(cls, text: str, figure: FigureOf, unit: str = "") -> "Typed":
        """Read typed text that must be what a field of the core declares. Raises BadInput."""
        typed = cls.read(text, figure.dimension, unit or figure.unit)
        figure.read(typed.text, "")
        return typed


class TypedField(forms.CharField):
    """A form field for a quantity; its cleaned value is a Typed (None when left empty)."""

    def __init__(
        self, dimension: Dimension = LENGTH, *, unit: str = "", least: float | None = None,
        above: float | None = None, most: float | None = None, **kwargs: Any,
    ) -> None:  # fmt: skip
        self.dimension, self.unit, self.least, self.above = dimension, unit, least, above
        self.most = most
        self.figure: FigureOf | None = None
        kwargs.setdefault("max_length", _LONGEST_TYPED)
        super().__init__(**kwargs)

    def fits(self, figure: FigureOf, unit: str) -> None:
        """Take what a field of the core declares; a bare number takes `unit`."""
        self.figure, self.dimension, self.unit = figure, figure.dimension, unit

    def clean(self, value: Any) -> Typed | None:
        text = super().clean(value)
        if not text:
            return None
        try:
            if self.figure:
                return Typed.within(text, self.figure, self.unit)
            typed = Typed.read(text, self.dimension, self.unit)
        except BadInput as bad:
            raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
        example = self.dimension.example
        if self.least is not None and typed.value < self.least:
            raise forms.ValidationError(f"“{text}” is below {self.least:g}; give e.g. {example}.")
        if self.above is not None and not typed.value > self.above:
            raise forms.ValidationError(
                f"“{text}” is not above {self.above:g}; give e.g. {example}."
            )
        if self.most is not None and typed.value > self.most:
            raise forms.ValidationError(
                f"“{text}” is more than {self.most:g} {self.unit}; give e.g. {example}."
            )
        return typed


def text_column(**kwargs: Any) -> models.CharField:
    """The column of a quantity as typed."""
    return models.CharField(max_length=40, **kwargs)


def mm_column(**kwargs: Any) -> models.DecimalField:
    """The column of a length in mm: exactly the core's 10 nm grid."""
    return models.DecimalField(max_digits=12, decimal_places=PLACES["mm"], **kwargs)
