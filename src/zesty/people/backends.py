"""Who is signed in, with the workshop and role, in one query: every page asks for all of it."""

from django.contrib.auth.backends import ModelBackend

from zesty.elements.prepared import Prepared
from zesty.people.models import User

_MEMBER: Prepared[User] = Prepared(
    lambda user: User.objects.filter(pk=user).select_related("membership__workshop"), "user"
)


class MemberBackend(ModelBackend):
    """Django's own sign-in; the account is read together with its membership."""

    def get_user(self, user_id: int) -> User | None:
        """The account of a session, or None where it is gone or shut."""
        found = _MEMBER.first(user=user_id)
        return found if found and self.user_can_authenticate(found) else None
