"""What hands can feel: end play seen at the wheel's rim."""

import math

from wheelend.errors import BadInput

THRESHOLD_MM = 0.25
"""The smallest movement that hands tell from nothing."""


def at_hands(radius_mm: float, spread_mm: float, contact_angle_deg: float, play_mm: float) -> float:
    """Movement in mm where the hands hold, from an end play in mm.

    2·radius·play·tan(angle)/spread: end play lets the hub rock between the bearings' effective
    load centres. Raises BadInput for sizes that are not above 0. Source: geometry.

    >>> round(at_hands(330, 60, 14, 0.1), 4)
    0.2743
    """
    if play_mm < 0:
        raise BadInput("play", f"{play_mm:g} mm", "must not be negative")
    return play_mm * _magnified(radius_mm, spread_mm, contact_angle_deg)


def smallest_felt(
    radius_mm: float,
    spread_mm: float,
    contact_angle_deg: float,
    threshold_mm: float = THRESHOLD_MM,
) -> float:
    """The smallest end play in mm that hands can feel on this wheel end.

    Where the movement at the hands equals the threshold. Raises BadInput for sizes that are not
    above 0. Source: geometry.

    >>> round(smallest_felt(330, 60, 14), 4)
    0.0912
    """
    if not threshold_mm > 0:
        raise BadInput("threshold", f"{threshold_mm:g} mm", "must be above 0")
    return threshold_mm / _magnified(radius_mm, spread_mm, contact_angle_deg)


def _magnified(radius_mm: float, spread_mm: float, contact_angle_deg: float) -> float:
    for name, value in (("radius", radius_mm), ("spread", spread_mm)):
        if not value > 0:
            raise BadInput(name, f"{value:g} mm", "must be above 0")
    if not 0 < contact_angle_deg < 90:
        raise BadInput("contact_angle", f"{contact_angle_deg:g} deg", "is not between 0 and 90 deg")
    return 2 * radius_mm * math.tan(math.radians(contact_angle_deg)) / spread_mm
