"""Match and get ready: what is new, what does not match, and the bench as it is laid out, to be printed."""

from wheelend.arrangements.vocabulary import PART_KINDS
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.items import items_of
from wheelend.procedure.items.laying_out import captive_words
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.fleet.life import parts_on
from zesty.stages.match.ready import laid_out


def scene(file: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The section with the part that is matched; the get-ready list; the captive parts read out."""
    due = unit.progress.due_in(stage)
    lit = ""
    if due and due.step.entry == "list":
        items = {item.key: item for item in items_of(due.at)}
        item = items.get(place) or due_item(due.at)
        lit = item.spot if item else ""
    panels = []
    laid = [row for row in unit.progress.in_stage(stage) if row.step.kind == "laid_out"]
    if laid:
        panels.append(
            Panel("stages/match/ready.html", {"ready": laid_out(laid[0]), "job": file.job.pk})
        )
    lives = parts_on(place.wheel_end for place in unit.places)
    if lives:
        panels.append(Panel("stages/match/lives.html", {"lives": lives}))
    captive = _captive(unit)
    if captive:
        panels.append(Panel("stages/match/captive.html", {"captive": captive}))
    return Scene(*drawn(section_view(unit, lit=lit, play=False)), tuple(panels))


def _captive(unit: UnitFile) -> list[dict[str, str]]:
    """What must already be in place under a part, read out before any pressing."""
    found = []
    for row in unit.progress.rows:
        if not row.step.captive or row.settled:
            continue
        words = captive_words(row.at) or ", ".join(
            PART_KINDS[kind].name for kind in row.step.captive
        )
        found.append({"before": row.step.says.lower(), "words": words})
    return found
