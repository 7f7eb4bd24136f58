"""A job with everything written in it as a document, and back without loss."""

from typing import Any

from django.db import transaction
from django.db.models import Max, Model

from wheelend.arrangements import ENDS
from wheelend.endplay import clock_angle
from wheelend.errors import BadInput
from wheelend.quantity import ANGLE, LENGTH, TORQUE, USAGE, parse, unit_of
from zesty.bench.forms import ChoiceForm
from zesty.bench.models import (
    BoltTick,
    ChoiceChange,
    Job,
    LockRecord,
    LockTry,
    Reading,
    SeatMove,
    TakeIn,
    Trial,
    TrialMark,
    TrialShim,
)
from zesty.bench.queries.jobfile import JobFile
from zesty.cards.actions import fit_card
from zesty.cards.models import CardVersion, SpecCard
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.models import Side, UsageEntry, Vehicle, WheelEnd
from zesty.people.models import Workshop
from zesty.records.exchange.cards import import_version, version_content
from zesty.records.exchange.documents import Json, day_of, envelope, stamp, time_of
from zesty.records.exchange.people import Names
from zesty.records.exchange.trays import (
    gauge_content,
    import_gauge,
    import_wrench,
    wrench_content,
)
from zesty.records.models import Reopening, SecondCheck, SignOff
from zesty.stores.models import Gauge, Wrench

_PACKS = {"pack": "left", "pack_right": "right"}
"""The columns of a trial's pack; what has one side only has it on the left."""


def job_document(file: JobFile) -> Json:
    """A job as a document; it carries the card version, gauges and wrenches that it used."""
    job = file.job
    vehicle, end, version = job.wheel_end.vehicle, job.wheel_end, job.card_version
    gauges = {trial.gauge.name: trial.gauge for trial in file.trials}
    wrenches = {row.wrench.name: row.wrench for row in file.lock_records if row.wrench}
    signed = SignOff.objects.select_related("by").filter(job=job)
    content = {
        "number": job.number,
        "opened_by": str(job.opened_by),
        "opened_at": stamp(job.opened_at),
        "closed_at": stamp(job.closed_at),
        "vehicle": {
            "name": vehicle.name,
            "kind": vehicle.kind,
            "air_braked": vehicle.air_braked,
            "axles": max(vehicle.wheel_ends.values_list("axle", flat=True)),
        },
        "wheel_end": {"axle": end.axle, "side": end.side},
        "card": {
            "name": version.card.name,
            "arrangement": version.card.arrangement,
            "version": version_content(version),
        },
        "gauges": [gauge_content(gauges[name]) for name in sorted(gauges)],
        "wrenches": [wrench_content(wrenches[name]) for name in sorted(wrenches)],
        "take_ins": [_take_in(row) for row in file.take_ins],
        "choices": [_row(row, "what", "value", "reason") for row in file.choices],
        "trials": [_trial(row) for row in file.trials],
        "seat_moves": [_row(row, "typed") for row in file.seat_moves],
        "lock_tries": [_row(row, "to_next", "torque") for row in file.lock_tries],
        "bolt_ticks": [_row(row, "lap", "bolt") for row in file.bolt_ticks],
        "lock_records": [_lock_record(row) for row in file.lock_records],
        "second_checks": [_row(row, "role") for row in SecondCheck.objects.filter(job=job)],
        "reopenings": [_row(row, "reason") for row in Reopening.objects.filter(job=job)],
        "sign_offs": [
            _row(row, "role", "core_version", "statement", "facts", "sheet_html") for row in signed
        ],
    }
    return envelope("job", content)


def _row(row: Any, *names: str) -> Json:
    """A row's own columns, who wrote it and when."""
    return {**{name: getattr(row, name) for name in names}, "by": str(row.by), "at": stamp(row.at)}


def _take_in(row: TakeIn) -> Json:
    usage = row.usage
    said = (
        {"on": usage.on.isoformat(), "typed": usage.typed, "by": str(usage.entered_by)}
        if usage
        else None
    )
    return {**_row(row, "complaint", "made_safe"), "usage": said}


