"""The product's advice on virtual wheel ends, against hand arithmetic and shim by shim.

    ./zesty bench advice [--wheel-ends 2000] [--seed WORDS] [--only WORDS]

Each condition draws wheel ends with a hidden truth; someone does literally what the next act says, and
two others work the same wheel ends without it. Printed are shares of all wheel ends: set, trials (and
how many times what is least possible for one who knows the truth of each trial), set though outside,
signed as proven though outside, stopped or asked without a fault, told what to get, led round in a
circle; and, where there are faults, how often the cause that was named first was the true one.
"""

import argparse
import os
from concurrent.futures import ProcessPoolExecutor

from wheelend.simulation.conditions import Setup, conditions
from wheelend.simulation.follower import Outcome
from wheelend.simulation.setting import summed, tried, ways
from wheelend.simulation.truth import FaultKind
from wheelend.simulation.trying import WAYS, Tally, advised, alone, tally

CHUNK = 50
HEAD = (
    f"{'':52}{'set':>7}{'trials':>8}{'/least':>8}{'wrong':>8}{'proven w.':>10}{'alarms':>8}{'told':>7}"
    f"{'circle':>8}"
)

Job = tuple[str, Setup, str, range, str]


def main() -> None:
    """Work every condition and print what came of it."""
    said = arguments()
    wanted = {name: one for name, one in conditions().items() if said.only in name}
    with ProcessPoolExecutor(max_workers=os.cpu_count()) as pool:
        print(f"{said.wheel_ends} wheel ends a condition, seed “{said.seed}”\n{HEAD}")
        for name, setup in wanted.items():
            for way in ("as advised", *WAYS):
                chunks = [
                    (name, setup, said.seed, range(at, min(at + CHUNK, said.wheel_ends)), way)
                    for at in range(0, said.wheel_ends, CHUNK)
                ]
                found = [one for part in pool.map(work, chunks) for one in part]
                show(name if way == "as advised" else f"    {way}", tally(found))
                if way == "as advised" and setup.faults:
                    causes(tally(found))
        settings(said)


def settings(said: argparse.Namespace) -> None:
    """Packs by drag, and nuts with a lock ring: as advised, a step at a time, and exactly at a limit."""
    print(f"\n{'':52}{'set':>7}{'trials':>8}{'wrong':>8}{'given up':>10}")
    for name, way in ways().items():
        if said.only in name:
            of = summed(tried(way, name, said.seed, range(said.wheel_ends)))
            given_up = "" if "limit" in name else f"{of.dead_ends:10.2%}"
            print(f"{name:52}{of.set_:7.1%}{of.trials:8.2f}{of.wrong:8.2%}{given_up}")


def arguments() -> argparse.Namespace:
    """What was asked for."""
    parser = argparse.ArgumentParser(prog="./zesty bench advice")
    parser.add_argument("--wheel-ends", type=int, default=2000)
    parser.add_argument("--seed", default="first")
    parser.add_argument("--only", default="")
    return parser.parse_args()


def work(job: Job) -> list[tuple[FaultKind, Outcome]]:
    """Some wheel ends of a condition, one way."""
    name, setup, seed, numbers, way = job
    if way in WAYS:
        return alone(name, setup, seed, numbers, way)
    return advised(name, setup, seed, numbers)


def show(name: str, of: Tally) -> None:
    """One line."""
    print(
        f"{name:52}{of.set_:7.1%}{of.trials:8.2f}{of.over_least:8.3f}{of.wrong:8.2%}{of.proven_wrong:10.2%}"
        f"{of.alarms:8.2%}{of.told:7.1%}{of.dead_ends:8.2%}",
        flush=True,
    )


def causes(of: Tally) -> None:
    """Whether causes were named rightly."""
    print(
        f"      of {of.named} faults that showed: first cause right {of.first_right:.1%}, "
        f"among the first two {of.among_two:.1%}; slips named {of.slips_named:.1%}",
        flush=True,
    )


if __name__ == "__main__":
    main()
