"""The log's one writer: it checks what is to be written against the unit's steps, and adds a row."""

import hashlib
import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Any
from uuid import UUID, uuid4

from django.db import IntegrityError, transaction

from wheelend.card import Card
from wheelend.errors import BadInput
from wheelend.procedure.allowed import check_row
from wheelend.procedure.asking import Slot
from wheelend.procedure.log import aspect_of
from wheelend.procedure.progress import Row
from wheelend.procedure.slips import Question
from zesty.bench.actions import packs
from zesty.bench.actions.checking import check, question
from zesty.bench.models import Entry, EntryShim
from zesty.bench.queries.jobfile import JobFile, UnitFile, written
from zesty.elements.refused import Refused
from zesty.people.models import User
from zesty.stores.actions import Fitted, count_cycle
from zesty.stores.models import Instrument
from zesty.stores.queries import facts_of

AGAIN = "read again after taking back"


class Held(Exception):
    """What was typed is far from what is likely: held, and asked about, until it is said again."""

    def __init__(self, asked: Question) -> None:
        super().__init__(asked.words)
        self.asked = asked


@dataclass(frozen=True)
class Say:
    """One thing to be written. `place` and `round` None: wherever the step is.

    `value` is in the dimension's output unit, `shims` a pack, `facts` what is known of the set-up.
    `sure` says that a value was looked at again and is meant. `saw` is the digest of what a second
    person looked at; None: what stands now.
    """

    step: str
    kind: str
    station: str = ""
    place: str | None = None
    round: int | None = None
    closing: int | None = None
    typed: str = ""
    value: Decimal | None = None
    instrument: Instrument | None = None
    facts: Mapping[str, Any] = field(default_factory=dict)
    shims: Sequence[Fitted] = ()
    from_here: bool = False
    reason: str = ""
    sure: bool = False
    saw: str | None = None
    token: UUID = field(default_factory=uuid4)

    def digest(self, unit: int | None) -> str:
        """What the token carried: the same token may come again with the same, and only the same."""
        carried = [
            unit, self.step, self.kind, self.station, self.place, self.typed, self.reason,
            self.instrument.pk if self.instrument else None, dict(self.facts),
            [shim.typed for shim in self.shims],
        ]  # fmt: skip
        return hashlib.sha256(json.dumps(carried, default=str).encode()).hexdigest()


def write(file: JobFile, unit: UnitFile, user: User, say: Say) -> JobFile:
    """Add a row at a step of a unit; the file with it.

    The job's row is held by whoever loaded `file`. Raises Refused with a sentence, or Held with the
    question where a value is not likely.
    """
    if already_written(file, unit, say):
        return file
    hold_open(file)
    row = _row(unit, say)
    ends = say.kind == "done" and row.step.entry != "turns"
    slot = Slot(round=row.at.gone + 1) if ends else row.slot
    place = slot.place if say.place is None else say.place
    number = slot.round if say.round is None else say.round
    check(unit, row, say, place)
    if row.step.kind == "second" and user.pk in workers(file, unit):
        raise Refused(
            "You wrote in this job about this wheel end: the second person must be another."
        )
    if not say.sure:
        asked = question(file, unit, row, say, place)
        if asked:
            raise Held(asked)
    root = _tail(file, unit, row, say, place, number)
    entry = _entry(file, unit, user, say, row=row, place=place, number=number, corrects=root)
    if say.kind == "pack":
        packs.move(file, unit, entry, list(say.shims), from_here=say.from_here)
    if say.instrument and say.instrument.kind == "wrench":
        count_cycle(say.instrument)
    return file.with_entries([entry])


def workers(file: JobFile, unit: UnitFile) -> set[int]:
    """The accounts that wrote or decided anything about a unit; second checks apart."""
    checks = {step.id for step in unit.card.arrangement.steps if step.kind == "second"}
    wrote = {row.by_id for row in unit.entries if row.by_id and row.step not in checks}
    return wrote | ({file.job.opened_by_id} if file.job.opened_by_id else set())


def already_written(file: JobFile, unit: UnitFile | None, say: Say) -> bool:
    """Whether this very thing was written before. Refused where its token carried something else."""
    before = next((row for row in file.entries if row.token == say.token), None)
    if before is None:
        return False
    if before.digest != say.digest(unit.unit.pk if unit else None):
        raise Refused(
            f"This was sent before as {before}, and that stands. Look, then enter it again."
        )
    return True


