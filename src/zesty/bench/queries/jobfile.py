"""A job with everything written in it, in a constant number of queries."""

import hashlib
import logging
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from datetime import date
from functools import cache, cached_property, partial
from typing import Any

from django.db.models import QuerySet
from django.http import Http404
from django.utils import timezone

from wheelend.card import Card
from wheelend.diagnose import Case
from wheelend.errors import BadInput
from wheelend.methods import (
    Bench,
    Claim,
    Judgement,
    Measured,
    Statement,
    claims_of,
    judge,
    statement_of,
)
from wheelend.procedure.log import Instrument as CoreInstrument
from wheelend.procedure.log import Written
from wheelend.procedure.progress import Progress, progress_of
from wheelend.wording import Lead
from zesty.bench.models import Entry, EntryShim, Job, Purpose, State, Unit, UnitPlace
from zesty.bench.queries.history import usual_packs
from zesty.cards.queries import card_of_version
from zesty.elements.prepared import Prepared
from zesty.elements.refused import Unjudged
from zesty.fleet.models import WheelEnd
from zesty.people.models import Membership, Workshop
from zesty.stores.models import Instrument, Shim
from zesty.stores.queries import dials_of, instruments_of, shim_names, tray_of

RULE_ERRORS = (ValueError, ArithmeticError, LookupError, TypeError, AttributeError, RecursionError)
"""What a rule may raise on rows that it never expected; a database that went away is none of them."""


@contextmanager
def judging(words: str = "") -> Iterator[None]:
    """Turn what a rule raises into one sentence."""
    try:
        yield
    except RULE_ERRORS as error:
        logging.getLogger(__name__).exception("A rule failed on what is stored")
        reason = str(error) if isinstance(error, BadInput) else ""
        raise Unjudged(f"{words}{reason or 'a rule failed on what is written there'}.") from error


@dataclass(frozen=True)
class UnitFile:
    """One unit of a job: its card, where it stands, and what its entries say together."""

    unit: Unit
    places: tuple[UnitPlace, ...]
    card: Card
    entries: tuple[Entry, ...]
    traits: tuple[str, ...]
    loose: tuple[Shim, ...]
    today: date
    lead: Lead = "metric"
    axle: str = ""
    purpose: str = "service"
    find_instruments: Callable[[], tuple[Instrument, ...]] = tuple

    @cached_property
    def progress(self) -> Progress:
        """Its steps and how far they are."""
        return progress_of(
            self.card,
            map(written, self.entries),
            lead=self.lead,
            traits=self.traits,
            axle=self.axle,
            purpose=self.purpose,
        )

    @cached_property
    def bench(self) -> Bench:
        """What its method judges."""
        card = self.unit.card_version.card_id
        return Bench(
            self.progress,
            tray_of(self.loose),
            self.names,
            self.today,
            find_dials=lambda: dials_of(self.find_instruments()),
            find_usual=partial(usual_packs, self.unit.workshop_id, card),
            find_before=partial(signed_play, self.unit, self.places),
        )

    @cached_property
    def judgement(self) -> Judgement:
        """What its method makes of it."""
        return judge(self.bench)

    @cached_property
    def claims(self) -> tuple[Claim, ...]:
        """What may be claimed of it."""
        return claims_of(self.bench, self.judgement)

    @property
    def statement(self) -> Statement:
        """What could be signed of it now."""
        return statement_of(self.bench, self.claims)

    @cached_property
    def names(self) -> dict[float, str]:
        """The words on shims that are not marked in mm."""
        fitted = {
            float(shim.thickness_mm): shim.typed
            for entry in self.entries
            for shim in shims_of(entry)
            if not shim.typed.endswith(" mm")
        }
        return {**fitted, **shim_names(self.loose)}

    @property
    def index(self) -> int:
        """Its number in the job."""
        return self.unit.order


