"""The stores as a document, and back: shims, instruments, machines and lubricants."""

from datetime import date
from decimal import Decimal, InvalidOperation

from django.db import transaction

from wheelend.errors import BadInput
from wheelend.quantity import LENGTH, Dimension
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed
from zesty.people.models import Workshop
from zesty.records.exchange.documents import Json
from zesty.stores.actions import (
    Count,
    Papers,
    add_equipment,
    add_instrument,
    add_lubricant,
    put_counts,
)
from zesty.stores.forms import EquipmentForm, LubricantForm
from zesty.stores.kinds import MEASURES
from zesty.stores.models import Equipment, Instrument, Lubricant, Shim
from zesty.stores.queries import instruments_of


def tray_document(workshop: Workshop) -> Json:
    """All loose shims and instruments of a workshop, and its shed."""
    shims = Shim.objects.filter(workshop=workshop)
    machines = Equipment.objects.filter(workshop=workshop)
    stock = Lubricant.objects.filter(workshop=workshop)
    return {
        "format": "zesty-spindle/tray/2",
        "shims": [
            {"nominal": one.nominal, "count": one.count}
            | ({"measured": one.measured} if one.measured else {})
            for one in shims
        ],
        "instruments": [instrument_content(one) for one in instruments_of(workshop)],
        "equipment": [
            {"kind": one.kind, "name": one.name, "figure": one.figure} for one in machines
        ],
        "lubricants": [_lubricant_content(one) for one in stock],
    }


def _lubricant_content(one: Lubricant) -> Json:
    content = {
        "kind": one.kind,
        "name": one.name,
        "thickener": one.thickener,
        "grade": one.grade,
        "density": one.density,
        "opened_on": one.opened_on.isoformat() if one.opened_on else "",
        "left": one.left,
    }
    return {name: value for name, value in content.items() if value}


def instrument_content(one: Instrument) -> Json:
    """One instrument, its papers included."""
    papers = getattr(one, "latest", None) or {}
    content = {
        "kind": one.kind,
        "name": one.name,
        "resolution": one.resolution,
        "low": one.low,
        "high": one.high,
        "accuracy_percent": "" if one.accuracy_percent is None else f"{one.accuracy_percent:f}",
        "multiplier": f"{one.multiplier:f}" if one.multiplier != 1 else "",
        "calibrated_on": papers.get("on") or "",
        "certificate": papers.get("certificate") or "",
        "doubt": papers.get("doubt") or "",
    }
    return {name: value for name, value in content.items() if value}


@transaction.atomic
def import_tray(workshop: Workshop, said: Json) -> None:
    """Put a document's shims, instruments and shed in the stores; counts become the document's.

    What is here already stays as it is; an instrument with other figures is refused.
    """
    try:
        put_counts(workshop, [_count(shim) for shim in said["shims"]])
        here = {one.name: instrument_content(one) for one in instruments_of(workshop)}
        for one in said["instruments"]:
            plain = {
                **one,
                **(
                    {"calibrated_on": one["calibrated_on"].isoformat()}
                    if "calibrated_on" in one
                    else {}
                ),
            }
            if one["name"] not in here:
                _import_named(workshop, one)
            elif here[one["name"]] != plain:
                raise Refused(f"“{one['name']}” here has other figures than the document's.")
        _import_shed(workshop, said)
    except BadInput as bad:
        raise Refused(f"{bad}.") from None


def _import_shed(workshop: Workshop, said: Json) -> None:
    """Machines and lubricants, read by the forms that a person fills in. What is here stays."""
    for rows, form_class, add, table in (
        (said.get("equipment", ()), EquipmentForm, add_equipment, Equipment),
        (said.get("lubricants", ()), LubricantForm, add_lubricant, Lubricant),
    ):
        here = set(table.objects.filter(workshop=workshop).values_list("name", flat=True))
        for one in (row for row in rows if row["name"] not in here):
            form = form_class(one)
            if not form.is_valid():
                field, wrong = next(iter(form.errors.items()))
                raise Refused(f"“{one['name']}”, {field}: {wrong[0]}")
            add(workshop, **form.cleaned_data)


def _count(shim: Json) -> Count:
    measured = shim.get("measured")
    return Count(
        Typed.read(shim["nominal"].text, LENGTH),
        Typed.read(measured.text, LENGTH) if measured else None,
        shim["count"],
    )


def _import_named(workshop: Workshop, one: Json) -> None:
    try:
        _import_instrument(workshop, one)
    except Refused as refused:
        raise Refused(f"“{one['name']}”: {refused.sentence}") from None


def _import_instrument(workshop: Workshop, one: Json) -> None:
    measures = MEASURES.get(one["kind"])
    if measures is None and set(one) - {"kind", "name", "calibrated_on", "certificate"}:
        raise Refused("the figures of a thermometer are not read yet.")
    dimension = measures[0] if measures else LENGTH

    def typed(name: str, of: Dimension = dimension) -> Typed | None:
        return Typed.read(one[name], of) if one.get(name) else None

    add_instrument(
        workshop,
        kind=one["kind"],
        name=one["name"],
        resolution=typed("resolution"),
        low=typed("low"),
        high=typed("high"),
        accuracy_percent=_decimal(one, "accuracy_percent"),
        multiplier=_decimal(one, "multiplier") or Decimal(1),
        papers=_papers(one, typed("doubt")),
    )


def _papers(one: Json, doubt: Typed | None) -> Papers | None:
    if doubt is None and not {"calibrated_on", "certificate"} & set(one):
        return None
    return Papers(one.get("calibrated_on") or date.today(), one.get("certificate", ""), doubt)


def _decimal(one: Json, name: str) -> Decimal | None:
    if name not in one:
        return None
    try:
        value = Decimal(one[name])
    except InvalidOperation:
        raise Refused(f"{name}: “{one[name]}” is not a number.") from None
    if not value.is_finite() or not 0 < value <= 1000:
        raise Refused(f"{name}: “{one[name]}” is not between 0 and 1000.")
    return value
