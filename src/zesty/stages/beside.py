"""What stands beside the steps: photographs, cautions, and the other end of the axle."""

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.urls import reverse
from django.views.decorators.http import require_GET

from zesty.bench.actions.cautions import see
from zesty.bench.actions.jobs import join
from zesty.bench.actions.photos import add_photo
from zesty.bench.forms.photos import PhotoForm
from zesty.bench.models import Photo
from zesty.bench.queries.beside import stage_url
from zesty.bench.queries.jobfile import JobFile, UnitFile, member_job
from zesty.elements.answers import posts
from zesty.elements.pictures import picture_of
from zesty.elements.refused import Refused
from zesty.fleet.models import WheelEnd
from zesty.people.guard import roles
from zesty.people.models import BENCH_ROLES
from zesty.stages.serving import carry_out, show

_SIZES = ("small", "large")
_A_DAY = 86_400


def _stage_page(job_id: int, index: int, stage: str, **_: object) -> str:
    return reverse("stages:page", args=[job_id, index, stage])


@posts(_stage_page)
@roles(BENCH_ROLES)
def photo(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """Keep a photograph."""
    form = PhotoForm(request.POST, request.FILES)
    try:
        if not form.is_valid():
            raise Refused(next(iter(form.errors.values()))[0], "photo")
        picture = picture_of(form.cleaned_data["photo"].read())
    except Refused as refused:
        file = member_job(request.member, job_id)
        return show(request, file, file.unit(index), stage, refusal=refused.sentence)

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        said = form.cleaned_data
        return add_photo(
            file, unit, request.user, picture, words=said["words"], token=said["token"]
        )

    return carry_out(request, job_id, index, stage, act)


@posts(_stage_page)
@roles(BENCH_ROLES)
def seen(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """The cautions of a step were seen."""

    def act(file: JobFile, unit: UnitFile) -> JobFile:
        see(file, unit, request.user, request.POST.get("step", "")[:30])
        return file

    return carry_out(request, job_id, index, stage, act)


@require_GET
def photo_file(request: HttpRequest, entry_id: int, size: str) -> HttpResponse:
    """A photograph of the member's workshop; kept by the browser, for it never changes."""
    if size not in _SIZES:
        raise Http404
    found = Photo.objects.filter(workshop=request.member.workshop, entry_id=entry_id)
    row = found.values_list(size, flat=True).first()
    if row is None:
        raise Http404
    return HttpResponse(
        bytes(row),
        content_type="image/jpeg",
        headers={"Cache-Control": f"private, max-age={_A_DAY}, immutable"},
    )


@posts(_stage_page)
@roles(BENCH_ROLES)
def other_end(request: HttpRequest, job_id: int, index: int, stage: str) -> HttpResponse:
    """Take the other end of the axle into the job, by the card that is fitted there."""
    wanted = request.POST.get("wheel_end", "")
    file: JobFile | None = None
    try:
        with transaction.atomic():
            file = member_job(request.member, job_id, hold=True)
            end = _end_of(file, wanted)
            mine = file.unit(index).unit.card_version.card
            made = join(file, end, card=end.fitment.card if hasattr(end, "fitment") else mine)
    except Refused as refused:
        if file is None:
            raise
        return show(request, file, file.unit(index), stage, refusal=refused.sentence)
    again = member_job(request.member, job_id)
    fresh = again.unit(made.order)
    return redirect(stage_url(again, fresh, fresh.progress.current_stage))


def _end_of(file: JobFile, wanted: str) -> WheelEnd:
    if not (wanted.isascii() and wanted.isdigit() and len(wanted) < 12):
        raise Http404
    ends = WheelEnd.objects.filter(vehicle=file.job.vehicle, pk=int(wanted))
    found = ends.select_related("fitment__card").first()
    if found is None:
        raise Http404
    return found
