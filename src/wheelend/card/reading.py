"""From a card document to a Card: read field by field, then checked as a whole."""

from dataclasses import replace
from typing import Any

from wheelend.arrangements import arrangement
from wheelend.card.fields import DOCUMENT, Field, field_at
from wheelend.card.model import (
    BoltRing,
    Card,
    FitOf,
    Hands,
    Heat,
    Lock,
    Lubricant,
    Part,
    Recheck,
    SealOf,
    Setting,
    Source,
    Wear,
    Window,
    aim_of,
)
from wheelend.choices import check_choice
from wheelend.circle import clock_angle
from wheelend.errors import BadInput, echo
from wheelend.readers import Flag, ListOf, Number, Record, Whole


def card_from(document: object) -> Card:
    """A card from its document. Raises BadInput that names the field by its path."""
    said = DOCUMENT.read(document, "")
    card = Card(
        name=said["name"],
        arrangement=arrangement(said["arrangement"]),
        sources=tuple(Source(**one) for one in said["sources"]),
        stack=tuple(Part(**{**one, "after": tuple(one.get("after", ()))}) for one in said["stack"]),
        settings=tuple(_setting(one, f"settings[{i}]") for i, one in enumerate(said["settings"])),
        bolt_rings=tuple(
            _ring(one, f"bolt_rings[{i}]") for i, one in enumerate(said.get("bolt_rings", []))
        ),
        hands=Hands(**said["hands"]) if "hands" in said else None,
        fits=tuple(FitOf(**one) for one in said.get("fits", ())),
        heat_limits=Heat(**said.get("heat_limits", {})),
        seals=tuple(_seal(one, f"seals[{i}]") for i, one in enumerate(said.get("seals", ()))),
        lubricant=Lubricant(**_with_windows(said.get("lubricant", {}), "lubricant")),
        wear=Wear(**said.get("wear", {})),
        kit=tuple(said.get("kit", ())),
        choices=said.get("choices", {}),
        facts=said.get("facts", {}),
        recheck=Recheck(**said.get("recheck", {})),
        second_person=said.get("second_person", False),
        unknown=tuple(said.get("unknown", ())),
        note=said.get("note", ""),
    )
    if "read_at" in said:
        card = replace(card, read_at=_clocks(said["read_at"]))
    _check(card)
    return card


def _setting(said: dict[str, Any], path: str) -> Setting:
    said = _with_windows(said, path)
    lock = Lock(**said.pop("lock", {}))
    _check_lock(lock, f"{path}.lock")
    if "aim" in said:
        try:
            aim_of(said["aim"])
        except BadInput as bad:
            raise bad.under(path) from None
    setting = Setting(**said, lock=lock)
    _check_steps(setting, path)
    return setting


def _seal(said: dict[str, Any], path: str) -> SealOf:
    seal = SealOf(**_with_windows(said, path))
    _checked(seal, f"{path}.depth_low")
    return seal


def _with_windows(said: dict[str, Any], path: str) -> dict[str, Any]:
    """What was read, each window of it as one. Raises BadInput where one is high first, or empty."""
    windows: dict[str, Any] = {name: Window(**said[name]) for name in _WINDOWS if name in said}
    for name, window in windows.items():
        _checked(window, f"{path}.{name}")
    return {**said, **windows}


def _checked(window: Window | SealOf, path: str) -> None:
    try:
        _ = window.limits
    except BadInput as bad:
        raise BadInput(path, bad.given, bad.need) from None


_WINDOWS = ("limits", "torque_limits", "drag", "drag_in_hub", "pull", "stand_out", "gap", "adds")


def _check_steps(setting: Setting, path: str) -> None:
    """Steps of a spacer that can't both hold."""
    first, most = setting.first_step, setting.max_step
    if first and most and first.exact > most.exact:
        need = f"is more than the largest change at once, {most}"
        raise BadInput(f"{path}.first_step", echo(first.text), need)


def _check_lock(lock: Lock, path: str) -> None:
    if lock.slots and lock.positions:
        raise BadInput(path, "", "has slots and positions; give slots with pin holes, or positions")
    if bool(lock.slots) != bool(lock.openings):
        raise BadInput(f"{path}.openings", "", "give slots and pin-hole mouths together")
    if lock.per_turn and not lock.pitch:
        raise BadInput(f"{path}.pitch", "", "is missing; the lock places need the thread's pitch")


def _ring(said: dict[str, Any], path: str) -> BoltRing:
    if "stages" in said:
        said["stages"] = tuple(said["stages"])
    ring = BoltRing(**said)
    try:
        _ = ring.passes
    except BadInput as bad:
        raise bad.under(path) from None
    return ring


