"""The product's settings, with quick passwords and a template variable that is missing as an error."""

import os

os.environ.setdefault("ZESTY_SECRET_KEY", "for tests only")
os.environ["ZESTY_OWN_DATABASE"] = (
    "yes"  # the test database is made by the tests, whatever server it is on
)
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")  # Playwright keeps a loop in the thread

from zesty.settings import *  # noqa: F403
from zesty.settings import STORAGES, TEMPLATES


class Missing(str):
    """What a template variable that does not exist turns into: a failure."""

    __slots__ = ()

    def __mod__(self, name: object) -> str:
        raise AssertionError(f"The template asks for {name}, which is not there.")

    def __contains__(self, _: object) -> bool:
        return True


PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
STORAGES = {
    **STORAGES,
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
TEMPLATES[0]["OPTIONS"]["string_if_invalid"] = Missing("%s")
WHITENOISE_AUTOREFRESH = True
