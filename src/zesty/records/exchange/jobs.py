"""A job with everything written in it as a document; `actions` brings one in."""

from django.db.models import Max

from zesty.bench.models import Entry
from zesty.bench.queries.jobfile import JobFile, shims_of
from zesty.fleet.models import DECK, Vehicle
from zesty.records.exchange.documents import Json
from zesty.records.exchange.formats import stamp
from zesty.records.models import SignOff

PLAIN = ("clamp", "closing", "round", "station", "place", "typed", "reason")
USUAL: Json = {
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
            **_more_of(vehicle),
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


def _more_of(vehicle: Vehicle) -> Json:
    """What only some vehicles have."""
    traits = {name: True for name in ("electric_parking", "air_springs") if getattr(vehicle, name)}
    deck = vehicle.wheel_ends.filter(axle=DECK).count()
    return {**traits, "deck": deck} if deck else traits


def _entry(row: Entry, order: dict[int, int], units: dict[int, int]) -> Json:
    said: Json = {
        "step": row.step,
        "kind": row.kind,
        "aspect": row.aspect,
        "by": row.by_name,
        "at": stamp(row.at),
    }
    said |= {name: value for name in PLAIN if (value := getattr(row, name)) != USUAL[name]}
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
