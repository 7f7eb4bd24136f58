"""Which wheel ends are looked at again after first use, after how long, and for what."""

from dataclasses import dataclass

from wheelend.arrangements.vocabulary import SETTLES
from wheelend.card.model import Card

OURS_DAYS = 7
"""Where a card names no time: wheel fasteners and settable bearings are looked at within a week of use. This
is the shop's own rule, and said so."""


@dataclass(frozen=True)
class LookAgain:
    """After how many days, after which usage (empty: none), for what, and whose rule the days are."""

    days: int
    usage: str
    what: str
    is_ours: bool


def look_again(card: Card) -> LookAgain | None:
    """What the card asks to be looked at after first use.

    None where it asks nothing, its setting does not change as it runs in, and no wheel fastener was undone.
    """
    named = card.recheck
    if named.days is None and card.setting.method not in SETTLES and card.ring("wheel") is None:
        return None
    what = "heat, leaks, wheel fasteners"
    return LookAgain(
        days=named.days or OURS_DAYS,
        usage=str(named.usage) if named.usage else "",
        what=f"play, {what}" if card.setting.limits else what,
        is_ours=not named.days,
    )
