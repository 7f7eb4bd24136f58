"""The shim tray and the gauges."""

from decimal import Decimal

from django.db import models
from django.db.models import Q

from zesty.elements.typed import mm_column, text_column, torque_column
from zesty.people.models import Workshop


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
            models.CheckConstraint(condition=Q(nominal_mm__gt=0), name="shim_has_thickness"),
            models.CheckConstraint(
                condition=Q(measured_mm__isnull=True) | Q(measured_mm__gt=0),
                name="measured_has_thickness",
            ),
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


class Gauge(models.Model):
    """A dial gauge: its step, and what its certificate leaves open (k = 2)."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    resolution = text_column()
    resolution_mm = mm_column()
    calibration = text_column(blank=True)
    calibration_mm = mm_column(default=0)

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="gauge_name_once"),
            models.CheckConstraint(condition=Q(resolution_mm__gt=0), name="gauge_has_a_step"),
            models.CheckConstraint(
                condition=Q(calibration_mm__gte=0), name="calibration_not_negative"
            ),
        ]

    def __str__(self) -> str:
        return self.name


class Wrench(models.Model):
    """A torque wrench: its range, what it may be off, when it was calibrated."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    low = text_column()
    low_N_m = torque_column()
    high = text_column()
    high_N_m = torque_column()
    accuracy_percent = models.DecimalField(max_digits=4, decimal_places=1, default=4)
    calibrated_on = models.DateField()
    cycles = models.PositiveIntegerField(default=0)
    multiplier = models.DecimalField(max_digits=6, decimal_places=2, default=1)

    class Meta:
        ordering = ["high_N_m", "name"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "name"], name="wrench_name_once"),
            models.CheckConstraint(
                condition=Q(low_N_m__lte=models.F("high_N_m")), name="wrench_range_in_order"
            ),
            models.CheckConstraint(condition=Q(multiplier__gte=1), name="multiplier_multiplies"),
        ]

    def __str__(self) -> str:
        return self.name
