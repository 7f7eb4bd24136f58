"""The yard: every vehicle from above, open work marked on its wheel ends."""

from collections.abc import Iterable
from dataclasses import dataclass

from django.db.models import Prefetch, QuerySet
from django.http import Http404
from django.urls import reverse

from zesty.bench.models import Job
from zesty.drawings.vehicle import WheelMark, vehicle
from zesty.fleet.models import UsageEntry, Vehicle, WheelEnd
from zesty.people.models import Workshop


@dataclass(frozen=True)
class YardVehicle:
    """One vehicle in the yard."""

    vehicle: Vehicle
    drawing: str
    usage: str
    open_jobs: tuple[Job, ...]


@dataclass(frozen=True)
class WheelEndRow:
    """One wheel end on its vehicle's page."""

    wheel_end: WheelEnd
    open_job: Job | None
    card: str
    done: tuple[Job, ...]


def yard(workshop: Workshop) -> tuple[YardVehicle, ...]:
    """All vehicles of a workshop, those with open work first."""
    drawn = [_yard_vehicle(found) for found in _vehicles(workshop)]
    return tuple(sorted(drawn, key=lambda one: (not one.open_jobs, one.vehicle.name)))


def vehicle_of(workshop: Workshop, vehicle_id: int) -> Vehicle:
    """One vehicle with its wheel ends. Raises Http404 for another workshop's."""
    found = _vehicles(workshop).filter(pk=vehicle_id).first()
    if found is None:
        raise Http404
    return found


def wheel_end_of(workshop: Workshop, wheel_end_id: int) -> WheelEnd:
    """One wheel end with its vehicle. Raises Http404 for another workshop's."""
    found = (
        WheelEnd.objects.select_related("vehicle", "fitment__card")
        .filter(vehicle__workshop=workshop, pk=wheel_end_id)
        .first()
    )
    if found is None:
        raise Http404
    return found


def drawing_of(found: Vehicle) -> str:
    """A vehicle from above with its wheel ends as links."""
    ends = list(found.wheel_ends.all())
    marks = tuple(_mark(found, end) for end in ends)
    return vehicle(found.kind, max((end.axle for end in ends), default=1), marks, found.name)


def wheel_end_rows(found: Vehicle) -> tuple[WheelEndRow, ...]:
    """A vehicle's wheel ends with their work."""
    return tuple(
        WheelEndRow(
            wheel_end=end,
            open_job=_open(end.jobs.all()),
            card=end.fitment.card.name if hasattr(end, "fitment") else "",
            done=tuple(job for job in end.jobs.all() if job.closed_at),
        )
        for end in found.wheel_ends.all()
    )


def _vehicles(workshop: Workshop) -> QuerySet[Vehicle]:
    ends = WheelEnd.objects.select_related("fitment__card").prefetch_related(
        Prefetch("jobs", Job.objects.select_related("card_version__card"))
    )
    usage = UsageEntry.objects.select_related("entered_by")
    return (
        Vehicle.objects.filter(workshop=workshop, retired=False)
        .order_by("name")
        .prefetch_related(Prefetch("wheel_ends", ends), Prefetch("usage_log", usage))
    )


def _yard_vehicle(found: Vehicle) -> YardVehicle:
    jobs = [_open(end.jobs.all()) for end in found.wheel_ends.all()]
    log = list(found.usage_log.all())
    return YardVehicle(
        vehicle=found,
        drawing=drawing_of(found),
        usage=log[0].typed if log else "",
        open_jobs=tuple(job for job in jobs if job),
    )


def _open(jobs: Iterable[Job]) -> Job | None:
    return next((job for job in jobs if job.closed_at is None), None)


def _mark(found: Vehicle, end: WheelEnd) -> WheelMark:
    job = _open(end.jobs.all())
    if job:
        href = reverse("bench:job", args=[job.pk])
        words = f"{found.name}, {end}: job {job.number} is open"
        return WheelMark(end.axle, end.side, href, words, str(job.number), "open-work")
    href = reverse("bench:start", args=[end.pk])
    return WheelMark(end.axle, end.side, href, f"{found.name}, {end}: start a job")
