"""What the main pages cost, in the demo and in a large fleet: ./zesty bench pages

A database of its own is made, filled and dropped again. Printed for each page: its queries, the time
in PostgreSQL, the whole time, the whole beside the SQL, and the large fleet beside the demo. Times
depend on the machine, queries and ratios much less.
"""

import itertools
import os
import statistics
import time
import uuid
from collections.abc import Callable
from functools import partial
from typing import Any
from urllib.parse import urlencode

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "zesty.settings")
django.setup()

from django.core.management import call_command  # noqa: E402
from django.db import connection, transaction  # noqa: E402
from django.test import Client  # noqa: E402
from django.test.utils import CaptureQueriesContext  # noqa: E402

from zesty.bench.models import Entry, Job, State, Unit, UnitPlace  # noqa: E402
from zesty.bench.queries.jobfile import job_file  # noqa: E402
from zesty.fleet.models import Side, Vehicle, WheelEnd  # noqa: E402
from zesty.people.models import User, Workshop  # noqa: E402

VEHICLES, AXLES, JOBS, ENTRIES = 2_000, 2, 60_000, 6
OPEN_EVERY = 100
"""Every so many-th job is still open."""
ROUNDS, BATCH = 15, 5_000


class _TakeBack(Exception):
    """What was measured is not kept."""


def grow(workshop: Workshop, by: User) -> None:
    """Fill a workshop: the same fleet each time."""
    version = Unit.objects.filter(workshop=workshop)[0].card_version
    vehicles = Vehicle.objects.bulk_create(
        Vehicle(workshop=workshop, name=f"Trailer {n:04}", kind="trailer") for n in range(VEHICLES)
    )
    ends = WheelEnd.objects.bulk_create(
        [
            WheelEnd(workshop=workshop, vehicle=vehicle, axle=axle, side=side)
            for vehicle in vehicles
            for axle in range(1, AXLES + 1)
            for side in Side.values
        ],
        batch_size=BATCH,
    )
    where = itertools.cycle(ends)
    for first in range(0, JOBS, BATCH):
        numbers = range(1_000 + first, 1_000 + first + BATCH)
        _jobs(workshop, by, version, [(number, next(where)) for number in numbers])
    with connection.cursor() as cursor:
        cursor.execute("ANALYZE")


def _jobs(workshop: Workshop, by: User, version: Any, said: list[tuple[int, WheelEnd]]) -> None:
    shared = {"workshop": workshop}
    jobs = Job.objects.bulk_create(
        Job(
            **shared, number=number, vehicle_id=end.vehicle_id, opened_by=by, opened_by_name="tech",
            state=State.OPEN if number % OPEN_EVERY == 0 else State.SIGNED,
        )
        for number, end in said
    )  # fmt: skip
    units = Unit.objects.bulk_create(
        Unit(**shared, job=job, order=1, name="axle 1 left", card_version=version) for job in jobs
    )
    taken: set[int] = set()
    places = []
    for unit, job, (_, end) in zip(units, jobs, said, strict=True):
        places.append(UnitPlace(**shared, unit=unit, wheel_end=end, station="main", is_open=False))
        if job.state == State.OPEN and end.pk not in taken:
            taken.add(end.pk)
            places[-1].is_open = not UnitPlace.objects.filter(wheel_end=end, is_open=True).exists()
    UnitPlace.objects.bulk_create(places)
    Entry.objects.bulk_create(
        [
            Entry(**shared, job=job, step=f"step_{n}", kind="done", aspect="answer", digest="",
                  by=by, by_name="tech")
            for job in jobs
            for n in range(ENTRIES)
        ],
        batch_size=BATCH,
    )  # fmt: skip


def pages(client: Client, workshop: Workshop, user: User) -> dict[str, Callable[[], None]]:
    """What is measured: the pages that are opened most, and one reading."""
    job = Job.objects.get(workshop=workshop, number=2)
    for answer in ({"answer": "change"}, {"pack": "0.50, 0.05"}, {"value": "61"}):
        _send(client, *_asked(job), answer)
    path, asked = _asked(job)
    paths = {
        "yard": "/", "yard, searched": "/?find=trailer", "vehicle": f"/vehicles/{job.vehicle_id}/",
        "set": f"/jobs/{job.pk}/1/set/", "close": f"/jobs/{job.pk}/1/close/",
        "cards": "/cards/", "tray": "/tray/",
    }  # fmt: skip
    found = {name: _getter(client, path) for name, path in paths.items()}

    def reading(shown: bool) -> None:
        try:
            with transaction.atomic():
                _send(client, path, asked, {"value": "0.01"}, shown=shown)
                raise _TakeBack
        except _TakeBack:
            pass

    def insert() -> None:
        try:
            with transaction.atomic():
                Entry.objects.create(
                    workshop=workshop, job=job, step="x", kind="done", aspect="answer", digest="",
                    by=user, by_name="tech", place=uuid.uuid4().hex[:20],
                )  # fmt: skip
                raise _TakeBack
        except _TakeBack:
            pass

    return {
        **found, "reading, written": partial(reading, shown=False),
        "reading, and shown": partial(reading, shown=True), "a bare insert": insert,
    }  # fmt: skip


