"""What a check would tell apart: the two likely causes that its answer parts the most."""

from itertools import combinations

from wheelend.diagnose.ranking import Ranked
from wheelend.diagnose.table import Cause, Check

_LOOKED_AT = 5


def tells_apart(check: Check, causes: tuple[Ranked, ...]) -> tuple[Cause, Cause] | None:
    """Of the likeliest causes, the pair that one answer to a check parts the most; None where there
    is one cause only.

    Weighed by their shares: share · share · the sum of the differences of their chances.
    """

    def parted(pair: tuple[Ranked, Ranked]) -> float:
        one, other = (check.chances[ranked.cause.id] for ranked in pair)
        apart = sum(abs(a - b) for a, b in zip(one, other, strict=True))
        return pair[0].share * pair[1].share * apart

    pairs = list(combinations(causes[:_LOOKED_AT], 2))
    if not pairs:
        return None
    best = max(pairs, key=parted)
    return best[0].cause, best[1].cause
