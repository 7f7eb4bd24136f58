"""Forms of the bench."""

import re
import uuid
from typing import Any

from django import forms

from wheelend.arrangements import ENDS
from wheelend.endplay import clock_angle
from wheelend.errors import BadInput
from wheelend.quantity import ANGLE, LENGTH, TORQUE, USAGE
from wheelend.shims.problem import THICKEST_MM
from zesty.bench.models import ChoiceName, DialPlace, ReadingKind
from zesty.cards.forms import AimField
from zesty.cards.models import SpecCard
from zesty.elements.forms import PageForm
from zesty.elements.typed import Typed, TypedField
from zesty.stores.models import Gauge, Wrench

_SEPARATOR = re.compile(r"[,;+\n]+")
_TIMES = re.compile(r"\s*(\d{1,2})\s*[x×]\s*(.+)", re.IGNORECASE)


class PackField(forms.CharField):
    """A pack as typed: thicknesses apart by commas or plus signs; "2 x 0.10" is two of them."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(required=False, max_length=300, **kwargs)

    def clean(self, value: Any) -> list[Typed]:
        text = super().clean(value)
        shims: list[Typed] = []
        for word in filter(str.strip, _SEPARATOR.split(text)):
            times = _TIMES.fullmatch(word)
            count, one = (int(times[1]), times[2]) if times else (1, word)
            shims += [self._shim(one)] * count
        return shims

    def _shim(self, text: str) -> Typed:
        try:
            typed = Typed.read(text, LENGTH, "mm")
        except BadInput as bad:
            raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
        if not 0 < typed.value <= THICKEST_MM:
            raise forms.ValidationError(
                f"“{text.strip()}” is no shim; give e.g. 0.10 mm or 4 thou."
            )
        return typed


class ClockField(forms.CharField):
    """A clock position."""

    def clean(self, value: Any) -> str:
        clock = super().clean(value)
        if clock in ENDS:
            return clock
        try:
            clock_angle(clock)
        except BadInput as bad:
            raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
        return clock


class StartForm(PageForm):
    """Which card a new job goes by."""

    card = forms.ModelChoiceField(SpecCard.objects.none(), empty_label=None, label="Spec card")

    def __init__(self, *args: Any, cards: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["card"].queryset = cards


class TakeInForm(PageForm):
    """What is known before anything is undone."""

    complaint = forms.CharField(
        max_length=400, label="What the driver says", widget=forms.Textarea(attrs={"rows": 3})
    )
    usage = TypedField(USAGE, required=False, least=0, label="Counter")
    made_safe = forms.BooleanField(required=False, label="Made safe: all of this is done")

    def __init__(self, *args: Any, unit: str = "km", **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["usage"].unit = unit


class TokenForm(PageForm):
    """A form that may be sent twice and counts once."""

    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)


class TrialForm(TokenForm):
    """A pack and the dial's set-up."""

    pack = PackField(label="Shims in the pack")
    pack_right = PackField(label="Right pack")
    closed = forms.BooleanField(
        required=False, label="Both sides closed and bolted crosswise, holes and drain in line"
    )
    as_found = forms.BooleanField(required=False, label="These came off this wheel end")
    gauge = forms.ModelChoiceField(Gauge.objects.none(), empty_label=None)
    dial_place = forms.ChoiceField(choices=DialPlace.choices, label="Where the dial stands")
    turned = forms.BooleanField(required=False, label="The hub is turned between push and pull")
    nut_torque = TypedField(TORQUE, unit="N·m", above=0, label="Nut torque, this trial")
    after = forms.IntegerField(widget=forms.HiddenInput)

    def __init__(self, *args: Any, gauges: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["gauge"].queryset = gauges


class ReadingForm(TokenForm):
    """One dial reading; a bare number is in the gauge's own unit."""

    value = TypedField(LENGTH, label="Reading")
    clock = ClockField(max_length=5, widget=forms.HiddenInput)
    push = forms.ChoiceField(choices=[("in", "in"), ("out", "out")], widget=forms.HiddenInput)
    trial = forms.IntegerField(widget=forms.HiddenInput)

    def __init__(self, *args: Any, unit: str = "mm", **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["value"].unit = unit


class FindingForm(TokenForm):
    """No reading is possible."""

    kind = forms.ChoiceField(choices=[(k, k) for k in (ReadingKind.BOUND, ReadingKind.NO_PLAY)])
    trial = forms.IntegerField(widget=forms.HiddenInput)


class CorrectForm(PageForm):
    """Another value in a reading's place."""

    value = TypedField(LENGTH, label="It should be")
    reason = forms.CharField(max_length=200, label="Because")

    def __init__(self, *args: Any, unit: str = "mm", **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["value"].unit = unit


_VALUES = {
    ChoiceName.BALANCE: ("even", "as_found"),
    ChoiceName.TRIAL_METHOD: ("from_pack", "over_shim"),
    ChoiceName.LOCK_POLICY: ("advance_only", "torque_window"),
}


class ChoiceForm(PageForm):
    """Another choice than the card's, with its reason."""

    what = forms.ChoiceField(choices=ChoiceName.choices, label="Choose otherwise")
    value = forms.CharField(max_length=40, label="It shall be")
    reason = forms.CharField(max_length=200, label="Because")

    def clean(self) -> dict[str, Any]:
        said = super().clean()
        what, value = said.get("what"), said.get("value", "")
        if what == ChoiceName.AIM and value:
            try:
                said["value"] = AimField().clean(value)
            except forms.ValidationError as wrong:
                self.add_error("value", wrong)
        elif what and value and value.strip().replace(" ", "_") not in _VALUES[what]:
            known = " or ".join(_VALUES[what]).replace("_", " ")
            self.add_error("value", f"“{value}” is no such choice; give {known}.")
        elif what and value:
            said["value"] = value.strip().replace(" ", "_")
        return said


class AsideForm(PageForm):
    """A trial that shall not count, or count again."""

    trial = forms.IntegerField(widget=forms.HiddenInput)
    aside = forms.BooleanField(required=False, widget=forms.HiddenInput)
    reason = forms.CharField(max_length=200, label="Because")


class SeatForm(TokenForm):
    """How far the nut moved at one repeat."""

    move = TypedField(ANGLE, unit="deg", least=0, label="The nut moved")


class PlaceForm(TokenForm):
    """Where the nut stands against its lock."""

    torque = TypedField(TORQUE, unit="N·m", above=0, label="Torque now")
    to_next = TypedField(ANGLE, unit="deg", least=0, label="Angle on to the next place")


class TickForm(PageForm):
    """One bolt drawn down."""

    lap = forms.IntegerField(min_value=1)
    bolt = forms.IntegerField(min_value=1)


class LockForm(TokenForm):
    """Torque and lock."""

    torque = TypedField(TORQUE, unit="N·m", above=0, label="Torque reached at the lock place")
    wrench = forms.ModelChoiceField(Wrench.objects.none(), required=False, empty_label="not named")
    lengthened = forms.BooleanField(required=False, label="A tube was put on its handle")
    lock = forms.CharField(max_length=60, label="Lock")
    done = forms.TypedChoiceField(
        choices=[("yes", "done: it cannot move"), ("no", "not done yet")],
        coerce=lambda value: value == "yes",
        widget=forms.RadioSelect,
        label="Lock is",
    )
    note = forms.CharField(max_length=200, required=False, label="Note")

    def __init__(self, *args: Any, wrenches: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["wrench"].queryset = wrenches
