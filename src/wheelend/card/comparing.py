"""What a card does not say yet, and how two versions of it differ."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from wheelend.arrangements.vocabulary import SETTABLE
from wheelend.card.fields import CARD, GROUPS, SETTING, field_at, plain
from wheelend.card.model import Card

Json = dict[str, Any]


@dataclass(frozen=True)
class Missing:
    """A field that the card has not, and what that leaves unproven."""

    path: str
    label: str
    unproven: str

    @property
    def record(self) -> str:
        """The record that it belongs in: `settings.0`, its lock, or a group of the card."""
        words = self.path.split(".")
        return ".".join(words[: 3 if words[-1] == "lock" else 2])


@dataclass(frozen=True)
class Difference:
    """One field that two versions have differently; empty where one has it not."""

    path: str
    label: str
    before: str
    after: str


def missing(card: Card, document: Json) -> tuple[Missing, ...]:
    """What the card leaves open, in the order of its fields."""
    found = [
        Missing(field.key, field.label, field.unproven)
        for field in CARD
        if field.unproven and not document.get(field.key)
    ]
    for index, setting in enumerate(document.get("settings", ())):
        wanted = _wanted(card, setting)
        found += [
            Missing(f"settings.{index}.{field.key}", field.label, field.unproven)
            for field in SETTING
            if field.unproven and field.key in wanted and not setting.get(field.key)
        ]
    found += [
        Missing(
            "bolt_rings", card.arrangement.ring(ring.key).name, f"that the {ring.name} are down"
        )
        for ring in card.arrangement.rings
        if card.ring(ring.key) is None
    ]
    return tuple(found)


def _wanted(card: Card, setting: Json) -> set[str]:
    """The figures of a setting that the arrangement's steps ask for."""
    clamps = [c for c in card.arrangement.clamps if c.set_by == setting.get("clamp")]
    keys = {clamp.key for clamp in clamps}
    figures = {
        step.figure
        for step in card.arrangement.steps
        for station in (card.arrangement.stations if step.per == "station" else ("",))
        if step.figure and step.clamp_at(station) in keys
    }
    by_play = setting.get("method") in SETTABLE
    return figures | {"source"} | ({"limits"} if by_play else set())


def differences(before: Json, after: Json) -> tuple[Difference, ...]:
    """Every field in which two documents differ, in the order of the later one."""
    old, new = dict(_leaves(before)), dict(_leaves(after))
    paths = [*new, *(path for path in old if path not in new)]
    return tuple(
        Difference(path, _label(path), plain(old.get(path)), plain(new.get(path)))
        for path in paths
        if old.get(path) != new.get(path)
    )


def _leaves(value: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    records = isinstance(value, list) and any(isinstance(one, dict) for one in value)
    if isinstance(value, dict):
        for key, one in value.items():
            yield from _leaves(one, f"{path}.{key}" if path else key)
    elif records:
        for index, one in enumerate(value):
            yield from _leaves(one, f"{path}.{index}")
    else:
        yield path, value


def _label(path: str) -> str:
    words = path.split(".")
    if words[0] == "choices":
        return path.replace(".", ": ")
    label = field_at(path).label
    if words[0] in GROUPS and len(words) > 1 and words[1].isdigit():
        return f"{field_at(words[0]).label} {int(words[1]) + 1}: {label}"
    return label
