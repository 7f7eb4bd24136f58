"""Parts with a limited life: what they have run, and the verbs that fit, take off and check them."""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from django.db import IntegrityError, transaction
from django.db.models import Prefetch
from django.db.models.functions import Upper

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
    return _shown_of(workshop.pk)


def _shown_of(workshop_id: int) -> tuple[Shown, ...]:
    events = LifeEvent.objects.select_related("wheel_end__vehicle")
    found = LifePart.objects.filter(workshop_id=workshop_id).prefetch_related(
        Prefetch("events", events), "events__wheel_end__vehicle__usage_log"
    )
    return tuple(map(_shown, found))


def _shown(part: LifePart) -> Shown:
    events = list(part.events.all())
    on = _fitted_on(events)
    return Shown(part, on, _life(part, events, _counter(part, on)))


def due_by_vehicle(workshop: Workshop) -> dict[int, tuple[str, ...]]:
    """What is due of the parts that are fitted, a sentence each, by vehicle."""
    found: dict[int, tuple[str, ...]] = {}
    for one in shown_parts(workshop):
        words = _due_words(one)
        if one.where and words:
            found[one.where.vehicle_id] = (*found.get(one.where.vehicle_id, ()), words)
    return found


def _due_words(one: Shown) -> str:
    if one.life.is_past:
        return f"{one.part}: its life is over"
    return f"{one.part}: crack check due" if one.life.check_is_due else ""


def refuse_past(workshop_id: int, words: str) -> None:
    """Refused, with the figure, where one of some words is the serial number of a part that may not be
    fitted."""
    serials = {word.strip(".;()").upper() for word in words.replace(",", " ").split()}
    known = LifePart.objects.annotate(upper=Upper("serial"))
    for part in known.filter(workshop_id=workshop_id, upper__in=serials):
        _check_life(part, list(part.events.select_related("wheel_end")))


def parts_on(wheel_ends: Iterable[WheelEnd]) -> tuple[Shown, ...]:
    """The parts with a limited life that are fitted on some wheel ends."""
    ends = list(wheel_ends)
    wanted = {end.pk for end in ends}
    if not ends:
        return ()
    shown = _shown_of(ends[0].workshop_id)
    return tuple(one for one in shown if one.where and one.where.pk in wanted)


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
    _check_life(part, before)


def _check_life(part: LifePart, before: list[LifeEvent]) -> None:
    now = _life(part, before)
    if now.is_past:
        ran = f"{now.used:g} of {float(part.limit or 0):g} {part.unit}"
        raise Refused(
            f"{part} has run {ran}: its life is over, and it is not fitted again.", "part"
        )
    if now.check_is_due:
        ran = f"{now.since_check:g} {part.unit}"
        raise Refused(f"{part} has run {ran} since its crack check: check it first.", "part")
