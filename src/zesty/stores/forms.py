"""Forms for the stores."""

from typing import Any

from django import forms

from wheelend.procedure.allowed import SHIM, SHIMS_OF_ONE
from wheelend.quantity import LENGTH, TORQUE
from zesty.elements.forms import LARGEST_ID, PageForm
from zesty.elements.typed import TypedField


class ShimForm(PageForm):
    """Shims of one thickness."""

    nominal = TypedField(label="Marked thickness")
    measured = TypedField(required=False, label="Measured (if it was)")
    count = forms.IntegerField(min_value=1, max_value=SHIMS_OF_ONE, initial=1, label="How many")

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for name in ("nominal", "measured"):
            self.fields[name].fits(SHIM, "mm")


class CountForm(PageForm):
    """How many of one thickness there are."""

    shim_id = forms.IntegerField(min_value=1, max_value=LARGEST_ID, widget=forms.HiddenInput)
    count = forms.IntegerField(min_value=0, max_value=SHIMS_OF_ONE)


class GaugeForm(PageForm):
    """A dial gauge."""

    name = forms.CharField(max_length=60)
    resolution = TypedField(LENGTH, unit="mm", above=0, most=10, label="Smallest step")
    calibration = TypedField(
        LENGTH, unit="mm", least=0, most=10, required=False, label="Certificate's doubt (k = 2)"
    )


class WrenchForm(PageForm):
    """A torque wrench."""

    name = forms.CharField(max_length=60)
    low = TypedField(TORQUE, unit="N·m", least=0, most=20_000, label="Lowest setting")
    high = TypedField(TORQUE, unit="N·m", above=0, most=20_000, label="Highest setting")
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
    """An instrument is back from calibration: the day, the certificate, and what a dial's leaves."""

    instrument_id = forms.IntegerField(min_value=1, max_value=LARGEST_ID, widget=forms.HiddenInput)
    on = forms.DateField(label="On", widget=forms.DateInput(attrs={"type": "date"}))
    certificate = forms.CharField(max_length=60, required=False, label="Certificate")
    doubt = TypedField(
        LENGTH, unit="mm", least=0, most=10, required=False, label="Its doubt (k = 2), of a dial"
    )
    reason = forms.CharField(
        max_length=200, required=False, label="Because (where the day is before the last one)"
    )


class ConfirmForm(PageForm):
    """The papers of a report were seen."""

    calibration_id = forms.IntegerField(min_value=1, max_value=LARGEST_ID, widget=forms.HiddenInput)
