"""Oil and air in a closed hub: what warmth does to the pressure, and what cooling draws in.

mL, °C, bar. Source: the ideal gas law; expansion of mineral oil.
"""

from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput

ATMOSPHERE_BAR = 1.01325
EXPANSION = 7e-4
"""Of mineral oil, per kelvin. Source: lubricant handbooks."""

_KELVIN = 273.15
OilFlag = Literal["hydraulic_lock"]


@dataclass(frozen=True)
class Oil:
    """Gauge pressures in bar, None where no air is left; air in mL as filled and when warm."""

    gauge_bar: float | None
    air_mL: float
    air_warm_mL: float
    gauge_cooled_bar: float | None = None
    verdict: Literal["within", "above"] | None = None
    flags: tuple[OilFlag, ...] = ()


def oil(
    cavity_mL: float,
    oil_mL: float,
    fill_degC: float,
    running_degC: float,
    *,
    limit_bar: float | None = None,
    expansion: float = EXPANSION,
    vented: bool = False,
    cools_to_degC: float | None = None,
) -> Oil:
    """The pressure in a hub that is filled cold and runs warm.

    `cools_to_degC`: it has breathed out at its running temperature, closes, and cools; below 0 it
    draws in at the seal. Raises BadInput for more oil than the cavity holds, or a `cools_to` above the
    running temperature.

    >>> round(oil(500, 300, 20, 90).gauge_bar or 0, 3)
    0.342
    """
    if oil_mL > cavity_mL:
        need = f"is more than the cavity's {cavity_mL:g} mL"
        raise BadInput("oil", f"{oil_mL:g} mL", need)
    if cools_to_degC is not None and cools_to_degC > running_degC:
        need = f"is above the running temperature, {running_degC:g} degC: it does not cool"
        raise BadInput("cools_to", f"{cools_to_degC:g} degC", need)
    air = cavity_mL - oil_mL
    warm = cavity_mL - oil_mL * (1 + expansion * (running_degC - fill_degC))
    locked = not warm > 0
    gauge: float | None = 0.0
    if not vented:
        gauge = None if locked else _gauge(air, warm, fill_degC, running_degC)
    cooled = None
    if cools_to_degC is not None and not locked:
        air_cooled = cavity_mL - oil_mL * (1 + expansion * (cools_to_degC - fill_degC))
        cooled = _gauge(warm, air_cooled, running_degC, cools_to_degC)
    verdict: Literal["within", "above"] | None = None
    if gauge is None:
        verdict = "above"
    elif limit_bar is not None:
        verdict = "above" if gauge > limit_bar + 1e-9 else "within"
    return Oil(gauge, air, warm, cooled, verdict, ("hydraulic_lock",) if gauge is None else ())


def _gauge(before_mL: float, after_mL: float, from_degC: float, to_degC: float) -> float:
    """Gauge pressure of air that was at the atmosphere's, after its volume and temperature changed."""
    warmth = (to_degC + _KELVIN) / (from_degC + _KELVIN)
    return ATMOSPHERE_BAR * (before_mL / after_mL * warmth - 1)
