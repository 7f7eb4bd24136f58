"""Verbs that change accounts and workshops."""

from django.db import transaction

from zesty.elements.refused import Refused
from zesty.people.models import Membership, Role, User, Workshop


def demo_user(account: str) -> User:
    """A demo account by its name; refused for any account that is not the demo's."""
    member = (
        Membership.objects.select_related("user")
        .filter(workshop__is_demo=True, user__username=account)
        .first()
    )
    if member is None:
        raise Refused("There is no such demo account here.")
    return member.user


def is_first_run() -> bool:
    """Whether nobody has an account yet."""
    return not User.objects.exists()


@transaction.atomic
def open_workshop(name: str, username: str, password: str) -> User:
    """The first workshop with its owner, on an empty installation only."""
    if not is_first_run():
        raise Refused("This installation has accounts already; sign in.")
    workshop = Workshop.objects.create(name=name)
    user = User.objects.create_user(username, password=password)
    Membership.objects.create(user=user, workshop=workshop, role=Role.OWNER)
    return user


def lead_with(member: Membership, *, leads: str) -> None:
    """Choose which units stand first for this member."""
    member.leads = leads
    member.save(update_fields=["leads"])
