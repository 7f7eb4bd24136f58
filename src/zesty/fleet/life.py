"""Parts with a limited life: what they have run, and the verbs that fit, take off and check them."""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from django.db import IntegrityError, transaction
from django.db.models import Prefetch

from wheelend.errors import BadInput
from wheelend.life import Event, Life, life
from wheelend.quantity import unit_of
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.fleet.models import LifeEvent, LifePart, WheelEnd
from zesty.people.models import User, Workshop


@dataclass(frozen=True)
class Shown:
    """A part as the page shows it: where it is, how far it has run, what is due."""

    part: LifePart
    where: WheelEnd | None
    life: Life

    @property
    def share(self) -> int:
        """How much of its life is gone, in per cent, at most 100."""
        limit = self.part.limit
        return min(100, round(100 * self.life.used / float(limit))) if limit else 0


def shown_parts(workshop: Workshop) -> tuple[Shown, ...]:
    """Every part of a workshop with what it has run, in a constant number of queries."""
    events = LifeEvent.objects.select_related("wheel_end__vehicle")
    found = LifePart.objects.filter(workshop=workshop).prefetch_related(
        Prefetch("events", events), "events__wheel_end__vehicle__usage_log"
    )
    return tuple(map(_shown, found))


def _shown(part: LifePart) -> Shown:
    events = list(part.events.all())
    on = _fitted_on(events)
    return Shown(part, on, _life(part, events, _counter(part, on)))


def _fitted_on(events: Iterable[LifeEvent]) -> WheelEnd | None:
    where = None
    for event in events:
        if event.kind != "checked":
            where = event.wheel_end if event.kind == "fitted" else None
    return where


def _counter(part: LifePart, on: WheelEnd | None) -> float | None:
    if on is None:
        return None
    read = [one for one in on.vehicle.usage_log.all() if one.unit == part.unit]
    return float(read[0].value) if read else None


def _life(part: LifePart, events: Iterable[LifeEvent], counter: float | None = None) -> Life:
    happened = [Event(one.kind, float(one.counter)) for one in events]
    last = max((one.counter for one in happened), default=0.0)
    return life(
        happened,
        limit=_plain(part.limit),
        check_every=_plain(part.check_every),
        counter=None if counter is None or counter < last else counter,
    )


def _plain(value: Decimal | None) -> float | None:
    return None if value is None else float(value)


def add_life_part(
    workshop: Workshop, *, serial: str, name: str, limit: Typed, check_every: Typed | None
) -> LifePart:
    """A part that has run nothing yet. Refused where the serial number is known, or the units differ."""
    unit = unit_of(limit.text)
    if check_every and unit_of(check_every.text) != unit:
        raise Refused(f"Its life is in {unit}; give the crack check in {unit} too.", "check_every")
    try:
        with transaction.atomic():
            return LifePart.objects.create(
                workshop=workshop, serial=serial, name=name, unit=unit, limit=limit.value,
                check_every=check_every.value if check_every else None,
            )  # fmt: skip
    except IntegrityError:
        raise Refused(f"Serial number {serial} is known already.", "serial") from None


@transaction.atomic
def write_event(
    workshop: Workshop, user: User, *, part: LifePart, kind: str, counter: Typed,
    wheel_end: WheelEnd | None = None,
) -> LifeEvent:  # fmt: skip
    """Fit a part, take it off, or note a crack check. Refused with the figure where its life is over."""
    part = LifePart.objects.select_for_update().get(workshop=workshop, pk=part.pk)
    if unit_of(counter.text) != part.unit:
        raise Refused(
            f"The life of {part} is in {part.unit}; give the counter in {part.unit}.", "counter"
        )
    before = list(part.events.select_related("wheel_end"))
    if kind == "fitted":
        _check_fitting(part, before, wheel_end)
    on = wheel_end if kind == "fitted" else _fitted_on(before)
    event = LifeEvent(
        workshop=workshop, part=part, kind=kind, wheel_end=on, typed=counter.text,
        counter=counter.value, by=user,
    )  # fmt: skip
    try:
        _life(part, [*before, event])
    except BadInput as bad:
        raise Refused(f"{part}: {bad.given} {bad.need}.", "counter") from None
    event.save()
    return event


def _check_fitting(part: LifePart, before: list[LifeEvent], wheel_end: WheelEnd | None) -> None:
    if wheel_end is None:
        raise Refused("Say where it is fitted.", "wheel_end")
    now = _life(part, before)
    if now.is_past:
        ran = f"{now.used:g} of {float(part.limit or 0):g} {part.unit}"
        raise Refused(
            f"{part} has run {ran}: its life is over, and it is not fitted again.", "part"
        )
    if now.check_is_due:
        ran = f"{now.since_check:g} {part.unit}"
        raise Refused(f"{part} has run {ran} since its crack check: check it first.", "part")
