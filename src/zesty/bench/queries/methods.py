"""What each method of setting shows beside its steps: the nut from its end, a swing, trials, a stand-out."""

from collections.abc import Iterator
from typing import Any

from wheelend.methods.drag import DragJudgement
from wheelend.methods.fixed_torque import FixedTorqueJudgement
from wheelend.methods.nut_angle import NutAngleJudgement
from wheelend.methods.nut_angle.assessing import Assessment as NutAssessment
from wheelend.methods.nut_angle.lines import turn_words
from wheelend.methods.reading import WORDS as PLAY_WORDS
from wheelend.methods.reading import Read, play_words
from wheelend.methods.stand_out import StandOutJudgement
from wheelend.methods.swings import WORDS, judged_limits
from wheelend.procedure.asking import Slot, band, standing, turns
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.readings import ReadingsAsked, Series
from wheelend.procedure.asking.readings import play_words as place_play
from wheelend.procedure.locking import why_not
from wheelend.procedure.progress import Row
from wheelend.wording import both
from zesty.bench.queries.frame import Panel
from zesty.bench.queries.jobfile import UnitFile
from zesty.drawings.dragline import DragLine, DragPoint, drag_line
from zesty.drawings.face import FacePlace, face
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.meter import Meter, meter
from zesty.drawings.nutend import EndPlace, NutEnd, nut_end
from zesty.drawings.proud import Proud, proud

_STEP = 0.01


def method_panels(unit: UnitFile, due: Row | None) -> tuple[Panel, ...]:
    """What stands beside the steps of a setting that is not made by shims."""
    return tuple(_panels(unit, due))


def _panels(unit: UnitFile, due: Row | None) -> Iterator[Panel]:
    judgement = unit.judgement
    if due is not None and due.step.entry == "series" and unit.card.arrangement.read_at == "clock":
        yield hub_face(unit, due)
    if isinstance(judgement, NutAngleJudgement):
        yield from _nut(unit, judgement.found, due)
        yield from _gate(unit, judgement.found.locked or judgement.found.read)
    elif isinstance(judgement, DragJudgement):
        setting = unit.card.arrangement.setting_clamp.key
        if due is None or due.at.clamp in ("", setting):
            yield from _drag(judgement, due)
    elif isinstance(judgement, StandOutJudgement):
        yield from _stand_out(unit, judgement)
    elif isinstance(judgement, FixedTorqueJudgement):
        yield from _gate(unit, judgement.read)
    if due is not None and due.step.entry == "band" and not isinstance(judgement, DragJudgement):
        yield _swing(due)


def method_more(due: Row | None, place: str) -> dict[str, Any]:
    """What the open step needs besides its form."""
    if due is None:
        return {}
    if due.step.entry == "band":
        return {"thumb": due.step.kind in ("drag", "drag_in_hub", "drag_in_fork")}
    if due.step.entry == "turns":
        done = turns.turned(due.at)
        words = ", ".join(f"{count} {turns.WAYS[way]}" for way, count in done.items() if count)
        return {"turned": words, "both_ways": all(done.values())}
    if due.step.entry == "stand_out":
        return _stand_out_more(due, place)
    return {}


def _stand_out_more(due: Row, place: str) -> dict[str, Any]:
    blades = standing.by_blades(due.at)
    begun = standing.current(due.at) and standing.stood(due.at) is None
    more: dict[str, Any] = {}
    if place in standing.PLACES and not begun:
        more["slot"] = Slot(place, due.slot.round, words=standing.WORDS[place])
    if not begun:
        other = "12" if place in standing.BLADES else "go"
        more["blades"] = other
        more["blades_words"] = "By depth gauge instead" if other == "12" else "By blades instead"
    elif blades:
        more["blades"] = ""
    return more


def hub_face(unit: UnitFile, due: Row) -> Panel:
    """The hub's face with the places read, where it is read round the face."""
    now = ReadingsAsked().series(due.at)
    read = {base_of(place) for place, _ in now.readings}
    asked = base_of(due.slot.place)
    places = tuple(
        FacePlace(place, _latest_play(now, place), due=place == asked, read=place in read)
        for place in unit.card.places
    )
    return Panel("bench/methods/dial.html", {"face": face(places)})


def _latest_play(now: Series, place: str) -> str:
    """The play at a place as it was read last."""
    said = [place_play(now, key) for key in now.places if base_of(key) == place]
    return next(filter(None, reversed(said)), "")


_AT_THE_NUT = ("turned_back", "lash_free", "place", "opening", "seating")
"""Steps at which the nut itself is the drawing."""


