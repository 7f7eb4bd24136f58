"""Pack and lubricate: weighed and seen whether it is hollow, how many grams; oil until its level stays."""

from collections.abc import Iterator

from wheelend.oil import oil
from wheelend.procedure.asking.judged import packing
from wheelend.procedure.asking.level import ANSWERS, ASKS, OVER, last_level
from wheelend.procedure.asking.measured import measured, parts_of, verdict
from wheelend.procedure.nextline import NextLine
from wheelend.procedure.progress import Row
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.oillevel import oil_level, pressure_curve
from zesty.drawings.packed import packed_view
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
    view = packed_view(part.name, _share(row, part.name, f"{key}." if point else ""))
    found = verdict(row.at)
    held = found.held if found else ""
    if held:
        line = NextLine("weigh", f"The {part.name}:", "weigh it again", ".", held)
    elif place == "dry":
        line = NextLine("weigh", f"Weigh the {part.name}", "dry", ".", row.step.why)
    else:
        line = NextLine(
            "weigh", f"Pack the {part.name} from its wide end, then", "weigh it", ".", row.step.why
        )
    return Scene(view, view, panels, line=line, more={"held": held})


def _share(row: Row, name: str, point: str) -> float | None:
    said = measured(row.at)
    dry, full = said.get(f"{point}dry"), said.get(f"{point}packed")
    part = next(one for one in row.at.card.stack if one.name == name)
    if (
        dry is None
        or full is None
        or dry.value is None
        or full.value is None
        or full.value < dry.value
    ):
        return None
    found = packing(row.at, part, (dry.value, full.value))
    return found.packed if found else None


def _level_scene(unit: UnitFile, row: Row, panels: tuple[Panel, ...]) -> Scene:
    slot, last = row.slot, last_level(row.at)
    state = last.typed if last and slot.place == "filled" else slot.place
    where = unit.card.lubricant.level_at or "plug turned level with the axle"
    view = oil_level(state if slot.place != "filled" or last else "", where)
    more = {"asks": ASKS[slot.place], "place": slot.place, "answers": tuple(ANSWERS.items())}
    why = OVER if last and last.typed == "over" and slot.place == "turned" else row.step.why
    key = {"filled": "fill it", "waited": "wait", "turned": "turn it", "level": "read it"}[
        slot.place
    ]
    again = f"Round {slot.round}: " if slot.round > 1 else "Oil to its mark: "
    line = NextLine("oil", again, key, ".", why)
    return Scene(view, view, panels, line=line, more=more)


def _panels(unit: UnitFile, stage: str) -> Iterator[Panel]:
    rows = unit.progress.in_stage(stage)
    packed = next((row for row in rows if row.step.kind in ("weighed", "packed")), None)
    if packed:
        grams = tuple(_grams(unit, packed))
        if grams:
            yield Panel("stages/pack/grams.html", {"grams": grams})
    if any(row.step.entry == "level" for row in rows):
        curve = _pressure(unit)
        if curve:
            yield Panel("stages/pack/pressure.html", {"curve": curve})


def _grams(unit: UnitFile, row: Row) -> Iterator[dict[str, object]]:
    guns = strokes_of(unit.unit.workshop_id)
    for part in unit.card.stack:
        found = packing(row.at, part) if part.part in ("cone", "ball_bearing") else None
        if found is None:
            continue
        whole = found.fill_g + (found.cavity_g or 0.0)
        yield {
            "name": part.name, "fill": found.fill_g, "cavity": found.cavity_g, "top_up": found.top_up_g,
            "strokes": [(gun, found_strokes(whole, grams)) for gun, grams in guns],
        }  # fmt: skip


def found_strokes(grams: float, a_stroke: float) -> int:
    """Strokes of a gun, rounded up."""
    return -int(-(grams - 1e-9) // a_stroke)


def _pressure(unit: UnitFile) -> str:
    """Gauge pressure in the closed hub from filling to running, by what the card says of its space."""
    said = unit.card.lubricant
    if said.space is None or said.oil is None or said.running is None or said.vented:
        return ""
    ends = (20.0, said.running.value)
    points = []
    for index in range(13):
        degrees = ends[0] + (ends[1] - ends[0]) * index / 12
        found = oil(said.space.value, said.oil.value, ends[0], degrees)
        if found.gauge_bar is None:
            break
        points.append((degrees, found.gauge_bar))
    return (
        pressure_curve(points, said.pressure.value if said.pressure else None)
        if len(points) > 1
        else ""
    )
