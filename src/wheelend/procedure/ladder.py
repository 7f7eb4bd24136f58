"""Taking a ring off, mildest way first; and what each way scraps."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Rung:
    """One way: `scraps` is what it ruins, so that its new part is in hand before."""

    words: str
    scraps: str = ""


@dataclass(frozen=True)
class Ladder:
    """The ways for one kind of seat, mildest first, and what is never done there."""

    name: str
    rungs: tuple[Rung, ...]
    never: str = ""


LADDERS = (
    Ladder(
        "A ring in a bore",
        (
            Rung("Penetrant and brush"),
            Rung("Puller"),
            Rung("Press"),
            Rung("Housing warmed evenly: tyre off, solvent and grease gone and dry", "the seals"),
            Rung(
                "A bead run inside the ring by somebody qualified, off the vehicle: it shrinks and lets go",
                "the ring",
            ),
        ),
    ),
    Ladder(
        "A ring on a shaft",
        (
            Rung("Puller"),
            Rung("Press, behind a shield"),
            Rung("The scrap ring warmed, as dry and clean as above", "the ring"),
            Rung(
                "Ground nearly through and split by a chisel, shaft not touched, standing aside",
                "the ring",
            ),
        ),
        "Never a bead: it tightens.",
    ),
)
