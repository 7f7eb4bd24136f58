"""The form that every page form is made from."""

from typing import Any

from django import forms

LARGEST_ID = 2**63 - 1
"""The largest number that a row can have."""


class PageForm(forms.Form):
    """A form whose ids carry its name, so that several can stand on one page."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        kwargs.setdefault("auto_id", f"{type(self).__name__.lower()}_%s")
        super().__init__(*args, **kwargs)
