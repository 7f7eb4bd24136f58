"""Reads an arrangement from its TOML text and checks it whole."""

import os
from collections.abc import Mapping
from dataclasses import replace
from functools import cache
from typing import Any

from wheelend.arrangements.model import (
    EVERY_CLAMP,
    Answer,
    Arrangement,
    Asked,
    Clamp,
    Occurrence,
    Option,
    Ring,
    StackPart,
    Step,
)
from wheelend.arrangements.vocabulary import (
    ARRANGEMENTS,
    ENTRIES,
    FACTS,
    METHODS,
    PART_KINDS,
    PURPOSES,
    SETTABLE,
    STAGES,
    STEP_KINDS,
)
from wheelend.datafiles import data_file
from wheelend.errors import BadInput, echo
from wheelend.readers import Flag, ListOf, Record, Text, Word

_OF_A_CLAMP = frozenset({"reading", "locked_reading", "dial"})


class _When:
    """Which choices or facts a step is for: a name, and the words it may have."""

    def read(self, value: object, path: str) -> dict[str, tuple[str, ...]]:
        if not isinstance(value, dict):
            raise BadInput(path, echo(value), "is not a table of words")
        return {name: tuple(_WORDS.read(words, f"{path}.{name}")) for name, words in value.items()}

    def schema(self) -> dict[str, Any]:
        return {"type": "object"}


_FOLDER = os.path.dirname(__file__)  # noqa: PTH120  pathlib takes longer to start than the rest here
_TEXT = Text("a text")
_WORDS = ListOf(_TEXT, least=0)
_OPTION = Record({"key": _TEXT, "text": _TEXT}, {"stops": _TEXT})
_ANSWER = Record(
    {"key": _TEXT, "words": _TEXT},
    {"wants": Word(("length", "text", "reason")), "label": _TEXT, "hint": _TEXT, "stops": _TEXT},
)
_ITEM = Record(
    {"key": _TEXT, "words": _TEXT, "asks": _TEXT, "answers": ListOf(_ANSWER)},
    {
        "why": _TEXT,
        "fact": Word(tuple(FACTS)),
        "parts": ListOf(Word(tuple(PART_KINDS))),
        "trait": Word(("deck", "not deck")),
        "when": _When(),
    },
)
_STEP = Record(
    {
        "id": _TEXT,
        "kind": Word(STEP_KINDS),
        "stage": _TEXT,
        "asks": _TEXT,
        "says": _TEXT,
    },
    {
        "per": Word(("job", "wheel_end", "station")),
        "entry": Word(ENTRIES),
        "clamp": _TEXT,
        "why": _TEXT,
        "after": _WORDS,
        "opens": Flag(),
        "closes": Flag(),
        "undoes": ListOf(Word(STEP_KINDS)),
        "skippable": Flag(),
        "captive": ListOf(Word(tuple(PART_KINDS))),
        "catches": _TEXT,
        "cautions": _WORDS,
        "phase": Word(("trial", "final")),
        "options": ListOf(_OPTION),
        "figure": _TEXT,
        "ring": _TEXT,
        "rough": Flag(),
        "remedy": Flag(),
        "purpose": Word(PURPOSES),
        "needs": _TEXT,
        "trait": _TEXT,
        "added_by": _TEXT,
        "places": ListOf(_TEXT, most=12),
        "each": ListOf(Word(tuple(PART_KINDS))),
        "items": ListOf(_ITEM),
        "items_from": _TEXT,
        "when": _When(),
    },
)
_FAMILY = Record(
    {
        "name": _TEXT,
        "unit": Word(("wheel_end", "axle")),
        "method": Word(METHODS),
        "drawing": _TEXT,
        "read_at": Word(("clock", "stations")),
        "stations": ListOf(_TEXT),
        "clamps": ListOf(
            Record(
                {"key": _TEXT, "name": _TEXT, "stations": ListOf(_TEXT)},
                {"ends_with": _TEXT, "setting": _TEXT},
            )
        ),
        "stack": ListOf(
            Record(
                {"part": Word(tuple(PART_KINDS)), "name": _TEXT},
                {"counts": Flag(), "one_time": Flag(), "seat": _TEXT, "way": _TEXT},
            )
        ),
        "stages": ListOf(
            Record({"key": _TEXT}, {"name": _TEXT, "short": _TEXT, "verdicts": _WORDS})
        ),
    },
    {"rings": ListOf(Record({"key": _TEXT, "name": _TEXT})), "geared": Flag()},
)


def arrangement_from(key: str, text: str) -> Arrangement:
    """An arrangement from its TOML text.

    Raises BadInput that names the place: an id twice, an `after` that does not stand earlier, a
    stage, clamp, ring or station that the arrangement has not.
    """
    import tomllib  # noqa: PLC0415  (ours were parsed before)

    try:
        data = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        raise BadInput(key, "the arrangement", f"is not TOML: {error}") from None
    return arrangement_of(key, data)


