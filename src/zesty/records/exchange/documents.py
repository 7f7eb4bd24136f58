"""Documents as text: bounded and checked whole before anything is saved."""

import json
import re
from typing import Any

from wheelend.cli import loads as read_json
from wheelend.errors import BadInput
from zesty.elements.refused import Refused
from zesty.records.exchange.formats import FORMATS

LARGEST_BYTES = 5_000_000
DEEPEST = 20
MOST_RECORDS = 60_000
MOST_VALUES = 250_000

Json = dict[str, Any]
_STRING = re.compile(r'"[^"]*"')
_MARK = re.compile(r"[\[\]{},]")


def dumps(document: Json) -> str:
    """A document as text: stable, so that the same content is the same file."""
    return json.dumps(document, ensure_ascii=False, indent=1, sort_keys=True) + "\n"


def loads(text: str) -> tuple[str, Json, Json]:
    """Kind, document as it is, and document as it was read. Raises Refused with what is wrong."""
    _check_bounds(text)
    try:
        document = read_json(text)
        kind = _kind(document)
        return kind, document, FORMATS[kind].read(document, "")  # type: ignore[return-value]
    except BadInput as bad:
        raise Refused(f"{bad}.") from None


def _check_bounds(text: str) -> None:
    """Refuse what is too large or too deep before anything is built of it."""
    if len(text) > LARGEST_BYTES:
        raise Refused(f"The document is larger than {LARGEST_BYTES // 10**6} MB; split it.")
    depth = records = values = 0
    # Escapes go first, so that a plain pattern finds the strings: a cleverer one eats memory.
    bare = _STRING.sub("", text.replace("\\\\", "").replace('\\"', ""))
    for found in _MARK.finditer(bare):
        mark = found[0]
        values += mark == ","
        opens = mark in "[{"
        records += opens
        depth += (opens or -1) if mark != "," else 0
        if depth > DEEPEST:
            raise Refused(f"The document is nested deeper than {DEEPEST} levels.")
        if records > MOST_RECORDS or values > MOST_VALUES:
            raise Refused(
                f"The document has more than {MOST_RECORDS} records or {MOST_VALUES} values; split it."
            )


def _kind(document: object) -> str:
    name = document.get("format") if isinstance(document, dict) else None
    known = {f"zesty-spindle/{kind}/2": kind for kind in FORMATS}
    if isinstance(name, str) and name in known:
        return known[name]
    if isinstance(name, str) and name.removeprefix("zesty-spindle/") in FORMATS:
        raise Refused(
            "This is a document of the first format, which is no longer read; export it anew."
        )
    raise Refused(f"“format” is {str(name)[:60]!r}; known: {', '.join(known)}.")
