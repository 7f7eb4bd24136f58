"""The form of a photograph."""

import uuid

from django import forms

from zesty.elements.forms import PageForm
from zesty.elements.pictures import MOST_BYTES


class PhotoForm(PageForm):
    """A photograph and a few words about it."""

    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)
    photo = forms.FileField(
        error_messages={
            "required": "No photo came with it; take one, or choose a file.",
            "empty": "That file is empty; give a JPEG or PNG.",
        }
    )
    words = forms.CharField(max_length=80, required=False)

    def clean_photo(self) -> object:
        photo = self.cleaned_data["photo"]
        if photo.size > MOST_BYTES:
            mb, most = photo.size / 1e6, MOST_BYTES // 10**6
            raise forms.ValidationError(
                f"The photo has {mb:.0f} MB; give one of at most {most} MB."
            )
        return photo
