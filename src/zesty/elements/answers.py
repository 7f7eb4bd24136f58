"""How views answer a form: the page again with what was typed, or onwards."""

from collections.abc import Callable
from functools import wraps

from django.forms import Form
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect

from zesty.elements.refused import Refused

UNUSABLE = 422

View = Callable[..., HttpResponse]


def posts(back: Callable[..., str]) -> Callable[[View], View]:
    """A view that is posted to. Whoever opens its address again is led to the page that it belongs to."""

    def wrap(view: View) -> View:
        @wraps(view)
        def guarded(request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
            if request.method != "POST":
                return redirect(back(*args, **kwargs))
            return view(request, *args, **kwargs)

        return guarded

    return wrap


def carry_out(
    form: Form, action: Callable[..., object], *arguments: object, **named: object
) -> bool:
    """Run an action on a valid form; a refusal becomes an error of the form."""
    if not form.is_valid():
        return False
    try:
        action(*arguments, **named, **form.cleaned_data)
    except Refused as refused:
        form.add_error(refused.field if refused.field in form.fields else None, refused.sentence)
        return False
    return True


def after(
    request: HttpRequest, done: bool, page: Callable[[], HttpResponse], to: str
) -> HttpResponse:
    """Done: on to `to` (htmx gets the page at once). Not done: the same page, with the errors."""
    if done and request.htmx:
        answer = page()
        answer["HX-Push-Url"] = to
        return answer
    if done:
        return redirect(to)
    answer = page()
    answer.status_code = UNUSABLE
    return answer
