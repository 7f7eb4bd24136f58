"""Setting by the nut: seated while turning, back by an angle from lash-free, on to a lock place, read there."""

from dataclasses import dataclass
from functools import cached_property

from wheelend.methods.judgement import Bench, Claim, PlainJudgement, Remedy, remedy_at
from wheelend.methods.nut_angle.assessing import Assessment, assess
from wheelend.methods.nut_angle.claims import claims
from wheelend.methods.nut_angle.lines import line_at
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row

__all__ = ["NutAngleJudgement", "judge"]


@dataclass(frozen=True)
class NutAngleJudgement(PlainJudgement):
    """What turning and reading say."""

    @cached_property
    def found(self) -> Assessment:
        """How it was seated, turned and read, and the places where it can be locked."""
        return assess(self.bench)

    @property
    def is_set(self) -> bool:
        """Whether the play where it stays is inside, or hands found it so."""
        locked = self.found.locked
        return bool(locked and (locked.inside or locked.series.by_hand))

    @property
    def claims(self) -> tuple[Claim, ...]:
        """What may be claimed of the setting."""
        return claims(self.found)

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step."""
        return line_at(self.found, row) or super().line(row)

    def remedy(self, row: Row) -> Remedy | None:
        """Read outside at its place: it is set again from the torque."""
        if not (self.found.stops_at(row) or self.found.is_close(row)):
            return None
        why = "Take the lock out, torque it while it turns, and set it again."
        return remedy_at(self.progress, "to_place", "Set it again from the torque", why)


def judge(bench: Bench) -> NutAngleJudgement:
    """Judge a unit that is set by its nut."""
    return NutAngleJudgement(bench)
