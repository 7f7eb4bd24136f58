"""The names on imported work. A name is kept as it was; it gives nobody access."""

from django.utils.text import slugify

from zesty.people.models import User, Workshop


class Names:
    """Finds the account behind a name in one workshop, or makes one that cannot sign in."""

    def __init__(self, workshop: Workshop) -> None:
        self.workshop = workshop
        self._known: dict[str, User] = {}

    def __getitem__(self, name: str) -> User:
        if name not in self._known:
            self._known[name] = self._member(name) or self._stand_in(name)
        return self._known[name]

    def _member(self, name: str) -> User | None:
        return User.objects.filter(membership__workshop=self.workshop, username=name).first()

    def _stand_in(self, name: str) -> User:
        username = f"{slugify(name)[:80] or 'someone'}@{self.workshop.pk}"
        user, made = User.objects.get_or_create(
            username=username, defaults={"shown_name": name[:150], "is_active": False}
        )
        if made:
            user.set_unusable_password()
            user.save()
        return user
