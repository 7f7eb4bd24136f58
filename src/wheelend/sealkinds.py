"""What each kind of seal wants on lip and outside, and how it is driven; the card rules where it differs."""

from dataclasses import dataclass


@dataclass(frozen=True)
class SealKind:
    """What to do with a kind of seal."""

    name: str
    lip: str
    outside: str
    driven: str


SEAL_KINDS = {
    "lip": SealKind(
        "lip seal",
        "Lip wet with what it keeps in; a dab of grease holds the garter spring.",
        "Outside dry or with a trace of oil, as the card says.",
        "With its driver, round by round; the driver stops right for one position only.",
    ),
    "cassette": SealKind(
        "cassette seal",
        "Its lips and their track are inside it: it is not taken apart, and only a spare is tried on.",
        "A trace of oil outside, or none, as its box says.",
        "With its own driver alone, which pushes both its halves.",
    ),
    "hand_pressed": SealKind(
        "hand-pressed seal",
        "Lip wet with what it keeps in.",
        "Outside clean; a trace of oil helps it over the edge.",
        "By the palms, evenly all round; what needs a hammer stands askew.",
    ),
    "sealant_coated": SealKind(
        "seal with a coat of sealant",
        "Lip wet with what it keeps in.",
        "Its coat is the sealant: nothing more on it, and its seat clean and dry.",
        "With its driver; what is shaved off is taken away, not pressed in.",
    ),
}
"""Source: fitting instructions of seal makers, as far as they agree."""
