"""A spec card as the core works with it: what the document says, read and checked."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import cached_property
from typing import Literal

from wheelend.arrangements import Arrangement
from wheelend.arrangements.vocabulary import BY_PACK
from wheelend.bolts import SHOP_STAGES, Pass, bolt_sequence
from wheelend.card.figures import Figure
from wheelend.choices import CHOICES
from wheelend.errors import BadInput
from wheelend.feel import smallest_felt
from wheelend.locknut import Policy, slotted
from wheelend.quantity import LENGTH, parse
from wheelend.verdict import Limits


@dataclass(frozen=True)
class Source:
    """Whose word a setting is; `rules` where two differ."""

    key: str
    kind: str = "unsourced"
    ref: str = ""
    rules: bool = False


@dataclass(frozen=True)
class Part:
    """One part of the stack, sizes as the card has them."""

    part: str
    name: str
    station: str = ""
    number: str = ""
    width: Figure | None = None
    reversed: Figure | None = None
    bore: Figure | None = None
    outside: Figure | None = None
    mass: Figure | None = None
    way: str = ""
    counts: bool = True
    one_time: bool = False
    seat: str = ""
    after: tuple[str, ...] = ()


@dataclass(frozen=True)
class Window:
    """Limits as the card has them; either may be missing."""

    low: Figure | None = None
    high: Figure | None = None

    @property
    def limits(self) -> Limits:
        """The same as the core judges by. Raises BadInput where both are missing."""
        return Limits(
            None if self.low is None else self.low.value,
            None if self.high is None else self.high.value,
        )

    def __str__(self) -> str:
        if self.low and self.high:
            return f"{self.low} to {self.high}"
        return f"{self.low} up" if self.low else f"up to {self.high}"


@dataclass(frozen=True)
class Lock:
    """What stops the nut, and the places where it can."""

    kind: str = ""
    pitch: Figure | None = None
    slots: int | None = None
    openings: int | None = None
    positions: int | None = None
    flip: bool = False

    @property
    def per_turn(self) -> int | None:
        """Lock places in one turn, or None where the card does not say."""
        if self.slots and self.openings:
            return slotted(self.slots, self.openings, flip=self.flip)
        return None if self.positions is None else self.positions * (2 if self.flip else 1)

    @property
    def has_places(self) -> bool:
        """Whether the places can be reckoned."""
        return self.pitch is not None and self.per_turn is not None


@dataclass(frozen=True)
class Setting:
    """What one clamp must be set to."""

    method: str
    clamp: str
    limits: Window | None = None
    aim: str = "middle"
    effect: Literal["opens", "closes"] = "opens"
    max_shims: int = 8
    repeatability: Figure | None = None
    torque: Figure | None = None
    torque_tolerance: Figure | None = None
    torque_limits: Window | None = None
    torque_per_deg: Figure | None = None
    first_torque: Figure | None = None
    jam_torque: Figure | None = None
    angle: Figure | None = None
    drag: Window | None = None
    drag_in_hub: Window | None = None
    pull: Window | None = None
    arm: Figure | None = None
    thicker: Literal["loosens", "tightens", ""] = ""
    first_step: Figure | None = None
    max_step: Figure | None = None
    parallel: Figure | None = None
    stand_out: Window | None = None
    depth: Figure | None = None
    gap: Window | None = None
    sleeve_more: Figure | None = None
    thread: str = ""
    hand: str = ""
    lock: Lock = Lock()
    source: str = ""

    def torqued_to(self, figure: str) -> "Setting":
        """The setting as a step sees it that asks for another torque than the nut's own."""
        if figure not in ("first_torque", "jam_torque"):
            return self
        return replace(
            self, torque=getattr(self, figure), torque_tolerance=None, torque_limits=None,
            torque_per_deg=None,
        )  # fmt: skip

    @property
    def torque_window(self) -> Limits | None:
        """What torque counts as reached: the window, or the torque with its tolerance."""
        if self.torque_limits:
            return self.torque_limits.limits
        if self.torque and self.torque_tolerance:
            either_way = self.torque_tolerance.value
            return Limits(self.torque.value - either_way, self.torque.value + either_way)
        return None


