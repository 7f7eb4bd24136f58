"""Which pack totals can be built, with how many changes and shims: a knapsack over bit sets.

Bit x of a set says that a total of x (in whole units) can be built. Source: dynamic programming
over the subset-sum polytope, e.g. Kellerer, Pferschy, Pisinger, Knapsack Problems (2004), ch. 4.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from wheelend.shims.work import Work

Level = tuple[int, int]
"""(changes from the pack now fitted, shims in the new pack)"""


@dataclass(frozen=True)
class Part:
    """Shims of one thickness (in units), in all places together."""

    thickness: int
    stock: int


class SideReach:
    """Every total that one side can have, level by level.

    `parts` are all thicknesses with the stock in all places, `fitted` how many of each are on this
    side now. Totals above `cap` units are left out. Where the work runs out, so are packs.
    """

    def __init__(
        self, parts: Sequence[Part], fitted: Sequence[int], max_shims: int, cap: int, work: Work
    ) -> None:
        self.parts = parts
        self.fitted = fitted
        mask = (1 << (cap + 1)) - 1
        start: dict[Level, int] = {(0, 0): 1}
        self.after = [start]
        for part, now in zip(parts, fitted, strict=True):
            self.after.append(_with_part(self.after[-1], part, now, max_shims, mask, work))
        self.levels = self.after[-1]
        self.anywhere = 0
        for bits in self.levels.values():
            self.anywhere |= bits

    def can(self, upto: int, level: Level, total: int) -> bool:
        """Whether the first `upto` parts can make a total at a level."""
        return total >= 0 and bool(self.after[upto].get(level, 0) >> total & 1)


class FixedSide:
    """A side that stays empty: one side of one, or a side that the design leaves without shims."""

    def __init__(self, parts: Sequence[Part]) -> None:
        self.fitted = [0] * len(parts)
        self.levels: dict[Level, int] = {(0, 0): 1}
        self.anywhere = 1

    def can(self, _: int, level: Level, total: int) -> bool:
        """Only nothing at all can be had here."""
        return level == (0, 0) and total == 0


Side = SideReach | FixedSide


def _with_part(
    before: dict[Level, int], part: Part, now: int, max_shims: int, mask: int, work: Work
) -> dict[Level, int]:
    after: dict[Level, int] = {}
    for (changes, shims), bits in before.items():
        for count in range(min(part.stock, max_shims - shims) + 1):
            shifted = (bits << (count * part.thickness)) & mask
            if not shifted or not work.does(1, shifted.bit_length() * 3):
                break
            level = (changes + abs(count - now), shims + count)
            after[level] = after.get(level, 0) | shifted
    work.keeps(sum(bits.bit_length() for bits in after.values()))
    return after


def bits_of(bits: int) -> Iterator[int]:
    """The places of the set bits, lowest first."""
    text = bin(bits)[:1:-1]
    place = text.find("1")
    while place >= 0:
        yield place
        place = text.find("1", place + 1)


def nearest_to_half(bits: int, total: int) -> Iterator[int]:
    """The places x of the set bits, those with the smallest |2x − total| first."""
    text = bin(bits)[:1:-1]
    half = (total + 1) // 2
    below, above = text.rfind("1", 0, half), text.find("1", half)
    while below >= 0 or above >= 0:
        if above < 0 or (below >= 0 and total - 2 * below <= 2 * above - total):
            yield below
            below = text.rfind("1", 0, below)
        else:
            yield above
            above = text.find("1", above + 1)


def reversed_bits(bits: int, width: int) -> int:
    """The set mirrored in [0, width]."""
    text = bin(bits)[2:].zfill(width + 1)
    return int(text[::-1], 2)


def split_between(
    left: Side,
    right: Side,
    parts: Sequence[Part],
    wanted: tuple[tuple[Level, int], tuple[Level, int]],
    work: Work,
) -> tuple[list[int], list[int]] | None:
    """Counts per part for both sides that reach wanted (level, total) each, within the stock.

    The sides share the stock, so a pair that each side could reach alone may still be impossible:
    then the answer is None. Depth first; a state that failed is not tried again.
    """
    bits = left.anywhere.bit_length() + right.anywhere.bit_length()
    failed: set[tuple[int, Level, int, Level, int]] = set()

    def descend(upto: int, l_level: Level, l_total: int, r_level: Level, r_total: int) -> bool:
        here = left.can(upto, l_level, l_total) and right.can(upto, r_level, r_total)
        if not (work.does(1, bits) and here):
            return False
        if upto == 0:
            return True
        state = (upto, l_level, l_total, r_level, r_total)
        if state in failed:
            return False
        part = parts[upto - 1]
        for l_count in range(min(part.stock, l_level[1]) + 1):
            l_next = _without(l_level, l_count, left.fitted[upto - 1])
            l_rest = l_total - l_count * part.thickness
            if not left.can(upto - 1, l_next, l_rest):
                continue
            for r_count in range(min(part.stock - l_count, r_level[1]) + 1):
                r_next = _without(r_level, r_count, right.fitted[upto - 1])
                r_rest = r_total - r_count * part.thickness
                if descend(upto - 1, l_next, l_rest, r_next, r_rest):
                    counts[0][upto - 1] = l_count
                    counts[1][upto - 1] = r_count
                    return True
        failed.add(state)
        return False

    counts = ([0] * len(parts), [0] * len(parts))
    return counts if descend(len(parts), *wanted[0], *wanted[1]) else None


def _without(level: Level, count: int, fitted: int) -> Level:
    return level[0] - abs(count - fitted), level[1] - count
