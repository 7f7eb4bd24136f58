"""Every field of a spec card, declared once: reader, label, help, what its absence leaves unproven.

Form, schema, reader, the list of what is missing and the difference of versions all come from here.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from wheelend.arrangements import PART_KINDS
from wheelend.arrangements.vocabulary import BY_NUT, BY_PACK, FACTS, METHODS, SETTABLE, THICKENERS
from wheelend.card.figures import FigureOf, ShortText
from wheelend.choices import CHOICES
from wheelend.errors import BadInput, echo
from wheelend.fit import MATERIALS
from wheelend.quantity import (
    ANGLE,
    DENSITY,
    FORCE,
    LENGTH,
    MASS,
    PRESSURE,
    TEMPERATURE,
    TIME,
    TORQUE,
    TORQUE_PER_DEG,
    USAGE,
    VOLUME,
)
from wheelend.readers import Flag, Json, ListOf, Number, Reader, Record, Text, Whole, Word

CARD_FACTS = {key: words for key, words in FACTS.items() if key != "verdict"}
"""The facts that a card may state; the verdict belongs to a job."""


@dataclass(frozen=True)
class WordsTable:
    """The choices that a card makes."""

    def read(self, value: object, path: str) -> dict[str, str]:
        readers: Mapping[str, Reader] = {one.key: one.reader for one in CHOSEN}
        return Record({}, readers).read(value, path)

    def schema(self) -> Json:
        options = {key: {"enum": list(choice.options)} for key, choice in CHOICES.items()}
        return {"type": "object", "properties": options, "additionalProperties": False}


class FactsTable:
    """What is known of the wheel end that changes its steps."""

    def read(self, value: object, path: str) -> dict[str, str]:
        return Record({}, {key: Word(words) for key, words in CARD_FACTS.items()}).read(value, path)

    def schema(self) -> Json:
        options = {key: {"enum": list(words)} for key, words in CARD_FACTS.items()}
        return {"type": "object", "properties": options, "additionalProperties": False}


@dataclass(frozen=True)
class Field:
    """One field: `unit` is what a bare number takes; `unproven` says what its absence leaves open, and
    `methods` which ways of setting use it, all of them where it names none."""

    key: str
    label: str
    reader: Reader
    help: str = ""
    unproven: str = ""
    required: bool = False
    methods: frozenset[str] = frozenset()

    @property
    def unit(self) -> str:
        """The unit of a bare number; empty where the field is no quantity."""
        reader = self.reader
        if isinstance(reader, Record) and self.is_window:
            reader = reader.required["low"]
        return reader.unit if isinstance(reader, FigureOf) else ""

    @property
    def is_window(self) -> bool:
        """Whether it is a least and a most, both there: typed as one, “0.5 to 1.1 N·m”."""
        return isinstance(self.reader, Record) and set(self.reader.required) == {"low", "high"}


def _mm(most: float, least: float = 0.0) -> FigureOf:
    return FigureOf(LENGTH, "mm", least, most)


def _torque(most: float = 5000) -> FigureOf:
    return FigureOf(TORQUE, "N·m", 0.01, most)


_FORCE = FigureOf(FORCE, "N", 0.01, 100_000)

SOURCE = (
    Field("key", "Short name", ShortText(20), required=True),
    Field("kind", "Whose word", Word(("vehicle_maker", "hub_maker", "kit_sheet", "measured", "unsourced"))),
    Field("ref", "Document, page, date", ShortText(200), "Where none was found: where it was sought."),
    Field("rules", "Rules where two differ", Flag()),
)  # fmt: skip

PART = (
    Field("part", "Kind", Word(tuple(PART_KINDS)), required=True),
    Field("name", "Name", ShortText(60), required=True),
    Field("station", "Station", ShortText(20)),
    Field("number", "Number", ShortText(40)),
    Field("width", "Width", _mm(2000)),
    Field("reversed", "Height it takes when turned round", _mm(2000)),
    Field("bore", "Bore", _mm(2000)),
    Field("outside", "Outside", _mm(3000)),
    Field("mass", "Mass, dry", FigureOf(MASS, "g", 0.1, 100_000)),
    Field("way", "Way round", ShortText(60)),
    Field("counts", "Counts in the clamped length", Flag()),
    Field("one_time", "New every time", Flag()),
    Field("seat", "Seat", ShortText(20)),
    Field("after", "In place before it", ListOf(ShortText(60), least=0)),
)

LIMITS = (
    Field("low", "End play, least", _mm(20, -1), required=True),
    Field("high", "End play, most", _mm(20, -1), required=True),
)
DRAG = (
    Field("low", "Turning torque, least", _torque(), required=True),
    Field("high", "Turning torque, most", _torque(), required=True),
)
ADDS = (
    Field("low", "Adds to the turning torque, least", _torque(100), required=True),
    Field("high", "Adds to the turning torque, most", _torque(100), required=True),
)
PULL = (
    Field("low", "Pull, least", _FORCE, required=True),
    Field("high", "Pull, most", _FORCE, required=True),
)
STAND_OUT = (
    Field("low", "Stand-out, least", _mm(50, -50), required=True),
    Field("high", "Stand-out, most", _mm(50, -50), required=True),
)
GAP = (
    Field("low", "Gap, least", _mm(20), required=True),
    Field("high", "Gap, most", _mm(20), required=True),
)
RECHECK = (
    Field("days", "After days", Whole(1, 3660)),
    Field("usage", "After usage", FigureOf(USAGE, "", 1, 9_999_999), "800 km, 500 mi, 25 h."),
)
TORQUE_LIMITS = (
    Field("low", "Torque, least", _torque()),
    Field("high", "Torque, ceiling", _torque()),
)
LOCK = (
    Field("kind", "Lock", ShortText(60), unproven="that the nut is locked"),
    Field("pitch", "Thread pitch", _mm(10, 0.1), "1.5 mm, 1/16 in."),
    Field("slots", "Slots in the nut", Whole(1, 60)),
    Field(
        "openings",
        "Pin-hole mouths round the spindle",
        Whole(1, 24),
        "A hole right through has two.",
    ),
    Field("positions", "Or: lock-ring positions a turn", Whole(1, 360)),
    Field("flip", "The ring may be turned over", Flag()),
)


CHOSEN = tuple(
    Field(key, one.name, Text("a length") if one.length else Word(tuple(one.options)))
    for key, one in CHOICES.items()
)
KNOWN = tuple(
    Field(key, key.replace("_", " ").capitalize(), Word(words)) for key, words in CARD_FACTS.items()
)


def _record(fields: tuple[Field, ...]) -> Record:
    return Record(
        {field.key: field.reader for field in fields if field.required},
        {field.key: field.reader for field in fields if not field.required},
    )


_AIM = Text("middle, loose_end, tight_end, or a play")
_PLAY = SETTABLE | {"fixed_torque"}
_TURNED = frozenset({"drag", "fixed_torque", "bolt_ring"})
_DRAG = frozenset({"drag"})
_RISE = FigureOf(TORQUE_PER_DEG, "N·m/deg", 0.001, 500)
SETTING = (
    Field("method", "Method", Word(METHODS), required=True),
    Field("clamp", "Clamp", ShortText(20), required=True),
    Field("limits", "End play", _record(LIMITS), unproven="that the play is inside", methods=_PLAY),
    Field("aim", "Aim", _AIM, "middle, loose_end, tight_end, or a play.", methods=_PLAY | _DRAG),
    Field("effect", "What a thicker pack does", Word(("opens", "closes")), methods=BY_PACK),
    Field("max_shims", "Shims at most, each side", Whole(1, 50), methods=BY_PACK),
    Field("repeatability", "Scatter of a reading taken anew", _mm(1), methods=_PLAY),
    Field("torque", "Nut torque", _torque(), unproven="that the nut is at its torque"),
    Field("torque_tolerance", "Either way", _torque()),
    Field("torque_limits", "Torque window", _record(TORQUE_LIMITS)),
    Field("torque_per_deg", "Torque rises by", _RISE, methods=_PLAY),
    Field("first_torque", "Seating torque, where another comes after it", _torque(), methods=BY_NUT),
    Field("jam_torque", "Jam or outer nut", _torque(), methods=BY_NUT),
    Field("angle", "Turned back from there", FigureOf(ANGLE, "deg", 0, 360), methods=BY_NUT),
    Field("drag", "Turning torque", _record(DRAG), unproven="that the drag is inside", methods=_TURNED),
    Field("drag_in_hub", "Turning torque in the hub", _record(DRAG), methods=_DRAG),
    Field("pull", "Pull while it swings", _record(PULL), methods=_DRAG),
    Field("arm", "At which radius it is pulled", _mm(2000, 1), methods=_TURNED),
    Field("thicker", "A thicker spacer", Word(("loosens", "tightens")), methods=_DRAG),
    Field("first_step", "First change of the spacer", _mm(2, 0.001), methods=_DRAG),
    Field("max_step", "Largest change at once", _mm(2, 0.001), methods=_DRAG),
    Field("parallel", "Faces out of parallel, at most", _mm(1, 0.001),
          methods=frozenset({"drag", "fixed_torque", "stack"})),
    Field("stand_out", "Stand-out", _record(STAND_OUT), unproven="that the stand-out is inside",
          methods=frozenset({"stand_out"})),
    Field("depth", "Depth of the housing", _mm(500), methods=frozenset({"stand_out"})),
    Field("gap", "Gap that stays under the plate", _record(GAP), methods=frozenset({"stand_out", "bolt_ring"})),
    Field("sleeve_more", "Past the torque of before, at most", _torque(), methods=frozenset({"restore"})),
    Field("thread", "State of the thread", Word(("dry", "oiled", "anti_seize", "thread_lock"))),
    Field("hand", "Hand of the thread", Word(("right", "left", "left_on_left"))),
    Field("lock", "Lock", _record(LOCK), unproven="that the nut is locked"),
    Field("source", "Source", ShortText(20), unproven="whose word the setting is"),
)  # fmt: skip
RING = (
    Field("ring", "Ring", ShortText(20), required=True),
    Field("bolts", "Bolts", Whole(2, 60), required=True),
    Field("torque", "Their torque", _torque(), required=True),
    Field(
        "stages",
        "Stages",
        ListOf(Number(above=0, most=1), most=12),
        "Shares of the torque, rising to 1.",
    ),
    Field("source", "Source", ShortText(20)),
)
HANDS = (
    Field("radius", "Where hands hold, from the axis", _mm(2000, 1), required=True),
    Field("spread", "Between the bearings' load centres", _mm(2000, 1), required=True),
    Field("contact_angle", "Contact angle", FigureOf(ANGLE, "deg", 1, 60), required=True),
)
WEAR = (
    Field("face_runout", "Hub-face runout, most", _mm(5)),
    Field("disc_runout", "Disc runout, most", _mm(5)),
    Field("bore_ovality", "Bore out of round, most", _mm(5)),
    Field("bore_taper", "Bore taper, most", _mm(5)),
)
_TEMPERATURE = FigureOf(TEMPERATURE, "degC", -100, 400)
FITS = (
    Field("part", "Ring", ShortText(60), "By its name in the stack.", required=True),
    Field("on", "Where it is tight", Word(("housing", "shaft")), required=True),
    Field("material", "Of what it sits in, or on", Word(tuple(MATERIALS)), required=True),
    Field("around", "Outside of the housing round it", _mm(5000)),
    Field("hollow", "Bore of the shaft", _mm(2000)),
    Field("race", "Mean raceway of the ring", _mm(3000)),
    Field("seat_low", "Seat, least", _mm(3000)),
    Field("seat_high", "Seat, most", _mm(3000)),
)
HEAT = (
    Field("housing", "Housing or hub, at most", _TEMPERATURE),
    Field("ring", "Ring, at most", _TEMPERATURE),
)
SEALS = (
    Field("part", "Seal", ShortText(60), "By its name in the stack.", required=True),
    Field("kind", "Kind", Word(("lip", "cassette", "hand_pressed", "sealant_coated"))),
    Field("depth_low", "Depth below its face, least", _mm(200, -50)),
    Field("depth_high", "Depth below its face, most", _mm(200, -50)),
    Field("even", "Out of level, at most", _mm(10)),
    Field("adds", "Adds to the turning torque", _record(ADDS)),
)
_VOLUME = FigureOf(VOLUME, "mL", 0.1, 100_000)
LUBRICANT = (
    Field("thickener", "Thickener", Word(tuple(THICKENERS))),
    Field("grade", "Grade", ShortText(40)),
    Field("density", "Density", FigureOf(DENSITY, "g/mL", 0.5, 3)),
    Field("fill", "Of the bearing’s free space", Number(above=0, most=1)),
    Field("cavity", "Cavity beside it", _VOLUME),
    Field("cavity_fill", "Of the cavity", Number(least=0, most=1)),
    Field("space", "Oil hub: its whole space", _VOLUME),
    Field("oil", "Oil in it at its mark", _VOLUME),
    Field("level_at", "Where the level is read", ShortText(60)),
    Field("settle", "Oil settles for", FigureOf(TIME, "min", 1, 1440)),
    Field("charge", "Drive axle: its own first charge", _VOLUME),
    Field("running", "Runs at", _TEMPERATURE),
    Field("pressure", "Gauge pressure that the seal bears", FigureOf(PRESSURE, "bar", 0, 20)),
    Field("vented", "Vented", Flag()),
    Field("adds", "Adds to the turning torque", _record(ADDS)),
)
_ANY_TEXT = ListOf(ShortText(200), least=0)

CARD = (
    Field("format", "Format", Word(("zesty-spindle/card/2",)), required=True),
    Field("name", "Name of the card", ShortText(80), required=True),
    Field("arrangement", "Arrangement", ShortText(40), required=True),
    Field("facts", "What kind it is", FactsTable()),
    Field("sources", "Who says so", ListOf(_record(SOURCE), least=0), required=True),
    Field("stack", "Stack, from inboard", ListOf(_record(PART), most=60), required=True),
    Field("settings", "Settings", ListOf(_record(SETTING), most=12), required=True),
    Field("bolt_rings", "Rings of bolts", ListOf(_record(RING), least=0, most=12)),
    Field("read_at", "Read at", ListOf(ShortText(5), most=12), "Clock positions, apart by commas."),
    Field("hands", "What hands can feel", _record(HANDS), unproven="what hands can feel here"),
    Field("wear", "Limits of wear", _record(WEAR)),
    Field("fits", "Press fits", ListOf(_record(FITS), least=0, most=12)),
    Field("heat_limits", "Heat, at most", _record(HEAT)),
    Field("seals", "Seals, their depth", ListOf(_record(SEALS), least=0, most=12)),
    Field("lubricant", "Grease or oil", _record(LUBRICANT)),
    Field(
        "kit", "The kit contains", ListOf(ShortText(60), most=40), "Parts by name, apart by commas."
    ),
    Field("choices", "Choices of school", WordsTable()),
    Field("recheck", "Look again after first use", _record(RECHECK)),
    Field("second_person", "A second person checks it", Flag()),
    Field("unknown", "Not known", _ANY_TEXT),
    Field("note", "Note", ShortText(400)),
)

GROUPS: dict[str, tuple[Field, ...]] = {
    "card": CARD,
    "sources": SOURCE,
    "stack": PART,
    "settings": SETTING,
    "limits": LIMITS,
    "torque_limits": TORQUE_LIMITS,
    "drag": DRAG,
    "drag_in_hub": DRAG,
    "adds": ADDS,
    "pull": PULL,
    "stand_out": STAND_OUT,
    "gap": GAP,
    "recheck": RECHECK,
    "lock": LOCK,
    "bolt_rings": RING,
    "hands": HANDS,
    "wear": WEAR,
    "fits": FITS,
    "heat_limits": HEAT,
    "seals": SEALS,
    "lubricant": LUBRICANT,
    "choices": CHOSEN,
    "facts": KNOWN,
}
"""The fields of each record, by the key that it stands under."""

DOCUMENT = _record(CARD)
"""The reader of a whole card document; its schema is the published one."""


def field_at(path: str) -> Field:
    """The field that a path such as `settings.0.torque` leads to. Raises BadInput."""
    fields: tuple[Field, ...] = CARD
    found: Field | None = None
    for word in path.split("."):
        if word.isascii() and word.isdigit():
            continue
        found = next((field for field in fields if field.key == word), None)
        if found is None:
            raise BadInput(path, echo(word), "is no field of a card")
        fields = GROUPS.get(word, ())
    if found is None:
        raise BadInput(path, "", "names no field")
    return found


def plain(value: Any) -> str:
    """A field's value in a document, as one line."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return ", ".join(plain(one) for one in value)
    if isinstance(value, dict) and set(value) == {"low", "high"}:
        low, high = value["low"], value["high"]
        number, _, unit = low.partition(" ")
        return f"{number if unit and high.endswith(f' {unit}') else low} to {high}"
    if isinstance(value, dict):
        return ", ".join(f"{key} {plain(one)}" for key, one in value.items())
    return str(value)
