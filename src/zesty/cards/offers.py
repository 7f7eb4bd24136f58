"""What a card may take over from what the workshop wrote: other rooms tell, the editor shows."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from wheelend.card import Card
from zesty.people.models import Workshop


@dataclass(frozen=True)
class Offer:
    """A value for a field of a setting, and whose word it is."""

    field: str
    value: str
    words: str


Teller = Callable[[Workshop, Card], Iterable[Offer]]
_tellers: list[Teller] = []


def tell(teller: Teller) -> None:
    """Have a room asked whenever a card is changed."""
    _tellers.append(teller)


def offers_for(workshop: Workshop, card: Card) -> dict[str, Offer]:
    """What is offered to a card, by field."""
    return {offer.field: offer for teller in _tellers for offer in teller(workshop, card)}
