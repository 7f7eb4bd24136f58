"""Which form answers which kind of step."""

from collections.abc import Callable
from typing import Any

from wheelend.procedure.progress import Row
from zesty.bench.forms.lists import FoundForm, ListedForm
from zesty.bench.forms.say import SayForm
from zesty.bench.forms.setting import BandForm, StandOutForm, TurnsForm
from zesty.bench.forms.steps import (
    AngleForm,
    BoltForm,
    DialForm,
    FindingForm,
    LevelForm,
    MeasureForm,
    PackForm,
    PickForm,
    ReadingForm,
    SecondForm,
    TextForm,
    TickForm,
    TorqueForm,
    UsageForm,
    WarmthForm,
)
from zesty.bench.queries.jobfile import JobFile, UnitFile

FORMS: dict[str, type[SayForm]] = {
    "text": TextForm,
    "usage": UsageForm,
    "tick": TickForm,
    "pick": PickForm,
    "opening": PickForm,
    "second": SecondForm,
    "dial": DialForm,
    "pack": PackForm,
    "refit": PackForm,
    "torque": TorqueForm,
    "place": AngleForm,
    "seat": AngleForm,
    "series": ReadingForm,
    "bolts": BoltForm,
    "checks": FoundForm,
    "list": ListedForm,
    "photo": TickForm,
    "measure": MeasureForm,
    "warmth": WarmthForm,
    "level": LevelForm,
    "band": BandForm,
    "stand_out": StandOutForm,
    "turns": TurnsForm,
}


def form_for(
    file: JobFile, unit: UnitFile, row: Row, data: Any = None, initial: dict[str, Any] | None = None
) -> SayForm | None:
    """The form of a step, or None where a stage has its own."""
    made: Callable[..., SayForm] | None = FORMS.get(row.step.entry)
    if data is not None and row.step.entry == "series" and data.get("finding"):
        made = FindingForm
    if made is None:
        return None
    return made(data, file=file, unit=unit, row=row, initial=initial or {})
