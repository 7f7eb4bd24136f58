"""Close: what is claimed and on which entries, the second person, the signature, the sheets."""

from wheelend.procedure.cautions import ALWAYS
from wheelend.procedure.nextline import NextLine
from zesty.bench.actions.jobs import TOUCHED
from zesty.bench.queries.frame import Panel, Scene
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.records.models import Statement
from zesty.records.queries import Closing, closing_of, sheets_of


def scene(file: JobFile, unit: UnitFile, stage: str, _place: str) -> Scene:
    """The close stage: claims of every unit with the entries that they rest on."""
    closing = closing_of(file)
    signed = closing.signed
    word = Statement(closing.statement).label
    line = None
    if signed:
        why = f"{signed.at:%d %b %Y %H:%M}, {signed.role}. The sheet prints as it was then."
        where = ", elsewhere" if signed.elsewhere else ""
        line = NextLine("set", "Signed off as", word, f"by {signed.by_name}{where}.", why)
    elif not file.job.is_open:
        line = NextLine(
            "set",
            "Abandoned:",
            file.job.state_reason,
            ".",
            "What was written stays; there is no sheet.",
        )
    else:
        due = unit.progress.due_in(stage)
        if due is None or due.step.entry == "sign":
            line = _sign_line(closing, word)
    context = {
        "closing": closing, "file": file, "unit": unit, "word": word, "sheets": sheets_of(file),
        "touched": TOUCHED, "always": ALWAYS,
    }  # fmt: skip
    return Scene(
        panels=(Panel("stages/close/claims.html", context),),
        foot=Panel("stages/close/after.html", context),
        line=line,
        ask="stages/close/sign.html",
        more=context,
    )


def _sign_line(closing: Closing, word: str) -> NextLine:
    open_claims = closing.blocking
    if open_claims:
        first = open_claims[0]
        return NextLine(
            "stop", "Not ready to sign:", first.name.lower(), "is open.", f"{first.fact}."
        )
    proven, every = closing.counted
    why = (
        "Every claim stands on entries." if proven == every else "What is not proven is printed so."
    )
    return NextLine("set", f"{proven} of {every} proven. Sign:", word, ".", why)
