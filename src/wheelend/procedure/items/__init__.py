"""What a step that goes through a list asks, one item at a time; by the step's kind."""

from collections.abc import Callable

from wheelend.procedure.asking.frame import At
from wheelend.procedure.items import (
    asked,
    fasteners,
    freeing,
    inspecting,
    laying_out,
    locks,
    matching,
    packing,
    pressing,
    stack,
)
from wheelend.procedure.items.frame import Choice, Item

ITEMS: dict[str, Callable[[At], tuple[Item, ...]]] = {
    "stack_off": stack.items,
    "fasteners": fasteners.undone_items,
    "fastened": fasteners.back_items,
    "judged": inspecting.judged_items,
    "killed_by": inspecting.change_items,
    "matched": matching.items,
    "cup_home": pressing.items,
    "packed": packing.items,
    "captive": laying_out.captive_items,
    "laid_out": laying_out.items,
    "lock": locks.lock_items,
    "made_free": freeing.items,
}


def items_of(at: At) -> tuple[Item, ...]:
    """The items of a step, as they stand now."""
    return ITEMS.get(at.step.kind, _plain)(at)


def _plain(at: At) -> tuple[Item, ...]:
    """What the arrangement asks, after the captive parts of the step."""
    return (*laying_out.captive_items(at), *asked.items(at))


__all__ = ["ITEMS", "Choice", "Item", "items_of"]
