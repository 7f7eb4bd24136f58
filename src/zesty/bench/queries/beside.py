"""What stands beside the steps of a unit: the other units of its job, and a ring of bolts while it is drawn."""

from dataclasses import dataclass
from functools import lru_cache

from django.urls import reverse

from wheelend.procedure.asking.bolts import ringed
from wheelend.procedure.progress import Row
from wheelend.procedure.together import Beside
from wheelend.wording import Lead, torque
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.boltcircle import bolt_circle


@dataclass(frozen=True)
class RingView:
    """A ring of bolts while it is drawn down: its circle, the bolt that is due, what to do."""

    drawing: str
    words: str
    due: int
    checking: bool


@dataclass(frozen=True)
class OtherUnit:
    """Another unit of the job: where it is, what is due there, and what was read there."""

    name: str
    href: str
    due: str
    read: str


def stage_url(file: JobFile, unit: UnitFile, stage: str) -> str:
    """Where a stage of a unit is."""
    return _stage_url(file.job.pk, unit.index, stage)


@lru_cache(maxsize=2048)
def _stage_url(job: int, index: int, stage: str) -> str:
    return reverse("stages:page", args=[job, index, stage])


def beside(file: JobFile, unit: UnitFile) -> tuple[Beside, ...]:
    return tuple(
        Beside(one.unit.name, one.progress) for one in file.units if one.index != unit.index
    )


def others(file: JobFile, unit: UnitFile) -> tuple[OtherUnit, ...]:
    """The other units of the job; their readings stand beside those of this one."""
    found = []
    for one in file.units:
        due = one.progress.due
        if one.index == unit.index:
            continue
        measured = next((claim for claim in one.claims if claim.measured), None)
        read = measured.fact.partition(";")[0].partition(", ")[0] if measured else ""
        said = f"next: {due.step.says.lower()}" if due else "nothing is due"
        href = stage_url(file, one, one.progress.current_stage)
        found.append(OtherUnit(one.unit.name, href, said, read))
    return tuple(found)


def ring_of(row: Row, lead: Lead) -> RingView | None:
    found = ringed(row.at)
    if found is None or not found.due:
        return None
    circle = bolt_circle(found.ring.bolts, found.order, found.ticked)
    where = f"{row.station} plate, " if row.station not in ("", "main") else ""
    words = f"{where}bolt {found.due} to {torque(found.torque_N_m, lead)}"
    if found.checking:
        words = f"{where}bolt {found.due} once more at {torque(found.torque_N_m, lead)}: does it still move?"
    if row.step.closes and found.lap > 1 and found.due == found.order[0]:
        words = f"turn the hub; then {words}"
    return RingView(circle, words[0].upper() + words[1:], found.due, found.checking)
