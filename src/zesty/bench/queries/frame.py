"""The frame of every stage: where it stands, the next line, the notebook, the one open step."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID, uuid4

from django.urls import reverse

from wheelend.arrangements import Occurrence
from wheelend.diagnose import table
from wheelend.methods import account_at, line_at, offered_at
from wheelend.methods.judgement import Account, Mark, Remedy
from wheelend.procedure.allowed import measured_check
from wheelend.procedure.asking import Line
from wheelend.procedure.asking.checks import FOUND
from wheelend.procedure.asking.checks import words as found_words
from wheelend.procedure.items.frame import NOTED
from wheelend.procedure.nextline import NextLine, waiting_line
from wheelend.procedure.progress import Row
from wheelend.procedure.together import advice
from zesty.bench.models import Entry
from zesty.bench.queries.beside import OtherUnit, RingView, beside, others, ring_of, stage_url
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.listed import ListView, list_view


@dataclass(frozen=True)
class Tab:
    """One stage in the rule: where it leads and how it stands."""

    key: str
    name: str
    short: str
    href: str
    state: str
    near: bool = False


@dataclass(frozen=True)
class Tap:
    """A row that can be tapped, and what it is shown as."""

    entry: Entry
    words: str


@dataclass(frozen=True)
class NoteLine:
    """One line of the notebook as it is shown. What stands in `taps` can be corrected by a tap; an item
    of a list, or a check, is answered again where `again` leads."""

    number: int
    text: str
    value: str
    state: str
    note: str = ""
    taps: tuple[Tap, ...] = ()
    again: str = ""


@dataclass(frozen=True)
class Panel:
    """Something that a stage shows beside its steps: a template and what it needs."""

    template: str
    context: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Scene:
    """What a stage draws: wide and narrow, panels below it, one under the steps, its own line."""

    drawing: str = ""
    narrow: str = ""
    panels: tuple[Panel, ...] = ()
    foot: Panel | None = None
    line: NextLine | None = None
    ask: str = ""
    more: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Again:
    """A step that may be done once more: another dial, the torque again."""

    href: str
    words: str


@dataclass(frozen=True)
class Page:
    """Everything that a stage's page shows, for GET and POST alike."""

    file: JobFile
    unit: UnitFile
    stage: Occurrence
    tabs: tuple[Tab, ...]
    line: NextLine
    before: tuple[NoteLine, ...]
    row: Row | None
    after: tuple[NoteLine, ...]
    scene: Scene
    on_to: Tab | None
    last: Entry | None
    note: str
    cautions: tuple[str, ...] = ()
    again: tuple[Again, ...] = ()
    ring: RingView | None = None
    listed: ListView | None = None
    settle: Mark | None = None
    settle_token: UUID = field(default_factory=uuid4)
    remedy: Remedy | None = None
    account: Account | None = None
    remedy_token: UUID = field(default_factory=uuid4)
    photos: tuple[Entry, ...] = ()
    takes_photos: bool = False
    photo_token: UUID = field(default_factory=uuid4)
    others: tuple[OtherUnit, ...] = ()
    together: str = ""

    @property
    def write_to(self) -> str:
        """Where the open step's answer is sent."""
        return reverse("stages:write", args=[self.file.job.pk, self.unit.index, self.stage.key])

    @property
    def last_words(self) -> str:
        """The last thing written, in words: what would be taken back."""
        if self.last is None:
            return ""
        step = self.unit.progress.by_id.get(self.last.step)
        says = step.says if step else self.last.step
        if self.last.kind == FOUND:
            return f"{table().check(self.last.place).says}: {found_words(self.last.typed)}"
        if self.last.kind == "value" and step and step.entry == "checks":
            return f"{measured_check(self.last.place).says}: {self.last}"
        if self.last.kind == NOTED:
            return f"{says}: {self.last.typed.replace('_', ' ')}"
        plain = self.last.kind in ("done", "bolt", "moved", "skip")
        said = self.last.place.partition(".")[2] if self.last.kind == "bolt" else str(self.last)
        return f"{says}" if plain and not said.isdigit() else f"{says}: {said}"