def _lock_record(row: LockRecord) -> Json:
    wrench = row.wrench.name if row.wrench else None
    return {**_row(row, "torque", "lock", "done", "note", "wrench_flags"), "wrench": wrench}


def _trial(trial: Trial) -> Json:
    rows = list(trial.readings.all())
    place = {row.pk: index for index, row in enumerate(rows)}
    return {
        **_row(trial, "number", "dial_place", "turned", "nut_torque"),
        "gauge": trial.gauge.name,
        **{
            name: [shim.typed for shim in trial.shims.all() if shim.side == side]
            for name, side in _PACKS.items()
        },
        "marks": [_row(mark, "aside", "reason") for mark in trial.marks.all()],
        "readings": [
            {
                **_row(row, "kind", "clock", "typed", "reason"),
                "corrects": place.get(row.corrects_id),
            }
            for row in rows
        ],
    }


@transaction.atomic
def import_job(workshop: Workshop, document: Json, names: Names) -> Job:
    """A job from a document, under its number where that is free. Raises Refused."""
    try:
        return _Import(workshop, document, names).job()
    except BadInput as bad:
        raise Refused(f"{bad}.") from None


class _Import:
    """One document on its way in."""

    def __init__(self, workshop: Workshop, document: Json, names: Names) -> None:
        self.workshop, self.document, self.names = workshop, document, names
        self.gauges = {g["name"]: import_gauge(workshop, g) for g in document["gauges"]}
        self.wrenches = {w["name"]: import_wrench(workshop, w) for w in document["wrenches"]}

    def job(self) -> Job:
        said = self.document
        wheel_end, version = self._wheel_end(), self._version()
        open_here = wheel_end.jobs.filter(closed_at=None).first()
        if open_here and said["closed_at"] is None:
            raise Refused(f"Job {open_here.number} is open on {wheel_end.vehicle}, {wheel_end}.")
        job = Job.objects.create(
            workshop=self.workshop,
            number=self._number(said["number"]),
            wheel_end=wheel_end,
            card_version=version,
            opened_by=self.names[said["opened_by"]],
            opened_at=time_of(said["opened_at"]),
            closed_at=time_of(said["closed_at"]) if said["closed_at"] else None,
        )
        fit_card(wheel_end, version.card)
        for row in said["take_ins"]:
            self._take_in(job, row)
        for row in said["trials"]:
            self._trial(job, row)
        self._rows(job)
        return job

    def _number(self, wanted: int) -> int:
        jobs = Job.objects.filter(workshop=self.workshop)
        if not jobs.filter(number=wanted).exists():
            return wanted
        return int(jobs.aggregate(Max("number"))["number__max"]) + 1

    def _wheel_end(self) -> WheelEnd:
        said, end = self.document["vehicle"], self.document["wheel_end"]
        vehicle, _ = Vehicle.objects.get_or_create(
            workshop=self.workshop,
            name=said["name"],
            defaults={"kind": said["kind"], "air_braked": said["air_braked"]},
        )
        for axle in range(1, max(said["axles"], end["axle"]) + 1):
            for side in Side.values:
                WheelEnd.objects.get_or_create(vehicle=vehicle, axle=axle, side=side)
        return WheelEnd.objects.get(vehicle=vehicle, axle=end["axle"], side=end["side"])

    def _version(self) -> CardVersion:
        said = self.document["card"]
        card, _ = SpecCard.objects.get_or_create(
            workshop=self.workshop,
            name=said["name"],
            defaults={"arrangement": said["arrangement"]},
        )
        standing = card.versions.filter(number=said["version"]["number"]).first()
        if standing is None:
            return import_version(card, said["version"], self.names)
        if version_content(standing) != said["version"]:
            raise Refused(f"Card “{card}” version {standing.number} says something else here.")
        return standing

    def _meta(self, row: Json) -> dict[str, Any]:
        return {"by": self.names[row["by"]], "at": time_of(row["at"])}

    def _plain(self, model: type[Model], job: Job, row: Json, *names: str, **more: Any) -> None:
        own = {name: row[name] for name in names}
        model._default_manager.create(job=job, **own, **self._meta(row), **more)

    def _take_in(self, job: Job, row: Json) -> None:
        usage, entry = row["usage"], None
        if usage:
            typed = Typed.read(usage["typed"], USAGE)
            entry, _ = UsageEntry.objects.get_or_create(
                vehicle=job.wheel_end.vehicle,
                on=day_of(usage["on"]),
                typed=typed.text,
                defaults={
                    "value": typed.value,
                    "unit": unit_of(typed.text),
                    "entered_by": self.names[usage["by"]],
                },
            )
        self._plain(TakeIn, job, row, "complaint", "made_safe", usage=entry)

    def _trial(self, job: Job, row: Json) -> None:
        torque = Typed.read(row["nut_torque"], TORQUE)
        trial = Trial.objects.create(
            job=job,
            number=row["number"],
            gauge=self._named(self.gauges, row["gauge"]),
            dial_place=row["dial_place"],
            turned=row["turned"],
            nut_torque=torque.text,
            nut_torque_N_m=torque.value,
            **self._meta(row),
        )
        for name, side in _PACKS.items():
            for text in row[name]:
                shim = Typed.read(text, LENGTH)
                TrialShim.objects.create(
                    trial=trial, side=side, typed=shim.text, thickness_mm=shim.value
                )
        for mark in row["marks"]:
            TrialMark.objects.create(
                trial=trial, aside=mark["aside"], reason=mark["reason"], **self._meta(mark)
            )
        self._readings(trial, row["readings"])

    def _readings(self, trial: Trial, rows: list[Json]) -> None:
        made: list[Reading] = []
        for row in rows:
            if row["corrects"] is not None and row["corrects"] >= len(made):
                raise Refused(f"Trial {trial.number}: a reading corrects one that comes after it.")
            value = Typed.read(row["typed"], LENGTH).value if row["typed"] else None
            if row["clock"] and row["clock"] not in ENDS:
                clock_angle(row["clock"])
            made.append(
                Reading.objects.create(
                    trial=trial,
                    kind=row["kind"],
                    clock=row["clock"],
                    typed=row["typed"],
                    value_mm=value,
                    corrects=None if row["corrects"] is None else made[row["corrects"]],
                    reason=row["reason"],
                    **self._meta(row),
                )
            )

    def _choices(self, job: Job) -> None:
        for row in self.document["choices"]:
            form = ChoiceForm(row)
            if not form.is_valid():
                raise Refused(f"Choice {row['what']}: {next(iter(form.errors.values()))[0]}")
            self._plain(ChoiceChange, job, row, "what", "value", "reason")

    def _rows(self, job: Job) -> None:
        said = self.document
        self._choices(job)
        for row in said["seat_moves"]:
            self._plain(SeatMove, job, row, "typed", deg=Typed.read(row["typed"], ANGLE).value)
        for row in said["lock_tries"]:
            torque = Typed.read(row["torque"], TORQUE).value
            parse(row["to_next"], ANGLE)
            self._plain(LockTry, job, row, "to_next", "torque", torque_N_m=torque)
        for row in said["bolt_ticks"]:
            self._plain(BoltTick, job, row, "lap", "bolt")
        for row in said["lock_records"]:
            wrench = self._named(self.wrenches, row["wrench"]) if row["wrench"] else None
            torque = Typed.read(row["torque"], TORQUE).value
            names = ("torque", "lock", "done", "note", "wrench_flags")
            self._plain(LockRecord, job, row, *names, torque_N_m=torque, wrench=wrench)
        for row in said["second_checks"]:
            self._plain(SecondCheck, job, row, "role")
        for row in said["reopenings"]:
            self._plain(Reopening, job, row, "reason")
        for row in said["sign_offs"]:
            names = ("role", "core_version", "statement", "facts", "sheet_html")
            self._plain(SignOff, job, row, *names)

    @staticmethod
    def _named(things: dict[str, Any], name: str) -> Gauge | Wrench:
        if name not in things:
            raise Refused(f"“{name}” is used and not listed in the document.")
        thing: Gauge | Wrench = things[name]
        return thing
