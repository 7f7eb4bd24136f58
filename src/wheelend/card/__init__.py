"""The spec card as one document: every field declared once, in `fields`."""

from wheelend.card.comparing import Difference, Missing, differences, missing
from wheelend.card.fields import DOCUMENT, GROUPS, Field, field_at, plain
from wheelend.card.figures import Figure
from wheelend.card.model import (
    BoltRing,
    Card,
    Hands,
    Lock,
    Part,
    Setting,
    Source,
    Window,
    aim_of,
    exact_of,
    policy_of,
)
from wheelend.card.reading import card_from, value_from
from wheelend.choices import CHOICES, Choice, check_choice

__all__ = [
    "CHOICES", "DOCUMENT", "GROUPS", "BoltRing", "Card", "Choice", "Difference", "Field", "Figure",
    "Hands", "Lock", "Missing", "Part", "Setting", "Source", "Window", "aim_of", "card_from",
    "check_choice", "differences", "exact_of", "field_at", "missing", "plain", "policy_of", "value_from",
]  # fmt: skip
