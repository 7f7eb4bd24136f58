"""Spec cards: what a wheel end is made of, what it must be set to, and who says so."""

from django.db import models
from django.db.models import F, Q
from django.utils import timezone

from zesty.elements.typed import mm_column, text_column, torque_column
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


class SourceKind(models.TextChoices):
    """Whose word the settings are."""

    VEHICLE = "vehicle", "vehicle maker's procedure"
    HUB = "hub", "hub or axle maker's sheet"
    KIT = "kit", "kit sheet"
    UNSOURCED = "unsourced", "unsourced"


class CardVersion(models.Model):
    """One state of a card. Never changed: an edit is the next version."""

    card = models.ForeignKey(SpecCard, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    effect = models.CharField(max_length=6, choices=[("opens", "opens"), ("closes", "closes")])
    low = text_column()
    low_mm = mm_column()
    high = text_column()
    high_mm = mm_column()
    aim = models.CharField(max_length=40, default="middle")
    nut_torque = text_column()
    nut_torque_N_m = torque_column()
    lock = models.CharField(max_length=60)
    pitch = text_column(blank=True)
    slots = models.PositiveSmallIntegerField(null=True)
    openings = models.PositiveSmallIntegerField(null=True)
    positions = models.PositiveSmallIntegerField(null=True)
    flip = models.BooleanField(default=False)
    lock_policy = models.CharField(max_length=20, default="advance_only")
    torque_low = text_column(blank=True)
    torque_high = text_column(blank=True)
    torque_per_deg = text_column(blank=True)
    bolts = models.PositiveSmallIntegerField(null=True)
    bolt_torque = text_column(blank=True)
    balance = models.CharField(
        max_length=8, choices=[("even", "even"), ("as_found", "as found")], default="even"
    )
    trial_method = models.CharField(
        max_length=10,
        choices=[("from_pack", "from the pack found"), ("over_shim", "open, and come down")],
        default="from_pack",
    )
    hands_radius = text_column(blank=True)
    spread = text_column(blank=True)
    contact_angle = text_column(blank=True)
    clocks = models.CharField(max_length=40, default="12, 4, 8")
    max_shims = models.PositiveSmallIntegerField(default=8)
    second_person = models.BooleanField(default=False)
    source_kind = models.CharField(max_length=10, choices=SourceKind.choices)
    source = models.CharField(max_length=200, blank=True)
    note = models.CharField(max_length=400, blank=True)
    made_by = models.ForeignKey(User, on_delete=models.PROTECT)
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["card", "number"], name="card_version_once"),
            models.CheckConstraint(condition=Q(low_mm__lte=F("high_mm")), name="limits_in_order"),
            models.CheckConstraint(condition=Q(nut_torque_N_m__gt=0), name="torque_above_zero"),
            models.CheckConstraint(condition=Q(max_shims__range=(1, 50)), name="shims_1_to_50"),
            models.CheckConstraint(
                condition=Q(slots=None) | Q(positions=None), name="slots_or_positions"
            ),
            models.CheckConstraint(
                condition=Q(source_kind="unsourced") | ~Q(source=""), name="a_source_is_named"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.card} v{self.number}"

    @property
    def unsourced(self) -> bool:
        """Whether nobody stands behind the settings."""
        return self.source_kind == SourceKind.UNSOURCED


class StackPart(models.Model):
    """One part on the shaft, in order from inboard."""

    version = models.ForeignKey(CardVersion, on_delete=models.CASCADE, related_name="stack")
    order = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=20)
    name = models.CharField(max_length=60)
    width = text_column(blank=True)
    width_mm = mm_column(null=True)
    bore = text_column(blank=True)
    bore_mm = mm_column(null=True)
    outside = text_column(blank=True)
    outside_mm = mm_column(null=True)
    way_round = models.CharField(max_length=60, blank=True)
    counts = models.BooleanField(default=True)

    class Meta:
        ordering = ["order"]
        constraints = [
            models.UniqueConstraint(fields=["version", "order"], name="stack_place_once"),
        ]

    def __str__(self) -> str:
        return self.name


class Fitment(models.Model):
    """Which card a wheel end is serviced by."""

    wheel_end = models.OneToOneField(WheelEnd, on_delete=models.CASCADE)
    card = models.ForeignKey(SpecCard, on_delete=models.CASCADE)

    def __str__(self) -> str:
        return f"{self.wheel_end}: {self.card}"
