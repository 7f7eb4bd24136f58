"""Checks that are measured: what the numbers at their places answer.

Play and runout are judged against the card's limits with the doubt of what was typed; warmth by the
differences that the table of checks gives with its reason.
"""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction

from wheelend.diagnose.table import UNKNOWN, Check
from wheelend.endplay import Pair, end_play, face_runout
from wheelend.quantity import LENGTH, TEMPERATURE, Dimension, last_digit, parse
from wheelend.verdict import Gauge, Limits, Word, classify


@dataclass(frozen=True)
class Gauged:
    """What a measured check says: the figure in words, and its answer where limits give one.

    `answer` is empty where the card has no limit to judge by, `unknown` where the figure is too near
    to one to be told with what it was read with.
    """

    figure: str
    answer: str = ""
    why: str = ""


def dimension_of(check: Check) -> Dimension:
    """What is typed at each place of a measured check."""
    return TEMPERATURE if check.gauge == "warmth" else LENGTH


def gauged(check: Check, typed: Mapping[str, str], limits: Limits | None) -> Gauged | None:
    """What a check says once each of its places was measured; None before that.

    `typed` are quantities by place; `limits` what the card allows, in mm. Raises BadInput for a text
    that is no quantity.
    """
    if not check.gauge or any(place not in typed for place in check.places):
        return None
    return _RULES[check.gauge](check, typed, limits)


def _numbers(typed: Mapping[str, str], dimension: Dimension) -> tuple[dict[str, float], float]:
    values = {place: float(parse(text, dimension)) for place, text in typed.items()}
    step: Fraction = max(last_digit(text, dimension) for text in typed.values())
    return values, float(step)


def _play(_: Check, typed: Mapping[str, str], limits: Limits | None) -> Gauged:
    values, step = _numbers(typed, LENGTH)
    found = end_play([Pair(values["in"], values["out"])], Gauge(step), limits=limits)
    figure = f"{found.play_mm:.{_digits(step)}f} mm of play"
    return _judged(figure, found.verdict.word if found.verdict else None)


def _swing(_: Check, typed: Mapping[str, str], limits: Limits | None) -> Gauged:
    values, step = _numbers(typed, LENGTH)
    swing = face_runout([Pair(value, value, place) for place, value in values.items()]) or 0.0
    figure = f"{swing:.{_digits(step)}f} mm of runout"
    if limits is None:
        return Gauged(figure)
    doubt = 2 * math.sqrt(2 * step**2 / 12)
    return _judged(figure, classify(swing, swing, doubt, limits))


def _warmth(check: Check, typed: Mapping[str, str], _: Limits | None) -> Gauged:
    values, _step = _numbers(typed, TEMPERATURE)
    over = values["this"] - values["other"]
    brake = values["brake"] - values["this"]
    figure = f"{abs(over):.0f} °C {'over' if over >= 0 else 'below'} the other hub"
    if brake >= check.by["brake"]:
        return Gauged(f"{figure}; the brake {brake:.0f} °C over its hub", "brake_hot")
    if over >= check.by["hot"]:
        return Gauged(figure, "hub_hot")
    return Gauged(figure, "hub_warmer" if over >= check.by["warmer"] else "even")


def _judged(figure: str, word: Word | None) -> Gauged:
    if word is None:
        return Gauged(figure)
    if word == "undecided":
        return Gauged(figure, UNKNOWN, "too near the limit for this dial: read it with a finer one")
    return Gauged(figure, word)


def _digits(step: float) -> int:
    return max(2, min(4, round(-math.log10(step)))) if step > 0 else 2


_RULES: Mapping[str, Callable[[Check, Mapping[str, str], Limits | None], Gauged]] = {
    "play": _play,
    "swing": _swing,
    "warmth": _warmth,
}
