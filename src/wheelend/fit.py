"""Press fits: a ring in a bore, a ring on a shaft; what they take, and what warmth and cold give.

Lengths in mm, temperatures in °C, pressure in MPa, force in N. Source: Lamé's thick-walled cylinders
(any machine-design text); linear expansion from 20 °C.
"""

import math
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput

ROOM_DEGC = 20.0
FRICTION = 0.12
"""Steel in a clean bore with a thin film of oil. Source: shop practice."""

DROP_IN_MM = 0.02
"""The gap with which a ring drops in, or slides on, by itself. Source: shop practice."""


@dataclass(frozen=True)
class Material:
    """Young's modulus in MPa, Poisson's ratio, expansion per kelvin."""

    E: float
    nu: float
    alpha: float


MATERIALS = {
    "bearing_steel": Material(208_000, 0.30, 12.0e-6),
    "carbon_steel": Material(206_000, 0.29, 11.7e-6),
    "ductile_iron": Material(169_000, 0.28, 11.5e-6),
    "grey_iron": Material(110_000, 0.26, 10.8e-6),
    "aluminium": Material(71_000, 0.33, 23.0e-6),
}
"""Source: machine-design handbooks, rounded."""

FitFlag = Literal["loose_when_hot"]


@dataclass(frozen=True)
class Ring:
    """The ring that is fitted. `seat_mm` is the diameter that sits, `race_mm` the mean raceway."""

    seat_mm: float
    race_mm: float
    width_mm: float
    material: str = "bearing_steel"


@dataclass(frozen=True)
class Warmth:
    """Temperatures of the ring and of what takes it; None is room temperature, 20 °C."""

    ring: float | None = None
    other: float | None = None
    clearance_mm: float = DROP_IN_MM
    limit: float | None = None
    service: float | None = None

    @property
    def is_given(self) -> bool:
        """Whether either temperature was given."""
        return self.ring is not None or self.other is not None

    @property
    def ring_at(self) -> float:
        """The ring's temperature in °C."""
        return ROOM_DEGC if self.ring is None else self.ring

    @property
    def other_at(self) -> float:
        """The temperature of housing or shaft in °C."""
        return ROOM_DEGC if self.other is None else self.other


@dataclass(frozen=True)
class Fit:
    """What a fit takes and gives. `race_mm` is how much the raceway shrinks, or grows.

    `gap_mm` and `goes` where a temperature was given, `over_limit` where a limit was,
    `service_mm` the interference at the service temperature.
    """

    pressure_MPa: float
    force_N: float
    race_mm: float
    needed_degC: float
    play_lost_mm: float | None = None
    gap_mm: float | None = None
    goes: bool | None = None
    over_limit: bool | None = None
    service_mm: float | None = None
    flags: tuple[FitFlag, ...] = ()


def fit_in_housing(
    ring: Ring,
    housing_mm: float,
    material: str,
    interference_mm: float,
    *,
    contact_angle_deg: float | None = None,
    friction: float = FRICTION,
    warmth: Warmth | None = None,
) -> Fit:
    """A ring pressed into a bore; `housing_mm` is the housing's outside diameter.

    Raises BadInput where raceway, ring and housing do not lie inside one another, or for a material
    that is not known. Source: Lamé.

    >>> round(fit_in_housing(Ring(72, 60, 17), 110, "aluminium", 0.04).pressure_MPa, 3)
    8.538
    """
    _check_inside("ring.inside", ring.race_mm, "ring.outside", ring.seat_mm)
    _check_inside("ring.outside", ring.seat_mm, "housing.outside", housing_mm)
    steel, body = (
        material_of(ring.material, "ring.material"),
        material_of(material, "housing.material"),
    )
    seat, race = ring.seat_mm**2, ring.race_mm**2
    outer = housing_mm**2
    yields = ((outer + seat) / (outer - seat) + body.nu) / body.E + (
        (seat + race) / (seat - race) - steel.nu
    ) / steel.E
    pressure = interference_mm / (ring.seat_mm * yields)
    shrink = 2 * pressure * seat * ring.race_mm / (steel.E * (seat - race))
    heat = warmth or Warmth()
    cold = steel.alpha * (heat.ring_at - ROOM_DEGC)
    gap = ring.seat_mm * (body.alpha * (heat.other_at - ROOM_DEGC) - cold) - interference_mm
    wanted = (interference_mm + heat.clearance_mm) / ring.seat_mm + cold
    service = None
    if heat.service is not None:
        change = (steel.alpha - body.alpha) * (heat.service - ROOM_DEGC)
        service = interference_mm + ring.seat_mm * change
    return _fit(
        ring, pressure, shrink, friction, contact_angle_deg, heat, gap,
        needed=ROOM_DEGC + wanted / body.alpha, service=service,
    )  # fmt: skip


