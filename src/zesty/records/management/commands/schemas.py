"""Writes docs/formats/*.schema.json from the declarations; `--check` says whether they are current."""

import json
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from zesty.records.exchange.formats import FORMATS, schema_of

FOLDER = Path(__file__).resolve().parents[5] / "docs" / "formats"


class Command(BaseCommand):
    """`schemas`: the published schemas, made anew."""

    help = "Write the schemas of the open formats."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--check", action="store_true", help="write nothing, say what differs")

    def handle(self, **options: Any) -> None:
        stale = []
        for kind in FORMATS:
            text = json.dumps(schema_of(kind), ensure_ascii=False, indent=1) + "\n"
            file = FOLDER / f"{kind}.schema.json"
            if not file.exists() or file.read_text(encoding="utf-8") != text:
                stale.append(file.name)
                if not options["check"]:
                    file.write_text(text, encoding="utf-8")
        if stale and options["check"]:
            raise SystemExit(f"Not current: {', '.join(stale)}. ./zesty schemas makes them anew.")
