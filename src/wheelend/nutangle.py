"""What play turning a nut back sets, and how a dial reading stands beside it. Pitch times angle is play."""

import math
from dataclasses import dataclass

from wheelend.compare import Known
from wheelend.errors import BadInput
from wheelend.verdict import SAME, Limits, Word, classify

ANGLE_DOUBT_DEG = 5.0
"""How well an angle is turned by hand (expanded, k = 2), where nothing else is known."""
LASH_DOUBT_MM = 0.01
"""How well lash-free is found by hand (expanded, k = 2), where nothing else is known."""


@dataclass(frozen=True)
class NutAngle:
    """The play that an angle sets and its expanded doubt, mm; what was measured outranks it.

    `verdict` and `turn_deg` (further back positive, to the aim) are of the play that counts.
    """

    play_mm: float
    U_mm: float
    verdict: Word | None = None
    turn_deg: float | None = None
    difference_mm: float | None = None
    agrees: bool | None = None

    def counts(self, measured: Known | None = None) -> Known:
        """The play that counts: what was measured, else what was turned."""
        return measured or Known(self.play_mm, self.U_mm)


def nut_angle(
    pitch_mm: float,
    angle_deg: float,
    *,
    angle_doubt_deg: float = ANGLE_DOUBT_DEG,
    lash_doubt_mm: float = LASH_DOUBT_MM,
    limits: Limits | None = None,
    aim_mm: float | None = None,
    measured: Known | None = None,
) -> NutAngle:
    """The play that turning back `angle_deg` from lash-free sets; lengths in mm, doubts expanded.

    play = pitch·angle/360, U = √((pitch·angle_doubt/360)² + lash_doubt²). Without an aim, the middle of
    the limits where both are given. Raises BadInput for a pitch that is not above 0, a negative angle or
    doubt. Source: geometry of a screw; doubts of independent causes add by their squares (JCGM 100:2008).

    >>> round(nut_angle(1.5, 60).play_mm, 3)
    0.25
    """
    for name, value in (
        ("angle", angle_deg),
        ("angle_doubt", angle_doubt_deg),
        ("lash_doubt", lash_doubt_mm),
    ):
        if value < 0:
            raise BadInput(name, f"{value:g}", "must not be negative")
    if not pitch_mm > 0:
        raise BadInput("pitch", f"{pitch_mm:g} mm", "must be above 0")
    turned = Known(
        pitch_mm * angle_deg / 360, math.hypot(pitch_mm * angle_doubt_deg / 360, lash_doubt_mm)
    )
    counts = measured or turned
    aim = aim_mm
    if aim is None and limits is not None and limits.window is not None:
        aim = (limits.lowest + limits.highest) / 2
    apart = None if measured is None else abs(measured.value - turned.value)
    return NutAngle(
        turned.value,
        turned.U,
        verdict=classify(counts.value, counts.value, counts.U, limits) if limits else None,
        turn_deg=None if aim is None else 360 * (aim - counts.value) / pitch_mm,
        difference_mm=apart,
        agrees=None
        if apart is None or measured is None
        else apart <= math.hypot(turned.U, measured.U) + SAME,
    )
