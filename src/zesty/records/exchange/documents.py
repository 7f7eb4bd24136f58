"""What every exchanged document has: a format, a version, a schema."""

import json
from datetime import date, datetime
from functools import cache
from pathlib import Path
from typing import Any

from jsonschema import Draft202012Validator

from zesty.elements.refused import Refused

SCHEMAS = Path(__file__).resolve().parents[4] / "docs" / "formats"
KINDS = ("card", "tray", "job")
VERSION = 1
LARGEST_BYTES = 8_000_000
_MOST_FAULTS = 8

Json = dict[str, Any]


def envelope(kind: str, content: Json) -> Json:
    """A document of a kind."""
    return {"format": f"zesty-spindle/{kind}", "version": VERSION, **content}


def dumps(document: Json) -> str:
    """A document as text: stable, so that the same content is the same file."""
    return json.dumps(document, ensure_ascii=False, indent=1, sort_keys=True) + "\n"


def loads(text: str) -> tuple[str, Json]:
    """Kind and document of a text. Raises Refused with what is wrong, place by place."""
    try:
        document = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        raise Refused(f"This is not JSON: {error}.") from None
    kind = _kind(document)
    faults = sorted(
        _validator(kind).iter_errors(document), key=lambda fault: list(map(str, fault.path))
    )
    if faults:
        said = "; ".join(
            f"{fault.json_path[2:] or 'document'}: {fault.message}"
            for fault in faults[:_MOST_FAULTS]
        )
        more = len(faults) - _MOST_FAULTS
        raise Refused(said[:1500] + (f"; and {more} more faults." if more > 0 else "."))
    return kind, document


def _kind(document: object) -> str:
    name = document.get("format") if isinstance(document, dict) else None
    kind = str(name).removeprefix("zesty-spindle/")
    if kind not in KINDS or kind == name:
        known = ", ".join(f"zesty-spindle/{known}" for known in KINDS)
        raise Refused(f"“format” is {name!r}; known: {known}.")
    return kind


@cache
def _validator(kind: str) -> Draft202012Validator:
    schema = json.loads((SCHEMAS / f"{kind}.schema.json").read_text(encoding="utf-8"))
    return Draft202012Validator(schema, format_checker=Draft202012Validator.FORMAT_CHECKER)


def stamp(at: datetime | None) -> str | None:
    """A time as it is written in a document."""
    return at.isoformat() if at else None


def day_of(text: str) -> date:
    """A day from a document. Raises Refused where it is none."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise Refused(f"“{text}” is not a day; give e.g. 2026-03-31.") from None


def time_of(text: str) -> datetime:
    """A time from a document. Raises Refused where it is none."""
    try:
        at = datetime.fromisoformat(text)
    except ValueError:
        raise Refused(f"“{text}” is not a time; give e.g. 2026-03-31T08:30:00+00:00.") from None
    if at.tzinfo is None:
        raise Refused(f"“{text}” has no time zone; give e.g. 2026-03-31T08:30:00+00:00.")
    return at
