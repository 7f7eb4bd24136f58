"""Who may do what, said once at each view."""

from collections.abc import Callable
from functools import wraps

from django.core.exceptions import PermissionDenied
from django.http import HttpRequest, HttpResponse

View = Callable[..., HttpResponse]


def roles(allowed: frozenset[str]) -> Callable[[View], View]:
    """Lets a view's POST through only for some roles; reading is for every member."""

    def wrap(view: View) -> View:
        @wraps(view)
        def guarded(request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
            if request.method not in ("GET", "HEAD") and not request.member.may(allowed):
                raise PermissionDenied(
                    f"Your role here, {request.member.get_role_display()}, reads this but does not "
                    "change it."
                )
            return view(request, *args, **kwargs)

        guarded.roles = allowed
        return guarded

    return wrap
