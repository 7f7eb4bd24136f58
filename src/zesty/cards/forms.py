"""Forms for spec cards."""

from typing import Any

from django import forms
from django.forms import BaseFormSet, formset_factory

from wheelend.arrangements import ARRANGEMENTS, PART_KINDS, SHIMMED_PAIR, Arrangement
from wheelend.endplay import clock_angle
from wheelend.errors import BadInput
from wheelend.procedure.locking import POLICIES
from wheelend.quantity import ANGLE, LENGTH, TORQUE, TORQUE_PER_DEG
from zesty.cards.models import CardVersion, SourceKind
from zesty.cards.queries import AIM_WORDS
from zesty.elements.typed import Typed, TypedField


class AimField(forms.CharField):
    """Middle, low, high or a play."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(max_length=40, **kwargs)

    def clean(self, value: Any) -> str:
        text = super().clean(value).strip()
        if text.lower() in AIM_WORDS:
            return text.lower()
        try:
            return Typed.read(text, LENGTH, "mm").text
        except BadInput:
            raise forms.ValidationError(
                f"“{text}” is not an aim; give middle, low, high or a play such as 0.10 mm."
            ) from None


_ONWARD = [(name, POLICIES[name]) for name in ("advance_only", "torque_window")]
"""A nut at its torque is never loosened to find a place."""


class CardForm(forms.Form):
    """What a version says."""

    effect = forms.ChoiceField(
        choices=[("opens", "more shim, more play"), ("closes", "more shim, less play")],
        label="What a thicker pack does",
    )
    low = TypedField(LENGTH, unit="mm", label="End play, least")
    high = TypedField(LENGTH, unit="mm", label="End play, most")
    aim = AimField(initial="middle", label="Aim")
    nut_torque = TypedField(TORQUE, unit="N·m", above=0, label="Nut torque")
    lock = forms.CharField(max_length=60, label="Lock", initial="pin in a slotted nut")
    pitch = TypedField(LENGTH, unit="mm", above=0, required=False, label="Thread pitch")
    slots = forms.IntegerField(min_value=1, max_value=60, required=False, label="Slots in the nut")
    openings = forms.IntegerField(
        min_value=1, max_value=12, required=False, label="Pin-hole mouths round the spindle"
    )
    positions = forms.IntegerField(
        min_value=1, max_value=360, required=False, label="Or: lock-ring positions a turn"
    )
    flip = forms.BooleanField(required=False, label="The ring may be turned over")
    lock_policy = forms.ChoiceField(choices=_ONWARD, label="Finding the place")
    torque_low = TypedField(TORQUE, unit="N·m", least=0, required=False, label="Torque, least")
    torque_high = TypedField(TORQUE, unit="N·m", above=0, required=False, label="Torque, ceiling")
    torque_per_deg = TypedField(
        TORQUE_PER_DEG, unit="N·m/deg", above=0, required=False, label="Torque rises by"
    )
    bolts = forms.IntegerField(
        min_value=2, max_value=60, required=False, label="Bolts (wheel, or each plate)"
    )
    bolt_torque = TypedField(TORQUE, unit="N·m", above=0, required=False, label="Their torque")
    balance = forms.ChoiceField(
        choices=[
            ("even", "even thickness left and right"),
            ("as_found", "as found, one side if so"),
        ],
        label="Two sides",
    )
    trial_method = forms.ChoiceField(
        choices=[("from_pack", "start from the pack that was found"),
                 ("over_shim", "start open, and come down")],
        label="Trials",
    )  # fmt: skip
    hands_radius = TypedField(
        LENGTH, unit="mm", above=0, required=False, label="Where hands hold, from the axis"
    )
    spread = TypedField(
        LENGTH, unit="mm", above=0, required=False, label="Between the bearings' load centres"
    )
    contact_angle = TypedField(ANGLE, unit="deg", above=0, required=False, label="Contact angle")
    clocks = forms.CharField(max_length=40, label="Read at", initial="12, 4, 8")
    max_shims = forms.IntegerField(min_value=1, max_value=50, initial=8, label="Shims at most")
    second_person = forms.BooleanField(required=False, label="A second person checks it")
    source_kind = forms.ChoiceField(choices=SourceKind.choices, label="Whose word")
    source = forms.CharField(max_length=200, required=False, label="Source")
    note = forms.CharField(max_length=400, required=False, label="Note")

    def clean_clocks(self) -> str:
        clocks = [clock.strip() for clock in self.cleaned_data["clocks"].split(",")]
        for clock in clocks:
            try:
                clock_angle(clock)
            except BadInput as bad:
                raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
        return ", ".join(dict.fromkeys(clocks))

    def clean(self) -> dict[str, Any]:
        said = super().clean()
        low, high = said.get("low"), said.get("high")
        if low and high and low.value > high.value:
            self.add_error("high", f"{high.text} is below the least, {low.text}; swap them.")
        self._check_lock(said)
        self._check_feel(said)
        if said.get("source_kind") != SourceKind.UNSOURCED and not said.get("source"):
            self.add_error("source", "Name the document and its date, or choose unsourced.")
        return said

    def _check_feel(self, said: dict[str, Any]) -> None:
        """What hands feel needs all its sizes, or none."""
        feel = [said.get(name) for name in ("hands_radius", "spread", "contact_angle")]
        if any(feel) and not all(feel):
            self.add_error(
                "hands_radius", "What hands feel needs all three: radius, spread and angle."
            )
        if said.get("contact_angle") and said["contact_angle"].value >= 90:
            self.add_error("contact_angle", "A contact angle is below 90 deg; give e.g. 14 deg.")

    def _check_lock(self, said: dict[str, Any]) -> None:
        """What the clock needs must be there whole, or not at all."""
        slots, openings, positions = (said.get(k) for k in ("slots", "openings", "positions"))
        if slots and positions:
            self.add_error("positions", "Give slots with pin holes, or positions, not both.")
        if bool(slots) != bool(openings):
            self.add_error("openings", "Give slots and pin-hole mouths together.")
        if (slots or positions) and not said.get("pitch"):
            self.add_error("pitch", "The lock places need the thread's pitch.")
        low, high = said.get("torque_low"), said.get("torque_high")
        if (low or high or said.get("lock_policy") == "torque_window") and not said.get(
            "torque_per_deg"
        ):
            self.add_error(
                "torque_per_deg", "A torque window needs how the torque rises, per degree."
            )
        if said.get("lock_policy") == "torque_window" and not (low or high):
            self.add_error("torque_high", "Give the window's ceiling, its least, or both.")
        if low and high and low.value > high.value:
            self.add_error("torque_high", f"{high.text} is below the least, {low.text}; swap them.")
        if bool(said.get("bolts")) != bool(said.get("bolt_torque")):
            self.add_error("bolt_torque", "Give the bolts and their torque together.")


class NewCardForm(CardForm):
    """A first version, with the card's name and family."""

    name = forms.CharField(max_length=80, label="Name of the card")
    arrangement = forms.ChoiceField(
        choices=[(family.key, family.name) for family in ARRANGEMENTS.values()]
    )
    field_order = ["name", "arrangement"]


