"""Setting by shims: the dial, the gate, the trials against their line, the packs that would do."""

from collections.abc import Sequence
from dataclasses import dataclass

from wheelend import wording
from wheelend.methods.shims import Assessment, ShimsJudgement
from wheelend.methods.shims.acting import next_act
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.progress import Row
from wheelend.shims.problem import Choice
from zesty.bench.queries.drawing import drawn, section_view
from zesty.bench.queries.figures import trial_chart, trial_rows
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.bench.queries.methods import hub_face, method_drawing, method_more, method_panels
from zesty.drawings.chart import chart
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.packs import pack_bar, pack_scale

_BAR_PX = 150.0
_SETTLE = ("read_again", "try_again")
_WORTH_SAYING = 0.04
"""A cause with less of a share only makes the list long."""

_WORDS = {"within": "inside", "below": "too tight", "above": "too loose", "undecided": "undecided"}


@dataclass(frozen=True)
class PlanRow:
    """One pack that could be fitted: its words, its drawing, what it costs and gives."""

    pack: str
    typed: str
    bars: tuple[str, ...]
    gives: str
    costs: str
    best: bool


def scene(file: JobFile, unit: UnitFile, stage: str, place: str) -> Scene:
    """The setting stage: section with the push that is due, dial, gate, plan, trials."""
    due = unit.progress.due_in(stage)
    judgement = unit.judgement
    if not isinstance(judgement, ShimsJudgement):
        more = method_more(due, place)
        picture = method_drawing(unit, due) or drawn(section_view(unit, lit=_lit(due)))
        return Scene(*picture, method_panels(unit, due), more=more)
    found = judgement.found
    push, end = "", ""
    if due and due.step.entry == "series":
        push, end = due.slot.push, base_of(due.slot.place)
    drawing, narrow = drawn(section_view(unit, lit=_lit(due), push=push, end=end))
    panels = tuple(
        filter(
            None,
            (_dial(unit, due), _figures(unit, found), _causes(found), _trials(file, unit, found)),
        )
    )
    return Scene(drawing, narrow, panels, more=_ask(unit, found, due))


_LIT = {
    "pack": "shim", "opening": "shim", "spacer": "shim", "torque": "nut", "turned_back": "nut",
    "lash_free": "nut", "bolts": "bolt", "stand_out": "ball_bearing",
}  # fmt: skip


def _lit(due: Row | None) -> str:
    """The part in hand."""
    return _LIT.get(due.step.kind, "") if due else ""


def _ask(unit: UnitFile, found: Assessment, due: Row | None) -> dict[str, object]:
    """What the open step needs besides its form: the plan's pack, the identical pack."""
    if due is None or due.step.entry == "opening":
        return {"plan": _plan(unit, found, "")}
    if due.step.entry == "refit" and found.last:
        index = unit.card.arrangement.setting_clamp.stations.index(due.station)
        return {"identical": typed_pack(found.last.pack[index], unit.names)}
    if due.step.entry == "pack":
        return {"plan": _plan(unit, found, due.station), "first": found.last is None,
                "shims": unit.loose}  # fmt: skip
    return {}


def _step(found: Assessment) -> float:
    return found.last.gauge.resolution if found.last else 0.01


def _dial(unit: UnitFile, due: Row | None) -> Panel | None:
    """The hub's face with the places read, where it is read round the face."""
    if due is None or due.step.entry != "series" or unit.card.arrangement.read_at != "clock":
        return None
    return hub_face(unit, due)


