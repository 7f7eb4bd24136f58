"""A job with its photographs: one zip with the document, and each photo under its row's number."""

import io
import re
import zipfile
import zlib
from collections.abc import Mapping

from zesty.bench.models import Photo
from zesty.bench.queries.jobfile import JobFile
from zesty.elements.pictures import MOST_BYTES
from zesty.elements.refused import Refused
from zesty.records.exchange.documents import LARGEST_BYTES, dumps
from zesty.records.exchange.jobs import job_document

DOCUMENT = "job.json"
MOST_ARCHIVE = 24_000_000
"""What a request may carry; a job with more photos is brought in by its JSON alone."""
_PHOTO = re.compile(r"photos/(0|[1-9][0-9]{0,4})\.jpg", re.ASCII)
_ALWAYS = (1980, 1, 1, 0, 0, 0)
"""The same content is the same file."""


def is_archive(data: bytes) -> bool:
    """Whether a file begins as a zip does."""
    return data[:4] == b"PK\x03\x04"


def archive_of(file: JobFile) -> bytes:
    """A job's document and its photographs, large, as one zip."""
    order = {row.pk: index for index, row in enumerate(file.entries)}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr(zipfile.ZipInfo(DOCUMENT, _ALWAYS), dumps(job_document(file)))
        for photo in Photo.objects.filter(entry__job=file.job).order_by("entry_id").iterator(8):
            name = zipfile.ZipInfo(f"photos/{order[photo.entry_id]}.jpg", _ALWAYS)
            made.writestr(name, bytes(photo.large))
    return out.getvalue()


def opened(data: bytes) -> tuple[str, Mapping[int, bytes]]:
    """The document's text, and the photographs by the number of their row. Raises Refused."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as found:
            return _document(found), _photos(found)
    except (zipfile.BadZipFile, zlib.error, NotImplementedError, EOFError, RuntimeError) as error:
        raise Refused("That zip can’t be read; export the job anew.", "file") from error


def _document(found: zipfile.ZipFile) -> str:
    if DOCUMENT not in found.namelist():
        raise Refused(f"The zip has no {DOCUMENT}; give one that was exported as a job.", "file")
    try:
        return _bytes(found, DOCUMENT, LARGEST_BYTES).decode("utf-8-sig")
    except UnicodeDecodeError:
        raise Refused(f"{DOCUMENT} in the zip is not UTF-8 text.", "file") from None


def _photos(found: zipfile.ZipFile) -> Mapping[int, bytes]:
    photos: dict[int, bytes] = {}
    whole = 0
    for name in found.namelist():
        if name == DOCUMENT:
            continue
        match = _PHOTO.fullmatch(name)
        if match is None or int(match[1]) in photos:
            raise Refused(
                f"“{name[:60]}” in the zip is no photo of a row, such as photos/4.jpg.", "file"
            )
        photos[int(match[1])] = _bytes(found, name, MOST_BYTES)
        whole += len(photos[int(match[1])])
        if whole > MOST_ARCHIVE:
            raise Refused(f"The photos have more than {MOST_ARCHIVE // 10**6} MB together.", "file")
    return photos


def _bytes(found: zipfile.ZipFile, name: str, most: int) -> bytes:
    """A member, read no further than it may be long: what its header says may be a lie."""
    with found.open(name) as member:
        data = member.read(most + 1)
    if len(data) > most:
        raise Refused(f"{name} in the zip has more than {most // 10**6} MB.", "file")
    return data
