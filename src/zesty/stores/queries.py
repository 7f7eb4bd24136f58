"""Reads of the stores."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Any

from django.db.models import OuterRef, Q, Subquery
from django.db.models.functions import JSONObject

from wheelend.fitting import Shed
from wheelend.methods.judgement import Dial
from wheelend.procedure.log import Instrument as CoreInstrument
from wheelend.shims import TrayShim
from zesty.drawings.packs import pack_bar
from zesty.elements.forms import LARGEST_ID
from zesty.elements.prepared import Prepared
from zesty.people.models import Workshop
from zesty.stores.kinds import METERS
from zesty.stores.models import Calibration, Equipment, Instrument, Shim

_PX_PER_MM = 60.0
_SHOWN = 6


@dataclass(frozen=True)
class TrayRow:
    """One thickness in the tray with its edge drawn."""

    shim: Shim
    bar: str


def tray_rows(workshop: Workshop) -> list[TrayRow]:
    """The tray as it is shown, thin to thick by what counts."""
    shims = sorted(Shim.objects.filter(workshop=workshop), key=lambda shim: shim.thickness_mm)
    return [
        TrayRow(
            shim,
            pack_bar([float(shim.thickness_mm)] * min(shim.count, _SHOWN), _PX_PER_MM, width=150),
        )
        for shim in shims
    ]


def tray_of(shims: Iterable[Shim]) -> tuple[TrayShim, ...]:
    """The tray as the planner wants it."""
    return tuple(TrayShim(float(shim.thickness_mm), shim.count) for shim in shims if shim.count)


def shim_names(shims: Iterable[Shim]) -> dict[float, str]:
    """The words on a shim that was typed in another unit than mm."""
    return {
        float(shim.thickness_mm): shim.nominal for shim in shims if not shim.nominal.endswith(" mm")
    }


_COUNTS = Q(reported=False) | Q(confirmation__isnull=False)
_LATEST = Calibration.objects.filter(_COUNTS, instrument=OuterRef("pk")).values(
    said=JSONObject(on="on", certificate="certificate", doubt="doubt", doubt_value="doubt_value")
)[:1]
_INSTRUMENTS = Instrument.objects.annotate(latest=Subquery(_LATEST)).order_by(
    "kind", "resolution_value", "high_value", "name"
)


_OF_WORKSHOP: Prepared[Instrument] = Prepared(
    lambda workshop: _INSTRUMENTS.filter(workshop=workshop), "workshop"
)


def instruments_of(workshop: Workshop) -> tuple[Instrument, ...]:
    """The workshop's instruments, each with the calibration that counts, finest dial first."""
    return tuple(_OF_WORKSHOP.ask(workshop=workshop.pk))


def instrument_of(pk: int) -> Instrument:
    """One instrument with the calibration that counts."""
    return _INSTRUMENTS.get(pk=pk)


def dials_of(instruments: Iterable[Instrument]) -> tuple[Dial, ...]:
    """The dials among a workshop's instruments, as an act may name them."""
    found = (one for one in instruments if one.kind == "dial" and one.resolution_value)
    core = (CoreInstrument(one.name, facts_of(one, date.today())) for one in found)
    return tuple(Dial(one.name, one.gauge) for one in core)


def facts_of(instrument: Instrument, today: date, **use: Any) -> dict[str, Any]:
    """An instrument's figures as they are today: what an entry freezes."""
    latest = getattr(instrument, "latest", None) or {}
    doubt = latest.get("doubt_value")
    facts: dict[str, Any] = {"name": instrument.name, "kind": instrument.kind, **use}
    if instrument.resolution_value is not None:
        meter = instrument.kind in METERS
        facts["resolution"] = instrument.resolution
        facts["step" if meter else "resolution_mm"] = float(instrument.resolution_value)
        if doubt is not None:
            facts["doubt" if meter else "calibration_mm"] = float(doubt)
    if instrument.kind in METERS and latest.get("on"):
        facts |= {"used_on": today.isoformat(), "calibrated_on": latest["on"]}
    if instrument.accuracy_percent is not None:
        facts |= {
            "accuracy": float(instrument.accuracy_percent) / 100,
            "multiplier": float(instrument.multiplier),
            "cycles": instrument.cycles,
            "used_on": today.isoformat(),
            "calibrated_on": latest.get("on") or "1970-01-01",
        }
        ends = {"low_N_m": instrument.low_value, "high_N_m": instrument.high_value}
        facts |= {end: float(value) for end, value in ends.items() if value is not None}
    return facts


def shed_of(workshop_id: int) -> Shed:
    """What the shed can do: its strongest press, its coldest freezer, its hottest oven or plate."""
    limits: dict[str, list[float]] = defaultdict(list)
    for one in Equipment.objects.filter(workshop_id=workshop_id):
        limits[one.kind].append(float(one.value))
    return Shed(
        press_N=max(limits["press"], default=None),
        cold_degC=min(limits["freezer"], default=None),
        hot_degC=max([*limits["oven"], *limits["hot_plate"]], default=None),
    )


def strokes_of(workshop_id: int) -> list[tuple[str, float]]:
    """Each grease gun with the grams of one stroke."""
    guns = Equipment.objects.filter(workshop_id=workshop_id, kind="grease_gun")
    return [(one.name, float(one.value)) for one in guns]


@dataclass(frozen=True)
class InstrumentRow:
    """One instrument, the papers that count, whether its check is due, and what was reported since."""

    instrument: Instrument
    papers: dict[str, Any]
    due: bool
    calibrated_on: date | None
    reports: tuple[Calibration, ...] = ()


def instrument_rows(workshop: Workshop, today: date) -> list[InstrumentRow]:
    """The workshop's instruments with their papers."""
    waiting: dict[int, list[Calibration]] = defaultdict(list)
    reported = Calibration.objects.filter(workshop=workshop, reported=True, confirmation=None)
    for report in reported.select_related("by"):
        waiting[report.instrument_id].append(report)
    rows = []
    for one in instruments_of(workshop):
        papers = getattr(one, "latest", None) or {}
        on = date.fromisoformat(papers["on"]) if papers.get("on") else None
        core = CoreInstrument(one.name, facts_of(one, today))
        due = one.kind in ("wrench", *METERS) and core.wrench.calibration_due
        rows.append(InstrumentRow(one, papers, due, on, tuple(waiting[one.pk])))
    return rows


def kind_of(workshop: Workshop, pk: str) -> str:
    """What kind an instrument of the workshop is; a dial where there is none of that number."""
    if not (pk.isascii() and pk.isdigit() and int(pk) <= LARGEST_ID):
        return "dial"
    found = Instrument.objects.filter(workshop=workshop, pk=int(pk)).values_list("kind", flat=True)
    return found.first() or "dial"