def page_of(
    file: JobFile,
    unit: UnitFile,
    stage: str,
    scene: Scene,
    *,
    at: tuple[str, str] | None = None,
    place: str = "",
) -> Page:
    """A stage of a unit as it stands. `at` opens another step than the one that is due, `place`
    another item of its list."""
    progress = unit.progress
    rows = progress.in_stage(stage)
    due = progress.due_in(stage) if file.job.is_open else None
    if at and file.job.is_open:
        due = next((row for row in rows if (row.step.id, row.station) == at), due)
    before, after = _notebook(unit, rows, due)
    listed = list_view(due, place) if due and due.step.entry == "list" else None
    tabs = _tabs(file, unit, stage)
    return Page(
        file=file,
        unit=unit,
        stage=progress.card.arrangement.occurrence(stage),
        tabs=tabs,
        line=scene.line or (listed and _list_line(listed, due)) or _line(unit, rows, due, stage),
        before=before,
        row=due,
        after=after,
        scene=scene,
        on_to=_on_to(unit, tabs, stage) if due is None else None,
        last=file.last_entry if file.job.is_open else None,
        note="" if scene.line else _note(file),
        cautions=due.step.cautions if due else (),
        again=(*_again(rows, due), *_open_again(file, unit, due)),
        settle=unit.judgement.mark(due) if due else None,
        remedy=offered_at(unit.bench, unit.judgement, due) if due else None,
        account=account_at(unit.bench, unit.judgement, due) if due else None,
        listed=listed,
        photos=_photos(file, unit),
        takes_photos=unit.card.arrangement.occurrence(stage).stage in _PHOTO_STAGES,
        others=others(file, unit),
        together=advice(due, beside(file, unit)),
        ring=ring_of(due, unit.lead) if due and due.step.entry == "bolts" else None,
    )


_AGAIN = {
    "dial": "another dial, or it was moved",
    "torque": "torque again",
    "checks": "look at something else",
    "list": "add to it, or answer again",
    "band": "read it again",
}


def _again(rows: Sequence[Row], due: Row | None) -> Iterator[Again]:
    for row in rows:
        if row.step.entry in _AGAIN and row.at.entries and row is not due and row.state == "done":
            where = f" ({row.station})" if row.station not in ("", "main") else ""
            what = f"{row.step.says.lower()}: " if row.step.entry in ("list", "band") else ""
            href = f"?step={row.step.id}&station={row.station}"
            yield Again(href, what + _AGAIN[row.step.entry] + where)


def _open_again(file: JobFile, unit: UnitFile, due: Row | None) -> Iterator[Again]:
    """After the last closing it can be opened all the same, each opening by what is done there."""
    if unit.progress.phase != "final" or due is None:
        return
    for row in unit.progress.of_kind("opening"):
        where = stage_url(file, unit, row.step.stage)
        words = re.split(r"[.:,]", row.step.asks)[0].lower()
        yield Again(f"{where}?step={row.step.id}&station={row.station}", words)


def _line(unit: UnitFile, rows: Sequence[Row], due: Row | None, stage: str) -> NextLine:
    if due:
        return line_at(unit.bench, unit.judgement, due)
    waiting = next((row for row in rows if not row.settled), None)
    if waiting:
        return waiting_line(waiting)
    name = unit.card.arrangement.occurrence(stage).name
    where = unit.progress.current_stage
    on = unit.card.arrangement.occurrence(where).name.lower()
    why = f"On to: {on}." if where != stage else ""
    return NextLine("set", f"{name}:", "done", ".", why)


_PHOTO_STAGES = frozenset({"strip", "clean", "match"})
"""Where the old parts lie, and a photograph tells most."""


def _photos(file: JobFile, unit: UnitFile) -> tuple[Entry, ...]:
    """The photographs of a unit that stand."""
    taken_back = {row.corrects_id for row in file.entries}
    mine = (row for row in unit.entries if row.kind == "photo")
    return tuple(row for row in mine if row.pk not in taken_back)


def _list_line(listed: ListView, row: Row | None) -> NextLine | None:
    """The item that is due, as a question; what holds it stands before that."""
    item = listed.due
    if item is None or row is None:
        return None
    if item.held:
        return NextLine("stop", f"{_upper(item.words)}:", item.stop, ".", item.held)
    if item.asks:
        return NextLine(row.step.kind, item.asks, "", "", item.why or row.step.why)
    asks = row.step.asks.rstrip(".:?")
    return NextLine(row.step.kind, f"{asks}:", item.words, ".", row.step.why)


