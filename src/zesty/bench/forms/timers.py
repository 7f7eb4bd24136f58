"""Starting, lengthening and stopping a timer."""

import uuid

from django import forms

from wheelend.card.figures import FigureOf
from wheelend.quantity import TIME
from zesty.bench.models import LONGEST_TIMER_S, TimerKind
from zesty.elements.forms import PageForm
from zesty.elements.typed import TypedField

_LONGEST_REASON = 200
_WAIT = FigureOf(TIME, "min", 0.01, LONGEST_TIMER_S / 60)


def _minutes(label: str) -> TypedField:
    """A time; a bare number is minutes."""
    field = TypedField(
        TIME,
        label=label,
        error_messages={"required": f"Nothing was typed; give e.g. {TIME.example}."},
    )
    field.fits(_WAIT, "min")
    return field


class TimerForm(PageForm):
    """What is waited for, and how long; a bare number is minutes."""

    kind = forms.ChoiceField(
        choices=[(one.value, one.label) for one in TimerKind if one != TimerKind.COOLING],
        label="What waits",
    )
    minutes = _minutes("How long")
    words = forms.CharField(max_length=60, required=False, label="What it is")
    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)


class LengthenForm(PageForm):
    """How much longer, and why."""

    minutes = _minutes("Longer by")
    reason = forms.CharField(
        max_length=_LONGEST_REASON,
        label="Why",
        error_messages={"required": "Say why it runs longer."},
    )
    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)


class StopForm(PageForm):
    """Why it is stopped; needs no reason once it is over."""

    reason = forms.CharField(max_length=_LONGEST_REASON, required=False, label="Why")
    token = forms.UUIDField(widget=forms.HiddenInput, initial=uuid.uuid4)
