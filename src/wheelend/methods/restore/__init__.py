"""Put back as it was: turning torque of the pinion and backlash of the carrier, before and after."""

from collections.abc import Iterator
from dataclasses import dataclass

from wheelend.methods.judgement import Bench, Claim, PlainJudgement, Remedy, remedy_at
from wheelend.procedure.asking.measured import verdict
from wheelend.procedure.progress import Row

__all__ = ["RestoreJudgement", "further", "judge"]

_RESTORED = {
    "turned_after": ("pinion", "Pinion turns as before"),
    "backlash_after": ("carrier", "Backlash as before"),
}


@dataclass(frozen=True)
class RestoreJudgement(PlainJudgement):
    """What was read after beside what was read before."""

    @property
    def is_set(self) -> bool:
        """Whether everything reads as before."""
        return all(claim.proven for claim in self.claims)

    @property
    def claims(self) -> tuple[Claim, ...]:
        """One claim for each thing that was read before and after."""
        return further(self.bench)

    def remedy(self, row: Row) -> Remedy | None:
        """Not as before: opened again, a sleeve that was passed renewed."""
        return remedy_of(self.bench, row)


def further(bench: Bench) -> tuple[Claim, ...]:
    """The claims of what is put back beside a leading setting."""
    return tuple(_claims(bench))


def _claims(bench: Bench) -> Iterator[Claim]:
    for kind, (key, name) in _RESTORED.items():
        for row in bench.progress.of_kind(kind):
            found = verdict(row.at)
            ids = tuple(one.id for one in row.at.entries)
            same = bool(found and found.words.endswith("as it was"))
            fact = (
                found.words if found and found.words else "not read" if not ids else "read in part"
            )
            yield Claim(key, name, same, fact, ids, blocks=bool(found and found.held))


def remedy_of(bench: Bench, row: Row) -> Remedy | None:
    """What is opened where it does not read as before."""
    found = verdict(row.at) if row.step.kind in _RESTORED else None
    if found is None or not found.held:
        return None
    if row.step.kind == "backlash_after":
        return remedy_at(bench.progress, "caps_off_again", "Caps off again", "")
    if "new sleeve" not in found.held:
        return None
    return remedy_at(bench.progress, "sleeve_passed", "Nut off: a new sleeve", "")


def judge(bench: Bench) -> RestoreJudgement:
    """Judge a unit that is put back as it was."""
    return RestoreJudgement(bench)
