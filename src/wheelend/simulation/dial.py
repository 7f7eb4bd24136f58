"""A dial on its stand: what it shows of a true play."""

import math
from dataclasses import dataclass
from random import Random

from wheelend.circle import clock_angle


@dataclass(frozen=True)
class DialStand:
    """A dial as it stands; lengths in mm.

    `error` is what its plays are off by certificate, `backlash` what its gears swallow when it turns
    round. `wobble_mm` is the total movement of the face under its tip, highest at `high_deg`; only
    read where the tip stands on the face and the hub was turned. `moved_mm` is how far the base
    has slipped since it was zeroed.
    """

    step_mm: float
    error_mm: float = 0.0
    backlash_mm: float = 0.0
    wobble_mm: float = 0.0
    high_deg: float = 0.0
    moved_mm: float = 0.0

    def pushed_in(self, place: str) -> float:
        """What it shows with the hub pushed in."""
        return self._shown(self._face(place))

    def pulled_out(self, place: str, play_mm: float, turned_deg: float = 0.0) -> float:
        """What it shows pulled out: the play on top, and the wobble of a hub turned meanwhile."""
        seen = max(play_mm + self.error_mm - self.backlash_mm, 0.0)
        return self._shown(self._face(place, turned_deg) + seen)

    def _face(self, place: str, turned_deg: float = 0.0) -> float:
        angle = clock_angle(place) if place[:1].isdigit() else 0.0
        return self.wobble_mm / 2 * math.cos(math.radians(angle + turned_deg - self.high_deg))

    def _shown(self, position: float) -> float:
        return round((position + self.moved_mm) / self.step_mm) * self.step_mm

    def typed(self, shown: float) -> str:
        """A reading as it is written down: to the step of the dial."""
        places = max(0, math.ceil(-math.log10(self.step_mm) - 1e-9))
        return f"{shown:.{places}f} mm"


def dial_stand(rng: Random, step_mm: float, *, on_face: bool = False) -> DialStand:
    """A dial with a certificate of 0.4 of its step, as shops have them."""
    return DialStand(
        step_mm,
        error_mm=rng.gauss(0, 0.2 * step_mm),
        backlash_mm=rng.uniform(0, 0.15 * step_mm),
        wobble_mm=rng.uniform(0.04, 0.12) if on_face else 0.0,
        high_deg=rng.uniform(0, 360),
    )