def hold_open(file: JobFile) -> None:
    """Refused where a job was signed off or abandoned."""
    if not file.job.is_open:
        raise Refused(
            f"Job {file.job.number} was {file.job.get_state_display()}; nothing more can be "
            "written in it. A lead can open it again."
        )


def _row(unit: UnitFile, say: Say) -> Row:
    row = unit.progress.row(say.step, say.station)
    if row is None:
        raise Refused("This step is not asked here any more; look at the page again.")
    return row


def _tail(
    file: JobFile, unit: UnitFile, row: Row, say: Say, place: str, number: int
) -> Entry | None:
    """The row that this one follows: what was taken back there. Refused where one stands."""
    aspect = aspect_of(say.kind)
    per_job = row.step.per == "job"
    here = [
        entry
        for entry in file.entries
        if (entry.step, entry.station, entry.place, entry.round, entry.aspect)
        == (say.step, say.station, place, number, aspect)
        and entry.unit_id == (None if per_job else unit.unit.pk)
        and entry.closing == (0 if per_job else row.at.closing)
    ]
    if not here:
        return None
    last = here[-1]
    if last.kind != "withdrawn":
        raise Refused(f"{last.by_name} wrote {last} there already. Tap it to correct it.", "value")
    return last


def _entry(
    file: JobFile,
    unit: UnitFile,
    user: User,
    say: Say,
    *,
    row: Row,
    place: str,
    number: int,
    corrects: Entry | None,
) -> Entry:
    per_job = row.step.per == "job"
    facts = dict(say.facts)
    if say.from_here:
        facts["from_here"] = True
    if say.instrument:
        facts = facts_of(say.instrument, file.today, **facts)
    return add(
        file,
        user,
        unit=None if per_job else unit.unit,
        clamp="" if per_job else row.at.clamp,
        closing=0 if per_job else row.at.closing,
        round=number,
        step=row.step.id,
        station=row.station,
        place=place,
        kind=say.kind,
        typed=say.typed,
        value=say.value,
        instrument=say.instrument,
        facts=facts or None,
        corrects=corrects,
        reason=say.reason or (AGAIN if corrects else ""),
        saw=unit.progress.digest if row.step.kind == "second" else "",
        token=say.token,
        digest=say.digest(unit.unit.pk),
        shims=say.shims if say.kind == "pack" else (),
        card=unit.card,
    )


def add(
    file: JobFile,
    user: User,
    *,
    card: Card | None = None,
    shims: Sequence[Fitted] = (),
    **columns: Any,
) -> Entry:
    """Add one row of the log, with its pack where it has one; checked against the unit's card."""
    columns.setdefault("token", uuid4())
    columns.setdefault("digest", "")
    entry = Entry(
        workshop_id=file.job.workshop_id, job=file.job, by=user, by_name=str(user),
        **{"aspect": aspect_of(columns["kind"]), **columns},
    )  # fmt: skip
    entry.pack_shims = pack_rows(entry, shims)
    try:
        check_row(card or file.units[0].card, written(entry))
    except BadInput as bad:
        raise Refused(f"{bad.given} {bad.need}.".strip(), "value") from None
    try:
        # Whoever writes takes everything back where a row is refused.
        with transaction.atomic(savepoint=False):
            _insert(entry)
    except IntegrityError as error:
        raise Refused(
            "This was written somewhere else meanwhile; look at the page again."
        ) from error
    return entry


def pack_rows(entry: Entry, shims: Sequence[Fitted]) -> list[EntryShim]:
    """The rows of a pack's shims, not written yet."""
    return [
        EntryShim(entry=entry, order=order, typed=shim.typed, thickness_mm=shim.thickness_mm,
                  shim_id=shim.shim_id)
        for order, shim in enumerate(shims, 1)
    ]  # fmt: skip


def _insert(entry: Entry) -> None:
    entry.save(force_insert=True)
    for shim in entry.pack_shims:
        shim.entry_id = entry.pk
    if entry.pack_shims:
        EntryShim.objects.bulk_create(entry.pack_shims)


