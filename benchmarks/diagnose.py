"""Are the shares of a diagnosis what they say, and is its order of checks quicker than a fixed one?

    ./zesty bench diagnose [--wheel-ends 1000] [--seed WORDS]

Evidence is drawn from the reviewed numbers as if they were the truth. Printed: for wheel ends with some
checks answered, how often the first cause is it where its share says so (in tenths); and the minutes to a
share of 0.9 by the advised order against the ten best of many fixed orders, by median. Evidence that never
reaches 0.9 counts with all its minutes.
"""

import argparse
import itertools
import os
import statistics
from collections import defaultdict
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from random import Random

from wheelend.diagnose import Answer, Case, diagnose, table
from wheelend.diagnose.table import Check

SURE = 0.9
KINDS = (
    ("slotted_nut", "plain"),
    ("cartridge", "steered_driven"),
    ("ball_pair", "deck"),
    (None, None),
)
ORDERS, BEST = 60, 10
CHUNK = 25

Drawn = tuple[tuple[str | None, str | None], str, dict[str, str]]
"""The kind of wheel end, its true cause, and what every check would find there."""


def drawn(seed: str, count: int) -> list[Drawn]:
    """Wheel ends with a true cause each, and the answer that every check would give."""
    rng = Random(seed)
    found = []
    for number in range(count):
        kind = KINDS[number % len(KINDS)]
        causes = Case((), *kind).causes
        weights = [cause.weight(kind[0]) for cause in causes]
        truth = rng.choices(causes, weights)[0].id
        said = {
            check.id: rng.choices(check.answers, check.chances[truth])[0]
            for check in table().checks
        }
        found.append((kind, truth, said))
    return found


def asked(kind: tuple[str | None, str | None], said: dict[str, str]) -> Case:
    """A case with some answers."""
    return Case(tuple(Answer(*one) for one in said.items()), *kind)


def partly_known(one: tuple[int, Drawn]) -> tuple[float, bool]:
    """The first share with some checks answered as advised, and whether the first cause is it."""
    number, (kind, truth, would) = one
    said: dict[str, str] = {}
    found = diagnose(asked(kind, said))
    for _ in range(number % 9):
        if found.next_check is None:
            break
        said[found.next_check.check.id] = would[found.next_check.check.id]
        found = diagnose(asked(kind, said))
    return found.first.share, found.first.cause.id == truth


def advised_minutes(one: Drawn) -> float:
    """Minutes until the first cause has 0.9, doing what tells most per minute."""
    kind, _, would = one
    said: dict[str, str] = {}
    minutes = 0
    while True:
        found = diagnose(asked(kind, said))
        if found.first.share >= SURE or found.next_check is None:
            return minutes
        check = found.next_check.check
        minutes += check.minutes
        said[check.id] = would[check.id]


def fixed_minutes(one: Drawn, order: Sequence[Check]) -> float:
    """The same in a fixed order, leaving out what is not offered when its turn comes."""
    kind, _, would = one
    said: dict[str, str] = {}
    minutes = 0
    found = diagnose(asked(kind, said))
    for check in order:
        if found.first.share >= SURE:
            return minutes
        if check.id not in {offer.check.id for offer in found.open}:
            continue
        minutes += check.minutes
        said[check.id] = would[check.id]
        found = diagnose(asked(kind, said))
    return minutes


def orders(seed: str) -> Iterator[list[Check]]:
    """Fixed orders worth trying: by minutes, by what tells most at the start, and many near those."""
    rng = Random(f"{seed}/orders")
    rate = {one.check.id: one.gain_bits / one.minutes for one in diagnose(Case()).open}
    by_rate = sorted(table().checks, key=lambda check: -rate.get(check.id, 0.0))
    yield by_rate
    yield sorted(table().checks, key=lambda check: check.minutes)
    while True:
        noise = {check.id: rng.lognormvariate(0, 0.8) for check in table().checks}
        yield sorted(by_rate, key=lambda c: -rate.get(c.id, 0.02 / c.minutes) * noise[c.id])


def of_order(job: tuple[list[Drawn], list[Check]]) -> list[float]:
    """The minutes of some wheel ends in one fixed order."""
    some, order = job
    return [fixed_minutes(one, order) for one in some]


def main() -> None:
    """Print both."""
    said = arguments()
    everything = drawn(said.seed, said.wheel_ends)
    with ProcessPoolExecutor(max_workers=os.cpu_count()) as pool:
        calibration(list(pool.map(partly_known, enumerate(everything), chunksize=CHUNK)))
        advised = list(pool.map(advised_minutes, everything, chunksize=CHUNK))
        tried = list(itertools.islice(orders(said.seed), ORDERS))
        some = everything[: max(len(everything) // 10, 1)]
        rough = list(pool.map(of_order, [(some, order) for order in tried]))
        ranked = sorted(range(len(tried)), key=lambda i: statistics.fmean(rough[i]))[:BEST]
        best = list(pool.map(of_order, [(everything, tried[i]) for i in ranked]))
    compare(advised, best)


def arguments() -> argparse.Namespace:
    """What was asked for."""
    parser = argparse.ArgumentParser(prog="./zesty bench diagnose")
    parser.add_argument("--wheel-ends", type=int, default=1000)
    parser.add_argument("--seed", default="first")
    return parser.parse_args()


def calibration(found: list[tuple[float, bool]]) -> None:
    """How often the first cause is it, by what its share says."""
    by_tenth: dict[int, list[tuple[float, bool]]] = defaultdict(list)
    for share, right in found:
        by_tenth[min(int(share * 10), 9)].append((share, right))
    print(f"{'share says':>12}{'it is':>9}{'of':>7}")
    for _, group in sorted(by_tenth.items()):
        says = statistics.fmean(share for share, _ in group)
        print(f"{says:12.1%}{statistics.fmean(right for _, right in group):9.1%}{len(group):7}")
    says, is_it = (statistics.fmean(values) for values in zip(*found, strict=True))
    print(f"{says:12.1%}{is_it:9.1%}{len(found):7}   all\n")


def compare(advised: list[float], best: list[list[float]]) -> None:
    """Minutes by the advised order, and by the best fixed ones."""
    ours = statistics.median(advised)
    print(f"minutes to {SURE}: advised, median {ours:g} (mean {statistics.fmean(advised):.1f})")
    for minutes in best:
        median, mean = statistics.median(minutes), statistics.fmean(minutes)
        ratio = median / max(ours, 1)
        print(f"    a fixed order, median {median:g} (mean {mean:.1f}), ratio {ratio:.2f}")


if __name__ == "__main__":
    main()
