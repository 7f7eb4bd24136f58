"""The stores as a document, and back: shims, gauges, wrenches."""

from decimal import Decimal

from django.db import transaction

from wheelend.errors import BadInput
from wheelend.quantity import LENGTH, TORQUE
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import Workshop
from zesty.records.exchange.documents import Json, day_of, envelope
from zesty.stores.actions import add_gauge, add_wrench, put_count
from zesty.stores.models import Gauge, Shim, Wrench


def tray_document(workshop: Workshop) -> Json:
    """All loose shims, gauges and wrenches of a workshop."""
    shims = Shim.objects.filter(workshop=workshop)
    content = {
        "shims": [
            {"nominal": one.nominal, "measured": one.measured, "count": one.count} for one in shims
        ],
        "gauges": [gauge_content(one) for one in Gauge.objects.filter(workshop=workshop)],
        "wrenches": [wrench_content(one) for one in Wrench.objects.filter(workshop=workshop)],
    }
    return envelope("tray", content)


def gauge_content(gauge: Gauge) -> Json:
    """One gauge."""
    return {"name": gauge.name, "resolution": gauge.resolution, "calibration": gauge.calibration}


def wrench_content(wrench: Wrench) -> Json:
    """One wrench."""
    return {
        "name": wrench.name,
        "low": wrench.low,
        "high": wrench.high,
        "accuracy_percent": str(wrench.accuracy_percent.normalize()),
        "multiplier": str(wrench.multiplier.normalize()),
        "calibrated_on": wrench.calibrated_on.isoformat(),
        "cycles": wrench.cycles,
    }


@transaction.atomic
def import_tray(workshop: Workshop, document: Json) -> None:
    """Put a document's shims, gauges and wrenches in the stores; counts become the document's."""
    try:
        for shim in document["shims"]:
            nominal = Typed.read(shim["nominal"], LENGTH)
            measured = Typed.read(shim["measured"], LENGTH) if shim["measured"] else None
            put_count(workshop, nominal=nominal, measured=measured, count=shim["count"])
        for gauge in document["gauges"]:
            import_gauge(workshop, gauge)
        for wrench in document["wrenches"]:
            import_wrench(workshop, wrench)
    except BadInput as bad:
        raise Refused(f"{bad}.") from None


def import_gauge(workshop: Workshop, content: Json) -> Gauge:
    """A gauge of that name and step; one that is there already is taken."""
    standing = Gauge.objects.filter(workshop=workshop, name=content["name"]).first()
    if standing and gauge_content(standing) != content:
        raise Refused(f"The gauge “{standing.name}” here has other figures than the document's.")
    return standing or add_gauge(
        workshop,
        name=content["name"],
        resolution=Typed.read(content["resolution"], LENGTH),
        calibration=Typed.read(content["calibration"], LENGTH) if content["calibration"] else None,
    )


def import_wrench(workshop: Workshop, content: Json) -> Wrench:
    """A wrench of that name; one that is there already is taken as it is."""
    standing = Wrench.objects.filter(workshop=workshop, name=content["name"]).first()
    if standing:
        return standing
    wrench = add_wrench(
        workshop,
        name=content["name"],
        low=Typed.read(content["low"], TORQUE),
        high=Typed.read(content["high"], TORQUE),
        accuracy_percent=Decimal(content["accuracy_percent"]),
        calibrated_on=day_of(content["calibrated_on"]),
        multiplier=Decimal(content["multiplier"]),
    )
    wrench.cycles = content["cycles"]
    wrench.save(update_fields=["cycles"])
    return wrench
