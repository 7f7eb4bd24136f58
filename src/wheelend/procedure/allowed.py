"""What a row of the log may hold: range, unit, places and count, declared once for every writer.

Forms, imports, gauges and practice ask here, and so does the log itself.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from fractions import Fraction
from typing import Any

from wheelend.arrangements import Step
from wheelend.arrangements.model import EVERY_CLAMP
from wheelend.arrangements.vocabulary import BY_NUT
from wheelend.card import CHOICES, Card
from wheelend.card.figures import FigureOf, ShortText
from wheelend.card.model import aim_of
from wheelend.choices import check_choice
from wheelend.diagnose import Answer, Case, table
from wheelend.diagnose.gauged import dimension_of
from wheelend.diagnose.table import Check
from wheelend.errors import BadInput, echo
from wheelend.procedure.asking import band, level, standing, turns, warmth
from wheelend.procedure.asking.apart import again_at, base_of
from wheelend.procedure.asking.measured import places_of
from wheelend.procedure.figures import (
    FIGURES,
    MOST_CLOSINGS,
    MOST_IN_PACK,
    MOST_ROUNDS,
    PART_LENGTH,
    SHIM,
    WARMTH,
)
from wheelend.procedure.items.frame import detail_of
from wheelend.procedure.log import (
    FINDINGS,
    MARKS,
    NEEDS_REASON,
    PLAIN_KINDS,
    Instrument,
    Written,
    aspect_of,
)
from wheelend.quantity import FORCE, TEMPERATURE, is_of
from wheelend.readers import Day, Flag, Json, Number, Record, Word

_KEPT_TO = {"mm": 1e-5, "N_m": 1e-6}
"""How finely a number is kept beside what was typed; other dimensions to a thousandth."""

KINDS: Mapping[str, frozenset[str]] = {
    "text": frozenset({"text"}),
    "usage": frozenset({"value"}),
    "tick": frozenset({"done"}),
    "sign": frozenset(),
    "pick": frozenset({"pick"}),
    "opening": frozenset({"pick"}),
    "second": frozenset({"pick"}),
    "dial": frozenset({"pick"}),
    "pack": frozenset({"pack"}),
    "refit": frozenset({"pack"}),
    "torque": frozenset({"value"}),
    "place": frozenset({"value"}),
    "seat": frozenset({"value"}),
    "series": PLAIN_KINDS | FINDINGS | MARKS,
    "bolts": frozenset({"bolt", "moved", "few"}),
    "checks": frozenset({"found", "value", "done"}),
    "list": frozenset({"noted", "done"}),
    "photo": frozenset({"photo", "done"}),
    "measure": frozenset({"value", "done"}),
    "warmth": frozenset({"value", "pick", "done"}),
    "level": frozenset({"pick", "done"}),
    "band": frozenset({"value", "pick"}),
    "stand_out": frozenset({"value"}),
    "turns": frozenset({"pick", "done"}),
}
"""The kinds of row that answer each kind of step."""

FACTS = Record(
    {},
    {
        "name": ShortText(60),
        "kind": Word(("dial", "wrench", "torque_meter", "thermometer", "scale", "feeler")),
        "dial_at": Word(tuple(CHOICES["dial_at"].options)),
        "turned": Flag(),
        "lengthened": Flag(),
        "from_here": Flag(),
        "resolution": ShortText(40),
        "resolution_mm": Number(least=0.00001, most=10),
        "calibration_mm": Number(least=0, most=10),
        "step": Number(least=0.00001, most=10_000),
        "doubt": Number(least=0, most=10_000),
        "accuracy": Number(least=0, most=10),
        "low_N_m": Number(least=0, most=1e6),
        "high_N_m": Number(least=0, most=1e6),
        "multiplier": Number(least=1, most=1000),
        "cycles": Number(least=0, most=1e9),
        "used_on": Day(),
        "calibrated_on": Day(),
    },
)
"""What may be known of an instrument and its set-up when something was read with it."""

_WITHOUT_STEP = {"choice": "choice", "card": "card", "reopen": "touched"}
_LAPS = 200


def check_facts(facts: Json) -> None:
    """Raise BadInput for figures that no instrument has."""
    FACTS.read(facts, "facts")
    _ = Instrument("", facts).wrench


def check_row(card: Card, row: Written) -> None:
    """Raise BadInput, with the field, where a unit's page could not be shown with a row.

    A step that the arrangement does not know is history: only its sizes are looked at.
    """
    _check_sizes(row)
    if row.step in _WITHOUT_STEP:
        _check_without_step(card, row)
        return
    step = next((one for one in card.arrangement.steps if one.id == row.step), None)
    if step is None or row.kind == "withdrawn":
        return
    _check_where(card, step, row)
    if row.kind == "skip":
        if not step.skippable:
            raise BadInput("kind", echo(row.kind), "can't be: this step is never left out")
        return
    if row.kind not in KINDS[step.entry]:
        known = ", ".join(sorted(KINDS[step.entry])) or "nothing"
        raise BadInput("kind", echo(row.kind), f"does not answer this step; give {known}")
    _check_place(card, step, row)
    _check_answer(step, row)


def check_log(cards: Mapping[int | None, Card], rows: Sequence[tuple[int | None, Written]]) -> None:
    """Raise BadInput, under `entries[n]`, for a log that could not have been written here.

    `rows` are in the order in which they were written, each with its unit; `cards` has each unit's
    card, and under None the one by which what is asked once a job is looked at.
    """
    known: dict[int, tuple[int | None, Written]] = {}
    opened: dict[tuple[int | None, str], int] = {}
    roots: set[tuple[object, ...]] = set()
    corrected: set[int] = set()
    for number, (unit, row) in enumerate(rows):
        try:
            check_row(cards[unit], row)
            _check_link(unit, row, known, roots, corrected)
            _check_closing(cards[unit], unit, row, opened)
        except BadInput as bad:
            raise bad.under(f"entries[{number}]") from None
        known[row.id] = (unit, row)


def _place_of(unit: int | None, row: Written) -> tuple[object, ...]:
    aspect = aspect_of(row.kind)
    return unit, row.clamp, row.closing, row.round, row.step, row.station, row.place, aspect


def _check_link(
    unit: int | None,
    row: Written,
    known: Mapping[int, tuple[int | None, Written]],
    roots: set[tuple[object, ...]],
    corrected: set[int],
) -> None:
    """One root a place, one successor a row, and both at the same place."""
    if row.kind in NEEDS_REASON and not row.reason:
        raise BadInput("reason", "", "is missing; say why it was taken back, left out or chosen")
    if row.corrects is None:
        place = _place_of(unit, row)
        if place in roots:
            raise BadInput("place", echo(row.place), "is taken: its place has a row already")
        roots.add(place)
        return
    if row.corrects not in known:
        raise BadInput("corrects", "", "points at a row that does not stand earlier")
    before_unit, before = known[row.corrects]
    same = _place_of(unit, row)[:-1] == _place_of(before_unit, before)[:-1]
    if not same or row.corrects in corrected:
        raise BadInput("corrects", "", "points at another place, or a row corrected before")
    if not row.reason:
        raise BadInput("reason", "", "is missing; say why it was corrected")
    corrected.add(row.corrects)


def _check_closing(
    card: Card, unit: int | None, row: Written, opened: dict[tuple[int | None, str], int]
) -> None:
    """No row belongs to a closing that nothing has opened yet."""
    clamps = {clamp.key: clamp for clamp in card.arrangement.clamps}
    if row.clamp in clamps:
        mine = {EVERY_CLAMP, row.clamp, clamps[row.clamp].ends_with} - {""}
        most = sum(opened.get((unit, one), 0) for one in mine)
        if row.closing > most:
            raise BadInput("closing", str(row.closing), f"was not opened yet; it is in {most}")
    step = next((one for one in card.arrangement.steps if one.id == row.step), None)
    if step and step.opens and row.kind not in ("skip", "withdrawn") and row.corrects is None:
        opened[unit, row.clamp] = opened.get((unit, row.clamp), 0) + 1


def figure_of(step: Step, place: str = "", typed: str = "") -> FigureOf:
    """What a step takes, at a place of a check where it is one. Raises BadInput for no place.

    A swing is typed as torque or as the force of a string: by its unit.
    """
    if step.entry == "band":
        forces = bool(typed) and is_of(typed, FORCE)
        return FIGURES["arm" if place == "radius" else "pull" if forces else "turning"]
    if step.entry == "measure" and step.figure:
        return FIGURES[step.figure]
    if step.entry != "checks":
        return FIGURES[step.entry]
    return WARMTH if dimension_of(measured_check(place)) is TEMPERATURE else FIGURES["series"]


def measured_check(place: str) -> Check:
    """The check that is measured at a place such as `face_runout.12`. Raises BadInput for none."""
    name, _, where = place.partition(".")
    found = next((one for one in table().checks if one.id == name and where in one.places), None)
    if found is None:
        raise BadInput("place", echo(place), "is no place of a check that is measured")
    return found


def check_number(step: Step, typed: str, value: float | Fraction | None, place: str = "") -> None:
    """Raise BadInput where a typed quantity is not what a step takes, or means another number."""
    reader = figure_of(step, place, typed)
    if step.entry == "stand_out" and place in standing.BLADES:
        exact = float(standing.blades(typed))
    else:
        exact = float(reader.read(typed, "typed").exact)
    kept = _KEPT_TO.get(reader.dimension.suffix, 1e-3)
    if value is None or abs(exact - float(value)) > kept:
        raise BadInput("value", echo(value), f"is not what {echo(typed)} means")


def check_pack(thicknesses: tuple[float, ...]) -> None:
    """Raise BadInput for a pack that nobody fits."""
    if len(thicknesses) > MOST_IN_PACK:
        need = f"shims are too many for one pack; give at most {MOST_IN_PACK}"
        raise BadInput("pack", str(len(thicknesses)), need)
    for one in thicknesses:
        if not SHIM.least <= one <= SHIM.most:
            need = f"is no shim; give {SHIM.least:g} to {SHIM.most:g} mm, e.g. 0.10 mm"
            raise BadInput("pack", f"{one:g} mm", need)


def _check_sizes(row: Written) -> None:
    for name, value, least, most in (
        ("round", row.round, 1, MOST_ROUNDS),
        ("closing", row.closing, 0, MOST_CLOSINGS),
    ):
        if not least <= value <= most:
            raise BadInput(name, str(value), f"is not {least} to {most}")
    check_pack(row.pack[0] if row.pack else ())
    if row.instrument:
        check_facts(dict(row.instrument.facts))


def _check_without_step(card: Card, row: Written) -> None:
    if row.kind not in (_WITHOUT_STEP[row.step], "withdrawn"):
        raise BadInput("kind", echo(row.kind), f"is not {_WITHOUT_STEP[row.step]}")
    if row.kind != "choice":
        return
    choice = CHOICES.get(row.place)
    if choice is None:
        raise BadInput("place", echo(row.place), "is no choice of a card")
    if choice.length and row.typed not in choice.options:
        aim_of(row.typed)
    else:
        check_choice(row.place, row.typed, "typed")
    check_possible(card, row.place, row.typed)


def check_possible(card: Card, choice: str, value: str) -> None:
    """Raise BadInput where a card has not what a choice needs."""
    by_play = any(one.method in BY_NUT for one in card.settings)
    if choice == "lock_policy" and value in ("nearest_within", "loosen_to_next") and not by_play:
        need = "A torqued nut is never loosened to find a place; only one that is set by play may go back"
        raise BadInput("typed", "", need)
    able = any(one.torque_window and one.torque_per_deg for one in card.settings)
    if (choice, value) == ("lock_policy", "torque_window") and not able:
        raise BadInput("typed", "", "The card gives no torque window; a lead can add one")


def _check_where(card: Card, step: Step, row: Written) -> None:
    if step.per != "station":
        stations: tuple[str, ...] = ("",)
    elif not step.clamp or "{" in step.clamp or step.clamp == EVERY_CLAMP:
        stations = card.arrangement.stations
    else:
        stations = card.arrangement.clamp(step.clamp).stations
    if row.station not in stations:
        known = ", ".join(one or "none" for one in stations)
        raise BadInput("station", echo(row.station), f"is not where this is asked; give {known}")
    # Not only the step's own: an arrangement may have said otherwise when the row was written.
    clamps = ("", EVERY_CLAMP, *(clamp.key for clamp in card.arrangement.clamps))
    if row.clamp not in clamps:
        raise BadInput("clamp", echo(row.clamp), f"is no clamp here; give {', '.join(clamps[1:])}")


def _check_place(card: Card, step: Step, row: Written) -> None:
    if row.kind in PLAIN_KINDS or (row.kind == "again" and row.place):
        if base_of(row.place) not in card.places or not _is_again(row.place):
            need = f"is no place that this card asks for; give {', '.join(card.places)}"
            raise BadInput("place", echo(row.place), need)
    elif row.kind in ("bolt", "moved"):
        _check_bolt(card, step, row.place)
    elif step.entry in _PLACES_OF or (
        row.kind == "value" and (step.places or step.entry == "checks")
    ):
        _check_measured(card, step, row.place)
    elif row.kind in ("noted", "photo"):
        _check_noted(row)
    elif row.kind == "found":
        Case((Answer(row.place, row.typed),))
    elif row.place:
        raise BadInput("place", echo(row.place), "stands where none is asked for; leave it out")


_PLACES_OF: Mapping[str, Callable[[str], bool]] = {
    "warmth": lambda place: place in warmth.places(),
    "level": lambda place: place in ("", *level.PLACES),
    "band": lambda place: place in ("", *band.PLACES),
    "stand_out": lambda place: place in standing.PLACES,
}
_ANSWERS_OF: Mapping[str, Iterable[str]] = {
    "warmth": warmth.ENDS,
    "level": ("done", *level.ANSWERS),
    "band": band.ANSWERS,
    "turns": tuple(turns.WAYS),
}


def _check_measured(card: Card, step: Step, place: str) -> None:
    if step.entry == "checks":
        measured_check(place)
        return
    if step.entry in _PLACES_OF:
        if not _PLACES_OF[step.entry](place):
            raise BadInput("place", echo(place), "is not asked for here")
        return
    known = dict.fromkeys((*step.places, *places_of(step, card)))
    if place not in known:
        raise BadInput("place", echo(place), f"is no place of this step; give {', '.join(known)}")


def _check_noted(row: Written) -> None:
    """An item of a list is named, and answered; which items there are may change with the card."""
    plain = row.place.isascii() and row.place.replace("_", "").isalnum()
    if not plain:
        raise BadInput("place", echo(row.place), "is no item of a list")
    if not row.typed:
        raise BadInput("typed", "", "is missing; an item of a list is answered")


def _is_again(place: str) -> bool:
    times = range(1, MOST_ROUNDS)
    return place == base_of(place) or any(place == again_at(place, one) for one in times)


def _check_bolt(card: Card, step: Step, place: str) -> None:
    ring = card.ring(step.ring)
    lap, _, bolt = place.partition(".")
    plain = all(one.isascii() and one.isdigit() and len(one) < 4 for one in (lap, bolt))
    if ring is None or not plain or not (0 < int(lap) <= _LAPS and 0 < int(bolt) <= ring.bolts):
        raise BadInput("place", echo(place), "is no round and bolt of this ring, such as 1.4")


def _check_answer(step: Step, row: Written) -> None:
    options = {option.key for option in step.options} | set(_ANSWERS_OF.get(step.entry, ()))
    if row.kind == "pick" and options and row.typed not in options:
        known = ", ".join(sorted(options))
        raise BadInput("typed", echo(row.typed), f"is not one of the answers; give {known}")
    if row.kind in ("value", *PLAIN_KINDS):
        check_number(step, row.typed, row.value, row.place)
    elif row.kind == "noted":
        if row.value is not None:
            PART_LENGTH.read(detail_of(row), "typed")
    elif row.value is not None:
        raise BadInput("value", str(row.value), "stands where no number is asked for")
    if step.entry == "dial" and row.typed not in ("hands", *CHOICES["dial_at"].options):
        raise BadInput("typed", echo(row.typed), "is no place for a dial")
    facts: Mapping[str, Any] = row.instrument.facts if row.instrument else {}
    if step.entry == "dial" and row.typed != "hands" and facts.get("kind") != "dial":
        raise BadInput("facts", "", "name no dial; judged by hand, the answer is hands")
    if (row.kind == "pack") != bool(row.pack):
        raise BadInput("shims", "", "belong to a pack, and a pack has them")
