"""Photographs in the log."""

from uuid import UUID

from zesty.bench.actions.log import Say, add, already_written, hold_open
from zesty.bench.models import Entry, Photo
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.elements.pictures import Picture
from zesty.elements.refused import Refused
from zesty.people.models import User

MOST_PHOTOS = 60
"""Of one unit in one job."""


def add_photo(
    file: JobFile, unit: UnitFile, user: User, picture: Picture, *, words: str, token: UUID
) -> JobFile:
    """Keep a photograph with a few words about it. Refused where a unit has too many."""
    steps = [step for step in unit.card.arrangement.steps if step.entry == "photo"]
    if not steps:
        raise Refused("This arrangement has no step for photos.", "photo")
    say = Say(step=steps[0].id, kind="photo", typed=words or "photo", token=token)
    if already_written(file, unit, say):
        return file
    hold_open(file)
    before = sum(row.kind == "photo" and row.unit_id == unit.unit.pk for row in file.entries)
    if before >= MOST_PHOTOS:
        raise Refused(f"There are {before} photos of it already; that is as many as fit.", "photo")
    entry = add(
        file, user, unit=unit.unit, step=say.step, kind="photo", place=f"ph{before + 1}", typed=say.typed,
        token=token, digest=say.digest(unit.unit.pk), card=unit.card,
    )  # fmt: skip
    keep_photo(entry, picture)
    return file.with_entries([entry])


def keep_photo(entry: Entry, picture: Picture) -> None:
    """Keep the picture of a row that stands in the log."""
    Photo.objects.create(
        workshop_id=entry.workshop_id, entry=entry, large=picture.large, small=picture.small,
        width=picture.width, height=picture.height,
    )  # fmt: skip
