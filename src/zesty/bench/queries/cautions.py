"""Cautions that are still to be seen."""

from zesty.bench.models import CautionSeen
from zesty.bench.queries.jobfile import JobFile


def unseen(file: JobFile, cautions: tuple[str, ...]) -> tuple[str, ...]:
    """Those that nobody said they had seen in this job."""
    if not cautions:
        return ()
    said = set(CautionSeen.objects.filter(job=file.job).values_list("words", flat=True))
    return tuple(words for words in cautions if words not in said)
