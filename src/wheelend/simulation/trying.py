"""A condition tried on many wheel ends, and what came of it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from random import Random

from wheelend.shims import Pack
from wheelend.simulation.conditions import Setup, card_of, follower_of
from wheelend.simulation.follower import Follower, Outcome
from wheelend.simulation.others import Alone, Choose, by_arithmetic, shim_by_shim
from wheelend.simulation.truth import FaultKind

WAYS: dict[str, Choose] = {"hand arithmetic": by_arithmetic, "shim by shim": shim_by_shim}
"""Those that work without the product."""


@dataclass(frozen=True)
class Tally:
    """What came of a condition; shares are from 0 to 1, `trials` a mean of those that were set."""

    count: int
    set_: float
    trials: float
    over_least: float
    wrong: float
    proven_wrong: float
    alarms: float
    told: float
    dead_ends: float
    named: int = 0
    first_right: float = 0.0
    among_two: float = 0.0
    slips_named: float = 0.0


def one(name: str, setup: Setup, seed: str, number: int) -> tuple[Follower, Pack]:
    """One wheel end of a condition: the same for the same seed."""
    rng = Random(f"{seed}/{name}/{number}")  # noqa: S311  a simulation, no secret
    return follower_of(setup, card_of(setup), rng)


def advised(
    name: str, setup: Setup, seed: str, numbers: Iterable[int]
) -> list[tuple[FaultKind, Outcome]]:
    """Wheel ends worked by someone who does what the next line says."""
    found = []
    for number in numbers:
        worker, pack = one(name, setup, seed, number)
        found.append((worker.end.fault.kind, worker.work(pack)))
    return found


def alone(
    name: str, setup: Setup, seed: str, numbers: Iterable[int], way: str
) -> list[tuple[FaultKind, Outcome]]:
    """The same wheel ends worked without the product."""
    found = []
    for number in numbers:
        worker, pack = one(name, setup, seed, number)
        hand = Alone(
            worker.rng, worker.end, worker.stand, worker.limits, worker.card.places, worker.slip_at
        )
        out = hand.work(pack, WAYS[way])
        out.least = worker.out.least
        found.append((worker.end.fault.kind, out))
    return found


def tally(found: Sequence[tuple[FaultKind, Outcome]]) -> Tally:
    """Count what came of it."""
    outs = [out for _, out in found]
    done = [out for out in outs if out.accepted]
    named = [(kind, out) for kind, out in found if out.named and kind != "none"]
    slips = [out for kind, out in named if kind == "slip"]
    return Tally(
        count=len(outs),
        set_=_share(outs, [out.accepted for out in outs]),
        trials=sum(out.trials for out in done) / max(len(done), 1),
        over_least=sum(out.trials for out in done) / max(sum(out.least for out in done), 1),
        wrong=_share(outs, [out.wrong for out in outs]),
        proven_wrong=_share(outs, [out.proven_wrong for out in outs]),
        alarms=_share(outs, [bool(out.alarms) for out in outs]),
        told=_share(outs, [out.told_gauge or out.told_parts for out in outs]),
        dead_ends=_share(outs, [out.dead_end for out in outs]),
        named=len(named),
        first_right=_share(named, [out.named == kind for kind, out in named]),
        among_two=_share(named, [kind in (out.named, out.second) for kind, out in named]),
        slips_named=_share(slips, [out.named == "slip" for out in slips]),
    )


def _share(of: Sequence[object], true: Sequence[bool]) -> float:
    return sum(true) / len(of) if of else 0.0
