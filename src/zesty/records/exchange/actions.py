"""Bringing a job in from a document.

What comes in vouches for nothing here: names stay names, signatures are shown as from elsewhere,
instruments are the frozen figures of their entries, and nothing of ours is changed.
"""

from collections.abc import Mapping
from datetime import datetime
from decimal import Decimal, InvalidOperation
from fractions import Fraction
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Max
from django.template.loader import render_to_string

import wheelend
from wheelend.arrangements import arrangement
from wheelend.card import Card
from wheelend.errors import BadInput
from wheelend.procedure.log import aspect_of
from zesty.bench.actions.elsewhere import Coming, bring_in
from zesty.bench.actions.jobs import hold_numbers
from zesty.bench.actions.photos import keep_photo
from zesty.bench.models import MOST_VALUE, Entry, Job, Unit, UnitPlace
from zesty.bench.queries.jobfile import JobFile, file_of, judging
from zesty.cards.actions import new_card
from zesty.cards.models import CardVersion, SpecCard
from zesty.cards.queries import card_of_version
from zesty.elements.pictures import picture_of
from zesty.elements.refused import Refused, Unjudged
from zesty.fleet.actions import add_vehicle
from zesty.fleet.models import DECK, Vehicle, WheelEnd
from zesty.people.models import User, Workshop
from zesty.records.exchange.documents import Json
from zesty.records.exchange.jobs import PLAIN, USUAL
from zesty.records.models import SignOff, Statement
from zesty.records.queries import sheet_context
from zesty.stores.actions import Fitted


@transaction.atomic
def import_job(
    workshop: Workshop, user: User, document: Json, said: Json,
    photos: Mapping[int, bytes] | None = None,
) -> Job:  # fmt: skip
    """A job from a document, under its number where that is free. Raises Refused.

    `document` is what came, `said` the same as it was read, `photos` those of its rows by number.
    """
    hold_numbers(workshop)
    if said["state"] == "signed" and not said["sign_offs"]:
        raise Refused("The document says that the job is signed, and has no sign-off.")
    vehicle = _vehicle(workshop, said["vehicle"])
    if Job.objects.filter(workshop=workshop, vehicle=vehicle, opened_at=said["opened_at"]).exists():
        raise Refused("This job is here already.")
    job = Job.objects.create(
        workshop=workshop, number=_number(workshop, said["number"]), vehicle=vehicle,
        purpose=said["purpose"], state=said["state"], state_reason=said.get("state_reason", ""),
        opened_by_name=said["opened_by"], opened_at=said["opened_at"], ended_at=said.get("ended_at"),
        imported=True,
    )  # fmt: skip
    units = [
        _unit(job, user, index, one, document["units"][index - 1]["card"])
        for index, one in enumerate(said["units"], 1)
    ]
    entries = _entries(job, units, said["entries"])
    for index, data in (photos or {}).items():
        if index >= len(entries) or entries[index].kind != "photo":
            raise Refused(f"photos/{index}.jpg belongs to no photo of the job.")
        keep_photo(entries[index], picture_of(data))
    for row in said["sign_offs"]:
        _sign_off(job, row)
    _try_to_show(file_of(job, entries), user)
    return job


def _try_to_show(file: JobFile, user: User) -> None:
    """Whatever can't be shown is not let in: its claims are judged and its sheet is made once."""
    try:
        with judging():
            context = sheet_context(file, user.membership, file.job.opened_at, "not_set", "")
            render_to_string("records/sheet.html", context)
    except Unjudged as unjudged:
        raise Refused(f"This job could not be shown here: {unjudged}") from None


def _number(workshop: Workshop, wanted: int) -> int:
    jobs = Job.objects.filter(workshop=workshop)
    if wanted < 10**6 and not jobs.filter(number=wanted).exists():
        return wanted
    return int(jobs.aggregate(Max("number"))["number__max"] or 0) + 1


def _vehicle(workshop: Workshop, said: Json) -> Vehicle:
    here = Vehicle.objects.filter(workshop=workshop, name=said["name"]).first()
    if here:
        return here
    if said["axles"] > 9:
        raise Refused(f"{said['axles']} axles are more than a vehicle has; give at most 9.")
    traits = {name: said.get(name, False) for name in ("electric_parking", "air_springs")}
    return add_vehicle(workshop, name=said["name"], kind=said["kind"], axles=said["axles"],
                       deck=said.get("deck", 0), air_braked=said["air_braked"], **traits)  # fmt: skip


