"""Setting by a ring of bolts: drawn down in stages while the hub turns; the plate is home, or its gap stays."""

from collections.abc import Iterator
from dataclasses import dataclass

from wheelend.methods.judgement import Bench, Claim, PlainJudgement, Remedy, remedy_at
from wheelend.methods.swings import swing_claim
from wheelend.procedure.asking.band import outside
from wheelend.procedure.asking.measured import verdict
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row

__all__ = ["BoltRingJudgement", "judge"]

_CURE = "Open it: are the cups home, and is everything under the plate that belongs there? Then its shims."


@dataclass(frozen=True)
class BoltRingJudgement(PlainJudgement):
    """What the ring, the blade or the gap, and the turning torque say."""

    @property
    def is_set(self) -> bool:
        """Whether the ring is down, and nothing beside it says otherwise."""
        rows = [r for kind in ("plate_home", "gap", "drag") for r in self.progress.of_kind(kind)]
        return all(row.state == "done" for row in rows) and not any(map(self._stops, rows))

    @property
    def claims(self) -> tuple[Claim, ...]:
        """What may be claimed of the setting, beside its bolts."""
        return tuple(self._claims())

    def _claims(self) -> Iterator[Claim]:
        for row in self.progress.of_kind("plate_home"):
            ids = tuple(one.id for one in row.at.entries)
            home = bool(row.at.entries) and row.at.entries[-1].typed == "nowhere"
            fact = (
                "the thinnest blade enters nowhere"
                if home
                else "a blade enters"
                if ids
                else "not tried"
            )
            yield Claim("setting", "Plate home, all round", home, fact, ids, blocks=not home)
        for row in self.progress.of_kind("gap"):
            found = verdict(row.at)
            ids = tuple(one.id for one in row.at.entries)
            inside = bool(found and found.words.endswith("inside") and "not" not in found.words)
            fact = found.words if found else "not measured"
            held = bool(found and found.held)
            yield Claim("setting", "Gap under the plate inside", inside, fact, ids, blocks=held)
        for row in self.progress.of_kind("drag"):
            yield swing_claim(row, "turning", "Turning torque inside")

    def _stops(self, row: Row) -> bool:
        if row.step.kind == "plate_home":
            return bool(row.at.entries) and row.at.entries[-1].typed == "enters"
        if row.step.kind == "gap":
            found = verdict(row.at)
            return bool(found and found.held)
        return row.step.entry == "band" and outside(row.at) is not None

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step: what is outside is opened."""
        if not self._stops(row):
            return super().line(row)
        if row.step.kind == "plate_home":
            return NextLine("stop", "Stop: the plate is", "not home", ". Open it again.", _CURE)
        if row.step.kind == "gap":
            found = verdict(row.at)
            return NextLine(
                "stop",
                "Stop: the gap is",
                "not inside",
                ". Open it again.",
                found.held if found else "",
            )
        return NextLine(
            "stop", "Stop: it turns", "not as the card has it", ". Open it again.", _CURE
        )

    def remedy(self, row: Row) -> Remedy | None:
        """Outside: opened."""
        if not self._stops(row):
            return None
        return remedy_at(self.progress, "opened_again", "Open it again", "")


def judge(bench: Bench) -> BoltRingJudgement:
    """Judge a unit that is set by its ring of bolts."""
    return BoltRingJudgement(bench)
