"""The families of wheel ends. They differ in data, not in code."""

from dataclasses import dataclass


@dataclass(frozen=True)
class PartKind:
    """A kind of part in a stack: `width_mm` and `height` are sensible sizes where none are known.

    `height` is the ring's height over its bore, as a share of the seat's diameter.
    """

    key: str
    name: str
    width_mm: float
    height: float


@dataclass(frozen=True)
class Arrangement:
    """A family: its name, how many sides carry shims, and the stages that its jobs go through.

    `needed` are the kinds of part that its stack must have once, `usual` a stack to start from.
    """

    key: str
    name: str
    sides: int
    stages: tuple[str, ...]
    needed: tuple[str, ...]
    usual: tuple[str, ...]


PART_KINDS = {
    kind.key: kind
    for kind in (
        PartKind("collar", "collar", 8.0, 0.18),
        PartKind("seal", "seal", 10.0, 0.45),
        PartKind("inner_bearing", "inner bearing", 20.0, 0.44),
        PartKind("spacer", "spacer", 40.0, 0.12),
        PartKind("shims", "shims", 0.0, 0.16),
        PartKind("outer_bearing", "outer bearing", 17.0, 0.40),
        PartKind("washer", "washer", 4.0, 0.24),
        PartKind("nut", "nut", 14.0, 0.36),
        PartKind("pin", "pin", 0.0, 0.1),
        PartKind("centre_block", "centre block", 28.0, 0.8),
        PartKind("bearing", "bearing", 16.0, 0.53),
        PartKind("plate", "plate", 8.0, 0.6),
        PartKind("hub", "keyed hub", 22.0, 0.9),
    )
}

SHIMMED_PAIR = Arrangement(
    "shimmed_pair",
    "shimmed tapered pair on a spindle",
    sides=1,
    stages=("take_in", "set", "lock", "close"),
    needed=("inner_bearing", "shims", "outer_bearing"),
    usual=(
        "collar", "seal", "inner_bearing", "spacer", "shims", "outer_bearing", "washer", "nut", "pin",
    ),
)  # fmt: skip
THROUGH_AXLE = Arrangement(
    "through_axle",
    "through-axle shimmed pair",
    sides=2,
    stages=("take_in", "set", "lock", "close"),
    needed=("bearing", "shims", "plate"),
    usual=("centre_block", "bearing", "shims", "plate", "hub", "nut", "pin"),
)
ARRANGEMENTS = {family.key: family for family in (SHIMMED_PAIR, THROUGH_AXLE)}

ENDS = ("left", "right")
"""Where a through-axle is read: once from each end, and the two must agree."""
