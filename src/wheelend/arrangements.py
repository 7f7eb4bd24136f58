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
    """A family: its name, how many sides carry shims, and the stages that its jobs go through."""

    key: str
    name: str
    sides: int
    stages: tuple[str, ...]


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
    )
}

SHIMMED_PAIR = Arrangement(
    "shimmed_pair",
    "shimmed tapered pair on a spindle",
    sides=1,
    stages=("take_in", "set", "lock", "close"),
)
ARRANGEMENTS = {SHIMMED_PAIR.key: SHIMMED_PAIR}
