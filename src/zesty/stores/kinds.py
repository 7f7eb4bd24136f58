"""What each kind of instrument measures, and the unit of a bare number; a thermometer has no step here."""

from wheelend.quantity import FORCE, LENGTH, TORQUE, Dimension

MEASURES: dict[str, tuple[Dimension, str]] = {
    "dial": (LENGTH, "mm"), "feeler": (LENGTH, "mm"), "wrench": (TORQUE, "N·m"),
    "torque_meter": (TORQUE, "N·m"), "scale": (FORCE, "N"),
}  # fmt: skip
METERS = ("torque_meter", "scale")
"""Kinds that read turning torque, or a pull."""
