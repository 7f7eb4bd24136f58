"""Seal: which way round, how deep round its face, and where to tap."""

from wheelend.procedure.asking.judged import judged, seal_found
from wheelend.procedure.asking.measured import measured, verdict
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.sealface import seal_face


def scene(file: JobFile, unit: UnitFile, stage: str, _place: str) -> Scene:
    """The section with the seal lit; its face while the depths are read."""
    due = unit.progress.due_in(stage) if file.job.is_open else None
    rows = [row for row in unit.progress.in_stage(stage) if row.step.kind == "seal_level"]
    row = (
        due
        if due and due.step.kind == "seal_level"
        else next((r for r in rows if measured(r.at)), None)
    )
    if row is None or not (due is row or due is None):
        return Scene(*drawn(section_view(unit, lit="seal", play=False)))
    face = _face(row, row.slot.place if due is row else "")
    if due is not row:
        return Scene(face, face)
    found = verdict(row.at)
    held = found.held if found else _before(row)
    return Scene(face, face, line=_line(row, held), more={"held": held})


def _before(row: Row) -> str:
    """What the last whole series said, while it is measured again."""
    said = measured(row.at)
    first = {place: one for place, one in said.items() if one.round == 1}
    whole = judged(row.at, first) if len(first) == len(said) and said else None
    return whole.held if whole and len(said) == len(row.step.places) else ""


def _face(row: Row, due: str) -> str:
    said = measured(row.at)
    shown = {place: one.typed.removesuffix(" mm") for place, one in said.items()}
    found = seal_found(row.at, said) if len(said) == len(row.step.places) else None
    if found is None or found.shallowest_deg is None:
        return seal_face(shown, due)
    return seal_face(shown, due, found.shallowest_deg, found.tilt_mm)


def _line(row: Row, held: str) -> NextLine:
    if not held:
        asks = f"{row.step.asks.partition('?')[0]}?"
        return NextLine("seal", asks, "", "", f"At {row.slot.place} o’clock. {row.step.why}")
    what, _, to_do = held.partition(": ")
    if not to_do:
        return NextLine("seal", held, "", "", row.step.why)
    return NextLine("seal", f"{what}:", to_do.rstrip("."), ".", row.step.why)
