"""Sign-offs: who closed a job, on which facts. The sheet prints from them for ever."""

from django.db import models
from django.db.models import Q

from zesty.bench.models import Job, in_our_times
from zesty.fleet.models import WheelEnd
from zesty.people.models import User, Workshop


class Statement(models.TextChoices):
    """What a sheet says over all."""

    PROVEN = "proven", "proven"
    SET = "set", "set, not proven"
    BY_HAND = "by_hand", "set by hand, not proven"
    UNSOURCED = "unsourced", "unsourced"
    NOT_SET = "not_set", "not set"


WEAKEST_FIRST = ("not_set", "unsourced", "by_hand", "set", "proven")
"""One sign-off covers all units: it says what the weakest of them may."""


class SignOff(models.Model):
    """Who closed the job; `facts` and `sheet_html` stay as they were, with the core's version.

    `saw` is the digest of what it was made on.
    """

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="sign_offs")
    number = models.PositiveSmallIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    by_name = models.CharField(max_length=150)
    role = models.CharField(max_length=10)
    at = models.DateTimeField()
    core_version = models.CharField(max_length=20)
    statement = models.CharField(max_length=10, choices=Statement.choices)
    reason = models.CharField(max_length=200, blank=True)
    saw = models.CharField(max_length=64, blank=True)
    facts = models.JSONField()
    sheet_html = models.TextField()
    elsewhere = models.BooleanField(default=False)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["job", "number"], name="sign_off_once"),
            models.CheckConstraint(condition=in_our_times("at"), name="signed_in_our_times"),
            models.CheckConstraint(
                condition=Q(statement__in=Statement.values), name="statement_is_known"
            ),
            models.CheckConstraint(
                condition=~Q(statement="not_set") | ~Q(reason=""), name="not_set_for_a_reason"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.get_statement_display()} by {self.by_name}"


class Recheck(models.Model):
    """A look after first use, planned at sign-off: due by its day, or by the vehicle's counter.

    `done_by` is the job that did it, or a later service that made it needless.
    """

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    sign_off = models.ForeignKey(SignOff, on_delete=models.CASCADE, related_name="rechecks")
    wheel_end = models.ForeignKey(WheelEnd, on_delete=models.CASCADE, related_name="rechecks")
    planned_on = models.DateField()
    usage = models.CharField(max_length=40, blank=True)
    every_days = models.PositiveSmallIntegerField()
    every_usage = models.CharField(max_length=40, blank=True)
    done_by = models.ForeignKey(Job, on_delete=models.SET_NULL, null=True, related_name="rechecked")
    done_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["planned_on", "pk"]
        constraints = [
            models.UniqueConstraint(fields=["sign_off", "wheel_end"], name="recheck_once"),
            models.CheckConstraint(condition=Q(every_days__gte=1), name="recheck_in_days"),
        ]
        indexes = [models.Index(fields=["workshop", "done_at"], name="rechecks_open")]

    def __str__(self) -> str:
        return f"recheck of {self.wheel_end}"


class SheetPdf(models.Model):
    """A signed sheet as it was first printed: made once, then kept."""

    sign_off = models.OneToOneField(SignOff, on_delete=models.CASCADE, related_name="pdf")
    content = models.BinaryField()

    def __str__(self) -> str:
        return f"sheet of {self.sign_off}"
