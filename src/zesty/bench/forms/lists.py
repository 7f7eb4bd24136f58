"""Forms of steps that are answered item by item: checks, and lists."""

from typing import Any

from django import forms

from wheelend.errors import BadInput
from wheelend.procedure.allowed import PART_LENGTH
from wheelend.procedure.asking.checks import FOUND
from wheelend.procedure.asking.listed import slot_of
from wheelend.procedure.items import items_of
from wheelend.procedure.items.frame import EXTRA, NOTED, extras
from zesty.bench.forms.say import SayForm
from zesty.elements.typed import Typed


class FoundForm(SayForm):
    """What a check found, or that enough is known."""

    kind = "found"
    answer = forms.CharField(max_length=40, required=False)
    enough = forms.CharField(max_length=3, required=False)

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        if not said.get("answer") and not said.get("enough"):
            raise forms.ValidationError("Nothing was answered; tap one of the answers.")
        return said

    def more(self) -> dict[str, Any]:
        if self.cleaned_data["enough"]:
            self.kind = "done"
            return {"place": "", "round": self.row.at.gone + 1}
        place = self.cleaned_data["place"]
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
