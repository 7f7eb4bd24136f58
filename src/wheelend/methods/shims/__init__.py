"""Setting by shims, play measured: trials, the plan, the verdict, the claims."""

from dataclasses import dataclass

from wheelend.methods.judgement import Bench, Claim, Mark, PlainJudgement
from wheelend.methods.shims.acting import mark_of, next_act
from wheelend.methods.shims.assessing import Assessment
from wheelend.methods.shims.claims import claims
from wheelend.methods.shims.nextline import judged, judges, line_at
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row

__all__ = ["Assessment", "ShimsJudgement", "claims", "judge", "judged"]


@dataclass(frozen=True)
class ShimsJudgement(PlainJudgement):
    """What the trials say."""

    found: Assessment

    @property
    def is_set(self) -> bool:
        """Whether the latest pack is inside, or hands found it free."""
        return self.found.is_set or self.found.judged_by_hand

    @property
    def claims(self) -> tuple[Claim, ...]:
        """What may be claimed of the setting."""
        return claims(self.found)

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step."""
        return line_at(self.found, row)

    def mark(self, row: Row) -> Mark | None:
        """What settles a doubt by one tap, once a series is whole and before anything else is done."""
        now = self.found.now
        if now is None or not now.series.complete or not judges(self.found, row):
            return None
        return mark_of(self.found, next_act(self.found))


def judge(bench: Bench) -> ShimsJudgement:
    """Judge a unit that is set by shims."""
    return ShimsJudgement(bench, Assessment(bench))
