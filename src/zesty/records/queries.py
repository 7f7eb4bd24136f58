"""What is claimed, and the sheet: shaped for the close stage and for print."""

from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Any

import wheelend
from wheelend.methods import Claim, Measured, Statement
from wheelend.methods.shims import ShimsJudgement
from wheelend.procedure.cautions import ALWAYS
from wheelend.procedure.items import items_of
from wheelend.procedure.items.frame import answer_of, latest, plain
from wheelend.procedure.log import PLAIN_KINDS
from zesty.bench.models import Entry
from zesty.bench.queries.drawing import section_view
from zesty.bench.queries.figures import trial_chart, trial_rows
from zesty.bench.queries.jobfile import JobFile, UnitFile, judging
from zesty.drawings.chart import chart
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.ink import PRINT
from zesty.drawings.section import section
from zesty.drawings.strip import strip
from zesty.people.models import Membership
from zesty.records.models import WEAKEST_FIRST, SignOff
from zesty.records.models import Statement as Said
from zesty.records.rechecks import planned_words


@dataclass(frozen=True)
class Rest:
    """An entry that a claim rests on, and what its step says."""

    entry: Entry
    says: str


@dataclass(frozen=True)
class ClaimRow:
    """One claim as it is shown, with the entries that it rests on."""

    claim: Claim
    rows: tuple[Rest, ...]
    drawing: str = ""


@dataclass(frozen=True)
class UnitClaims:
    """What is claimed of one unit."""

    unit: UnitFile
    rows: tuple[ClaimRow, ...]
    statement: Statement


@dataclass(frozen=True)
class Closing:
    """What may be signed for a job, or was."""

    units: tuple[UnitClaims, ...]
    statement: Statement
    signed: SignOff | None
    handover: str

    @property
    def blocking(self) -> tuple[Claim, ...]:
        """What keeps it from being signed as anything but not set."""
        return tuple(row.claim for unit in self.units for row in unit.rows if row.claim.blocks)

    @property
    def counted(self) -> tuple[int, int]:
        """How many claims are proven, of how many."""
        rows = [row for unit in self.units for row in unit.rows]
        return sum(row.claim.proven for row in rows), len(rows)


def closing_of(file: JobFile) -> Closing:
    """The close of a job as it stands; of a signed one, as it was signed."""
    with judging(f"What may be claimed of {file.job} can't be judged: "):
        return _closing_of(file)


def _closing_of(file: JobFile) -> Closing:
    signed = None
    if file.job.state == "signed":
        signed = SignOff.objects.select_related("by").filter(job=file.job).last()
    units = tuple(
        UnitClaims(
            unit,
            tuple(_claim_row(unit, claim) for claim in _claims(unit, signed)),
            unit.statement,
        )
        for unit in file.units
    )
    statement = weakest([unit.statement for unit in units])
    if signed:
        statement = signed.statement
    return Closing(units, statement, signed, handover(file))


def _claims(unit: UnitFile, signed: SignOff | None) -> tuple[Claim, ...]:
    if signed is None:
        return unit.claims
    kept = next((one for one in signed.facts["units"] if one["order"] == unit.index), None)
    claims = kept["claims"] if kept else []
    return tuple(_kept_claim(one) for one in claims)


def _kept_claim(said: dict[str, Any]) -> Claim:
    measured = said.get("measured")
    return Claim(**{
        **said, "rests_on": tuple(said["rests_on"]),
        "measured": Measured(**measured) if measured else None,
    })  # fmt: skip


def _claim_row(unit: UnitFile, claim: Claim) -> ClaimRow:
    by_id = {entry.pk: entry for entry in unit.entries}
    says = {step.id: step.says for step in unit.card.arrangement.steps}
    rows = tuple(
        Rest(by_id[pk], says.get(by_id[pk].step, by_id[pk].step))
        for pk in dict.fromkeys(claim.rests_on)
        if pk in by_id
    )
    drawn = strip(claim.measured, proven=claim.proven) if claim.measured else ""
    return ClaimRow(claim, rows, drawn)


def weakest(statements: list[Statement]) -> Statement:
    """One sign-off covers all units: what the weakest may say."""
    return min(statements, key=WEAKEST_FIRST.index, default="set")


def sheets_of(file: JobFile) -> tuple[SignOff, ...]:
    """Every sheet of a job, oldest first."""
    return tuple(SignOff.objects.filter(job=file.job).defer("sheet_html", "facts"))


def handover(file: JobFile) -> str:
    """A note made from the facts, for whoever takes the vehicle."""
    said = []
    for unit in file.units:
        left = [claim.name.lower() for claim in unit.claims if not claim.proven]
        words = [f"{unit.unit.name.capitalize()}:"]
        words += [
            f"{claim.name.partition(' inside')[0].lower()} {_value_in(claim)}."
            for claim in unit.claims
            if claim.measured
        ]
        if left:
            words.append(f"Not proven: {', '.join(left)}.")
        said.append(" ".join(words))
    return " ".join([*said, "Wheel fasteners are torqued again after first use."])


