"""A card while it is changed: the section is the form, a few fields of one part open at a time."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from wheelend.arrangements import arrangement
from wheelend.arrangements.vocabulary import SEALS
from wheelend.card import CHOICES, Card, Difference, Missing, card_from, differences, missing, plain
from wheelend.card.fields import GROUPS, Field, field_at
from wheelend.choices import Choice
from wheelend.readers import Flag, Word
from zesty.cards.models import CardDraft, CardVersion

_LISTS = ("stack", "settings", "bolt_rings", "fits", "seals", "sources")
ADDS = {
    "stack": "one more part",
    "bolt_rings": "one more ring of bolts",
    "fits": "a press fit",
    "seals": "the depth of a seal",
    "sources": "one more source",
}
"""What is added to a list of the card, by its key."""
_INNER = ("torque_limits",)
"""Records whose fields stand one by one among those of the record around them."""


@dataclass(frozen=True)
class FieldRow:
    """One field as it is shown: what it says, what it said before, how it is answered."""

    path: str
    field: Field
    value: str
    before: str
    options: tuple[tuple[str, str], ...] = ()
    flag: bool = False


@dataclass(frozen=True)
class Spot:
    """Something on the card that can be opened: a part, a setting, a ring, a source, the rest."""

    key: str
    name: str
    says: str
    open: bool


@dataclass(frozen=True)
class Editing:
    """Everything that the editor shows; `further` are fields that the open spot does not need."""

    draft: CardDraft
    card: Card
    spots: dict[str, tuple[Spot, ...]]
    at: str
    title: str
    fields: tuple[FieldRow, ...]
    further: tuple[FieldRow, ...]
    missing: tuple[Missing, ...]
    changes: tuple[Difference, ...]


def editing(draft: CardDraft, before: CardVersion | None, at: str) -> Editing:
    """A draft with one spot open."""
    document = draft.document
    card = card_from(document)
    old = before.document if before else {}
    spots = _spots(document, card, at)
    known = {spot.key for group in spots.values() for spot in group}
    if at not in known:
        at = next(spot.key for spot in spots["settings"])
        spots = _spots(document, card, at)
    rows = _rows(document, old, at)
    needed = {row.path for row in rows if row.value or row.before or _is_used(row, document, at)}
    return Editing(
        draft=draft,
        card=card,
        spots=spots,
        at=at,
        title=next(s.name for group in spots.values() for s in group if s.key == at),
        fields=tuple(row for row in rows if row.path in needed),
        further=tuple(row for row in rows if row.path not in needed),
        missing=missing(card, document),
        changes=differences(old, document) if before else (),
    )


def _is_used(row: FieldRow, document: dict[str, Any], at: str) -> bool:
    """Whether the setting that is open is made in a way that needs a field."""
    method = (_at(document, at) or {}).get("method") if at.startswith("settings.") else None
    return method is None or not row.field.methods or method in row.field.methods


def _spots(document: dict[str, Any], card: Card, at: str) -> dict[str, tuple[Spot, ...]]:
    found: dict[str, tuple[Spot, ...]] = {}
    for group in _LISTS:
        found[group] = tuple(
            Spot(f"{group}.{i}", _name(group, line, card), _says(group, line), f"{group}.{i}" == at)
            for i, line in enumerate(document.get(group, ()))
        )
    found["settings"] = tuple(_with_locks(found["settings"], document, at))
    found["rest"] = (
        Spot("hands", "What hands can feel", plain(document.get("hands")), at == "hands"),
        Spot("wear", "Limits of wear", plain(document.get("wear")), at == "wear"),
        Spot("lubricant", "Grease or oil", plain(document.get("lubricant")), at == "lubricant"),
        Spot(
            "heat_limits", "Heat, at most", plain(document.get("heat_limits")), at == "heat_limits"
        ),
        Spot("facts", "What kind it is", plain(document.get("facts")), at == "facts"),
        Spot("choices", "Choices of school", plain(document.get("choices")), at == "choices"),
        Spot("recheck", "Looked at again", plain(document.get("recheck")), at == "recheck"),
        Spot("card", "Places, checks, notes", plain(document.get("read_at")), at == "card"),
    )
    return found


def _with_locks(settings: tuple[Spot, ...], document: dict[str, Any], at: str) -> Iterator[Spot]:
    """Each setting, and after it what stops its nut."""
    for spot, line in zip(settings, document.get("settings", ()), strict=True):
        key = f"{spot.key}.lock"
        says = plain(line.get("lock", {}).get("kind"))
        yield spot
        yield Spot(key, spot.name.replace("Setting:", "Lock:"), says, key == at)


def _name(group: str, line: dict[str, Any], card: Card) -> str:
    if group == "settings":
        clamps = {clamp.set_by: clamp.name for clamp in card.arrangement.clamps}
        return f"Setting: {clamps.get(line['clamp'], line['clamp']).removeprefix('left ')}"
    if group == "bolt_rings":
        return str(card.arrangement.ring(line["ring"]).name).capitalize()
    if group in ("fits", "seals"):
        what = "Fit" if group == "fits" else "Depth and drag"
        return f"{what} of the {line['part']}"
    return str(line.get("name") or line.get("key"))


def _says(group: str, line: dict[str, Any]) -> str:
    shown = {
        "stack": ("width", "bore", "outside"),
        "settings": ("limits", "torque"),
        "bolt_rings": ("bolts", "torque"),
        "sources": ("kind", "ref"),
        "fits": ("seat_low", "seat_high", "material"),
        "seals": ("depth_low", "depth_high", "adds"),
    }[group]
    return " · ".join(plain(line[key]) for key in shown if line.get(key))


def _rows(document: dict[str, Any], old: dict[str, Any], at: str) -> list[FieldRow]:
    if at == "card":
        keys = ("name", "read_at", "kit", "second_person", "unknown", "note")
        return [
            _row(field, field.key, document, old) for field in GROUPS["card"] if field.key in keys
        ]
    family = arrangement(document["arrangement"])
    if at == "choices":
        made = (
            one for one in CHOICES.values() if one.is_made_in(family) or _said_in(one, document)
        )
        return [_choice(one.key, document, old) for one in made if one.key != "aim"]
    if at == "facts":
        return [_fact(key, document, old) for key in family.facts]
    rows: list[FieldRow] = []
    for field in GROUPS[next(word for word in reversed(at.split(".")) if not word.isdigit())]:
        path = f"{at}.{field.key}"
        if field.key == "lock":
            continue  # It has a spot of its own.
        if field.key in _INNER:
            rows += [_row(one, f"{path}.{one.key}", document, old) for one in GROUPS[field.key]]
        else:
            rows.append(_row(field, path, document, old))
    return rows


def _row(field: Field, path: str, document: dict[str, Any], old: dict[str, Any]) -> FieldRow:
    value, before = plain(_at(document, path)), plain(_at(old, path))
    flag = isinstance(field.reader, Flag)
    if flag and not value:
        value = "yes" if field.key == "counts" else "no"
    options = _options(field, path, document)
    return FieldRow(path, field, value, before if before != value else "", options, flag)


def _options(field: Field, path: str, document: dict[str, Any]) -> tuple[tuple[str, str], ...]:
    """What a field is picked from; empty where it is typed."""
    if isinstance(field.reader, Word):
        return tuple((word, word.replace("_", " ")) for word in field.reader.words)
    group = path.partition(".")[0]
    if field.key == "part" and group in _KINDS_OF:
        return tuple((name, name) for name in _named(group, card_from(document)))
    if field.key == "source":
        sources = document.get("sources", ())
        return tuple((one["key"], f"{one['key']}: {one.get('ref', '')}"[:60]) for one in sources)
    if field.key == "clamp":
        clamps = {one.set_by: one.name for one in arrangement(document["arrangement"]).clamps}
        return tuple(clamps.items())
    return ()


_KINDS_OF = {
    "fits": ("cup", "ball_bearing", "cartridge", "collar"),
    "seals": SEALS,
}


def _named(group: str, card: Card) -> list[str]:
    """The parts that a fit or a depth can be of."""
    return [one.name for one in card.stack if one.part in _KINDS_OF[group]]


def _said_in(choice: Choice, document: dict[str, Any]) -> bool:
    return choice.key in document.get("choices", {})


def _fact(key: str, document: dict[str, Any], old: dict[str, Any]) -> FieldRow:
    return _row(field_at(f"facts.{key}"), f"facts.{key}", document, old)


def _choice(key: str, document: dict[str, Any], old: dict[str, Any]) -> FieldRow:
    choice, field = CHOICES[key], field_at(f"choices.{key}")
    value = plain(_at(document, f"choices.{key}")) or choice.usual
    before = plain(_at(old, f"choices.{key}"))
    return FieldRow(f"choices.{key}", field, value, before if before != value else "",
                    tuple(choice.options.items()))  # fmt: skip


def _at(document: Any, path: str) -> Any:
    for word in path.split("."):
        if isinstance(document, list):
            document = document[int(word)] if word.isdigit() and int(word) < len(document) else None
        elif isinstance(document, dict):
            document = document.get(word)
        else:
            return None
    return document


def new_line(group: str, card: Card) -> dict[str, Any]:
    """A line to begin with in a list of the card."""
    if group == "stack":
        return {"part": "washer", "name": f"washer {len(card.stack) + 1}"}
    if group == "bolt_rings":
        there = {ring.ring for ring in card.bolt_rings}
        left = [ring.key for ring in card.arrangement.rings if ring.key not in there]
        ring = left[0] if left else card.arrangement.rings[0].key
        return {"ring": ring, "bolts": 5, "torque": "100 N·m"}
    if group in _KINDS_OF:
        there = {one.part for one in (card.fits if group == "fits" else card.seals)}
        names = _named(group, card)
        part = next((name for name in names if name not in there), names[0])
        return {"part": part} | (
            {"on": "housing", "material": "carbon_steel"} if group == "fits" else {}
        )
    return {"key": f"source {len(card.sources) + 1}", "kind": "unsourced"}


def addable(group: str, card: Card) -> bool:
    """Whether a list of the card takes another line."""
    if group == "bolt_rings":
        return len(card.bolt_rings) < len(card.arrangement.rings)
    if group in _KINDS_OF:
        there = len(card.fits if group == "fits" else card.seals)
        return there < len(_named(group, card))
    return group in ADDS
