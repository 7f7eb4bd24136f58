"""Verbs that change accounts and workshops."""

import hashlib
import secrets
from datetime import timedelta

from django.db import IntegrityError, connection, transaction
from django.utils import timezone

from zesty.elements.refused import Refused
from zesty.people.models import Invitation, Membership, Role, User, Workshop

INVITED_FOR = timedelta(days=7)
_ONE_AT_A_TIME = 52_610


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
    """The first workshop with its owner, on an empty installation only, once."""
    with connection.cursor() as cursor:
        # There is no row yet that two first owners could wait for.
        cursor.execute("SELECT pg_advisory_xact_lock(%s)", [_ONE_AT_A_TIME])
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


@transaction.atomic
def invite(owner: Membership, *, role: str, member_id: int | None = None) -> str:
    """A link's secret: for a new account in a role, or a new password for a member."""
    word = secrets.token_urlsafe(24)
    member = _member(owner, member_id) if member_id else None
    Invitation.objects.create(
        workshop=owner.workshop, digest=_digest(word), made_by=owner.user,
        role=member.role if member else role, user=member.user if member else None,
    )  # fmt: skip
    return word


def invitation(word: str) -> Invitation:
    """The invitation of a link. Refused where it was used, is old or never was."""
    found = Invitation.objects.select_related("workshop", "user").filter(digest=_digest(word))
    one = found.filter(used_at=None, made_at__gt=timezone.now() - INVITED_FOR).first()
    if one is None:
        raise Refused("This link was used, or is older than a week. Ask the owner for another one.")
    return one


@transaction.atomic
def accept(word: str, *, username: str, password: str) -> User:
    """Open the account that a link is for, or give it its new password."""
    # One link opens one account, however often it is sent at the same moment.
    locked = Invitation.objects.select_for_update().filter(digest=_digest(word)).first()
    one = invitation(word)
    if locked is not None:
        Invitation.objects.filter(pk=one.pk).update(used_at=timezone.now())
    if one.user is not None:
        new_password(one.user, password)
        return one.user
    try:
        with transaction.atomic():
            user = User.objects.create_user(username, password=password)
    except IntegrityError:
        raise Refused(f"“{username}” is taken; give another name.", "username") from None
    Membership.objects.create(user=user, workshop=one.workshop, role=one.role)
    return user


def new_password(user: User, password: str) -> None:
    """Another password for an account; its sessions elsewhere end with the old one."""
    user.set_password(password)
    user.save(update_fields=["password"])


@transaction.atomic
def change_role(owner: Membership, *, member_id: int, role: str) -> None:
    """Give a member another role; a workshop keeps an owner."""
    member = _member(owner, member_id)
    if member.role == Role.OWNER and role != Role.OWNER:
        _keep_an_owner(member)
    member.role = role
    member.save(update_fields=["role"])


@transaction.atomic
def remove(owner: Membership, *, member_id: int) -> None:
    """Take a member's account away; what they wrote stays, under their name."""
    member = _member(owner, member_id)
    if member.role == Role.OWNER:
        _keep_an_owner(member)
    User.objects.filter(pk=member.user_id).update(is_active=False)
    member.delete()


def _member(owner: Membership, member_id: int) -> Membership:
    """A member of the owner's workshop; all of them are held, so that an owner stays."""
    members = Membership.objects.select_for_update(of=("self",)).select_related("user")
    here = members.filter(workshop=owner.workshop).order_by("pk")
    found = next((one for one in here if one.pk == member_id), None)
    if found is None:
        raise Refused("That member is no longer here; reload the page.")
    return found


def _keep_an_owner(member: Membership) -> None:
    others = Membership.objects.filter(workshop=member.workshop, role=Role.OWNER)
    if not others.exclude(pk=member.pk).exists():
        raise Refused("A workshop keeps an owner: make another member owner first.")


def _digest(word: str) -> str:
    return hashlib.sha256(word.encode("utf-8", "surrogatepass")).hexdigest()
