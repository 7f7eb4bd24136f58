"""Packs and the tray: what goes on a shaft leaves the tray, what comes off it goes back."""

from collections.abc import Sequence

from zesty.bench.models import Entry
from zesty.bench.queries.jobfile import JobFile, UnitFile, shims_of
from zesty.stores.actions import Fitted, swap


def fitted_before(
    file: JobFile, unit_id: int | None, station: str, without: Entry | None = None
) -> list[Fitted]:
    """The pack that is on the shaft at a station: the last one fitted there."""
    corrected = {row.corrects_id for row in file.entries}
    packs = [
        row
        for row in file.entries
        if row.kind == "pack"
        and row.pk not in corrected
        and (row.unit_id, row.station) == (unit_id, station)
        and (without is None or row.pk != without.pk)
    ]
    if not packs:
        return []
    return [Fitted(one.typed, one.thickness_mm, one.shim_id) for one in shims_of(packs[-1])]


def move(
    file: JobFile, unit: UnitFile, entry: Entry, pack: Sequence[Fitted], *, from_here: bool
) -> None:
    """Keep the tray true for a pack that goes in. `from_here`: these came off this wheel end."""
    before = fitted_before(file, unit.unit.pk, entry.station)
    if not before and from_here:
        return
    put_in, taken_out = _difference(pack, before)
    swap(file.job.workshop, put_in=put_in, taken_out=taken_out)


def move_back(file: JobFile, entry: Entry) -> None:
    """Undo what fitting a pack did to the tray."""
    now = [Fitted(one.typed, one.thickness_mm, one.shim_id) for one in shims_of(entry)]
    before = fitted_before(file, entry.unit_id, entry.station, without=entry)
    if not before and entry.facts and entry.facts.get("from_here"):
        return
    put_in, taken_out = _difference(before, now)
    swap(file.job.workshop, put_in=put_in, taken_out=taken_out)


def _difference(
    pack: Sequence[Fitted], before: Sequence[Fitted]
) -> tuple[list[Fitted], list[Fitted]]:
    """What must be put in and what taken out to come from one pack to another."""
    left = list(before)
    put_in: list[Fitted] = []
    for shim in pack:
        same = next((old for old in left if old.thickness_mm == shim.thickness_mm), None)
        if same:
            left.remove(same)
        else:
            put_in.append(shim)
    return put_in, left
