"""Reads of the yard: a page of vehicles at a time, in a constant number of queries."""

from collections.abc import Mapping
from dataclasses import dataclass
from urllib.parse import urlencode

from django.core.paginator import Page, Paginator
from django.db.models import Exists, OuterRef, Prefetch, Q, QuerySet, Subquery, TextField
from django.db.models.fields.json import KeyTextTransform
from django.db.models.functions import Cast
from django.http import Http404
from django.urls import reverse

from zesty.bench.models import Job, State, UnitPlace
from zesty.cards.models import CardVersion
from zesty.drawings.vehicle import WheelMark, vehicle
from zesty.fleet.life import due_by_vehicle
from zesty.fleet.models import LifePart, UsageEntry, Vehicle, WheelEnd
from zesty.people.models import Workshop
from zesty.records import rechecks
from zesty.records.rechecks import RecheckRow

OPEN_A_PAGE = 12
REST_A_PAGE = 24
JOBS_A_PAGE = 30


@dataclass(frozen=True)
class YardVehicle:
    """One vehicle in the yard."""

    vehicle: Vehicle
    drawing: str
    usage: str
    open_jobs: tuple[Job, ...]
    due: tuple[str, ...] = ()
    rechecks: tuple[RecheckRow, ...] = ()


@dataclass(frozen=True)
class YardPage:
    """A page of the yard: vehicles with open work, and those at rest."""

    at_work: tuple[YardVehicle, ...]
    at_rest: tuple[YardVehicle, ...]
    work_pages: Page[Vehicle]
    rest_pages: Page[Vehicle]
    found: str
    show: str
    due: int
    empty: bool

    @property
    def kept(self) -> str:
        """What every link of the page keeps: the search, and what is shown."""
        return urlencode({k: v for k, v in (("find", self.found), ("show", self.show)) if v})


@dataclass(frozen=True)
class WheelEndRow:
    """One wheel end on its vehicle's page."""

    wheel_end: WheelEnd
    open_job: Job | None
    card: str


def yard(workshop: Workshop, *, search: str, show: str, work: int, rest: int) -> YardPage:
    """A page of the yard. `search` looks for names, plates, parts, and for a job by its number; `show`
    is `open` for what is at work, `due` for what something is due on."""
    vehicles = _vehicles(workshop)
    due = due_by_vehicle(workshop)
    again = rechecks.due_by_vehicle(workshop)
    if search:
        vehicles = vehicles.filter(_named(workshop, search)).distinct()
    if show == "due":
        vehicles = vehicles.filter(pk__in={*due, *again})
    working = Job.objects.filter(vehicle=OuterRef("pk"), state=State.OPEN)
    at_work = Paginator(vehicles.filter(Exists(working)), OPEN_A_PAGE).get_page(work)
    resting = vehicles.none() if show == "open" else vehicles.filter(~Exists(working))
    at_rest = Paginator(resting, REST_A_PAGE).get_page(rest)
    return YardPage(
        tuple(_shown(one, due, again) for one in at_work),
        tuple(_shown(one, due, again) for one in at_rest),
        at_work,
        at_rest,
        search,
        show,
        len({*due, *again}),
        not (search or show or at_work.paginator.count or at_rest.paginator.count),
    )


def _named(workshop: Workshop, search: str) -> Q:
    """Vehicles by name, plate, a job's number, a part of their card, or a part with a limited life."""
    stack = Cast(KeyTextTransform("stack", "document"), TextField())
    cards = CardVersion.objects.filter(workshop=workshop).annotate(stack=stack)
    with_part = cards.filter(stack__icontains=search).values("card")
    lives = LifePart.objects.filter(workshop=workshop)
    lives = lives.filter(Q(serial__icontains=search) | Q(name__icontains=search))
    named = (
        Q(name__icontains=search)
        | Q(plate__icontains=search)
        | Q(wheel_ends__fitment__card__in=with_part)
        | Q(wheel_ends__in=lives.values("events__wheel_end"))
    )
    if search.isascii() and search.isdigit() and len(search) < 9:
        named |= Q(jobs__number=int(search))
    return named