def _clocks(read_at: list[str]) -> tuple[str, ...]:
    for index, clock in enumerate(read_at):
        try:
            clock_angle(clock)
        except BadInput as bad:
            raise BadInput(f"read_at[{index}]", bad.given, bad.need) from None
    return tuple(dict.fromkeys(clock.removesuffix(":00") for clock in read_at))


def _check(card: Card) -> None:
    for key, value in card.choices.items():
        check_choice(key, value, f"choices.{key}")
    sources = {source.key for source in card.sources}
    clamps = {clamp.set_by for clamp in card.arrangement.clamps}
    for index, setting in enumerate(card.settings):
        if setting.clamp not in clamps:
            known = ", ".join(sorted(clamps))
            raise BadInput(
                f"settings[{index}].clamp", echo(setting.clamp), f"is not one of {known}"
            )
        if setting.source and setting.source not in sources:
            raise BadInput(f"settings[{index}].source", echo(setting.source), "is not in sources")
    _check_stack(card)
    rings = {ring.key for ring in card.arrangement.rings}
    for index, ring in enumerate(card.bolt_rings):
        if ring.ring not in rings:
            known = ", ".join(sorted(rings))
            raise BadInput(f"bolt_rings[{index}].ring", echo(ring.ring), f"is not one of {known}")


def _check_stack(card: Card) -> None:
    names = [part.name for part in card.stack]
    for index, part in enumerate(card.stack):
        if part.bore and part.outside and part.bore.exact >= part.outside.exact:
            need = f"is not larger than the bore, {part.bore}"
            raise BadInput(f"stack[{index}].outside", echo(part.outside.text), need)
        for before in part.after:
            if before not in names:
                raise BadInput(f"stack[{index}].after", echo(before), "is not in the stack")
    for index, fit in enumerate(card.fits):
        _check_fit(card, f"fits[{index}]", fit)
    named = [(f"fits[{i}]", one.part) for i, one in enumerate(card.fits)]
    named += [(f"seals[{i}]", one.part) for i, one in enumerate(card.seals)]
    for path, name in named:
        if name not in names:
            raise BadInput(f"{path}.part", echo(name), "is not in the stack")


_NEAR = 0.02
"""No seat differs from its ring by more than this share: it was mistyped."""


def _check_fit(card: Card, path: str, fit: FitOf) -> None:
    """A ring that can't sit where the card says it does."""
    ring = next((part for part in card.stack if part.name == fit.part), None)
    size = (ring.outside if fit.on == "housing" else ring.bore) if ring else None
    if size is None:
        return
    for name in ("seat_low", "seat_high"):
        seat = getattr(fit, name)
        if seat and abs(seat.value - size.value) > size.value * _NEAR:
            need = f"is no seat for a ring of {size}; was a digit or the point lost?"
            raise BadInput(f"{path}.{name}", echo(seat.text), need)
    if fit.on == "housing" and fit.around and fit.around.exact <= size.exact:
        need = f"is not larger than the ring, {size}; the outside of the housing round it is meant"
        raise BadInput(f"{path}.around", echo(fit.around.text), need)


def value_from(path: str, typed: str) -> Any:
    """What a person typed for a field, as a document has it; None for nothing.

    A bare number takes the field's unit. Raises BadInput that says what would do.
    """
    field = field_at(path)
    text = " ".join(typed.split())
    if isinstance(field.reader, Flag):
        return text in ("yes", "on", "true")
    if not text:
        return None
    if field.is_window:
        return _window_from(field, path, text)
    value = _plain_from(field, path, text)
    field.reader.read(value, "")
    return value


def _plain_from(field: Field, path: str, text: str) -> Any:
    value: Any = text
    if isinstance(field.reader, ListOf):
        value = [one.strip() for one in text.split(",") if one.strip()]
        if isinstance(field.reader.item, Record):
            raise BadInput(path, "", "holds records; change one of them")
    elif isinstance(field.reader, Whole):
        value = int(text) if text.isascii() and text.isdigit() and len(text) < 7 else text
    elif isinstance(field.reader, Number):
        value = float(text) if text.replace(".", "", 1).isdecimal() and text.isascii() else text
    elif field.unit and text[-1:].isdigit():
        value = f"{text} {field.unit}"
    if field.key == "stages":
        value = [float(one) if one.replace(".", "", 1).isdigit() else one for one in value]
    return value


def _window_from(field: Field, path: str, text: str) -> dict[str, str]:
    """A least and a most typed as one; a unit at its end is that of both."""
    low, to, high = (part.strip() for part in text.partition(" to "))
    if not to or not low or not high:
        need = f"needs the least and the most, such as 0.5 to 1.1 {field.unit}"
        raise BadInput(path, echo(text), need.rstrip())
    if high[-1:].isdigit():
        high = f"{high} {field.unit}"
    if low[-1:].isdigit():
        low = f"{low} {high.split(maxsplit=1)[-1]}"
    window = {"low": low, "high": high}
    field.reader.read(window, "")
    return window