class PartForm(forms.Form):
    """One line of the stack; a line without a kind is left out."""

    kind = forms.ChoiceField(
        choices=[("", "—"), *((kind.key, kind.name) for kind in PART_KINDS.values())],
        required=False,
    )
    name = forms.CharField(max_length=60, required=False)
    width = TypedField(LENGTH, unit="mm", least=0, required=False)
    bore = TypedField(LENGTH, unit="mm", above=0, required=False)
    outside = TypedField(LENGTH, unit="mm", above=0, required=False)
    way_round = forms.CharField(max_length=60, required=False, label="Way round")
    counts = forms.BooleanField(required=False, initial=True)

    def clean(self) -> dict[str, Any]:
        said = super().clean()
        bore, outside = said.get("bore"), said.get("outside")
        if bore and outside and bore.value >= outside.value:
            self.add_error("outside", f"{outside.text} is not larger than the bore, {bore.text}.")
        return said


class _StackFormSet(BaseFormSet):
    family = SHIMMED_PAIR

    def clean(self) -> None:
        """The drawing and the setting need the family's bearings and a place for the shims."""
        kinds = [form.cleaned_data.get("kind") for form in self.forms if form.is_valid()]
        for needed in self.family.needed:
            if kinds.count(needed) != 1:
                name = PART_KINDS[needed].name
                raise forms.ValidationError(f"The stack needs one line of kind “{name}”.")

    def stack(self) -> list[dict[str, Any]]:
        """The lines that name a part, in order."""
        lines = [form.cleaned_data for form in self.forms if form.cleaned_data.get("kind")]
        return [{**line, "name": line["name"] or PART_KINDS[line["kind"]].name} for line in lines]


StackFormSet = formset_factory(PartForm, formset=_StackFormSet, extra=3, max_num=24)


def initial_of(version: CardVersion) -> tuple[dict[str, Any], list[dict[str, Any]]]:
    """A version as the form's first state, with its stack's lines."""
    says = {name: getattr(version, name) for name in CardForm.base_fields}
    lines = [
        {name: getattr(part, name) for name in PartForm.base_fields} for part in version.stack.all()
    ]
    return says, lines


def usual_stack(family: Arrangement) -> list[dict[str, Any]]:
    """A stack to start a card of a family from."""
    return [
        {"kind": kind, "name": PART_KINDS[kind].name, "counts": kind not in ("seal", "pin")}
        for kind in family.usual
    ]
