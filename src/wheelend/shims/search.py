"""Finds, for one total, the pack with the fewest changes, then the fewest shims, then the evenest.

Totals are in whole units: the greatest common divisor of all thicknesses.
"""

import math
from collections import Counter
from dataclasses import dataclass

from wheelend.shims.problem import Pack, Problem, millimetres, steps
from wheelend.shims.reach import (
    FixedSide,
    Level,
    Part,
    Side,
    SideReach,
    bits_of,
    nearest_to_half,
    reversed_bits,
    split_between,
)
from wheelend.shims.work import MOST_THICKNESSES, MOST_TOTALS, Work


@dataclass(frozen=True)
class Found:
    """A pack that reaches a total (in units), and what it costs; `uneven` is |left − right|."""

    total: int
    changes: int
    shims: int
    uneven: int
    pack: Pack


class Search:
    """All packs that stock and design allow, up to a highest total for one problem.

    `most_steps` is the highest total worth building, in 10 nm steps; None for no ceiling.
    """

    def __init__(self, problem: Problem, most_steps: int | None, work: Work) -> None:
        self.work = work
        stock, fitted = _counts(problem)
        thicknesses = sorted(_looked_at(stock, fitted, work), reverse=True)
        self.unit = math.gcd(*thicknesses) or 1
        self.parts = [Part(t // self.unit, stock[t]) for t in thicknesses]
        thickest = self.parts[0].thickness if self.parts else 0
        self.cap = thickest * min(problem.max_shims, sum(part.stock for part in self.parts))
        if most_steps is not None:
            self.cap = max(min(self.cap, most_steps // self.unit), 0)
        self.left, self.right = self._sides(problem, fitted, thicknesses)
        self.highest = self.cap * (2 if isinstance(self.right, SideReach) else 1)
        self.clipped = False
        self._mirrored: dict[int, int] = {}
        self._splits = self._levels_together()

    def _sides(
        self, problem: Problem, fitted: list[Counter[int]], thicknesses: list[int]
    ) -> tuple[Side, Side]:
        frozen = [_stays_empty(problem, side) for side in (0, 1)]
        made: list[Side] = []
        for side in (0, 1):
            now = [fitted[side][t] if side < len(fitted) else 0 for t in thicknesses]
            if frozen[side]:
                made.append(FixedSide(self.parts))
            else:
                made.append(SideReach(self.parts, now, problem.max_shims, self.cap, self.work))
        return made[0], made[1]

    def _levels_together(self) -> dict[Level, list[tuple[Level, Level]]]:
        together: dict[Level, list[tuple[Level, Level]]] = {}
        for l_level in self.left.levels:
            for r_level in self.right.levels:
                level = (l_level[0] + r_level[0], l_level[1] + r_level[1])
                together.setdefault(level, []).append((l_level, r_level))
        return dict(sorted(together.items()))

    def _mirror(self, bits: int) -> int:
        if bits not in self._mirrored:
            self._mirrored[bits] = reversed_bits(bits, self.cap)
        return self._mirrored[bits]

    def _lefts(self, l_bits: int, r_bits: int, total: int, tolerance: int | None) -> int:
        """The left totals that some right total completes, as a bit set."""
        shift = self.cap - total
        mirrored = self._mirror(r_bits)
        both = l_bits & (mirrored >> shift if shift >= 0 else mirrored << -shift)
        if not both or tolerance is None:
            return both
        lowest, highest = max(-((tolerance - total) // 2), 0), (total + tolerance) // 2
        return both >> lowest << lowest & ((1 << (highest + 1)) - 1)

    def possible(self, total: int, tolerance: int | None) -> bool:
        """Whether each side alone could do its share of a total (the stock may still say no)."""
        return bool(self._lefts(self.left.anywhere, self.right.anywhere, total, tolerance))

    def best_at(self, total: int, tolerance: int | None, most_changes: int) -> Found | None:
        """The cheapest pack of a total, or None; `tolerance` in units bounds |left − right|."""
        if not self.work.does(1, 4 * self.cap) or not self.possible(total, tolerance):
            return None
        for level, splits in self._splits.items():
            if level[0] > most_changes or not self.work.does(len(splits), 4 * self.cap):
                return None
            found = self._at_level(level, splits, total, tolerance)
            if found:
                return found
        return None

    def _at_level(
        self, level: Level, splits: list[tuple[Level, Level]], total: int, tolerance: int | None
    ) -> Found | None:
        lefts = [
            self._lefts(self.left.levels[l], self.right.levels[r], total, tolerance)
            for l, r in splits
        ]
        anywhere = 0
        for bits in lefts:
            anywhere |= bits
        for l_total in nearest_to_half(anywhere, total):
            if not self.work.does(1, self.cap * len(splits)):
                return None
            for (l_level, r_level), bits in zip(splits, lefts, strict=True):
                if not bits >> l_total & 1:
                    continue
                wanted = ((l_level, l_total), (r_level, total - l_total))
                counts = split_between(self.left, self.right, self.parts, wanted, self.work)
                if counts:
                    uneven = abs(2 * l_total - total)
                    return Found(total, *level, uneven, tuple(map(self._shims, counts)))
        return None

    def _shims(self, counts: list[int]) -> tuple[float, ...]:
        return tuple(
            millimetres(part.thickness * self.unit)
            for part, count in zip(self.parts, counts, strict=True)
            for _ in range(count)
        )

    def ran_out(self) -> None:
        """All totals were looked at that were given: what was clipped was left out."""
        self.work.cut |= self.clipped

    def totals(self, low: int, high: int, *, around: int) -> list[int]:
        """Every total from low to high (in units) that could be built, ascending.

        Where there are too many, those nearest to `around`, and `clipped` says so.
        """
        low, high = max(low, 0), min(high, self.highest)
        if high - low >= MOST_TOTALS:
            self.clipped = True
            middle = min(max(around, low), high)
            low, high = max(low, middle - MOST_TOTALS // 2), min(high, middle + MOST_TOTALS // 2)
        if high < low:
            return []
        if isinstance(self.right, FixedSide):
            window = self.left.anywhere >> low & ((1 << (high - low + 1)) - 1)
            return [low + place for place in bits_of(window)]
        return list(range(low, high + 1))


def _counts(problem: Problem) -> tuple[dict[int, int], list[Counter[int]]]:
    """Shims by thickness in steps: all that may be used, and those fitted on each side."""
    stock: Counter[int] = Counter()
    for shim in problem.tray:
        stock[steps(shim.thickness_mm)] += shim.count
    fitted = [Counter(map(steps, side)) for side in problem.latest.pack]
    for side in fitted:
        stock.update(side)
    return {t: count for t, count in stock.items() if count}, fitted


def _looked_at(stock: dict[int, int], fitted: list[Counter[int]], work: Work) -> list[int]:
    """The thicknesses that are looked at: what is fitted, then what there is most of."""
    if len(stock) <= MOST_THICKNESSES:
        return list(stock)
    work.cut = True
    on = {thickness for side in fitted for thickness in side}
    return sorted(stock, key=lambda t: (t not in on, -stock[t], t))[:MOST_THICKNESSES]


def _stays_empty(problem: Problem, side: int) -> bool:
    if side >= problem.sides:
        return True
    packs = problem.latest.pack
    return problem.balance == "as_found" and not packs[side] and any(packs)
