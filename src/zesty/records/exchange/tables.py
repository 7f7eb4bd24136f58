"""Readings and trays as CSV, both ways; each line is checked before anything is saved."""

import csv
import io
import itertools
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from uuid import uuid4

from django.db import transaction

from wheelend.circle import clock_angle
from wheelend.errors import BadInput
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.readings import ReadingsAsked
from wheelend.procedure.figures import FIGURES, SHIM, SHIMS_OF_ONE
from wheelend.quantity import LENGTH, is_quantity
from zesty.bench.actions.log import Say, mark, write
from zesty.bench.forms import dial_in_use
from zesty.bench.queries.jobfile import JobFile
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import User, Workshop
from zesty.stores.actions import Count, put_counts
from zesty.stores.models import Shim

TRAY_COLUMNS = ("nominal", "measured", "count")
READING_COLUMNS = ("clock", "push", "value")
_LEFT_OUT = ("unit", "closing", "series", "corrected", "by", "at")
"""What an exported table says besides: which series a reading belongs to, and whether it stands."""
MOST_LINES = 5000


@dataclass(frozen=True)
class Line:
    """One line of a table: its number, what it says, and what is wrong with it (empty: nothing)."""

    number: int
    cells: dict[str, str]
    wrong: str


def tray_csv(workshop: Workshop) -> str:
    """The tray as CSV."""
    shims = Shim.objects.filter(workshop=workshop)
    return _written(TRAY_COLUMNS, ((one.nominal, one.measured, str(one.count)) for one in shims))


def readings_csv(file: JobFile) -> str:
    """Every reading of a job as CSV, what stands and what was corrected."""
    rows = [
        (row.place, row.kind, row.typed, str(unit.index), str(row.closing), str(row.round),
         "" if row.pk in {one.id for one in unit.progress.standing} else "corrected",
         row.by_words, row.at.isoformat())
        for unit in file.units
        for row in unit.entries
        if row.kind in ("in", "out")
    ]  # fmt: skip
    return _written((*READING_COLUMNS, *_LEFT_OUT), rows)


