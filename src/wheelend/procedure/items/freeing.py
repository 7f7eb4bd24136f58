"""What made it safe comes off again, each tried: the last on comes off first, and chocks come last of all."""

from collections.abc import Iterator

from wheelend.arrangements import Step
from wheelend.procedure.asking.frame import At
from wheelend.procedure.items.frame import Choice, Item, answer_of, latest

_FREED: dict[str, tuple[str, str, str]] = {
    "spring_held": ("springs", "Parking springs let go again", "Does the parking brake hold when it is tried?"),
    "parking_service": ("service", "Service mode left", "Does the parking brake hold when it is tried?"),
    "air_springs": ("air", "Air springs up again, blocks out", "Does it stand level?"),
    "axle_wedged": ("wedges", "Wedges out, the wheels stand", "Is the pivoting axle free?"),
    "tied": ("ties", "Ties off, on its stand", "Does it stand by itself?"),
    "chocked": ("chocks", "Chocks away, last", "Does the parking brake hold it without them?"),
    "power_off": ("power", "Spark lead or battery on, hands clear", "Is everybody away from the blades?"),
}  # fmt: skip
"""By the step that made it safe: its key, what is done now, and what is tried with it."""

_PUMPED = (
    "pumped",
    "Brake pumped up",
    "Are caliper and drum of every wheel on, and is the pedal hard?",
)
_ANSWERS = (
    Choice("tried", "Off, and tried"),
    Choice("fails", "Tried, it does not hold"),
    Choice("not_here", "Not here"),
)
_LAST = ("chocked", "power_off")


def items(at: At) -> tuple[Item, ...]:
    """Each thing that made it safe in this job, the other way round; the brake before anything moves."""
    said = {key: answer_of(row) for key, row in latest(at.entries).items()}
    done = {row.step for row in at.others("safe")}
    steps = [step for step in at.card.arrangement.steps if step.kind == "safe" and step.id in done]
    return tuple(_item(one, said.get(one[0], "")) for one in _freed(at, steps))


def _freed(at: At, steps: list[Step]) -> Iterator[tuple[str, str, str]]:
    if at.axle != "deck":
        yield _PUMPED
    last = [step for step in steps if step.id in _LAST]
    for step in (*reversed([one for one in steps if one not in last]), *last):
        if step.id in _FREED:
            yield _FREED[step.id]


def _item(one: tuple[str, str, str], said: str) -> Item:
    key, words, asks = one
    held = f"It does not go on the road so. {asks}" if said == "fails" else ""
    return Item(key, words, _ANSWERS, f"{words}. {asks}", held=held, stop="not safe to move")
