"""Rings dropped into warm housings: by the countdown, after a fixed minute, by touch.

    ./zesty bench press [--rings 4000] [--seed WORDS]

Each ring is drawn with hidden sizes, cooling, thermometer and hands, and is worked once each way. Printed
are shares of all rings: dropped in free, gripped half way, given up; overheated above the card's limit; and
the minutes of one that went in free, as a ratio to the countdown's.
"""

import argparse
from random import Random

from wheelend.simulation.pressing import WAYS, Outcome, press, truth


def main() -> None:
    """Work every ring each way and print what came of it."""
    parser = argparse.ArgumentParser(prog="./zesty bench press")
    parser.add_argument("--rings", type=int, default=4000)
    parser.add_argument("--seed", default="first")
    said = parser.parse_args()
    print(f"{said.rings} rings, seed “{said.seed}”")
    print(
        f"{'':16}{'free':>8}{'gripped':>9}{'given up':>10}{'too hot':>9}{'minutes':>9}{'ratio':>7}"
    )
    base = 0.0
    for way in WAYS:
        found = worked(said.seed, said.rings, way)
        free = [one.minutes for one in found if one.free]
        mean = sum(free) / len(free)
        base = base or mean
        count = len(found)
        gripped = sum(one.gripped for one in found) / count
        given = sum(not one.free and not one.gripped for one in found) / count
        hot = sum(one.overheated for one in found) / count
        shares = f"{len(free) / count:8.1%}{gripped:9.1%}{given:10.1%}{hot:9.1%}"
        print(f"{way:16}{shares}{mean:9.1f}{mean / base:7.2f}")


def worked(seed: str, rings: int, way: str) -> list[Outcome]:
    """The same rings, whichever way."""
    return [
        press(Random(f"{seed} {number} {way}"), truth(Random(f"{seed} {number}")), way)
        for number in range(rings)
    ]


if __name__ == "__main__":
    main()
