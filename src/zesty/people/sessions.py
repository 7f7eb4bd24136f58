"""Sessions are kept in the database, so that signing out ends one; every page asks for its own."""

from datetime import UTC, datetime

from django.contrib.sessions.backends.db import SessionStore as KeptInDatabase
from django.contrib.sessions.models import Session
from django.utils import timezone

from zesty.elements.prepared import Prepared

_LASTING: Prepared[Session] = Prepared(
    lambda key, now: Session.objects.filter(session_key=key, expire_date__gt=now),
    key="whichever",
    now=datetime(1990, 1, 1, tzinfo=UTC),
)


class SessionStore(KeptInDatabase):
    """Django's own, asked by a query that is put into SQL once."""

    def _get_session_from_db(self) -> Session | None:
        found = _LASTING.first(key=self.session_key, now=timezone.now())
        if found is None:
            self._session_key = None
        return found
