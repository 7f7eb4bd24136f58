"""Clean and inspect: the part in hand lit; each part with its decision; what killed the last one."""

from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.asking.measured import measured
from wheelend.procedure.bores import bores, place_of
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
        panels.append(_bore(seats))
    if judged and judged.at.entries:
        panels.append(Panel("stages/clean/decided.html", {"decided": _decided(judged)}))
    killed = rows.get("killed_by")
    if killed:
        panels += _killed(killed)
    return Scene(*drawn(section_view(unit, lit=lit, play=False)), tuple(panels))


def _bore(seats: Row) -> Panel:
    """The bore that is measured, drawn; every bore with what its figures say."""
    found = bores(seats.at)
    key, plane, way = place_of(seats.slot.place) if not seats.settled else ("", "", "")
    last = found[-1] if found else None
    shown = next((one for one in found if one.key == key), None if not seats.settled else last)
    readings = (
        {at: row.typed.removesuffix(" mm") for at, row in shown.found.items()} if shown else {}
    )
    planes = tuple(dict.fromkeys(place_of(place)[1] for place in seats.step.places))
    drawing = bore_face(planes, readings, (plane, way))
    wear = bool(seats.at.card.wear.bore_ovality)
    return Panel("stages/clean/bore.html", {"drawing": drawing, "bores": found, "limits": wear})


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
