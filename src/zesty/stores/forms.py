"""Forms for the stores."""

from django import forms

from wheelend.quantity import LENGTH, TORQUE
from zesty.elements.forms import PageForm
from zesty.elements.typed import TypedField


class ShimForm(PageForm):
    """Shims of one thickness."""

    nominal = TypedField(LENGTH, unit="mm", above=0, most=20, label="Marked thickness")
    measured = TypedField(
        LENGTH, unit="mm", above=0, most=20, required=False, label="Measured (if it was)"
    )
    count = forms.IntegerField(min_value=1, max_value=999, initial=1, label="How many")


class CountForm(PageForm):
    """How many of one thickness there are."""

    shim_id = forms.IntegerField(widget=forms.HiddenInput)
    count = forms.IntegerField(min_value=0, max_value=999)


class GaugeForm(PageForm):
    """A dial gauge."""

    name = forms.CharField(max_length=60)
    resolution = TypedField(LENGTH, unit="mm", above=0, label="Smallest step")
    calibration = TypedField(
        LENGTH, unit="mm", least=0, required=False, label="Certificate's doubt (k = 2)"
    )


class WrenchForm(PageForm):
    """A torque wrench."""

    name = forms.CharField(max_length=60)
    low = TypedField(TORQUE, unit="N·m", least=0, label="Lowest setting")
    high = TypedField(TORQUE, unit="N·m", above=0, label="Highest setting")
    accuracy_percent = forms.DecimalField(
        min_value=0, max_value=50, decimal_places=1, initial=4, label="May be off, %"
    )
    multiplier = forms.DecimalField(
        min_value=1, max_value=1000, decimal_places=2, initial=1, label="Multiplier (1: none)"
    )
    calibrated_on = forms.DateField(
        label="Calibrated on", widget=forms.DateInput(attrs={"type": "date"})
    )


class CalibratedForm(PageForm):
    """A wrench is back from calibration."""

    instrument_id = forms.IntegerField(widget=forms.HiddenInput)
    on = forms.DateField(widget=forms.DateInput(attrs={"type": "date"}))
