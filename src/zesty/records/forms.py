"""Forms of the records."""

from django import forms

from zesty.elements.forms import PageForm


class ReopenForm(PageForm):
    """Why a signed job is opened again."""

    reason = forms.CharField(max_length=200, label="Open it again, because")
