"""The shim tray and the instruments."""

from datetime import date
from decimal import Decimal

from django.db import models
from django.db.models import F, Q
from django.utils import timezone

from wheelend.arrangements.vocabulary import THICKENERS
from zesty.elements.typed import mm_column, text_column
from zesty.people.models import User, Workshop


class Shim(models.Model):
    """Loose shims of one thickness: what is marked on them, what they measured, how many."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    nominal = text_column()
    nominal_mm = mm_column()
    measured = text_column(blank=True)
    measured_mm = mm_column(null=True, blank=True)
    count = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["nominal_mm", "measured_mm"]
        constraints = [
            models.UniqueConstraint(
                fields=["workshop", "nominal_mm", "measured_mm"],
                nulls_distinct=False,
                name="thickness_once",
            ),
            models.CheckConstraint(
                condition=Q(nominal_mm__gt=0, nominal_mm__lte=20), name="shim_has_thickness"
            ),
            models.CheckConstraint(
                condition=Q(measured_mm__isnull=True) | Q(measured_mm__gt=0, measured_mm__lte=20),
                name="measured_has_thickness",
            ),
            models.CheckConstraint(condition=Q(count__lte=999), name="a_tray_holds_999_of_one"),
        ]

    def __str__(self) -> str:
        return self.nominal

    @property
    def thickness_mm(self) -> Decimal:
        """What counts in a pack: measured, where it was measured."""
        return self.nominal_mm if self.measured_mm is None else self.measured_mm

    @property
    def thickness(self) -> str:
        """The same as typed."""
        return self.measured or self.nominal


class InstrumentKind(models.TextChoices):
    """What an instrument measures."""

    DIAL = "dial", "dial gauge"
    WRENCH = "wrench", "torque wrench"
    TORQUE_METER = "torque_meter", "torque meter"
    THERMOMETER = "thermometer", "thermometer"
    SCALE = "scale", "scale"
    FEELER = "feeler", "feeler gauge"


class Instrument(models.Model):
    """One instrument: its step and range in its kind's unit (mm, N·m, degC, N), what it may be off."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    kind = models.CharField(max_length=12, choices=InstrumentKind.choices)
    name = models.CharField(max_length=60)
    resolution = text_column(blank=True)
    resolution_value = mm_column(null=True)
    low = text_column(blank=True)
    low_value = models.DecimalField(max_digits=14, decimal_places=6, null=True)
    high = text_column(blank=True)
    high_value = models.DecimalField(max_digits=14, decimal_places=6, null=True)
    accuracy_percent = models.DecimalField(max_digits=4, decimal_places=1, null=True)
    multiplier = models.DecimalField(max_digits=6, decimal_places=2, default=1)
    cycles = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["kind", "name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="instrument_name_once"),
            models.CheckConstraint(
                condition=Q(kind__in=InstrumentKind.values), name="instrument_kind_known"
            ),
            models.CheckConstraint(
                condition=~Q(kind="dial") | Q(resolution_value__gt=0), name="a_dial_has_a_step"
            ),
            models.CheckConstraint(
                condition=~Q(kind="wrench") | Q(low_value__lte=F("high_value")),
                name="a_wrench_has_a_range",
            ),
            models.CheckConstraint(condition=Q(multiplier__gte=1), name="multiplier_multiplies"),
        ]

    def __str__(self) -> str:
        return self.name


class Calibration(models.Model):
    """A calibration: when, by which certificate, and the doubt that it leaves (k = 2). Only added to.

    What a technician reports counts once a lead has confirmed it. The one written last rules; one
    that goes back before it says why.
    """

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    instrument = models.ForeignKey(
        Instrument, on_delete=models.CASCADE, related_name="calibrations"
    )
    on = models.DateField()
    certificate = models.CharField(max_length=60, blank=True)
    doubt = text_column(blank=True)
    doubt_value = mm_column(null=True)
    reason = models.CharField(max_length=200, blank=True)
    reported = models.BooleanField(default=False)
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["-id"]
        constraints = [
            models.CheckConstraint(
                condition=Q(doubt_value__isnull=True) | Q(doubt_value__gte=0),
                name="doubt_not_negative",
            ),
            models.CheckConstraint(
                condition=Q(on__gte=date(1970, 1, 1), on__lt=date(2200, 1, 1)),
                name="calibrated_in_our_times",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.instrument}, {self.on:%d %b %Y}"


class Confirmation(models.Model):
    """A lead saw the papers of a calibration that was reported. Only added to."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    calibration = models.OneToOneField(
        Calibration, on_delete=models.CASCADE, related_name="confirmation"
    )
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    def __str__(self) -> str:
        return f"{self.calibration}, seen by {self.by}"


class EquipmentKind(models.TextChoices):
    """What presses, warms, chills, or gives grease by the stroke."""

    PRESS = "press", "press"
    OVEN = "oven", "oven"
    HOT_PLATE = "hot_plate", "hot plate"
    FREEZER = "freezer", "freezer"
    GREASE_GUN = "grease_gun", "grease gun or syringe"


class Equipment(models.Model):
    """One of the shed's machines, with the figure that limits it: N, °C, or g a stroke, as typed too."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    kind = models.CharField(max_length=12, choices=EquipmentKind.choices)
    name = models.CharField(max_length=60)
    figure = text_column()
    value = models.DecimalField(max_digits=14, decimal_places=3)

    class Meta:
        ordering = ["kind", "name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="equipment_name_once"),
            models.CheckConstraint(
                condition=Q(kind__in=EquipmentKind.values), name="equipment_kind_known"
            ),
            models.CheckConstraint(
                condition=Q(kind__in=["oven", "hot_plate", "freezer"]) | Q(value__gt=0),
                name="equipment_has_a_figure",
            ),
        ]

    def __str__(self) -> str:
        return self.name


class LubricantKind(models.TextChoices):
    """Grease or oil."""

    GREASE = "grease", "grease"
    OIL = "oil", "oil"


class Lubricant(models.Model):
    """A grease or an oil on the shelf: what it is, since when it is open, what is left of it."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    kind = models.CharField(max_length=6, choices=LubricantKind.choices)
    name = models.CharField(max_length=60)
    thickener = models.CharField(max_length=20, blank=True)
    grade = models.CharField(max_length=40, blank=True)
    density = text_column(blank=True)
    opened_on = models.DateField(null=True)
    left = text_column(blank=True)

    class Meta:
        ordering = ["kind", "name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="lubricant_name_once"),
            models.CheckConstraint(
                condition=Q(kind__in=LubricantKind.values), name="lubricant_kind_known"
            ),
            models.CheckConstraint(
                condition=Q(thickener__in=["", *THICKENERS]), name="thickener_known"
            ),
        ]

    def __str__(self) -> str:
        return self.name
