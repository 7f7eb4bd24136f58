"""The setting stage: one function makes its page, for reading and after every entry."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from wheelend import wording
from wheelend.arrangements import ENDS
from wheelend.procedure.causes import Cause
from wheelend.procedure.nextline import PUSH, NextLine, next_line
from wheelend.procedure.series import Series
from wheelend.procedure.setting import Assessment
from wheelend.quantity import unit_of
from wheelend.shims import total_mm
from wheelend.shims.problem import Choice
from zesty.bench.models import ChoiceChange, Reading, ReadingKind, Trial, TrialMark
from zesty.bench.queries.jobfile import JobFile, mark_of, packs_of, series_of, standing
from zesty.bench.queries.stages import Head, head
from zesty.cards.queries import clocks_of, parts_of
from zesty.drawings.chart import TrialChart, TrialPoint, chart
from zesty.drawings.face import FacePlace, face
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.packs import pack_bar, pack_scale
from zesty.drawings.section import SectionView, section

_WORDS = {"within": "inside", "below": "too tight", "above": "too loose", "undecided": "undecided"}
_BAR_PX = 150.0
_DEFAULT_STEP_MM = 0.01


@dataclass(frozen=True)
class ReadingCell:
    """One reading as it is shown: the unit only where it is not the column's."""

    reading: Reading | None
    shown: str
    due: bool


@dataclass(frozen=True)
class ReadingRow:
    """One clock position's line in the table."""

    clock: str
    read_in: "ReadingCell"
    read_out: "ReadingCell"
    play: str


@dataclass(frozen=True)
class PlanRow:
    """One pack that could be fitted: its words, its drawing, what it costs and gives."""

    pack: str
    typed: str
    typed_right: str
    bars: tuple[str, ...]
    gives: str
    costs: str
    best: bool


@dataclass(frozen=True)
class TrialRow:
    """One trial in the list of all."""

    trial: Trial
    pack: str
    total: str
    found: str
    odd: bool
    aside: TrialMark | None
    readings: tuple[Reading, ...]
    history: tuple[Reading, ...]


@dataclass(frozen=True)
class SetPage:
    """Everything that the setting stage shows."""

    head: Head
    line: NextLine
    line_after: str
    due_words: str
    due_clock: str
    due_push: str
    unit: str
    other_unit: str
    rows: tuple[ReadingRow, ...]
    finding: Reading | None
    undo: Reading | None
    verdict: str
    verdict_word: str
    verdict_more: str
    flags: tuple[str, ...]
    plan: tuple[PlanRow, ...]
    causes: tuple[Cause, ...]
    trials: tuple[TrialRow, ...]
    aim: str
    aim_reason: str
    choices: tuple[ChoiceChange, ...]
    by_hand: bool
    may_go_on: bool
    drawings: dict[str, str]
    is_set: bool
    locked: bool
    two_sided: bool
    first: bool


_FLAGS = {
    "mixed_direction": "Some places read the other way round: check which way the needle turns.",
    "scattered": "The places disagree by more than the gauge explains: seat again, look for wobble.",
    "runout_unknown": "The hub was turned and the face's wobble is not known: read three places.",
    "unbalanced": "No even pack lands inside.",
}


def set_page(file: JobFile) -> SetPage:
    """The setting stage of a job as it stands."""
    found = file.assess()
    now, trial = found.setting.now, file.trial
    line = next_line(found)
    clocks = clocks_of(file.job.card_version)
    here = {(row.clock, row.kind): row for row in standing(trial)} if trial else {}
    finding = next((row for row in here.values() if row.value_mm is None), None)
    clock, push = (now.next_place if now else None) or ("", "")
    unit = unit_of(trial.gauge.resolution) if trial else "mm"
    return SetPage(
        head=head(file, "set", found),
        line=line,
        line_after=line.tail,
        due_words=f"{_place(clock)}, {PUSH[push].lower()}" if push else "",
        due_clock=clock,
        due_push=push,
        unit=unit,
        other_unit="thou" if unit == "mm" else "mm",
        rows=_rows(now, here, unit) if now else (),
        finding=finding,
        undo=max(here.values(), key=lambda row: row.pk, default=None),
        verdict=found.verdict.word if found.verdict else "",
        **_verdict_words(found),
        flags=_flags(found),
        plan=_plan(found),
        causes=found.causes() if line.kind == "stop" else (),
        trials=tuple(_trial(found, trial, clocks) for trial in file.trials),
        aim=_aim(file, found),
        aim_reason=next((row.reason for row in reversed(file.choices) if row.what == "aim"), ""),
        choices=file.choices,
        by_hand=bool(now and now.by_hand),
        may_go_on=found.is_set or found.judged_by_hand,
        drawings=_drawings(file, found, line, clock, push),
        is_set=found.is_set,
        locked=bool(file.lock and file.lock.done),
        two_sided=found.setting.card.sides == 2,
        first=now is None,
    )


