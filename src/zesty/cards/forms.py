"""Forms for spec cards: a field at a time."""

from django import forms

from wheelend.arrangements import arrangements
from zesty.elements.forms import PageForm


class NewCardForm(PageForm):
    """A card's name and arrangement; everything else is filled in on its section."""

    name = forms.CharField(max_length=80, label="Name of the card")
    arrangement = forms.ChoiceField(label="What it is of")

    def __init__(self, *args: object, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)
        self.fields["arrangement"].choices = [(one.key, one.name) for one in arrangements()]


class FieldForm(PageForm):
    """One field of a card, and why it changes."""

    path = forms.CharField(max_length=80, widget=forms.HiddenInput)
    typed = forms.CharField(max_length=400, required=False)
    reason = forms.CharField(max_length=200, required=False)


class KeepForm(PageForm):
    """One reason for every change that has none of its own."""

    reason = forms.CharField(max_length=200, required=False, label="Why these figures change")
