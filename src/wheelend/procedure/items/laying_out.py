"""The get-ready list: what has to lie there before anything is pressed; and the captive parts."""

from collections.abc import Iterator

from wheelend.arrangements import PART_KINDS
from wheelend.arrangements.vocabulary import SEALS
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest
from wheelend.procedure.items.inspecting import new_parts

_HERE = (Choice("here", "Here"), Choice("lacking", "Not here", "text"))
_ON = (Choice("on", "On"),)


def items(at: At) -> tuple[Item, ...]:
    """Parts, tools, holding aids, consumables; what a kit lacks is written with where it comes from."""
    return tuple(Item(key, words, _HERE) for key, words in _needed(at))


def _needed(at: At) -> Iterator[tuple[str, str]]:
    kit = {one.casefold() for one in at.card.kit}
    for key, words in new_parts(at):
        lacks = kit and words.casefold() not in kit
        yield f"new_{key}", f"new {words}, not in the kit" if lacks else f"new {words}"
    if answer_at(at, "grooves", "wear_sleeve") == "renew":
        yield "new_sleeve", "new wear sleeve, and its driver"
    if answer_at(at, "grooves", "track") == "sleeved":
        yield "repair_sleeve", "thin sleeve for the lip track, and its driver"
    if answer_at(at, "grooves", "key") == "loose":
        yield "new_key", "new key"
    kinds = {part.part: part.name for part in at.card.stack}
    if "cup" in kinds or "cartridge" in kinds or "ball_bearing" in kinds:
        yield "driver", "driver and support for the rings, ring by ring"
    if any(kind in kinds for kind in SEALS):
        yield "seal_driver", "the seal’s own driver"
    if "nut" in kinds:
        yield "socket", f"socket for the {kinds['nut']}: size, depth, points"
    yield "sides", "left and right told apart: arrows, slanted ribs, side marks"
    yield "holding", "what holds it while it is torqued, tried"
    yield "wrench", "torque wrench inside its check"
    oil = at.card.facts.get("lubricant") == "oil"
    yield (
        "lubricant",
        "oil of the kind that this hub runs in" if oil else "grease, its thickener known",
    )
    if any(part.part in ("cup", "cartridge") for part in at.card.stack):
        yield "cold", "rings in the cold, since when"
    yield "clean", "lint-free cloth, cleaner, sealant where a seal wants it"


def answer_at(at: At, kind: str, item: str) -> str:
    """What was answered at an item of another list; empty where nothing was."""
    rows = latest(at.others(kind))
    return answer_of(rows[item]) if item in rows else ""


def captive_items(at: At) -> tuple[Item, ...]:
    """What must be on before anything is pressed over it, one by one in its order."""
    found = []
    for kind in at.step.captive:
        named = [part for part in at.card.stack if part.part == kind]
        name = named[-1].name if named else PART_KINDS[kind].name
        found.append(
            Item(kind, name, _ON, asks=f"The {name}: is it on, in its order, the right way round?")
        )
    return tuple(found)


def captive_words(at: At) -> str:
    """The captive parts of a step, read out."""
    return ", then ".join(one.words for one in captive_items(at))
