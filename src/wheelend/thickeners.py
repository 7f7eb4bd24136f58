"""Which thickeners may meet: a reviewed table, each cell with its reason.

Tables of this kind disagree with one another, for much depends on the single grease; a full clean-out is
always safe, and this one takes the cautious word wherever its sources differ. Source: compatibility
tables of lubricant handbooks, compared.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Literal

from wheelend.arrangements.vocabulary import THICKENERS
from wheelend.datafiles import data_file

Word = Literal["compatible", "borderline", "no"]
CAUTION = "Tables disagree, and so may two greases of these kinds: a full clean-out is always safe."


@dataclass(frozen=True)
class Meeting:
    """What happens where two thickeners meet, and why."""

    word: Word
    why: str


@cache
def _table() -> Mapping[frozenset[str], Meeting]:
    found = {}
    for said in data_file("thickeners")["meeting"]:
        pair = frozenset(said["of"])
        if not pair <= set(THICKENERS) or pair in found:
            raise ValueError(f"{said['of']} is no pair, or stands twice")
        found[pair] = Meeting(said["word"], said["why"])
    return found


def meeting(old: str, new: str) -> Meeting:
    """What happens where an old grease meets a new one. Raises KeyError for an unknown thickener."""
    if {old, new} - set(THICKENERS):
        raise KeyError(old if old not in THICKENERS else new)
    if old == new:
        return Meeting(
            "compatible", "The same thickener; another base oil or additive may still differ."
        )
    return _table()[frozenset((old, new))]
