"""A job with everything written in it, in a constant number of queries."""

from dataclasses import dataclass, field

from django.db.models import Prefetch
from django.http import Http404

from wheelend.arrangements import ENDS
from wheelend.procedure.series import Finding, Place, Series
from wheelend.procedure.setting import Assessment, Setting, assess
from wheelend.verdict import Gauge
from wheelend.wording import Lead
from zesty.bench.models import (
    BoltTick,
    ChoiceChange,
    DialPlace,
    Job,
    LockRecord,
    LockTry,
    Reading,
    ReadingKind,
    SeatMove,
    TakeIn,
    Trial,
    TrialMark,
)
from zesty.cards.queries import clocks_of, setting_card
from zesty.people.models import Membership, Workshop
from zesty.stores.models import Shim
from zesty.stores.queries import loose_shims, shim_names, tray_of


@dataclass(frozen=True)
class JobFile:
    """A job and its rows, oldest first."""

    job: Job
    take_ins: tuple[TakeIn, ...]
    trials: tuple[Trial, ...]
    choices: tuple[ChoiceChange, ...]
    lock_records: tuple[LockRecord, ...]
    seat_moves: tuple[SeatMove, ...] = ()
    lock_tries: tuple[LockTry, ...] = ()
    bolt_ticks: tuple[BoltTick, ...] = ()
    loose: tuple[Shim, ...] = field(default=())
    lead: Lead = "metric"

    @property
    def take_in(self) -> TakeIn | None:
        """What was written at take in; the latest counts."""
        return self.take_ins[-1] if self.take_ins else None

    @property
    def trial(self) -> Trial | None:
        """The pack that is on the shaft."""
        return self.trials[-1] if self.trials else None

    @property
    def lock(self) -> LockRecord | None:
        """The latest lock record."""
        return self.lock_records[-1] if self.lock_records else None

    @property
    def read_after_lock(self) -> bool:
        """Whether the series on the dial was begun after the nut was locked."""
        locked = self.lock is not None and self.lock.done
        return bool(locked and self.trial and self.trial.at > self.lock.at)

    @property
    def chosen(self) -> dict[str, str]:
        """What the job chose otherwise than its card, by name."""
        return {row.what: row.value for row in self.choices}

    @property
    def aim(self) -> str:
        """The aim in force: the job's own, or the card's."""
        return self.chosen.get("aim", self.job.card_version.aim)

    def assess(self) -> Assessment:
        """What the core makes of all this."""
        version = self.job.card_version
        clocks = clocks_of(version)
        return assess(
            Setting(
                card=setting_card(version, self.chosen),
                series=tuple(
                    series_of(trial, clocks) for trial in self.trials if mark_of(trial) is None
                ),
                tray=tray_of(list(self.loose)),
                on_face=bool(self.trial and self.trial.dial_place == DialPlace.FACE),
                names=self.names,
                lead=self.lead,
            )
        )

    @property
    def names(self) -> dict[float, str]:
        """The words on shims that are not marked in mm."""
        fitted = {
            float(shim.thickness_mm): shim.typed
            for trial in self.trials
            for shim in trial.shims.all()
            if not shim.typed.endswith(" mm")
        }
        return {**fitted, **shim_names(list(self.loose))}


def job_file(workshop: Workshop, job_id: int, lead: Lead = "metric") -> JobFile:
    """One job of a workshop, its words led by some units. Raises Http404 for any other's."""
    job = (
        Job.objects.filter(workshop=workshop, pk=job_id)
        .select_related("card_version__card", "wheel_end__vehicle", "opened_by", "workshop")
        .prefetch_related(
            "card_version__stack",
            Prefetch("take_ins", TakeIn.objects.select_related("by", "usage")),
            Prefetch("choices", ChoiceChange.objects.select_related("by")),
            Prefetch("lock_records", LockRecord.objects.select_related("by", "wrench")),
            Prefetch("seat_moves", SeatMove.objects.select_related("by")),
            Prefetch("lock_tries", LockTry.objects.select_related("by")),
            "bolt_ticks",
            Prefetch("trials", Trial.objects.select_related("gauge", "by")),
            "trials__shims",
            Prefetch("trials__marks", TrialMark.objects.select_related("by")),
            Prefetch("trials__readings", Reading.objects.select_related("by")),
        )
        .first()
    )
    if job is None:
        raise Http404
    return JobFile(
        job=job,
        take_ins=tuple(job.take_ins.all()),
        trials=tuple(job.trials.all()),
        choices=tuple(job.choices.all()),
        lock_records=tuple(job.lock_records.all()),
        seat_moves=tuple(job.seat_moves.all()),
        lock_tries=tuple(job.lock_tries.all()),
        bolt_ticks=tuple(job.bolt_ticks.all()),
        loose=tuple(loose_shims(workshop)),
        lead=lead,
    )


def mark_of(trial: Trial) -> TrialMark | None:
    """Why a trial does not count, or None where it does."""
    marks = list(trial.marks.all())
    return marks[-1] if marks and marks[-1].aside else None


def standing(trial: Trial) -> list[Reading]:
    """The readings that count: those that nothing corrected, and that were not taken back."""
    rows = list(trial.readings.all())
    corrected = {row.corrects_id for row in rows}
    return [row for row in rows if row.pk not in corrected and row.kind != ReadingKind.WITHDRAWN]


def packs_of(trial: Trial, sides: int) -> tuple[tuple[float, ...], ...]:
    """A trial's pack in mm, side by side."""
    shims = list(trial.shims.all())
    return tuple(
        tuple(float(shim.thickness_mm) for shim in shims if shim.side == side)
        for side in ENDS[:sides]
    )


def series_of(trial: Trial, clocks: tuple[str, ...]) -> Series:
    """A trial as the core sees it."""
    readings: dict[Place, float] = {}
    finding: Finding | None = None
    for row in standing(trial):
        if row.value_mm is None:
            finding = row.kind
        else:
            readings[row.clock, row.kind] = float(row.value_mm)
    gauge = trial.gauge
    return Series(
        number=trial.number,
        pack=packs_of(trial, 2 if clocks == ENDS else 1),
        gauge=Gauge(float(gauge.resolution_mm), float(gauge.calibration_mm)),
        clocks=clocks,
        readings=readings,
        finding=finding,
        turned=trial.turned,
        by_hand=trial.dial_place == DialPlace.HANDS,
    )


def member_job(member: Membership, job_id: int) -> JobFile:
    """One job as a member sees it: of their workshop, led by their units."""
    return job_file(member.workshop, job_id, member.leads)
