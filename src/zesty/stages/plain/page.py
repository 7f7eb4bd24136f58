"""A stage whose steps say themselves what to do: lines and the section, the part in hand lit."""

from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.methods import method_more, method_panels

_LIT = {"pack": "cone", "seal": "seal", "press": "cone"}


def scene(file: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The wheel end, and what the driver said once that is written."""
    drawing, narrow = drawn(
        section_view(unit, lit=_LIT.get(stage.partition(".")[0], ""), play=False)
    )
    said = next(
        (row for row in reversed(file.entries) if row.step == "complaint" and row.typed), None
    )
    panels = (Panel("stages/plain/said.html", {"said": said}),) if said else ()
    due = unit.progress.due_in(stage)
    if due is not None and due.step.entry in ("band", "series"):
        panels = (*method_panels(unit, due), *panels)
    return Scene(drawing, narrow, panels, more=method_more(due, place))
