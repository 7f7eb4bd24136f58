"""The form of each kind of step: made from what it asks, it says what is to be written."""

from typing import Any

from django import forms

from wheelend.card import CHOICES
from wheelend.endplay import coarsest_step
from wheelend.procedure.allowed import figure_of
from wheelend.procedure.figures import LONGEST_NOTE
from wheelend.procedure.log import PLAIN_KINDS
from wheelend.procedure.progress import Row
from wheelend.quantity import LENGTH, unit_of
from zesty.bench.forms.packs import PackField
from zesty.bench.forms.say import SayForm
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.elements.typed import Typed, TypedField
from zesty.stores.actions import recognised


class TickForm(SayForm):
    """Done."""


class TextForm(SayForm):
    """A few words."""

    kind = "text"
    text = forms.CharField(max_length=LONGEST_NOTE, widget=forms.Textarea(attrs={"rows": 3}))

    def more(self) -> dict[str, Any]:
        return {"typed": self.cleaned_data["text"]}


class PickForm(SayForm):
    """One of a few answers."""

    kind = "pick"
    answer = forms.CharField(max_length=40)

    def more(self) -> dict[str, Any]:
        return {"typed": self.cleaned_data["answer"]}


class SecondForm(PickForm):
    """The second person's answer, with the digest of what they looked at."""

    saw = forms.CharField(max_length=64, widget=forms.HiddenInput)

    def set_up(self) -> None:
        self.fields["saw"].initial = self.unit.progress.digest

    def more(self) -> dict[str, Any]:
        return {**super().more(), "saw": self.cleaned_data["saw"]}


class NumberForm(SayForm):
    """A quantity; a bare number takes the unit that stands beside the field."""

    kind = "value"
    value = TypedField(LENGTH, label="Value")

    def unit_shown(self) -> str:
        """The unit that stands beside the field."""
        return "mm"

    def set_up(self) -> None:
        field = self.fields["value"]
        field.fits(figure_of(self.row.step), self.unit_shown())
        field.label = self.row.slot.words.capitalize() or self.row.step.says

    def more(self) -> dict[str, Any]:
        typed: Typed = self.cleaned_data["value"]
        return {"typed": typed.text, "value": typed.value}


class UsageForm(NumberForm):
    """The vehicle's counter."""

    def unit_shown(self) -> str:
        last = next((row for row in reversed(self.file.entries) if row.step == "usage"), None)
        log = None if last else self.file.job.vehicle.usage_log.first()
        return unit_of(last.typed) if last else log.unit if log else "km"


class AngleForm(NumberForm):
    """How far a nut moved, or the next place is."""

    def unit_shown(self) -> str:
        return "deg"


class MeasureForm(NumberForm):
    """What is measured at the place that is due, or that there is no more to measure."""

    def unit_shown(self) -> str:
        return figure_of(self.row.step).unit

    enough = forms.CharField(max_length=3, required=False)

    def set_up(self) -> None:
        super().set_up()
        self.fields["value"].required = False

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        if not said.get("value") and not said.get("enough") and "value" not in self.errors:
            example = figure_of(self.row.step).dimension.example
            self.add_error("value", f"Nothing was typed; give e.g. {example}.")
        return said

    def more(self) -> dict[str, Any]:
        if self.cleaned_data["enough"]:
            self.kind = "done"
            return {"place": "", "round": self.row.at.gone + 1}
        return super().more()


class WarmthForm(NumberForm):
    """A temperature at the place that is due, or how it went."""

    answer = forms.CharField(max_length=10, required=False)

    def unit_shown(self) -> str:
        return "°C"

    def set_up(self) -> None:
        super().set_up()
        self.fields["value"].required = False

    def clean(self) -> dict[str, Any]:
        said = super().clean() or {}
        if not said.get("value") and not said.get("answer") and "value" not in self.errors:
            self.add_error("value", "Nothing was typed; give e.g. 80 °C.")
        return said

    def more(self) -> dict[str, Any]:
        answer = self.cleaned_data["answer"]
        if not answer:
            return super().more()
        self.kind = "pick"
        return {"place": "", "typed": answer}


class LevelForm(PickForm):
    """One act of filling, or where the level stands."""


class TorqueForm(NumberForm):
    """A torque, and the wrench that it was reached with."""

    wrench = forms.ChoiceField(required=False, label="Wrench")
    lengthened = forms.BooleanField(required=False, label="A tube was put on its handle")

    def unit_shown(self) -> str:
        wanted = self.row.at.setting.torque
        return unit_of(wanted.text) if wanted else "N·m"

    def set_up(self) -> None:
        super().set_up()
        tools = self.file.of_kind("wrench")
        self.fields["wrench"].choices = [
            ("", "no wrench named"),
            *((str(t.pk), t.name) for t in tools),
        ]
        self.fields["wrench"].initial = usual_wrench(self.file, self.row)

    def more(self) -> dict[str, Any]:
        said = self.cleaned_data
        tool = self.file.instrument(int(said["wrench"])) if said["wrench"] else None
        facts = {"lengthened": True} if said["lengthened"] else {}
        return {**super().more(), "instrument": tool, "facts": facts}


