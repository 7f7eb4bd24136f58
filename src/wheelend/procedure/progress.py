"""How far a wheel end is: which steps are done, due, waiting, stale; and in which closing it is."""

import hashlib
import itertools
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal, TypeVar

from wheelend.arrangements import Step
from wheelend.arrangements.model import EVERY_CLAMP, Phase
from wheelend.arrangements.vocabulary import CLAMP_KINDS, MOVING_KINDS
from wheelend.card import Card
from wheelend.procedure.asking import ASKING, Asked, At, Slot
from wheelend.procedure.found import added, changed_choices, verdict_of
from wheelend.procedure.items.asked import facts_found
from wheelend.procedure.log import Written, standing
from wheelend.procedure.steps import steps_of
from wheelend.wording import Lead

_R = TypeVar("_R")
_K = TypeVar("_K")
State = Literal["due", "waits", "later", "done", "skipped", "past"]


@dataclass(frozen=True)
class Row:
    """One step at one station as it stands.

    `stale` are rows that counted once: written in a closing that has ended, or undone since.
    `waits_for` are the steps that must come first.
    """

    at: At
    state: State
    stale: tuple[Written, ...] = ()
    skipped: Written | None = None
    waits_for: tuple[Step, ...] = ()

    @property
    def step(self) -> Step:
        """The step."""
        return self.at.step

    @property
    def station(self) -> str:
        """Where; empty where the step is asked once."""
        return self.at.station

    @property
    def asked(self) -> Asked:
        """How it is answered."""
        return ASKING[self.step.entry]

    @cached_property
    def slot(self) -> Slot:
        """Where its next row goes."""
        return self.asked.slot(self.at)

    @property
    def settled(self) -> bool:
        """Whether nothing more is asked here."""
        return self.state in ("done", "skipped", "past")


