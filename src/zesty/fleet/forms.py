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
    air_braked = forms.BooleanField(required=False, label="Air brakes")


class UsageForm(PageForm):
    """A reading of the vehicle's counter."""

    usage = TypedField(USAGE, least=0, label="Counter")
    on = forms.DateField(
        label="On", widget=forms.DateInput(attrs={"type": "date"}), initial=timezone.localdate
    )
