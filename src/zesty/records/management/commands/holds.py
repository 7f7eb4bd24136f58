"""Says what people wrote here; nothing where there is nothing but an untouched demo."""

from typing import Any

from django.core.management.base import BaseCommand

from zesty.records.erasing import what_people_wrote


class Command(BaseCommand):
    """`holds`."""

    help = "What people wrote in this installation."

    def handle(self, **_: Any) -> None:
        if found := what_people_wrote():
            self.stdout.write("; ".join(map(str, found)))
