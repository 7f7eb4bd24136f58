"""Forms for accounts."""

from typing import Any

from django import forms
from django.contrib.auth.forms import PasswordChangeForm
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError

from zesty.elements.forms import PageForm
from zesty.people.models import Role, User


class AccountForm(PageForm):
    """An account's name and password; the password is looked at beside the name."""

    username = forms.CharField(
        max_length=40, label="Your account name", validators=[UnicodeUsernameValidator()]
    )
    password = forms.CharField(max_length=200, strip=False, widget=forms.PasswordInput)

    def clean(self) -> dict[str, Any]:
        said = super().clean()
        if said.get("password"):
            try:
                validate_password(said["password"], User(username=said.get("username", "")))
            except ValidationError as error:
                self.add_error("password", error)
        return said


class FirstForm(AccountForm):
    """The first workshop and its owner."""

    workshop = forms.CharField(max_length=80, label="Name of the workshop")
    field_order = ["workshop", "username", "password"]


class NewPasswordForm(AccountForm):
    """A new password for an account that is there."""

    username = forms.CharField(required=False, widget=forms.HiddenInput)


class UnitsForm(PageForm):
    """Which units stand first."""

    leads = forms.ChoiceField(choices=[("metric", "mm, N·m"), ("inch", "thou, lbf·ft")])


class InviteForm(PageForm):
    """Who is to come."""

    role = forms.ChoiceField(choices=Role.choices, label="As")


class MemberForm(PageForm):
    """What is to become of a member."""

    member_id = forms.IntegerField(min_value=1, max_value=2**31, widget=forms.HiddenInput)
    role = forms.ChoiceField(choices=Role.choices, required=False)
    act = forms.ChoiceField(choices=[("role", ""), ("remove", ""), ("password", "")])


class ChangeForm(PasswordChangeForm):
    """Django's own, with ids of ours."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, auto_id="change_%s", **kwargs)
        self.fields["old_password"].widget.attrs.pop("autofocus", None)