def _getter(client: Client, path: str) -> Callable[[], None]:
    def get() -> None:
        assert client.get(path).status_code == 200, path

    return get


def _asked(job: Job) -> tuple[str, dict[str, Any]]:
    """Where the due step's answer goes, and what its form holds."""
    due = job_file(job.workshop, job.pk).units[0].progress.due
    assert due is not None
    slot = due.slot
    holds = {"step": due.step.id, "station": due.station, "place": slot.place, "round": slot.round,
             "push": slot.push}  # fmt: skip
    return f"/jobs/{job.pk}/1/{due.step.stage}/write", holds


def _send(
    client: Client, path: str, asked: dict[str, Any], answer: dict[str, Any], *, shown: bool = True
) -> None:
    """Send what a form sends. A page asks to be shown what is next; who sends no header is told where."""
    sent = urlencode({**asked, "token": uuid.uuid4(), **answer})
    as_pages_do = "application/x-www-form-urlencoded"
    headers = {"HX-Request": "true"} if shown else {}
    got = client.post(path, sent, content_type=as_pages_do, headers=headers)
    assert got.status_code == (200 if shown else 302), answer


def measured(acts: dict[str, Callable[[], None]]) -> dict[str, tuple[int, float, float, float]]:
    """Of each act its queries, then the medians of SQL, whole and CPU milliseconds.

    They take turns, for a machine is fast now and slow then; of two runs in a row the second is timed.
    """
    found: dict[str, list[tuple[int, float, float, float]]] = {name: [] for name in acts}
    for _ in range(ROUNDS):
        for name, act in acts.items():
            found[name].append(_once(act))
    return {
        name: tuple(statistics.median(column) for column in zip(*rounds, strict=True))
        for name, rounds in found.items()
    }  # type: ignore[misc]


def _once(act: Callable[[], None]) -> tuple[int, float, float, float]:
    with CaptureQueriesContext(connection) as seen:
        act()
    caught = list(seen.captured_queries)
    begun, used = time.perf_counter(), time.process_time()
    act()
    whole, cpu = time.perf_counter() - begun, time.process_time() - used
    queries = len([one for one in caught if "SAVEPOINT" not in one["sql"]])
    sql = sum(float(one["time"]) for one in caught)
    return queries, 1000 * sql, 1000 * whole, 1000 * cpu


def main() -> None:
    connection.creation.create_test_db(verbosity=0, autoclobber=True)
    try:
        call_command("load_demo")
        user = User.objects.get(username="tech")
        workshop = user.membership.workshop
        # As the web server runs: a test environment would copy the context of every template.
        client = Client(SERVER_NAME="localhost")
        client.force_login(user)
        acts = pages(client, workshop, user)
        measured(acts)
        small = measured(acts)
        begun = time.perf_counter()
        grow(workshop, user)
        print(f"{VEHICLES} vehicles, {JOBS} jobs, {JOBS * ENTRIES} entries: made in "
              f"{time.perf_counter() - begun:.0f} s")  # fmt: skip
        large = measured(acts)
    finally:
        connection.creation.destroy_test_db(connection.settings_dict["NAME"], verbosity=0)
    print(
        f"{'page':<20}{'queries':>8}{'SQL ms':>8}{'all ms':>8}{'all/SQL':>8}{'to demo':>8}{'CPU/insert':>11}"
    )
    bare = large["a bare insert"][3]
    for name, (queries, sql, whole, cpu) in large.items():
        print(f"{name:<20}{queries:>8}{sql:>8.1f}{whole:>8.1f}{whole / max(sql, 0.1):>8.1f}"
              f"{whole / small[name][2]:>8.1f}{cpu / bare:>11.0f}")  # fmt: skip


if __name__ == "__main__":
    main()