def _upper(words: str) -> str:
    return words[:1].upper() + words[1:]


def _note(file: JobFile) -> str:
    job = file.job
    if job.is_open or job.ended_at is None:
        return ""
    why = f": {job.state_reason}" if job.state_reason else ""
    return f"{job.get_state_display().capitalize()} {job.ended_at:%d %b %Y %H:%M}{why}. This job is read only."


def _tabs(file: JobFile, unit: UnitFile, here: str) -> tuple[Tab, ...]:
    progress = unit.progress
    passed = {row.step.stage for row in progress.rows}
    stages = [
        one for one in progress.card.arrangement.stages if one.key in passed or one.key == here
    ]
    current = progress.current_stage
    keys = [one.key for one in stages]
    shown = keys.index(here)
    tabs = []
    for index, one in enumerate(stages):
        done = progress.stage_done(one.key)
        state = (
            "here"
            if one.key == here
            else "done"
            if done
            else "due"
            if one.key == current
            else "open"
        )
        href = stage_url(file, unit, one.key)
        tabs.append(Tab(one.key, one.name, one.short, href, state, abs(index - shown) <= 1))
    return tuple(tabs)


def _on_to(unit: UnitFile, tabs: Sequence[Tab], stage: str) -> Tab | None:
    """Where the work goes on: the stage of the step that is due, or the next one."""
    current = unit.progress.current_stage
    return next((tab for tab in tabs if tab.key == current and tab.key != stage), None)


_LINE_BY_LINE = frozenset({"series", "checks", "list", "measure", "band", "stand_out", "turns"})
"""Ways of asking of which each answer has a line of its own, and only one is open."""


def _notebook(
    unit: UnitFile, rows: Sequence[Row], due: Row | None
) -> tuple[tuple[NoteLine, ...], tuple[NoteLine, ...]]:
    """The lines before and after the open step; a series has one for each of its places."""
    by_id = {entry.pk: entry for entry in unit.entries}
    before: list[NoteLine] = []
    after: list[NoteLine] = []
    passed = False
    number = 0
    for row in rows:
        if row.step.remedy and row is not due and not row.at.entries:
            continue  # Nobody needed it.
        for line in row.asked.lines(row.at):
            number += 1
            open_here = row is due and (line.due or row.step.entry not in _LINE_BY_LINE)
            if open_here:
                passed = True
                continue
            entries = tuple(by_id[one.id] for one in line.rows if one.id in by_id)
            made = _note_line(number, row, line, entries)
            (after if passed else before).append(made)
    return tuple(before), tuple(after)


def _note_line(number: int, row: Row, line: Line, entries: tuple[Entry, ...]) -> NoteLine:
    state, note, value = row.state, "", line.value
    if row.state == "skipped" and row.skipped:
        note, value = f"left out: {row.skipped.reason}", "left out"
    elif row.state == "past":
        state = "done"
    elif row.stale and not entries and row.step.phase != "trial":
        turned = row.stale[-1].closing == row.at.closing
        note = f"done before it was {'torqued again' if turned else 'opened'}; due again"
    elif row.waits_for and row.waits_for[0].stage != row.step.stage:
        note = f"after: {row.waits_for[0].says.lower()}"
    if entries and state not in ("done", "skipped"):
        state = "part"
    again = ""
    if row.step.entry in ("list", "checks") and entries and entries[-1].place:
        again = f"?step={row.step.id}&station={row.station}&place={entries[-1].place}"
    return NoteLine(number, line.text, value, state, note, _taps(value, entries), again)


_CORRECTABLE = frozenset({"in", "out", "value", "text"})


def _taps(value: str, entries: tuple[Entry, ...]) -> tuple[Tap, ...]:
    """Readings stand one by one; any other answer as its line has it."""
    if not entries or entries[-1].kind not in _CORRECTABLE:
        return ()
    if entries[-1].kind in ("in", "out"):
        return tuple(Tap(one, one.typed.removesuffix(" mm")) for one in entries)
    return (Tap(entries[-1], value),)
