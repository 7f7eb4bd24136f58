"""What can hurt, and where it applies. The vehicle maker and local rules come first."""

from dataclasses import dataclass

ALWAYS = (
    "The vehicle maker's current procedure and local rules come first. Steering, brake and "
    "wheel-end work on road vehicles may need a licensed person."
)


@dataclass(frozen=True)
class Caution:
    """One caution: the stage it belongs to, and whether only air-braked vehicles need it."""

    key: str
    stage: str
    text: str
    air_braked_only: bool = False
    through_axle_only: bool = False


CAUTIONS = (
    Caution(
        "raised", "take_in", "Raised vehicle on stands, never on the jack; other wheels chocked."
    ),
    Caution(
        "spring_brake",
        "take_in",
        "Parking spring: block the wheels, then hold the spring off mechanically as its maker says. "
        "Letting the air out applies the brake and leaves the spring's energy stored.",
        air_braked_only=True,
    ),
    Caution(
        "hands_eyes", "take_in", "Gloves and eye protection on. Brake dust is wiped wet, not blown."
    ),
    Caution(
        "hub_weight", "set", "The hub is heavy: hold it in with the outer bearing as it slides on."
    ),
    Caution(
        "through_axle",
        "set",
        "Both sides closed before the first reading: thick shims towards the housing, shim bore clear of the "
        "cup, plate over the cup, holes and drain in line.",
        through_axle_only=True,
    ),
    Caution("hands_clear", "set", "Hands clear of studs and hub when it is turned."),
    Caution("no_impact", "lock", "Never an impact gun on a nut that sets a bearing."),
    Caution("retorque", "close", "Wheel fasteners are torqued again after first use."),
)


def cautions_for(
    stage: str, *, air_braked: bool, through_axle: bool = False
) -> tuple[Caution, ...]:
    """The cautions of a stage on a vehicle."""
    return tuple(
        caution
        for caution in CAUTIONS
        if caution.stage == stage
        and (air_braked or not caution.air_braked_only)
        and (through_axle or not caution.through_axle_only)
    )
