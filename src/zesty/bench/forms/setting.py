"""Forms of what sets a wheel end without shims: a swing, a stand-out, turns of the hub."""

from decimal import Decimal
from typing import Any

from django import forms

from wheelend.errors import BadInput
from wheelend.procedure.allowed import figure_of
from wheelend.procedure.asking import band, standing
from wheelend.procedure.log import Instrument as CoreInstrument
from wheelend.quantity import FORCE, LENGTH, unit_of
from zesty.bench.forms.steps import MeasureForm, NumberForm, PickForm
from zesty.elements.typed import Typed, TypedField
from zesty.stores.models import Instrument


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
        self._offer_tools(told=self.row.step.kind in band.ADDING)

    def _offer_tools(self, *, told: bool) -> None:
        """The meters of the shop, the one that was used here first; what is only told names none."""
        kinds = ("scale", "torque_meter") if self.unit_shown() == "N" else ("torque_meter", "scale")
        tools = [tool for kind in kinds for tool in self.file.of_kind(kind)]
        nothing = ("", "as told, not measured" if told else "not named")
        field = self.fields["instrument"]
        field.choices = [nothing, *((str(tool.pk), tool.name) for tool in tools)]
        here = (entry for entry in self.file.entries if entry.step == self.row.step.id)
        used = [entry.instrument_id for entry in here if entry.kind == "value"]
        usual = tools[0].pk if tools and not told else None
        field.initial = str((used[-1] if used else usual) or "")

    def clean(self) -> dict[str, Any]:
        if self.data.get("answer"):
            self.fields["value"].required = False
            return forms.Form.clean(self) or {}
        said = super().clean()
        value, tool = said.get("value"), self._tool(said)
        if value and tool and self.row.slot.place != "radius":
            wrong = band.misread(value.text, CoreInstrument(tool.name, {"kind": tool.kind}))
            if wrong:
                self.add_error("value", f"{wrong}: say below what it was read with.")
        return said

    def _tool(self, said: dict[str, Any]) -> Instrument | None:
        return self.file.instrument(int(said["instrument"])) if said.get("instrument") else None

    def more(self) -> dict[str, Any]:
        said = self.cleaned_data
        if said["answer"]:
            self.kind = "pick"
            return {"place": "", "typed": said["answer"]}
        return {**super().more(), "instrument": self._tool(said)}


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
