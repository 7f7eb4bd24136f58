"""Setting by a fixed torque: spacer or cartridge makes the setting, the nut clamps it; never backed off."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from wheelend.methods.judgement import Bench, Claim, PlainJudgement, Remedy, remedy_at
from wheelend.methods.reading import WORDS as PLAY_WORDS
from wheelend.methods.reading import Read, play_claim, play_words, read_in, reading_line
from wheelend.methods.swings import WORDS, judged_limits, swing_claim, swing_words, window_words
from wheelend.procedure.asking.band import outside, swing_of
from wheelend.procedure.asking.torque import reach_of
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row

__all__ = ["FixedTorqueJudgement", "judge"]


@dataclass(frozen=True)
class FixedTorqueJudgement(PlainJudgement):
    """What the torque carries, and what a second proof says beside it."""

    @cached_property
    def read(self) -> Read | None:
        """What a dial read as a second proof, in the closing that lasts."""
        return read_in(self.progress, "locked_reading", self.progress.setting_closing)

    @cached_property
    def turning(self) -> Row | None:
        """Where its turning torque is read; None where it is not asked."""
        return next(iter(self.progress.of_kind("drag")), None)

    @property
    def is_set(self) -> bool:
        """Whether torque and seating are done, and no second proof says otherwise."""
        rows = [*self.progress.of_kind("torque"), *self.progress.of_kind("seating")]
        return all(row.settled for row in rows) and not self._is_outside

    @property
    def _is_outside(self) -> bool:
        by_dial = bool(self.read and self.read.word in ("below", "above"))
        turning = outside(self.turning.at) if self.turning else None
        return by_dial or bool(turning and turning.word != "undecided")

    @property
    def claims(self) -> tuple[Claim, ...]:
        """What may be claimed of the setting."""
        return tuple(self._claims())

    def _claims(self) -> Iterator[Claim]:
        yield self._torqued()
        asked = self.progress.of_kind("locked_reading")
        if self.read and self.read.series.complete:
            yield play_claim(
                self.bench, self.read, "Second proof: end play inside", missing="not read"
            )
        elif asked:
            left_out = any(row.state == "skipped" for row in asked)
            fact = "left out" if left_out else "not read in this closing"
            yield Claim("end_play", "Second proof: end play inside", False, fact)
        if self.turning is not None:
            skipped = self.turning.state == "skipped"
            claim = swing_claim(self.turning, "turning", "Turning torque inside")
            yield Claim("turning", claim.name, False, "left out") if skipped else claim

    def _torqued(self) -> Claim:
        """The torque is the setting: at its figure, until still, in this closing."""
        rows = [
            r for r in self.progress.of_kind("torque") if r.step.figure == "torque" and r.at.entries
        ]
        name = "Set by its torque"
        if not rows:
            return Claim("setting", name, False, "not torqued in this closing", blocks=True)
        last = rows[-1].at.entries[-1]
        reach = reach_of(last, rows[-1].at.setting)
        still = all(row.state == "done" for row in self.progress.of_kind("seating"))
        proven = reach.word == "reached" and reach.sure and still
        fact = f"{last.typed}" + ("" if still else "; not repeated until still")
        if self.progress.of_kind("locked_reading") and not self.read:
            fact += "; by the procedure, nothing was read beside it"
        return Claim("setting", name, proven, fact, (last.id,))

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step: what is outside stops the work; it is never cured by the nut."""
        if self._stops(row):
            return self._stop(row)
        if row is self.turning or (self.turning and row.step.id == self.turning.step.id):
            return self._turning(row)
        if row.step.kind == "locked_reading":
            return reading_line(self.bench, row, f" {row.step.why}")
        return super().line(row)

    def _turning(self, row: Row) -> NextLine:
        limits = row.at.setting.drag
        why = f"The card allows {limits}. {row.step.why}" if limits else row.step.why
        return NextLine("drag", "Turn it steadily, and read", f"the {row.slot.words}",
                        ": the first jerk does not count.", why)  # fmt: skip

    def _stops(self, row: Row) -> bool:
        if row.step.entry == "band":
            return outside(row.at) is not None
        last = self.read
        over = last is not None and last.word in ("below", "above") and last.series.complete
        return over and row.step.kind not in ("locked_reading", "second", "sign", "dial")

    def _stop(self, row: Row) -> NextLine:
        opening = self.progress.by_id.get("opened_again")
        cure = opening.asks if opening else "Open it and look what is not home."
        if row.step.entry == "band":
            swing = swing_of(row.at)
            limits = judged_limits(row, swing) if swing else None
            word = swing.verdict(limits).word if swing and limits else "undecided"
            why = (
                f"It reads {swing_words(swing)}, the card allows {window_words(limits, swing.unit)}. {cure}"
                if swing and limits
                else cure
            )
            if word == "undecided":
                return NextLine("undecided", "It is", "too close to call", ": read it again.", why)
            return NextLine("stop", "Stop: it turns", WORDS[word], ". Open it again.", why)
        words = PLAY_WORDS[self.read.word] if self.read else ""
        said = play_words(self.bench, self.read) if self.read else ""
        why = f"It reads {said}, the card allows {self.progress.card.setting.limits}. {cure}"
        return NextLine("stop", "Stop:", words, ". Open it again.", why)

    def remedy(self, row: Row) -> Remedy | None:
        """Outside: opened, what makes the setting is looked at."""
        if not self._stops(row):
            return None
        return remedy_at(self.progress, "opened_again", "Open it again", "")


def judge(bench: Bench) -> FixedTorqueJudgement:
    """Judge a unit that is set by a fixed torque."""
    return FixedTorqueJudgement(bench)
