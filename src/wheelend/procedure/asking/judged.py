"""What measured places say together: a weighed bearing, the depth of a seal; what must be done again."""

import math
import statistics
from collections.abc import Callable, Iterable, Mapping

from wheelend.card import Part
from wheelend.card.model import SealOf
from wheelend.circle import clock_words
from wheelend.compare import Known, compare
from wheelend.errors import BadInput
from wheelend.grease import Bearing, Packing, grease, state_of
from wheelend.procedure.adding import added, added_words
from wheelend.procedure.asking import lengths
from wheelend.procedure.asking.frame import At, Judged
from wheelend.procedure.log import Written
from wheelend.quantity import LENGTH, TORQUE, last_digit
from wheelend.sealdepth import SealDepth, seal_depth
from wheelend.wording import both


def judged(at: At, said: Mapping[str, Written]) -> Judged | None:
    """What every place together says of this kind of step; None where nothing is judged."""
    rule = _RULES.get(at.step.kind)
    return rule(at, said) if rule else None


# ---- a bearing, weighed dry and packed


def bearing_of(part: Part) -> Bearing | None:
    """A part as grease sees it; None where the card lacks a size or its mass."""
    sizes = (part.bore, part.outside, part.width, part.mass)
    if any(one is None for one in sizes):
        return None
    bore, outside, width, mass = (one.value for one in sizes if one)
    return Bearing(bore, outside, width, mass)


def packing(at: At, part: Part, weighed_g: tuple[float, float] | None = None) -> Packing | None:
    """Grease for one bearing by the card; None where it can't be reckoned."""
    bearing = bearing_of(part)
    if bearing is None:
        return None
    what = at.card.lubricant
    cavity = (what.cavity.value, what.cavity_fill or 0.0) if what.cavity else None
    density = {"density": what.density.value} if what.density else {}
    try:
        return grease(bearing, fill=what.fill, weighed_g=weighed_g, cavity=cavity, **density)
    except BadInput:
        return None


def _weighed(at: At, said: Mapping[str, Written]) -> Judged:
    words, held, again = [], [], []
    keys = dict.fromkeys(place.partition(".")[0] if "." in place else "" for place in said)
    for key in keys:
        point = f"{key}." if key else ""
        part = at.card.stack[int(key[1:])] if key else _only(at)
        dry, full = said.get(f"{point}dry"), said.get(f"{point}packed")
        if dry is None or full is None or part is None:
            continue
        one = _one_weighed(at, part, float(dry.value or 0), float(full.value or 0))
        words.append(f"{part.name}: {one.words}")
        if one.held:
            held.append(f"{part.name}: {one.held}")
            again += [f"{point}{place}" for place in one.again]
    return Judged("; ".join(words), " ".join(held), tuple(again))


def _only(at: At) -> Part | None:
    return next((one for one in at.card.stack if one.part in at.step.each), None)


_MORE = "press grease in from the wide end until it shows at every gap of the other side, then weigh it again."


def _one_weighed(at: At, part: Part, dry: float, full: float) -> Judged:
    if full < dry:
        text = f"{full:g} g packed is less than {dry:g} g dry; were the two exchanged?"
        return Judged(text, text, ("dry", "packed"))
    found = packing(at, part, (dry, full))
    if found is None or found.packed is None:
        return Judged(
            f"{full - dry:.1f} g of grease; the card’s sizes don’t tell how much it takes"
        )
    share = found.packed / at.card.lubricant.fill
    grams = f"{full - dry:.1f} g of {found.fill_g:.1f} g"
    if share > _MOST_PACKED:
        text = (
            f"{grams} is more than goes in: wipe some out, or read the scale again, dry and packed"
        )
        return Judged(text, f"{text}.", ("dry", "packed"))
    state = state_of(share)
    if state == "packed":
        return Judged(f"packed, {grams}")
    what = "hollow between" if state == "voids" else "mostly dry"
    return Judged(f"{what}, {grams}", f"{what}, {grams}: {_MORE}", ("packed",))


_MOST_PACKED = 1.25
"""Grease that stands on the rings weighs too; more than this is a slip of the scale, or too much of it."""


# ---- a seal, measured round its face


