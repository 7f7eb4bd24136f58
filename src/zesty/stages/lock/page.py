"""Torquing and locking: the nut from the end, its places, and what each would set."""

from dataclasses import dataclass

from wheelend.locknut import LockPlan, Position
from wheelend.methods.nut_angle import NutAngleJudgement
from wheelend.methods.shims import ShimsJudgement
from wheelend.procedure.locking import locking_of, why_not
from wheelend.wording import Lead, torque
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.methods import method_drawing, method_more, method_panels
from zesty.drawings.clock import ClockPlace, nut_clock


@dataclass(frozen=True)
class PlaceRow:
    """One lock place: the turn to it, what it would set, why it is not allowed."""

    angle: str
    torque: str
    why_not: str
    chosen: bool


def scene(_: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The lock stage: the section with the nut lit, and the clock of its places once known."""
    due = unit.progress.due_in(stage)
    drawing, narrow = method_drawing(unit, due) or drawn(section_view(unit, lit="nut"))
    panels = []
    if due and due.at.clamp:
        found = locking_of(unit.progress, due.at.clamp, due.station)
        by_play = isinstance(unit.judgement, NutAngleJudgement)
        if found.plan and not by_play and due.step.kind in ("place", "lock_torque", "lock"):
            panels.append(_clock(found.plan, unit.lead))
    if not isinstance(unit.judgement, ShimsJudgement):
        panels += method_panels(unit, due)
    return Scene(drawing, narrow, tuple(panels), more=method_more(due, place))


def _clock(plan: LockPlan, lead: Lead) -> Panel:
    places = tuple(
        ClockPlace(place.angle_deg, place.why_not is None, index == plan.chosen)
        for index, place in enumerate(plan.positions)
    )
    ordered = sorted(
        enumerate(plan.positions), key=lambda one: (one[1].angle_deg < 0, abs(one[1].angle_deg))
    )
    rows = tuple(
        PlaceRow(
            _turn(place),
            torque(place.torque_N_m, lead) if place.torque_N_m else "",
            why_not(place),
            index == plan.chosen,
        )
        for index, place in ordered
    )
    return Panel(
        "stages/lock/clock.html", {"clock": nut_clock(places), "places": rows[:6], "rest": rows[6:]}
    )


def _turn(place: Position) -> str:
    if place.angle_deg == 0:
        return "in line now"
    return f"{abs(place.angle_deg):.0f}° {'on' if place.angle_deg > 0 else 'back'}"
