"""The log of a job from elsewhere: brought in at once, each row checked like one that is written here."""

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from django.db import connection, transaction

from wheelend.card import Card
from wheelend.procedure.allowed import check_log
from zesty.bench.actions.log import pack_rows
from zesty.bench.models import Entry, EntryShim, Job
from zesty.bench.queries.jobfile import written
from zesty.stores.actions import Fitted


@dataclass(frozen=True)
class Coming:
    """One row from elsewhere; `corrects` is the number of an earlier one."""

    columns: Mapping[str, Any]
    corrects: int | None = None
    shims: Sequence[Fitted] = ()


def bring_in(
    job: Job, cards: Mapping[int | None, Card], rows: Sequence[Coming]
) -> tuple[Entry, ...]:
    """Rows of a job from elsewhere, under their own names and times.

    `cards` has the card of each unit; None stands for what is asked once a job. Raises BadInput with
    the row's number, IntegrityError where the log's constraints refuse one.
    """
    keys = _next_keys(len(rows))
    entries = []
    for key, row in zip(keys, rows, strict=True):
        follows = None if row.corrects is None else keys[row.corrects]
        entry = Entry(
            pk=key, workshop_id=job.workshop_id, job=job, token=uuid4(), digest="",
            corrects_id=follows, **row.columns,
        )  # fmt: skip
        entry.pack_shims = pack_rows(entry, row.shims)
        entries.append(entry)
    check_log(cards, [(entry.unit_id, written(entry)) for entry in entries])
    with transaction.atomic():
        _copy(entries)
        shims = [shim for entry in entries for shim in entry.pack_shims]
        EntryShim.objects.bulk_create(shims, batch_size=1000)
    return tuple(entries)


def _next_keys(count: int) -> list[int]:
    """Keys for rows that point at each other before they are written."""
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT nextval(pg_get_serial_sequence('bench_entry', 'id')) FROM generate_series(1, %s)",
            [count],
        )
        return [row[0] for row in cursor.fetchall()]


def _copy(entries: Sequence[Entry]) -> None:
    """Thousands of rows at once: an INSERT of so many takes seconds to write."""
    fields = Entry._meta.concrete_fields
    columns = ", ".join(f'"{field.column}"' for field in fields)
    names = [field.attname for field in fields]
    with (
        connection.cursor() as cursor,
        connection.wrap_database_errors,
        cursor.copy(f"COPY bench_entry ({columns}) FROM STDIN") as copy,
    ):
        for entry in entries:
            facts = None if entry.facts is None else json.dumps(entry.facts)
            copy.write_row([facts if name == "facts" else getattr(entry, name) for name in names])
