"""Slips of the hand: a value far from what is likely is held, and asked about with what it may mean.

The most common fault is a misread or mistyped number: a lost point, the other unit, a tenth, ten
times. Each rule says what is likely where it stands; `ask` finds the spellings that would be.
"""

import itertools
import math
import statistics
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction

from wheelend.card import Setting
from wheelend.procedure.asking.apart import base_of
from wheelend.procedure.asking.readings import Series
from wheelend.procedure.log import Instrument
from wheelend.quantity import FORCE, LENGTH, MASS, TEMPERATURE, TORQUE, Dimension, parse, unit_of
from wheelend.verdict import SAME, SEATING_AGAIN_MM, sure
from wheelend.wording import mm

MOST_OPTIONS = 2
_FACTORS = tuple(Fraction(text) for text in ("1/10", "1/100", "10", "100", "1/1000"))
_OTHER_UNITS = {
    LENGTH.name: ("mm", "thou", "in"),
    TORQUE.name: ("N·m", "lbf·ft", "lbf·in", "cN·m"),
    FORCE.name: ("N", "lbf", "kgf"),
    TEMPERATURE.name: ("degC", "degF"),
    MASS.name: ("g", "kg", "oz"),
}


@dataclass(frozen=True)
class Question:
    """What was typed, why it is doubted, and what it may mean; the values typed in full.

    `window` is what the card asks for, in mm or N·m, where it asks for one.
    """

    typed: str
    why: str
    options: tuple[str, ...]
    dimension: Dimension | None = None
    window: tuple[float, float] | None = None

    @property
    def words(self) -> str:
        """The question as one sentence."""
        if not self.options:
            return f"You typed {self.typed}. Is that right?"
        return f"You typed {self.typed}. Is it {' or '.join(self.options)}?"


Likely = Callable[[Fraction], bool]


def ask(
    typed: str,
    dimension: Dimension,
    likely: Likely,
    why: str,
    near: float | None = None,
    *,
    possible: Likely | None = None,
    window: tuple[float, float] | None = None,
) -> Question | None:
    """A question where what was typed is not likely, or None where it is.

    `typed` has its unit. `near` orders the spellings: the nearest to it first. In another unit a
    value only has to be `possible`: an instrument shows no round numbers of the other kind.
    """
    value = parse(typed, dimension)
    if likely(value):
        return None
    found: dict[Fraction, str] = {}
    for text, other_unit in _spellings(typed, dimension):
        meant = parse(text, dimension)
        if (possible or likely)(meant) if other_unit else likely(meant):
            found.setdefault(meant, text)
    order = sorted(found, key=lambda one: abs(float(one) - near) if near is not None else 0.0)
    options = tuple(found[one] for one in order[:MOST_OPTIONS])
    return Question(typed, why, options, dimension, window)


def _spellings(typed: str, dimension: Dimension) -> Iterator[tuple[str, bool]]:
    """What may have been meant: a shifted point, or the same digits in another unit (then true)."""
    unit = unit_of(typed)
    number = typed.removesuffix(unit).strip().replace(",", ".")
    try:
        plain = Fraction(number)
    except (ValueError, ZeroDivisionError):
        return
    for factor in _FACTORS:
        yield f"{_decimal(plain * factor)} {unit}", False
    for other in _OTHER_UNITS.get(dimension.name, ()):
        if other != unit:
            yield f"{number} {other}", True


@dataclass(frozen=True)
class Meaning:
    """What a misread or mistyped number may have been: how it slipped, and the value in full."""

    how: str
    typed: str


def meanings(typed: str, dimension: Dimension) -> tuple[Meaning, ...]:
    """Every value that one slip of hand or eye may have turned into this one; no value twice.

    >>> [one.typed for one in meanings("0.21 mm", LENGTH)][:3]
    ['2.01 mm', '0.12 mm', '0.021 mm']
    """
    found: dict[Fraction, Meaning] = {parse(typed, dimension): Meaning("", typed)}
    for how, text in _slipped(typed, dimension):
        found.setdefault(parse(text, dimension), Meaning(how, text))
    return tuple(one for one in found.values() if one.how)


def _slipped(typed: str, dimension: Dimension) -> Iterator[tuple[str, str]]:
    unit = unit_of(typed)
    number = typed.removesuffix(unit).strip().replace(",", ".")
    for swapped in _swapped(number):
        yield "two digits swapped", f"{swapped} {unit}"
    for text, other_unit in _spellings(typed, dimension):
        yield ("the other unit" if other_unit else "a lost point"), text
    try:
        plain = Fraction(number)
    except (ValueError, ZeroDivisionError):
        return
    yield "half of it", f"{_decimal(plain / 2)} {unit}"
    yield "twice that", f"{_decimal(plain * 2)} {unit}"


def _swapped(number: str) -> Iterator[str]:
    """The number with two neighbouring digits exchanged; a point between them stays."""
    digits = [place for place, sign in enumerate(number) if sign.isdigit()]
    for here, there in itertools.pairwise(digits):
        if number[here] != number[there]:
            signs = list(number)
            signs[here], signs[there] = signs[there], signs[here]
            yield "".join(signs)


def _decimal(number: Fraction) -> str:
    return f"{float(number):.6f}".rstrip("0").rstrip(".")


@dataclass(frozen=True)
class Expected:
    """The play that earlier trials predict for the pack that is in, with its standard deviation; mm."""

    play_mm: float
    doubt_mm: float


