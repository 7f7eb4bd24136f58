"""Sign-offs: who closed a job, on which facts. The sheet prints from them for ever."""

from django.db import models

from zesty.bench.models import Job
from zesty.people.models import User


class Statement(models.TextChoices):
    """What a sheet says over all."""

    PROVEN = "proven", "proven"
    SET = "set", "set, not proven"
    UNSOURCED = "unsourced", "unsourced"


class SignOff(models.Model):
    """Who closed the job; `facts` and `sheet_html` stay as they were, with the core's version."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="sign_offs")
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    role = models.CharField(max_length=10)
    at = models.DateTimeField()
    core_version = models.CharField(max_length=20)
    statement = models.CharField(max_length=10, choices=Statement.choices)
    facts = models.JSONField()
    sheet_html = models.TextField()

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(statement__in=Statement.values), name="statement_is_known"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.get_statement_display()} by {self.by}"


class SecondCheck(models.Model):
    """A second person looked at the setting; the latest counts, if nothing was done since."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="second_checks")
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    role = models.CharField(max_length=10)
    at = models.DateTimeField()

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return f"checked by {self.by}"


class Reopening(models.Model):
    """A signed job was opened again, and why; the old sheet stays."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="reopenings")
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField()
    reason = models.CharField(max_length=200)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(
                condition=~models.Q(reason=""), name="a_job_reopens_for_a_reason"
            ),
        ]

    def __str__(self) -> str:
        return f"reopened: {self.reason}"
