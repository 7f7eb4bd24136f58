"""Vehicles, their wheel ends, and how far they have gone."""

from django.db import models
from django.db.models import Q
from django.utils import timezone

from zesty.people.models import User, Workshop


class Kind(models.TextChoices):
    """What a vehicle is, and so how it is drawn from above."""

    TRAILER = "trailer", "trailer"
    VAN = "van", "van"
    TRUCK = "truck", "truck"
    SPRAYER = "sprayer", "sprayer trailer"
    LOWLOADER = "lowloader", "low-loader"
    QUAD = "quad", "utility quad"


class Vehicle(models.Model):
    """One vehicle of the fleet."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=12, choices=Kind.choices)
    air_braked = models.BooleanField(default=False)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="vehicle_name_once"),
        ]

    def __str__(self) -> str:
        return self.name


class Side(models.TextChoices):
    """Which side, as the driver sits."""

    LEFT = "left", "left"
    RIGHT = "right", "right"


class WheelEnd(models.Model):
    """One wheel position: axles counted from the front."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    vehicle = models.ForeignKey(Vehicle, on_delete=models.CASCADE, related_name="wheel_ends")
    axle = models.PositiveSmallIntegerField()
    side = models.CharField(max_length=5, choices=Side.choices)

    class Meta:
        ordering = ["axle", "side"]
        constraints = [
            models.UniqueConstraint(fields=["vehicle", "axle", "side"], name="wheel_end_once"),
            models.CheckConstraint(condition=Q(axle__gte=1), name="axles_count_from_one"),
            models.CheckConstraint(condition=Q(side__in=Side.values), name="side_is_known"),
        ]

    def __str__(self) -> str:
        return f"axle {self.axle} {self.side}"

    @property
    def short(self) -> str:
        """As it stands on a drawing: 2L."""
        return f"{self.axle}{self.side[0].upper()}"


class UsageEntry(models.Model):
    """How far a vehicle had gone on a day, as typed; the log is only added to."""

    vehicle = models.ForeignKey(Vehicle, on_delete=models.CASCADE, related_name="usage_log")
    on = models.DateField()
    typed = models.CharField(max_length=40)
    value = models.DecimalField(max_digits=14, decimal_places=3)
    unit = models.CharField(max_length=2)
    entered_by = models.ForeignKey(User, on_delete=models.PROTECT)
    entered_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-on", "-id"]
        constraints = [
            models.UniqueConstraint(
                fields=["vehicle", "on", "value", "unit"], name="a_counter_once_a_day"
            ),
            models.CheckConstraint(condition=Q(value__gte=0), name="usage_not_negative"),
            models.CheckConstraint(
                condition=Q(unit__in=["km", "mi", "h"]), name="usage_unit_known"
            ),
        ]

    def __str__(self) -> str:
        return self.typed
