"""Press and fit: what the fit takes, warm and cold with the countdown, the blade tried behind each ring."""

from collections.abc import Iterator
from dataclasses import dataclass

from django.utils import timezone

from wheelend.cooling import Cooling
from wheelend.fit import DROP_IN_MM, ROOM_DEGC
from wheelend.fitting import Plan, gap_mm, plans
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.asking.warmth import CURE, ENDS, Warmed, chills, warmed
from wheelend.procedure.bores import measured_seats
from wheelend.procedure.items.frame import answer_of, latest
from wheelend.procedure.items.pressing import CLOCK, rings
from wheelend.procedure.progress import Row
from wheelend.procedure.warmline import clock, warm_line
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.cards.drawing import NARROW
from zesty.drawings.gapchart import GapLine, gap_chart
from zesty.drawings.pressing import blade_face, load_path
from zesty.stores.queries import shed_of


@dataclass(frozen=True)
class Countdown:
    """How long the gap lasts: whole seconds from now, as a clock, and the words under it."""

    left: int
    clock: str
    words: str


def scene(file: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The ring in hand: its fit, its temperature, or the blade behind it."""
    due = unit.progress.due_in(stage) if file.job.is_open else None
    rows = unit.progress.in_stage(stage)
    warm = next((row for row in rows if row.step.entry == "warmth"), None)
    if due and due is warm:
        return _warm_scene(unit, due)
    panels = tuple(_plan_panels(unit, rows[0])) if rows else ()
    face = _blade(due, place) if due and due.step.kind == "cup_home" else None
    if face:
        return Scene(face, face, panels)
    lit = _lit(due)
    return Scene(*drawn(section_view(unit, lit=lit, play=False)), panels)


def _lit(due: Row | None) -> str:
    ring = rings(due.at)[0][0] if due and rings(due.at) else ""
    return f"stack.{ring[1:]}" if ring else "cone"


def _blade(row: Row, place: str) -> str | None:
    """The ring whose back is tried now."""
    item = place or (one.key if (one := due_item(row.at)) else "")
    key, _, clock = item.partition("_")
    ring = dict(rings(row.at)).get(key)
    if ring is None or clock not in CLOCK:
        return None
    said = latest(row.at.entries)
    tried = {c: answer_of(said[f"{key}_{c}"]) for c in CLOCK if f"{key}_{c}" in said}
    return blade_face(tried, clock, ring.name)


def _warm_scene(unit: UnitFile, row: Row) -> Scene:
    found = warmed(row.at)
    left = _countdown(found)
    panels = [*_plan_panels(unit, row, found)]
    gripped = row.at.entries and row.at.entries[-1].typed == "gripped"
    place = row.slot.place
    more = {
        "ends": tuple(ENDS.items()),
        "may_end": place.startswith("hub"),
        "held": CURE if gripped else "",
        "countdown": left,
    }
    lit = f"stack.{_index(unit, found.plans[0].part)}" if found.plans else "cup"
    wide, narrow = drawn(section_view(unit, lit=lit, play=False))
    line = warm_line(row.at, timezone.now().timestamp())
    return Scene(wide, narrow, tuple(panels), line=line, more=more)


def _index(unit: UnitFile, name: str) -> int:
    return next(i for i, part in enumerate(unit.card.stack) if part.name == name)


def _countdown(found: Warmed) -> Countdown | None:
    left = found.left_s(timezone.now().timestamp())
    if left is None or found.until is None:
        return None
    words = f"The housing must still have {found.until:.0f} °C at its bore."
    return Countdown(max(0, int(left)), clock(left), words)


def _plan_panels(unit: UnitFile, row: Row, found: Warmed | None = None) -> Iterator[Panel]:
    """Each ring's fit, the ways to bring it home, and the gap by temperature."""
    shed = shed_of(unit.unit.workshop_id)
    chosen = row.at.chosen("temperature")
    for plan in plans(unit.card, measured_seats(row.at), shed):
        context = {
            "plan": plan, "chosen": chosen, "chart": "", "path": load_path(plan.fit.on),
            "warnings": tuple(_warnings(plan)),
        }  # fmt: skip
        if plan.fit.on == "housing" and plan.most:
            context["chart"] = _chart(unit, row, plan, found, shed.cold_degC)
        yield Panel("stages/press/plan.html", context)


def _warnings(plan: Plan) -> Iterator[str]:
    if plan.may_be_loose:
        yield (
            f"Within what is known it may be loose: from {plan.loosest_mm:.3f} mm. Measure seat and ring before"
            " it goes in; a loose ring turns on its seat."
        )
    if not any(way.can for way in plan.ways):
        yield "No way can be done here as it stands: see what speaks against each, and what it would take."


def _chart(unit: UnitFile, row: Row, plan: Plan, found: Warmed | None, cold: float | None) -> str:
    limit = unit.card.heat_limits.housing
    high = max(140.0, (limit.value if limit else 120.0) + 15)
    ring = found.ring if found and found.ring is not None else cold
    lines = [_gap_line(plan, ROOM_DEGC, high, lit=not chills(row.at))]
    if ring is not None:
        lines.append(_gap_line(plan, ring, high, lit=chills(row.at)))
    now = None
    if found and found.curve:
        degrees = _now_degrees(found.curve, found)
        now = (degrees, gap_mm(plan, ring if ring is not None else ROOM_DEGC, degrees))
    elif found and found.hub and found.hub[-1].value is not None:
        degrees = found.hub[-1].value
        now = (degrees, gap_mm(plan, ring if ring is not None else ROOM_DEGC, degrees))
    return gap_chart(
        lines, DROP_IN_MM, limit=limit.value if limit else None, now=now, width=NARROW * 2
    )


def _now_degrees(curve: Cooling, found: Warmed) -> float:
    return curve.at(timezone.now().timestamp() - found.hub[0].at_s)


def _gap_line(plan: Plan, ring: float, high: float, *, lit: bool) -> GapLine:
    ends = [(degrees, gap_mm(plan, ring, degrees)) for degrees in (0.0, high)]
    return GapLine(f"ring at {ring:.0f} °C", ends[0], ends[1], lit)
