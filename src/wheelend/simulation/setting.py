"""Virtual packs and nuts: a hidden truth, somebody who does what the advice says, and one who goes a step at a
time. Lengths in mm, torques in N·m; every draw comes from a generator that is passed in."""

import random
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from fractions import Fraction

from wheelend.drag import DragTrial, Steps, next_spacer
from wheelend.endplay import EndPlay, Pair, end_play
from wheelend.locknut import Lock, LockPlan, Nut, lock_positions
from wheelend.verdict import Gauge, Limits

MOST_TRIALS = 12


@dataclass(frozen=True)
class Tried:
    """How one wheel end was worked: trials, whether it was accepted, and whether it is truly inside."""

    trials: int
    accepted: bool
    inside: bool

    @property
    def wrong(self) -> bool:
        """Accepted, and outside."""
        return self.accepted and not self.inside


@dataclass(frozen=True)
class Summed:
    """Shares of all wheel ends: set, wrongly accepted, given up; and trials of those that were set."""

    set_: float
    trials: float
    wrong: float
    dead_ends: float


def summed(found: Iterable[Tried]) -> Summed:
    """What came of many."""
    every = list(found)
    set_ = [one for one in every if one.accepted]
    count = len(every)
    return Summed(
        len(set_) / count,
        sum(one.trials for one in set_) / max(len(set_), 1),
        sum(one.wrong for one in every) / count,
        sum(not one.accepted for one in every) / count,
    )


# ---- a pack, set by drag

DRAG_LIMITS = Limits(0.5, 1.1)
_DRAG_STEPS = Steps("loosens", 0.02, 0.06)


@dataclass(frozen=True)
class Pack:
    """A pack: its drag at a spacer is on a line, until nothing is squeezed any more."""

    slope: float
    at_start: float
    half_swing: float

    def drag(self, spacer_mm: float) -> float:
        """The middle of the true band."""
        return max(self.at_start + self.slope * spacer_mm, 0.05)

    def swing(self, spacer_mm: float, draw: random.Random) -> tuple[float, float]:
        """What somebody reads off a meter with steps of 0.02."""
        middle = self.drag(spacer_mm) + draw.gauss(0, 0.01)
        low, high = middle - self.half_swing, middle + self.half_swing
        return _to(max(low, 0.0), 0.02), _to(high, 0.02)


def a_pack(draw: random.Random) -> Pack:
    """A pack as they come: a new bearing, the old shim."""
    return Pack(-draw.uniform(12, 40), draw.uniform(0.2, 2.6), draw.uniform(0.03, 0.10))


def drag_as_advised(pack: Pack, draw: random.Random) -> Tried:
    """Each next shim is the one that the line through the trials says; it is ground to within 3 µm."""
    spacer, trials = 0.0, []
    for number in range(1, MOST_TRIALS + 1):
        trials.append(DragTrial(spacer + draw.gauss(0, 0.001), pack.swing(spacer, draw)))
        found = next_spacer(trials, DRAG_LIMITS, 0.02, _DRAG_STEPS)
        if found.basis == "keep":
            return Tried(number, True, DRAG_LIMITS.inside(pack.drag(spacer)))
        spacer += (found.change_mm or 0.0) + draw.gauss(0, 0.003)
    return Tried(MOST_TRIALS, False, False)


def drag_step_by_step(pack: Pack, draw: random.Random) -> Tried:
    """A first step each time, the right way, until the middle of the swing looks right."""
    spacer = 0.0
    for number in range(1, MOST_TRIALS + 1):
        low, high = pack.swing(spacer, draw)
        middle = (low + high) / 2
        if DRAG_LIMITS.inside(middle):
            return Tried(number, True, DRAG_LIMITS.inside(pack.drag(spacer)))
        spacer += (0.02 if middle > DRAG_LIMITS.highest else -0.02) + draw.gauss(0, 0.003)
    return Tried(MOST_TRIALS, False, False)


def drag_at_the_limit(draw: random.Random) -> Tried:
    """A pack whose drag stands exactly at a limit: it must not be accepted as inside."""
    limit = draw.choice((DRAG_LIMITS.lowest, DRAG_LIMITS.highest))
    pack = Pack(0.0, limit, draw.uniform(0.03, 0.10))
    found = next_spacer([DragTrial(0.0, pack.swing(0.0, draw))], DRAG_LIMITS, 0.02, _DRAG_STEPS)
    return Tried(1, found.basis == "keep", False)


# ---- a nut, set by angle and locked at a place

PLAY_LIMITS = Limits(0.03, 0.13)
_AIM = Fraction(8, 100)
_DIAL = Gauge(0.002, 0.002)


@dataclass(frozen=True)
class NutEnd:
    """A nut: pitch, lock places a turn, where the first place is, and how sloppily lash-free is found."""

    pitch: float
    per_turn: int
    phase: float
    lash: float

    def next_place(self, angle_back: float) -> float:
        """From where the nut stands, on to the next place."""
        step = 360 / self.per_turn
        return (angle_back - self.phase) % step