def _step(found: Assessment) -> float:
    now = found.setting.now
    return now.gauge.resolution if now else _DEFAULT_STEP_MM


def _place(clock: str) -> str:
    return f"{clock} end" if clock in ENDS else f"{clock} o'clock"


def _rows(now: Series, here: dict[tuple[str, str], Reading], unit: str) -> tuple[ReadingRow, ...]:
    plays = now.plays_mm
    step = now.gauge.resolution

    def cell(clock: str, push: str) -> ReadingCell:
        reading = here.get((clock, push))
        shown = reading.typed.removesuffix(f" {unit}") if reading else ""
        return ReadingCell(reading, shown, due=now.next_place == (clock, push))

    return tuple(
        ReadingRow(
            clock=clock,
            read_in=cell(clock, "in"),
            read_out=cell(clock, "out"),
            play=wording.mm(plays[clock], step)[:-3] if clock in plays else "",
        )
        for clock in now.places
    )


def _verdict_words(found: Assessment) -> dict[str, str]:
    verdict, step = found.verdict, _step(found)
    if verdict is None:
        return {"verdict_word": "no reading", "verdict_more": ""}
    lead = found.setting.lead
    play = f"{wording.length(verdict.mean, step, lead)} ± {wording.length(verdict.U, step, lead)}"
    more = play
    if verdict.word in ("below", "above"):
        more = f"{play}, by {wording.length(-verdict.margin, step, lead)}"
    return {"verdict_word": _WORDS[verdict.word], "verdict_more": more}


def _flags(found: Assessment) -> tuple[str, ...]:
    flags = [*(found.play.flags if found.play else ()), *(found.plan.flags if found.plan else ())]
    return tuple(_FLAGS[flag] for flag in flags if flag in _FLAGS)


def _plan(found: Assessment) -> tuple[PlanRow, ...]:
    """The plan and its alternatives, once the pack on the shaft told something."""
    now, plan = found.setting.now, found.plan
    if now is None or not now.complete or plan is None or plan.choice is None:
        return ()
    choices = (plan.choice, *plan.alternatives)
    scale = pack_scale([side for choice in choices for side in choice.pack], _BAR_PX)
    return tuple(
        _plan_row(found, choice, scale, best=index == 0) for index, choice in enumerate(choices)
    )


def _plan_row(found: Assessment, choice: Choice, scale: float, *, best: bool) -> PlanRow:
    gives = ""
    if choice.predicted_mm is not None:
        gives = wording.both(choice.predicted_mm, _step(found), found.setting.lead)
        if choice.verdict == "undecided":
            gives += ", near the limit"
    costs = ", ".join(
        f"{sum(map(len, sides))} {words}"
        for sides, words in ((choice.remove, "out"), (choice.add, "in"))
        if any(sides)
    )
    names = found.setting.names
    bars = [
        pack_bar(shims, scale, new, width=_BAR_PX)
        for shims, new in zip(choice.pack, choice.add, strict=True)
    ]
    return PlanRow(
        pack=wording.sides(choice.pack, names),
        typed=typed_pack(choice.pack[0], names),
        typed_right=typed_pack(choice.pack[1], names) if len(choice.pack) == 2 else "",
        bars=tuple(bars),
        gives=gives,
        costs=costs or "as it is",
        best=best,
    )


def typed_pack(shims: Sequence[float], names: Any) -> str:
    """A pack as it would be typed into the pack field."""
    return ", ".join(names.get(shim, f"{wording.thickness(shim)} mm") for shim in shims)


def fitted_packs(file: JobFile) -> tuple[str, str]:
    """The left (or only) and the right pack on the shaft, as they would be typed."""
    if file.trial is None:
        return "", ""
    left, right = packs_of(file.trial, 2)
    return typed_pack(left, file.names), typed_pack(right, file.names)