@dataclass(frozen=True)
class Progress:
    """A unit of a job: its card, its steps and everything that was written about it."""

    card: Card
    steps: tuple[Step, ...]
    log: tuple[Written, ...]
    lead: Lead = "metric"
    axle: str = ""
    purpose: str = "service"
    standing: tuple[Written, ...] = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "standing", standing(self.log))

    @cached_property
    def by_id(self) -> Mapping[str, Step]:
        """Every step of the arrangement, also those that do not apply here."""
        return self.card.arrangement.by_id

    @cached_property
    def openings(self) -> tuple[Written, ...]:
        """Every opening that stands, oldest first."""
        return tuple(
            row
            for row in self.standing
            if row.kind != "skip" and row.step in self.by_id and self.by_id[row.step].opens
        )

    @cached_property
    def closings(self) -> dict[str, int]:
        """For each clamp, how many times it was opened: the closing that it is in, or goes to."""
        found: dict[str, int] = {}
        for clamp in self.card.arrangement.clamps:
            mine = {EVERY_CLAMP, clamp.key, clamp.ends_with} - {""}
            found[clamp.key] = sum(row.clamp in mine for row in self.openings)
        return found

    @cached_property
    def setting_closing(self) -> int:
        """The closing of the clamp that the method judges."""
        return self.closings[self.card.arrangement.setting_clamp.key]

    @cached_property
    def phase(self) -> Phase:
        """Trials, or what follows the last one: the last opening says which."""
        mine = {EVERY_CLAMP, self.card.arrangement.setting_clamp.key}
        last = next((row for row in reversed(self.openings) if row.clamp in mine), None)
        if last is None:
            return "trial"
        return (
            "final" if last.typed == "last" or self.by_id[last.step].phase == "final" else "trial"
        )

    def _overtaken(self, step: Step) -> bool:
        """Whether a later step of the final part opened it again: what stood before it has done its work."""
        last = self.openings[-1] if self.openings else None
        opening = self.by_id[last.step] if last else None
        both = opening is not None and opening.phase == "final" == step.phase
        return both and self._order[step.id] <= self._order[opening.id if opening else ""]

    def closing_of(self, clamp: str) -> int:
        """The closing that a row of a clamp belongs to now; of the setting where it names none."""
        return self.closings.get(clamp, self.setting_closing)

    def counts(self, row: Written) -> bool:
        """Whether a row that stands still counts: its closing lasts, and nothing undid it."""
        step = self.by_id.get(row.step)
        if step is None:
            return False
        if step.per == "job":
            return True
        if step.kind == "second" and row.kind != "skip":
            return row.saw == self.digest
        if step.kind in CLAMP_KINDS:
            return row.closing == self.closing_of(row.clamp) and not self._moved_since(row, step)
        return not any(
            step.kind in self.by_id[opening.step].undoes and row.closing <= opening.closing
            for opening in self.openings
            if opening.id != row.id and opening.step != row.step
        )

    def _moved_since(self, row: Written, step: Step) -> bool:
        """Whether what holds was moved after a row of the last closing: torqued again, say.

        Trials apart: there a torque begins another series, and the one before stays a trial.
        """
        if step.phase == "trial" or row.kind == "skip":
            return False
        return any(
            later > self.roots[row.id]
            and order < self._order[step.id]
            and not (row.station and station and row.station != station)
            for later, order, station in self._moves.get((row.clamp, row.closing), ())
        )

    @cached_property
    def _moves(self) -> Mapping[tuple[str, int], list[tuple[int, int, str]]]:
        """What moved a nut or bolt in a closing, trials apart: its root, its step's place, where."""
        found: dict[tuple[str, int], list[tuple[int, int, str]]] = defaultdict(list)
        for row in self.standing:
            step = self.by_id.get(row.step)
            if step and step.kind in MOVING_KINDS and step.phase != "trial" and row.kind != "skip":
                move = (self.roots[row.id], self._order[step.id], row.station)
                found[row.clamp, row.closing].append(move)
        return found

    @cached_property
    def _order(self) -> Mapping[str, int]:
        return {step.id: index for index, step in enumerate(self.card.arrangement.steps)}

    @cached_property
    def roots(self) -> Mapping[int, int]:
        """The first row of each row's place: a correction moves nothing at the bench."""
        found: dict[int, int] = {}
        for row in self.log:
            found[row.id] = found.get(row.corrects, row.corrects) if row.corrects else row.id
        return found

    @cached_property
    def digest(self) -> str:
        """A digest of everything that stands about this unit, second checks apart."""
        seen = [row.id for row in self.standing if not self._checks(row)]
        return hashlib.sha256(repr(seen).encode()).hexdigest()

    @property
    def checked(self) -> str:
        """The second checks that stand, beside the digest of what they were made on."""
        return repr([row.id for row in self.standing if self._checks(row)])

    def _checks(self, row: Written) -> bool:
        return row.step in self.by_id and self.by_id[row.step].kind == "second"

    @cached_property
    def verdict(self) -> str:
        """What Check ended in: whether it comes apart."""
        return verdict_of(self.card, self.standing)

    @cached_property
    def chosen(self) -> dict[str, str]:
        """What the job chose otherwise than its card: by what killed the last one, or by a person."""
        said = {row.place: row.typed for row in self.standing if row.kind == "choice"}
        return {**changed_choices(self.card, self.standing), **said}

    def choice(self, key: str) -> str:
        """What holds of a choice of school: the job's own, the card's, or the usual."""
        return self.card.chosen(key, self.chosen)

    @cached_property
    def _of_step(self) -> Mapping[tuple[str, str], tuple[Written, ...]]:
        return _grouped(self.standing, lambda row: (row.step, row.station))

    @cached_property
    def _of_clamp(self) -> Mapping[str, tuple[Written, ...]]:
        held = (row for row in self.standing if row.clamp and row.kind != "skip")
        lasting = (row for row in held if row.closing == self.closing_of(row.clamp))
        return _grouped(lasting, lambda row: row.clamp)

    @cached_property
    def rows(self) -> tuple[Row, ...]:
        """Every step at every station it is asked at, in the order of work."""
        made: list[Row] = []
        before: dict[str, list[Row]] = defaultdict(list)
        due = False
        for step, station in self._asked():
            row = self._row(step, station, before, due)
            due = due or row.state == "due"
            made.append(row)
            before[step.id].append(row)
        return tuple(made)

    def _asked(self) -> Iterator[tuple[Step, str]]:
        """Each step at each station; steps of a clamp of its own are done station by station."""
        for own, steps in itertools.groupby(self.steps, key=lambda step: "{" in step.clamp):
            run = tuple(steps)
            if own:
                yield from ((step, here) for here in self.stations_of(run[0]) for step in run)
            else:
                yield from ((step, here) for step in run for here in self.stations_of(step))

    def stations_of(self, step: Step) -> tuple[str, ...]:
        """Where a step is asked."""
        if step.per != "station":
            return ("",)
        if not step.clamp or "{" in step.clamp or step.clamp == EVERY_CLAMP:
            return self.card.arrangement.stations
        return self.card.arrangement.clamp(step.clamp).stations

    def _row(self, step: Step, station: str, before: Mapping[str, list[Row]], due: bool) -> Row:
        mine = self._of_step.get((step.id, station), ())
        counting = [row for row in mine if self.counts(row)] if mine else []
        skips = [row for row in counting if row.kind == "skip"] if counting else []
        clamp = step.clamp_at(station)
        at = At(
            step=step,
            station=station,
            clamp=clamp,
            closing=self.closing_of(clamp),
            entries=tuple(row for row in counting if row not in skips),
            beside=self._of_clamp.get(clamp, ()) if clamp else self._here(mine),
            card=self.card,
            lead=self.lead,
            roots=self.roots,
            axle=self.axle,
            others=self.counting,
            chosen=self.choice,
        )
        stale = tuple(row for row in mine if row not in counting) if mine else ()
        complete = ASKING[step.entry].complete(at)
        begun = bool(at.entries) and not complete
        if (step.remedy and not begun) or (step.phase == "trial" and self.phase == "final"):
            return Row(at, "past", stale)
        if stale and self._overtaken(step) and not at.entries:
            return Row(at, "past", stale)
        if complete:
            return Row(at, "done", stale)
        if skips:
            return Row(at, "skipped", stale, skips[-1])
        if step.phase == "final" and self.phase == "trial":
            return Row(at, "later", stale)
        waits = _waits(step, station, before)
        return Row(at, "waits" if waits else "later" if due else "due", stale, None, waits)

    def _here(self, mine: Sequence[Written]) -> tuple[Written, ...]:
        """The rows of a step without a clamp in the closing that lasts, overtaken ones too."""
        return tuple(
            row for row in mine if row.kind != "skip" and row.closing == self.setting_closing
        )

    def counting(self, kind: str) -> tuple[Written, ...]:
        """The answers that count now of every step of a kind."""
        return tuple(
            row for row in self.entries_of(kind) if row.kind != "skip" and self.counts(row)
        )

    @cached_property
    def due(self) -> Row | None:
        """The one step that is due, or None where nothing is."""
        return next((row for row in self.rows if row.state == "due"), None)

    def in_stage(self, stage: str) -> tuple[Row, ...]:
        """The rows of one stage occurrence."""
        return self._by_stage.get(stage, ())

    @cached_property
    def _by_stage(self) -> Mapping[str, tuple[Row, ...]]:
        return _grouped(self.rows, lambda row: row.step.stage)

    def due_in(self, stage: str) -> Row | None:
        """What is due in a stage: its first open step that waits for nothing."""
        open_rows = (row for row in self.in_stage(stage) if not row.settled and not row.waits_for)
        return next((row for row in open_rows if not self._not_yet(row.step)), None)

    def _not_yet(self, step: Step) -> bool:
        return step.phase == "final" and self.phase == "trial"

    def stage_done(self, stage: str) -> bool:
        """Whether nothing is open in a stage."""
        rows = self.in_stage(stage)
        return bool(rows) and all(row.settled for row in rows)

    @property
    def current_stage(self) -> str:
        """Where the work stands: the stage of the due step, or the last one."""
        return self.due.step.stage if self.due else self.card.arrangement.stages[-1].key

    def of_kind(self, kind: str) -> tuple[Row, ...]:
        """The rows of every step of a kind."""
        return tuple(row for row in self.rows if row.step.kind == kind)

    def row(self, step: str, station: str) -> Row | None:
        """One step at one station, or None where it is not asked there."""
        found = (row for row in self.rows if row.step.id == step and row.station == station)
        return next(found, None)

    def entries_of(self, kind: str) -> tuple[Written, ...]:
        """Every row that stands of a kind of step, of all closings."""
        return self._of_kind.get(kind, ())

    @cached_property
    def _of_kind(self) -> Mapping[str, tuple[Written, ...]]:
        known = (row for row in self.standing if row.step in self.by_id)
        return _grouped(known, lambda row: self.by_id[row.step].kind)