def a_nut(draw: random.Random) -> NutEnd:
    """A nut with a lock ring, as they come."""
    per_turn = draw.choice((18, 24, 30, 36))
    return NutEnd(
        draw.choice((1.5, 1.75, 2.0)),
        per_turn,
        draw.uniform(0, 360 / per_turn),
        draw.gauss(0, 0.006),
    )


def _read(play: float, draw: random.Random) -> EndPlay:
    pairs = [
        Pair(0.0, _to(max(play + draw.gauss(0, 0.003), 0.0), 0.002), clock)
        for clock in ("12", "4", "8")
    ]
    return end_play(pairs, _DIAL, limits=PLAY_LIMITS)


def nut_as_advised(nut: NutEnd, draw: random.Random) -> Tried:
    """Back by the angle of the aim, read, on to the place that the plan takes, read there; else set again.

    Where no place is inside, the washer is changed as the plan says; where the one taken is too close to
    call, by what it is off the aim.
    """
    aim = float(_AIM)
    for number in range(1, MOST_TRIALS + 1):
        back = 360 * aim / nut.pitch + draw.gauss(0, 2)
        true = max(nut.pitch * back / 360 + nut.lash, 0.0)
        now = _read(true, draw)
        plan = _plan(nut, now.play_mm, nut.next_place(back))
        if plan.chosen is None:
            nut = _with_washer(nut, plan)
            continue
        true -= nut.pitch * (plan.positions[plan.chosen].angle_deg + draw.gauss(0, 0.5)) / 360
        said = _read(max(true, 0.0), draw)
        if said.verdict and said.verdict.word == "within":
            return Tried(number, True, PLAY_LIMITS.inside(true))
        step = 360 / nut.per_turn
        nut = replace(
            nut, phase=(nut.phase - 360 * (said.play_mm - float(_AIM)) / nut.pitch) % step
        )
    return Tried(MOST_TRIALS, False, False)


def _with_washer(nut: NutEnd, plan: LockPlan) -> NutEnd:
    """The nut over a washer that brings a place to the middle of what is wanted."""
    found = plan.washer
    near = (found.thicker_mm or found.thinner_mm or 0.0) if found else 0.0
    far = (found.thicker_to_mm or found.thinner_to_mm or near) if found else 0.0
    sign = 1 if found and found.thicker_mm is not None else -1
    step = 360 / nut.per_turn
    return replace(nut, phase=(nut.phase - sign * 360 * (near + far) / 2 / nut.pitch) % step)


def _plan(nut: NutEnd, play: float, to_next: float) -> LockPlan:
    lock = Lock(nut.per_turn, Fraction(round(to_next * 100) % (36000 // nut.per_turn), 100))
    return lock_positions(
        lock,
        Nut(
            Fraction(str(nut.pitch)), "nearest_within", play_mm=Fraction(str(round(play, 4))),
            limits=PLAY_LIMITS, aim_mm=_AIM,
        ),
    )  # fmt: skip


def nut_step_by_step(nut: NutEnd, draw: random.Random) -> Tried:
    """From tight, back a place at a time, until one reading looks inside."""
    step = 360 / nut.per_turn
    back = step - nut.phase % step
    for number in range(1, MOST_TRIALS + 1):
        true = nut.pitch * (back + draw.gauss(0, 0.5)) / 360 + nut.lash
        shown = _to(max(true + draw.gauss(0, 0.003), 0.0), 0.01)
        if PLAY_LIMITS.inside(shown):
            return Tried(number, True, PLAY_LIMITS.inside(true))
        back += step if shown < PLAY_LIMITS.lowest else -step
    return Tried(MOST_TRIALS, False, False)


def nut_at_the_limit(draw: random.Random) -> Tried:
    """A nut whose play stands exactly at a limit, read at its place: it must not be accepted as inside."""
    said = _read(draw.choice((PLAY_LIMITS.lowest, PLAY_LIMITS.highest)), draw)
    return Tried(1, bool(said.verdict and said.verdict.word == "within"), False)


def _to(value: float, step: float) -> float:
    return round(round(value / step) * step, 6)


Way = Callable[[random.Random], Tried]


def ways() -> dict[str, Way]:
    """Every way of working, by its name."""
    return {
        "drag, as advised": lambda draw: drag_as_advised(a_pack(draw), draw),
        "drag, step by step": lambda draw: drag_step_by_step(a_pack(draw), draw),
        "drag exactly at a limit": drag_at_the_limit,
        "nut and ring, as advised": lambda draw: nut_as_advised(a_nut(draw), draw),
        "nut and ring, place by place": lambda draw: nut_step_by_step(a_nut(draw), draw),
        "play exactly at a limit": nut_at_the_limit,
    }


def tried(way: Way, name: str, seed: str, numbers: Iterable[int]) -> list[Tried]:
    """Many wheel ends, one way; the same seed and number draw the same wheel end for everybody."""
    group = name.partition(",")[0].partition(" exactly")[0]
    return [way(random.Random(f"{seed} {group} {number}")) for number in numbers]  # noqa: S311
