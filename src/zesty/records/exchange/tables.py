"""Readings and trays as CSV, both ways; each line is checked before anything is saved."""

import csv
import io
import itertools
from collections.abc import Callable, Iterable
from dataclasses import dataclass

from django.db import transaction

from wheelend.endplay import clock_angle
from wheelend.errors import BadInput
from wheelend.procedure.allowed import FIGURES, SHIM, SHIMS_OF_ONE
from wheelend.quantity import LENGTH
from zesty.bench.actions.log import Say, write
from zesty.bench.forms import dial_in_use
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import User, Workshop
from zesty.stores.actions import hold_tray, put_count
from zesty.stores.models import Shim

TRAY_COLUMNS = ("nominal", "measured", "count")
READING_COLUMNS = ("clock", "push", "value")
_LEFT_OUT = ("closing", "corrected", "by", "at")
"""Columns that an exported table has for people, and that an import passes over."""
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


def readings_csv(unit: UnitFile) -> str:
    """Every reading of a unit as CSV, what stands and what was corrected."""
    stands = {row.id for row in unit.progress.standing}
    rows = [
        (row.place, row.kind, row.typed, str(row.closing), "" if row.pk in stands else "corrected",
         row.by_name, row.at.isoformat())
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


def _plain(cell: str) -> str:
    """A cell that a spreadsheet must not take for a formula."""
    risky = cell[:1] in "=@\t\r" or (
        cell[:1] in "+-" and not cell[1:2].isdigit() and cell[1:2] != "."
    )
    return f"'{cell}" if cell and risky else cell


def read_tray(text: str) -> list[Line]:
    """A tray's lines, each with what is wrong. Raises Refused where it is no such table."""
    return _lines(text, TRAY_COLUMNS, _wrong_shim)


def read_readings(text: str, unit: str) -> list[Line]:
    """Readings' lines, each with what is wrong; a bare number is in `unit`."""
    seen: set[tuple[str, str]] = set()

    def wrong(cells: dict[str, str]) -> str:
        place = (cells["clock"], cells["push"])
        fault = _wrong_reading(cells, unit) or ("is a place twice" if place in seen else "")
        seen.add(place)
        return fault

    return _lines(text, READING_COLUMNS, wrong)


def _lines(
    text: str, columns: tuple[str, ...], wrong: Callable[[dict[str, str]], str]
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
    lines = []
    for number, row in enumerate(rows[1:], 2):
        if not any(cell.strip() for cell in row):
            continue
        padded = [*row, *[""] * len(head)]
        said = {name: padded[head.index(name)].strip() for name in columns}
        lines.append(Line(number, said, wrong(said)))
    return lines


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
            clock_angle(cells["clock"])
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
    hold_tray(workshop)
    for line in lines:
        cells = line.cells
        measured = Typed.read(cells["measured"], LENGTH, "mm") if cells["measured"] else None
        nominal = Typed.read(cells["nominal"], LENGTH, "mm")
        put_count(workshop, nominal=nominal, measured=measured, count=int(cells["count"]))


def save_readings(
    file: JobFile, index: int, user: User, lines: list[Line], unit_shown: str
) -> JobFile:
    """Write a table's readings into the series that is being read, by the log's one writer."""
    _sound(lines)
    for line in lines:
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
