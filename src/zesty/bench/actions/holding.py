"""Holds a job while something is written in it."""

from zesty.bench.models import (
    Job,
)
from zesty.elements.refused import Refused


def hold_open(job: Job) -> Job:
    """Lock a job's row until the transaction ends; refused where it is signed off."""
    held = Job.objects.select_for_update().get(pk=job.pk)
    if held.closed_at:
        raise Refused(f"Job {held.number} was signed off; nothing more can be written in it.")
    return held
