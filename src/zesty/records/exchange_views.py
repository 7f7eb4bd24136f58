"""Exports and imports of the open formats."""

from collections.abc import Callable, Mapping
from functools import partial

from django.db import DataError, IntegrityError, transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse

from wheelend.quantity import unit_of
from zesty.bench.forms import dial_in_use
from zesty.bench.queries.jobfile import job_file
from zesty.cards.actions import new_card
from zesty.cards.queries import card_of
from zesty.elements.answers import UNUSABLE
from zesty.elements.refused import Refused
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES, CARD_ROLES, STORES_ROLES
from zesty.records.exchange import tables
from zesty.records.exchange.actions import import_job
from zesty.records.exchange.archive import archive_of, opened
from zesty.records.exchange.documents import Json, dumps, loads
from zesty.records.exchange.jobs import job_document
from zesty.records.exchange.tables import Line
from zesty.records.exchange.trays import import_tray, tray_document
from zesty.records.forms import DocumentForm, TableFileForm, TableForm


def job_json(request: HttpRequest, job_id: int) -> HttpResponse:
    """A job as a document."""
    file = job_file(request.member.workshop, job_id)
    return _file(dumps(job_document(file)), f"job-{file.job.number}.json", "application/json")


def job_zip(request: HttpRequest, job_id: int) -> HttpResponse:
    """A job with its photographs."""
    file = job_file(request.member.workshop, job_id)
    answer = HttpResponse(archive_of(file), content_type="application/zip")
    answer["Content-Disposition"] = f'attachment; filename="job-{file.job.number}.zip"'
    return answer


def card_json(request: HttpRequest, card_id: int) -> HttpResponse:
    """A card as a document."""
    version = card_of(request.member.workshop, card_id).versions.all()[0]
    return _file(dumps(version.document), f"card-{card_id}.json", "application/json")


def tray_json(request: HttpRequest) -> HttpResponse:
    """The stores as a document."""
    return _file(dumps(tray_document(request.member.workshop)), "tray.json", "application/json")


def tray_csv(request: HttpRequest) -> HttpResponse:
    """The tray as CSV."""
    return _file(tables.tray_csv(request.member.workshop), "tray.csv", "text/csv")


def readings_csv(request: HttpRequest, job_id: int) -> HttpResponse:
    """A job's readings as CSV."""
    file = job_file(request.member.workshop, job_id)
    return _file(tables.readings_csv(file), f"job-{file.job.number}-readings.csv", "text/csv")


def _file(text: str, name: str, kind: str) -> HttpResponse:
    answer = HttpResponse(text, content_type=f"{kind}; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


@roles(CARD_ROLES)
def import_document(request: HttpRequest) -> HttpResponse:
    """A card, a tray or a job from a file."""
    form = DocumentForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        try:
            came = form.cleaned_data["file"]
            text, photos = opened(came) if isinstance(came, bytes) else (came, {})
            return redirect(_take_in(request, *loads(text), photos))
        except Refused as refused:
            form.add_error("file", refused.sentence)
        except (IntegrityError, DataError) as error:
            said = str(error).splitlines()[0]
            form.add_error("file", f"The document contradicts itself, nothing was saved: {said}.")
    status = UNUSABLE if request.method == "POST" else 200
    return render(request, "records/import.html", {"form": form}, status=status)


@transaction.atomic
def _take_in(
    request: HttpRequest, kind: str, document: Json, said: Json, photos: Mapping[int, bytes]
) -> str:
    """Save a document; the address of what came of it."""
    workshop = request.member.workshop
    if kind == "card":
        card = new_card(workshop, request.user, document=document)
        return reverse("cards:card", args=[card.pk])
    if kind == "tray":
        import_tray(workshop, said)
        return reverse("stores:tray")
    job = import_job(workshop, request.user, document, said, photos)
    return reverse("stages:job", args=[job.pk])


@roles(STORES_ROLES)
def import_tray_csv(request: HttpRequest) -> HttpResponse:
    """A tray from a table, looked at first."""
    workshop = request.member.workshop
    to = reverse("stores:tray")
    return _table(request, tables.read_tray, partial(tables.save_tray, workshop), "the tray", to)


@roles(BENCH_ROLES)
def import_readings(request: HttpRequest, job_id: int, index: int) -> HttpResponse:
    """Readings from a table into the series that is being read, looked at first."""
    file = job_file(request.member.workshop, job_id)
    unit = file.unit(index)
    used = dial_in_use(unit)
    shown = unit_of(used["resolution"]) if used and used.get("resolution") else "mm"

    @transaction.atomic
    def save(lines: list[Line]) -> None:
        held = job_file(request.member.workshop, job_id, hold=True)
        tables.save_readings(held, index, request.user, lines, shown)

    to = reverse("stages:job", args=[file.job.pk])
    words = f"{file.job}, {unit.unit.name}"
    return _table(request, partial(tables.read_readings, unit=shown), save, words, to)


def _table(
    request: HttpRequest,
    read: Callable[[str], list[Line]],
    save: Callable[[list[Line]], None],
    words: str,
    to: str,
) -> HttpResponse:
    """Choose a file; see its lines with what is wrong; save them all or none."""
    form = TableFileForm(request.POST or None, request.FILES or None)
    seen = TableForm(request.POST) if "text" in request.POST else None
    chosen = seen or form
    lines: list[Line] = []
    if request.method == "POST" and chosen.is_valid():
        text = chosen.cleaned_data["text" if seen else "file"]
        try:
            lines = read(text)
            if seen:
                save(lines)
                return redirect(to)
            chosen = TableForm(initial={"text": text})
        except Refused as refused:
            chosen.add_error(None, refused.sentence)
    faulty = any(line.wrong for line in lines) or bool(chosen.is_bound and chosen.errors)
    context = {
        "form": TableFileForm() if lines else chosen,
        "table": chosen if lines else None,
        "lines": lines,
        "faulty": faulty,
        "words": words,
        "to": to,
    }
    status = UNUSABLE if request.method == "POST" and faulty else 200
    return render(request, "records/table.html", context, status=status)
