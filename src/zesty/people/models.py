"""Workshops, their members and what each may do."""

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.utils import timezone


class User(AbstractUser):
    """An account. What it may see hangs on its membership.

    `shown_name` is set where the name on a sheet is not the account's: on imported work.
    """

    shown_name = models.CharField(max_length=150, blank=True)

    def __str__(self) -> str:
        return self.shown_name or self.username


class Workshop(models.Model):
    """Everything belongs to one; nothing is seen across.

    A demo remembers what it was when it was loaded: `demo_digest` tells whether a person wrote in it.
    """

    name = models.CharField(max_length=80, unique=True)
    is_demo = models.BooleanField(default=False)
    demo_loaded_at = models.DateTimeField(null=True)
    demo_digest = models.CharField(max_length=32, blank=True)

    def __str__(self) -> str:
        return self.name


class Role(models.TextChoices):
    """What a member does in the workshop."""

    TECH = "tech", "technician"
    LEAD = "lead", "lead"
    DESK = "desk", "fleet desk"
    LEARNER = "learner", "learner"
    OWNER = "owner", "owner"


ROLE_MAY = {
    Role.TECH: "works at the bench",
    Role.LEAD: "also changes cards and checks",
    Role.DESK: "keeps the vehicles",
    Role.LEARNER: "reads",
    Role.OWNER: "also invites and takes away",
}

BENCH_ROLES = frozenset({Role.TECH, Role.LEAD, Role.OWNER})
"""Who may enter readings, fit packs and sign."""

CARD_ROLES = frozenset({Role.LEAD, Role.OWNER})
"""Who may change what is allowed: the spec cards."""

PEOPLE_ROLES = frozenset({Role.OWNER})
"""Who may invite, change a role, and take an account away."""

STORES_ROLES = frozenset({Role.TECH, Role.LEAD, Role.OWNER})
FLEET_ROLES = frozenset({Role.TECH, Role.LEAD, Role.DESK, Role.OWNER})


class Membership(models.Model):
    """One account in one workshop, in one role."""

    user = models.OneToOneField(User, on_delete=models.CASCADE)
    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    role = models.CharField(max_length=10, choices=Role.choices)
    leads = models.CharField(
        max_length=6, choices=[("metric", "mm, N·m"), ("inch", "thou, lbf·ft")], default="metric"
    )

    class Meta:
        constraints = [
            models.CheckConstraint(condition=models.Q(role__in=Role.values), name="role_is_known"),
        ]

    def __str__(self) -> str:
        return f"{self.user} · {self.get_role_display()}"

    @property
    def has_password(self) -> bool:
        """Whether it signs in with one; the demo's accounts do not."""
        return self.user.has_usable_password()

    def may(self, roles: frozenset[str]) -> bool:
        """Whether this member has one of some roles."""
        return self.role in roles


class Invitation(models.Model):
    """A link that opens one account, or gives one a new password; only its digest is kept."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    digest = models.CharField(max_length=64, unique=True)
    role = models.CharField(max_length=10, choices=Role.choices)
    user = models.ForeignKey(User, on_delete=models.CASCADE, null=True)
    made_by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="invitations_made")
    made_at = models.DateTimeField(default=timezone.now)
    used_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(role__in=Role.values), name="invited_role_is_known"
            ),
        ]

    def __str__(self) -> str:
        return f"invitation as {self.get_role_display()}"