def method_drawing(unit: UnitFile, due: Row | None) -> tuple[str, str] | None:
    """What is drawn instead of the section while the nut is turned: wide and narrow."""
    judgement = unit.judgement
    if (
        due is None
        or due.step.kind not in _AT_THE_NUT
        or not isinstance(judgement, NutAngleJudgement)
    ):
        return None
    view = _nut_view(unit, judgement.found)
    return nut_end(view), nut_end(view, narrow=True)


def _nut_view(unit: UnitFile, found: NutAssessment) -> NutEnd:
    """The nut from its end."""
    lock = unit.card.setting.lock
    plan, now = found.plan, found.counts
    chosen = plan.chosen if plan else None
    places = tuple(
        EndPlace(
            one.angle_deg,
            f"{one.play_mm:.2f}" if one.play_mm is not None and one.play_mm >= 0 else "tight",
            one.why_not is None,
            index == chosen,
        )
        for index, one in enumerate(plan.positions if plan else ())
    )
    return NutEnd(
        slots=lock.slots or 0,
        openings=lock.openings or 0,
        places=places,
        moves=tuple(row.value for row in found.moves if row.value is not None),
        play_mm=now.value if now else None,
        pitch_mm=found.pitch_mm,
        limits=found.limits,
        torque=found.torques[-1].typed if found.torques else "",
    )


def _nut(unit: UnitFile, found: NutAssessment, due: Row | None) -> Iterator[Panel]:
    """Each place as a row; the nut beside them where it is not the drawing already."""
    plan = found.plan
    chosen = plan.chosen if plan else None
    drawn = method_drawing(unit, due) is not None
    rows = [
        {
            "turn": turn_words(one) if abs(one.angle_deg) > 0.05 else "in line now",
            "play": _play_there(unit, one.play_mm),
            "why_not": why_not(one),
            "chosen": index == chosen,
        }
        for index, one in sorted(
            enumerate(plan.positions if plan else ()), key=lambda pair: abs(pair[1].angle_deg)
        )[:6]
    ]  # fmt: skip
    nut = "" if drawn or not (rows or found.moves) else nut_end(_nut_view(unit, found), narrow=True)
    if rows or nut:
        yield Panel("bench/methods/nut.html", {"nut": nut, "places": rows})


def _play_there(unit: UnitFile, play_mm: float | None) -> str:
    return "–" if play_mm is None or play_mm < 0 else both(play_mm, _STEP, unit.lead)


def _gate(unit: UnitFile, read: Read | None) -> Iterator[Panel]:
    window = unit.card.setting.limits
    if window is None:
        return
    known = read.known if read else None
    step = read.series.gauge.resolution if read else _STEP
    reading = GateReading(known.value, known.U) if known else None
    found = getattr(unit.judgement, "found", None)
    context = {
        "gate": gate(
            window.limits, getattr(found, "aim_mm", None), step, reading, lead=unit.lead,
            posts=(str(window.low), str(window.high)),
        ),
        "word": PLAY_WORDS[read.word] if read and read.word else "no reading",
        "verdict": read.word if read else "",
        "more": play_words(unit.bench, read) if read and read.play else "",
    }  # fmt: skip
    yield Panel("bench/methods/gate.html", context)


def _drag(judgement: DragJudgement, due: Row | None) -> Iterator[Panel]:
    """The swing on its scale, and beside it the trials on their line."""
    found = judgement.found
    row = due if due is not None and due.step.entry == "band" else found.row("drag")
    chart = ""
    if found.trials and found.limits:
        advice = found.advice
        points = tuple(DragPoint(one.number, one.spacer_mm, one.swing.band) for one in found.trials)
        chart = drag_line(
            DragLine(found.limits, points, found.ahead_mm, advice.slope if advice else None)
        )
    if row is not None:
        yield _swing(row, found.trials[-1].swing if found.trials else None, chart)


def _swing(row: Row, otherwise: band.Swing | None = None, chart: str = "") -> Panel:
    swing = band.swing_of(row.at) or otherwise
    limits, wanted = band.limits_of(row.at)
    judged = judged_limits(row, swing) if swing else None
    word = WORDS[swing.verdict(judged).word] if swing and judged else ""
    unit = swing.unit if swing else "N" if wanted is band.FORCE else "N·m"
    view = Meter(swing.band if swing else None, judged or limits, unit, word)
    return Panel("bench/methods/swing.html", {"meter": meter(view), "chart": chart})


def _stand_out(unit: UnitFile, judgement: StandOutJudgement) -> Iterator[Panel]:
    window = unit.card.setting.stand_out
    if window is None or window.limits.window is None:
        return
    found = judgement.found
    word = {"within": "inside", "below": "too far in", "above": "too far out"}.get(
        str(found.word) if found else "", ""
    )
    expected = found.found.expected_mm if found and found.found else None
    view = Proud(found.band if found else None, window.limits, expected, word)
    yield Panel("bench/methods/stand_out.html", {"proud": proud(view)})
