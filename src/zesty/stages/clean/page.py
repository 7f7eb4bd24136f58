"""Clean and inspect: the part in hand lit; each part with its decision; what killed the last one."""

from typing import Any

from wheelend.bore import LEAST_DIRECTIONS, bore
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.asking.measured import measured
from wheelend.procedure.items.frame import answer_of, latest
from wheelend.procedure.items.inspecting import decision_of, found_damages, judged_items
from wheelend.procedure.progress import Row
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.bore import bore_face
from zesty.drawings.damage import picture


def scene(_: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The section with the part that is looked at, and what was decided so far."""
    rows = {row.step.kind: row for row in unit.progress.in_stage(stage)}
    judged, due = rows.get("judged"), unit.progress.due_in(stage)
    lit = _lit(judged, place) if judged and due is judged else ""
    panels = []
    seats = rows.get("seats")
    if seats and (due is seats or measured(seats.at)):
        panels.append(_bore(unit, seats))
    if judged and judged.at.entries:
        panels.append(Panel("stages/clean/decided.html", {"decided": _decided(judged)}))
    killed = rows.get("killed_by")
    if killed:
        panels += _killed(killed)
    return Scene(*drawn(section_view(unit, lit=lit, play=False)), tuple(panels))


def _bore(unit: UnitFile, seats: Row) -> Panel:
    """The bore as it was measured, drawn; how round, how straight, and what the card's ring finds in it."""
    said = measured(seats.at)
    found = {_plane(place): row.typed.removesuffix(" mm") for place, row in said.items()}
    due = _plane(seats.slot.place) if not seats.settled else ("", "")
    planes = tuple(dict.fromkeys(plane for plane, _ in map(_plane, seats.step.places)))
    context: dict[str, Any] = {"drawing": bore_face(planes, found, due)}
    full = [
        [float(row.value) for place, row in said.items() if _plane(place)[0] == plane and row.value]
        for plane in planes
    ]
    whole = [plane for plane in full if len(plane) >= LEAST_DIRECTIONS]
    if whole:
        ring = max((part.outside.value for part in unit.card.stack if part.outside), default=None)
        context["bore"] = bore(whole, 0.01, ring_mm=ring)
        context["ring"] = ring
    return Panel("stages/clean/bore.html", context)


def _plane(place: str) -> tuple[str, str]:
    plane, _, way = place.partition(", ")
    return plane, way


def _lit(judged: Row, place: str) -> str:
    items = {item.key: item for item in judged_items(judged.at)}
    item = items.get(place) or due_item(judged.at)
    return item.spot if item else ""


def _decided(judged: Row) -> list[dict[str, str]]:
    said = latest(judged.at.entries)
    found = []
    for item in judged_items(judged.at):
        if item.key not in said:
            continue
        answer = answer_of(said[item.key])
        choice = next((one for one in item.choices if one.key == answer), None)
        words, drawing = (choice.words, picture(choice.picture)) if choice else (answer, "")
        decision = decision_of(judged.at, item.key)
        found.append({"name": item.words, "looks": words, "decision": decision, "drawing": drawing})
    return found


def _killed(killed: Row) -> list[Panel]:
    """What the damages say, and what somebody made of the changes that they ask for."""
    found = found_damages(killed.at)
    if not found:
        return []
    said = latest(killed.at.entries)
    words = {"accepted": "accepted", "declined": "declined"}
    shown = [
        {
            "name": one.name, "cause": one.cause, "also": one.also, "change": one.change,
            "said": words.get(answer_of(said[one.key]), "") if one.key in said else "",
            "why": said[one.key].typed.partition(" ")[2] if one.key in said else "",
        }
        for one in found
    ]  # fmt: skip
    return [Panel("stages/clean/killed.html", {"found": shown})]
