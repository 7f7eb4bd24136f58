"""Seal: which way round, how deep round its face, and where to tap."""

from collections.abc import Iterator

from wheelend.card.figures import Figure
from wheelend.circle import clock_words
from wheelend.procedure.asking.judged import judged, seal_found, seal_of
from wheelend.procedure.asking.measured import measured, verdict
from wheelend.procedure.log import Written
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from wheelend.sealdepth import SealDepth
from wheelend.sealkinds import SEAL_KINDS
from wheelend.verdict import Limits
from wheelend.wording import bare
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.sealdepth import SealView, Tilt, seal_view


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
        return Scene(*drawn(section_view(unit, lit="seal", play=False)), tuple(_kinds(unit, due)))
    view = _view(row, row.slot.place if due is row else "")
    drawings = seal_view(view), seal_view(view, narrow=True)
    panels = tuple(_panels(row))
    if due is not row:
        return Scene(*drawings, panels)
    found = verdict(row.at)
    held = found.held if found else _before(row)
    return Scene(*drawings, panels, line=_line(row, held), more={"held": ""})


def _kinds(unit: UnitFile, due: Row | None) -> Iterator[Panel]:
    """What the card's seals want, each by its kind, and which way round it goes."""
    if due is None or due.step.kind not in ("seal_in", "outer_seal"):
        return
    ways = {part.name: part.way for part in unit.card.stack}
    for one in unit.card.seals:
        kind = SEAL_KINDS.get(one.kind)
        if kind:
            yield Panel(
                "stages/seal/kind.html",
                {"name": one.part, "kind": kind, "way": ways[one.part], "seal": one},
            )


def _before(row: Row) -> str:
    """What the last whole series said, while it is measured again."""
    said = measured(row.at)
    first = {place: one for place, one in said.items() if one.round == 1}
    whole = judged(row.at, first) if len(first) == len(said) and said else None
    return whole.held if whole and len(said) == len(row.step.places) else ""


def _now(row: Row) -> dict[str, Written]:
    """What was measured in one go: the whole series, or what there is of the one that was begun anew."""
    said = measured(row.at)
    last = max((one.round for one in said.values()), default=1)
    return {place: one for place, one in said.items() if one.round == last}


def _found(row: Row) -> SealDepth | None:
    said = _now(row)
    return seal_found(row.at, said) if len(said) == len(row.step.places) else None


def _view(row: Row, due: str) -> SealView:
    shown = {place: one.typed.removesuffix(" mm") for place, one in _now(row).items()}
    inside = "oil" if row.at.card.facts.get("lubricant") == "oil" else "grease"
    found = _found(row)
    if found is None or found.shallowest_deg is None or found.flags:
        return SealView(shown, due, inside)
    seal = seal_of(row.at)
    allowed = seal.even.value if seal and seal.even else found.tilt_mm
    half = found.tilt_mm / 2
    ends = [
        (clock_words(found.shallowest_deg + turn), bare(found.depth_mm + off))
        for turn, off in ((0, -half), (180, half))
    ]
    share = found.tilt_mm / allowed / 2
    return SealView(
        shown, due, inside,
        Tilt(bare(found.tilt_mm), found.shallowest_deg, ends[0], ends[1], share),
    )  # fmt: skip


def _panels(row: Row) -> Iterator[Panel]:
    """Depth and evenness, each on its gate."""
    found, seal = _found(row), seal_of(row.at)
    if found is None or seal is None:
        return
    gates = []
    if seal.limits and found.depth:
        reading = GateReading(found.depth_mm, found.tilt_mm / 2)
        drawn_gate = gate(
            seal.limits, None, 0.01, reading, posts=_posts(seal.depth_low, seal.depth_high)
        )
        gates.append(("Depth, all round", drawn_gate, _DEPTHS[found.depth]))
    if seal.even and found.even:
        most = Limits(0.0, seal.even.value)
        drawn_gate = gate(
            most,
            None,
            0.01,
            GateReading(found.tilt_mm, found.tilt_U_mm),
            posts=("0", seal.even.text),
        )
        gates.append(("Evenness, highest to lowest", drawn_gate, _EVEN[found.even]))
    if gates:
        yield Panel("stages/seal/found.html", {"gates": gates})


def _posts(*figures: Figure | None) -> tuple[str, str]:
    low, high = (one.text if one else "" for one in figures)
    return low, high


_DEPTHS = {
    "within": "inside",
    "above": "too deep",
    "below": "not deep enough",
    "undecided": "too near to tell",
}
_EVEN = {
    "within": "straight",
    "above": "tilted",
    "below": "straight",
    "undecided": "too near to tell",
}


def _line(row: Row, held: str) -> NextLine:
    if not held:
        asks = f"{row.step.asks.partition('?')[0]}?"
        return NextLine("seal", asks, "", "", f"At {row.slot.place} o’clock. {row.step.why}")
    what, _, to_do = held.partition(": ")
    key, _, rest = to_do.partition(". ")
    return NextLine("seal", f"{what}:", key.rstrip("."), ".", rest or row.step.why)
