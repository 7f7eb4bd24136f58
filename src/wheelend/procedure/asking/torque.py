"""A torque, written again until it is where the card wants it; and the angle on to a lock place."""

from dataclasses import dataclass
from typing import Literal

from wheelend.card import Setting
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.log import Written
from wheelend.verdict import SAME, Limits
from wheelend.wrench import ACCURACY, wrench_setting

WORST_WRENCH = 0.06
"""No hand torque tool may be off by more (ISO 6789-1:2017, 5.1.3)."""


@dataclass(frozen=True)
class Reach:
    """Whether a torque is where the card wants it.

    `word` judges the bare number. `sure` says that the wrench's own doubt is inside too, `wrong`
    what is wrong with the wrench, `doubt` what it may be off in N·m. `window` is what counted, and
    `by` says whose window it is.
    """

    word: Literal["reached", "below", "above", "unknown"]
    sure: bool
    window: Limits | None
    by: str
    wrong: tuple[str, ...] = ()
    doubt: float = 0.0


def reach_of(entry: Written, setting: Setting) -> Reach:
    """Judge one torque row against the card, with the wrench that it was written with.

    A card with a window, or a tolerance, judges by it and takes the wrench's doubt into account. A
    card with one torque only: what its wrench may be off, either way, counts as reached. A wrench
    past its check may be off by twice its accuracy, and proves nothing.
    """
    if entry.value is None or setting.torque is None:
        return Reach("unknown", False, None, "the card names no torque")
    tool = entry.instrument.wrench if entry.instrument else None
    off = ACCURACY
    wrong: tuple[str, ...] = ("no wrench named",)
    if tool:
        off, wrong = tool.accuracy, wrench_setting(entry.value, tool).flags
        if tool.calibration_due:
            off *= 2
        if tool.accuracy > WORST_WRENCH + SAME:
            wrong = (*wrong, "accuracy")
    window, by = setting.torque_window, "the card's window"
    if window is None:
        target = setting.torque.value
        window, by = Limits(target * (1 - off), target * (1 + off)), "what the wrench may be off"
        return Reach(_word(entry.value, window), not wrong, window, by, wrong, entry.value * off)
    low, high = entry.value * (1 - off), entry.value * (1 + off)
    sure = window.lowest - SAME <= low and high <= window.highest + SAME
    return Reach(
        _word(entry.value, window), sure and not wrong, window, by, wrong, entry.value * off
    )


def _word(value: float, window: Limits) -> Literal["reached", "below", "above"]:
    if value < window.lowest - SAME:
        return "below"
    return "above" if value > window.highest + SAME else "reached"


class TorqueAsked:
    """One torque; at the lock place it must be inside before the step is done."""

    def complete(self, at: At) -> bool:
        if not at.entries:
            return False
        if at.step.kind != "lock_torque":
            return True
        return reach_of(at.entries[-1], at.setting).word in ("reached", "unknown")

    def slot(self, at: At) -> Slot:
        return Slot(round=at.next_round)

    def lines(self, at: At) -> tuple[Line, ...]:
        shown = ", then ".join(entry.typed for entry in at.entries)
        return (Line(titled(at), shown, at.entries),)


class PlaceAsked:
    """The angle on to the next lock place, at the torque that is there."""

    def complete(self, at: At) -> bool:
        return bool(at.entries)

    def slot(self, at: At) -> Slot:
        return Slot(round=at.next_round)

    def lines(self, at: At) -> tuple[Line, ...]:
        entry = at.entries[-1] if at.entries else None
        return (Line(titled(at), f"{entry.value:g}°" if entry and entry.value is not None else "",
                     (entry,) if entry else ()),)  # fmt: skip
