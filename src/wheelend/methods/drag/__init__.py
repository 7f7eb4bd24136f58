"""Setting by turning torque: trials with another spacer each, then again in the hub; or a pull, by shims."""

from dataclasses import dataclass
from functools import cached_property

from wheelend.methods.drag.assessing import Assessment, assess
from wheelend.methods.drag.claims import claims
from wheelend.methods.drag.lines import account, line_at, no_shim_cures
from wheelend.methods.judgement import Account, Bench, Claim, PlainJudgement, Remedy, remedy_at
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row

__all__ = ["DragJudgement", "judge"]


@dataclass(frozen=True)
class DragJudgement(PlainJudgement):
    """What the trials, and what was read in the hub, say."""

    @cached_property
    def found(self) -> Assessment:
        """The trials and the line through them."""
        return assess(self.bench)

    @property
    def is_set(self) -> bool:
        """Whether the last drag is inside, or a thumb found it so."""
        return self.found.is_set

    @property
    def claims(self) -> tuple[Claim, ...]:
        """What may be claimed of the setting."""
        return claims(self.found)

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step."""
        return line_at(self.found, row) or super().line(row)

    def remedy(self, row: Row) -> Remedy | None:
        """Too much or too little where it counts: opened, with another spacer. Where that tells nothing:
        read again."""
        read = self.found.row("drag")
        if (
            row.step.kind == "opening"
            and row.step.phase == "trial"
            and read
            and no_shim_cures(self.found)
        ):
            return Remedy(read.step.id, read.station, "", "Read it again", "")
        if not self.found.is_outside(row):
            return None
        return remedy_at(self.progress, "opened_again", "Open it: another spacer", "")

    def account(self, row: Row) -> Account | None:
        """It turns in the fork, or in the hub, as what is known to add does not explain."""
        return account(self.found, row)


def judge(bench: Bench) -> DragJudgement:
    """Judge a unit that is set by turning torque."""
    return DragJudgement(bench)
