"""Brings the database to this version before it is served, in one go: it is what a start waits for."""

import hashlib
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection
from django.db.migrations.loader import MigrationLoader

from zesty.elements.rights import grant_app
from zesty.people.models import Workshop


class Command(BaseCommand):
    """`prepare`: tables, rights, static files; prints the workshops that are here."""

    help = "Bring the database to this version."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--empty", action="store_true")
        parser.add_argument("--fresh", action="store_true")
        parser.add_argument("--app-role", default="")

    def handle(self, **options: Any) -> None:
        check_schema()
        call_command("migrate", verbosity=0)
        collect_static()
        if options["app_role"]:
            grant_app(options["app_role"])
        if settings.OWN_DATABASE and not options["empty"]:
            call_command("load_demo", fresh=options["fresh"])
        for workshop in Workshop.objects.order_by("pk"):
            self.stdout.write(f"{'demo' if workshop.is_demo else 'own'} {workshop}")


def check_schema() -> None:
    """Refuse tables that a newer version made."""
    loader = MigrationLoader(connection)
    strange = [f"{app} {name}" for app, name in loader.applied_migrations
               if app in loader.migrated_apps and (app, name) not in loader.disk_migrations]  # fmt: skip
    if strange:
        raise CommandError(
            f"These data were made by a newer version ({', '.join(sorted(strange))}); start that one."
        )


def collect_static() -> None:
    """Gather and compress what browsers load, where anything of it has changed since."""
    mark = settings.STATIC_ROOT / "collected"
    found = [
        f"{file} {file.stat().st_size} {file.stat().st_mtime_ns}"
        for folder in settings.STATICFILES_DIRS
        for file in sorted(folder.rglob("*"))
    ]
    fingerprint = hashlib.sha256("\n".join(found).encode()).hexdigest()
    if mark.exists() and mark.read_text() == fingerprint:
        return
    call_command("collectstatic", interactive=False, verbosity=0)
    mark.write_text(fingerprint)
