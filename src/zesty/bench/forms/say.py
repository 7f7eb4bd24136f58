"""What the form of every entry carries."""

import uuid
from functools import cached_property
from typing import Any

from django import forms
from django.utils.html import format_html_join
from django.utils.safestring import SafeString

from wheelend.procedure.progress import Row
from zesty.bench.actions.log import Say
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.elements.forms import PageForm


class SayForm(PageForm):
    """What every entry carries: where it goes, and a token so that it counts once."""

    kind = "done"

    step = forms.CharField(max_length=30, widget=forms.HiddenInput)
    station = forms.CharField(max_length=20, required=False, widget=forms.HiddenInput)
    place = forms.CharField(max_length=20, required=False, widget=forms.HiddenInput)
    round = forms.IntegerField(min_value=1, max_value=999, required=False, widget=forms.HiddenInput)
    closing = forms.IntegerField(
        min_value=0, max_value=9999, required=False, widget=forms.HiddenInput
    )
    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)
    sure = forms.BooleanField(required=False, widget=forms.HiddenInput)

    def __init__(self, *args: Any, file: JobFile, unit: UnitFile, row: Row, **kwargs: Any) -> None:
        slot = row.slot
        initial = {
            "step": row.step.id, "station": row.station, "place": slot.place, "round": slot.round,
            "closing": row.at.closing,
        }  # fmt: skip
        kwargs["initial"] = {**initial, **kwargs.get("initial", {})}
        super().__init__(*args, **kwargs)
        self.file, self.unit, self.row = file, unit, row
        self.set_up()

    @cached_property
    def hidden_inputs(self) -> SafeString:
        """Where it goes, as every form of the open step carries it."""
        said = ((one.html_name, one.value()) for one in self.hidden_fields())
        return format_html_join(
            "", '<input type="hidden" name="{}" value="{}">',
            ((name, "" if value is None else value) for name, value in said),
        )  # fmt: skip

    def set_up(self) -> None:
        """Fit the fields to the row."""

    def aim_at_now(self) -> None:
        """Keep what was typed, for the place that is due now: the page it came from may be old."""
        self.data = self.data.copy()
        for name in ("place", "round", "closing", "push", "saw"):
            if name in self.fields:
                self.data[name] = self.get_initial_for_field(self.fields[name], name)
        self.data["token"] = uuid.uuid4()

    def say(self) -> Say:
        """What is to be written."""
        more = self.more()
        where = ("step", "station", "place", "round", "closing", "token", "sure")
        said = {name: self.cleaned_data[name] for name in where}
        return Say(**{**said, "kind": self.kind, **more})

    def more(self) -> dict[str, Any]:
        """What this kind of entry carries besides."""
        return {}
