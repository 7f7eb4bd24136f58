"""How a warm hub cools, and how long it stays warm enough. Source: Newton's law of cooling."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from wheelend.errors import BadInput


@dataclass(frozen=True)
class Cooling:
    """The curve through the readings. `left_s` is None where it never cools that far; `start` is the
    logarithm of how far it was above ambient at the beginning."""

    time_constant_s: float
    now_degC: float
    left_s: float | None
    ambient_degC: float
    start: float

    def at(self, seconds: float) -> float:
        """The temperature at a time of the readings' clock."""
        return self.ambient_degC + math.exp(self.start - seconds / self.time_constant_s)

    @property
    def never(self) -> bool:
        """Whether it stays above the wanted temperature for ever."""
        return self.left_s is None


def cooling(
    readings: Sequence[tuple[float, float]],
    ambient_degC: float,
    until_degC: float,
    now_s: float | None = None,
) -> Cooling:
    """The time left from `now_s` (the last reading where it is None) until a temperature is reached.

    `readings` are (seconds, °C), two or more: least squares of ln(T − ambient) over time. Raises
    BadInput for fewer, for one that is not above ambient, or where they do not fall.

    >>> round(cooling([(0, 100), (60, 80)], 20, 60).left_s or 0, 1)
    84.6
    """
    if len(readings) < 2:
        raise BadInput("readings", str(len(readings)), "is too few; give two temperatures or more")
    for index, (_, degrees) in enumerate(readings):
        if not degrees > ambient_degC:
            need = f"is not above the {ambient_degC:g} degC round it: it does not cool"
            raise BadInput(f"readings[{index}].temperature", f"{degrees:g} degC", need)
    slope, start = _line([(at, math.log(one - ambient_degC)) for at, one in readings])
    if not slope < 0:
        raise BadInput("readings", "", "do not fall: read it again, or it is still being warmed")
    tau = -1 / slope
    now = readings[-1][0] if now_s is None else now_s
    over = math.exp(start + slope * now)
    left = None
    if until_degC > ambient_degC:
        left = max(0.0, tau * math.log(over / (until_degC - ambient_degC)))
    return Cooling(tau, ambient_degC + over, left, ambient_degC, start)


def _line(points: Sequence[tuple[float, float]]) -> tuple[float, float]:
    """Slope and start of the least-squares line."""
    count = len(points)
    mean_x = math.fsum(x for x, _ in points) / count
    mean_y = math.fsum(y for _, y in points) / count
    spread = math.fsum((x - mean_x) ** 2 for x, _ in points)
    if not spread > 0:
        raise BadInput("readings", "", "are all of one time; wait a little between them")
    slope = math.fsum((x - mean_x) * (y - mean_y) for x, y in points) / spread
    return slope, mean_y - slope * mean_x
