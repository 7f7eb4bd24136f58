"""A log that no rule can judge: which row stands in the way, and the log itself, bare."""

from dataclasses import dataclass, replace

from zesty.bench.models import Entry
from zesty.bench.queries.jobfile import RULE_ERRORS, JobFile, UnitFile


@dataclass(frozen=True)
class BareLog:
    """Everything that was written about a unit, newest first, and the row that can't be judged."""

    file: JobFile
    unit: UnitFile
    stage: str
    why: str
    culprit: Entry | None
    entries: tuple[Entry, ...]
    corrected: frozenset[int | None]


def bare_log(file: JobFile, unit: UnitFile, stage: str, why: str) -> BareLog:
    """The page of a unit whose rule failed."""
    return BareLog(
        file=file,
        unit=unit,
        stage=stage,
        why=why,
        culprit=culprit_of(unit),
        entries=tuple(reversed(unit.entries)),
        corrected=frozenset(row.corrects_id for row in unit.entries),
    )


def culprit_of(unit: UnitFile) -> Entry | None:
    """The row with which the log can no longer be judged, or None where that is no row's fault.

    Halves the log until one row is left: without it the rules work, with it they fail.
    """
    if _judges(unit, len(unit.entries)) or not _judges(unit, 0):
        return None
    sound, faulty = 0, len(unit.entries)
    while faulty - sound > 1:
        middle = (sound + faulty) // 2
        if _judges(unit, middle):
            sound = middle
        else:
            faulty = middle
    return unit.entries[faulty - 1]


def _judges(unit: UnitFile, upto: int) -> bool:
    some = replace(unit, entries=unit.entries[:upto])
    try:
        _ = [row.asked.lines(row.at) for row in some.progress.rows], some.judgement, some.claims
    except RULE_ERRORS:
        return False
    return True
