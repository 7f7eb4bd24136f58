"""Numbers as a person reads them: in the gauge's precision, and in both units.

A length is never shown finer than it was read; the other unit gets the decimals that the same step
needs there.
"""

import math
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from typing import Literal

Lead = Literal["metric", "inch"]
"""Which unit stands first; the other always stands beside it."""

MM_PER_THOU = 0.0254
N_M_PER_LBF_FT = 1.3558179483
_FINEST_DECIMALS = 4

SHIM_STEP_MM = 0.001
"""A ground shim and a spacer are measured by a micrometer."""


def decimals(step: float) -> int:
    """Decimals that a step of this size needs.

    >>> decimals(0.01), decimals(0.002), decimals(1)
    (2, 3, 0)
    """
    return min(max(math.ceil(-math.log10(step) - 1e-9), 0), _FINEST_DECIMALS)


def mm(length_mm: float, step_mm: float = 0.01) -> str:
    """A length in mm, in the precision of a step in mm.

    >>> mm(0.186), mm(-0.0)
    ('0.19 mm', '0.00 mm')
    """
    return f"{bare(length_mm, step_mm)} mm"


def bare(length_mm: float, step_mm: float = 0.01) -> str:
    """The same without its unit, where that stands beside: on an axis, on a drawing.

    >>> bare(0.3305, 0.001)
    '0.331'
    """
    return _rounded(length_mm, decimals(step_mm))


def thou(length_mm: float, step_mm: float = 0.01) -> str:
    """The same length in thousandths of an inch.

    >>> thou(0.19)
    '7.5 thou'
    """
    return f"{_rounded(length_mm / MM_PER_THOU, decimals(step_mm / MM_PER_THOU))} thou"


def length(length_mm: float, step_mm: float = 0.01, lead: Lead = "metric") -> str:
    """A length in the unit that leads.

    >>> length(0.19, 0.01, "inch")
    '7.5 thou'
    """
    return mm(length_mm, step_mm) if lead == "metric" else thou(length_mm, step_mm)


def both(length_mm: float, step_mm: float = 0.01, lead: Lead = "metric") -> str:
    """A length in both units, the one that leads first.

    >>> both(0.19), both(0.19, 0.01, "inch")
    ('0.19 mm (7.5 thou)', '7.5 thou (0.19 mm)')
    """
    first, second = mm(length_mm, step_mm), thou(length_mm, step_mm)
    if lead == "inch":
        first, second = second, first
    return f"{first} ({second})"


def span(low_mm: float, high_mm: float, step_mm: float = 0.01, lead: Lead = "metric") -> str:
    """From one length to another in both units, the one that leads first.

    >>> span(0.03, 0.12), span(0.03, 0.12, 0.01, "inch")
    ('0.03 to 0.12 mm (1.2 to 4.7 thou)', '1.2 to 4.7 thou (0.03 to 0.12 mm)')
    """
    first, second = (
        f"{write(low_mm, step_mm).rpartition(' ')[0]} to {write(high_mm, step_mm)}"
        for write in (mm, thou)
    )
    if lead == "inch":
        first, second = second, first
    return f"{first} ({second})"


def thickness(length_mm: float) -> str:
    """A shim's thickness in mm: two decimals, more only where it has them.

    >>> thickness(0.1), thickness(0.1016), thickness(0.127)
    ('0.10', '0.1016', '0.127')
    """
    whole, _, part = f"{length_mm:.4f}".rstrip("0").partition(".")
    return f"{whole}.{part.ljust(2, '0')}"


def pack(shims_mm: Iterable[float], names: Mapping[float, str] | None = None) -> str:
    """A pack as a sum, or "no shims"; `names` gives the words on a shim where they differ.

    >>> pack([0.2, 0.1, 0.1])
    '0.20 + 2 × 0.10'
    """
    known = names or {}
    counts = Counter(known.get(shim, thickness(shim)) for shim in shims_mm)
    words = [shim if many == 1 else f"{many} × {shim}" for shim, many in counts.items()]
    return " + ".join(words) or "no shims"


def sides(packs: Sequence[Sequence[float]], names: Mapping[float, str] | None = None) -> str:
    """A pack of one side, or of left and right.

    >>> sides([[0.3], [0.3, 0.1]])
    'left 0.30, right 0.30 + 0.10'
    """
    if len(packs) == 1:
        return pack(packs[0], names)
    left, right = (pack(one, names) for one in packs)
    return f"left {left}, right {right}"


def torque(torque_N_m: float, lead: Lead = "metric") -> str:
    """A torque in both units, the one that leads first.

    >>> torque(61), torque(61, "inch")
    ('61 N·m (45 lbf·ft)', '45 lbf·ft (61 N·m)')
    """
    first, second = f"{_short(torque_N_m)} N·m", f"{_short(torque_N_m / N_M_PER_LBF_FT)} lbf·ft"
    if lead == "inch":
        first, second = second, first
    return f"{first} ({second})"


def figure(
    text: str, value: float, dimension: Literal["length", "torque"], lead: Lead = "metric"
) -> str:
    """A card's figure as the card has it, and in the other unit beside it.

    >>> figure("22.5 N·m", 22.5, "torque")
    '22.5 N·m (16.6 lbf·ft)'
    """
    inch = any(unit in text for unit in ("in", "thou", "mil", '"', "ft", "lb", "oz"))
    if dimension == "torque":
        other = f"{_fine(value)} N·m" if inch else f"{_fine(value / N_M_PER_LBF_FT)} lbf·ft"
    else:
        other = f"{thickness(value)} mm" if inch else thou(value, 0.002)
    leads = lead == ("inch" if inch else "metric")
    return f"{text} ({other})" if leads else f"{other} ({text})"


def _fine(value: float) -> str:
    """Three figures that count, without a bare ".0"."""
    return _rounded(value, 0 if abs(value) >= 100 else 1).removesuffix(".0")


def count(number: int, noun: str) -> str:
    """A number with its noun.

    >>> count(1, "shim"), count(3, "shim")
    ('1 shim', '3 shims')
    """
    return f"{number} {noun}{'' if number == 1 else 's'}"


def _short(value: float) -> str:
    return _rounded(value, 0) if abs(value) >= 20 else _rounded(value, 1)


def _rounded(value: float, places: int) -> str:
    # Halves away from zero, as on paper; the tiny push undoes binary fractions just below a half.
    scaled = math.floor(abs(value) * 10**places + 0.5 + 1e-9)
    sign = "−" if value < 0 and scaled else ""
    return f"{sign}{scaled / 10**places:.{places}f}"
