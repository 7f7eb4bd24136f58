"""What is proven and what is not, from the facts of the job.

A claim is a small rule with a stable id. "Proven" needs every one; without a source the whole is
unsourced, and printed so.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from wheelend.procedure.nextline import felt
from wheelend.procedure.setting import Assessment
from wheelend.verdict import Limits
from wheelend.wording import Lead, both, length, torque

Statement = Literal["proven", "set", "unsourced"]

_TORQUE_TOLERANCE = 0.04
"""What a hand torque wrench may be off (ISO 6789-1:2017, class A and B setting tools)."""


@dataclass(frozen=True)
class Facts:
    """The job as it stands; torques in N·m, None where nothing was written."""

    assessment: Assessment
    source: str
    unsourced: bool
    gauge: str
    lock: str
    lock_torque_N_m: float | None
    wrench: str
    wrench_wrong: str
    locked: bool
    read_after_lock: bool
    made_safe: bool
    bolts: tuple[int, int] = (0, 0)
    torque_limits: Limits | None = None
    wants_second: bool = False
    second: str = ""


@dataclass(frozen=True)
class Claim:
    """One claim with its fact; `blocks` where the job cannot be signed without it."""

    key: str
    name: str
    proven: bool
    fact: str
    blocks: bool = False


def claims(facts: Facts) -> tuple[Claim, ...]:
    """Every claim that this card asks for, in the order in which they are printed."""
    found = (rule(facts) for rule in _RULES)
    return tuple(claim for claim in found if claim is not None)


def statement(facts: Facts) -> Statement:
    """What the sheet may say over all."""
    if facts.unsourced:
        return "unsourced"
    return "proven" if all(claim.proven for claim in claims(facts)) else "set"


def _source(facts: Facts) -> Claim:
    fact = facts.source or "no source named"
    if facts.unsourced:
        fact = f"unsourced. {facts.source}".strip()
    return Claim("source", "Setting has a source", not facts.unsourced, fact)


def _safe(facts: Facts) -> Claim:
    fact = "written at take in" if facts.made_safe else "not written at take in"
    return Claim("safe", "Vehicle made safe", facts.made_safe, fact)


def _end_play(facts: Facts) -> Claim:
    found = facts.assessment
    play, verdict, now = found.play, found.verdict, found.setting.now
    name = "End play is inside the limits"
    if facts.assessment.judged_by_hand:
        return Claim(
            "end_play", name, False, f"judged by hand: no play felt. {felt(facts.assessment)}"
        )
    if play is None or verdict is None or now is None:
        return Claim("end_play", name, False, "no reading of the last pack", blocks=True)
    step = now.gauge.resolution
    limits, lead = found.setting.card.limits, found.setting.lead
    fact = (
        f"{both(play.play_mm, step, lead)} ± {length(play.U_mm, step, lead)}, {verdict.word}; "
        f"limits {length(limits.lowest, step, lead)} to {length(limits.highest, step, lead)}; {facts.gauge}"
    )
    return Claim("end_play", name, verdict.word == "within", fact)


def _places(facts: Facts) -> Claim:
    now = facts.assessment.setting.now
    read = len(now.pairs) if now else 0
    wanted = len(now.clocks) if now else 0
    proven = bool(now and now.complete and read)
    return Claim("places", "Read at every place asked for", proven, f"{read} of {wanted}")


def _add_up(facts: Facts) -> Claim:
    apart = facts.assessment.disagreement()
    count = len(facts.assessment.counted)
    if apart:
        fact = f"trials {apart.earlier} and {apart.later} do not add up"
        return Claim("adds_up", "Trials add up", False, fact)
    fact = f"{count} agree" if count > 1 else "one trial only: nothing to compare it with"
    return Claim("adds_up", "Trials add up", count > 0, fact)


def _ends(facts: Facts) -> Claim | None:
    now = facts.assessment.setting.now
    if facts.assessment.setting.card.sides == 1 or now is None:
        return None
    apart = now.ends_apart_mm
    said = ", ".join(
        f"{end} {length(play, now.gauge.resolution, _lead(facts))}"
        for end, play in now.plays_mm.items()
    )
    return Claim(
        "ends", "Both ends agree", apart is None and len(now.plays_mm) == 2, said or "not read"
    )


def _torque(facts: Facts) -> Claim:
    wanted = facts.assessment.setting.card.nut_torque_N_m
    name = "Nut at its torque"
    if facts.lock_torque_N_m is None:
        return Claim("torque", name, False, "not written", blocks=True)
    reached, limits, lead = facts.lock_torque_N_m, facts.torque_limits, _lead(facts)
    shown = torque(reached, lead)
    if limits is None:
        fact = f"{shown} reached, card says {torque(wanted, lead)}"
        return Claim("torque", name, abs(reached - wanted) <= _TORQUE_TOLERANCE * wanted, fact)
    window = torque(max(limits.lowest, 0.0), lead)
    window += " up" if limits.high is None else f" to {torque(limits.high, lead)}"
    fact = f"{shown} reached, card allows {window}"
    return Claim("torque", name, limits.inside(reached), fact)


def _lead(facts: Facts) -> Lead:
    """Which units stand first."""
    return facts.assessment.setting.lead


def _wrench(facts: Facts) -> Claim:
    """A torque is worth what its wrench is."""
    fact = facts.wrench or "no wrench named"
    if facts.wrench_wrong:
        fact += f": {facts.wrench_wrong}"
    return Claim(
        "wrench", "Wrench is fit for it", bool(facts.wrench and not facts.wrench_wrong), fact
    )


def _bolts(facts: Facts) -> Claim | None:
    done, wanted = facts.bolts
    if not wanted:
        return None
    fact = f"{done} of {wanted} drawn down"
    return Claim("bolts", "Wheel bolts crosswise", done >= wanted, fact)


def _second(facts: Facts) -> Claim | None:
    if not facts.wants_second:
        return None
    fact = facts.second or "nobody has checked since the last reading or lock"
    return Claim("second", "Second person", bool(facts.second), fact)


def _lock(facts: Facts) -> Claim:
    fact = facts.lock if facts.locked else f"{facts.lock or 'lock'}: not done"
    return Claim("lock", "Nut is locked", facts.locked, fact, blocks=not facts.locked)


def _after_lock(facts: Facts) -> Claim:
    fact = "the last series was read locked" if facts.read_after_lock else "not read since the lock"
    return Claim("after_lock", "Read again at the locked torque", facts.read_after_lock, fact)


_RULES: tuple[Callable[[Facts], Claim | None], ...] = (
    _source,
    _safe,
    _end_play,
    _places,
    _add_up,
    _ends,
    _torque,
    _wrench,
    _lock,
    _bolts,
    _after_lock,
    _second,
)


def missing(facts: Facts) -> tuple[Claim, ...]:
    """What must be written before anyone can sign."""
    return tuple(claim for claim in claims(facts) if claim.blocks)
