"""The trade's fixed words: stages, parts, and what a step can ask for."""

from dataclasses import dataclass

VERDICTS = ("strip", "setting", "nothing_wrong")
"""What *Check* may end in: it comes apart, only its setting is out, or it is as the card allows."""


@dataclass(frozen=True)
class Stage:
    """One stage of the work: `key` is its stable name, `short` fits a narrow rule.

    `verdicts` are those of *Check* after which the work usually passes through it.
    """

    key: str
    name: str
    short: str
    verdicts: tuple[str, ...] = VERDICTS


@dataclass(frozen=True)
class PartKind:
    """A kind of part: `width_mm` and `height` are sensible sizes where none are known.

    `height` is the ring's height over its bore, as a share of the seat's diameter.
    """

    key: str
    name: str
    width_mm: float
    height: float


ARRANGEMENTS = (
    "slotted_nut", "locking_nut", "preset", "shimmed_pair", "through_axle", "retainer_plate", "bearing_pack",
    "ground_spacer", "cartridge", "ball_pair", "mower_tapered", "planetary", "pivot",
)  # fmt: skip
"""Every family of wheel ends by its key, whether or not its file is there yet."""

STAGES = {
    stage.key: stage
    for stage in (
        Stage("take_in", "Take in", "Take in"),
        Stage("check", "Check and diagnose", "Check"),
        Stage("strip", "Strip and record", "Strip", VERDICTS[:1]),
        Stage("clean", "Clean and inspect", "Clean", VERDICTS[:1]),
        Stage("match", "Match and get ready", "Match", VERDICTS[:1]),
        Stage("press", "Press and fit", "Press", VERDICTS[:1]),
        Stage("pack", "Pack and lubricate", "Pack", VERDICTS[:2]),
        Stage("seal", "Seal", "Seal", VERDICTS[:2]),
        Stage("set", "Assemble and set", "Set", VERDICTS[:2]),
        Stage("lock", "Torque and lock", "Lock", VERDICTS[:2]),
        Stage("prove", "Prove", "Prove"),
        Stage("close", "Close", "Close"),
    )
}

PART_KINDS = {
    kind.key: kind
    for kind in (
        PartKind("spindle", "spindle", 0.0, 0.0),
        PartKind("shaft", "shaft", 0.0, 0.0),
        PartKind("housing", "housing", 28.0, 0.8),
        PartKind("knuckle", "knuckle", 40.0, 0.8),
        PartKind("hub", "hub", 22.0, 0.9),
        PartKind("flange", "flange", 12.0, 0.9),
        PartKind("cup", "cup", 15.0, 0.2),
        PartKind("cone", "cone", 20.0, 0.44),
        PartKind("ball_bearing", "ball bearing", 15.0, 0.5),
        PartKind("cartridge", "cartridge", 37.0, 0.5),
        PartKind("spacer", "spacer", 40.0, 0.12),
        PartKind("shim", "shims", 0.0, 0.16),
        PartKind("washer", "washer", 4.0, 0.24),
        PartKind("collar", "collar", 8.0, 0.18),
        PartKind("sleeve", "sleeve", 14.0, 0.12),
        PartKind("seal", "seal", 10.0, 0.45),
        PartKind("cassette_seal", "cassette seal", 14.0, 0.45),
        PartKind("wear_sleeve", "wear sleeve", 12.0, 0.05),
        PartKind("plate", "plate", 8.0, 0.6),
        PartKind("bracket", "bracket", 6.0, 0.8),
        PartKind("gasket", "gasket", 0.5, 0.6),
        PartKind("nut", "nut", 14.0, 0.36),
        PartKind("lock_ring", "lock ring", 4.0, 0.3),
        PartKind("jam_nut", "jam nut", 10.0, 0.36),
        PartKind("pin", "pin", 0.0, 0.1),
        PartKind("snap_ring", "snap ring", 2.0, 0.1),
        PartKind("key", "key", 20.0, 0.1),
        PartKind("cap", "cap", 20.0, 0.5),
        PartKind("bolt", "bolt", 30.0, 0.1),
        PartKind("o_ring", "O-ring", 3.0, 0.1),
        PartKind("thrust_washer", "thrust washer", 3.0, 0.3),
        PartKind("encoder", "encoder", 3.0, 0.3),
        PartKind("dust_shield", "dust shield", 3.0, 0.8),
        PartKind("pulley", "pulley", 25.0, 1.2),
        PartKind("blade", "blade", 6.0, 2.0),
    )
}

SEALS = ("seal", "cassette_seal")
"""The parts that seal a hub by a lip."""

