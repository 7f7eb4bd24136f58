"""Cautions that were seen: once in a job is enough."""

from zesty.bench.actions.log import hold_open
from zesty.bench.models import CautionSeen
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.elements.refused import Refused
from zesty.people.models import User


def see(file: JobFile, unit: UnitFile, user: User, step_id: str) -> None:
    """Write down that the cautions of a step were seen. The same again changes nothing."""
    hold_open(file)
    step = unit.progress.by_id.get(step_id)
    if step is None or not step.cautions:
        raise Refused("There is no caution at this step any more; look at the page again.")
    CautionSeen.objects.bulk_create(
        [
            CautionSeen(workshop=file.job.workshop, job=file.job, words=words, by=user)
            for words in step.cautions
        ],
        ignore_conflicts=True,
    )
