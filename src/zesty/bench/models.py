"""Jobs, the wheel ends that they cover, and the log of everything that was written."""

import uuid
from datetime import UTC, datetime

from django.db import models
from django.db.models import Q
from django.utils import timezone

from wheelend.procedure.figures import MOST_CLOSINGS, MOST_ROUNDS, SHIM
from wheelend.procedure.log import ASPECTS, ENTRY_KINDS, NEEDS_REASON
from zesty.cards.models import CardVersion
from zesty.elements.rows import ReadOften
from zesty.elements.typed import mm_column, text_column
from zesty.fleet.models import Vehicle, WheelEnd
from zesty.people.models import User, Workshop
from zesty.stores.models import Instrument, Shim

MOST_VALUE = 10**9
"""No number at the bench is larger, in whatever unit it is kept."""

LONGEST_TIMER_S = 7 * 86_400

EARLIEST, LATEST = (datetime(year, 1, 1, tzinfo=UTC) for year in (1990, 2200))


def in_our_times(column: str) -> Q:
    """A time that a person can have meant."""
    return Q(**{f"{column}__gte": EARLIEST, f"{column}__lt": LATEST})


class Purpose(models.TextChoices):
    """What a job is for."""

    SERVICE = "service", "service"
    CHECK = "check", "check"
    RECHECK = "recheck", "recheck"


class State(models.TextChoices):
    """Where a job stands as a whole."""

    OPEN = "open", "open"
    SIGNED = "signed", "signed off"
    ABANDONED = "abandoned", "abandoned"


class Job(models.Model):
    """Work on one or more wheel ends of a vehicle: one intake, one close."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    number = models.PositiveIntegerField()
    vehicle = models.ForeignKey(Vehicle, on_delete=models.PROTECT, related_name="jobs")
    purpose = models.CharField(max_length=8, choices=Purpose.choices, default=Purpose.SERVICE)
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    state_reason = models.CharField(max_length=200, blank=True)
    opened_by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    opened_by_name = models.CharField(max_length=150)
    opened_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True)
    imported = models.BooleanField(default=False)
    token = models.UUIDField(default=uuid.uuid4)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["workshop", "number"], name="job_number_once"),
            models.UniqueConstraint(fields=["workshop", "token"], name="job_token_once"),
            models.CheckConstraint(condition=Q(purpose__in=Purpose.values), name="purpose_known"),
            models.CheckConstraint(condition=Q(state__in=State.values), name="job_state_known"),
            models.CheckConstraint(
                condition=~Q(state="abandoned") | ~Q(state_reason=""), name="abandoned_for_a_reason"
            ),
            models.CheckConstraint(
                condition=in_our_times("opened_at")
                & (Q(ended_at__isnull=True) | in_our_times("ended_at")),
                name="job_in_our_times",
            ),
        ]
        indexes = [models.Index(fields=["workshop", "state", "-number"], name="jobs_by_state")]

    def __str__(self) -> str:
        return f"job {self.number}"

    @property
    def is_open(self) -> bool:
        """Whether something can still be written in it."""
        return self.state == State.OPEN


class Unit(models.Model):
    """What is set as one: a wheel end, or both ends of an axle. It pins the card's version."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="units")
    order = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=40)
    card_version = models.ForeignKey(CardVersion, on_delete=models.PROTECT)

    class Meta:
        ordering = ["order"]
        constraints = [models.UniqueConstraint(fields=["job", "order"], name="unit_order_once")]

    def __str__(self) -> str:
        return self.name


