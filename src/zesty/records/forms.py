"""Forms of the records."""

from typing import Any

from django import forms

from zesty.elements.forms import PageForm
from zesty.records.exchange.documents import LARGEST_BYTES


class TextFileField(forms.FileField):
    """A file of text; its cleaned value is the text."""

    def clean(self, data: Any, initial: Any = None) -> str:
        file = super().clean(data, initial)
        if file.size > LARGEST_BYTES:
            raise forms.ValidationError(
                f"The file has {file.size / 10**6:.1f} MB; give at most {LARGEST_BYTES // 10**6}."
            )
        try:
            return file.read().decode("utf-8-sig")
        except UnicodeDecodeError:
            raise forms.ValidationError("The file is not UTF-8 text.") from None


class DocumentForm(PageForm):
    """A card, a tray or a job from a file."""

    file = TextFileField(label="A card, a tray or a job (JSON)")


class TableFileForm(PageForm):
    """A table from a file, to be looked at first."""

    file = TextFileField(label="A table (CSV)")


class TableForm(PageForm):
    """A table that was looked at, to be saved."""

    text = forms.CharField(widget=forms.HiddenInput, strip=False)
