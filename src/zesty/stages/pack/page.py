"""Pack and lubricate: weighed and seen whether it is hollow, how many grams; oil until its level stays."""

from collections.abc import Iterator

from django.utils import timezone

from wheelend.card import Part
from wheelend.grease import PACKED, strokes_for
from wheelend.procedure.asking.judged import packing
from wheelend.procedure.asking.level import ANSWERS, ASKS, OVER, last_level
from wheelend.procedure.asking.measured import measured, parts_of, verdict
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.oilwords import WAITS_MIN, pressures, why_never_more
from wheelend.procedure.progress import Row
from zesty.bench.models import TimerKind
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.timers import Shown, shown
from zesty.drawings.oillevel import OilView, oil_view
from zesty.drawings.packed import PackedView, packed_view
from zesty.stores.queries import strokes_of


def scene(file: JobFile, unit: UnitFile, stage: str, _place: str) -> Scene:
    """The bearing that is weighed, the oil as it stands, or the section."""
    due = unit.progress.due_in(stage) if file.job.is_open else None
    panels = tuple(_panels(unit, stage))
    if due and due.step.kind == "weighed":
        return _weigh_scene(unit, due, panels)
    if due and due.step.entry == "level":
        return _level_scene(unit, due, panels)
    return Scene(*drawn(section_view(unit, lit="cone", play=False)), panels)


def _weigh_scene(unit: UnitFile, row: Row, panels: tuple[Panel, ...]) -> Scene:
    key, point, place = row.slot.place.partition(".")
    parts = parts_of(row.step, unit.card)
    part = (
        parts.get(key)
        if point
        else next((p for p in unit.card.stack if p.part in row.step.each), None)
    )
    place = place if point else key
    if part is None:
        return Scene(*drawn(section_view(unit, lit="cone", play=False)), panels)
    view = _packed(unit, row, part, f"{key}." if point else "")
    if view is None:
        return Scene(*drawn(section_view(unit, lit="cone", play=False)), panels)
    found = verdict(row.at)
    held = found.held if found else ""
    line = _weigh_line(row, part.name, place, view)
    return Scene(
        packed_view(view),
        packed_view(view, narrow=True),
        panels,
        line=line,
        more={"held": "" if line.key.endswith("more") else held},
    )


def _weigh_line(row: Row, name: str, place: str, view: PackedView) -> NextLine:
    if place == "dry":
        return NextLine("weigh", f"Weigh the {name}", "dry", ".", row.step.why)
    if view.found is None or view.found >= view.low:
        return NextLine(
            "weigh", f"Pack the {name} from its wide end, then", "weigh it", ".", row.step.why
        )
    more = f"{view.wanted - view.found:.0f} g more"
    strokes = (
        f": {view.strokes} strokes of the {view.gun}, from the wide end."
        if view.strokes
        else ", from the wide end."
    )
    why = f"It holds {view.found:.0f} of {view.wanted:.0f} g. {_UNTIL}"
    return NextLine("weigh", "Push in", more, strokes, why)


_UNTIL = "Until fresh grease stands at every gap on the far side; then weigh it again."


def _packed(unit: UnitFile, row: Row, part: Part, point: str) -> PackedView | None:
    """The bearing as it was weighed last; None where its sizes don't tell what goes in."""
    wanted = packing(row.at, part)
    if wanted is None:
        return None
    said = measured(row.at)
    dry, full = (
        said[one].value if (one := f"{point}{end}") in said else None for end in ("dry", "packed")
    )
    found = full - dry if dry is not None and full is not None and full >= dry else None
    gun, each = next(iter(strokes_of(unit.unit.workshop_id)), ("", 0.0))
    missing = wanted.fill_g - (found or 0.0)
    return PackedView(
        part.name, wanted.fill_g, PACKED * wanted.fill_g, found,
        strokes=strokes_for(missing, each) if each else 0, gun=gun, each=f"{each:g} g",
    )  # fmt: skip


def _level_scene(unit: UnitFile, row: Row, panels: tuple[Panel, ...]) -> Scene:
    slot, last = row.slot, last_level(row.at)
    state = last.typed if last and slot.place == "filled" else slot.place
    where = unit.card.lubricant.level_at or "plug turned level with the axle"
    view = _oil(unit, row, state if slot.place != "filled" or last else "", where)
    more = {"asks": ASKS[slot.place], "place": slot.place, "answers": tuple(ANSWERS.items())}
    if slot.place == "waited":
        more["waiting"] = settling(unit)
        more["waits"] = WAITS_MIN
    why = OVER if last and last.typed == "over" and slot.place == "turned" else row.step.why
    key = {"filled": "fill it", "waited": "wait", "turned": "turn it", "level": "read it"}[
        slot.place
    ]
    again = f"Round {slot.round}:" if slot.round > 1 else "Oil to its mark:"
    line = NextLine("oil", again, key, ".", why)
    return Scene(oil_view(view), oil_view(view, narrow=True), panels, line=line, more=more)


def settling(unit: UnitFile) -> Shown | None:
    """The timer that this hub's oil waits by, where one runs."""
    running = shown(unit.unit.workshop, timezone.now(), unit.unit.job_id)
    mine = (one for one in running if one.timer.unit_id == unit.unit.pk)
    return next((one for one in mine if one.timer.kind == TimerKind.SETTLING), None)


def _panels(unit: UnitFile, stage: str) -> Iterator[Panel]:
    rows = unit.progress.in_stage(stage)
    packed = next((row for row in rows if row.step.kind == "weighed"), None)
    if packed:
        grams = tuple(_grams(unit, packed))
        if grams:
            yield Panel("stages/pack/grams.html", {"grams": grams})
    if any(row.step.entry == "level" for row in rows):
        yield Panel("stages/pack/pressure.html", {"why": why_never_more(unit.card)})


def _grams(unit: UnitFile, row: Row) -> Iterator[dict[str, object]]:
    guns = strokes_of(unit.unit.workshop_id)
    for part in unit.card.stack:
        found = packing(row.at, part) if part.part in row.step.each else None
        if found is None:
            continue
        whole = found.fill_g + (found.cavity_g or 0.0)
        yield {
            "name": part.name, "fill": found.fill_g, "cavity": found.cavity_g, "top_up": found.top_up_g,
            "strokes": [(gun, strokes_for(whole, grams)) for gun, grams in guns],
        }  # fmt: skip


def _oil(unit: UnitFile, row: Row, state: str, where: str) -> OilView:
    said = unit.card.lubricant
    return OilView(
        state, row.slot.place, row.slot.round, where, unit.card.arrangement.geared,
        curve=pressures(said), at_mark_mL=said.oil.value if said.oil else 0.0,
        limit=said.pressure.value if said.pressure else None,
    )  # fmt: skip
