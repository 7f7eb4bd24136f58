"""The look after first use: read as it was read then, compared by the doubt of both, retorqued."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from wheelend.compare import Compared, Known, compare
from wheelend.methods.judgement import Bench, Claim, Measured, PlainJudgement
from wheelend.methods.reading import Read, play_claim, play_words, read_at, reading_line
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.wording import length

__all__ = ["RecheckJudgement", "judge"]


@dataclass(frozen=True)
class RecheckJudgement(PlainJudgement):
    """What is read now, beside what was signed."""

    @cached_property
    def read(self) -> Read | None:
        """What was read now."""
        row = next(iter(self.progress.of_kind("recheck_read")), None)
        return read_at(self.progress, row) if row else None

    @cached_property
    def before(self) -> Measured | None:
        """The play that was signed; None where none is known."""
        return self.bench.before

    @cached_property
    def compared(self) -> Compared | None:
        """Both together."""
        now = self.read.known if self.read else None
        if self.before is None or now is None:
            return None
        return compare(Known(self.before.value, self.before.doubt), now)

    @property
    def is_set(self) -> bool:
        """Whether what was read is inside, or nothing is read here."""
        asked = self.progress.of_kind("recheck_read")
        return not asked or bool(self.read and self.read.inside)

    @property
    def claims(self) -> tuple[Claim, ...]:
        """Play still inside, as it was set, wheel fasteners still tight."""
        return tuple(self._claims())

    def _claims(self) -> Iterator[Claim]:
        if self.progress.of_kind("recheck_read"):
            yield play_claim(self.bench, self.read, "End play still inside", missing="not read")
            yield self._as_set()
        for row in self.progress.of_kind("recheck_wheel"):
            said = row.at.entries[-1].typed if row.at.entries else ""
            words = {
                "still": "none moved",
                "moved": "some moved, torqued again: look once more",
            }
            ids = tuple(one.id for one in row.at.entries)
            fact = words.get(said, "not tried")
            yield Claim(
                "wheel", "Wheel fasteners still tight", said == "still", fact, ids, blocks=not said
            )

    def _as_set(self) -> Claim:
        name = "As it was set"
        if self.before is None:
            return Claim("as_set", name, False, "what it was set to is not known")
        if self.compared is None or self.read is None:
            return Claim("as_set", name, False, "nothing was read to compare")
        found, lead = self.compared, self.bench.lead
        step = self.read.series.gauge.resolution
        moved = "opened" if found.difference > 0 else "closed"
        fact = (
            f"set to {length(self.before.value, step, lead)}, now {play_words(self.bench, self.read)}: "
            f"{moved} by {length(abs(found.difference), step, lead)} ± {length(found.U, step, lead)}"
        )
        same = found.verdict == "agrees"
        if not same:
            fact += "; beyond the doubt of both: it settled, or a reading is off"
        return Claim("as_set", name, same, fact, self.read.ids)

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step."""
        if row.step.kind != "recheck_read":
            return super().line(row)
        says = ""
        if self.before:
            says = f" It was set to {length(self.before.value, 0.01, self.bench.lead)}."
        return reading_line(self.bench, row, says)


def judge(bench: Bench) -> RecheckJudgement:
    """Judge a recheck."""
    return RecheckJudgement(bench)
