"""What a swing of turning torque, or a pull, says: as a claim, and in words."""

from wheelend.methods.judgement import Claim, Measured
from wheelend.procedure.asking.band import Swing, by_thumb, limits_of, swing_of
from wheelend.procedure.progress import Row
from wheelend.quantity import FORCE
from wheelend.verdict import Limits

WORDS = {
    "within": "inside", "below": "too easy", "above": "too hard", "undecided": "too close to call",
}  # fmt: skip


def swing_words(swing: Swing) -> str:
    """A swing as people read it.

    >>> swing_words(Swing((1.0, 1.25), 0.05, "N·m", ()))
    '1 to 1.25 N·m'
    """
    return f"{swing.band[0]:.3g} to {swing.band[1]:.3g} {swing.unit}"


def window_words(limits: Limits, unit: str) -> str:
    """Limits as people read them."""
    return f"{limits.lowest:.3g} to {limits.highest:.3g} {unit}"


def read_with(swing: Swing) -> str:
    """With what it was read, what that may be off, or why it proves nothing; as the end of a fact."""
    if swing.wrong:
        return f"; {swing.wrong}: not proven by it"
    tool = swing.rows[0].instrument if swing.rows else None
    return f"; {tool.name}, ± {swing.off:.2g} {swing.unit}" if tool else ""


def judged_limits(row: Row, swing: Swing) -> Limits | None:
    """The card's limits, where they are of what was measured."""
    limits, wanted = limits_of(row.at)
    return limits if (wanted is FORCE) == (swing.unit == "N") else None


def swing_claim(row: Row, key: str, name: str, *, missing: str = "not measured") -> Claim:
    """All of a swing inside what the card allows."""
    thumb = by_thumb(row.at)
    if thumb:
        fact = "by thumb, stiff but it moves: set by feel, not proven"
        return Claim(key, name, False, fact, (thumb.id,))
    swing = swing_of(row.at)
    if swing is None:
        return Claim(key, name, False, missing, blocks=row.state != "skipped")
    ids = tuple(one.id for one in swing.rows)
    limits = judged_limits(row, swing)
    if limits is None:
        return Claim(key, name, False, f"{swing_words(swing)}; the card names no limits", ids)
    found = swing.verdict(limits)
    fact = f"{swing_words(swing)}, {WORDS[found.word]}; the card allows {window_words(limits, swing.unit)}"
    fact += read_with(swing)
    return Claim(
        key, name, found.word == "within" and not swing.wrong, fact, ids,
        blocks=found.word in ("below", "above"),
        measured=Measured(swing.middle, swing.U, limits.low, limits.high),
    )  # fmt: skip
