"""Spec cards: what a wheel end is made of, what it must be set to, and who says so."""

from functools import cached_property

from django.db import models
from django.db.models import Q
from django.utils import timezone

from wheelend.card import Card, card_from
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop


class SpecCard(models.Model):
    """A card keeps its name; what it says is in its versions."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    name = models.CharField(max_length=80)
    arrangement = models.CharField(max_length=40)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="card_name_once")]

    def __str__(self) -> str:
        return self.name


class CardVersion(models.Model):
    """One state of a card: the document in the open format. Never changed: an edit is the next one.

    `reasons` maps what differs from the version before to why.
    """

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    card = models.ForeignKey(SpecCard, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    reasons = models.JSONField(default=dict)
    made_by = models.ForeignKey(User, on_delete=models.PROTECT)
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["card", "number"], name="card_version_once"),
            models.CheckConstraint(condition=Q(number__gte=1), name="versions_count_from_one"),
        ]

    def __str__(self) -> str:
        return f"{self.card} v{self.number}"

    @cached_property
    def says(self) -> Card:
        """The document as the core works with it."""
        return card_from(self.document)


class CardDraft(models.Model):
    """A card that somebody is changing: kept as it is typed, a field at a time."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    card = models.ForeignKey(SpecCard, on_delete=models.CASCADE, null=True)
    follows = models.PositiveIntegerField(default=0)
    document = models.JSONField()
    reasons = models.JSONField(default=dict)
    by = models.ForeignKey(User, on_delete=models.CASCADE)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["card", "by"], name="one_draft_a_person_and_card"),
        ]

    def __str__(self) -> str:
        return f"draft of {self.document.get('name')}"


class Fitment(models.Model):
    """Which card a wheel end is serviced by."""

    wheel_end = models.OneToOneField(WheelEnd, on_delete=models.CASCADE)
    card = models.ForeignKey(SpecCard, on_delete=models.CASCADE)

    def __str__(self) -> str:
        return f"{self.wheel_end}: {self.card}"
