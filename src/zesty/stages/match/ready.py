"""The get-ready list of a whole job on one page, to be printed and taken to the stores."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from wheelend.procedure.items import items_of
from wheelend.procedure.items.frame import answer_of, detail_of, latest
from wheelend.procedure.progress import Row
from zesty.bench.queries.jobfile import UnitFile, job_file, judging


def laid_out(row: Row) -> list[dict[str, str]]:
    """What has to lie there, ticked where it does; what is lacking with where it comes from."""
    said = latest(row.at.entries)
    return [
        {
            "words": item.words,
            "state": answer_of(said[item.key]) if item.key in said else "",
            "note": detail_of(said[item.key]) if item.key in said else "",
        }
        for item in items_of(row.at)
    ]


@require_GET
def get_ready(request: HttpRequest, job_id: int) -> HttpResponse:
    """Every wheel end of a job with its parts, tools and consumables."""
    file = job_file(request.member.workshop, job_id)
    with judging():
        lists = [(unit, _list_of(unit)) for unit in file.units]
    return render(request, "stages/match/get_ready.html", {"file": file, "lists": lists})


def _list_of(unit: UnitFile) -> list[dict[str, str]]:
    rows = unit.progress.of_kind("laid_out")
    return laid_out(rows[0]) if rows else []