def _grouped(rows: Iterable[_R], key: Callable[[_R], _K]) -> Mapping[_K, tuple[_R, ...]]:
    """Rows by what the key says of each, in their order."""
    found: dict[_K, list[_R]] = defaultdict(list)
    for row in rows:
        found[key(row)].append(row)
    return {name: tuple(one) for name, one in found.items()}


def progress_of(
    card: Card,
    log: Iterable[Written],
    *,
    lead: Lead = "metric",
    traits: Iterable[str] | None = None,
    axle: str = "",
    purpose: str = "service",
) -> Progress:
    """A unit as it stands: the steps that its card, its vehicle and what was found call for."""
    rows = tuple(log)
    left = standing(rows)
    chosen = {row.place: row.typed for row in left if row.kind == "choice"}
    steps = steps_of(
        card.arrangement, choices={**card.choices, **chosen},
        facts={**card.facts, "verdict": verdict_of(card, left)}, found=facts_found(card, left),
        traits=traits, card=card,
        added=added(card, left), purpose=purpose,
    )  # fmt: skip
    return Progress(card, steps, rows, lead, axle, purpose)


def _waits(step: Step, station: str, before: Mapping[str, list[Row]]) -> tuple[Step, ...]:
    """What a step waits for: where both are asked a station, only for its own."""
    waits: dict[str, Step] = {}
    for name in step.after:
        for row in before.get(name, ()):
            other_station = station and row.station and row.station != station
            if not other_station and not row.settled:
                waits[row.step.id] = row.step
    return tuple(waits.values())
