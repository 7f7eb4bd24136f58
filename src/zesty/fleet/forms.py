"""Forms for the fleet."""

from django import forms
from django.utils import timezone

from wheelend.quantity import USAGE
from zesty.elements.forms import PageForm
from zesty.elements.typed import TypedField
from zesty.fleet.models import Kind


class VehicleForm(PageForm):
    """A new vehicle."""

    name = forms.CharField(max_length=60, label="Name in the yard")
    kind = forms.ChoiceField(choices=Kind.choices)
    axles = forms.IntegerField(min_value=1, max_value=4, initial=1)
    deck = forms.IntegerField(
        min_value=0, max_value=3, initial=0, required=False, label="Spindles of its deck"
    )
    plate = forms.CharField(max_length=20, required=False, label="Number plate")
    air_braked = forms.BooleanField(required=False, label="Air brakes")
    electric_parking = forms.BooleanField(required=False, label="Electric parking brake")
    air_springs = forms.BooleanField(required=False, label="Air springs")

    def clean_deck(self) -> int:
        return self.cleaned_data["deck"] or 0


class UsageForm(PageForm):
    """A reading of the vehicle's counter."""

    usage = TypedField(USAGE, least=0, label="Counter")
    on = forms.DateField(
        label="On", widget=forms.DateInput(attrs={"type": "date"}), initial=timezone.localdate
    )
