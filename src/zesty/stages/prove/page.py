"""Prove: every fastener that was undone and how it was closed, what was read last, what may be signed for."""

from collections.abc import Iterator
from dataclasses import dataclass

from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.items import items_of
from wheelend.procedure.items.frame import answer_of, latest, plain
from wheelend.procedure.progress import Row
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.methods import method_more, method_panels
from zesty.drawings.strip import strip


@dataclass(frozen=True)
class FastenerRow:
    """One fastener that was undone, and how it was closed; nothing while it is open."""

    number: int
    words: str
    closed: str


def scene(_: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The wheel end with everything that still keeps it from the road."""
    due = unit.progress.due_in(stage)
    drawing, narrow = drawn(section_view(unit, lit=_lit(due), play=True))
    own = method_panels(unit, due) if due is not None and due.step.entry == "band" else ()
    panels = (*own, *_fasteners(unit), *_read(unit))
    return Scene(drawing, narrow, panels, foot=_may_sign(unit), more=method_more(due, place))


def _lit(due: Row | None) -> str:
    """The fastener that is asked for; the nut where none is."""
    if due is None or due.step.kind != "fastened":
        return "nut"
    item = due_item(due.at)
    return "" if item is None else "bolt" if item.key.startswith("ring_") else item.key


def _fasteners(unit: UnitFile) -> Iterator[Panel]:
    rows = unit.progress.of_kind("fastened")
    if not rows:
        return
    said = latest(rows[0].at.entries)
    listed = tuple(
        FastenerRow(
            number, item.words, plain(answer_of(said[item.key])) if item.key in said else ""
        )
        for number, item in enumerate(items_of(rows[0].at), 1)
    )
    if listed:
        left = sum(not one.closed for one in listed)
        yield Panel("stages/prove/fasteners.html", {"fasteners": listed, "left": left})


def _read(unit: UnitFile) -> Iterator[Panel]:
    """Each number that a claim stands on, between its limits."""
    measured = [claim for claim in unit.claims if claim.measured and claim.key != "torque"]
    shown = [
        {"claim": claim, "drawing": strip(claim.measured, proven=claim.proven)}
        for claim in measured
        if claim.measured
    ]
    if shown:
        yield Panel("stages/prove/read.html", {"shown": shown})


def _may_sign(unit: UnitFile) -> Panel:
    """What may be claimed now, and what is not yet."""
    return Panel("stages/prove/may_sign.html", {"claims": unit.claims})
