"""The trials of a pack that is set by drag, the line through them, and what is expected in the hub."""

import math
import statistics
from dataclasses import dataclass
from functools import cached_property

from wheelend.card import aim_of
from wheelend.compare import Compared, compare
from wheelend.drag import Drag, DragTrial, Steps, next_spacer
from wheelend.fitting import plans
from wheelend.methods.judgement import Bench
from wheelend.procedure.adding import Added, added
from wheelend.procedure.asking.band import Swing, by_thumb, outside, swing_of
from wheelend.procedure.log import Written
from wheelend.procedure.progress import Row
from wheelend.verdict import Limits, Verdict


@dataclass(frozen=True)
class Trial:
    """One trial: the spacer as it was measured (mean of its places) and the swing; mm and N·m."""

    number: int
    closing: int
    spacer_mm: float
    swing: Swing
    spacer_rows: tuple[Written, ...]


_WORTH_MM = 0.0005
"""A change of less is printed as none."""


@dataclass(frozen=True)
class Assessment:
    """What stands of a setting by drag."""

    bench: Bench

    def row(self, kind: str) -> Row | None:
        """The row of a kind of step; None where it is not asked."""
        return next(iter(self.bench.progress.of_kind(kind)), None)

    @property
    def limits(self) -> Limits | None:
        """The turning torque that the card allows on the bench; of a pull, its force."""
        setting = self.bench.progress.card.setting
        window = setting.drag or setting.pull
        return window.limits if window else None

    @cached_property
    def trials(self) -> tuple[Trial, ...]:
        """Every trial with its spacer, oldest first."""
        row = self.row("drag")
        if row is None or self.row("spacer") is None:
            return ()
        found: list[Trial] = []
        for closing in range(self.bench.progress.setting_closing + 1):
            swing, spacers = self._swing(row, closing), self._spacers(closing)
            if swing and spacers:
                found.append(Trial(len(found) + 1, closing, _mean(spacers), swing, spacers))
        return tuple(found)

    def _spacers(self, closing: int) -> tuple[Written, ...]:
        return tuple(
            one for one in self.bench.progress.entries_of("spacer")
            if one.closing == closing and one.kind == "value" and one.value is not None
        )  # fmt: skip

    @property
    def measured_mm(self) -> dict[str, float]:
        """The kind of part that is changed from trial to trial, as the one that is in was measured."""
        closings = range(self.bench.progress.setting_closing, -1, -1)
        last = next((found for found in map(self._spacers, closings) if found), ())
        return {"shim": _mean(last)} if last else {}

    def _swing(self, row: Row, closing: int) -> Swing | None:
        mine = [
            one for one in self.bench.progress.entries_of("drag")
            if one.closing == closing and one.kind == "value"
        ]  # fmt: skip
        last = max((one.round for one in mine), default=0)
        said = {one.place: one for one in mine if one.round == last}
        return swing_of(row.at, said)

    @property
    def steps(self) -> Steps | None:
        """How the card lets the spacer be changed; None where it does not say."""
        setting = self.bench.progress.card.setting
        if not setting.thicker or setting.first_step is None or setting.max_step is None:
            return None
        return Steps(setting.thicker, setting.first_step.value, setting.max_step.value)

    @property
    def aim(self) -> float | None:
        """The drag to aim at, N·m; None without limits."""
        limits, progress = self.limits, self.bench.progress
        if limits is None or limits.window is None:
            return None
        word = aim_of(progress.chosen.get("aim") or progress.card.choices.get("aim") or "middle")
        # Loose is little drag: the loose end of a window of play is the low end of one of drag.
        share = {"middle": 0.5, "low": 0.8, "high": 0.2}.get(str(word), 0.5)
        return limits.lowest + limits.window * share

    @cached_property
    def advice(self) -> Drag | None:
        """What the trials say, and the next spacer; None where nothing can be reckoned."""
        limits = self.limits
        if not self.trials or self.steps is None or limits is None or limits.window is None:
            return None
        last = self.trials[-1]
        if last.swing.unit != "N·m":
            return None
        return next_spacer(
            [DragTrial(round(one.spacer_mm, 5), one.swing.band) for one in self.trials], limits,
            last.swing.step, self.steps, aim=self.aim, calibration=last.swing.off,
        )  # fmt: skip

    @property
    def ahead_mm(self) -> float | None:
        """The spacer to try next; None where there is none, or it is the one that is in."""
        advice = self.advice
        if advice is None or abs(advice.change_mm or 0.0) < _WORTH_MM:
            return None
        return advice.next_mm

    @cached_property
    def verdict(self) -> Verdict | None:
        """The verdict of the latest swing on the bench, or of the pull."""
        row = self.row("drag")
        if row is None or self.limits is None:
            return None
        if self.trials:
            return self.trials[-1].swing.verdict(self.limits)
        swing = swing_of(row.at)
        return swing.verdict(self.limits) if swing else None

    @property
    def in_hub(self) -> Swing | None:
        """The swing in the hub, also after the bench axle went out: it carries to the fork."""
        return self._carried("drag_in_hub")

    def carried_rows(self, kind: str) -> dict[str, Written]:
        """What was read last at a step that has done its work: also in a closing that ended since."""
        row = self.row(kind)
        if row is None:
            return {}
        kept = row.stale if row.state == "past" else ()
        rows = [one for one in (*kept, *row.at.entries) if one.kind == "value"]
        last = max(((one.closing, one.round) for one in rows), default=(0, 0))
        return {one.place: one for one in rows if (one.closing, one.round) == last}

    def _carried(self, kind: str) -> Swing | None:
        row = self.row(kind)
        if row is None or row.state not in ("done", "past", "due", "later"):
            return None
        return swing_of(row.at, self.carried_rows(kind))

    @cached_property
    def rise(self) -> tuple[float, float] | None:
        """What the fit adds to the drag, least and most in N·m: the play that it takes, by the trials' line."""
        slope = self.advice.slope if self.advice else None
        lost = self.play_lost
        if slope is None or lost is None:
            return None
        return abs(slope) * lost[0], abs(slope) * lost[1]

    @cached_property
    def play_lost(self) -> tuple[float, float] | None:
        """The play that the fits of the cups take, least and most in mm; None where none is known."""
        angle = self.bench.progress.card.hands
        known = [plan for plan in plans(self.bench.progress.card) if plan.fit.on == "housing"]
        if not known or angle is None:
            return None
        tangent = 2 * math.tan(math.radians(angle.contact_angle.value))
        low = sum(plan.least.race_mm if plan.least else 0.0 for plan in known)
        high = sum(plan.most.race_mm if plan.most else 0.0 for plan in known)
        return low / tangent, high / tangent

    @cached_property
    def compared(self) -> Compared | None:
        """The drag in the hub beside that on the bench, with what the fit was expected to add."""
        hub = self.in_hub
        if hub is None or not self.trials or hub.unit != "N·m":
            return None
        bench = self.trials[-1].swing
        effects = [self.rise] if self.rise else [one.change for one in self.fit_adds]
        return compare(bench.beside(hub), hub.beside(bench), effects)

    @cached_property
    def fit_adds(self) -> tuple[Added, ...]:
        """What somebody says that the fit adds."""
        return self._added("fit_drag")

    @cached_property
    def fork_adds(self) -> tuple[Added, ...]:
        """What comes in between hub and fork: seals and grease, as the card or the bench has them."""
        return self._added("seal_drag", "grease_drag")

    def _added(self, *kinds: str) -> tuple[Added, ...]:
        progress = self.bench.progress
        return added(progress.card, progress.counting, kinds)

    @cached_property
    def in_fork(self) -> Swing | None:
        """The swing in the fork."""
        row = self.row("drag_in_fork")
        return swing_of(row.at) if row else None

    @cached_property
    def fork_compared(self) -> Compared | None:
        """The drag in the fork beside that in the hub, with what seals and grease add."""
        fork, hub = self.in_fork, self.in_hub
        if fork is None or hub is None or fork.unit != hub.unit:
            return None
        effects = [one.change for one in self.fork_adds]
        return compare(hub.beside(fork), fork.beside(hub), effects)

    def is_outside(self, row: Row) -> bool:
        """Whether what was read at a step is outside what the card allows."""
        return (
            row.step.entry == "band" and row.step.phase != "trial" and outside(row.at) is not None
        )

    @property
    def is_set(self) -> bool:
        """Whether the last place where it counts is inside, or a thumb found it so."""
        last = self.row("drag_in_hub") or self.row("drag")
        if last is None or not last.settled:
            return False
        return bool(by_thumb(last.at)) or last.state in ("done", "past")


def _mean(rows: tuple[Written, ...]) -> float:
    return statistics.fmean(float(one.value or 0) for one in rows)


def assess(bench: Bench) -> Assessment:
    """A unit that is set by drag, as it stands."""
    return Assessment(bench)