def _written(columns: Iterable[str], rows: Iterable[Iterable[str]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(columns)
    writer.writerows([[_plain(cell) for cell in row] for row in rows])
    return out.getvalue()


_RUNS = frozenset("=+-@|\t\r\n＝＋－＠−")
"""What a spreadsheet may take for the beginning of a formula."""


def _plain(cell: str) -> str:
    """A cell that a spreadsheet must not take for a formula; a plain quantity stays what it is.

    What a person began with apostrophes gets one more, so that `_bare` gives theirs back.
    """
    said = cell.lstrip("'")
    risky = said[:1] in _RUNS or said.lstrip()[:1] in _RUNS
    return f"'{cell}" if cell and risky and not is_quantity(cell) else cell


def _bare(cell: str) -> str:
    """A cell as it was before it was made harmless."""
    return cell[1:] if cell[:1] == "'" and _plain(cell[1:]) == cell else cell


def read_tray(text: str) -> list[Line]:
    """A tray's lines, each with what is wrong. Raises Refused where it is no such table."""
    return _lines(text, TRAY_COLUMNS, _wrong_shim)


def read_readings(text: str, unit: str) -> list[Line]:
    """Readings' lines, each with what is wrong; a bare number is in `unit`.

    Of a table that we wrote, the last series of each unit counts; what was corrected does not.
    """
    seen: set[tuple[str, str]] = set()

    def wrong(cells: dict[str, str]) -> str:
        place = (cells["clock"], cells["push"])
        fault = _wrong_reading(cells, unit) or ("is a place twice" if place in seen else "")
        seen.add(place)
        return fault

    return _lines(text, READING_COLUMNS, wrong, _last_series)


Rows = list[dict[str, str]]


def _last_series(rows: Rows) -> Rows:
    """The rows of the last series that a table has, without what was corrected."""
    standing = [row for row in rows if row.get("corrected", "") != "corrected"]
    series = [
        tuple(row.get(name, "") for name in ("unit", "closing", "series")) for row in standing
    ]
    return [row for row, one in zip(standing, series, strict=True) if one == series[-1]]


def _lines(
    text: str,
    columns: tuple[str, ...],
    wrong: Callable[[dict[str, str]], str],
    choose: Callable[[Rows], Rows] = list,
) -> list[Line]:
    reader = csv.reader(io.StringIO(text.lstrip("\ufeff")))
    try:
        # One more than may be: enough to see that there are too many.
        rows = list(itertools.islice(reader, MOST_LINES + 2))
    except csv.Error as error:
        raise Refused(f"This is not CSV: {error}.") from None
    head = [name.strip().lower() for name in rows[0]] if rows else []
    missing = [name for name in columns if name not in head]
    if missing:
        raise Refused(
            f"The first line must name the columns {', '.join(columns)}; missing: {', '.join(missing)}."
        )
    if len(rows) > MOST_LINES + 1:
        raise Refused(f"There are more than {MOST_LINES} lines; split the table.")
    said = [
        {
            name: _bare(cell.strip())
            for name, cell in zip(head, [*row, *[""] * len(head)], strict=False)
        }
        | {_NUMBER: str(number)}
        for number, row in enumerate(rows[1:], 2)
        if any(cell.strip() for cell in row)
    ]
    return [Line(int(row[_NUMBER]), {name: row[name] for name in columns}, wrong(row))
            for row in choose(said)]  # fmt: skip


_NUMBER = "line number"


def _wrong_shim(cells: dict[str, str]) -> str:
    for name in ("nominal", "measured"):
        if name == "measured" and not cells[name]:
            continue
        try:
            Typed.within(cells[name], SHIM)
        except BadInput as bad:
            return f"{name}: {bad.given} {bad.need}"
    count = cells["count"]
    if not (count.isascii() and count.isdigit() and len(count) < 6 and int(count) <= SHIMS_OF_ONE):
        return f"count: “{count[:40]}” is not a whole number from 0 to {SHIMS_OF_ONE}"
    return ""


def _wrong_reading(cells: dict[str, str], unit: str) -> str:
    if cells["push"] not in ("in", "out"):
        return f"push: “{cells['push']}” is not in or out"
    try:
        if cells["clock"][:1].isdigit():
            clock_angle(base_of(cells["clock"]))
        Typed.within(cells["value"], FIGURES["series"], unit)
    except BadInput as bad:
        return f"{bad.path or 'value'}: {bad.given} {bad.need}"
    return ""


def _sound(lines: list[Line]) -> None:
    faults = [line for line in lines if line.wrong]
    if faults or not lines:
        raise Refused(
            f"Line {faults[0].number}: {faults[0].wrong}." if faults else "There is no line in it."
        )


@transaction.atomic
def save_tray(workshop: Workshop, lines: list[Line]) -> None:
    """Counts become the table's; thicknesses that it does not name stay as they are."""
    _sound(lines)
    put_counts(workshop, [_count(line.cells) for line in lines])


def _count(cells: dict[str, str]) -> Count:
    measured = Typed.read(cells["measured"], LENGTH, "mm") if cells["measured"] else None
    return Count(Typed.read(cells["nominal"], LENGTH, "mm"), measured, int(cells["count"]))


def save_readings(
    file: JobFile, index: int, user: User, lines: list[Line], unit_shown: str
) -> JobFile:
    """Write a table's readings into the series that is being read, by the log's one writer."""
    _sound(lines)
    for line in lines:
        file = _asked_again(file, index, user, line.cells["clock"])
        unit = file.unit(index)
        row = next(
            (r for r in unit.progress.rows if r.step.entry == "series" and r.state == "due"), None
        )
        if row is None:
            raise Refused(f"Line {line.number}: no reading is due. Fit a pack and torque it first.")
        used = dial_in_use(unit) or {}
        typed = Typed.read(line.cells["value"], LENGTH, unit_shown)
        say = Say(
            step=row.step.id, kind=line.cells["push"], place=line.cells["clock"], typed=typed.text,
            value=typed.value, instrument=file.instrument(used.get("pk")), sure=True,
            facts={key: used[key] for key in ("dial_at", "turned") if key in used},
        )  # fmt: skip
        file = write(file, unit, user, say)
    return file


def _asked_again(file: JobFile, index: int, user: User, place: str) -> JobFile:
    """The file where a place that was read again may be written, though nothing here asks for it."""
    unit = file.unit(index)
    read = [r for r in unit.progress.rows if r.step.entry == "series" and r.at.entries]
    series = ReadingsAsked().series(read[-1].at) if read else None
    if base_of(place) == place or series is None or place in series.places:
        return file
    return mark(
        file, unit, user, step=read[-1].step.id, closing=read[-1].at.closing, number=series.round,
        kind="again", place=place, reason="read again in the table that it came with", token=uuid4(),
    )  # fmt: skip