def correct(
    file: JobFile, user: User, entry: Entry, *, typed: str, value: Decimal | None, reason: str
) -> JobFile:
    """Put another value in a row's place; the old row stays, with the reason beside the new one."""
    hold_open(file)
    if entry.kind not in ("in", "out", "value", "text"):
        raise Refused("Only a number or a text is corrected; take this back and enter it again.")
    new = add(
        file, user, **_same_place(entry), kind=entry.kind, typed=typed, value=value,
        instrument_id=entry.instrument_id, facts=entry.facts, corrects=entry, reason=reason,
        card=_card_of(file, entry),
    )  # fmt: skip
    return file.with_entries([new])


def take_back(
    file: JobFile, user: User, entry: Entry, *, reason: str, anywhere: bool = False
) -> JobFile:
    """Take a row back; it stays, struck, and its place is free again.

    Readings can be taken back wherever they stand; anything else only as the last thing written,
    for later entries rest on it. `anywhere`: it is the one that can't be judged.
    """
    hold_open(file)
    last = file.last_entry
    reading = entry.kind in ("in", "out", "bound", "no_play", "felt", "aside", "again", "choice")
    if not (reading or anywhere) and entry != last:
        raise Refused(f"Take back the newer ones first: {last} was written after it.")
    if entry.kind == "pack":
        packs.move_back(file, entry)
    new = add(
        file, user, **_same_place(entry), kind="withdrawn", typed=entry.typed,
        instrument_id=entry.instrument_id, corrects=entry, reason=reason, aspect=entry.aspect,
    )  # fmt: skip
    return file.with_entries([new])


def _card_of(file: JobFile, entry: Entry) -> Card | None:
    return next((one.card for one in file.units if one.unit.pk == entry.unit_id), None)


def _same_place(entry: Entry) -> dict[str, Any]:
    names = ("unit", "clamp", "closing", "round", "step", "station", "place")
    return {name: getattr(entry, name) for name in names}


def mark(
    file: JobFile, unit: UnitFile, user: User, *, step: str, closing: int, number: int,
    kind: str, reason: str, token: UUID, place: str = "",
) -> JobFile:  # fmt: skip
    """Set a series aside, begin one anew, or have one of its places read again, for a reason."""
    say = Say(
        step=step,
        kind=kind,
        place=place,
        round=number,
        reason=reason,
        typed=str(closing),
        token=token,
    )
    if already_written(file, unit, say):
        return file
    hold_open(file)
    row = _row(unit, say)
    there = [
        entry
        for entry in file.entries
        if entry.unit_id == unit.unit.pk and entry.step == step and entry.closing == closing
    ]
    marks = [
        entry
        for entry in there
        if (entry.round, entry.aspect, entry.place) == (number, "mark", place)
    ]
    if not any(entry.round == number for entry in there if entry.aspect != "mark"):
        raise Refused("Nothing was read in that series.")
    if marks and marks[-1].kind != "withdrawn":
        raise Refused(f"{marks[-1].by_name} said so already: look at the page again.")
    entry = add(
        file, user, unit=unit.unit, clamp=row.at.clamp, closing=closing, round=number, step=step,
        place=place, kind=kind, typed=say.typed, reason=reason, token=token,
        digest=say.digest(unit.unit.pk), card=unit.card, corrects=marks[-1] if marks else None,
    )  # fmt: skip
    return file.with_entries([entry])


def choose(
    file: JobFile, unit: UnitFile, user: User, *, what: str, value: str, reason: str, token: UUID
) -> JobFile:
    """Choose otherwise than the card does, for a reason."""
    say = Say(step="choice", kind="choice", place=what, typed=value, reason=reason, token=token)
    if already_written(file, unit, say):
        return file
    hold_open(file)
    before = [
        e
        for e in file.entries
        if e.unit_id == unit.unit.pk and (e.step, e.place) == ("choice", what)
    ]
    entry = add(
        file, user, unit=unit.unit, step="choice", place=what, kind="choice", typed=value,
        reason=reason, token=token, digest=say.digest(unit.unit.pk),
        corrects=before[-1] if before else None, card=unit.card,
    )  # fmt: skip
    return file.with_entries([entry])


def skip(file: JobFile, unit: UnitFile, user: User, say: Say) -> JobFile:
    """Leave a step out, for a reason; the sheet says so."""
    row = _row(unit, say)
    if not row.step.skippable:
        raise Refused("This step can't be left out: what comes after rests on it.")
    return write(file, unit, user, replace(say, kind="skip", place="", round=1, sure=True))
