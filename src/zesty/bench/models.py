"""Jobs and everything written down in them. Rows here are added, never changed or removed."""

import uuid

from django.db import models
from django.db.models import Q
from django.utils import timezone

from zesty.cards.models import CardVersion
from zesty.elements.typed import mm_column, text_column, torque_column
from zesty.fleet.models import UsageEntry, WheelEnd
from zesty.people.models import User, Workshop
from zesty.stores.models import Gauge, Wrench


class Job(models.Model):
    """Work on one wheel end, pinned to the card version it began with."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    number = models.PositiveIntegerField()
    wheel_end = models.ForeignKey(WheelEnd, on_delete=models.PROTECT, related_name="jobs")
    card_version = models.ForeignKey(CardVersion, on_delete=models.PROTECT)
    opened_by = models.ForeignKey(User, on_delete=models.PROTECT)
    opened_at = models.DateTimeField(default=timezone.now)
    closed_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "number"], name="job_number_once"),
            models.UniqueConstraint(
                fields=["wheel_end"], condition=Q(closed_at=None), name="one_open_job_a_wheel_end"
            ),
        ]

    def __str__(self) -> str:
        return f"job {self.number}"


class TakeIn(models.Model):
    """What the driver said and that it was made safe; the latest counts."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="take_ins")
    complaint = models.CharField(max_length=400)
    usage = models.ForeignKey(UsageEntry, on_delete=models.PROTECT, null=True)
    made_safe = models.BooleanField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return self.complaint


class ChoiceName(models.TextChoices):
    """What a job may choose otherwise than its card."""

    AIM = "aim", "aim"
    BALANCE = "balance", "two sides"
    TRIAL_METHOD = "trial_method", "trials"
    LOCK_POLICY = "lock_policy", "finding the lock place"


class ChoiceChange(models.Model):
    """A choice of the card that the job makes otherwise, and why; the latest of a name counts."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="choices")
    what = models.CharField(max_length=12, choices=ChoiceName.choices)
    value = models.CharField(max_length=40)
    reason = models.CharField(max_length=200)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(condition=~Q(reason=""), name="a_choice_has_a_reason"),
            models.CheckConstraint(condition=Q(what__in=ChoiceName.values), name="choice_is_known"),
        ]

    def __str__(self) -> str:
        return f"{self.get_what_display()}: {self.value.replace('_', ' ')}"


class DialPlace(models.TextChoices):
    """Where the dial stands; a face reading carries the face's wobble."""

    AXIS = "axis", "base on hub, tip on spindle end"
    SHAFT = "shaft", "base on a block, tip on shaft end"
    FACE = "face", "tip on one marked spot of the hub face"
    HANDS = "hands", "no dial: judged by hand"


class Trial(models.Model):
    """One pack under one dial set-up: zeroed once, torqued once, one series of readings."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="trials")
    number = models.PositiveSmallIntegerField()
    gauge = models.ForeignKey(Gauge, on_delete=models.PROTECT)
    dial_place = models.CharField(max_length=6, choices=DialPlace.choices)
    turned = models.BooleanField(default=False)
    nut_torque = text_column()
    nut_torque_N_m = torque_column()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4, unique=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["job", "number"], name="trial_number_once"),
            models.CheckConstraint(condition=Q(nut_torque_N_m__gt=0), name="trial_was_torqued"),
        ]

    def __str__(self) -> str:
        return f"trial {self.number}"


class TrialShim(models.Model):
    """One shim of a trial's pack, as typed."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="shims")
    side = models.CharField(
        max_length=5, choices=[("left", "left"), ("right", "right")], default="left"
    )
    typed = text_column()
    thickness_mm = mm_column()

    class Meta:
        ordering = ["-thickness_mm", "id"]
        constraints = [
            models.CheckConstraint(condition=Q(thickness_mm__gt=0), name="trial_shim_is_a_shim"),
        ]

    def __str__(self) -> str:
        return self.typed


class TrialMark(models.Model):
    """Whether a trial counts, and why not; the latest mark of a trial counts."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="marks")
    aside = models.BooleanField()
    reason = models.CharField(max_length=200)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(condition=~Q(reason=""), name="a_mark_has_a_reason"),
        ]

    def __str__(self) -> str:
        return f"{'set aside' if self.aside else 'counts again'}: {self.reason}"


class ReadingKind(models.TextChoices):
    """What a row says."""

    IN = "in", "push in"
    OUT = "out", "pull out"
    BOUND = "bound", "bound: too tight to read"
    NO_PLAY = "no_play", "free, but no play to read"
    WITHDRAWN = "withdrawn", "taken back"


class Reading(models.Model):
    """One reading, as typed and in mm. A correction is a new row that points at the old one."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="readings")
    kind = models.CharField(max_length=10, choices=ReadingKind.choices)
    clock = models.CharField(max_length=5, blank=True)
    typed = text_column(blank=True)
    value_mm = mm_column(null=True)
    corrects = models.OneToOneField(
        "self", on_delete=models.PROTECT, null=True, related_name="corrected_by"
    )
    reason = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4, unique=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                fields=["trial", "kind", "clock"],
                condition=Q(corrects=None),
                name="each_place_is_read_once",
            ),
            models.CheckConstraint(
                condition=Q(kind__in=["in", "out"], value_mm__isnull=False, typed__gt="")
                | Q(kind__in=["bound", "no_play", "withdrawn"], value_mm__isnull=True),
                name="a_reading_has_its_number",
            ),
            models.CheckConstraint(
                condition=Q(corrects=None) | ~Q(reason=""), name="a_correction_has_a_reason"
            ),
        ]

    def __str__(self) -> str:
        return self.typed or self.get_kind_display()


class SeatMove(models.Model):
    """How far the nut moved when it was torqued again: one row a repeat."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="seat_moves")
    typed = text_column()
    deg = models.DecimalField(max_digits=8, decimal_places=3)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4, unique=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(condition=Q(deg__gte=0), name="a_move_is_not_negative"),
        ]

    def __str__(self) -> str:
        return self.typed


class LockTry(models.Model):
    """The nut at its torque and the angle on to the next place; the latest counts."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="lock_tries")
    to_next = text_column()
    torque = text_column()
    torque_N_m = torque_column()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4, unique=True)

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return f"{self.to_next} to the next place at {self.torque}"


class BoltTick(models.Model):
    """One bolt drawn down in one pass of the star order."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="bolt_ticks")
    lap = models.PositiveSmallIntegerField()
    bolt = models.PositiveSmallIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["job", "lap", "bolt"], name="a_bolt_once_a_pass"),
        ]

    def __str__(self) -> str:
        return f"pass {self.lap}, bolt {self.bolt}"


class LockRecord(models.Model):
    """Torque reached at the lock place, and the lock; the latest counts."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="lock_records")
    torque = text_column()
    torque_N_m = torque_column()
    lock = models.CharField(max_length=60)
    done = models.BooleanField()
    wrench = models.ForeignKey(Wrench, on_delete=models.PROTECT, null=True)
    wrench_flags = models.JSONField(default=list)
    note = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4, unique=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.CheckConstraint(condition=Q(torque_N_m__gt=0), name="lock_was_torqued"),
        ]

    def __str__(self) -> str:
        return f"{self.torque}, {self.lock}"
