"""Forms for the stores."""

from django import forms

from wheelend.quantity import LENGTH
from zesty.elements.typed import TypedField


class ShimForm(forms.Form):
    """Shims of one thickness."""

    nominal = TypedField(LENGTH, unit="mm", above=0, label="Marked thickness")
    measured = TypedField(LENGTH, unit="mm", above=0, required=False, label="Measured (if it was)")
    count = forms.IntegerField(min_value=1, max_value=999, initial=1, label="How many")


class CountForm(forms.Form):
    """How many of one thickness there are."""

    shim_id = forms.IntegerField(widget=forms.HiddenInput)
    count = forms.IntegerField(min_value=0, max_value=999)


class GaugeForm(forms.Form):
    """A dial gauge."""

    name = forms.CharField(max_length=60)
    resolution = TypedField(LENGTH, unit="mm", above=0, label="Smallest step")
    calibration = TypedField(
        LENGTH, unit="mm", least=0, required=False, label="Certificate's doubt (k = 2)"
    )
