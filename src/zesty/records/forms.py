"""Forms of the records."""

from typing import Any

from django import forms

from zesty.elements.forms import PageForm
from zesty.records.exchange.archive import MOST_ARCHIVE, is_archive
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


class DocumentField(TextFileField):
    """A document, or a job with its photos; its cleaned value is the text, or the zip's bytes."""

    def clean(self, data: Any, initial: Any = None) -> Any:
        file = forms.FileField.clean(self, data, initial)
        zipped = is_archive(file.read(4))
        file.seek(0)
        if not zipped:
            return super().clean(data, initial)
        if file.size > MOST_ARCHIVE:
            raise forms.ValidationError(
                f"The zip has {file.size / 10**6:.1f} MB; give at most {MOST_ARCHIVE // 10**6}, "
                "or the job as JSON without its photos."
            )
        return file.read()


class DocumentForm(PageForm):
    """A card, a tray or a job from a file."""

    file = DocumentField(label="A card, a tray or a job (JSON; a job with photos: zip)")


class TableFileForm(PageForm):
    """A table from a file, to be looked at first."""

    file = TextFileField(label="A table (CSV)")


class TableForm(PageForm):
    """A table that was looked at, to be saved."""

    text = forms.CharField(widget=forms.HiddenInput, strip=False)