def _total(pack_mm: float, lead: wording.Lead) -> str:
    """A pack's thickness in both units."""
    first, second = f"{wording.thickness(pack_mm)} mm", wording.thou(pack_mm, 0.00254)
    if lead == "inch":
        first, second = second, first
    return f"{first} ({second})"


def _trial(found: Assessment, trial: Trial, clocks: tuple[str, ...]) -> TrialRow:
    series = series_of(trial, clocks)
    play = series.play(found.setting.card.limits)
    words = "not read"
    if series.finding:
        words = ReadingKind(series.finding).label
    elif play:
        step = series.gauge.resolution
        lead = found.setting.lead
        words = (
            f"{wording.both(play.play_mm, step, lead)} ± {wording.length(play.U_mm, step, lead)}"
        )
    return TrialRow(
        trial=trial,
        pack=wording.sides(series.pack, found.setting.names),
        total=_total(total_mm(series.pack), found.setting.lead),
        found=words,
        odd=trial.number in _odd(found),
        aside=mark_of(trial),
        readings=tuple(row for row in standing(trial) if row.value_mm is not None),
        history=tuple(row for row in trial.readings.all() if row.corrects_id),
    )


def _odd(found: Assessment) -> set[int]:
    apart = found.disagreement()
    return {apart.earlier, apart.later} if apart else set()


def _aim(file: JobFile, found: Assessment) -> str:
    shown = wording.both(found.aim_mm, _step(found), found.setting.lead)
    return f"{file.aim}: {shown}" if file.aim in ("middle", "low", "high") else shown


def _drawings(
    file: JobFile, found: Assessment, line: NextLine, clock: str, push: str
) -> dict[str, str]:
    now, play, step = found.setting.now, found.play, _step(found)
    view = section_view(file, found)
    lit = "shims" if line.kind in ("swap", "pack", "stop", "buy") else ""
    view = replace(view, push=push, end=clock, lit=lit)
    reading = GateReading(play.play_mm, play.U_mm) if play else None
    drawings = {
        "section": section(view),
        "section_narrow": section(view, width=358, narrow=True),
        "gate": gate(found.setting.card.limits, found.aim_mm, step, reading, lead=file.lead),
    }
    if now and found.setting.card.sides == 1:
        drawings["face"] = face(_places(now, clock))
    if found.counted:
        drawings["chart"] = chart(trial_chart(found))
    return drawings


def section_view(file: JobFile, found: Assessment) -> SectionView:
    """The wheel end with its pack and what was measured on it."""
    now, play, step = found.setting.now, found.play, _step(found)
    lead = found.setting.lead
    other: wording.Lead = "inch" if lead == "metric" else "metric"
    return SectionView(
        parts=parts_of(file.job.card_version),
        shims_mm=now.pack[0] if now else (),
        right_mm=now.pack[1] if now and len(now.pack) == 2 else (),
        shim_names=dict(found.setting.names),
        play=wording.length(play.play_mm, step, lead) if play else "",
        play_other=f"{wording.length(play.play_mm, step, other)} end play" if play else "",
        nut=wording.torque(float(file.job.card_version.nut_torque_N_m), lead),
    )


def _places(now: Series, due: str) -> tuple[FacePlace, ...]:
    step = now.gauge.resolution
    plays = {place: wording.mm(play, step)[:-3] for place, play in now.plays_mm.items()}
    read = {clock for clock, _ in now.readings}
    return tuple(
        FacePlace(clock, plays.get(clock, ""), due=clock == due, read=clock in read)
        for clock in now.places
    )


def trial_chart(found: Assessment) -> TrialChart:
    """All trials that told something, and the pack that comes next."""
    odd = _odd(found)
    points = []
    for one in found.setting.series:
        if one.number in found.counted:
            play = found.plays.get(one.number)
            points.append(
                TrialPoint(one.number, total_mm(one.pack), play.play_mm if play else None,
                           one.number in odd)
            )  # fmt: skip
    choice = found.plan.choice if found.plan and found.plan.kind != "keep" else None
    show_next = choice is not None and not found.is_set
    return TrialChart(
        limits=found.setting.card.limits,
        step_mm=_step(found),
        points=tuple(points),
        c_mm=found.evidence.c_mm if found.evidence else None,
        sign=1 if found.setting.card.effect == "opens" else -1,
        next_pack_mm=total_mm(choice.pack) if choice and show_next else None,
    )
