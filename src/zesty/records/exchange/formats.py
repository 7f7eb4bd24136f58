"""What each document holds, declared once: reader and published schema come from here."""

from dataclasses import dataclass
from datetime import date, datetime

from wheelend.card import DOCUMENT
from wheelend.card.figures import ShortText
from wheelend.errors import BadInput, echo
from wheelend.procedure.allowed import FACTS
from wheelend.procedure.figures import (
    MOST_CLOSINGS,
    MOST_IN_PACK,
    MOST_ROUNDS,
    SHIM,
    SHIMS_OF_ONE,
    THICKNESSES,
)
from wheelend.procedure.log import ASPECTS, ENTRY_KINDS
from wheelend.readers import Day, Flag, Json, ListOf, Record, Whole, Word
from wheelend.thickeners import THICKENERS
from zesty.bench.models import Purpose, State
from zesty.fleet.models import DECK, Kind, Side
from zesty.people.models import Role
from zesty.records.models import Statement
from zesty.stores.models import EquipmentKind, InstrumentKind, LubricantKind

EARLIEST, LATEST = 1990, 2200
MOST_ROWS = 5000
MOST_AXLES = 9
MOST_SPINDLES = 3
MOST_JOBS = 999_999


@dataclass(frozen=True)
class Time:
    """A time with its zone, ISO 8601."""

    def read(self, value: object, path: str) -> datetime:
        need = "is not a time; give e.g. 2026-03-31T08:30:00+00:00"
        try:
            at = datetime.fromisoformat(value if isinstance(value, str) else "")
        except ValueError:
            raise BadInput(path, echo(value), need) from None
        if at.tzinfo is None or not EARLIEST <= at.year <= LATEST:
            raise BadInput(path, echo(value), need)
        return at

    def schema(self) -> Json:
        return {"type": "string", "format": "date-time"}


@dataclass(frozen=True)
class AsItIs:
    """Checks a value, and leaves it as it came: it is kept so."""

    inner: Record

    def read(self, value: object, path: str) -> Json:
        self.inner.read(value, path)
        return value  # type: ignore[return-value]

    def schema(self) -> Json:
        return self.inner.schema()


_ENTRY = Record(
    {
        "step": ShortText(30),
        "kind": Word(ENTRY_KINDS),
        "aspect": Word(ASPECTS),
        "by": ShortText(150),
        "at": Time(),
    },
    {
        "unit": Whole(1, 24),
        "clamp": ShortText(20),
        "closing": Whole(0, MOST_CLOSINGS),
        "round": Whole(1, MOST_ROUNDS),
        "station": ShortText(20),
        "place": ShortText(20),
        "typed": ShortText(400),
        "value": ShortText(30),
        "facts": AsItIs(FACTS),
        "corrects": Whole(0, MOST_ROWS),
        "reason": ShortText(200),
        "shims": ListOf(
            Record({"typed": ShortText(40), "thickness": SHIM}), least=0, most=MOST_IN_PACK
        ),
    },
)
_CLAIM = Record(
    {"key": ShortText(30), "name": ShortText(80), "proven": Flag(), "fact": ShortText(600)}
)
_SIGNED = Record(
    {
        "number": Whole(1, 999),
        "by": ShortText(150),
        "role": Word(tuple(Role.values)),
        "at": Time(),
        "core_version": ShortText(20),
        "statement": Word(tuple(Statement.values)),
        "units": ListOf(
            Record({"name": ShortText(40), "claims": ListOf(_CLAIM, least=0, most=60)})
        ),
    },
    {"reason": ShortText(200), "handover": ShortText(1200)},
)
_UNIT = Record(
    {
        "name": ShortText(40),
        "card": DOCUMENT,
        "places": ListOf(
            Record(
                {
                    "axle": Whole(DECK, MOST_AXLES),
                    "side": Word(tuple(Side.values)),
                    "station": ShortText(20),
                }
            ),
            most=4,
        ),
    }
)
JOB = Record(
    {
        "format": Word(("zesty-spindle/job/2",)),
        "number": Whole(1, MOST_JOBS),
        "purpose": Word(tuple(Purpose.values)),
        "state": Word(tuple(State.values)),
        "vehicle": Record(
            {
                "name": ShortText(60),
                "kind": Word(tuple(Kind.values)),
                "air_braked": Flag(),
                "axles": Whole(1, MOST_AXLES),
            },
            {"electric_parking": Flag(), "air_springs": Flag(), "deck": Whole(0, MOST_SPINDLES)},
        ),
        "units": ListOf(_UNIT, most=24),
        "entries": ListOf(_ENTRY, least=0, most=MOST_ROWS),
        "sign_offs": ListOf(_SIGNED, least=0, most=50),
        "opened_by": ShortText(150),
        "opened_at": Time(),
    },
    {"ended_at": Time(), "state_reason": ShortText(200)},
)
_INSTRUMENT = Record(
    {"kind": Word(tuple(InstrumentKind.values)), "name": ShortText(60)},
    {
        "resolution": ShortText(40),
        "low": ShortText(40),
        "high": ShortText(40),
        "accuracy_percent": ShortText(8),
        "multiplier": ShortText(10),
        "calibrated_on": Day(),
        "certificate": ShortText(60),
        "doubt": ShortText(40),
    },
)
_EQUIPMENT = Record(
    {"kind": Word(tuple(EquipmentKind.values)), "name": ShortText(60), "figure": ShortText(34)}
)
_LUBRICANT = Record(
    {"kind": Word(tuple(LubricantKind.values)), "name": ShortText(60)},
    {
        "thickener": Word(tuple(THICKENERS)),
        "grade": ShortText(40),
        "density": ShortText(34),
        "opened_on": Day(),
        "left": ShortText(34),
    },
)
TRAY = Record(
    {
        "format": Word(("zesty-spindle/tray/2",)),
        "shims": ListOf(
            Record({"nominal": SHIM, "count": Whole(0, SHIMS_OF_ONE)}, {"measured": SHIM}),
            least=0,
            most=THICKNESSES,
        ),
        "instruments": ListOf(_INSTRUMENT, least=0, most=500),
    },
    {
        "equipment": ListOf(_EQUIPMENT, least=0, most=100),
        "lubricants": ListOf(_LUBRICANT, least=0, most=100),
    },
)
FORMATS = {"card": DOCUMENT, "tray": TRAY, "job": JOB}


def schema_of(kind: str) -> Json:
    """The published schema of a document."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"zesty-spindle/{kind}/2",
        **FORMATS[kind].schema(),
    }


def stamp(at: datetime | None) -> str | None:
    """A time as it is written in a document."""
    return at.isoformat() if at else None


def day(on: date) -> str:
    """A day as it is written in a document."""
    return on.isoformat()
