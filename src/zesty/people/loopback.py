"""Whether a request comes from this very machine: only there may a sign-in go without a password."""

from ipaddress import ip_address

from django.conf import settings
from django.http import HttpRequest

_PASSED_ON = ("HTTP_X_FORWARDED_FOR", "HTTP_FORWARDED", "HTTP_X_REAL_IP", "HTTP_VIA")


def demo_is_open(request: HttpRequest) -> bool:
    """Whether the demo's sign-ins are there for this request."""
    return settings.OWN_DATABASE and from_loopback(request)


def from_loopback(request: HttpRequest) -> bool:
    """Whether nobody stands between this machine and the request; a proxy may speak for anybody."""
    if any(name in request.META for name in _PASSED_ON):
        return False
    try:
        return ip_address(request.META.get("REMOTE_ADDR", "")).is_loopback
    except ValueError:
        return False
