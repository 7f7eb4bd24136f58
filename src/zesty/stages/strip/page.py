"""Strip: the section with the part in hand; the stack as it comes off under the card's; what was undone."""

from wheelend.arrangements import PART_KINDS
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.items import items_of
from wheelend.procedure.items.frame import answer_of, extras, latest
from wheelend.procedure.items.stack import Off, odd_words, off
from wheelend.procedure.ladder import LADDERS
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.cards.drawing import NARROW
from zesty.drawings.laidout import LaidPart, laid_out

_HIGHEST = 0.9


def scene(_: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """While the stack comes off it lies there flat; before and after, the section."""
    rows = {row.step.kind: row for row in unit.progress.in_stage(stage)}
    due = unit.progress.due_in(stage)
    stack = rows.get("stack_off")
    panels = tuple(_panels(unit, rows))
    if stack and stack.at.entries and (due is None or due.step.kind in ("stack_off", "fasteners")):
        open_item = due_item(stack.at) if due is stack else None
        key = place or (open_item.key if open_item else "")
        parts = tuple(_laid(one, key) for one in off(unit.card, stack.at.entries))
        return Scene(laid_out(parts), laid_out(parts, width=NARROW), panels, line=_line(stack, due))
    lit = _spot(stack, place) if due is stack else ""
    return Scene(*drawn(section_view(unit, lit=lit, play=False)), panels)


def _spot(stack: Row | None, place: str) -> str:
    if stack is None:
        return ""
    items = {item.key: item for item in items_of(stack.at)}
    item = items.get(place) or due_item(stack.at)
    return item.spot if item else ""


def _laid(one: Off, key: str) -> LaidPart:
    kind = PART_KINDS[one.part.part]
    height = min(0.3 + kind.height, _HIGHEST)
    width = one.part.width.value if one.part.width else None
    return LaidPart(one.part.name, width, height, one.found, one.width_mm, one.key == key)


def _line(stack: Row, due: Row | None) -> NextLine | None:
    """What stands out comes first, once the stack is down."""
    odd = odd_words(stack.at.card, stack.at.entries)
    if not odd or (due is not None and due is stack):
        return None
    why = " ".join(odd[1:]) or "Look for it before anything is cleaned; the card has its size."
    return NextLine("odd", odd[0], "", "", why)


def _panels(unit: UnitFile, rows: dict[str, Row]) -> list[Panel]:
    found = []
    stack = rows.get("stack_off")
    if stack and stack.at.entries:
        odd = odd_words(unit.card, stack.at.entries)
        if odd:
            found.append(Panel("stages/strip/odd.html", {"odd": odd}))
    undone = _undone(rows.get("fasteners"))
    if undone:
        found.append(Panel("stages/strip/undone.html", {"undone": undone}))
    if "stripped" in rows and not rows["stripped"].settled:
        found.append(Panel("stages/strip/ladder.html", {"ladders": LADDERS}))
    return found


def _undone(row: Row | None) -> tuple[str, ...]:
    if row is None:
        return ()
    said = latest(row.at.entries)
    names = {item.key: item.words for item in items_of(row.at)}
    undone = [
        names[key] for key, entry in said.items() if key in names and answer_of(entry) == "undone"
    ]
    return (*undone, *(entry.typed.partition(" ")[2] for entry in extras(row.at.entries)))
