"""Forms of what sets a wheel end without shims: a swing, a stand-out, turns of the hub."""

from decimal import Decimal
from typing import Any

from django import forms

from wheelend.errors import BadInput
from wheelend.procedure.allowed import figure_of
from wheelend.procedure.asking import band, standing
from wheelend.quantity import FORCE, LENGTH, unit_of
from zesty.bench.forms.steps import MeasureForm, NumberForm, PickForm
from zesty.elements.typed import Typed, TypedField


class BandForm(MeasureForm):
    """Least or most of a swing, the radius of a pull, or that a thumb judged it."""

    instrument = forms.ChoiceField(required=False, label="Read with")
    answer = forms.CharField(max_length=10, required=False)

    def unit_shown(self) -> str:
        said = band.current(self.row.at)
        if self.row.slot.place == "radius":
            return "mm"
        if "low" in said and self.row.slot.place == "high":
            return unit_of(said["low"].typed)
        return "N" if band.limits_of(self.row.at)[1] is FORCE else "N·m"

    def set_up(self) -> None:
        super().set_up()
        field = self.fields["value"]
        typed = str(self.data.get("value", "")) if self.is_bound else ""
        unit = self.unit_shown()
        shown = typed if unit_of(typed) else f"1 {unit}"
        field.fits(figure_of(self.row.step, self.row.slot.place, shown), unit)
        field.label = self.row.slot.words.capitalize()
        tools = [*self.file.of_kind("torque_meter"), *self.file.of_kind("scale")]
        self.fields["instrument"].choices = [
            ("", "not named"),
            *((str(t.pk), t.name) for t in tools),
        ]
        used = [
            e.instrument_id
            for e in self.file.entries
            if e.step == self.row.step.id and e.instrument_id
        ]
        self.fields["instrument"].initial = (
            str(used[-1]) if used else str(tools[0].pk) if tools else ""
        )

    def clean(self) -> dict[str, Any]:
        if self.data.get("answer"):
            self.fields["value"].required = False
            return forms.Form.clean(self) or {}
        return super().clean()

    def more(self) -> dict[str, Any]:
        said = self.cleaned_data
        if said["answer"]:
            self.kind = "pick"
            return {"place": "", "typed": said["answer"]}
        tool = self.file.instrument(int(said["instrument"])) if said["instrument"] else None
        return {**super().more(), "instrument": tool}


class BladesField(TypedField):
    """Blades that go in together, with a plus between them: the tool adds."""

    def clean(self, value: Any) -> Typed | None:
        text = " ".join(str(value or "").split())
        if "+" not in text:
            return super().clean(value)
        try:
            total = float(standing.blades(text))
        except BadInput as bad:
            raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
        last = text if unit_of(text.rpartition("+")[2].strip()) else f"{text} mm"
        return Typed(last, round(Decimal(repr(total)), 5))


class StandOutForm(NumberForm):
    """One depth, or one stack of blades."""

    value = BladesField(LENGTH, label="Value")

    def set_up(self) -> None:
        super().set_up()
        place = self.initial.get("place") or self.row.slot.place
        self.fields["value"].label = standing.WORDS.get(place, place).capitalize()


class TurnsForm(PickForm):
    """One turn of the hub, or that it is enough."""

    def more(self) -> dict[str, Any]:
        if self.cleaned_data["answer"] == "done":
            self.kind = "done"
            return {}
        return super().more()