def _unit(job: Job, user: User, index: int, said: Json, card: Json) -> Unit:
    version = _card(job, user, card)
    unit = Unit.objects.create(
        workshop_id=job.workshop_id, job=job, order=index, name=said["name"], card_version=version
    )
    stations = set(arrangement(card["arrangement"]).stations)
    for place in said["places"]:
        end = WheelEnd.objects.filter(
            vehicle=job.vehicle, axle=place["axle"], side=place["side"]
        ).first()
        if end is None:
            where = "deck spindle" if place["axle"] == DECK else f"axle {place['axle']}"
            raise Refused(f"{job.vehicle} has no {where} {place['side']} here.")
        if place["station"] not in stations:
            raise Refused(f"“{place['station']}” is no station of {card['arrangement']}.")
        try:
            with transaction.atomic():
                UnitPlace.objects.create(
                    workshop_id=job.workshop_id, unit=unit, wheel_end=end,
                    station=place["station"], is_open=job.is_open,
                )  # fmt: skip
        except IntegrityError:
            raise Refused(f"Another job is open on {job.vehicle}, {end}.") from None
    return unit


def _card(job: Job, user: User, document: Json) -> CardVersion:
    """The card that a unit goes by: ours where it says the same, else one beside ours."""
    ours = SpecCard.objects.filter(workshop_id=job.workshop_id, name=document["name"]).first()
    if ours:
        same = next((one for one in ours.versions.all() if one.document == document), None)
        if same:
            return same
        document = {**document, "name": f"{document['name'][:50]}, imported with job {job.number}"}
    made: CardVersion = new_card(job.workshop, user, document=document).versions.get()
    return made


def _entries(job: Job, units: list[Unit], rows: list[Json]) -> tuple[Entry, ...]:
    cards: dict[int | None, Card] = {one.pk: card_of_version(one.card_version) for one in units}
    cards[None] = cards[units[0].pk]
    coming = [_coming(units, row, index) for index, row in enumerate(rows)]
    try:
        return bring_in(job, cards, coming)
    except BadInput as bad:
        raise Refused(f"{bad}.") from None
    except IntegrityError:
        raise Refused("entries: two of them contradict each other; nothing was saved.") from None


def _coming(units: list[Unit], row: Json, index: int) -> Coming:
    number = row.get("unit")
    if number is not None and number > len(units):
        raise Refused(f"entries[{index}].unit: there is no unit {number}.")
    shims = [Fitted(one["typed"], _mm(one["thickness"].exact)) for one in row.get("shims", ())]
    columns = {
        "unit": units[number - 1] if number else None, "step": row["step"], "kind": row["kind"],
        "aspect": aspect_of(row["kind"]), "by_name": row["by"], "at": row["at"],
        "value": _value(row, index), "facts": row.get("facts"),
        **{name: row.get(name, USUAL[name]) for name in PLAIN},
    }  # fmt: skip
    if row["kind"] == "withdrawn":
        columns["aspect"] = row["aspect"]
    elif row["aspect"] != columns["aspect"]:
        raise Refused(f"entries[{index}].aspect: “{row['aspect']}” is not that of {row['kind']}.")
    corrects = row.get("corrects")
    if corrects is not None and corrects >= index:
        raise Refused(f"entries[{index}].corrects: {corrects} does not stand earlier.")
    return Coming(columns, corrects, shims)


def _mm(exact: Fraction) -> Decimal:
    return Decimal(exact.numerator) / exact.denominator


def _value(row: Json, index: int) -> Decimal | None:
    if "value" not in row:
        return None
    try:
        value = Decimal(row["value"])
    except InvalidOperation:
        value = Decimal("NaN")
    if not value.is_finite() or abs(value) > MOST_VALUE:
        raise Refused(f"entries[{index}].value: “{row['value']}” is not a number.")
    return value


def _sign_off(job: Job, row: Json) -> None:
    facts: dict[str, Any] = {
        "units": [
            {
                "order": i,
                "name": one["name"],
                "claims": [{**c, "rests_on": [], "blocks": False} for c in one["claims"]],
            }
            for i, one in enumerate(row["units"], 1)
        ],
        "handover": row.get("handover", ""),
    }
    at: datetime = row["at"]
    context = {"job": job, "row": row, "facts": facts, "statement": Statement(row["statement"]).label,
               "ours": wheelend.__version__}  # fmt: skip
    SignOff.objects.create(
        workshop_id=job.workshop_id, job=job, number=row["number"], by=None, by_name=row["by"],
        role=row["role"], at=at, core_version=row["core_version"], statement=row["statement"],
        reason=row.get("reason", ""), facts=facts, elsewhere=True,
        sheet_html=render_to_string("records/sheet_elsewhere.html", context),
    )  # fmt: skip
