"""Put back as it was: turning torque of the pinion and backlash of the carrier, before and after."""

from collections.abc import Iterator
from dataclasses import dataclass

from wheelend.methods.judgement import (
    Account,
    Bench,
    Claim,
    PlainJudgement,
    Remedy,
    account_at,
    remedy_at,
)
from wheelend.procedure.adding import Added, added
from wheelend.procedure.asking.measured import verdict
from wheelend.procedure.nextline import NextLine
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

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step."""
        return line_of(self.bench, row) or super().line(row)

    def remedy(self, row: Row) -> Remedy | None:
        """Not as before: opened again, a sleeve that was passed renewed."""
        return remedy_of(self.bench, row)

    def account(self, row: Row) -> Account | None:
        """The pinion turns harder than before: a new seal may add to it."""
        return account_of(self.bench, row)


def further(bench: Bench) -> tuple[Claim, ...]:
    """The claims of what is put back beside a leading setting."""
    return tuple(_claims(bench))


def _claims(bench: Bench) -> Iterator[Claim]:
    for kind, (key, name) in _RESTORED.items():
        for row in bench.progress.of_kind(kind):
            found = verdict(row.at)
            seal = _seal(bench) if kind == "turned_after" else ()
            ids = tuple(one.id for one in (*row.at.entries, *(r for s in seal for r in s.rows)))
            same = bool(found and found.words.endswith("as it was"))
            same = same and all(one.carries for one in seal)
            fact = (
                found.words if found and found.words else "not read" if not ids else "read in part"
            )
            yield Claim(key, name, same, fact, ids, blocks=bool(found and found.held))


def _seal(bench: Bench) -> tuple[Added, ...]:
    """What somebody says that a new pinion seal adds to the old one."""
    return added(bench.progress.card, bench.progress.counting, ["seal_drag"], measured_only=True)


def line_of(_: Bench, row: Row) -> NextLine | None:
    """Not as before: by how much, and what to do; None where it is, or was not read yet."""
    found = verdict(row.at) if row.step.kind in _RESTORED else None
    if found is None or not found.held:
        return None
    return NextLine(
        "stop", f"{row.step.says}:", "not as before", ".", f"{found.words}. {found.held}"
    )


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


def account_of(bench: Bench, row: Row) -> Account | None:
    """The pinion turns harder than before, and nobody said what its new seal adds."""
    after = next(iter(bench.progress.of_kind("turned_after")), None)
    found = verdict(after.at) if after else None
    if found is None or after is None or row.step.stage != after.step.stage:
        return None
    if not found.words or found.words.endswith("as it was") or "not compared" in found.words:
        return None
    return account_at(bench.progress, f"{found.words}.", "seal_drag")


def judge(bench: Bench) -> RestoreJudgement:
    """Judge a unit that is put back as it was."""
    return RestoreJudgement(bench)
