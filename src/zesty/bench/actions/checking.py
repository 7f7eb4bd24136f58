"""What may be written at a step, and what is asked about first. The rules themselves are the core's."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils import timezone

from wheelend.methods.shims import ShimsJudgement
from wheelend.procedure import benchslips, setslips, slips
from wheelend.procedure.asking import band
from wheelend.procedure.asking.bolts import ringed
from wheelend.procedure.asking.readings import ReadingsAsked
from wheelend.procedure.items import items_of
from wheelend.procedure.locking import step_deg
from wheelend.procedure.log import Instrument as CoreInstrument
from wheelend.procedure.progress import Row
from wheelend.procedure.slips import Question
from zesty.bench.queries.jobfile import JobFile, UnitFile
from zesty.elements.refused import Refused
from zesty.fleet.life import refuse_past
from zesty.stores.queries import facts_of

if TYPE_CHECKING:
    from zesty.bench.actions.log import Say


_FITS_PARTS = frozenset({"matched", "laid_out"})
"""Lists in which a part is named that will be fitted."""


def check(unit: UnitFile, row: Row, say: Say, place: str) -> None:
    """Raise Refused where a row may not be written at a step."""
    if row.waits_for and say.kind != "skip":
        first = row.waits_for[0]
        raise Refused(f"Not yet. First: {first.asks[0].lower()}{first.asks[1:]}")
    over = row.state == "past" and not (row.step.opens or row.step.remedy)
    if over or (row.step.phase == "final" and unit.progress.phase == "trial"):
        raise Refused("This belongs to another part of the work; look at the page again.")
    if row.at.clamp and say.closing is not None and say.closing != row.at.closing:
        raise Refused("It was opened since this page was shown: look at what is due now.", "value")
    rules = {
        "series": _reading,
        "bolts": _bolt,
        "place": _place,
        "pack": _pack,
        "refit": _pack,
        "list": _list,
        "stand_out": _blades,
        "band": _swing,
    }
    rule = rules.get(row.step.entry)
    if rule and say.kind != "skip":
        rule(unit, row, say, place)
    if say.kind == "noted" and row.step.kind in _FITS_PARTS and " " in say.typed:
        refuse_past(unit.unit.workshop_id, say.typed.partition(" ")[2])
    options = {option.key for option in row.step.options}
    if say.kind == "pick" and options and say.typed not in options:
        raise Refused(f"“{say.typed}” is not one of the answers here.")
    if row.step.kind == "second" and say.kind == "pick":
        _second(unit, say)


def _blades(_: UnitFile, row: Row, say: Say, place: str) -> None:
    wrong = setslips.exchanged(row.at, place, float(say.value or 0))
    if wrong:
        raise Refused(wrong, "value")


def _swing(_: UnitFile, row: Row, say: Say, place: str) -> None:
    wrong = band.mixed(row.at, place, say.typed) if say.kind == "value" else ""
    if wrong:
        raise Refused(wrong, "value")


def _list(_: UnitFile, row: Row, say: Say, _place: str) -> None:
    """A list is not closed over what stops it."""
    held = next((one.held for one in items_of(row.at) if one.held), "")
    if say.kind == "done" and held:
        raise Refused(held)


def _reading(_: UnitFile, row: Row, say: Say, place: str) -> None:
    slot = row.slot
    now = ReadingsAsked().series(row.at)
    if say.round is not None and say.round != slot.round:
        raise Refused("Another series was begun since this page was shown: look again.", "value")
    if say.kind in ("in", "out"):
        if place not in now.places:
            raise Refused(
                f"“{place}” is no place that this card asks for: {', '.join(now.places)}."
            )
        if now.finding:
            raise Refused(
                f"“{now.finding.kind.replace('_', ' ')}” was written for this pack; take it back first."
            )
        expected = (slot.place, slot.push)
        if (
            say.place is not None
            and (place, say.kind) != expected
            and (place, say.kind) in now.readings
        ):
            standing = now.readings[place, say.kind]
            raise Refused(
                f"{standing.by_name} wrote {standing.typed} there already. Tap it to correct it.",
                "value",
            )
    if say.instrument is None and say.kind in ("in", "out"):
        raise Refused("Say first which dial it is, and where it stands.")


def _bolt(_: UnitFile, row: Row, say: Say, place: str) -> None:
    found = ringed(row.at)
    if found is None or (found.lap == 0 and say.kind != "few"):
        raise Refused("All bolts of this ring are done.")
    if say.kind == "few":
        if not row.step.rough:
            raise Refused("Here all bolts are drawn down.")
        return
    due = f"{found.lap}.{found.due}"
    if place != due:
        lap, _, bolt = place.partition(".")
        raise Refused(
            f"Not bolt {bolt} of round {lap}: bolt {found.due} of round {found.lap} is next."
        )
    if say.kind == "moved" and not found.checking:
        raise Refused("Whether a bolt still moves is asked in the last round.")


def _place(unit: UnitFile, row: Row, say: Say, _: str) -> None:
    step = step_deg(unit.progress, row.at.clamp)
    if step and say.value is not None and say.value >= step:
        raise Refused(
            f"{say.typed} is not below the step of {float(step):g} deg between places.", "value"
        )


def _pack(_: UnitFile, row: Row, say: Say, __: str) -> None:
    most = row.at.setting.max_shims
    if len(say.shims) > most:
        raise Refused(
            f"{len(say.shims)} shims are more than the {most} that the card allows.", "pack"
        )


def _second(unit: UnitFile, say: Say) -> None:
    if say.saw is not None and say.saw != unit.progress.digest:
        raise Refused(
            "Something was written since this page was shown: look at it, then check again."
        )
    if not unit.progress.of_kind("lock"):
        return
    open_locks = [row for row in unit.progress.of_kind("lock") if row.state != "done"]
    if open_locks:
        raise Refused("There is nothing to check yet: the nut is not locked.")


def question(file: JobFile, unit: UnitFile, row: Row, say: Say, place: str) -> Question | None:
    """What is asked about a value that is not likely, or None."""
    if say.kind in ("in", "out"):
        return _of_reading(file, unit, row, say, place)
    if say.kind == "pack":
        return _of_pack(unit, say)
    if say.kind != "value" or say.value is None:
        return None
    rules = {
        "torque": lambda value: setslips.of_nut_torque(say.typed, row.at),  # noqa: ARG005
        "band": lambda value: setslips.of_swing(say.typed, row.at, place),  # noqa: ARG005
        "stand_out": lambda value: setslips.of_stand_out(say.typed, row.at, place),  # noqa: ARG005
        "seat": lambda value: slips.of_move(say.typed, float(value)),
        "usage": lambda value: _of_usage(file, say.typed, float(value)),
        "warmth": lambda value: benchslips.of_temperature(say.typed, row.at, place),  # noqa: ARG005
        "measure": lambda value: _of_measure(row, say.typed, place),  # noqa: ARG005
    }
    rule = rules.get(row.step.entry)
    if row.step.entry == "torque" and not row.step.figure:
        return None
    return rule(say.value) if rule else None


def _of_measure(row: Row, typed: str, place: str) -> Question | None:
    if row.step.kind == "turned_back":
        return setslips.of_turn_back(typed, row.at)
    if row.step.kind in ("spacer", "spacer_pair", "spacer_fit"):
        return setslips.of_spacer(typed, row.at, place)
    if row.step.kind == "seal_level":
        return benchslips.of_depth(typed, row.at)
    return benchslips.of_mass(typed, row.at, place) if row.step.kind == "weighed" else None


def _of_reading(file: JobFile, unit: UnitFile, row: Row, say: Say, place: str) -> Question | None:
    tool = None
    if say.instrument:
        tool = CoreInstrument(say.instrument.name, facts_of(say.instrument, file.today))
    series = ReadingsAsked().series(row.at)
    found = unit.judgement
    expected = found.found.expected if isinstance(found, ShimsJudgement) else None
    return slips.of_reading(say.typed, series, place, say.kind, row.at.setting, tool, expected)


def _of_pack(unit: UnitFile, say: Say) -> Question | None:
    usual = [float(shim.thickness_mm) for shim in unit.loose]
    usual += [one for row in unit.progress.standing for side in row.pack for one in side]
    asked = (slips.of_shim(shim.typed, usual) for shim in say.shims if shim.shim_id is None)
    return next((one for one in asked if one), None)


def _of_usage(file: JobFile, typed: str, value: float) -> Question | None:
    last = file.job.vehicle.usage_log.filter(unit=typed.rpartition(" ")[2]).first()
    if last is None:
        return None
    days = (timezone.localdate() - last.on).days
    return slips.of_usage(typed, value, float(last.value), days)
