"""How much grease a bearing takes, and whether it is packed. Grams, mL, mm. Source: geometry; the
top-up rule 0.005·D·B of bearing handbooks."""

import math
from dataclasses import dataclass
from typing import Literal

from wheelend.errors import BadInput

STEEL_G_PER_ML = 7.85
DENSITY = 0.9
PACKED, VOIDS = 0.90, 0.60
State = Literal["packed", "voids", "mostly_dry"]


@dataclass(frozen=True)
class Bearing:
    """A bearing's size in mm and its mass in g, dry."""

    bore_mm: float
    outside_mm: float
    width_mm: float
    mass_g: float

    @property
    def free(self) -> float:
        """What is not steel between bore, outside and width, in mL. Raises BadInput where nothing is left."""
        whole = math.pi / 4 * self.width_mm * (self.outside_mm**2 - self.bore_mm**2) / 1000
        free = whole - self.mass_g / STEEL_G_PER_ML
        if not free > 0:
            need = f"is more than a solid ring of that size; give at most {whole * STEEL_G_PER_ML:.0f} g"
            raise BadInput("bearing.mass", f"{self.mass_g:g} g", need)
        return free


@dataclass(frozen=True)
class Packing:
    """What goes in; `strokes` of the gun or syringe, `packed` and `state` where it was weighed."""

    free_mL: float
    fill_g: float
    top_up_g: float
    cavity_g: float | None = None
    strokes: int | None = None
    packed: float | None = None
    state: State | None = None


def grease(
    bearing: Bearing,
    *,
    density: float = DENSITY,
    fill: float = 1.0,
    weighed_g: tuple[float, float] | None = None,
    cavity: tuple[float, float] | None = None,
    per_stroke_g: float | None = None,
) -> Packing:
    """Grease for one bearing and the cavity beside it.

    `fill` is the part of the free volume that is filled, `weighed_g` dry and packed, `cavity` its
    volume in mL and the part of it that is filled. Raises BadInput where packed weighs less than dry.

    >>> round(grease(Bearing(30, 62, 17, 230), fill=0.5).fill_g, 2)
    4.5
    """
    free = bearing.free
    fill_g = density * free * fill
    cavity_g = None if cavity is None else density * cavity[0] * cavity[1]
    strokes = None
    if per_stroke_g is not None:
        strokes = strokes_for(fill_g + (cavity_g or 0.0), per_stroke_g)
    packed = _packed(weighed_g, density * free) if weighed_g else None
    return Packing(
        free_mL=free,
        fill_g=fill_g,
        top_up_g=0.005 * bearing.outside_mm * bearing.width_mm,
        cavity_g=cavity_g,
        strokes=strokes,
        packed=packed,
        state=None if packed is None else state_of(packed),
    )


def strokes_for(grams: float, per_stroke_g: float) -> int:
    """Whole strokes of a gun that give so many grams, rounded up; none where nothing is missing."""
    return max(0, math.ceil(grams / per_stroke_g - 1e-9))


def _packed(weighed_g: tuple[float, float], full_g: float) -> float:
    dry, packed = weighed_g
    if packed < dry:
        need = f"is less than the {dry:g} g it weighed dry; were the two exchanged?"
        raise BadInput("weighed.packed", f"{packed:g} g", need)
    return (packed - dry) / full_g


def state_of(packed: float) -> State:
    """What a packed part of the free volume is called."""
    if packed >= PACKED - 1e-9:
        return "packed"
    return "voids" if packed >= VOIDS - 1e-9 else "mostly_dry"
