"""The order in which a ring of bolts is drawn down, in stages."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.errors import BadInput
from wheelend.verdict import SAME

MOST_BOLTS = 200

SHOP_STAGES = (0.5, 1.0)
"""Half the card's torque, then all of it. Source: shop practice; a maker's own stages rule over it."""


@dataclass(frozen=True)
class Pass:
    """Once round: the torque in N·m, and the bolts in order, numbered round the circle from 1."""

    torque_N_m: float
    order: tuple[int, ...]


def star_order(bolts: int) -> tuple[int, ...]:
    """The crosswise order of a ring of bolts numbered round the circle.

    Starts at 1; next comes the untouched bolt whose nearest touched bolt is farthest round the
    circle, ties to the one farthest from the last, then to the lowest number. Raises BadInput for
    fewer than 2. Source: geometry.

    >>> star_order(8)
    (1, 5, 3, 7, 2, 6, 4, 8)
    """
    if not 2 <= bolts <= MOST_BOLTS:
        raise BadInput("bolts", str(bolts), f"is not 2 to {MOST_BOLTS}")

    def apart(a: int, b: int) -> int:
        return min((a - b) % bolts, (b - a) % bolts)

    order = [1]
    while len(order) < bolts:
        untouched = [bolt for bolt in range(1, bolts + 1) if bolt not in order]
        order.append(
            max(
                untouched,
                key=lambda bolt: (
                    min(apart(bolt, t) for t in order),
                    apart(bolt, order[-1]),
                    -bolt,
                ),
            )
        )
    return tuple(order)


def bolt_sequence(
    bolts: int, torque_N_m: float, stages: Sequence[float], *, last_round: bool = True
) -> tuple[Pass, ...]:
    """The passes of a staged draw-down: each stage crosswise, then once more round the circle.

    `stages` are fractions of the torque, rising and ending in 1. Raises BadInput where they are
    not, or the torque is not above 0. Source: shop practice for ringed fasteners.

    >>> [one.torque_N_m for one in bolt_sequence(4, 100, [0.5, 1])]
    [50.0, 100.0, 100.0]
    """
    if not torque_N_m > 0:
        raise BadInput("torque", f"{torque_N_m:g} N·m", "must be above 0")
    rising = all(before < after for before, after in itertools.pairwise(stages))
    if not stages or not rising or stages[0] <= 0 or abs(stages[-1] - 1) > SAME:
        given = ", ".join(f"{stage:g}" for stage in stages)
        raise BadInput("stages", f"[{given}]", "must rise from above 0 and end in 1")
    order = star_order(bolts)
    passes = [Pass(float(torque_N_m * stage), order) for stage in stages]
    if last_round:
        passes.append(Pass(float(torque_N_m), tuple(range(1, bolts + 1))))
    return tuple(passes)
