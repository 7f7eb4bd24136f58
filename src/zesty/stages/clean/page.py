"""Clean and inspect: the part in hand lit; each part with its decision; what killed the last one."""

from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.items.frame import answer_of, latest
from wheelend.procedure.items.inspecting import decision_of, found_damages, judged_items
from wheelend.procedure.progress import Row
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.damage import picture


def scene(_: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The section with the part that is looked at, and what was decided so far."""
    rows = {row.step.kind: row for row in unit.progress.in_stage(stage)}
    judged, due = rows.get("judged"), unit.progress.due_in(stage)
    lit = _lit(judged, place) if judged and due is judged else ""
    panels = []
    if judged and judged.at.entries:
        panels.append(Panel("stages/clean/decided.html", {"decided": _decided(judged)}))
    killed = rows.get("killed_by")
    if killed:
        panels += _killed(killed)
    return Scene(*drawn(section_view(unit, lit=lit, play=False)), tuple(panels))


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