class UnitPlace(models.Model):
    """Where a unit stands: a wheel end of the vehicle, and which of the unit's stations it is."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    unit = models.ForeignKey(Unit, on_delete=models.CASCADE, related_name="places")
    wheel_end = models.ForeignKey(WheelEnd, on_delete=models.PROTECT, related_name="unit_places")
    station = models.CharField(max_length=20)
    is_open = models.BooleanField(default=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                fields=["wheel_end"], condition=Q(is_open=True), name="one_open_job_a_wheel_end"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.unit}: {self.wheel_end}"


class Entry(ReadOften):
    """One row of the log: what was written, where it stands, by whom. Never changed or removed.

    `closing` counts the openings of its clamp that came before it. A correction is a new row that
    points at the old one. `facts` are the instrument's figures as they were.
    """

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="entries")
    unit = models.ForeignKey(Unit, on_delete=models.CASCADE, null=True, related_name="entries")
    clamp = models.CharField(max_length=20, blank=True)
    closing = models.PositiveSmallIntegerField(default=0)
    round = models.PositiveSmallIntegerField(default=1)
    step = models.CharField(max_length=30)
    station = models.CharField(max_length=20, blank=True)
    place = models.CharField(max_length=20, blank=True)
    aspect = models.CharField(max_length=6)
    kind = models.CharField(max_length=10)
    typed = models.CharField(max_length=400, blank=True)
    value = models.DecimalField(max_digits=20, decimal_places=6, null=True)
    instrument = models.ForeignKey(Instrument, on_delete=models.PROTECT, null=True)
    facts = models.JSONField(null=True)
    corrects = models.OneToOneField(
        "self", on_delete=models.PROTECT, null=True, related_name="corrected_by"
    )
    reason = models.CharField(max_length=200, blank=True)
    saw = models.CharField(max_length=64, blank=True)
    token = models.UUIDField(default=uuid.uuid4)
    digest = models.CharField(max_length=64)
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    by_name = models.CharField(max_length=150)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["job", "id"], name="entries_of_a_job")]
        constraints = [
            models.UniqueConstraint(fields=["job", "token"], name="entry_token_once_a_job"),
            models.UniqueConstraint(
                fields=["job", "unit", "clamp", "closing", "round", "step", "station", "place",
                        "aspect"],
                condition=Q(corrects=None),
                nulls_distinct=False,
                name="one_root_a_place",
            ),
            models.CheckConstraint(condition=Q(kind__in=ENTRY_KINDS), name="entry_kind_known"),
            models.CheckConstraint(condition=Q(aspect__in=ASPECTS), name="entry_aspect_known"),
            models.CheckConstraint(
                condition=Q(round__gte=1, round__lte=MOST_ROUNDS, closing__lte=MOST_CLOSINGS),
                name="entry_is_counted",
            ),
            models.CheckConstraint(condition=in_our_times("at"), name="entry_in_our_times"),
            models.CheckConstraint(
                condition=Q(value__isnull=True) | Q(value__gte=-MOST_VALUE, value__lte=MOST_VALUE),
                name="entry_has_a_size",
            ),
            models.CheckConstraint(
                condition=~Q(kind__in=["value", "in", "out"]) | Q(value__isnull=False, typed__gt=""),
                name="a_number_was_typed",
            ),
            models.CheckConstraint(
                condition=Q(corrects=None, kind__in=sorted(set(ENTRY_KINDS) - NEEDS_REASON))
                | ~Q(reason=""),
                name="an_exception_has_a_reason",
            ),
        ]  # fmt: skip

    def __str__(self) -> str:
        return self.typed or self.kind.replace("_", " ")

    @property
    def by_words(self) -> str:
        """Who wrote it; a name that came in with a document is only a name."""
        return self.by_name if self.by_id else f"{self.by_name}, from elsewhere"


class EntryShim(ReadOften):
    """One shim of a pack: as typed, what it counts as, and which of the tray's it is."""

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="shims")
    order = models.PositiveSmallIntegerField()
    typed = text_column()
    thickness_mm = mm_column()
    shim = models.ForeignKey(Shim, on_delete=models.PROTECT, null=True)

    class Meta:
        ordering = ["order"]
        constraints = [
            models.UniqueConstraint(fields=["entry", "order"], name="a_shim_once_in_a_pack"),
            models.CheckConstraint(
                condition=Q(thickness_mm__gt=0, thickness_mm__lte=SHIM.most),
                name="a_pack_holds_shims",
            ),
        ]

    def __str__(self) -> str:
        return self.typed


class Photo(models.Model):
    """A photograph that belongs to a row of the log; kept in the database, so that one backup holds all."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    entry = models.OneToOneField(Entry, on_delete=models.CASCADE, related_name="photo")
    large = models.BinaryField()
    small = models.BinaryField()
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()

    class Meta:
        ordering = ["id"]

    def __str__(self) -> str:
        return f"photo of {self.entry}"


class TimerKind(models.TextChoices):
    """What is waited for."""

    FREEZER = "freezer", "In the freezer"
    OVEN = "oven", "In the oven"
    COOLING = "cooling", "Drop it in within"
    SEALANT = "sealant", "Sealant stays open"
    CURE = "cure", "Sealant cures"
    SETTLING = "settling", "Oil settles"


class Timer(models.Model):
    """A wait that belongs to a job. It runs on the server's clock, from the row's own time."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="timers")
    unit = models.ForeignKey(Unit, on_delete=models.CASCADE, related_name="+")
    kind = models.CharField(max_length=10, choices=TimerKind.choices)
    words = models.CharField(max_length=60, blank=True)
    seconds = models.PositiveIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["job", "token"], name="a_timer_starts_once"),
            models.CheckConstraint(condition=Q(kind__in=TimerKind.values), name="timer_kind_known"),
            models.CheckConstraint(
                condition=Q(seconds__gt=0, seconds__lte=LONGEST_TIMER_S), name="timer_in_bounds"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.get_kind_display()}, {self.job}"


class TimerChange(models.Model):
    """What became of a timer: lengthened, stopped, or rung. It stops once, and rings once."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    timer = models.ForeignKey(Timer, on_delete=models.CASCADE, related_name="changes")
    kind = models.CharField(max_length=10)
    seconds = models.PositiveIntegerField(default=0)
    reason = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)
    token = models.UUIDField(default=uuid.uuid4)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                fields=["timer", "kind"],
                condition=~Q(kind="lengthened"),
                name="stops_and_rings_once",
            ),
            models.UniqueConstraint(fields=["timer", "token"], name="a_timer_change_once"),
            models.CheckConstraint(
                condition=Q(kind__in=["lengthened", "stopped", "rung"]), name="timer_change_known"
            ),
            models.CheckConstraint(
                condition=~Q(kind="lengthened") | Q(seconds__gt=0, seconds__lte=LONGEST_TIMER_S),
                name="lengthened_by_something",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.timer}: {self.kind}"


class CautionSeen(models.Model):
    """A caution that somebody at the bench said they had seen, once in a job."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE)
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="cautions_seen")
    words = models.CharField(max_length=300)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["job", "words"], name="a_caution_is_seen_once")
        ]

    def __str__(self) -> str:
        return self.words