def _figures(unit: UnitFile, found: Assessment) -> Panel | None:
    """The gate with the latest reading, and the chart of all trials."""
    if unit.card.setting.limits is None:
        return None
    play, step = found.play, _step(found)
    reading = GateReading(play.play_mm, play.U_mm) if play else None
    verdict = found.verdict
    more = ""
    if verdict and play:
        more = f"{wording.length(play.play_mm, step, unit.lead)} ± {wording.length(play.U_mm, step, unit.lead)}"
    window = unit.card.setting.limits
    context = {
        "gate": gate(
            found.limits,
            found.aim_mm,
            step,
            reading,
            lead=unit.lead,
            posts=(str(window.low), str(window.high)),
        ),
        "word": _WORDS[verdict.word] if verdict else "no reading",
        "verdict": verdict.word if verdict else "",
        "more": more,
        "aim": unit.progress.chosen.get("aim", unit.card.setting.aim).replace("_", " "),
        "aim_mm": wording.both(found.aim_mm, step, unit.lead),
        "chart": chart(trial_chart(found)) if found.counted else "",
        "unit": unit,
    }
    return Panel("stages/set/figures.html", context)


@dataclass(frozen=True)
class CauseRow:
    """One cause as it is shown: its share in hundredths."""

    share: int
    text: str
    because: str
    check: str
    minutes: int


def _causes(found: Assessment) -> Panel | None:
    """What it may be, by share, once the one reading that would settle it was taken."""
    apart = found.disagreement()
    whole = found.now is not None and found.now.series.complete
    settles = apart and not apart.settled and whole and next_act(found).kind in _SETTLE
    likely = [cause for cause in found.causes() if cause.share >= _WORTH_SAYING]
    if settles or not likely:
        return None
    rows = [
        CauseRow(round(100 * one.share), one.text, one.because, one.check, one.minutes)
        for one in likely
    ]
    cheapest = min(rows, key=lambda row: row.minutes)
    heading = (
        f"Why trials {apart.earlier} and {apart.later} may not add up"
        if apart
        else "What it may be"
    )
    context = {
        "causes": rows,
        "heading": heading,
        "cheapest": cheapest.check if apart and cheapest is not rows[0] else "",
    }
    return Panel("stages/set/causes.html", context)


def _trials(file: JobFile, unit: UnitFile, found: Assessment) -> Panel | None:
    rows = trial_rows(unit, found)
    if not rows:
        return None
    return Panel("stages/set/trials.html", {"trials": rows, "unit": unit, "file": file})


def _plan(unit: UnitFile, found: Assessment, station: str) -> tuple[PlanRow, ...]:
    """The plan and its alternatives, once the latest pack told something."""
    if found.last is None or found.plan is None or found.choice is None or found.disagreement():
        return ()
    choices = (found.choice, *found.plan.alternatives)
    scale = pack_scale([side for choice in choices for side in choice.pack], _BAR_PX)
    return tuple(
        _plan_row(unit, found, choice, scale, station, best=index == 0)
        for index, choice in enumerate(choices)
    )


def _plan_row(
    unit: UnitFile, found: Assessment, choice: Choice, scale: float, station: str, *, best: bool
) -> PlanRow:
    gives = ""
    if choice.predicted_mm is not None:
        gives = wording.both(choice.predicted_mm, _step(found), unit.lead)
        if choice.verdict == "undecided":
            gives += (
                ", trials disagree"
                if found.evidence and found.evidence.flags
                else ", near the limit"
            )
    costs = ", ".join(
        f"{sum(map(len, sides))} {words}"
        for sides, words in ((choice.remove, "out"), (choice.add, "in"))
        if any(sides)
    )
    bars = [
        pack_bar(shims, scale, new, width=_BAR_PX)
        for shims, new in zip(choice.pack, choice.add, strict=True)
    ]
    stations = unit.card.arrangement.setting_clamp.stations
    mine = choice.pack[stations.index(station)] if station else ()
    return PlanRow(
        pack=wording.sides(choice.pack, unit.names),
        typed=typed_pack(mine, unit.names),
        bars=tuple(bars),
        gives=gives,
        costs=costs or "as it is",
        best=best,
    )


def typed_pack(shims: Sequence[float], names: dict[float, str]) -> str:
    """A pack as it would be typed into the pack field."""
    return ", ".join(names.get(shim, f"{wording.thickness(shim)} mm") for shim in shims)
