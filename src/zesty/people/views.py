"""Sign-in, and the first run of an empty installation."""

from django.contrib.auth import login
from django.contrib.auth.forms import AuthenticationForm
from django.contrib.auth.views import LoginView
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_GET

from zesty.elements.answers import posts
from zesty.elements.refused import Refused
from zesty.people import actions
from zesty.people.forms import FirstForm, UnitsForm
from zesty.people.models import Membership


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
        members = Membership.objects.filter(workshop__is_demo=True)
        demo = members.select_related("user", "workshop").order_by("pk")
        return super().get_context_data(demo_members=demo, **kwargs)


@posts(lambda **_: reverse("people:sign_in"))
def demo_enter(request: HttpRequest, account: str) -> HttpResponse:
    """Sign in as one of the demo's accounts."""
    try:
        login(request, actions.demo_user(account))
    except Refused as refused:
        raise Http404(refused.sentence) from None
    after = request.POST.get("next", "")
    safe = url_has_allowed_host_and_scheme(after, allowed_hosts={request.get_host()})
    return redirect(after if safe else "yard:yard")


def first(request: HttpRequest) -> HttpResponse:
    """Open the first workshop of an empty installation."""
    if not actions.is_first_run():
        return redirect("people:sign_in")
    form = FirstForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        clean = form.cleaned_data
        user = actions.open_workshop(clean["workshop"], clean["username"], clean["password"])
        login(request, user)
        return redirect("yard:yard")
    return render(request, "people/first.html", {"form": form})


@posts(lambda: reverse("yard:yard"))
def units(request: HttpRequest) -> HttpResponse:
    """Choose which units stand first; back to where it was asked."""
    form = UnitsForm(request.POST)
    if form.is_valid():
        actions.lead_with(request.member, leads=form.cleaned_data["leads"])
    back = request.POST.get("back", "")
    safe = url_has_allowed_host_and_scheme(back, allowed_hosts={request.get_host()})
    return redirect(back if safe else "yard:yard")


@require_GET
def alive(_: HttpRequest) -> HttpResponse:
    """For the launcher: the web server answers."""
    return HttpResponse("alive", content_type="text/plain")
