"""Takes a workshop away; `./zesty erase` asks first, and makes a backup."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from zesty.people.models import Workshop
from zesty.records.erasing import erase


class Command(BaseCommand):
    """`erase_workshop NAME`."""

    help = "Take a workshop away with everything in it."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")

    def handle(self, **options: Any) -> None:
        workshop = Workshop.objects.filter(name=options["name"]).first()
        if workshop is None:
            raise CommandError(f"There is no workshop “{options['name']}”.")
        erase(workshop)
        self.stdout.write(f"“{options['name']}” is gone.")
