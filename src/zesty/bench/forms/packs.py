"""A pack as people type it."""

import re
from typing import Any

from django import forms

from wheelend.errors import BadInput
from wheelend.procedure.figures import SHIM
from zesty.elements.typed import Typed

_SEPARATOR = re.compile(r"[,;+\n]+")
_TIMES = re.compile(r"\s*([1-9]|[1-4]\d|50)\s*[x×]\s*(.+)", re.IGNORECASE | re.ASCII)


class PackField(forms.CharField):
    """A pack as typed: thicknesses apart by commas or plus signs; "2 x 0.10" is two of them."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(required=False, max_length=400, **kwargs)

    def clean(self, value: Any) -> list[Typed]:
        text = super().clean(value)
        shims: list[Typed] = []
        for word in filter(str.strip, _SEPARATOR.split(text)):
            times = _TIMES.fullmatch(word)
            count, one = (int(times[1]), times[2]) if times else (1, word)
            shims += [self._shim(one)] * count
        return shims

    def _shim(self, text: str) -> Typed:
        try:
            return Typed.within(text, SHIM)
        except BadInput as bad:
            words = f"{bad.given} is no shim; give e.g. 0.10 mm or 4 thou."
            raise forms.ValidationError(words) from None