def _vehicles(workshop: Workshop) -> QuerySet[Vehicle]:
    latest = UsageEntry.objects.filter(vehicle=OuterRef("pk")).values("typed")[:1]
    ends = WheelEnd.objects.select_related("fitment__card").prefetch_related(
        Prefetch(
            "unit_places",
            UnitPlace.objects.filter(is_open=True).select_related("unit__job"),
            to_attr="at_work",
        )
    )
    return (
        Vehicle.objects.filter(workshop=workshop, retired=False)
        .order_by("name")
        .annotate(counter=Subquery(latest))
        .prefetch_related(Prefetch("wheel_ends", ends))
    )


def vehicle_of(workshop: Workshop, vehicle_id: int) -> Vehicle:
    """One vehicle with its wheel ends. Raises Http404 for another workshop's."""
    usage = UsageEntry.objects.select_related("entered_by")
    found = _vehicles(workshop).prefetch_related(Prefetch("usage_log", usage))
    one = found.filter(pk=vehicle_id).first()
    if one is None:
        raise Http404
    return one


def wheel_end_of(workshop: Workshop, wheel_end_id: int) -> WheelEnd:
    """One wheel end with its vehicle. Raises Http404 for another workshop's."""
    found = (
        WheelEnd.objects.select_related("vehicle", "fitment__card")
        .filter(workshop=workshop, pk=wheel_end_id)
        .first()
    )
    if found is None:
        raise Http404
    return found


def others_of_axle(wheel_end: WheelEnd) -> list[WheelEnd]:
    """The other wheel ends of an axle on which nothing is open."""
    ends = WheelEnd.objects.filter(vehicle=wheel_end.vehicle, axle=wheel_end.axle)
    return list(ends.exclude(pk=wheel_end.pk).exclude(unit_places__is_open=True))


def alike_of_vehicle(wheel_end: WheelEnd) -> list[WheelEnd]:
    """Every other wheel end of the vehicle with the same card on which nothing is open."""
    if not hasattr(wheel_end, "fitment"):
        return []
    ends = WheelEnd.objects.filter(
        vehicle=wheel_end.vehicle, fitment__card=wheel_end.fitment.card_id
    )
    return list(ends.exclude(pk=wheel_end.pk).exclude(unit_places__is_open=True))


def open_job_on(wheel_end: WheelEnd) -> Job | None:
    """The job that is open on a wheel end."""
    place = wheel_end.unit_places.filter(is_open=True).select_related("unit__job").first()
    return place.unit.job if place else None


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
            open_job=_open(end),
            card=end.fitment.card.name if hasattr(end, "fitment") else "",
        )
        for end in found.wheel_ends.all()
    )


def ended_jobs(found: Vehicle, page: int) -> Page[Job]:
    """A vehicle's jobs that are no longer open, newest first."""
    ended = Job.objects.filter(vehicle=found).exclude(state=State.OPEN).prefetch_related("units")
    return Paginator(ended.order_by("-number"), JOBS_A_PAGE).get_page(page)


def _shown(
    found: Vehicle, due: Mapping[int, tuple[str, ...]], again: Mapping[int, tuple[RecheckRow, ...]]
) -> YardVehicle:
    jobs = {job.pk: job for end in found.wheel_ends.all() if (job := _open(end))}
    return YardVehicle(
        found,
        drawing_of(found),
        found.counter or "",
        tuple(jobs.values()),
        due.get(found.pk, ()),
        again.get(found.pk, ()),
    )


def _open(end: WheelEnd) -> Job | None:
    places = end.at_work
    return places[0].unit.job if places else None


def _mark(found: Vehicle, end: WheelEnd) -> WheelMark:
    job = _open(end)
    if job:
        href = reverse("stages:job", args=[job.pk])
        words = f"{found.name}, {end}: job {job.number} is open"
        return WheelMark(end.axle, end.side, href, words, str(job.number), "open-work", end.short)
    href = reverse("yard:start", args=[end.pk])
    return WheelMark(end.axle, end.side, href, f"{found.name}, {end}: start a job", short=end.short)
