"""Sign-in, the first run of an empty installation, and the members of a workshop."""

from django.contrib.auth import login, update_session_auth_hash
from django.contrib.auth.forms import AuthenticationForm
from django.contrib.auth.views import LoginView
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_GET

from zesty.elements.answers import UNUSABLE, carry_out, posts
from zesty.elements.refused import Refused
from zesty.people import actions
from zesty.people.forms import (
    AccountForm,
    ChangeForm,
    FirstForm,
    InviteForm,
    MemberForm,
    NewPasswordForm,
    UnitsForm,
)
from zesty.people.guard import roles
from zesty.people.loopback import demo_is_open
from zesty.people.models import PEOPLE_ROLES, ROLE_MAY, Membership, Role, User

_BACKEND = "zesty.people.backends.MemberBackend"


class SignIn(LoginView):
    """Name and password; in the demo, one click a role."""

    template_name = "people/sign_in.html"

    def dispatch(self, request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
        if actions.is_first_run():
            return redirect("people:first")
        # An account without a workshop would be sent round in circles.
        self.redirect_authenticated_user = request.member is not None
        return super().dispatch(request, *args, **kwargs)

    def get_form(self, form_class: type | None = None) -> AuthenticationForm:
        form = super().get_form(form_class)
        # On a phone a focused field would scroll the one-click roles out of sight.
        form.fields["username"].widget.attrs.pop("autofocus", None)
        return form

    def get_context_data(self, **kwargs: object) -> dict[str, object]:
        members = Membership.objects.none()
        if demo_is_open(self.request):
            members = Membership.objects.filter(workshop__is_demo=True)
        demo = members.select_related("user", "workshop").order_by("pk")
        return super().get_context_data(demo_members=demo, **kwargs)


@posts(lambda **_: reverse("people:sign_in"))
def demo_enter(request: HttpRequest, account: str) -> HttpResponse:
    """Sign in as one of the demo's accounts, from this machine only."""
    if not demo_is_open(request):
        raise Http404
    try:
        user = actions.demo_user(account)
    except Refused as refused:
        raise Http404(refused.sentence) from None
    login(request, user, _BACKEND)
    return HttpResponseRedirect(_safe(request, "next"))


def _safe(request: HttpRequest, name: str) -> str:
    """An address of ours that a form named, or the yard."""
    wanted = request.POST.get(name, "")
    ours = url_has_allowed_host_and_scheme(wanted, allowed_hosts={request.get_host()})
    safe = ours and wanted.startswith("/") and wanted.isascii() and wanted.isprintable()
    return wanted if safe else reverse("yard:yard")


def locked_out(request: HttpRequest, *_: object, **__: object) -> HttpResponse:
    """Too many wrong passwords, for this account or from this address."""
    return render(request, "people/locked_out.html", status=429)


def first(request: HttpRequest) -> HttpResponse:
    """Open the first workshop of an empty installation."""
    if not actions.is_first_run():
        return redirect("people:sign_in")
    form = FirstForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        clean = form.cleaned_data
        try:
            user = actions.open_workshop(clean["workshop"], clean["username"], clean["password"])
        except Refused:
            return redirect("people:sign_in")
        login(request, user, _BACKEND)
        return redirect("yard:yard")
    return render(request, "people/first.html", {"form": form}, status=_status(request))


def _status(request: HttpRequest) -> int:
    return UNUSABLE if request.method == "POST" else 200


@posts(lambda: reverse("yard:yard"))
def units(request: HttpRequest) -> HttpResponse:
    """Choose which units stand first; back to where it was asked."""
    form = UnitsForm(request.POST)
    if form.is_valid():
        actions.lead_with(request.member, leads=form.cleaned_data["leads"])
    return HttpResponseRedirect(_safe(request, "back"))


@roles(PEOPLE_ROLES)
def members(request: HttpRequest) -> HttpResponse:
    """Who works here; POST invites somebody."""
    form = InviteForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        word = actions.invite(request.member, role=form.cleaned_data["role"])
        return _members(request, link=_link(request, word))
    return _members(request, invite_form=form)


@posts(lambda: reverse("people:members"))
@roles(PEOPLE_ROLES)
def member(request: HttpRequest) -> HttpResponse:
    """Another role for a member, a new password, or their account taken away."""
    form = MemberForm(request.POST)
    link = ""

    def act(*, member_id: int, role: str, act: str) -> None:
        nonlocal link
        if act == "remove":
            actions.remove(request.member, member_id=member_id)
        elif act == "password":
            word = actions.invite(request.member, role="", member_id=member_id)
            link = _link(request, word)
        elif role:
            actions.change_role(request.member, member_id=member_id, role=role)

    if carry_out(form, act):
        return _members(request, link=link) if link else redirect("people:members")
    return _members(request, member_form=form)


def _link(request: HttpRequest, word: str) -> str:
    return request.build_absolute_uri(reverse("people:join", args=[word]))


def _members(request: HttpRequest, link: str = "", **forms: object) -> HttpResponse:
    here = Membership.objects.filter(workshop=request.member.workshop)
    context = {
        "members": here.select_related("user").order_by("user__username"),
        "roles": [(role.value, role.label, ROLE_MAY[role]) for role in Role],
        "may_edit": request.member.may(PEOPLE_ROLES),
        "link": link,
        **forms,
    }
    bad = any(getattr(form, "errors", None) for form in forms.values())
    return render(request, "people/members.html", context, status=UNUSABLE if bad else 200)


def join(request: HttpRequest, word: str) -> HttpResponse:
    """Open the account that a link is for."""
    try:
        one = actions.invitation(word)
    except Refused as refused:
        return render(request, "people/join.html", {"refusal": refused.sentence}, status=404)
    made = NewPasswordForm if one.user else AccountForm
    initial = {"username": one.user.username} if one.user else {}
    form = made(request.POST or None, initial=initial)
    kept: list[User] = []

    def act(**said: str) -> None:
        kept.append(actions.accept(word, **said))

    if request.method == "POST" and carry_out(form, act):
        login(request, kept[0], _BACKEND)
        return redirect("yard:yard")
    context = {"form": form, "invitation": one}
    return render(request, "people/join.html", context, status=_status(request))


def password(request: HttpRequest) -> HttpResponse:
    """A new password for oneself; every other session of the account ends."""
    if not request.member.has_password:
        return redirect("yard:yard")
    form = ChangeForm(request.user, request.POST or None)
    if request.method == "POST" and form.is_valid():
        actions.new_password(request.user, form.cleaned_data["new_password1"])
        update_session_auth_hash(request, request.user)
        return redirect("people:members")
    return render(request, "people/password.html", {"form": form}, status=_status(request))


@require_GET
def alive(_: HttpRequest) -> HttpResponse:
    """For the launcher: the web server answers."""
    return HttpResponse("alive", content_type="text/plain")
