"""Forms beside the open step: a reason, a correction, a choice, another card."""

import uuid
from typing import Any

from django import forms

from wheelend.card import CHOICES, Card
from wheelend.card.model import aim_of
from wheelend.errors import BadInput
from wheelend.procedure.allowed import check_possible
from wheelend.quantity import LENGTH, Dimension
from zesty.elements.forms import PageForm
from zesty.elements.typed import Typed, TypedField


class WhyForm(PageForm):
    """Why."""

    reason = forms.CharField(max_length=200, label="Because")


class ReasonForm(WhyForm):
    """Why, once."""

    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)


class CorrectForm(ReasonForm):
    """Another value in a row's place."""

    value = forms.CharField(max_length=400, label="It should be")
    field_order = ["value", "reason"]

    def __init__(
        self, *args: Any, dimension: Dimension | None, unit: str = "", **kwargs: Any
    ) -> None:
        super().__init__(*args, **kwargs)
        self.dimension, self.unit = dimension, unit

    def clean_value(self) -> Typed:
        text = self.cleaned_data["value"]
        if self.dimension is None:
            return Typed(text, None)  # type: ignore[arg-type]
        return TypedField(self.dimension, unit=self.unit).clean(text)


class ChooseForm(ReasonForm):
    """Another choice than the card's, with its reason."""

    what = forms.ChoiceField(
        choices=[(c.key, c.name) for c in CHOICES.values()], widget=forms.HiddenInput
    )
    value = forms.CharField(max_length=40, required=False, label="It shall be")
    length = forms.CharField(max_length=40, required=False)

    def __init__(self, *args: Any, card: Card, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.card = card

    def clean(self) -> dict[str, Any]:
        said = super().clean()
        what = said.get("what")
        value = (said.get("length") or said.get("value") or "").strip()
        choice = CHOICES.get(what or "")
        if choice is None or not value:
            self.add_error("value", "Choose one of the answers.")
            return said
        if value in choice.options:
            self._possible(choice.key, value)
            said["value"] = value
            return said
        if not choice.length:
            self.add_error("value", f"“{value}” is not one of the answers.")
            return said
        try:
            typed = Typed.read(value, LENGTH, "mm")
            aim_of(typed.text)
        except BadInput as bad:
            self.add_error("value", f"{bad.given} {bad.need}.")
            return said
        said["value"] = typed.text
        return said

    def _possible(self, what: str, value: str) -> None:
        try:
            check_possible(self.card, what, value)
        except BadInput as bad:
            self.add_error("value", f"{bad.need}.")


class CardChangeForm(ReasonForm):
    """The right card in the place of a wrong one."""

    card = forms.ModelChoiceField(None, label="Spec card")
    field_order = ["card", "reason"]

    def __init__(self, *args: Any, cards: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["card"].queryset = cards
