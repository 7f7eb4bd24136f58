"""The wheel end of a unit as the section drawing wants it."""

from dataclasses import replace

from wheelend import wording
from wheelend.endplay import EndPlay
from wheelend.methods.drag import DragJudgement
from wheelend.methods.reading import read_in, set_closing
from wheelend.methods.shims import ShimsJudgement
from zesty.bench.queries.jobfile import UnitFile
from zesty.cards.drawing import NARROW, parts_of
from zesty.drawings.section import Part, SectionView, section


def section_view(
    unit: UnitFile, *, lit: str = "", push: str = "", end: str = "", play: bool = True
) -> SectionView:
    """The unit with the pack that is in, and what was measured on it."""
    lead = unit.lead
    other: wording.Lead = "inch" if lead == "metric" else "metric"
    measured, step = _measured(unit) if play else (None, 0.01)
    packs = fitted(unit)
    torque = unit.card.setting.torque
    return SectionView(
        shape=unit.card.arrangement.drawing,
        parts=_parts(unit),
        shims_mm=packs[0] if packs else (),
        right_mm=packs[1] if len(packs) > 1 else (),
        shim_names=tuple(
            (one, unit.names[one]) for one in dict.fromkeys(sum(packs, ())) if one in unit.names
        ),
        play=wording.length(measured.play_mm, step, lead) if measured else "",
        play_other=f"{wording.length(measured.play_mm, step, other)} end play" if measured else "",
        nut=wording.figure(torque.text, torque.value, "torque", lead) if torque else "",
        lit=lit,
        push=push,
        end=end,
        has_packs=unit.card.has_packs,
    )


def _parts(unit: UnitFile) -> tuple[Part, ...]:
    """The card's stack, with the shim that is in as it was measured."""
    judgement = unit.judgement
    measured = judgement.found.measured_mm if isinstance(judgement, DragJudgement) else {}
    return tuple(
        replace(part, width_mm=round(measured[part.kind], 3)) if part.kind in measured else part
        for part in parts_of(unit.card)
    )


def _measured(unit: UnitFile) -> tuple[EndPlay | None, float]:
    """The end play that was read last, and the step of its gauge in mm."""
    judgement = unit.judgement
    if isinstance(judgement, ShimsJudgement):
        last = judgement.found.last
        return judgement.found.play, last.gauge.resolution if last else 0.01
    progress = unit.progress
    read = read_in(progress, "locked_reading", progress.setting_closing) or read_in(
        progress, "reading", set_closing(progress)
    )
    return (read.play, read.series.gauge.resolution) if read else (None, 0.01)


def fitted(unit: UnitFile) -> tuple[tuple[float, ...], ...]:
    """The pack that was fitted last at each station of the setting's clamp."""
    rows = unit.progress.entries_of("pack")
    latest = {row.station: row.pack[0] for row in rows if row.pack}
    stations = unit.card.arrangement.setting_clamp.stations
    return tuple(latest.get(station, ()) for station in stations) if latest else ()


def drawn(view: SectionView) -> tuple[str, str]:
    """The section, wide and narrow."""
    return section(view), section(view, width=NARROW, narrow=True)
