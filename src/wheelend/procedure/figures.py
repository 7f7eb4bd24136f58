"""The number that each kind of step takes, in which unit, and how much of everything a log may hold."""

from collections.abc import Mapping

from wheelend.card.figures import FigureOf
from wheelend.quantity import ANGLE, FORCE, LENGTH, MASS, TEMPERATURE, TORQUE, USAGE

WARMTH = FigureOf(TEMPERATURE, "degC", -100, 400)
"""What a thermometer of a workshop reads, in freezer and oven."""

FIGURES: Mapping[str, FigureOf] = {
    "series": FigureOf(LENGTH, "mm", -100, 100),
    "torque": FigureOf(TORQUE, "N·m", 0.01, 20_000),
    "place": FigureOf(ANGLE, "deg", 0, 360),
    "seat": FigureOf(ANGLE, "deg", 0, 360),
    "usage": FigureOf(USAGE, "", 0, 99_999_999),
    "measure": FigureOf(LENGTH, "mm", -50, 3000),
    "warmth": WARMTH,
    "mass": FigureOf(MASS, "g", 0.1, 100_000),
    "force": FigureOf(FORCE, "N", 0, 10_000_000),
    "turning": FigureOf(TORQUE, "N·m", 0, 5000),
    "pull": FigureOf(FORCE, "N", 0, 10_000),
    "arm": FigureOf(LENGTH, "mm", 1, 2000),
    "angle": FigureOf(ANGLE, "deg", 0, 360),
    "stand_out": FigureOf(LENGTH, "mm", -50, 50),
    "backlash": FigureOf(LENGTH, "mm", 0, 10),
}
"""The number of each kind of step that takes one."""

SHIM = FigureOf(LENGTH, "mm", 0.001, 20)
"""One shim. Thinner is no shim, thicker is a spacer."""

PART_LENGTH = FigureOf(LENGTH, "mm", 0.001, 2000)
"""A part's thickness, or a whole stack's length."""

SHIMS_OF_ONE = 999
"""What a tray holds of one thickness."""

THICKNESSES = 400
"""Different thicknesses that a tray holds."""

MOST_IN_PACK = 50
MOST_ROUNDS = 999
MOST_CLOSINGS = 999
LONGEST_NOTE = 400
