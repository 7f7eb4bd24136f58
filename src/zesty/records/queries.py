"""What is proven, and the sheet: shaped for the close stage and for print."""

from dataclasses import asdict, dataclass, replace
from datetime import datetime
from typing import Any

import wheelend
from wheelend import wording
from wheelend.procedure.cautions import ALWAYS
from wheelend.procedure.claims import Claim, Facts, claims, missing, statement
from wheelend.procedure.locking import WRENCH_FLAGS
from zesty.bench.models import ReadingKind, Trial
from zesty.bench.queries.jobfile import JobFile, standing
from zesty.bench.queries.set_page import section_view, set_page, trial_chart
from zesty.bench.queries.stages import Head, head
from zesty.cards.queries import bolt_laps, lock_card
from zesty.drawings.chart import chart
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.ink import PRINT
from zesty.drawings.section import section
from zesty.people.models import Membership
from zesty.records.models import Reopening, SecondCheck, SignOff, Statement


@dataclass(frozen=True)
class ClosePage:
    """Everything that the close stage shows."""

    head: Head
    claims: tuple[Claim, ...]
    statement: str
    statement_words: str
    missing: tuple[Claim, ...]
    always: str
    sign_off: SignOff | None
    sheets: tuple[SignOff, ...]
    reopenings: tuple[Reopening, ...]
    wants_check: bool
    drawings: dict[str, str]


def facts_of(file: JobFile) -> Facts:
    """The job's facts as the core weighs them."""
    version, trial, lock = file.job.card_version, file.trial, file.lock
    gauge = f"{trial.gauge.name}, step {trial.gauge.resolution}" if trial else "no gauge"
    source = f"{version.get_source_kind_display()}: {version.source}" if version.source else ""
    found = file.assess()
    now = found.setting.now
    return Facts(
        assessment=found,
        source=version.source if version.unsourced else source,
        unsourced=version.unsourced,
        gauge=gauge,
        lock=lock.lock if lock else "",
        lock_torque_N_m=float(lock.torque_N_m) if lock else None,
        wrench=f"{lock.wrench}, ± {lock.wrench.accuracy_percent} %" if lock and lock.wrench else "",
        wrench_wrong="; ".join(WRENCH_FLAGS[flag] for flag in lock.wrench_flags) if lock else "",
        locked=bool(lock and lock.done),
        wants_second=version.second_person,
        second=_checked(file),
        torque_limits=lock_card(version).torque_limits,
        bolts=(len(file.bolt_ticks), sum(len(one.order) for one in bolt_laps(version))),
        read_after_lock=file.read_after_lock and bool(now and now.complete and now.pairs),
        made_safe=bool(file.take_in and file.take_in.made_safe),
    )


def valid_check(file: JobFile) -> SecondCheck | None:
    """The latest check by a second person, if nothing was read or locked since."""
    check = SecondCheck.objects.select_related("by").filter(job=file.job).last()
    if check is None:
        return None
    rows = [row.at for trial in file.trials for row in trial.readings.all()]
    rows += [row.at for row in (*file.trials, *file.lock_records)]
    return check if all(at <= check.at for at in rows) else None


def _checked(file: JobFile) -> str:
    check = valid_check(file)
    return f"{check.by} ({check.role}), {check.at:%d %b %Y %H:%M}" if check else ""


def workers(file: JobFile) -> set[int]:
    """The accounts that wrote readings, packs or locks in a job."""
    rows = [row for trial in file.trials for row in trial.readings.all()]
    return {row.by_id for row in (*rows, *file.trials, *file.lock_records)}


def close_page(file: JobFile) -> ClosePage:
    """The close stage of a job as it stands, or as it was signed."""
    facts = facts_of(file)
    every = tuple(SignOff.objects.select_related("by").filter(job=file.job))
    signed = every[-1] if every and file.job.closed_at else None
    kept = tuple(Claim(**claim) for claim in signed.facts["claims"]) if signed else ()
    said = signed.statement if signed else statement(facts)
    view = section_view(file, facts.assessment)
    return ClosePage(
        head=head(file, "close", facts.assessment),
        claims=kept or claims(facts),
        statement=said,
        statement_words=Statement(said).label,
        missing=() if signed else missing(facts),
        always=ALWAYS,
        sign_off=signed,
        sheets=every,
        reopenings=tuple(Reopening.objects.select_related("by").filter(job=file.job)),
        wants_check=file.job.card_version.second_person and valid_check(file) is None,
        drawings={
            "section": section(view),
            "section_narrow": section(view, width=358, narrow=True),
        },
    )


def facts_json(facts: Facts) -> dict[str, Any]:
    """What a sign-off keeps: the claims and the numbers that they stand on."""
    play, verdict = facts.assessment.play, facts.assessment.verdict
    return {
        "claims": [asdict(claim) for claim in claims(facts)],
        "play_mm": play.play_mm if play else None,
        "U_mm": play.U_mm if play else None,
        "verdict": verdict.word if verdict else None,
        "aim_mm": facts.assessment.aim_mm,
        "lock_torque_N_m": facts.lock_torque_N_m,
    }


def sheet_context(file: JobFile, member: Membership, at: datetime) -> dict[str, Any]:
    """Everything on the printed sheet; drawings carry their own colours."""
    facts = facts_of(file)
    found, page = facts.assessment, set_page(file)
    step = found.setting.series[-1].gauge.resolution if found.setting.series else 0.01
    play = found.play
    reading = GateReading(play.play_mm, play.U_mm) if play else None
    view = replace(section_view(file, found), lit="shims")
    return {
        "file": file,
        "job": file.job,
        "version": file.job.card_version,
        "claims": claims(facts),
        "statement": Statement(statement(facts)).label,
        "page": page,
        "trials": [_sheet_trial(row.trial, row, file.lead) for row in page.trials],
        "always": ALWAYS,
        "by": member.user.get_username(),
        "role": member.get_role_display(),
        "at": at,
        "core_version": wheelend.__version__,
        "section": section(view, width=700, css=PRINT),
        "gate": gate(
            found.setting.card.limits, found.aim_mm, step, reading, lead=file.lead, css=PRINT
        ),
        "chart": chart(trial_chart(found), css=PRINT) if found.counted else "",
    }


def _sheet_trial(trial: Trial, row: Any, lead: wording.Lead) -> dict[str, Any]:
    """A trial with all its readings in a line, and what was corrected."""
    rows = sorted(standing(trial), key=lambda one: one.pk)
    shown = [
        f"{one.clock} {one.kind} {one.typed}"
        if one.value_mm is not None
        else one.get_kind_display()
        for one in rows
    ]
    history = [
        f"{one.corrects} became {one}: {one.reason}"
        if one.kind != ReadingKind.WITHDRAWN
        else f"{one.corrects} taken back: {one.reason}"
        for one in trial.readings.all()
        if one.corrects_id
    ]
    return {
        "row": row,
        "readings": "; ".join(shown) or "not read",
        "history": "; ".join(history),
        "torque": wording.torque(float(trial.nut_torque_N_m), lead),
    }
