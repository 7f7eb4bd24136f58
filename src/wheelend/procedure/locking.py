"""Torquing and locking the nut: seat until still, find the place, turn on to it, lock it."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from wheelend.card import Setting, exact_of, policy_of
from wheelend.locknut import Lock, LockPlan, Nut, Policy, Position, Washer, lock_positions
from wheelend.procedure.asking.seat import seating_of
from wheelend.procedure.asking.torque import Reach, reach_of
from wheelend.procedure.log import Written
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Progress, Row
from wheelend.verdict import Limits
from wheelend.wording import both, count, figure, span, torque

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
    "calibration_due": "past its check: it can claim no better than twice its accuracy",
    "lengthened_handle": "a tube on the handle voids its scale: load it at the mark on its grip",
    "accuracy": "may be off by more than 6 %: no torque tool may",
    "no wrench named": "no wrench named",
}
POLICIES: dict[Policy, str] = {
    "advance_only": "on to the next place, never back",
    "torque_window": "on to a place inside the torque window",
    "loosen_to_next": "back to the next place",
    "nearest_within": "the place nearest the aim, inside the limits",
}


def policy_here(progress: Progress, *, by_play: bool) -> Policy:
    """What to do where no place lines up: as card or job chose; else by how the nut was set."""
    key = "lock_policy"
    chosen = progress.chosen.get(key) or progress.card.choices.get(key)
    if chosen:
        return policy_of(chosen)
    return "nearest_within" if by_play else "advance_only"


@dataclass(frozen=True)
class Locking:
    """The lock of one nut as it stands: its torque row, its place row, where it can be locked."""

    progress: Progress
    clamp: str
    station: str
    torque: Written | None
    place: Written | None
    plan: LockPlan | None

    @property
    def policy(self) -> Policy:
        """What to do where no place lines up."""
        return policy_of(self.progress.card.chosen("lock_policy", self.progress.chosen))

    @property
    def chosen(self) -> Position | None:
        """The place to take."""
        if self.plan is None or self.plan.chosen is None:
            return None
        return self.plan.positions[self.plan.chosen]


def locking_of(progress: Progress, clamp: str, station: str) -> Locking:
    """Where a nut stands and where it can be locked, from the rows of its closing."""
    here = [
        row
        for row in progress.standing
        if row.clamp == clamp and row.station in ("", station) and progress.counts(row)
    ]
    values = [r for r in here if r.kind == "value" and r.step in progress.by_id]
    torques = [r for r in values if progress.by_id[r.step].kind == "torque"]
    places = [r for r in values if progress.by_id[r.step].kind == "place"]
    found = Locking(
        progress, clamp, station, torques[-1] if torques else None,
        places[-1] if places else None, None,
    )  # fmt: skip
    return Locking(progress, clamp, station, found.torque, found.place, _plan(found))


def _plan(found: Locking) -> LockPlan | None:
    setting = found.progress.card.of_clamp(found.clamp)
    lock, place, torqued = setting.lock, found.place, found.torque
    if lock.pitch is None or lock.per_turn is None or place is None or place.value is None:
        return None
    rises = exact_of(setting.torque_per_deg)
    window = setting.torque_window
    by_torque = rises is not None and window is not None and torqued and torqued.value is not None
    policy = found.policy if by_torque else "advance_only"
    nut = Nut(
        pitch_mm=lock.pitch.exact,
        policy=policy,
        torque_N_m=Fraction(repr(torqued.value)) if by_torque and torqued else None,
        torque_per_deg=rises if by_torque else None,
        torque_limits=window if by_torque else None,
    )
    return lock_positions(Lock(lock.per_turn, Fraction(repr(place.value))), nut)


def step_deg(progress: Progress, clamp: str) -> Fraction | None:
    """The angle between two lock places, or None where the card does not say."""
    per_turn = progress.card.of_clamp(clamp).lock.per_turn
    return Fraction(360, per_turn) if per_turn else None


def why_not(position: Position) -> str:
    """Why a place is not allowed, in words; empty where it is."""
    return WHY_NOT[position.why_not] if position.why_not else ""


def lock_line(progress: Progress, row: Row) -> NextLine | None:
    """What to do at a step of torquing and locking; None where the step says it itself."""
    rules = {
        "torque": _torque,
        "seating": _seat,
        "place": _place,
        "lock_torque": _lock_torque,
        "lock": _lock,
    }
    if row.step.entry == "torque" and not row.step.figure:
        return None  # Another torque than the card's: the step says itself which.
    rule = rules.get(row.step.kind)
    return rule(progress, row) if rule else None


def _wanted(row: Row) -> str:
    wanted = row.at.setting.torque
    return figure(wanted.text, wanted.value, "torque", row.at.lead) if wanted else "its torque"


def _who(row: Row) -> str:
    return f"{row.station.capitalize()} nut" if row.station not in ("", "main") else "Nut"


def _torque(progress: Progress, row: Row) -> NextLine:
    said = (thread_words(row.at.setting), row.step.why, _hold_words(progress, row))
    why = " ".join(filter(None, said))
    if not row.step.phase or not progress.card.has_packs:
        asks = row.step.asks.rstrip(".")
        return NextLine("torque", f"{asks}:", _wanted(row), ".", why)
    after = ": turn the hub, seat both ways, then enter what is reached."
    return NextLine("torque", f"{_who(row)} to", _wanted(row), after, why)


_HELD_N_M = 150.0
"""From here on a hub turns with its nut, unless it is held."""
_HOLDS = {
    "vehicle": "Hold it by a bar between two studs with their nuts on, or by the brake put back.",
    "bench": "Hold the spindle in its holder, and try the grip first.",
    "vise": "Hold it by its lugs, and try the grip first: what slips in the vise reads as play.",
}


def _hold_words(progress: Progress, row: Row) -> str:
    """How to hold it while it is torqued, where it would turn with its nut."""
    wanted = row.at.setting.torque
    if wanted is None or wanted.value < _HELD_N_M:
        return ""
    return _HOLDS.get(progress.choice("set_at"), "")


_THREADS = {
    "dry": "Thread dry", "oiled": "Thread oiled", "anti_seize": "Anti-seize on the thread",
    "thread_lock": "Thread lock on the thread",
}  # fmt: skip
_HANDS = {"left": "left-hand thread", "left_on_left": "left-hand thread on the left side"}


def thread_words(setting: Setting) -> str:
    """State and hand of the thread, where the card says them: the torque is only true with them."""
    said = [_THREADS.get(setting.thread, ""), _HANDS.get(setting.hand, "")]
    words = ", ".join(filter(None, said))
    return f"{words[:1].upper()}{words[1:]}." if words else ""


def wrong_words(reach: Reach) -> str:
    """What is wrong with the wrench, after a semicolon; empty where nothing is."""
    if reach.wrong:
        return f"; the wrench: {', '.join(WRENCH_FLAGS[flag] for flag in reach.wrong)}"
    return "" if reach.sure else "; the wrench’s doubt reaches over the limit"


def _seat(_: Progress, row: Row) -> NextLine:
    found = seating_of(row.at)
    moves = [entry.value for entry in row.at.entries if entry.value is not None]
    if found and found.state == "not_settling":
        why = f"{_moves(moves)}. Look for dirt, a cup not home, a crossed thread, a bent washer."
        return NextLine(
            "stop", "Stop: the nut", "does not settle", ". Take it apart and look.", why
        )
    why = f"{_moves(moves)}. Repeat until it moves 2 deg or less." if moves else row.step.why
    return NextLine(
        "seat", "Turn the hub, torque again to", _wanted(row), ". How far did it move?", why
    )


def _moves(moves: Sequence[float]) -> str:
    shown = ", ".join(f"{move:g}" for move in moves)
    return f"The nut moved {shown} deg in {count(len(moves), 'repeat')}"


def _place(progress: Progress, row: Row) -> NextLine:
    lock = row.at.setting.lock.kind
    policy = locking_of(progress, row.at.clamp, row.station).policy
    why = f"The card locks it: {lock or 'not named'}, {POLICIES[policy]}."
    return NextLine("place", f"{_who(row)}: how far on is", "the next place", "?", why)


def _lock_torque(progress: Progress, row: Row) -> NextLine:
    last = row.at.entries[-1] if row.at.entries else None
    reach = reach_of(last, row.at.setting) if last else None
    if last and reach and reach.word == "below":
        why = f"{last.typed} is below what the card allows: {window_words(reach, row)}."
        return NextLine(
            "torque", "Torque on to", _wanted(row), ", then enter what is reached.", why
        )
    if last and reach and reach.word == "above":
        why = f"{last.typed} is past {window_words(reach, row)}; a torqued nut is not backed off to hide it."
        return NextLine("stop", "Stop:", "past the ceiling", ". Open it, fit another washer.", why)
    found = locking_of(progress, row.at.clamp, row.station)
    return _at_place(found, row) if found.plan else NextLine(
        "torque", f"{_who(row)}: write down", "the torque", "that is reached where it is locked.", row.step.why
    )  # fmt: skip


def _at_place(found: Locking, row: Row) -> NextLine:
    place = found.chosen
    if place is None:
        return _washer(found, row)
    why = f"{POLICIES[found.policy].capitalize()}."
    if place.torque_N_m is not None:
        why += f" About {torque(place.torque_N_m, row.at.lead)} there. A torqued nut only goes on, never back."
    if place.angle_deg == 0:
        return NextLine("lock", "A place is in line:", "enter the torque", "right here.", why)
    key = f"{place.angle_deg:.0f}° on"
    return NextLine(
        "lock", "Turn the nut", key, "to the next place, then enter the torque there.", why
    )


def _washer(found: Locking, row: Row) -> NextLine:
    washer = found.plan.washer if found.plan else None
    sizes = washer_words(washer, row) if washer else []
    why = "No lock place is inside what the card allows, and the nut is not loosened to find one."
    if not sizes:
        return NextLine("stop", "Stop:", "no place fits", ", and no washer would help.", why)
    return NextLine("washer", "Fit a washer", " or ".join(sizes), ", then torque again.", why)


def washer_words(washer: Washer, row: Row) -> list[str]:
    """Which washers would do, each as a range."""
    spans = (
        ("thicker", washer.thicker_mm, washer.thicker_to_mm),
        ("thinner", washer.thinner_mm, washer.thinner_to_mm),
    )
    found = [(_span(near, far, row), way) for way, near, far in spans if near is not None]
    return [f"{span} {way}" for span, way in found if span]


_WASHER_STEP_MM = 0.01


def _span(near: float, far: float | None, row: Row) -> str:
    """From the near edge to the far one; empty where that is no other washer."""
    least = _WASHER_STEP_MM / 2
    if far is None or far - near < least:
        return both(near, _WASHER_STEP_MM, row.at.lead) if near >= least else ""
    if near < least:
        return f"up to {both(far, _WASHER_STEP_MM, row.at.lead)}"
    return span(near, far, _WASHER_STEP_MM, row.at.lead)


def _lock(_: Progress, row: Row) -> NextLine:
    lock = row.at.setting.lock.kind or "lock it"
    return NextLine("lock", "Lock it:", lock, ", moved by nothing.", row.step.catches)


def window_words(reach: Reach, row: Row) -> str:
    """What torque counts as reached, in words; a card's window as the card has it."""
    setting = row.at.setting
    if setting.torque_limits:
        return str(setting.torque_limits)
    limits = reach.window or Limits(0.0)
    return f"{limits.lowest:.4g} to {limits.highest:.4g} N·m ({reach.by})"
