"""What a workshop holds in all tables, and taking it away for good.

Tables are found by their references, so a new one is never forgotten.
"""

from dataclasses import dataclass
from datetime import datetime

from django.apps import apps
from django.db import connection, transaction
from django.db.models import ForeignKey, Model
from django.utils import timezone

from zesty.bench.models import Entry, Job
from zesty.elements.rights import append_only_tables
from zesty.people.models import Membership, User, Workshop
from zesty.records.models import SheetPdf

_NOT_WRITTEN = (Membership, SheetPdf)
"""Made by the product, or a person's way of looking: no work is lost with them."""


def _condition(model: type[Model]) -> str:
    """Which rows of a table belong to a workshop, in SQL with one place for its number."""
    keys = [field for field in model._meta.fields if isinstance(field, ForeignKey)]
    if any(field.name == "workshop" for field in keys):
        return "workshop_id = %s"
    for field in keys:
        other = field.related_model
        if other is not User and (inner := _condition(other)):
            rows = f"SELECT id FROM {other._meta.db_table} WHERE {inner}"  # noqa: S608
            return f"{field.column} IN ({rows})"
    return ""


def owned() -> list[tuple[type[Model], str]]:
    """Every table with rows of a workshop, and the condition; those that hang on others come first."""
    found = [
        (model, _condition(model))
        for model in apps.get_models()
        if model.__module__.startswith("zesty.")
    ]
    return sorted((one for one in found if one[1]), key=lambda one: one[1] == "workshop_id = %s")


def digest(workshop: Workshop) -> str:
    """One number for everything that is written in a workshop."""
    parts = []
    with connection.cursor() as cursor:
        for model, condition in owned():
            if model in _NOT_WRITTEN:
                continue
            table = model._meta.db_table
            cursor.execute(
                f"SELECT md5(coalesce(string_agg(md5(t::text), '' ORDER BY id), '')) "  # noqa: S608
                f"FROM {table} t WHERE {condition}",
                [workshop.pk],
            )
            parts.append(cursor.fetchone()[0])
        cursor.execute("SELECT md5(%s)", ["".join(parts)])
        return str(cursor.fetchone()[0])


def seal_demo(workshop: Workshop) -> None:
    """Remember what the demo was when it was loaded, to know later whether a person wrote in it."""
    Workshop.objects.filter(pk=workshop.pk).update(
        demo_digest=digest(workshop), demo_loaded_at=timezone.now()
    )


@dataclass(frozen=True)
class Written:
    """What people wrote in a workshop: what would be lost."""

    workshop: Workshop
    jobs: int
    entries: int
    since: datetime | None

    def __str__(self) -> str:
        if not (self.jobs or self.entries):
            return f"{self.workshop}: its tray, gauges, cards, vehicles or members were changed"
        since = f" since {self.since:%d %b %Y %H:%M}" if self.since else ""
        return f"{self.workshop}: {self.entries} entries, {self.jobs} jobs{since}"


def written_in(workshop: Workshop) -> Written | None:
    """What people wrote in a workshop, or None where it is a demo that nobody touched."""
    if workshop.is_demo and workshop.demo_digest and digest(workshop) == workshop.demo_digest:
        return None
    jobs = Job.objects.filter(workshop=workshop)
    entries = Entry.objects.filter(workshop=workshop)
    if workshop.demo_loaded_at:
        jobs = jobs.filter(opened_at__gt=workshop.demo_loaded_at)
        entries = entries.filter(at__gt=workshop.demo_loaded_at)
    first = entries.order_by("at").first()
    return Written(workshop, jobs.count(), entries.count(), first.at if first else None)


def what_people_wrote() -> list[Written]:
    """What people wrote in this installation."""
    return [one for shop in Workshop.objects.order_by("pk") if (one := written_in(shop))]


@transaction.atomic
def erase(workshop: Workshop) -> None:
    """Take a workshop away with everything in it. Only the tables' owner gets past the log's guard."""
    users = list(Membership.objects.filter(workshop=workshop).values_list("user_id", flat=True))
    guarded = append_only_tables()
    with connection.cursor() as cursor:
        for table in guarded:
            cursor.execute(f"ALTER TABLE {table} DISABLE TRIGGER {table}_append_only")
        for model, condition in owned():
            cursor.execute(
                f"DELETE FROM {model._meta.db_table} WHERE {condition}",  # noqa: S608
                [workshop.pk],
            )
        cursor.execute("DELETE FROM people_user WHERE id = ANY(%s)", [users])
        cursor.execute("DELETE FROM people_workshop WHERE id = %s", [workshop.pk])
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        for table in guarded:
            cursor.execute(f"ALTER TABLE {table} ENABLE TRIGGER {table}_append_only")
        cursor.execute("SET CONSTRAINTS ALL DEFERRED")