def usual_wrench(file: JobFile, row: Row) -> str:
    """The wrench to offer: the last one of this job, else the smallest that reaches the torque."""
    wrenches = {tool.pk for tool in file.of_kind("wrench")}
    used = [
        e.instrument_id for e in file.entries if e.instrument_id in wrenches and e.kind == "value"
    ]
    if used:
        return str(used[-1])
    wanted = row.at.setting.torque
    fits = [
        tool
        for tool in file.of_kind("wrench")
        if wanted is None
        or (float(tool.low_value or 0) <= wanted.value <= float(tool.high_value or 0))
    ]
    return str(fits[0].pk) if fits else ""


class PackForm(SayForm):
    """The shims of one station."""

    kind = "pack"
    pack = PackField(label="Shims")
    from_here = forms.BooleanField(required=False, label="They came off this wheel end")

    def more(self) -> dict[str, Any]:
        shims = [recognised(self.file.loose, one) for one in self.cleaned_data["pack"]]
        typed = ", ".join(shim.typed for shim in shims) or "no shims"
        return {"shims": shims, "typed": typed[:400], "from_here": self.cleaned_data["from_here"]}


class DialForm(SayForm):
    """Which dial, where it stands, and whether the hub is turned between push and pull."""

    kind = "pick"
    dial = forms.ChoiceField(required=False, label="Dial")
    dial_at = forms.ChoiceField(
        label="Where it stands", choices=list(CHOICES["dial_at"].options.items())
    )
    turned = forms.BooleanField(required=False, label="The hub is turned between push and pull")

    def set_up(self) -> None:
        dials = [
            (str(one.pk), f"{one.name}, step {one.resolution}") for one in self.file.of_kind("dial")
        ]
        self.fields["dial"].choices = [*dials, ("", "no dial: judged by hand")]
        last = next((e for e in reversed(self.file.entries) if e.step == self.row.step.id), None)
        self.fields["dial"].initial = str(last.instrument_id or "") if last else ""
        if last is None and dials:
            self.fields["dial"].initial = _usual_dial(self.file, self.unit) or dials[0][0]
        chosen = self.unit.card.chosen("dial_at", self.unit.progress.chosen)
        self.fields["dial_at"].initial = last.typed if last else chosen

    def more(self) -> dict[str, Any]:
        said = self.cleaned_data
        tool = self.file.instrument(int(said["dial"])) if said["dial"] else None
        facts = {"dial_at": said["dial_at"], "turned": said["turned"]}
        return {"typed": said["dial_at"] if tool else "hands", "instrument": tool, "facts": facts}


def _usual_dial(file: JobFile, unit: UnitFile) -> str:
    """The coarsest dial that can prove the card's window: a finer one only costs care."""
    window = unit.card.setting.limits
    if window is None or window.limits.window is None:
        return ""
    coarsest = coarsest_step(window.limits.window)
    fits = [
        one
        for one in file.of_kind("dial")
        if one.resolution_value and float(one.resolution_value) <= coarsest
    ]
    return str(max(fits, key=lambda one: one.resolution_value).pk) if fits else ""


class ReadingForm(NumberForm):
    """One dial reading; a bare number is in the dial's own unit. It knows which way it was asked."""

    push = forms.CharField(max_length=3, required=False, widget=forms.HiddenInput)

    def unit_shown(self) -> str:
        tool = dial_in_use(self.unit)
        return unit_of(tool["resolution"]) if tool and tool.get("resolution") else "mm"

    def set_up(self) -> None:
        super().set_up()
        self.kind = self.row.slot.push or "in"
        self.fields["push"].initial = self.kind
        self.fields["value"].label = self.row.slot.words.capitalize()

    def more(self) -> dict[str, Any]:
        if self.cleaned_data["push"] in PLAIN_KINDS:
            self.kind = self.cleaned_data["push"]
        used = dial_in_use(self.unit) or {}
        tool = self.file.instrument(used.get("pk"))
        facts = {key: used[key] for key in ("dial_at", "turned") if key in used}
        return {**super().more(), "instrument": tool, "facts": facts}


class FindingForm(SayForm):
    """No reading is possible."""

    finding = forms.ChoiceField(
        choices=[("bound", "bound"), ("no_play", "no play"), ("felt", "play felt")]
    )

    def more(self) -> dict[str, Any]:
        self.kind = self.cleaned_data["finding"]
        used = dial_in_use(self.unit) or {}
        tool = self.file.instrument(used.get("pk"))
        return {"instrument": tool, "place": ""}


def dial_in_use(unit: UnitFile) -> dict[str, Any] | None:
    """The dial set-up that holds: the facts of the last one that was written, with its key."""
    rows = [*unit.progress.of_kind("dial"), *unit.progress.of_kind("recheck_dial")]
    latest = rows[0].at.entries[-1] if rows and rows[0].at.entries else None
    if latest is None or latest.instrument is None:
        return None
    entry = next(one for one in unit.entries if one.pk == latest.id)
    return {**latest.instrument.facts, "pk": entry.instrument_id}


class BoltForm(SayForm):
    """One bolt: drawn down, or in the last round looked at."""

    moved = forms.CharField(max_length=5, required=False)

    def set_up(self) -> None:
        self.kind = "bolt"

    def more(self) -> dict[str, Any]:
        said = self.cleaned_data["moved"]
        self.kind = said if said in ("moved", "few") else "bolt"
        return {"place": ""} if self.kind == "few" else {}
