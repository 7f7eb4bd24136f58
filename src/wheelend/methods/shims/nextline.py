"""What to do next with a shimmed wheel end, in one sentence with its numbers, and why."""

from wheelend.methods.shims.acting import next_act
from wheelend.methods.shims.actlines import LINES
from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.words import (
    felt,
    in_mm,
    read_words,
    step_of,
    swap_words,
)
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.frame import place_words
from wheelend.procedure.locking import lock_line
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.wording import both, count, pack

_PUSH = {"in": "push in", "out": "pull out"}


def line_at(found: Assessment, row: Row) -> NextLine | None:
    """What to do at a step; None where the step says it itself."""
    if row.step.kind == "pack":
        return _refit(found, row) if row.step.phase == "final" else _fit(found, row)
    if row.step.kind in ("reading", "locked_reading"):
        return _read(found, row)
    if judges(found, row):
        return judged(found)
    return lock_line(found.bench.progress, row)


def judges(found: Assessment, row: Row) -> bool:
    """Whether a step comes right after a series: what was read is judged before it.

    The opening after a trial; after the reading at the lock whatever is next, unless all is well.
    """
    if row.step.kind == "opening":
        return True
    locked = found.now is not None and found.now.locked and found.now.series.complete
    return row.step.kind == "cap" and locked and not found.is_set


def judged(found: Assessment) -> NextLine:
    """What the readings say once all are there: the next best act, in words."""
    act = next_act(found)
    return LINES[act.kind](found, act)


def _fit(found: Assessment, row: Row) -> NextLine:
    choice = found.choice
    if found.last is None or found.disagreement():
        why = row.step.why
        if (
            found.bench.progress.card.chosen("trials_from", found.bench.progress.chosen)
            == "over_shim"
        ):
            why = "This card starts open: fit more than it will take, so that there is play, and come down."
        if not found.bench.tray:
            why += " The tray is empty: what you fit now is all there is to plan with."
        return NextLine("pack", "Which", "shims", f"go in{_at(row)}?", why)
    if choice is None:
        return NextLine(
            "pack",
            "Which",
            "shims",
            f"go in{_at(row)}?",
            read_words(found),
        )
    mine = choice.pack[_index(found, row)]
    why = swap_words(found, choice).capitalize() + "."
    return NextLine("pack", "Fit", pack(mine, found.bench.names), f"{_at(row)}.", why)


def _refit(found: Assessment, row: Row) -> NextLine:
    last = found.last
    if last is None:
        return NextLine("pack", row.step.asks, "", "", row.step.why)
    mine = pack(last.pack[_index(found, row)], found.bench.names)
    return NextLine("pack", "Refit the identical pack,", mine, f"{_at(row)}.", row.step.why)


def _at(row: Row) -> str:
    return f", {row.station}" if row.station not in ("", "main") else ""


def _index(found: Assessment, row: Row) -> int:
    return found.bench.progress.card.arrangement.setting_clamp.stations.index(row.station)


def _read(found: Assessment, row: Row) -> NextLine:
    dial = found.bench.progress.row("dial", "")
    set_up = dial.at.entries[-1] if dial and dial.at.entries else None
    if set_up and set_up.instrument is None:
        why = f"{felt(found)}: less passes unfelt, so a setting judged so is not proven."
        return NextLine(
            "feel", "Hold at 12 and 6,", "push and pull", ", then say what you feel.", why
        )
    slot = row.slot
    if not slot.push:
        return judged(found)
    words = f"{_PUSH[slot.push].capitalize()} at"
    if base_of(slot.place) != slot.place:
        return NextLine(
            "read", words, place_words(slot.place), ", hold, read.", _why_again(found, row)
        )
    left = 2 * len(found.bench.progress.card.places) - len(_now_rows(row))
    why = f"{count(left, 'reading')} to go. Turn only the hub; the dial’s base stays. {_expected(found)}"
    return NextLine("read", words, place_words(slot.place), ", hold, read.", why.strip())


def _why_again(found: Assessment, row: Row) -> str:
    """Why a place is read again, with what the odd reading may have been."""
    series = found.now.series if found.now else None
    if series is not None and row.slot.place in series.settling:
        return (
            "Seat both ways at working torque first: this one reading tells whether it is this trial "
            "or the packs."
        )
    apart = found.place_apart
    if apart is None:
        return "One reading alone can’t show a slip: read it once more before it is believed."
    first = found.place_causes[0]
    here = in_mm(found, apart.play_mm + apart.unexplained_mm)
    said = f"{apart.place.capitalize()} read {here}, the rest {in_mm(found, apart.play_mm)}."
    return f"{said} {first.because or first.text}"


def _now_rows(row: Row) -> list[object]:
    return [one for line in row.asked.lines(row.at) for one in line.rows]


def _expected(found: Assessment) -> str:
    if found.expected_mm is None:
        return ""
    if found.expected_mm < 0:
        return "Earlier trials say it will bind."
    says = both(found.expected_mm, step_of(found), found.bench.lead)
    return f"Earlier trials say {says} of play for this pack."
