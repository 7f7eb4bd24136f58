"""Set by its stack: every part in, each ring pressed home, the nut at its torque, and it spins."""

from dataclasses import dataclass

from wheelend.methods.judgement import Bench, Claim, PlainJudgement
from wheelend.procedure.progress import Row

__all__ = ["StackJudgement", "judge"]

_NEEDS = ("spacer_fit", "cup_home", "spacer_in", "assembled", "seated", "torque", "turns")
"""What makes a stack right, each asked where it happens."""


@dataclass(frozen=True)
class StackJudgement(PlainJudgement):
    """What is in, and what is not."""

    @property
    def rows(self) -> tuple[Row, ...]:
        """The steps that the setting rests on."""
        return tuple(row for row in self.progress.rows if row.step.kind in _NEEDS)

    @property
    def is_set(self) -> bool:
        """Whether all of it was done."""
        return all(row.state == "done" for row in self.rows)

    @property
    def claims(self) -> tuple[Claim, ...]:
        """One claim: the stack is whole."""
        left = [row.step.says.lower() for row in self.rows if row.state not in ("done", "past")]
        left += [
            f"{row.step.says.lower()}: no number"
            for row in self.rows
            if row.step.entry == "measure" and not any(one.kind == "value" for one in row.at.entries)
            and row.state == "done"
        ]  # fmt: skip
        ids = tuple(one.id for row in self.rows for one in row.at.entries)
        fact = f"{len(self.rows)} points, each where it happened"
        if left:
            fact = f"not written: {', '.join(left)}"
        open_steps = any(row.state not in ("done", "past") for row in self.rows)
        return (Claim("setting", "The stack is whole", not left, fact, ids, blocks=open_steps),)


def judge(bench: Bench) -> StackJudgement:
    """Judge a unit whose stack is its setting."""
    return StackJudgement(bench)
