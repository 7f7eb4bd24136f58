"""Forms for the fleet."""

from typing import Any

from django import forms
from django.utils import timezone

from wheelend.quantity import USAGE
from zesty.elements.forms import PageForm
from zesty.elements.typed import TypedField
from zesty.fleet.models import Kind, LifePart, WheelEnd
from zesty.people.models import Workshop


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


class LifePartForm(PageForm):
    """A part with a limited life."""

    name = forms.CharField(max_length=60, label="What it is")
    serial = forms.CharField(max_length=40, label="Serial number")
    limit = TypedField(USAGE, above=0, label="Life")
    check_every = TypedField(USAGE, above=0, required=False, label="Crack check every")


class LifeEventForm(PageForm):
    """A part is fitted, taken off or checked."""

    part = forms.ModelChoiceField(LifePart.objects.none(), empty_label=None)
    kind = forms.ChoiceField(
        choices=[("fitted", "fitted"), ("off", "taken off"), ("checked", "crack check done")],
        label="What was done",
    )
    wheel_end = forms.ModelChoiceField(
        WheelEnd.objects.none(), required=False, label="Where", empty_label="–"
    )
    counter = TypedField(USAGE, least=0, label="Counter of the vehicle")

    def __init__(self, *args: Any, workshop: Workshop, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["part"].queryset = LifePart.objects.filter(workshop=workshop)
        ends = WheelEnd.objects.filter(workshop=workshop).select_related("vehicle")
        self.fields["wheel_end"].queryset = ends.order_by("vehicle__name", "axle", "side")
        self.fields["wheel_end"].label_from_instance = lambda end: f"{end.vehicle}, {end}"
