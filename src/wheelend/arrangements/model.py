"""What an arrangement is: stations, clamps, stages and steps, all read from data."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from wheelend.arrangements.vocabulary import FACTS, VERDICTS

Per = Literal["job", "wheel_end", "station"]
Phase = Literal["", "trial", "final"]

EVERY_CLAMP = "all"
"""The clamp of a step that takes everything apart."""


@dataclass(frozen=True)
class Clamp:
    """What is closed, set and opened as one. Opening `ends_with` opens this one too.

    `setting` names what the card says of it: clamps that are alike share one setting.
    """

    key: str
    name: str
    stations: tuple[str, ...]
    ends_with: str = ""
    setting: str = ""

    @property
    def set_by(self) -> str:
        """The key of its setting on the card."""
        return self.setting or self.key


@dataclass(frozen=True)
class Ring:
    """A ring of bolts that the card may describe."""

    key: str
    name: str


@dataclass(frozen=True)
class StackPart:
    """One part of the usual stack; `seat` tells parts of a kind apart, `way` is its way round."""

    part: str
    name: str
    counts: bool = True
    one_time: bool = False
    seat: str = ""
    way: str = ""


@dataclass(frozen=True)
class Occurrence:
    """One stage where it stands in the order of the work; a second one has the key `set.2`.

    `verdicts` are those of *Check* after which the work passes through it.
    """

    key: str
    stage: str
    name: str
    short: str
    verdicts: tuple[str, ...] = VERDICTS


@dataclass(frozen=True)
class Option:
    """One possible answer. `stops` says what to do where the answer stops the work."""

    key: str
    text: str
    stops: str = ""


@dataclass(frozen=True)
class Answer:
    """One answer to an item of a list. `wants` is what is typed with it, called `label`; `stops` says
    what to do where it must not stay so."""

    key: str
    words: str
    wants: Literal["", "length", "text", "reason"] = ""
    label: str = ""
    hint: str = ""
    stops: str = ""


@dataclass(frozen=True)
class Asked:
    """One item that a step asks, where the stack has one of `parts`, the facts are as `when` has them and
    the vehicle has the `trait` deck, or has not. Its answer is the unit's fact where it names a `fact`, and
    overrules the card's."""

    key: str
    words: str
    asks: str
    answers: tuple[Answer, ...]
    why: str = ""
    fact: str = ""
    parts: tuple[str, ...] = ()
    trait: Literal["", "deck", "not deck"] = ""
    when: dict[str, tuple[str, ...]] = field(default_factory=dict)


@dataclass(frozen=True)
class Step:
    """One step: what is asked, what it waits for, what it opens or closes.

    `kind` is what the step is about, `entry` how it is answered, `says` its line in the notebook.
    `clamp` may name a station: `hub_{station}`. `needs` is what the card must have for the step to
    be asked, `trait` what the vehicle must have (`not deck`: must not have), `added_by` the change
    that somebody must have accepted, `places` where it is measured, in each part of the kinds `each`;
    `items` what a list asks where the card's stack does not say it. `phase` says whether it belongs
    to the trials or to what follows the last one. A `remedy` is not due until it was begun: the method
    offers it where what was read is outside, or wants to be accounted for. `purpose` says in which kind
    of job it is asked.
    """

    id: str
    kind: str
    stage: str
    asks: str
    says: str
    per: Per = "wheel_end"
    entry: str = "tick"
    clamp: str = ""
    why: str = ""
    after: tuple[str, ...] = ()
    opens: bool = False
    closes: bool = False
    undoes: tuple[str, ...] = ()
    skippable: bool = False
    captive: tuple[str, ...] = ()
    catches: str = ""
    cautions: tuple[str, ...] = ()
    phase: Phase = ""
    options: tuple[Option, ...] = ()
    figure: str = ""
    ring: str = ""
    rough: bool = False
    remedy: bool = False
    purpose: str = "service"
    needs: str = ""
    trait: str = ""
    added_by: str = ""
    places: tuple[str, ...] = ()
    each: tuple[str, ...] = ()
    items: tuple[Asked, ...] = ()
    when: dict[str, tuple[str, ...]] = field(default_factory=dict)

    def clamp_at(self, station: str) -> str:
        """The clamp that the step belongs to at a station; empty where it belongs to none."""
        return self.clamp.replace("{station}", station)


@dataclass(frozen=True)
class Arrangement:
    """A family of wheel ends. Families differ in data, not in code.

    `unit` says what one of it covers: a wheel end, or both ends of an axle. `read_at` is "clock"
    where it is read round the face, "stations" where it is read once at each station; `geared` where
    gears stand behind its cover.
    """

    key: str
    name: str
    unit: Literal["wheel_end", "axle"]
    method: str
    drawing: str
    read_at: Literal["clock", "stations"]
    stations: tuple[str, ...]
    clamps: tuple[Clamp, ...]
    rings: tuple[Ring, ...]
    stack: tuple[StackPart, ...]
    stages: tuple[Occurrence, ...]
    steps: tuple[Step, ...]
    geared: bool = False

    @cached_property
    def by_id(self) -> Mapping[str, Step]:
        """Its steps by their ids."""
        return {step.id: step for step in self.steps}

    @property
    def setting_clamp(self) -> Clamp:
        """The clamp whose setting the method judges: the first."""
        return self.clamps[0]

    @property
    def facts(self) -> tuple[str, ...]:
        """The facts that change its steps, or that they ask for; the verdict belongs to a job."""
        parts = {one.part for one in self.stack}
        items = [
            item for step in self.steps for item in step.items
            if not item.parts or parts & set(item.parts)
        ]  # fmt: skip
        whens = [*(one.when for one in self.steps), *(one.when for one in items)]
        asked = [item.fact for item in items if item.fact]
        named = dict.fromkeys(["lubricant", *(name for when in whens for name in when), *asked])
        return tuple(name for name in named if name in FACTS and name != "verdict")

    def clamp(self, key: str) -> Clamp:
        """One of its clamps. Raises KeyError for one that it has not."""
        return {clamp.key: clamp for clamp in self.clamps}[key]

    def ring(self, key: str) -> Ring:
        """One of its rings of bolts. Raises KeyError for one that it has not."""
        return {ring.key: ring for ring in self.rings}[key]

    def occurrence(self, key: str) -> Occurrence:
        """One stage where it stands. Raises KeyError for one that is not in the plan."""
        return {one.key: one for one in self.stages}[key]
