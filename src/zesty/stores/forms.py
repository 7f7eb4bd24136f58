"""Forms for the stores."""

from typing import Any

from django import forms

from wheelend.arrangements.vocabulary import THICKENERS
from wheelend.card.figures import FigureOf
from wheelend.errors import BadInput
from wheelend.procedure.figures import SHIM, SHIMS_OF_ONE
from wheelend.quantity import (
    DENSITY,
    FORCE,
    LENGTH,
    MASS,
    TEMPERATURE,
    TORQUE,
    VOLUME,
    dimension_of,
    parse,
)
from zesty.elements.forms import LARGEST_ID, PageForm
from zesty.elements.typed import Typed, TypedField
from zesty.stores.kinds import MEASURES, METERS
from zesty.stores.models import EquipmentKind, InstrumentKind, LubricantKind


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


class MeterForm(PageForm):
    """A torque meter or a scale, with its step; a thermometer or a feeler gauge, by its name."""

    kind = forms.ChoiceField(
        choices=[(one, InstrumentKind(one).label) for one in (*METERS, "thermometer", "feeler")],
        label="What it is",
    )
    name = forms.CharField(max_length=60)
    resolution = TypedField(required=False, label="Smallest step")
    doubt = TypedField(required=False, label="Certificate's doubt (k = 2)")
    calibrated_on = forms.DateField(
        required=False, label="Calibrated on", widget=forms.DateInput(attrs={"type": "date"})
    )

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        kind = self.data.get("kind", METERS[0])
        _measures(self.fields["resolution"], kind, least=0.0001)
        _measures(self.fields["doubt"], kind)

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        stepped = said.get("kind") in METERS
        if stepped and not said.get("resolution") and "resolution" not in self.errors:
            self.add_error("resolution", "Give the smallest step that it shows, e.g. 0.05 N·m.")
        if not stepped and (said.get("resolution") or said.get("doubt")):
            self.add_error("resolution", "Of this kind only its name and its check are kept.")
        return said


def _measures(field: forms.Field, kind: str, least: float = 0.0) -> None:
    """Make a field take what a kind of instrument reads."""
    dimension, unit = MEASURES.get(kind, (LENGTH, "mm"))
    most = {"N·m": 1000, "N": 10_000}.get(unit, 10)
    field.fits(FigureOf(dimension, unit, least, most), unit)


class CalibratedForm(PageForm):
    """An instrument is back from calibration: the day, the certificate, and the doubt that it leaves."""

    instrument_id = forms.IntegerField(min_value=1, max_value=LARGEST_ID, widget=forms.HiddenInput)
    on = forms.DateField(label="On", widget=forms.DateInput(attrs={"type": "date"}))
    certificate = forms.CharField(max_length=60, required=False, label="Certificate")
    doubt = TypedField(required=False, label="Its doubt (k = 2)")
    reason = forms.CharField(
        max_length=200, required=False, label="Because (where the day is before the last one)"
    )

    def __init__(self, *args: Any, kind: str = "dial", **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        _measures(self.fields["doubt"], kind)


class ConfirmForm(PageForm):
    """The papers of a report were seen."""

    calibration_id = forms.IntegerField(min_value=1, max_value=LARGEST_ID, widget=forms.HiddenInput)


EQUIPMENT_FIGURES = {
    "press": FigureOf(FORCE, "kN", 1, 100_000_000),
    "oven": FigureOf(TEMPERATURE, "degC", 20, 400),
    "hot_plate": FigureOf(TEMPERATURE, "degC", 20, 400),
    "freezer": FigureOf(TEMPERATURE, "degC", -200, 10),
    "grease_gun": FigureOf(MASS, "g", 0.01, 500),
}
"""What limits each kind: force, temperature, grams a stroke; a bare number takes the unit."""


class EquipmentForm(PageForm):
    """A press, an oven, a freezer, a grease gun."""

    kind = forms.ChoiceField(choices=EquipmentKind.choices, label="What it is")
    name = forms.CharField(max_length=60)
    figure = forms.CharField(max_length=34, label="How much")

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        reader = EQUIPMENT_FIGURES.get(said.get("kind", ""))
        if reader and said.get("figure"):
            try:
                said["figure"] = Typed.within(said["figure"], reader)
            except BadInput as bad:
                self.add_error("figure", f"{bad.given} {bad.need}.")
        return said


class LubricantForm(PageForm):
    """A grease or an oil."""

    kind = forms.ChoiceField(choices=LubricantKind.choices, label="Grease or oil")
    name = forms.CharField(max_length=60)
    thickener = forms.ChoiceField(
        choices=[
            ("", "not known, or an oil"),
            *((one, one.replace("_", " ")) for one in THICKENERS),
        ],
        required=False,
    )
    grade = forms.CharField(max_length=40, required=False, label="Grade, such as 2, or 80W-90")
    density = TypedField(DENSITY, unit="g/mL", above=0, most=3, required=False)
    opened_on = forms.DateField(
        required=False, label="Opened on", widget=forms.DateInput(attrs={"type": "date"})
    )
    left = forms.CharField(
        max_length=34, required=False, label="What is left, such as 400 g or 2 L"
    )

    def clean_left(self) -> str:
        text = " ".join(self.cleaned_data["left"].split())
        if text:
            try:
                parse(text, dimension_of(text, (MASS, VOLUME)))
            except BadInput as bad:
                raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
        return text


class GoneForm(PageForm):
    """Something that is no longer here."""

    what = forms.ChoiceField(
        choices=[("equipment", ""), ("lubricant", "")], widget=forms.HiddenInput
    )
    pk = forms.IntegerField(min_value=1, max_value=LARGEST_ID, widget=forms.HiddenInput)