@dataclass(frozen=True)
class BoltRing:
    """A ring of bolts: how many, their torque, and the stages that it is drawn down in."""

    ring: str
    bolts: int
    torque: Figure
    stages: tuple[float, ...] = SHOP_STAGES
    source: str = ""

    @property
    def passes(self) -> tuple[Pass, ...]:
        """Each stage crosswise, then once more round the circle."""
        return bolt_sequence(self.bolts, self.torque.value, self.stages)


@dataclass(frozen=True)
class Hands:
    """Where hands hold, and how the bearings stand: what can be felt here."""

    radius: Figure
    spread: Figure
    contact_angle: Figure

    @property
    def smallest_felt_mm(self) -> float:
        """The least play that hands can feel."""
        return smallest_felt(self.radius.value, self.spread.value, self.contact_angle.value)


@dataclass(frozen=True)
class Wear:
    """How far a hub, a disc or a bore may be worn; what the card does not say is None."""

    face_runout: Figure | None = None
    disc_runout: Figure | None = None
    bore_ovality: Figure | None = None
    bore_taper: Figure | None = None


@dataclass(frozen=True)
class FitOf:
    """A ring that is pressed into, or on, something; its seat's least and most at 20 °C."""

    part: str
    on: Literal["housing", "shaft"]
    material: str
    around: Figure | None = None
    hollow: Figure | None = None
    race: Figure | None = None
    seat_low: Figure | None = None
    seat_high: Figure | None = None


@dataclass(frozen=True)
class Heat:
    """How warm a housing and a ring may get."""

    housing: Figure | None = None
    ring: Figure | None = None


@dataclass(frozen=True)
class SealOf:
    """How deep a seal sits below its face, how far out of level it may be, and what it adds to the turning
    torque."""

    part: str
    kind: str = ""
    depth_low: Figure | None = None
    depth_high: Figure | None = None
    even: Figure | None = None
    adds: Window | None = None

    @property
    def limits(self) -> Limits | None:
        """The depth that it may have; None where the card does not say."""
        if self.depth_low is None and self.depth_high is None:
            return None
        return Window(self.depth_low, self.depth_high).limits


@dataclass(frozen=True)
class Lubricant:
    """What it runs in: grease by thickener and fill, oil by its space, level and pressure."""

    thickener: str = ""
    grade: str = ""
    density: Figure | None = None
    fill: float = 1.0
    cavity: Figure | None = None
    cavity_fill: float | None = None
    space: Figure | None = None
    oil: Figure | None = None
    level_at: str = ""
    settle: Figure | None = None
    charge: Figure | None = None
    running: Figure | None = None
    pressure: Figure | None = None
    vented: bool = False
    adds: Window | None = None


@dataclass(frozen=True)
class Recheck:
    """When it is looked at again after first use; what the card does not say is None."""

    days: int | None = None
    usage: Figure | None = None


