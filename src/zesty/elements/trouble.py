"""When something breaks: one sentence, and what was typed stands there to be sent again."""

import logging
import sys
from collections.abc import Callable

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.shortcuts import render
from django.template.loader import render_to_string

from zesty.elements.refused import Unjudged
from zesty.elements.watch import database_is_down

_NOT_KEPT = {"csrfmiddlewaretoken", "password"}
_NOT_TYPED = {
    "token",
    "step",
    "station",
    "place",
    "round",
    "closing",
    "sure",
    "push",
    "next",
    "back",
}
_MOST_KEPT = 200
_LONGEST_KEPT = 20_000
logger = logging.getLogger(__name__)


class DatabaseDownMiddleware:
    """While PostgreSQL is known to be silent nothing waits for it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return later(request) if database_is_down() else self.get_response(request)


class UnjudgedMiddleware:
    """A page whose rule failed says so in a sentence."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return self.get_response(request)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """Answer what could not be judged; anything else goes on."""
        if not isinstance(error, Unjudged):
            return None
        return render(request, "unjudged.html", {"sentence": str(error)}, status=409)


def broke(request: HttpRequest) -> HttpResponse:
    """The answer to an error that nobody foresaw, and to a database that went away meanwhile."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError | InterfaceError):
        logger.warning("The database did not answer: %s", str(error).splitlines()[:1])
        return later(request)
    return HttpResponse(render_to_string("500.html", _kept(request)), status=500)


def later(request: HttpRequest) -> HttpResponse:
    """The database does not answer: what was typed is kept on the page, to be sent again."""
    answer = HttpResponse(render_to_string("503.html", _kept(request)), status=503)
    answer["Retry-After"] = "5"
    answer["Cache-Control"] = "no-store"
    return answer


def _kept(request: HttpRequest) -> dict[str, object]:
    """What was sent, as the fields of a form that sends it again."""
    if request.method != "POST" or request.FILES:
        return {}
    typed = [
        {
            "name": name,
            "label": name.replace("_", " "),
            "value": value[:_LONGEST_KEPT],
            "shown": bool(value) and name not in _NOT_TYPED,
        }
        for name, values in list(request.POST.lists())[:_MOST_KEPT]
        for value in values
        if name not in _NOT_KEPT
    ]
    return {"typed": typed, "to": request.get_full_path(), "csrf": get_token(request)}
