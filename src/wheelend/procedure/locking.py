"""Torquing and locking the nut: seating until it is still, then the lock place, then the lock."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction

from wheelend.locknut import Lock, LockPlan, Nut, Policy, Position, lock_positions
from wheelend.procedure.nextline import NextLine
from wheelend.seating import Seating, seating
from wheelend.verdict import Limits
from wheelend.wording import Lead, both, count, torque

WHY_NOT = {
    "preloaded": "would preload the bearings",
    "play_low": "leaves too little play",
    "play_high": "leaves too much play",
    "torque_low": "below the card's torque",
    "torque_high": "past the card's ceiling",
    "loosening": "a torqued nut is not loosened to find a place",
    "tightening": "the card loosens to the next place",
}

WRENCH_FLAGS = {
    "below_range": "below its range, or below a fifth of its top",
    "above_range": "above its range",
    "calibration_due": "its calibration is due",
    "lengthened_handle": "a tube on the handle voids its scale: load it at the mark on its grip",
}

POLICIES: dict[Policy, str] = {
    "advance_only": "on to the next place, never back",
    "torque_window": "on to a place inside the torque window",
    "loosen_to_next": "back to the next place",
    "nearest_within": "the place nearest the aim, inside the limits",
}


@dataclass(frozen=True)
class LockCard:
    """What the card says of the lock; `lock` is the kind in words, torques in N·m.

    `per_turn` None: the card gives no geometry, so no place can be reckoned.
    """

    lock: str
    nut_torque_N_m: float
    pitch_mm: Fraction | None = None
    per_turn: int | None = None
    policy: Policy = "advance_only"
    torque_limits: Limits | None = None
    torque_per_deg: Fraction | None = None

    @property
    def reckons(self) -> bool:
        """Whether pitch and positions are known."""
        return self.pitch_mm is not None and self.per_turn is not None


@dataclass(frozen=True)
class LockTry:
    """The nut at its torque (N·m), and the angle in degrees to the next place."""

    to_next_deg: Fraction
    torque_N_m: Fraction


@dataclass(frozen=True)
class Locking:
    """The lock stage as it stands."""

    card: LockCard
    moves_deg: tuple[float, ...]
    tried: LockTry | None
    locked: bool
    read_after: bool
    lead: Lead = "metric"

    @property
    def seating(self) -> Seating | None:
        """How far the seating is, or None before the first repeat."""
        return seating(self.moves_deg) if self.moves_deg else None

    def plan(self) -> LockPlan | None:
        """Every lock place and the one to take, where geometry and angle are known.

        Raises BadInput when the angle to the next place is a step or more.
        """
        if self.tried is None or self.card.pitch_mm is None or self.card.per_turn is None:
            return None
        lock = Lock(self.card.per_turn, self.tried.to_next_deg)
        rises = self.card.torque_per_deg
        nut = Nut(
            pitch_mm=self.card.pitch_mm,
            policy=self.card.policy,
            torque_N_m=self.tried.torque_N_m if rises else None,
            torque_per_deg=rises,
            torque_limits=self.card.torque_limits if rises else None,
        )
        return lock_positions(lock, nut)


def lock_line(found: Locking) -> NextLine:
    """What to do now at the lock stage."""
    for applies, line in _LINES:
        if applies(found):
            return line(found)
    return _torque_and_lock(found)


def why_not(position: Position) -> str:
    """Why a place is not allowed, in words; empty where it is."""
    return WHY_NOT[position.why_not] if position.why_not else ""


def _wanted(found: Locking) -> str:
    return torque(found.card.nut_torque_N_m, found.lead)


def _read_again(_: Locking) -> NextLine:
    return NextLine(
        "set", "Locked and", "read again", ". Go on to close.", "The setting came back."
    )


def _read_once_more(_: Locking) -> NextLine:
    why = "After the last trial the hub was open: only a reading at the lock proves the setting."
    return NextLine("read", "Locked.", "Read once more", "before you close.", why)


def _not_settling(found: Locking) -> NextLine:
    why = f"{_moves(found.moves_deg)}. Look for dirt, a cup not home, a crossed thread, a bent washer."
    return NextLine("stop", "Stop: the nut", "does not settle", ". Take it apart and look.", why)


def _seat_again(found: Locking) -> NextLine:
    why = f"{_moves(found.moves_deg)}. Repeat until it moves 2 deg or less."
    return NextLine(
        "seat", "Turn the hub, torque again to", _wanted(found), "and enter the move.", why
    )


def _moves(moves: Sequence[float]) -> str:
    shown = ", ".join(f"{move:g}" for move in moves)
    return f"The nut moved {shown} deg in {count(len(moves), 'repeat')}"


def _find_place(found: Locking) -> NextLine:
    after = ", then enter the angle on to the next lock place."
    why = f"The card locks it: {found.card.lock}, {POLICIES[found.card.policy]}."
    return NextLine("torque", "Torque the nut to", _wanted(found), after, why)


def _turn_on(found: Locking) -> NextLine:
    plan = found.plan()
    assert plan is not None and plan.chosen is not None  # noqa: S101  as _LINES asked
    place = plan.positions[plan.chosen]
    why = f"{POLICIES[found.card.policy].capitalize()}."
    if place.torque_N_m is not None:
        why += f" There the torque will be about {torque(place.torque_N_m, found.lead)}. Write down what it is."
    if place.angle_deg == 0:
        return NextLine("lock", "A place is in line:", found.card.lock, ", right here.", why)
    key = f"{abs(place.angle_deg):.0f} deg {'on' if place.angle_deg > 0 else 'back'}"
    return NextLine("lock", "Turn the nut", key, f", then lock it: {found.card.lock}.", why)


def _washer(found: Locking) -> NextLine:
    plan = found.plan()
    washer = plan.washer if plan else None
    sizes = []
    if washer and washer.thicker_mm is not None:
        sizes.append(f"{both(washer.thicker_mm, 0.01, found.lead)} thicker")
    if washer and washer.thinner_mm is not None:
        sizes.append(f"{both(washer.thinner_mm, 0.01, found.lead)} thinner")
    why = "No lock place is inside what the card allows, and the nut is not loosened to find one."
    if not sizes:
        return NextLine("stop", "Stop:", "no place fits", ", and no washer would help.", why)
    return NextLine("washer", "Fit a washer", " or ".join(sizes), ", then torque again.", why)


def _torque_and_lock(found: Locking) -> NextLine:
    why = "The setting counts at this torque only. Never loosen the nut to find the hole."
    after = f", then lock it: {found.card.lock}."
    return NextLine("lock", "Torque the nut to", _wanted(found), after, why)


def _state(found: Locking) -> str:
    return found.seating.state if found.seating else ""


def _has_place(found: Locking) -> bool:
    plan = found.plan()
    return plan is not None and plan.chosen is not None


_LINES: tuple[tuple[Callable[[Locking], bool], Callable[[Locking], NextLine]], ...] = (
    (lambda found: found.locked and found.read_after, _read_again),
    (lambda found: found.locked, _read_once_more),
    (lambda found: _state(found) == "not_settling", _not_settling),
    (lambda found: _state(found) == "repeat", _seat_again),
    (lambda found: found.card.reckons and found.tried is None, _find_place),
    (_has_place, _turn_on),
    (lambda found: found.tried is not None and found.card.reckons, _washer),
)
