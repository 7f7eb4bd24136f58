"""Puts the member on the request, and holds the door for those who are none."""

from collections.abc import Callable

from django.contrib.auth.views import redirect_to_login
from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_cache_control

from zesty.people.models import Membership

OPEN_PATHS = ("/sign-in", "/demo/", "/first", "/join/", "/static/", "/alive")


class MemberMiddleware:
    """Every page but the open ones needs a member; `request.member` is that member."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        request.member = self._member(request)
        if request.member is None and not request.path.startswith(OPEN_PATHS):
            return redirect_to_login(request.get_full_path())
        answer = self.get_response(request)
        if request.member is not None:
            # A page that is come back to must show what stands now, and no shared cache may keep it.
            patch_cache_control(answer, private=True, no_store=True)
        return answer

    def _member(self, request: HttpRequest) -> Membership | None:
        if not request.user.is_authenticated:
            return None
        return getattr(request.user, "membership", None)
