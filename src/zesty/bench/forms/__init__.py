"""Forms of the bench: `steps` answers what is due, `side` what is asked beside it."""

from zesty.bench.forms.choosing import form_for
from zesty.bench.forms.packs import PackField
from zesty.bench.forms.side import CardChangeForm, ChooseForm, CorrectForm, ReasonForm, WhyForm
from zesty.bench.forms.steps import dial_in_use

__all__ = [
    "CardChangeForm",
    "ChooseForm",
    "CorrectForm",
    "PackField",
    "ReasonForm",
    "WhyForm",
    "dial_in_use",
    "form_for",
]