@dataclass(frozen=True)
class JobFile:
    """A job, its units, and every row of its log, oldest first."""

    job: Job
    places: tuple[UnitPlace, ...]
    entries: tuple[Entry, ...]
    loose: tuple[Shim, ...] = ()
    find_instruments: Callable[[], tuple[Instrument, ...]] = tuple
    lead: Lead = "metric"
    today: date = field(default_factory=timezone.localdate)

    @property
    def instruments(self) -> tuple[Instrument, ...]:
        """The workshop's instruments; read once they are asked for, which few steps do."""
        return self.find_instruments()

    @cached_property
    def units(self) -> tuple[UnitFile, ...]:
        """The units in their order, each with what belongs to it and to the whole job."""
        with judging(f"The card of {self.job} can't be read: "):
            return self._units()

    def _units(self) -> tuple[UnitFile, ...]:
        found: dict[int, Unit] = {place.unit_id: place.unit for place in self.places}
        return tuple(
            UnitFile(
                unit=unit,
                places=tuple(place for place in self.places if place.unit_id == pk),
                card=(card := card_of_version(unit.card_version)),
                entries=tuple(row for row in self.entries if row.unit_id in (None, pk)),
                traits=self._traits(pk),
                axle=self._axle(pk, card),
                loose=self.loose,
                today=self.today,
                lead=self.lead,
                purpose=self.job.purpose,
                find_instruments=self.find_instruments,
            )
            for pk, unit in sorted(found.items(), key=lambda one: one[1].order)
        )

    def _traits(self, unit: int) -> tuple[str, ...]:
        """What of the vehicle, and of where the unit stands on it, changes its steps."""
        ends = [place.wheel_end for place in self.places if place.unit_id == unit]
        deck = ("deck",) if ends and ends[0].on_deck else ()
        return (*self.job.vehicle.traits, *deck)

    def _axle(self, unit: int, card: Card) -> str:
        """What kind of axle a unit stands on; nothing where card and vehicle contradict each other."""
        end = next(place.wheel_end for place in self.places if place.unit_id == unit)
        end.vehicle = self.job.vehicle
        axle = end.axle_of(driven=card.facts.get("driven", ""))
        try:
            Case(arrangement=card.arrangement.key, axle=axle or None)
        except BadInput:
            return ""
        return axle

    def unit(self, index: int) -> UnitFile:
        """One unit by its number. Raises Http404 where there is none."""
        for one in self.units:
            if one.index == index:
                return one
        raise Http404

    @property
    def digest(self) -> str:
        """A digest of everything that stands in it: what a signature was made on."""
        seen = [one.progress.digest + one.progress.checked for one in self.units]
        return hashlib.sha256("".join(seen).encode()).hexdigest()

    def with_entries(self, entries: Iterable[Entry]) -> "JobFile":
        """The file with rows that were just written."""
        return replace(self, entries=(*self.entries, *entries))

    def entry(self, pk: int) -> Entry:
        """A row that stands. Raises Http404 for one that is not there or was corrected."""
        corrected = {row.corrects_id for row in self.entries}
        for row in self.entries:
            if row.pk == pk and row.pk not in corrected and row.kind != "withdrawn":
                return row
        raise Http404

    @property
    def last_entry(self) -> Entry | None:
        """The last row that stands: what can be taken back."""
        corrected = {row.corrects_id for row in self.entries}
        stands = [r for r in self.entries if r.pk not in corrected and r.kind != "withdrawn"]
        return stands[-1] if stands else None

    def instrument(self, pk: int | None) -> Instrument | None:
        """One of the workshop's instruments."""
        return next((one for one in self.instruments if one.pk == pk), None)

    def of_kind(self, kind: str) -> tuple[Instrument, ...]:
        """The workshop's instruments of a kind."""
        return tuple(one for one in self.instruments if one.kind == kind)


def shims_of(entry: Entry) -> list[EntryShim]:
    """The shims of a pack entry, as loaded with its job."""
    return list(getattr(entry, "pack_shims", ()))


def written(entry: Entry) -> Written:
    """A row as the core sees it."""
    facts = entry.facts
    return Written(
        id=entry.pk,
        step=entry.step,
        kind=entry.kind,
        clamp=entry.clamp,
        closing=entry.closing,
        station=entry.station,
        place=entry.place,
        round=entry.round,
        typed=entry.typed,
        value=None if entry.value is None else float(entry.value),
        reason=entry.reason,
        corrects=entry.corrects_id,
        by=entry.by_id,
        by_name=entry.by_name,
        pack=(tuple(float(shim.thickness_mm) for shim in shims_of(entry)),)
        if entry.kind == "pack"
        else (),
        instrument=CoreInstrument(facts["name"], facts) if facts and "name" in facts else None,
        saw=entry.saw,
        elsewhere=entry.by_id is None,
        at_s=entry.at.timestamp(),
    )