def of_reading(
    typed: str,
    series: Series,
    place: str,
    push: str,
    setting: Setting,
    tool: Instrument | None,
    expected: Expected | None = None,
) -> Question | None:
    """A dial reading, against the card's limits, the dial's step and what was read before.

    A play that is not that of the other places, or what earlier trials predict, is asked about only
    where a slip would explain it: two digits swapped, a lost point, the other unit, twice or half.
    """
    step = tool.gauge.resolution if tool else 0.01
    high = setting.limits.high.value if setting.limits and setting.limits.high else 0.15
    most = max(10 * high, 1.0)
    before = series.readings.get((place, "in" if push == "out" else "out"))
    base = before.value if before and before.value is not None else 0.0
    plays = _plays(series)

    def possible(value: Fraction) -> bool:
        return abs(float(value) - base) <= most + SAME

    def likely(value: Fraction) -> bool:
        shown = not value or abs(value) >= Fraction(repr(step)) / 2
        return possible(value) and shown and _on_step(float(value), step)

    near = base + (plays[-1] if plays else high / 2)
    why = f"This dial reads in steps of {_decimal(Fraction(repr(step)))} mm"
    if plays:
        why += f", and before you read {plays[-1]:.3g} mm of play"
    why += ". Nothing is lost; the hub can stay as it is."
    limits = setting.limits
    window = (limits.limits.lowest, high) if limits and limits.low and limits.high else None
    asked = ask(typed, LENGTH, likely, why, near, possible=possible, window=window)
    if asked or before is None or series.turned:
        return asked
    known = _known(series, place, step, expected)
    return _departs(typed, base, known, step, window) if known else None


def _known(
    series: Series, place: str, step: float, expected: Expected | None
) -> tuple[Expected, str] | None:
    """The play that a place should show, and whose word that is."""
    others = [pair.play_mm for other, pair in series.pairs.items() if base_of(other) != place]
    if others:
        doubt = math.sqrt(step**2 / 6 + series.repeatability_mm**2)
        return Expected(statistics.median(others), doubt), "before you read"
    return (expected, "earlier trials say") if expected else None


def _departs(
    typed: str, base: float, known: tuple[Expected, str], step: float,
    window: tuple[float, float] | None,
) -> Question | None:  # fmt: skip
    play, whose = known
    reach = sure() * math.sqrt(play.doubt_mm**2 + step**2 / 6 + SEATING_AGAIN_MM**2) + SAME

    def off(text: str) -> float:
        return abs(abs(float(parse(text, LENGTH)) - base) - play.play_mm)

    if off(typed) <= reach:
        return None
    meant = [
        one
        for one in meanings(typed, LENGTH)
        if off(one.typed) <= reach and _on_mark(float(parse(one.typed, LENGTH)), step)
    ]
    meant.sort(key=lambda one: off(one.typed))
    if not meant:
        return None
    here = abs(float(parse(typed, LENGTH)) - base)
    why = f"With it the play is {mm(here, step)}, and {whose} {mm(play.play_mm, step)}"
    return Question(
        typed, f"{why}: {meant[0].how}? Nothing is lost.",
        tuple(one.typed for one in meant[:MOST_OPTIONS]), LENGTH, window,
    )  # fmt: skip


def _plays(series: Series) -> list[float]:
    return [pair.play_mm for pair in series.pairs.values()]


_TWENTIETH = 0.055
"""A dial in thou shows no whole micrometres and the other way round: a twentieth of a step is allowed."""


def _on_step(value: float, step: float) -> bool:
    """Whether a dial of this step can show a value: half steps are read between two marks."""
    halves = value / (step / 2)
    return abs(halves - round(halves)) < _TWENTIETH * 2


def _on_mark(value: float, step: float) -> bool:
    """Whether a value stands on a mark of the dial, or is in the unit that it has not."""
    return abs(value / step - round(value / step)) < _TWENTIETH * 2


def of_torque(typed: str, setting: Setting) -> Question | None:
    """A torque, against the card's."""
    if setting.torque is None:
        return None
    wanted, window = setting.torque, setting.torque_window
    low = min(wanted.value * 0.7, window.lowest if window else wanted.value)
    high = max(wanted.value * 1.4, window.highest if window and window.high else wanted.value)

    def likely(value: Fraction) -> bool:
        return low <= float(value) <= high

    why = f"The card says {wanted}."
    return ask(typed, TORQUE, likely, why, wanted.value, window=_torque_window(setting))


def _torque_window(setting: Setting) -> tuple[float, float] | None:
    window = setting.torque_window
    if window is None or window.low is None or window.high is None:
        return None
    return window.low, window.high


def of_shim(typed: str, usual: Iterable[float]) -> Question | None:
    """One shim of a pack, against the tray and earlier packs."""
    thickest = max([*usual, 1.0])

    def likely(value: Fraction) -> bool:
        return Fraction(1, 100) <= value <= Fraction(repr(max(2.0, 1.5 * thickest)))

    return ask(typed, LENGTH, likely, f"The thickest shim here has {thickest:.3g} mm.", 0.5)


def of_usage(typed: str, value: float, last: float | None, days: int) -> Question | None:
    """A counter, against the last one: nothing goes 2000 a day."""
    if last is None or value <= last + 2000 * max(days, 1):
        return None
    why = f"The last one was {last:g}, {days} days ago."
    tenth = f"{value / 10:g} {unit_of(typed)}"
    options = (tenth,) if last <= value / 10 <= last + 2000 * max(days, 1) else ()
    return Question(typed, why, options)


def of_move(typed: str, value: float) -> Question | None:
    """How far a nut moved when it was torqued again."""
    if value <= 90:
        return None
    why = "A nut that is torqued again moves a few degrees, not a quarter turn."
    return Question(typed, why, (f"{value / 10:g} deg",) if value / 10 <= 90 else ())
