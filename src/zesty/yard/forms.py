"""Forms of the yard."""

import uuid
from typing import Any

from django import forms

from zesty.cards.models import SpecCard
from zesty.elements.forms import PageForm


class StartForm(PageForm):
    """Which card a new job goes by, and whether it takes the other ends of the axle too."""

    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)
    card = forms.ModelChoiceField(SpecCard.objects.none(), empty_label=None, label="Spec card")
    ends = forms.ChoiceField(choices=[("one", "one"), ("all", "all"), ("every", "every")])

    def __init__(self, *args: Any, cards: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["card"].queryset = cards
