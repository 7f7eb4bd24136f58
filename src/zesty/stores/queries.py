"""Reads of the stores."""

from dataclasses import dataclass
from datetime import date

from wheelend.shims import TrayShim
from wheelend.wrench import Wrench as CoreWrench
from zesty.drawings.packs import pack_bar
from zesty.people.models import Workshop
from zesty.stores.models import Gauge, Shim, Wrench

_PX_PER_MM = 60.0


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
            shim, pack_bar([float(shim.thickness_mm)] * min(shim.count, 6), _PX_PER_MM, width=150)
        )
        for shim in shims
    ]


def loose_shims(workshop: Workshop) -> list[Shim]:
    """What is there to be fitted."""
    return [shim for shim in Shim.objects.filter(workshop=workshop) if shim.count]


def tray_of(shims: list[Shim]) -> tuple[TrayShim, ...]:
    """The tray as the planner wants it."""
    return tuple(TrayShim(float(shim.thickness_mm), shim.count) for shim in shims)


def shim_names(shims: list[Shim]) -> dict[float, str]:
    """The words on a shim that was typed in another unit than mm."""
    return {
        float(shim.thickness_mm): shim.nominal for shim in shims if not shim.nominal.endswith(" mm")
    }


def gauges_of(workshop: Workshop) -> list[Gauge]:
    """The workshop's gauges, finest first."""
    return sorted(Gauge.objects.filter(workshop=workshop), key=lambda gauge: gauge.resolution_mm)


@dataclass(frozen=True)
class WrenchRow:
    """One wrench and whether its calibration is due."""

    wrench: Wrench
    due: bool


def wrench_rows(workshop: Workshop, today: date) -> list[WrenchRow]:
    """The workshop's wrenches, small to large."""
    wrenches = Wrench.objects.filter(workshop=workshop)
    return [WrenchRow(one, core_wrench(one, today).calibration_due) for one in wrenches]


def core_wrench(wrench: Wrench, today: date, *, lengthened: bool = False) -> CoreWrench:
    """A wrench as the core reckons with it."""
    return CoreWrench(
        low_N_m=float(wrench.low_N_m),
        high_N_m=float(wrench.high_N_m),
        accuracy=float(wrench.accuracy_percent) / 100,
        multiplier=float(wrench.multiplier),
        calibrated_on=wrench.calibrated_on,
        today=today,
        cycles=wrench.cycles,
        lengthened=lengthened,
    )
