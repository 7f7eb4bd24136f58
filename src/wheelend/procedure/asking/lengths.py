"""What lengths measured at several places come to: a spacer's faces, a spacer against its shoulders, a gap,
backlash before and after."""

import math
import statistics
from collections.abc import Callable, Iterable, Mapping

from wheelend.compare import Known, compare
from wheelend.procedure.asking.frame import At, Judged
from wheelend.procedure.log import Written
from wheelend.quantity import LENGTH, last_digit
from wheelend.verdict import SAME, Gauge, of_readings
from wheelend.wording import SHIM_STEP_MM, both, length, span


def known(rows: Iterable[Written]) -> Known | None:
    """The mean of lengths in mm, with the doubt of their last digit and of their spread; None of none."""
    said = [row for row in rows if row.kind == "value" and row.value is not None]
    if not said:
        return None
    values = [float(row.value or 0) for row in said]
    spread = statistics.stdev(values) if len(values) > 1 else 0.0
    doubt = 2 * math.sqrt(step_of(said) ** 2 / 12 + spread**2 / len(values))
    return Known(statistics.fmean(values), doubt)


def step_of(rows: Iterable[Written]) -> float:
    """The coarsest last digit of some lengths, mm."""
    return max(float(last_digit(row.typed, LENGTH)) for row in rows)


def spread_of(rows: Iterable[Written]) -> float:
    """From the least to the most, mm."""
    values = [float(row.value or 0) for row in rows]
    return max(values) - min(values)


def _spacer(at: At, said: Mapping[str, Written]) -> Judged:
    mean = statistics.fmean(float(row.value or 0) for row in said.values())
    apart = spread_of(said.values())
    words = f"{both(mean, SHIM_STEP_MM, at.lead)}, parallel {length(apart, SHIM_STEP_MM, at.lead)}"
    most = at.setting.parallel
    if most and apart > most.value + SAME:
        thick = max(said, key=lambda place: float(said[place].value or 0))
        by = both(apart, SHIM_STEP_MM, at.lead)
        text = (
            f"Its faces are out of parallel by {by}, and the card allows {most}: grind it at"
            f" {thick} o’clock, or take another. A crooked spacer squeezes one side. Then measure it again."
        )
        return Judged(words, text, tuple(said))
    return Judged(words)


def _spacer_pair(at: At, said: Mapping[str, Written]) -> Judged:
    spacer, upright = (
        [row for place, row in said.items() if place.startswith(name)]
        for name in ("spacer", "upright")
    )
    apart = statistics.fmean(float(r.value or 0) for r in upright) - statistics.fmean(
        float(r.value or 0) for r in spacer
    )
    by = both(abs(apart), SHIM_STEP_MM, at.lead)
    return Judged(f"the spacer is {by} shorter: that is the preload" if apart > 0 else
                  f"the spacer is {by} longer: no preload")  # fmt: skip


def _spacer_fit(at: At, said: Mapping[str, Written]) -> Judged:
    apart = float(said["spacer"].value or 0) - float(said["shoulders"].value or 0)
    doubt = 2 * math.sqrt(2 * step_of(said.values()) ** 2 / 12)
    by = both(abs(apart), lead=at.lead)
    if apart < -doubt:
        text = (
            f"The spacer is {by} shorter than its shoulders: the nut would load the balls. Take the"
            " right spacer, or measure again."
        )
        return Judged(f"shorter by {by}", text, tuple(said))
    return Judged(f"longer by {by}" if apart > doubt else "as long as its shoulders stand apart")


def _gap(at: At, said: Mapping[str, Written]) -> Judged:
    window = at.setting.gap
    values = [float(row.value or 0) for row in said.values()]
    words = span(min(values), max(values), lead=at.lead)
    if window is None:
        return Judged(f"{words}, not judged: the card names no gap")
    limits = window.limits
    found = of_readings(values, limits, Gauge(step_of(said.values())))
    if found.word == "within" and all(limits.inside(one) for one in values):
        return Judged(f"{words}, inside")
    text = (
        f"{words}, and the card says {window}: open it, look at cups and shims; or measure again."
    )
    return Judged(f"{words}, not inside", text, tuple(said))


def _backlash_after(at: At, said: Mapping[str, Written]) -> Judged:
    before, after = known(at.others("backlash_before")), known(said.values())
    if before is None or after is None:
        return Judged("not compared: none was read before it was opened")
    found = compare(before, after)
    now, then = both(after.value, lead=at.lead), length(before.value, lead=at.lead)
    words = f"{now}, before {then}, ± {length(found.U, lead=at.lead)}"
    if found.verdict == "agrees":
        return Judged(f"{words}: as it was")
    text = f"{words}: not as before. What is swapped, or not home? Shims, cups and caps go to their own side."
    return Judged(words, text, tuple(said))


RULES: dict[str, Callable[[At, Mapping[str, Written]], Judged]] = {
    "spacer": _spacer,
    "spacer_pair": _spacer_pair,
    "spacer_fit": _spacer_fit,
    "gap": _gap,
    "backlash_after": _backlash_after,
}
