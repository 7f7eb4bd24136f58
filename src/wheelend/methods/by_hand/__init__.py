"""Setting by hand: what was done is written, nothing is proven by it."""

from dataclasses import dataclass

from wheelend.methods.judgement import Bench, Claim, PlainJudgement
from wheelend.wording import both

__all__ = ["ByHandJudgement", "judge"]


@dataclass(frozen=True)
class ByHandJudgement(PlainJudgement):
    """Hands cannot feel what a specification allows."""

    @property
    def is_set(self) -> bool:
        """Whether the steps of setting are done."""
        rows = [row for row in self.bench.progress.rows if row.step.kind in ("torque", "reading")]
        return all(row.settled for row in rows)

    @property
    def claims(self) -> tuple[Claim, ...]:
        """One claim, never proven."""
        progress = self.bench.progress
        hands = progress.card.hands
        fact = "judged by hand"
        if hands:
            fact += f": hands feel {both(hands.smallest_felt_mm, lead=self.bench.lead)} of play and more here"
        if progress.verdict == "nothing_wrong":
            found = progress.of_kind("checked") + progress.of_kind("verdict")
            rows = tuple(entry.id for row in found for entry in row.at.entries)
            return (Claim("setting", "Nothing wrong found, not opened", False, fact, rows),)
        return (Claim("setting", "Setting is inside", False, fact),)


def judge(bench: Bench) -> ByHandJudgement:
    """Judge a unit that is set by hand."""
    return ByHandJudgement(bench)