@dataclass(frozen=True)
class Card:
    """One version of a spec card. `document` is what it was read from."""

    name: str
    arrangement: Arrangement
    sources: tuple[Source, ...]
    stack: tuple[Part, ...]
    settings: tuple[Setting, ...]
    bolt_rings: tuple[BoltRing, ...] = ()
    read_at: tuple[str, ...] = ("12", "4", "8")
    hands: Hands | None = None
    wear: Wear = Wear()
    fits: tuple[FitOf, ...] = ()
    heat_limits: Heat = Heat()
    seals: tuple[SealOf, ...] = ()
    lubricant: Lubricant = Lubricant()
    kit: tuple[str, ...] = ()
    choices: Mapping[str, str] = field(default_factory=dict)
    facts: Mapping[str, str] = field(default_factory=dict)
    recheck: Recheck = Recheck()
    second_person: bool = False
    unknown: tuple[str, ...] = ()
    note: str = ""

    @cached_property
    def setting(self) -> Setting:
        """The setting of the clamp that the method judges."""
        return self.of_clamp(self.arrangement.setting_clamp.key)

    @property
    def has_packs(self) -> bool:
        """Whether shims make its setting."""
        return self.setting.method in BY_PACK

    def of_clamp(self, clamp: str) -> Setting:
        """What the card says of a clamp; nothing at all where it does not name it."""
        wanted = self.arrangement.clamp(clamp).set_by
        return self._ruling.get(wanted) or Setting("by_hand", wanted)

    @cached_property
    def _ruling(self) -> Mapping[str, Setting]:
        """The setting of each clamp: of the source that rules, else the first."""
        found: dict[str, Setting] = {}
        for one in sorted(self.settings, key=lambda one: not self.source(one).rules):
            found.setdefault(one.clamp, one)
        return found

    def ring(self, key: str) -> BoltRing | None:
        """A ring of bolts, where the card has it."""
        return next((ring for ring in self.bolt_rings if ring.ring == key), None)

    def source(self, setting: Setting) -> Source:
        """Whose word a setting is."""
        return next((one for one in self.sources if one.key == setting.source), Source(""))

    @property
    def unsourced(self) -> bool:
        """Whether nobody stands behind the setting."""
        return self.source(self.setting).kind == "unsourced"

    @property
    def rival_sources(self) -> tuple[Source, ...]:
        """Sources that give one clamp different settings, none of which was said to rule."""
        mine = [one for one in self.settings if one.clamp == self.setting.clamp]
        named = tuple(self.source(one) for one in mine)
        return named if len(mine) > 1 and sum(one.rules for one in named) != 1 else ()

    @property
    def places(self) -> tuple[str, ...]:
        """Where a reading is taken: clock positions, or each station once."""
        by_station = self.arrangement.read_at == "stations"
        return self.arrangement.stations if by_station else self.read_at

    def chosen(self, key: str, instead: Mapping[str, str] | None = None) -> str:
        """What holds of a choice: the job's own, the card's, or the usual one."""
        return {**self.choices, **(instead or {})}.get(key, CHOICES[key].usual)

    def has(self, need: str) -> bool:
        """Whether the card has what a step needs: `lock`, `lock_places`, `second_person`, `ring:wheel`,
        `encoder`, `fits`, `mass`, `seal:lower seal`."""
        what, _, name = need.partition(":")
        part = any(one.part == "encoder" for one in self.stack)
        known = {
            "ring": lambda: self.ring(name) is not None,
            "lock": lambda: any(one.lock.kind for one in self.settings),
            "lock_places": lambda: any(one.lock.has_places for one in self.settings),
            "encoder": lambda: self.facts.get("encoder", "magnetic" if part else "none") != "none",
            "fits": lambda: bool(self.fits),
            "mass": lambda: any(one.mass for one in self.stack),
            "setting": lambda: any(getattr(one, name, None) for one in self.settings),
            "seal": lambda: any(name in one.part for one in self.seals),
            "second_person": lambda: self.second_person,
        }
        return what in known and known[what]()


def aim_of(words: str) -> Literal["middle", "low", "high"] | float:
    """An aim as the planner takes it. Raises BadInput for what is neither a word nor a length."""
    named: dict[str, Literal["middle", "low", "high"]] = {
        "middle": "middle", "loose_end": "high", "tight_end": "low",
    }  # fmt: skip
    if words in named:
        return named[words]
    try:
        return float(parse(words, LENGTH))
    except BadInput as bad:
        need = "is not an aim; give middle, loose_end, tight_end or a play such as 0.10 mm"
        raise BadInput("aim", bad.given, need) from None


def policy_of(words: str) -> Policy:
    """A lock policy as the lock planner takes it."""
    known: dict[str, Policy] = {
        "torque_window": "torque_window",
        "loosen_to_next": "loosen_to_next",
        "nearest_within": "nearest_within",
    }
    return known.get(words, "advance_only")


def exact_of(figure: Figure | None) -> Fraction | None:
    """A figure's exact value, or None."""
    return None if figure is None else figure.exact