PAIRS = {"cone": "cup"}
"""Rings that are judged and renewed together with another at their seat."""

STEP_KINDS = (
    "complaint", "usage", "identified", "safe", "checked", "verdict", "parts_in_hand", "as_found",
    "marks", "stripped", "apart", "stack_off", "prints", "fasteners", "cleaned", "seats", "seal_found",
    "grooves", "judged", "killed_by", "neighbours", "matched", "captive", "laid_out", "seal_tried",
    "encoder_found", "cup_home",
    "shaft_in", "packed", "greased", "oiled", "seal_in", "outer_seal", "sleeve_on", "hub_on",
    "spacer_in", "faces", "assembled", "pack", "torque", "seated", "dial", "reading", "opening",
    "seating", "place", "lock_torque", "lock", "locked_reading", "cap", "bolts",
    "lash_free", "turned_back", "wheel_snug", "spacer", "spacer_pair", "spacer_fit", "drag", "drag_in_hub",
    "drag_in_fork", "fit_drag", "seal_drag", "grease_drag", "stand_out", "plate_home", "gap",
    "backlash_before", "backlash_after", "turned_ways",
    "turns", "brake_back", "signal", "aligned", "blade", "closed", "run", "fastened", "changed",
    "warmed", "weighed", "stroked", "seal_level", "turned_before", "turned_after",
    "spun", "recheck_dial", "recheck_read", "recheck_wheel",
    "on_ground", "made_free", "second", "sign",
)  # fmt: skip
"""What a step is about: by it one stage's rule reads what another wrote."""

CLAMP_KINDS = frozenset({
    "torque", "pack", "seated", "reading", "opening", "seating", "place", "lock_torque", "lock",
    "locked_reading", "bolts", "cap", "turns", "lash_free", "turned_back", "drag", "drag_in_hub",
    "drag_in_fork", "plate_home", "gap", "backlash_after", "turned_ways", "turned_after",
})  # fmt: skip
"""Evidence of the clamp: it dies with its closing. All else lives until a step undoes it."""

MOVING_KINDS = frozenset({"torque", "seating", "place", "lock_torque", "bolts"})
"""What moves a nut or a bolt: done again, all that comes after it in the closing is due again."""

ENTRIES = (
    "text", "usage", "pick", "tick", "torque", "pack", "refit", "dial", "series", "opening", "seat",
    "place", "bolts", "checks", "list", "photo", "measure", "warmth", "level", "band",
    "stand_out", "turns", "second", "sign",
)  # fmt: skip
"""How a step is answered."""

PURPOSES = ("service", "recheck")
"""What a job is for: a service, or the short look after first use."""

FACTS: dict[str, tuple[str, ...]] = {
    "kind": ("pressed", "own_ring", "bolted", "deck", "knuckle", "rebuilt", "assembled"),
    "lubricant": ("grease", "oil"),
    "driven": ("yes", "no"),
    "wear_sleeve": ("none", "keep", "renew", "off"),
    "seal_counts": ("yes", "no"),
    "bearing_came": ("open", "greased", "sealed"),
    "spacer_passes_cup": ("yes", "no"),
    "nut": ("one_piece", "ring_and_outer", "jam"),
    "key": ("straight", "half_moon", "none"),
    "encoder": ("none", "magnetic", "windowed"),
    "pinion": ("shimmed", "sleeve", "new_nut"),
    "plate_home": ("yes", "no"),
    "verdict": VERDICTS,
}
"""What may be known of a wheel end that changes its steps; `verdict` is what Check ended in."""

THICKENERS = (
    "lithium",
    "lithium_complex",
    "calcium",
    "calcium_sulfonate",
    "aluminium_complex",
    "sodium",
    "polyurea",
    "clay",
)
"""What thickens a grease; which may meet stands in `wheelend.thickeners`."""

METHODS = (
    "shims", "nut_angle", "drag", "fixed_torque", "stand_out", "by_hand", "bolt_ring", "restore", "stack",
)  # fmt: skip
"""How a wheel end is set: each has a folder of its name in `wheelend.methods`."""

BY_PACK = frozenset({"shims"})
"""Methods by which a pack of shims makes the setting."""

BY_NUT = frozenset({"nut_angle", "by_hand"})
"""Methods by which the nut makes the play, and may go back for it."""

SETTABLE = BY_PACK | BY_NUT
"""Methods by which a sound wheel end is set anew: nut or shims make it."""

SETTLES = SETTABLE | {"drag"}
"""Methods whose setting changes as the bearings run in: it is looked at again after first use."""