def arrangement_of(key: str, data: Mapping[str, Any]) -> Arrangement:
    """An arrangement from what its file holds. Raises BadInput as `arrangement_from` does."""
    steps = _expanded(data.get("steps", []), key)
    said = _FAMILY.read({name: data[name] for name in data if name != "steps"}, key)
    family = Arrangement(
        key=key,
        name=said["name"],
        unit=said["unit"],
        method=said["method"],
        drawing=said["drawing"],
        read_at=said["read_at"],
        stations=tuple(said["stations"]),
        clamps=tuple(
            Clamp(**{**one, "stations": tuple(one["stations"])}) for one in said["clamps"]
        ),
        rings=tuple(Ring(**ring) for ring in said.get("rings", [])),
        geared=said.get("geared", False),
        stack=tuple(StackPart(**part) for part in said["stack"]),
        stages=tuple(
            _occurrence(one, f"{key}.stages[{i}]") for i, one in enumerate(said["stages"])
        ),
        steps=tuple(
            _verdicts(_step(one, f"{key}.steps[{i}]"), said["method"])
            for i, one in enumerate(steps)
        ),
    )
    _check(family)
    return family


def _verdicts(step: Step, method: str) -> Step:
    """Where a spacer or the stack makes the setting, nothing is set without taking it apart."""
    if step.kind != "verdict" or method in SETTABLE:
        return step
    return replace(step, options=tuple(one for one in step.options if one.key != "setting"))


def _expanded(steps: list[Any], key: str) -> list[Any]:
    """Steps with each `use` replaced by the group of common steps that it names."""
    every: list[Any] = []
    for step in steps:
        group = step.get("use") if isinstance(step, dict) else None
        if group is None:
            every.append(step)
        elif group in _common():
            every += _common()[group]
        else:
            raise BadInput(
                f"{key}.steps", echo(group), f"is no group; known: {', '.join(_common())}"
            )
    return every


@cache
def _common() -> Mapping[str, list[Any]]:
    groups: dict[str, list[Any]] = {}
    for name in common_names():
        groups |= data_of(name)
    return groups


def common_names() -> tuple[str, ...]:
    """The data files with the steps that several arrangements share."""
    found = sorted(os.listdir(os.path.join(_FOLDER, "common")))  # noqa: PTH118, PTH208
    return tuple(f"common/{name.removesuffix('.toml')}" for name in found if name.endswith(".toml"))


def keys() -> tuple[str, ...]:
    """The arrangements that there are files for: ours in the order of the trade's list, then others."""
    found = {name.removesuffix(".toml") for name in os.listdir(_FOLDER) if name.endswith(".toml")}  # noqa: PTH208
    others = sorted(found - {*ARRANGEMENTS})
    return (*(key for key in ARRANGEMENTS if key in found), *others)


def data_of(name: str) -> dict[str, Any]:
    """What one of our data files holds."""
    return data_file("arrangements", name)


def _occurrence(said: dict[str, Any], path: str) -> Occurrence:
    stage = STAGES.get(said["key"].partition(".")[0])
    if stage is None:
        raise BadInput(f"{path}.key", echo(said["key"]), f"is no stage; known: {', '.join(STAGES)}")
    return Occurrence(
        said["key"],
        stage.key,
        said.get("name", stage.name),
        said.get("short", stage.short),
        tuple(said.get("verdicts", stage.verdicts)),
    )


_TUPLES = ("after", "undoes", "captive", "cautions", "places", "each")


def _step(value: object, path: str) -> Step:
    said = _STEP.read(value, path)
    group = said.pop("items_from", "")
    if group:
        said["items"] = [*ListOf(_ITEM).read(_common()[group], path), *said.get("items", [])]
    options = tuple(Option(**option) for option in said.pop("options", []))
    items = tuple(_item(item, f"{path}.items") for item in said.pop("items", []))
    said |= {name: tuple(said[name]) for name in _TUPLES if name in said}
    return Step(**said, options=options, items=items)


def _item(said: dict[str, Any], path: str) -> Asked:
    answers = tuple(Answer(**answer) for answer in said["answers"])
    fact = said.get("fact", "")
    odd = [one.key for one in answers if fact and one.key not in FACTS[fact]]
    if odd:
        raise BadInput(
            f"{path}.{said['key']}", echo(odd[0]), f"is not one of {', '.join(FACTS[fact])}"
        )
    return Asked(**{**said, "answers": answers, "parts": tuple(said.get("parts", ()))})


def _check(family: Arrangement) -> None:
    seen: dict[str, Step] = {}
    order = [one.key for one in family.stages]
    for step in family.steps:
        path = f"{family.key}.{step.id}"
        if step.id in seen:
            raise BadInput(path, "", "stands twice")
        _check_place(family, step, order, path)
        for before in step.after:
            if before not in seen:
                raise BadInput(f"{path}.after", echo(before), "does not stand earlier")
        seen[step.id] = step
    places = [order.index(step.stage) for step in family.steps]
    if places != sorted(places):
        raise BadInput(f"{family.key}.steps", "", "do not follow the order of the stages")


def _check_place(family: Arrangement, step: Step, order: list[str], path: str) -> None:
    clamps = {clamp.key for clamp in family.clamps}
    rings = {ring.key for ring in family.rings}
    stations = family.stations if step.per == "station" else ("",)
    known = {
        "stage": step.stage in order,
        "clamp": step.clamp in ("", EVERY_CLAMP)
        or all(step.clamp_at(station) in clamps for station in stations),
        "ring": not step.ring or step.ring in rings,
    }
    for name, there in known.items():
        if not there:
            raise BadInput(f"{path}.{name}", echo(getattr(step, name)), "is not in the arrangement")
    if (step.opens or step.closes or step.kind in _OF_A_CLAMP) and not step.clamp:
        need = "is missing; what opens, closes, reads or sets a dial names its clamp"
        raise BadInput(f"{path}.clamp", "", need)
