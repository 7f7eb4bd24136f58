"""How a nut was seated, turned back and read; which lock places there are, and what each would set."""

import math
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from wheelend.card import aim_of
from wheelend.compare import Compared, Known, compare
from wheelend.errors import BadInput
from wheelend.locknut import Lock, LockPlan, Nut, Policy, Position, lock_positions
from wheelend.methods.judgement import Bench
from wheelend.methods.reading import Read, moved_to_place, read_in, rows_in, set_closing
from wheelend.nutangle import ANGLE_DOUBT_DEG, NutAngle, nut_angle
from wheelend.procedure.locking import policy_here
from wheelend.procedure.log import Written
from wheelend.procedure.progress import Row
from wheelend.verdict import Limits

_TO_PLACE_DEG = ANGLE_DOUBT_DEG / 2
"""How well the nut is brought to a slot (expanded): the pin's play in its hole."""


@dataclass(frozen=True)
class Assessment:
    """What stands of the setting; `closing` is the one in which it was set, lengths in mm."""

    bench: Bench
    closing: int

    @cached_property
    def torques(self) -> tuple[Written, ...]:
        """The torques while it was seated, oldest first."""
        return self._rows("torque")

    @cached_property
    def moves(self) -> tuple[Written, ...]:
        """How far the nut moved at each repeat."""
        return self._rows("seating")

    @cached_property
    def turned(self) -> Written | None:
        """How far it was turned back from lash-free; None where it was not written, or found by hands."""
        said = [row for row in self._rows("turned_back") if row.value is not None]
        return said[-1] if said else None

    @cached_property
    def next_place(self) -> Written | None:
        """The angle on to the next lock place."""
        said = self._rows("place")
        return said[-1] if said else None

    @cached_property
    def read(self) -> Read | None:
        """What was read before it went to its place."""
        return read_in(self.bench.progress, "reading", self.closing)

    @cached_property
    def locked(self) -> Read | None:
        """What was read where it stays."""
        progress = self.bench.progress
        return read_in(progress, "locked_reading", progress.setting_closing)

    def _rows(self, kind: str) -> tuple[Written, ...]:
        return rows_in(self.bench.progress, kind, self.closing)

    @property
    def limits(self) -> Limits | None:
        """The play that the card allows."""
        window = self.bench.progress.card.setting.limits
        return window.limits if window else None

    @property
    def pitch_mm(self) -> float | None:
        """The thread's pitch, where the card says it."""
        pitch = self.bench.progress.card.setting.lock.pitch
        return pitch.value if pitch else None

    @property
    def aim_mm(self) -> float | None:
        """The play to aim at."""
        setting, limits = self.bench.progress.card.setting, self.limits
        if limits is None or limits.window is None:
            return None
        chosen = self.bench.progress.chosen.get("aim")
        aim = aim_of(chosen or self.bench.progress.card.choices.get("aim") or setting.aim)
        named = {
            "middle": (limits.lowest + limits.highest) / 2,
            "low": limits.lowest + limits.window / 5,
            "high": limits.highest - limits.window / 5,
        }
        return named[aim] if isinstance(aim, str) else min(max(aim, limits.lowest), limits.highest)

    @property
    def wanted_deg(self) -> float | None:
        """How far back from lash-free: the card's angle, else the aim by the thread's pitch."""
        angle = self.bench.progress.card.setting.angle
        if angle:
            return angle.value
        if self.pitch_mm is None or self.aim_mm is None:
            return None
        return 360 * self.aim_mm / self.pitch_mm

    @cached_property
    def angle(self) -> NutAngle | None:
        """What the angle sets, beside what the dial read; None where pitch or angle is missing."""
        from_lash_free = bool(self.bench.progress.of_kind("lash_free"))
        if self.pitch_mm is None or self.turned is None or self.turned.value is None:
            return None
        if not from_lash_free:
            return None  # From a torque the squeeze of the bearings is let go first: no play by geometry.
        measured = self.read.known if self.read else None
        return nut_angle(
            self.pitch_mm, self.turned.value, limits=self.limits, aim_mm=self.aim_mm,
            measured=measured,
        )  # fmt: skip

    @property
    def counts(self) -> Known | None:
        """The play that counts now, before it goes to its place: read, else turned."""
        if self.read and self.read.known:
            return self.read.known
        return Known(self.angle.play_mm, self.angle.U_mm) if self.angle else None

    @property
    def policy(self) -> Policy:
        """Where the nut may go: one set by play to the nearest place inside, one by torque only on."""
        return policy_here(self.bench.progress, by_play=self.by_play)

    @property
    def by_play(self) -> bool:
        """Whether it was set by an angle or by play, and not finished by torque alone."""
        return self.turned is not None or bool(self._rows("turned_back"))

    @cached_property
    def plan(self) -> LockPlan | None:
        """Every place and the play that it would set; None where one of the figures is missing."""
        lock, place, now = self.bench.progress.card.setting.lock, self.next_place, self.counts
        if place is None or place.value is None or now is None or self.limits is None:
            return None
        if lock.pitch is None or lock.per_turn is None:
            return None
        aim = self.aim_mm
        try:
            nut = Nut(
                lock.pitch.exact, self.policy, play_mm=Fraction(repr(round(now.value, 6))),
                limits=self.limits, aim_mm=None if aim is None else Fraction(repr(round(aim, 6))),
            )  # fmt: skip
            return lock_positions(Lock(lock.per_turn, Fraction(repr(place.value))), nut)
        except BadInput:
            return None

    @property
    def chosen(self) -> Position | None:
        """The place to take."""
        if self.plan is None or self.plan.chosen is None:
            return None
        return self.plan.positions[self.plan.chosen]

    @property
    def predicted(self) -> Known | None:
        """The play that was foreseen for the place, with the doubt of the turn to it."""
        if self.chosen is None or self.chosen.play_mm is None or self.counts is None:
            return None
        if len(moved_to_place(self.bench.progress)) > 1:
            return (
                None  # It went on from one place to another: what was foreseen was for the first.
            )
        turn = (self.pitch_mm or 0.0) * _TO_PLACE_DEG / 360
        return Known(self.chosen.play_mm, math.hypot(self.counts.U, turn))

    @cached_property
    def compared(self) -> Compared | None:
        """What was read at its place beside what was foreseen for it; None where a jam nut came between."""
        jammed = any(
            row.at.entries
            for row in self.bench.progress.of_kind("torque")
            if row.step.phase == "final"
        )
        known = self.locked.known if self.locked else None
        if self.predicted is None or known is None or jammed:
            return None
        return compare(self.predicted, known)

    def is_close(self, row: Row) -> bool:
        """Whether what was read at its place is too close to call, and the next step comes right after it."""
        last = self.locked
        whole = last is not None and last.series.complete and last.word == "undecided"
        return whole and row.step.kind in ("wheel_snug", "turns") and row.step.phase == "final"

    def stops_at(self, row: Row) -> bool:
        """Whether what was read at its place is outside, and a step comes after it."""
        last = self.locked
        if last is None or not last.series.complete or row.step.phase != "final":
            return False
        bound = bool(last.series.finding and last.series.finding.kind == "bound")
        after = row.step.kind not in ("locked_reading", "second", "sign")
        return after and (bound or last.word in ("below", "above"))


def assess(bench: Bench) -> Assessment:
    """A unit that is set by its nut, as it stands."""
    return Assessment(bench, set_closing(bench.progress))
