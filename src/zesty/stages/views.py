"""What is posted at a stage: one view for each thing that a person does there."""

from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.urls import reverse
from django.views.decorators.http import require_GET

from wheelend.card import CHOICES
from wheelend.errors import BadInput
from wheelend.procedure.allowed import figure_of
from wheelend.procedure.together import next_over_all
from wheelend.quantity import LENGTH, Dimension, unit_of
from zesty.bench.actions import jobs, log, timers
from zesty.bench.actions.log import Say
from zesty.bench.forms import CardChangeForm, ChooseForm, CorrectForm, ReasonForm, WhyForm, form_for
from zesty.bench.models import Entry
from zesty.bench.queries.beside import stage_url
from zesty.bench.queries.jobfile import JobFile, UnitFile, judging, member_job
from zesty.bench.queries.unjudged import culprit_of
from zesty.cards.queries import cards_of
from zesty.elements.answers import posts
from zesty.elements.refused import Refused, Unjudged
from zesty.elements.typed import Typed
from zesty.fleet.actions import log_usage
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES, CARD_ROLES
from zesty.records.actions import sign_off
from zesty.stages.serving import carry_out, go_on, next_stage, show

_LONGEST = 200
_LONGEST_NOTE = 1000


def _job_page(job_id: int) -> str:
    return reverse("stages:job", args=[job_id])


def _stage_page(job_id: int, index: int, stage: str, **_: object) -> str:
    return reverse("stages:page", args=[job_id, index, stage])


@require_GET
def job(request: HttpRequest, job_id: int) -> HttpResponse:
    """A job: on to the stage where it stands."""
    file = member_job(request.member, job_id)
    unit = _next_unit(file)
    return redirect(stage_url(file, unit, next_stage(file, unit)))


def _next_unit(file: JobFile) -> UnitFile:
    """The wheel end that somebody works on, as long as it has work; else the one that is least far."""
    last = next((row.unit_id for row in reversed(file.entries) if row.unit_id), None)
    try:
        with judging():
            here = next((one for one in file.units if one.unit.pk == last), None)
            if here is not None and here.progress.due and here.progress.due.step.per != "job":
                return here
            return file.unit(next_over_all({one.index: one.progress for one in file.units}))
    except Unjudged:
        return file.units[0]


