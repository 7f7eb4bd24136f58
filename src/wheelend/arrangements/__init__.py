"""The families of wheel ends, as data: `<key>.toml`, read and checked by `loading`.

Adding an arrangement is adding a file. What differs between families stands in
the files; no code asks which family it has.
"""

from functools import cache

from wheelend.arrangements.loading import arrangement_from, arrangement_of, data_of, keys
from wheelend.arrangements.model import (
    Arrangement,
    Clamp,
    Occurrence,
    Option,
    Ring,
    StackPart,
    Step,
)
from wheelend.arrangements.vocabulary import PART_KINDS, STAGES, PartKind, Stage
from wheelend.errors import BadInput, echo

KEYS = keys()

__all__ = [
    "KEYS",
    "PART_KINDS",
    "STAGES",
    "Arrangement",
    "Clamp",
    "Occurrence",
    "Option",
    "PartKind",
    "Ring",
    "StackPart",
    "Stage",
    "Step",
    "arrangement",
    "arrangement_from",
    "arrangements",
]


def arrangement(key: str) -> Arrangement:
    """The arrangement of a key. Raises BadInput for an unknown one."""
    if key not in KEYS:
        raise BadInput("arrangement", echo(key), f"is not known; known: {', '.join(KEYS)}")
    return _ours(key)


@cache
def _ours(key: str) -> Arrangement:
    return arrangement_of(key, data_of(key))


def arrangements() -> tuple[Arrangement, ...]:
    """All of them, in the order of the trade's list."""
    return tuple(map(_ours, KEYS))