def fit_on_shaft(
    ring: Ring,
    material: str,
    interference_mm: float,
    *,
    hollow_mm: float = 0.0,
    contact_angle_deg: float | None = None,
    friction: float = FRICTION,
    warmth: Warmth | None = None,
) -> Fit:
    """A ring pressed on a shaft, which may be hollow; the temperature needed is the ring's.

    Raises BadInput where hollow, bore and raceway do not lie inside one another, or for a material
    that is not known. Source: Lamé.

    >>> round(fit_on_shaft(Ring(35, 44, 18), "carbon_steel", 0.02).force_N)
    5168
    """
    _check_inside("ring.bore", ring.seat_mm, "ring.outside", ring.race_mm)
    if hollow_mm:
        _check_inside("shaft.hollow", hollow_mm, "ring.bore", ring.seat_mm)
    steel, body = (
        material_of(ring.material, "ring.material"),
        material_of(material, "shaft.material"),
    )
    seat, race, hollow = ring.seat_mm**2, ring.race_mm**2, hollow_mm**2
    yields = ((race + seat) / (race - seat) + steel.nu) / steel.E + (
        (seat + hollow) / (seat - hollow) - body.nu
    ) / body.E
    pressure = interference_mm / (ring.seat_mm * yields)
    growth = 2 * pressure * seat * ring.race_mm / (steel.E * (race - seat))
    heat = warmth or Warmth()
    shaft = body.alpha * (heat.other_at - ROOM_DEGC)
    gap = ring.seat_mm * (steel.alpha * (heat.ring_at - ROOM_DEGC) - shaft) - interference_mm
    wanted = (interference_mm + heat.clearance_mm) / ring.seat_mm + shaft
    needed = ROOM_DEGC + wanted / steel.alpha
    return _fit(
        ring, pressure, growth, friction, contact_angle_deg, heat, gap, needed=needed, service=None
    )


def _fit(
    ring: Ring, pressure: float, race: float, friction: float, angle_deg: float | None, heat: Warmth,
    gap: float, *, needed: float, service: float | None,
) -> Fit:  # fmt: skip
    lost = None if angle_deg is None else race / (2 * math.tan(math.radians(angle_deg)))
    return Fit(
        pressure_MPa=pressure,
        force_N=friction * pressure * math.pi * ring.seat_mm * ring.width_mm,
        race_mm=race,
        needed_degC=needed,
        play_lost_mm=lost,
        gap_mm=gap if heat.is_given else None,
        goes=gap >= heat.clearance_mm - 1e-12 if heat.is_given else None,
        over_limit=None if heat.limit is None else needed > heat.limit,
        service_mm=service,
        flags=("loose_when_hot",) if service is not None and service <= 0 else (),
    )


def material_of(name: str, path: str = "material") -> Material:
    """A material by its name. Raises BadInput for one that is not known."""
    if name not in MATERIALS:
        raise BadInput(path, name, f"is not known; known: {', '.join(MATERIALS)}")
    return MATERIALS[name]


def _check_inside(inner: str, inner_mm: float, outer: str, outer_mm: float) -> None:
    if not inner_mm < outer_mm:
        need = f"is not larger than {inner.replace('.', ' ')}, {inner_mm:g} mm"
        raise BadInput(outer, f"{outer_mm:g} mm", need)
