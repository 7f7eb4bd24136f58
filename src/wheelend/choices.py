"""Where good practitioners disagree: the choices, each with its options and what they mean."""

from dataclasses import dataclass

from wheelend.arrangements import Arrangement
from wheelend.arrangements.vocabulary import SEALS, SETTABLE
from wheelend.errors import BadInput, echo


@dataclass(frozen=True)
class Choice:
    """One choice of school: `options` maps each answer to its meaning; the first is the usual one.

    `length` says that a length is an answer too. It is made where an arrangement has one of `parts`, is
    set by one of `methods`, and has two sides where it is `two_sided`.
    """

    key: str
    name: str
    options: dict[str, str]
    length: bool = False
    methods: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    two_sided: bool = False

    @property
    def usual(self) -> str:
        """What holds where nobody chose."""
        return next(iter(self.options))

    def is_made_in(self, family: Arrangement) -> bool:
        """Whether an arrangement leaves it to be chosen."""
        parts = {one.part for one in family.stack}
        by_method = not self.methods or family.method in self.methods
        by_part = not self.parts or bool(parts & set(self.parts))
        return by_method and by_part and (not self.two_sided or len(family.stations) > 1)


_PRESSED = ("cup", "ball_bearing", "cartridge", "sleeve", "collar")

CHOICES = {
    choice.key: choice
    for choice in (
        Choice(
            "aim",
            "Where in the window to aim",
            {
                "middle": "the middle of the window",
                "loose_end": "the loose end, for fear of heat",
                "tight_end": "the tight end",
            },
            length=True,
            methods=("shims", "nut_angle", "drag"),
        ),
        Choice(
            "judged_by",
            "How play is judged",
            {
                "dial": "by dial",
                "hands": "by hands: less than they can feel passes, so it is not proven",
                "procedure": "by the procedure’s torque: nothing is read",
                "thumb": "by thumb on the spacer, stiff but it moves: not proven",
            },
            methods=(*sorted(SETTABLE), "drag", "stand_out", "fixed_torque"),
        ),
        Choice(
            "dial_at",
            "Where the dial stands",
            {
                "spindle_axis": "base on the hub, tip on the centre of the standing spindle",
                "shaft_end": "base on a heavy block, tip on the shaft end",
                "hub_face": "tip on one marked spot of the hub face: its wobble is in the reading",
            },
            methods=tuple(sorted(SETTABLE)),
        ),
        Choice(
            "lock_policy",
            "When no place lines up",
            {
                "advance_only": "on to the next place, never back",
                "torque_window": "on to a place inside the torque window",
                "nearest_within": "to the nearest place inside the window, rather back than on",
                "loosen_to_next": "back to the next place",
            },
            parts=("pin", "lock_ring"),
        ),
        Choice(
            "shims",
            "Shims on two sides",
            {
                "even_thickness": "even thickness left and right",
                "same_number": "the same number left and right",
                "one_side": "as found: only the side that has shims",
            },
            methods=("shims",),
            two_sided=True,
        ),
        Choice(
            "trials_from",
            "Where trials start",
            {
                "old_pack": "from the pack that was found",
                "over_shim": "open, and come down",
            },
            methods=("shims",),
        ),
        Choice(
            "trial_bolts",
            "Bolts in a trial",
            {
                "all": "all at working torque",
                "few": "a few, snug: a rough try that proves nothing",
            },
            methods=("shims",),
            parts=("plate",),
        ),
        Choice(
            "set_at",
            "Where it is set",
            {"vehicle": "on the vehicle", "bench": "on the bench", "vise": "in the vise"},
            methods=("shims", "drag", "stack", "restore"),
        ),
        Choice(
            "seal_in_trials",
            "The seal during trials",
            {"out": "left out: it does not count", "in": "in: it counts, a spare one is spoiled"},
            methods=("shims", "drag"),
        ),
        Choice(
            "fit_surface",
            "What is on the fit",
            {
                "oil": "a film of oil",
                "paste": "assembly paste",
                "grease": "a film of grease",
                "dry": "nothing, dry",
            },
            parts=_PRESSED,
        ),
        Choice(
            "temperature",
            "Warm and cold",
            {
                "both": "housing warm, ring chilled",
                "chill": "ring chilled only",
                "warm": "housing warm only",
                "none": "pressed as it is",
            },
            parts=_PRESSED,
        ),
        Choice(
            "driven_by",
            "What drives it in",
            {
                "press": "a press",
                "screw_tool": "a screw tool",
                "vise": "vise jaws",
                "hammer_and_tube": "hammer and tube",
                "palms": "both palms",
            },
            parts=(*_PRESSED, *SEALS),
        ),
        Choice(
            "grease",
            "How much grease",
            {
                "until_it_shows": "until it shows",
                "part_of_cavity": "a part of the cavity",
                "metered": "metered in grams",
            },
            parts=("cone", "ball_bearing"),
        ),
        Choice(
            "seal_outside",
            "The seal’s outside",
            {"dry": "nothing, dry", "oil": "a trace of oil", "sealant": "thin sealant"},
            parts=SEALS,
        ),
        Choice(
            "seal_depth",
            "How deep the seal sits",
            {
                "recorded": "as it was, if measured before",
                "flush": "flush with its face",
                "shoulder": "to its shoulder",
                "mid_track": "mid-way on its track",
            },
            parts=SEALS,
        ),
        Choice(
            "renew",
            "What is renewed",
            {
                "rebuild": "the bearings: a rebuild",
                "assembled_hub": "an assembled hub",
                "pull_ring": "the bearing; its ring pulled off the old hub",
            },
            methods=("fixed_torque",),
        ),
        Choice(
            "cartridge_at",
            "Where a cartridge is changed",
            {"vehicle": "on the vehicle, by screw tool", "press": "knuckle off, at the press"},
            parts=("cartridge",),
        ),
    )
}


def check_choice(key: str, value: str, path: str) -> None:
    """Raise BadInput for an unknown choice, or an answer that it has not."""
    choice = CHOICES.get(key)
    if choice is None:
        raise BadInput(path, echo(key), f"is no choice; known: {', '.join(CHOICES)}")
    if value not in choice.options and not choice.length:
        raise BadInput(path, echo(value), f"is not one of {', '.join(choice.options)}")