def _one_job(workshop: int, job: int) -> QuerySet[Job]:
    return Job.objects.filter(workshop=workshop, pk=job).select_related("vehicle")


_JOB: Prepared[Job] = Prepared(_one_job, "workshop", "job")
_JOB_HELD: Prepared[Job] = Prepared(
    lambda **of: _one_job(**of).select_for_update(of=("self",)), "workshop", "job"
)
_ENTRIES: Prepared[Entry] = Prepared(lambda job: Entry.objects.filter(job=job), "job")
_PACK_SHIMS: Prepared[EntryShim] = Prepared(
    lambda job: EntryShim.objects.filter(entry__job=job).order_by("entry_id", "order"), "job"
)
_LOOSE: Prepared[Shim] = Prepared(
    lambda workshop: Shim.objects.filter(workshop=workshop, count__gt=0), "workshop"
)
_PLACES: Prepared[UnitPlace] = Prepared(
    lambda job: UnitPlace.objects.filter(unit__job=job)
    .select_related("unit__card_version__card", "wheel_end")
    # A version never changes, so what it says is read once.
    .defer("unit__card_version__document").order_by("pk"),
    "job",
)  # fmt: skip


def job_file(
    workshop: Workshop, job_id: int, lead: Lead = "metric", *, hold: bool = False
) -> JobFile:
    """One job of a workshop; `hold` locks its row until the transaction ends.

    Raises Http404 for a job of another workshop.
    """
    job = (_JOB_HELD if hold else _JOB).first(workshop=workshop.pk, job=job_id)
    if job is None:
        raise Http404
    job.workshop = workshop
    entries = tuple(_ENTRIES.ask(job=job_id))
    _with_shims(job_id, entries)
    return file_of(job, entries, lead)


def file_of(job: Job, entries: tuple[Entry, ...], lead: Lead = "metric") -> JobFile:
    """A job with rows that were loaded already."""
    workshop = job.workshop
    return JobFile(
        job=job,
        places=tuple(_PLACES.ask(job=job.pk)),
        entries=entries,
        loose=tuple(_LOOSE.ask(workshop=workshop.pk)),
        find_instruments=cache(partial(instruments_of, workshop)),
        lead=lead,
    )


def _with_shims(job_id: int, entries: tuple[Entry, ...]) -> None:
    packs: dict[int, Any] = {row.pk: row for row in entries if row.kind == "pack"}
    for row in packs.values():
        row.pack_shims = []
    if packs:
        for shim in _PACK_SHIMS.ask(job=job_id):
            # A pack that came in since the rows were read is not among them.
            if shim.entry_id in packs:
                packs[shim.entry_id].pack_shims.append(shim)


def free_ends(file: JobFile, unit: UnitFile) -> list[WheelEnd]:
    """The other wheel ends of a unit's axle on which nothing is open."""
    mine = unit.places[0].wheel_end
    ends = WheelEnd.objects.filter(vehicle=file.job.vehicle, axle=mine.axle).exclude(pk=mine.pk)
    return list(ends.exclude(unit_places__is_open=True))


def member_job(member: Membership, job_id: int, *, hold: bool = False) -> JobFile:
    """One job as a member sees it: of their workshop, led by their units."""
    return job_file(member.workshop, job_id, member.leads, hold=hold)


def signed_play(unit: Unit, places: tuple[UnitPlace, ...]) -> Measured | None:
    """The play that was signed the last time at a unit's wheel end: what a recheck compares with."""
    last = (
        UnitPlace.objects.filter(
            wheel_end__in=[place.wheel_end_id for place in places],
            unit__job__state=State.SIGNED, unit__job__purpose=Purpose.SERVICE,
        )
        .exclude(unit=unit)
        .select_related("unit__job", "workshop")
        .order_by("-unit__job__ended_at")
        .first()
    )  # fmt: skip
    if last is None:
        return None
    file = job_file(last.workshop, last.unit.job_id)
    mine = next(one for one in file.units if one.unit.pk == last.unit_id)
    measured = (one.measured for one in mine.claims if one.key == "end_play" and one.measured)
    return next(measured, None)
