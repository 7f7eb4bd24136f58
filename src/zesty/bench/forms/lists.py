"""Forms of steps that are answered item by item: checks, and lists."""

from typing import Any

from django import forms

from wheelend.diagnose import table
from wheelend.errors import BadInput
from wheelend.procedure.allowed import figure_of
from wheelend.procedure.asking.checks import FOUND, due_place
from wheelend.procedure.asking.listed import slot_of
from wheelend.procedure.figures import PART_LENGTH
from wheelend.procedure.items import items_of
from wheelend.procedure.items.frame import EXTRA, NOTED, extras
from zesty.bench.forms.say import SayForm
from zesty.elements.typed import Typed, TypedField


class FoundForm(SayForm):
    """What a check found, in a word or as the number at its place, or that enough is known."""

    kind = "found"
    value = TypedField(required=False)
    answer = forms.CharField(max_length=40, required=False)
    enough = forms.CharField(max_length=3, required=False)

    def set_up(self) -> None:
        check = str(self.data.get("place") or self.initial.get("place") or "")
        known = next((one for one in table().checks if one.id == check), None)
        self.due = due_place(self.row.at, known) if known else ""
        if known and self.due:
            figure = figure_of(self.row.step, f"{check}.{self.due}")
            field = self.fields["value"]
            field.fits(figure, "°C" if figure.unit == "degC" else "mm")
            field.label = f"{known.says}, {known.places[self.due]}"

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        given = said.get("answer") or said.get("enough") or said.get("value")
        if not given and "value" not in self.errors:
            raise forms.ValidationError("Nothing was answered; tap one of the answers.")
        if said.get("value") and not self.due:
            raise forms.ValidationError("Nothing is measured here; tap one of the answers.")
        return said

    def more(self) -> dict[str, Any]:
        if self.cleaned_data["enough"]:
            self.kind = "done"
            return {"place": "", "round": self.row.at.gone + 1}
        place = self.cleaned_data["place"]
        typed: Typed | None = self.cleaned_data["value"]
        if typed and not self.cleaned_data["answer"]:
            self.kind = "value"
            where = f"{place}.{self.due}"
            return {"place": where, "round": 1, "typed": typed.text, "value": typed.value}
        times = sum(row.place == place and row.kind == FOUND for row in self.row.at.entries)
        return {"typed": self.cleaned_data["answer"], "round": times + 1}


class ListedForm(SayForm):
    """One item of a list answered, something added to it, or the list closed."""

    kind = NOTED
    answer = forms.CharField(max_length=40, required=False)
    detail = forms.CharField(max_length=200, required=False)
    extra = forms.CharField(max_length=60, required=False)
    enough = forms.CharField(max_length=3, required=False)

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        if said.get("enough") or said.get("extra"):
            return said
        item = next((one for one in items_of(self.row.at) if one.key == said.get("place")), None)
        choice = (
            next((one for one in item.choices if one.key == said.get("answer")), None)
            if item
            else None
        )
        if choice is None:
            raise forms.ValidationError("Nothing was answered; tap one of the answers.")
        if choice.wants and not said.get("detail"):
            raise forms.ValidationError(_WANTED[choice.wants])
        if choice.wants == "length":
            self.cleaned_data["typed"] = _length_of(said["detail"])
        return said

    def more(self) -> dict[str, Any]:
        said = self.cleaned_data
        if said["enough"]:
            self.kind = "done"
            return {"place": "", "round": self.row.at.gone + 1}
        if said["extra"]:
            count = len(extras(self.row.at.entries)) + 1
            return {"place": f"x{count}", "round": 1, "typed": f"{EXTRA} {said['extra']}"}
        typed: Typed | None = said.get("typed")
        detail = typed.text if typed else said["detail"]
        more = {"value": typed.value} if typed else {}
        words = f"{said['answer']} {detail}".strip()
        return {"round": slot_of(self.row.at, said["place"]).round, "typed": words, **more}


_WANTED = {
    "length": "Type the thickness first, such as 0.50 mm or 20 thou; then tap the answer.",
    "text": "Type it first; then tap the answer.",
    "reason": "Type the reason first; then tap the answer.",
}


def _length_of(text: str) -> Typed:
    try:
        return Typed.within(text, PART_LENGTH)
    except BadInput as bad:
        raise forms.ValidationError(f"{bad.given} {bad.need}.") from None