def seal_found(at: At, said: Mapping[str, Written]) -> SealDepth | None:
    """The plane of a seal that was measured; None while it can't be told."""
    seal = seal_of(at)
    try:
        return seal_depth(
            [(place, float(row.value or 0)) for place, row in said.items()],
            max(float(last_digit(row.typed, LENGTH)) for row in said.values()),
            limits=seal.limits if seal else None,
            even_mm=seal.even.value if seal and seal.even else None,
        )
    except (BadInput, ValueError):
        return None


def seal_of(at: At) -> SealOf | None:
    """What the card says of the seal that the step needs."""
    wanted = at.step.needs.removeprefix("seal:")
    return next((one for one in at.card.seals if wanted in one.part), None)


def _seal_level(at: At, said: Mapping[str, Written]) -> Judged:
    found = seal_found(at, said)
    if found is None:
        return Judged("")
    places = tuple(said)
    tilt = both(found.tilt_mm, lead=at.lead)
    words = f"{both(found.depth_mm, lead=at.lead)} deep, {tilt} out of level"
    if found.flags:
        return Judged(f"{words}, not flat", _BENT, places)
    if found.even in ("above", "undecided") and found.shallowest_deg is not None:
        where = clock_words(found.shallowest_deg)
        high = f"It stands high at {where} o’clock by {tilt}"
        return Judged(words, f"{high}: tap there. {_TAPPED}", places)
    if found.depth == "below":
        return Judged(words, _SHALLOW, places)
    if found.depth == "above":
        return Judged(words, _DEEP, places)
    return Judged(words)


_BENT = (
    "No tilt explains these depths, its shell is bent: take it out and fit a new one. A driven seal is not"
    " reused."
)
_TAPPED = "Only on its shell, until it is as deep as across from it; then measure all round again."
_SHALLOW = "Not deep enough: drive it on, straight. Then measure all round again."
_DEEP = "Too deep: take it out and fit a new one. A driven seal is not drawn back and reused."


# ---- turning torque, before and after


def turned(rows: Iterable[Written]) -> Known | None:
    """Turning torque from its readings: their mean, with the doubt of the last digit and of their spread."""
    said = [row for row in rows if row.kind == "value" and row.value is not None]
    if not said:
        return None
    values = [float(row.value or 0) for row in said]
    step = max(float(last_digit(row.typed, TORQUE)) for row in said)
    spread = statistics.stdev(values) if len(values) > 1 else 0.0
    return Known(statistics.fmean(values), 2 * math.sqrt(step**2 / 12 + spread**2 / len(values)))


def _turned_after(at: At, said: Mapping[str, Written]) -> Judged:
    before, after = turned(at.others("turned_before")), turned(said.values())
    if before is None or after is None:
        return Judged("not compared: none was read before it was opened")
    seal = added(at.card, at.others, ["seal_drag"], measured_only=True)
    found = compare(before, after, [one.change for one in seal])
    apart = f"{found.difference:+.2f}".replace("-", "−")
    words = f"{after.value:.2f} N·m, before {before.value:.2f}, apart by {apart} ± {found.U:.2f}"
    if seal:
        words += f"; {added_words(seal)}"
    if found.verdict == "explained" or (found.verdict == "agrees" and not found.flags):
        return Judged(f"{words}: as it was")
    if found.left < 0:
        easier = f"It turns easier than before by {-found.left:.2f} N·m"
        easier += ", the new seal’s share left out" if seal else ""
        return Judged(words, f"{easier}: tighten a little further. {_NEVER_BACK}", tuple(said))
    more = at.setting.sleeve_more
    if at.card.facts.get("pinion") == "sleeve":
        allowed = more.value if more else 0.0
        if found.left > found.U + allowed:
            text = f"It turns harder than before by {found.left:.2f} N·m"
            text += ", the new seal’s share left out" if seal else ""
            if more:
                text += f", and the card adds {more} at most"
            return Judged(words, f"{text}: the sleeve was passed; {_PASSED}.", tuple(said))
        return Judged(f"{words}, no more than the card adds: as it was")
    return Judged(f"{words}: tighter than before; look why, the shims are the same")


_NEVER_BACK = "Then read it again; it is never backed off."
_PASSED = "it is not backed off, it needs a new sleeve"


_RULES: dict[str, Callable[[At, Mapping[str, Written]], Judged]] = {
    "weighed": _weighed,
    "seal_level": _seal_level,
    "turned_after": _turned_after,
    **lengths.RULES,
}
