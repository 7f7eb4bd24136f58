"""Setting by stand-out: how far the bearing stands proud, tried dry before anything is pressed or sealed."""

from dataclasses import dataclass
from functools import cached_property

from wheelend.methods.judgement import Bench, Claim, Measured, PlainJudgement, Remedy, remedy_at
from wheelend.procedure.asking.standing import Stood, by_blades, explained, outside, stood
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.wording import Lead, both, span

__all__ = ["StandOutJudgement", "judge"]

_STEP = 0.01
_WORDS = {
    "within": "inside", "below": "too far in", "above": "too far out", "undecided": "too close to call",
}  # fmt: skip


@dataclass(frozen=True)
class StandOutJudgement(PlainJudgement):
    """What was measured, and what explains it where it is not as the parts say."""

    @cached_property
    def row(self) -> Row | None:
        """Where it is measured."""
        return next(iter(self.progress.of_kind("stand_out")), None)

    @cached_property
    def found(self) -> Stood | None:
        """What was measured; None while a place is missing."""
        return stood(self.row.at) if self.row else None

    @property
    def is_set(self) -> bool:
        """Whether it is inside."""
        return bool(self.found and self.found.word == "within")

    @property
    def claims(self) -> tuple[Claim, ...]:
        """One claim: it was measured dry, and is carried until the bearing is in."""
        name = "Stand-out inside, tried dry"
        found, row = self.found, self.row
        if found is None or row is None:
            return (Claim("setting", name, False, "not measured", blocks=True),)
        ids = tuple(one.id for one in found.rows)
        measured = _measured(found, self.bench.lead)
        window = row.at.setting.stand_out
        if window is None or found.word is None:
            return (
                Claim(
                    "setting",
                    name,
                    False,
                    f"{measured}; the card names no window",
                    ids,
                ),
            )
        how = "by blades" if by_blades(row.at) else f"at {len(found.rows)} places"
        fact = f"{measured} {how}, {_WORDS[found.word]}; the card allows {window}"
        limits = window.limits
        claim = Claim(
            "setting", name, found.word == "within", fact, ids, blocks=found.word in ("below", "above"),
            measured=Measured(
                found.middle, (found.band[1] - found.band[0]) / 2, limits.low, limits.high
            ),
        )  # fmt: skip
        return (claim,)

    def line(self, row: Row) -> NextLine | None:
        """What to do at a step."""
        if row.step.kind != "stand_out":
            return super().line(row)
        found = outside(row.at)
        return self._outside(found) if found else self._measure(row)

    def _measure(self, row: Row) -> NextLine:
        slot, window = row.slot, row.at.setting.stand_out
        why = f"The card allows {window}. {row.step.why}" if window else row.step.why
        if by_blades(row.at):
            return NextLine(
                "measure",
                "Try blades under a straight edge:",
                slot.words,
                "; add them with a plus.",
                why,
            )
        return NextLine(
            "measure", "From the bracket’s outer face to the bearing:", slot.words, ".", why
        )

    def _outside(self, found: Stood) -> NextLine:
        window = self.progress.card.setting.stand_out
        said = f"It stands {_stands(found, self.bench.lead)}, and the card allows {window}."
        names = found.found.explanations if found.found else ()
        if found.word == "below":
            if names:
                parts = both(found.found.expected_mm if found.found else 0, _STEP, self.bench.lead)
                why = f"{said} The parts should give {parts}."
                return NextLine(
                    "stop", "Look:", explained(names[0]), "? Open it.", why + _others(found)
                )
            why = f"{said} Something is missing or not home; if not, a spacer thicker by {self._change(found)}."
            return NextLine("stop", "Too far in:", "what is missing", "? Open it and look.", why)
        if found.word == "above":
            extra = bool(found.found and "not_home_or_extra_part" in found.found.flags)
            why = f"{said}" + (
                " It is more than the parts give: something is not home, or there twice. Look before you grind."
                if extra else " Grind it evenly, its faces parallel; if nothing is under it."
            )  # fmt: skip
            if extra:
                return NextLine(
                    "stop", "Too far out:", "is everything home", "? Open it and look.", why
                )
            return NextLine("swap", "Thin the spacer by", self._change(found), ", evenly.", why)
        return NextLine(
            "undecided", "It is", "too close to call", ": measure again, at more places.", said
        )

    def _change(self, found: Stood) -> str:
        window = self.progress.card.setting.stand_out
        limits = window.limits if window else None
        if limits is None or limits.window is None:
            return "a little"
        off = abs(found.middle - (limits.lowest + limits.highest) / 2)
        return both(off, _STEP, self.bench.lead)

    def remedy(self, row: Row) -> Remedy | None:
        """Outside: bracket off, bearing out."""
        if row.step.kind != "stand_out" or outside(row.at) is None:
            return None
        return remedy_at(self.progress, "opened_again", "Open it: bracket off, bearing out", "")


def _others(found: Stood) -> str:
    names = found.found.explanations[1:3] if found.found else ()
    return f" Or {', or '.join(explained(one) for one in names)}." if names else ""


def _stands(found: Stood, lead: Lead) -> str:
    """How it stands, in words: what is negative stands below its face."""
    low, high = found.band
    if high >= 0:
        return f"{_measured(found, lead)} out"
    below = both(-low, _STEP, lead) if low == high else span(-high, -low, _STEP, lead)
    return f"{below} below the face"


def _measured(found: Stood, lead: Lead) -> str:
    low, high = found.band
    return both(low, _STEP, lead) if high - low < _STEP / 2 else span(low, high, _STEP, lead)


def judge(bench: Bench) -> StandOutJudgement:
    """Judge a unit that is set by stand-out."""
    return StandOutJudgement(bench)
