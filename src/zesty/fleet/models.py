"""Vehicles, their wheel ends, and how far they have gone."""

from django.db import models
from django.db.models import Q
from django.utils import timezone

from zesty.people.models import User, Workshop


class Kind(models.TextChoices):
    """What a vehicle is, and so how it is drawn from above."""

    CAR = "car", "car"
    TRAILER = "trailer", "trailer"
    VAN = "van", "van"
    TRUCK = "truck", "truck"
    SPRAYER = "sprayer", "sprayer trailer"
    LOWLOADER = "lowloader", "low-loader"
    QUAD = "quad", "utility quad"
    MOWER = "mower", "mower with a deck"
    TRACTOR = "tractor", "tractor"
    MOTORCYCLE = "motorcycle", "motorcycle"
    RACE_CAR = "race_car", "race car"


DRAWN = frozenset({Kind.TRAILER, Kind.SPRAYER, Kind.LOWLOADER})
"""What is drawn along: none of its axles steers or is driven."""

_TRAITS = {Kind.TRACTOR: "pivoting_axle", Kind.MOTORCYCLE: "motorcycle"}

DECK = 0
"""The axle number of a mower's deck: its spindles are counted from the left."""


class Vehicle(models.Model):
    """One vehicle of the fleet."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=12, choices=Kind.choices)
    air_braked = models.BooleanField(default=False)
    electric_parking = models.BooleanField(default=False)
    air_springs = models.BooleanField(default=False)
    plate = models.CharField(max_length=20, blank=True)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="vehicle_name_once"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def traits(self) -> tuple[str, ...]:
        """What of it changes how it is made safe."""
        said = ("air_braked", "electric_parking", "air_springs")
        own = [_TRAITS[Kind(self.kind)]] if self.kind in _TRAITS else []
        return (*(one for one in said if getattr(self, one)), *own)


class Side(models.TextChoices):
    """Which side, as the driver sits; a motorcycle's wheels stand in the centre, as a deck's middle does."""

    LEFT = "left", "left"
    CENTRE = "centre", "centre"
    RIGHT = "right", "right"


class WheelEnd(models.Model):
    """One wheel position, or one spindle of a mower's deck: axles counted from the front."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    vehicle = models.ForeignKey(Vehicle, on_delete=models.CASCADE, related_name="wheel_ends")
    axle = models.PositiveSmallIntegerField()
    side = models.CharField(max_length=6, choices=Side.choices)

    class Meta:
        ordering = ["axle", "side"]
        constraints = [
            models.UniqueConstraint(fields=["vehicle", "axle", "side"], name="wheel_end_once"),
            models.CheckConstraint(condition=Q(side__in=Side.values), name="side_is_known"),
        ]

    def __str__(self) -> str:
        if self.on_deck:
            return f"deck {self.side}"
        return f"axle {self.axle}" if self.side == Side.CENTRE else f"axle {self.axle} {self.side}"

    @property
    def on_deck(self) -> bool:
        """Whether it is a spindle of a mower's deck."""
        return self.axle == DECK

    @property
    def short(self) -> str:
        """As it stands on a drawing: 2L, a deck's DR, a motorcycle's 2."""
        letter = "" if self.side == Side.CENTRE and not self.on_deck else self.side[0].upper()
        return f"{'D' if self.on_deck else self.axle}{letter}"

    def axle_of(self, *, driven: str) -> str:
        """What kind of axle it is, as far as vehicle and card tell; empty where they don't."""
        if self.on_deck:
            return "deck"
        kind = Kind(self.vehicle.kind)
        if kind in DRAWN:
            return "plain"
        if self.axle == 1:
            return "steered_driven" if driven == "yes" else "steered"
        return {"yes": "driven", "no": "plain"}.get(driven, "")


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


class LifePart(models.Model):
    """A part with a limited life, by its serial number; it takes its usage with it."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    serial = models.CharField(max_length=40)
    name = models.CharField(max_length=60)
    unit = models.CharField(max_length=2)
    limit = models.DecimalField(max_digits=14, decimal_places=3, null=True)
    check_every = models.DecimalField(max_digits=14, decimal_places=3, null=True)

    class Meta:
        ordering = ["name", "serial"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "serial"], name="a_serial_once"),
            models.CheckConstraint(condition=Q(unit__in=["km", "mi", "h"]), name="life_unit_known"),
            models.CheckConstraint(
                condition=(Q(limit__isnull=True) | Q(limit__gt=0))
                & (Q(check_every__isnull=True) | Q(check_every__gt=0)),
                name="a_life_is_above_nothing",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.name} {self.serial}"


class LifeEvent(models.Model):
    """A life-limited part was fitted, taken off or checked for cracks, at a counter; only added to."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    part = models.ForeignKey(LifePart, on_delete=models.CASCADE, related_name="events")
    kind = models.CharField(max_length=7)
    wheel_end = models.ForeignKey(WheelEnd, on_delete=models.PROTECT, null=True)
    typed = models.CharField(max_length=40)
    counter = models.DecimalField(max_digits=14, decimal_places=3)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(
                condition=Q(kind__in=["fitted", "off", "checked"]), name="life_event_known"
            ),
            models.CheckConstraint(condition=Q(counter__gte=0), name="life_counter_not_negative"),
        ]

    def __str__(self) -> str:
        return f"{self.part} {self.kind} at {self.typed}"