@require_GET
def page(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """A stage of a unit. `?step=` opens another of its steps, `?panel=` a form beside them."""
    file = member_job(request.member, job_id)
    unit = file.unit(index)
    return show(request, file, unit, stage, **_panel(request, file, unit))


def _panel(request: HttpRequest, file: JobFile, unit: UnitFile) -> dict[str, Any]:
    """The form that `?panel=` asks for in place of the open step."""
    wanted = request.GET.get("panel", "")
    number = request.GET.get("entry", "")
    if wanted == "correct" and number.isascii() and number.isdigit() and len(number) < 12:
        entry = file.entry(int(number))
        form = CorrectForm(
            initial={"value": entry.typed, "reason": "misread"}, dimension=_dimension(unit, entry),
            unit=unit_of(entry.typed),
        )  # fmt: skip
        return {"panel": "correct", "entry": entry, "side_form": form}
    what = request.GET.get("what", "")
    if wanted == "choose" and what in CHOICES:
        form = ChooseForm(card=unit.card, initial={"what": what})
        return {"panel": "choose", "what": what, "choice": CHOICES[what], "side_form": form}
    if wanted == "card":
        form = CardChangeForm(cards=cards_of(request.member.workshop))
        return {"panel": "card", "side_form": form}
    if wanted in ("skip", "take_back", "abandon", "aside"):
        return {"panel": wanted, "side_form": ReasonForm(), "asked": _asked(request.GET)}
    return {}


def _asked(said: Any) -> dict[str, str]:
    """What a side form is about, as it was asked for."""
    return {
        name: said.get(name, "")[:40]
        for name in ("step", "station", "entry", "closing", "round", "kind")
    }


def _dimension(unit: UnitFile, entry: Entry) -> Dimension | None:
    """What a row is a figure of, as its step takes it; None for words."""
    if entry.kind == "text":
        return None
    step = unit.progress.by_id.get(entry.step)
    try:
        return figure_of(step, entry.place, entry.typed).dimension if step else LENGTH
    except (BadInput, KeyError):
        return LENGTH  # No figure is taken there, so what is typed is refused as none.


@posts(_stage_page)
@roles(BENCH_ROLES)
def write(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """One entry at a step."""
    kept: dict[str, Any] = {}

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        row = unit.progress.row(
            request.POST.get("step", "")[:30], request.POST.get("station", "")[:20]
        )
        if row is None:
            raise Refused("This step is not asked here any more; look at the page again.")
        form = form_for(file, unit, row, request.POST)
        if form is None:
            raise Refused("This step is answered on its own page.")
        kept["form"] = form
        if row.step.kind == "second" and not request.member.may(CARD_ROLES):
            raise Refused("A lead or the owner checks as the second person.")
        if not form.is_valid():
            log.hold_open(file)
            raise _Unusable
        say = form.say()
        done = log.write(file, unit, request.user, say)
        if done is not file:
            timers.follow(done, done.unit(index), request.user, row)
        if row.step.entry == "usage" and done is not file:
            _log_usage(file, request, say)
        return done

    try:
        return carry_out(request, job_id, index, stage, act, kept=kept)
    except _Unusable:
        file = member_job(request.member, job_id)
        form = kept["form"]
        at = (form.row.step.id, form.row.station)
        return show(request, file, file.unit(index), stage, form=form, at=at)


class _Unusable(Exception):
    """The form cannot be used as it is; nothing was written."""


def _log_usage(file: JobFile, request: HttpRequest, say: Say) -> None:
    if say.value is not None:
        log_usage(file.job.vehicle, request.user, usage=Typed(say.typed, say.value), on=file.today)


@posts(_stage_page)
@roles(BENCH_ROLES)
def skip(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """Leave a step out, for a reason."""
    form = ReasonForm(request.POST)

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        _sound(form)
        say = Say(
            step=request.POST.get("step", "")[:30], station=request.POST.get("station", "")[:20],
            kind="skip", reason=form.cleaned_data["reason"], token=form.cleaned_data["token"],
        )  # fmt: skip
        return log.skip(file, unit, request.user, say)

    return _side(request, job_id, index, stage, act, "skip", form)


@posts(_stage_page)
@roles(BENCH_ROLES)
def correct(
    request: HttpRequest, job_id: int, index: int, stage: str, entry_id: int
) -> HttpResponse:
    """Another value in a row's place."""
    kept: dict[str, Any] = {}

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        entry = file.entry(entry_id)
        form = CorrectForm(
            request.POST, dimension=_dimension(unit, entry), unit=unit_of(entry.typed)
        )
        kept.update(entry=entry, side_form=form, panel="correct")
        _sound(form)
        said = form.cleaned_data
        return log.correct(
            file, request.user, entry, typed=said["value"].text, value=said["value"].value,
            reason=said["reason"],
        )  # fmt: skip

    return carry_out(request, job_id, index, stage, act, kept=kept)


@posts(_stage_page)
@roles(BENCH_ROLES)
def take_back(
    request: HttpRequest, job_id: int, index: int, stage: str, entry_id: int
) -> HttpResponse:
    """Take a row back, for a reason."""
    form = ReasonForm(request.POST)

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        _sound(form)
        entry = file.entry(entry_id)
        unjudged = entry == culprit_of(unit)
        return log.take_back(
            file, request.user, entry, reason=form.cleaned_data["reason"], anywhere=unjudged
        )

    return _side(request, job_id, index, stage, act, "take_back", form)


@posts(_stage_page)
@roles(BENCH_ROLES)
def aside(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """Set a series aside, begin one anew, or have a place read again, for a reason."""
    form = ReasonForm(request.POST)

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        _sound(form)
        numbers = {name: _number(request.POST.get(name)) for name in ("closing", "round")}
        kind = "again" if request.POST.get("kind") == "again" else "aside"
        return log.mark(
            file, unit, request.user, step=request.POST.get("step", "")[:30],
            closing=numbers["closing"], number=numbers["round"], kind=kind,
            reason=form.cleaned_data["reason"], token=form.cleaned_data["token"],
            place=request.POST.get("place", "")[:20] if kind == "again" else "",
        )  # fmt: skip

    return _side(request, job_id, index, stage, act, "aside", form)


@posts(_stage_page)
@roles(BENCH_ROLES)
def choose(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """Another choice than the card's."""
    kept: dict[str, Any] = {}

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        form = ChooseForm(request.POST, card=unit.card)
        what = request.POST.get("what", "")
        if what not in CHOICES:
            raise Refused("That is no choice of this card.")
        kept.update(side_form=form, what=what, choice=CHOICES[what], panel="choose")
        _sound(form)
        said = form.cleaned_data
        return log.choose(
            file, unit, request.user, what=said["what"], value=said["value"],
            reason=said["reason"], token=said["token"],
        )  # fmt: skip

    return carry_out(request, job_id, index, stage, act, kept=kept)


@posts(_stage_page)
@roles(BENCH_ROLES)
def change_card(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """The right card in the place of a wrong one."""
    form = CardChangeForm(request.POST, cards=cards_of(request.member.workshop))

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        _sound(form)
        said = form.cleaned_data
        jobs.change_card(file, unit, request.user, card=said["card"], reason=said["reason"])
        return member_job(request.member, job_id)

    return _side(request, job_id, index, stage, act, "card", form)


@posts(_stage_page)
@roles(BENCH_ROLES)
def abandon(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """End a job without a sheet."""
    form = ReasonForm(request.POST)

    def act(file: JobFile, _: UnitFile) -> JobFile:
        _sound(form)
        jobs.abandon(file, reason=form.cleaned_data["reason"])
        return file

    return _side(request, job_id, index, stage, act, "abandon", form)


@posts(_job_page)
@roles(CARD_ROLES)
def reopen(request: HttpRequest, job_id: int) -> HttpResponse:
    """A signed or abandoned job is opened again; what was touched needs new evidence."""
    form = WhyForm(request.POST)
    touched = request.POST.get("touched", "")
    with transaction.atomic():
        file = member_job(request.member, job_id, hold=True)
        refusal = ""
        if not form.is_valid():
            refusal = "Say why it is opened again."
        elif touched not in jobs.TOUCHED:
            refusal = "Say what was touched: it needs new evidence."
        else:
            try:
                with transaction.atomic():
                    file = jobs.reopen(
                        file, request.user, reason=form.cleaned_data["reason"], touched=touched
                    )
            except Refused as refused:
                refusal = refused.sentence
    unit = file.units[0]
    if refusal:
        return show(request, file, unit, "close", refusal=refusal)
    return go_on(request, file, unit.index, "")


@posts(_job_page)
@roles(BENCH_ROLES)
def sign(request: HttpRequest, job_id: int) -> HttpResponse:
    """Sign a job off as what its claims allow."""
    reason = " ".join(request.POST.get("reason", "").split())[:_LONGEST]
    handover = request.POST.get("handover", "").strip()[:_LONGEST_NOTE]
    refusal = ""
    with transaction.atomic():
        file = member_job(request.member, job_id, hold=True)
        try:
            with transaction.atomic():
                saw = request.POST.get("saw", "")[:64]
                sign_off(file, request.member, reason=reason, handover=handover, saw=saw)
        except Refused as refused:
            refusal = refused.sentence
    unit = file.units[0]
    stage = unit.card.arrangement.stages[-1].key
    if refusal:
        return show(request, file, unit, stage, refusal=refusal, reason=reason, handover=handover)
    return redirect(stage_url(file, unit, stage))


def _side(
    request: HttpRequest, job_id: int, index: int, stage: str, act: Any, panel: str, form: Any
) -> HttpResponse:
    kept = {"side_form": form, "asked": _asked(request.POST)}
    return carry_out(request, job_id, index, stage, act, panel=panel, kept=kept)


def _sound(form: Any) -> None:
    """Refused with the form's first sentence where it cannot be used."""
    if not form.is_valid():
        name, errors = next(iter(form.errors.items()))
        words = "Say why." if name == "reason" else str(errors[0])
        raise Refused(words)


def _number(text: str | None) -> int:
    return int(text) if text and text.isascii() and text.isdigit() and len(text) < 6 else 0
