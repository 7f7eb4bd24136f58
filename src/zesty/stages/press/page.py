"""Press and fit: what the fit takes, warm and cold with the countdown, the blade tried behind each ring."""

from collections.abc import Iterator
from dataclasses import dataclass

from django.utils import timezone

from wheelend.fit import DROP_IN_MM, ROOM_DEGC
from wheelend.fitting import Plan, gap_mm, plans
from wheelend.procedure.asking.listed import due_item
from wheelend.procedure.asking.warmth import CURE, ENDS, Warmed, chills, warmed
from wheelend.procedure.bores import measured_seats
from wheelend.procedure.items.frame import answer_of, latest
from wheelend.procedure.items.pressing import CLOCK, CURES, ENTERS, rings
from wheelend.procedure.progress import Row
from wheelend.procedure.warmline import clock, warm_line
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.drawings.pressing import GapLine, GapView, blade_view, press_view
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
    blade = _blade(due, place) if due and due.step.kind == "cup_home" else None
    if blade:
        return Scene(*_drawn_blade(blade), (*_cures(blade), *panels))
    return Scene(*drawn(section_view(unit, lit=_lit(due), play=False)), panels)


def _lit(due: Row | None) -> str:
    ring = rings(due.at)[0][0] if due and rings(due.at) else ""
    return f"stack.{ring[1:]}" if ring else "cone"


@dataclass(frozen=True)
class Blade:
    """The ring whose back is tried, where now, and what was found."""

    name: str
    clock: str
    tried: dict[str, str]


def _blade(row: Row, place: str) -> Blade | None:
    item = place or (one.key if (one := due_item(row.at)) else "")
    key, _, at = item.partition("_")
    ring = dict(rings(row.at)).get(key)
    if ring is None or at not in CLOCK:
        return None
    said = latest(row.at.entries)
    tried = {c: answer_of(said[f"{key}_{c}"]) for c in CLOCK if f"{key}_{c}" in said}
    return Blade(ring.name, at, tried)


def _drawn_blade(blade: Blade) -> tuple[str, str]:
    said = (blade.tried, blade.clock, blade.name)
    return blade_view(*said), blade_view(*said, narrow=True)


def _cures(blade: Blade) -> Iterator[Panel]:
    if ENTERS in blade.tried.values():
        yield Panel("stages/press/cures.html", {"cures": CURES})


def _warm_scene(unit: UnitFile, row: Row) -> Scene:
    found = warmed(row.at)
    left = _countdown(found)
    panels = _plan_panels(unit, row)
    gripped = row.at.entries and row.at.entries[-1].typed == "gripped"
    place = row.slot.place
    more = {
        "ends": tuple((key, words) for key, words in ENDS.items() if found.hub or key == "cold"),
        "may_end": place.startswith("hub"),
        "held": CURE if gripped else "",
        "countdown": left,
    }
    line = warm_line(row.at, timezone.now().timestamp())
    wide, narrow = _gap_drawings(unit, row, found) or _section(unit, found)
    return Scene(wide, narrow, tuple(panels), line=line, more=more)


def _section(unit: UnitFile, found: Warmed) -> tuple[str, str]:
    lit = f"stack.{_index(unit, found.plans[0].part)}" if found.plans else "cup"
    return drawn(section_view(unit, lit=lit, play=False))


def _index(unit: UnitFile, name: str) -> int:
    return next(i for i, part in enumerate(unit.card.stack) if part.name == name)


def _countdown(found: Warmed) -> Countdown | None:
    left = found.left_s(timezone.now().timestamp())
    if left is None or found.until is None:
        return None
    words = f"The housing must still have {found.until:.0f} °C at its bore."
    return Countdown(max(0, int(left)), clock(left), words)


def _plan_panels(unit: UnitFile, row: Row) -> Iterator[Panel]:
    """Each fit, and the ways to bring its ring home; rings of one size stand together."""
    shed = shed_of(unit.unit.workshop_id)
    found = plans(unit.card, measured_seats(row.at), shed)
    alike: dict[object, list[Plan]] = {}
    for one in found:
        alike.setdefault((one.ring, one.seat, one.fit.on), []).append(one)
    for same in alike.values():
        yield Panel(
            "stages/press/plan.html",
            {
                "names": " and ".join(one.part for one in same),
                "plan": same[0],
                "chosen": row.at.chosen("temperature"),
                "warnings": same[0].warnings,
            },
        )


def _gap_drawings(unit: UnitFile, row: Row, found: Warmed) -> tuple[str, str] | None:
    """The gap by temperature of the tightest ring; None where no ring can be reckoned."""
    tight = [one for one in found.plans if one.most]
    if not tight:
        return None
    plan = max(tight, key=lambda one: one.tightest_mm)
    view = _gap_view(unit, row, found, plan)
    return press_view(view), press_view(view, narrow=True)


def _gap_view(unit: UnitFile, row: Row, found: Warmed, plan: Plan) -> GapView:
    inward = plan.fit.on == "housing"
    heat = unit.card.heat_limits
    limit = heat.housing if inward else heat.ring
    high = max(140.0, (limit.value if limit else 120.0) + 20)
    cold = _chilled(unit, row, found) if inward else None
    other = ROOM_DEGC if cold is None else cold
    what = "ring" if inward else "shaft"
    lines = [_gap_line(plan, ROOM_DEGC, high, what, lit=cold is None)]
    if cold is not None:
        lines.append(_gap_line(plan, cold, high, what, lit=True))
    degrees = _degrees(found)
    return GapView(
        lines, DROP_IN_MM, plan.fit.on, "housing" if inward else "ring",
        limit=limit.value if limit else None,
        now=None if degrees is None else (degrees, _gap(plan, other, degrees)), until=found.until,
    )  # fmt: skip


def _chilled(unit: UnitFile, row: Row, found: Warmed) -> float | None:
    """How cold the ring is, or would come out of this shed's freezer; None where it is not chilled."""
    if not chills(row.at):
        return None
    return found.ring if found.ring is not None else shed_of(unit.unit.workshop_id).cold_degC


def _degrees(found: Warmed) -> float | None:
    """How warm it is now: by the curve, else as it was read last."""
    if found.curve:
        return found.curve.at(timezone.now().timestamp() - found.hub[0].at_s)
    return found.hub[-1].value if found.hub else None


def _gap(plan: Plan, other: float, degrees: float) -> float:
    pair = (other, degrees) if plan.fit.on == "housing" else (degrees, other)
    return gap_mm(plan, *pair)


def _gap_line(plan: Plan, other: float, high: float, what: str, *, lit: bool) -> GapLine:
    ends = [(degrees, _gap(plan, other, degrees)) for degrees in (0.0, high)]
    return GapLine(f"{what} at {other:.0f}".replace("-", "−"), ends[0], ends[1], lit)
