"""Forms for accounts."""

from django import forms
from django.contrib.auth.password_validation import validate_password


class FirstForm(forms.Form):
    """The first workshop and its owner."""

    workshop = forms.CharField(max_length=80, label="Name of the workshop")
    username = forms.CharField(max_length=40, label="Your account name")
    password = forms.CharField(widget=forms.PasswordInput, validators=[validate_password])


class UnitsForm(forms.Form):
    """Which units stand first."""

    leads = forms.ChoiceField(choices=[("metric", "mm, N·m"), ("inch", "thou, lbf·ft")])