def _value_in(claim: Claim) -> str:
    """The value in a claim's fact: what stands before its verdict."""
    return claim.fact.partition(";")[0].partition(" with ")[0].partition(", ")[0]


def facts_json(closing: Closing) -> dict[str, Any]:
    """What a sign-off keeps: the claims and the numbers that they stand on."""
    units = []
    for one in closing.units:
        play = next(
            (r.claim.measured for r in one.rows if r.claim.key == "end_play" and r.claim.measured),
            None,
        )
        units.append(
            {
                "order": one.unit.index,
                "name": one.unit.unit.name,
                "statement": one.statement,
                "claims": [asdict(row.claim) for row in one.rows],
                "play_mm": play.value if play else None,
                "U_mm": play.doubt if play else None,
            }
        )
    return {"units": units, "handover": closing.handover}


def sheet_context(
    file: JobFile, member: Membership, at: datetime, statement: Statement, reason: str = ""
) -> dict[str, Any]:
    """Everything on the printed sheet; drawings carry their own colours."""
    closing = closing_of(file)
    take_in = {
        row.step: row for row in file.entries if row.unit_id is None and row.kind != "withdrawn"
    }
    return {
        "file": file,
        "job": file.job,
        "units": [_sheet_unit(one) for one in closing.units],
        "statement": Said(statement).label,
        "reason": reason,
        "complaint": take_in.get("complaint"),
        "usage": take_in.get("usage"),
        "handover": closing.handover,
        "look_again": planned_words(file, at),
        "always": ALWAYS,
        "by": member.user.get_username(),
        "role": member.get_role_display(),
        "at": at,
        "core_version": wheelend.__version__,
    }


def _sheet_unit(one: UnitClaims) -> dict[str, Any]:
    unit = one.unit
    found = unit.judgement.found if isinstance(unit.judgement, ShimsJudgement) else None
    view = section_view(unit, lit="shim")
    drawn = {"section": section(view, width=700, css=PRINT), "gate": "", "chart": ""}
    trials: list[Any] = []
    if found and unit.card.setting.limits:
        play = found.play
        step = found.last.gauge.resolution if found.last else 0.01
        reading = GateReading(play.play_mm, play.U_mm) if play else None
        window = unit.card.setting.limits
        posts = (str(window.low), str(window.high))
        drawn["gate"] = gate(
            found.limits, found.aim_mm, step, reading, lead=unit.lead, css=PRINT, posts=posts
        )
        drawn["chart"] = chart(trial_chart(found), css=PRINT) if found.counted else ""
        trials = [_sheet_trial(row) for row in trial_rows(unit, found)]
    choices = [row for row in unit.entries if row.kind == "choice"]
    says = {step.id: step.says for step in unit.card.arrangement.steps}
    left_out = [
        Rest(row, says.get(row.step, row.step)) for row in unit.entries if row.kind == "skip"
    ]
    strips = [
        (row.claim.name, strip(row.claim.measured, proven=row.claim.proven, css=PRINT))
        for row in one.rows
        if row.claim.measured and not (drawn["gate"] and row.claim.key == "end_play")
    ]
    return {
        "unit": unit, "rows": one.rows, "strips": strips, "drawn": drawn, "trials": trials,
        "choices": choices, "left_out": left_out, "fasteners": _fasteners(unit),
    }  # fmt: skip


def _fasteners(unit: UnitFile) -> list[tuple[str, str]]:
    """Each fastener that was undone, and how it was closed."""
    rows = unit.progress.of_kind("fastened")
    if not rows:
        return []
    said = latest(rows[0].at.entries)
    return [
        (item.words, plain(answer_of(said[item.key])) if item.key in said else "open")
        for item in items_of(rows[0].at)
    ]


def _sheet_trial(row: Any) -> dict[str, Any]:
    readings = "; ".join(
        f"{one.place} {one.kind} {one.typed}"
        if one.kind in PLAIN_KINDS
        else one.kind.replace("_", " ")
        for one in row.rows
    )
    history = "; ".join(f"{one.was} {one.words}" for one in row.struck)
    torques = ", ".join(one.typed for one in row.trial.series.torques)
    tool = row.trial.series.instrument
    set_up = "judged by hand"
    if tool:
        at = str(tool.facts.get("dial_at", "")).replace("_", " ")
        set_up = f"{tool.name}, step {tool.facts.get('resolution', '')}; {at}"
        set_up += "; hub turned" if tool.facts.get("turned") else ""
    return {"row": row, "readings": readings or "not read", "history": history,
            "set_up": f"{set_up}; nut {torques}" if torques else set_up}  # fmt: skip
