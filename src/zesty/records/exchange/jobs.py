"""A job with everything written in it as a document, and back without loss.

What comes in vouches for nothing here: names stay names, signatures are shown as from elsewhere,
instruments are the frozen figures of their entries, and nothing of ours is changed.
"""

from datetime import datetime
from decimal import Decimal, InvalidOperation
from fractions import Fraction
from typing import Any
from uuid import uuid4

from django.db import IntegrityError, transaction
from django.db.models import Max
from django.template.loader import render_to_string

import wheelend
from wheelend.arrangements import arrangement
from zesty.bench.models import Entry, EntryShim, Job, Unit, UnitPlace
from zesty.bench.queries.jobfile import JobFile, shims_of
from zesty.cards.actions import new_card
from zesty.cards.models import CardVersion, SpecCard
from zesty.elements.refused import Refused
from zesty.fleet.actions import add_vehicle
from zesty.fleet.models import Vehicle, WheelEnd
from zesty.people.models import User, Workshop
from zesty.records.exchange.documents import Json
from zesty.records.exchange.formats import stamp
from zesty.records.models import SignOff, Statement

_PLAIN = ("clamp", "closing", "round", "station", "place", "typed", "reason")
_USUAL: Json = {
    "clamp": "",
    "closing": 0,
    "round": 1,
    "station": "",
    "place": "",
    "typed": "",
    "reason": "",
}


def job_document(file: JobFile) -> Json:
    """A job as a document; each unit carries the card that it goes by."""
    job, vehicle = file.job, file.job.vehicle
    order = {row.pk: index for index, row in enumerate(file.entries)}
    units = {one.unit.pk: one.index for one in file.units}
    content: Json = {
        "format": "zesty-spindle/job/2",
        "number": job.number,
        "purpose": job.purpose,
        "state": job.state,
        "vehicle": {
            "name": vehicle.name,
            "kind": vehicle.kind,
            "air_braked": vehicle.air_braked,
            "axles": vehicle.wheel_ends.aggregate(Max("axle"))["axle__max"] or 1,
        },
        "units": [
            {
                "name": one.unit.name,
                "card": one.unit.card_version.document,
                "places": [
                    {"axle": p.wheel_end.axle, "side": p.wheel_end.side, "station": p.station}
                    for p in one.places
                ],
            }
            for one in file.units
        ],
        "entries": [_entry(row, order, units) for row in file.entries],
        "sign_offs": [_signed(row) for row in SignOff.objects.filter(job=job)],
        "opened_by": job.opened_by_name,
        "opened_at": stamp(job.opened_at),
    }
    if job.ended_at:
        content["ended_at"] = stamp(job.ended_at)
    if job.state_reason:
        content["state_reason"] = job.state_reason
    return content


def _entry(row: Entry, order: dict[int, int], units: dict[int, int]) -> Json:
    said: Json = {
        "step": row.step,
        "kind": row.kind,
        "aspect": row.aspect,
        "by": row.by_name,
        "at": stamp(row.at),
    }
    said |= {name: value for name in _PLAIN if (value := getattr(row, name)) != _USUAL[name]}
    if row.unit_id:
        said["unit"] = units[row.unit_id]
    if row.value is not None:
        said["value"] = f"{row.value.normalize():f}"
    if row.facts:
        said["facts"] = row.facts
    if row.corrects_id:
        said["corrects"] = order[row.corrects_id]
    if row.kind == "pack":
        said["shims"] = [
            {"typed": one.typed, "thickness": f"{one.thickness_mm.normalize():f} mm"}
            for one in shims_of(row)
        ]
    return said


def _signed(row: SignOff) -> Json:
    keys = ("key", "name", "proven", "fact")
    said: Json = {
        "number": row.number, "by": row.by_name, "role": row.role, "at": stamp(row.at),
        "core_version": row.core_version, "statement": row.statement,
        "units": [
            {"name": one["name"], "claims": [{key: claim[key] for key in keys} for claim in one["claims"]]}
            for one in row.facts["units"]
        ],
    }  # fmt: skip
    if row.reason:
        said["reason"] = row.reason
    if row.facts.get("handover"):
        said["handover"] = row.facts["handover"]
    return said


@transaction.atomic
def import_job(workshop: Workshop, user: User, document: Json, said: Json) -> Job:
    """A job from a document, under its number where that is free. Raises Refused.

    `document` is what came, `said` the same as it was read.
    """
    Workshop.objects.select_for_update().get(pk=workshop.pk)
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
    _entries(job, units, said["entries"])
    for row in said["sign_offs"]:
        _sign_off(job, row)
    return job


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
    return add_vehicle(workshop, name=said["name"], kind=said["kind"], axles=said["axles"],
                       air_braked=said["air_braked"])  # fmt: skip


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
            raise Refused(f"{job.vehicle} has no axle {place['axle']} here.")
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


def _entries(job: Job, units: list[Unit], rows: list[Json]) -> None:
    made: list[Entry] = []
    for index, row in enumerate(rows):
        corrects = row.get("corrects")
        if corrects is not None and corrects >= index:
            raise Refused(f"entries[{index}].corrects: {corrects} does not stand earlier.")
        number = row.get("unit")
        if number is not None and number > len(units):
            raise Refused(f"entries[{index}].unit: there is no unit {number}.")
        entry = Entry(
            workshop_id=job.workshop_id, job=job, unit=units[number - 1] if number else None,
            step=row["step"], kind=row["kind"], aspect=row["aspect"], by_name=row["by"], at=row["at"],
            value=_value(row, index), facts=row.get("facts"), token=uuid4(), digest="",
            corrects=made[corrects] if corrects is not None else None,
            **{name: row.get(name, _USUAL[name]) for name in _PLAIN},
        )  # fmt: skip
        try:
            with transaction.atomic():
                entry.save(force_insert=True)
        except IntegrityError:
            raise Refused(
                f"entries[{index}]: its place is taken, or it lacks a number or a reason."
            ) from None
        made.append(entry)
        EntryShim.objects.bulk_create(
            EntryShim(entry=entry, order=order, typed=one["typed"],
                      thickness_mm=_mm(one["thickness"].exact))
            for order, one in enumerate(row.get("shims", ()), 1)
        )  # fmt: skip


def _mm(exact: Fraction) -> Decimal:
    return Decimal(exact.numerator) / exact.denominator


def _value(row: Json, index: int) -> Decimal | None:
    if "value" not in row:
        return None
    try:
        value = Decimal(row["value"])
    except InvalidOperation:
        value = Decimal("NaN")
    if not value.is_finite() or abs(value) > 10**9:
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
