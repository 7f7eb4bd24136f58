"""Slips of the hand and of the eye: what is written in place of what was read."""

import itertools
from random import Random

KINDS = ("swapped", "point", "unit", "twice", "half", "exchanged")


def slipped(rng: Random, typed: str, other: str) -> str:
    """A reading as one slip makes it: another number, in the same spelling.

    `other` is the other reading of the place: in and out may be exchanged. Where a kind of slip
    changes nothing (0.11 has no digits to swap), another is made.
    """
    for kind in rng.sample(KINDS, len(KINDS)):
        made = _made(rng, kind, typed, other)
        if made not in (typed, ""):
            return made
    return typed


def _made(rng: Random, kind: str, typed: str, other: str) -> str:
    number, unit = typed.rsplit(" ", 1)
    places = len(number.partition(".")[2])
    value = float(number)
    if kind == "swapped":
        return _swapped(rng, number, unit)
    if kind == "unit":
        return f"{number} thou"
    if kind == "exchanged":
        return other
    factor = {"point": rng.choice((10.0, 0.1)), "twice": 2.0, "half": 0.5}[kind]
    return f"{value * factor:.{places + 1 if factor < 1 else places}f} {unit}"


def _swapped(rng: Random, number: str, unit: str) -> str:
    digits = [i for i, sign in enumerate(number) if sign.isdigit()]
    pairs = [(a, b) for a, b in itertools.pairwise(digits) if number[a] != number[b]]
    if not pairs:
        return ""
    a, b = rng.choice(pairs)
    signs = list(number)
    signs[a], signs[b] = signs[b], signs[a]
    return f"{''.join(signs)} {unit}"
