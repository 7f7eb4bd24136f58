"""Who is signed in, with the workshop and role, in one query: every page asks for all of it."""

from django.contrib.auth.backends import ModelBackend

from zesty.people.models import User


class MemberBackend(ModelBackend):
    """Django's own sign-in; the account is read together with its membership."""

    def get_user(self, user_id: int) -> User | None:
        """The account of a session, or None where it is gone or shut."""
        found = User.objects.select_related("membership__workshop").filter(pk=user_id).first()
        return found if found and self.user_can_authenticate(found) else None
