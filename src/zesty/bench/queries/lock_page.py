"""The torque and lock stage."""

from dataclasses import dataclass, replace

from wheelend.wording import both, mm, torque
from zesty.bench.models import LockRecord
from zesty.bench.queries.jobfile import JobFile
from zesty.bench.queries.set_page import fitted_pack, section_view
from zesty.bench.queries.stages import Head, head
from zesty.drawings.section import section


@dataclass(frozen=True)
class LockPage:
    """Everything that the torque and lock stage shows."""

    head: Head
    before: str
    key: str
    after: str
    why: str
    records: tuple[LockRecord, ...]
    locked_pack: str
    drawings: dict[str, str]


def lock_page(file: JobFile) -> LockPage:
    """The torque and lock stage of a job as it stands."""
    found = file.assess()
    version = file.job.card_version
    key = torque(float(version.nut_torque_N_m))
    after = f", then lock it: {version.lock}."
    before = "Torque the nut to"
    why = "The setting counts at this torque only. Never loosen the nut to find the hole."
    if file.lock and file.lock.done:
        before, key = "Locked at", torque(float(file.lock.torque_N_m))
        after = ". Read once more, locked."
        why = (
            f"{file.lock.lock}, written by {file.lock.by}. Only a reading after the lock proves it."
        )
        if file.read_after_lock:
            after, why = " and read again. Go on to close.", f"{file.lock.lock}, {file.lock.by}."
    elif not found.is_set:
        why = "The setting is not proven yet: what you write here counts, the sheet will say so. "
        if found.play and found.setting.now:
            step = found.setting.now.gauge.resolution
            why += f"Play was {both(found.play.play_mm, step)} ± {mm(found.play.U_mm, step)}."
    view = replace(section_view(file, found), lit="nut", play="")
    drawings = {
        "section": section(view),
        "section_narrow": section(view, width=358, narrow=True),
    }
    return LockPage(
        head=head(file, "lock", found),
        before=before,
        key=key,
        after=after,
        why=why,
        records=file.lock_records,
        locked_pack=fitted_pack(file),
        drawings=drawings,
    )
