"""Why readings do not add up: the causes by how likely they are, each with what to do to know.

Two trials give two constants c (the play with no pack at all). Their difference says how much of the
change in play the shims do not explain, and its sign says which way. Source: Bayes' rule over the
hypotheses of causes.toml; each is a prior times the chance of what was seen under it.
"""

import math
import statistics
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cache
from typing import Literal

from wheelend.datafiles import data_file
from wheelend.procedure.slips import meanings
from wheelend.quantity import LENGTH, parse
from wheelend.wording import MM_PER_THOU, mm, thickness

Then = Literal["aside_earlier", "clean", "measure", "read_anew", "go_on"]

_WHOLE = 0.02
"""How near a thickness must be to a whole number of thou or hundredths to be marked in it."""

_FLOOR = 1e-6
"""No cause is ruled out by one number."""

_WOBBLE_MM = 0.15
"""What a hub's face may wobble where nobody measured it."""

_RATIOS = (2.0, 0.5, 10.0, 0.1, 25.4, 1 / 25.4)
"""What a whole series may be read as: twice, half, a lost point, the other unit."""


@dataclass(frozen=True)
class Hypothesis:
    """One way in which readings come not to add up; see causes.toml for each field."""

    cause: str
    of: Literal["trials", "place"]
    prior: float
    why: str
    size: Literal["spread", "within", "shim", "units", "slip"]
    sign: Literal["more", "less", "thicker", "thinner", "either"]
    text: str
    check: str
    minutes: int
    then: Then
    mean_mm: float = 0.0
    closes: str = ""
    settled: float = 1.0
    settled_why: str = ""
    needs: str = ""


@dataclass(frozen=True)
class Cause:
    """One likely cause: its share of all, what to do to know; `because` where numbers point at it."""

    key: str
    share: float
    text: str
    check: str
    minutes: int
    then: Then
    because: str = ""


@dataclass(frozen=True)
class Disagreement:
    """Two trials that do not add up; lengths in mm.

    `unexplained_mm` is the play of the later trial over what the earlier one predicts for its pack,
    `doubt_mm` the standard deviation that it has without any fault; `at_least`: one of them had no
    play to read, so that it may be more. `put_in` and `taken_out` are the shims of only one of the
    packs: a shim common to both explains nothing. `known` are the thicknesses that the shop has.
    `sign` is +1 where a thicker pack opens. `settled`: the later one was read again, and came out the same.
    `wrenches_differ`: the two were torqued with different wrenches.
    """

    earlier: int
    later: int
    unexplained_mm: float
    doubt_mm: float
    put_in: tuple[float, ...] = ()
    taken_out: tuple[float, ...] = ()
    known: tuple[float, ...] = ()
    sign: int = 1
    at_least: bool = False
    play_mm: float | None = None
    settled: bool = False
    on_face: bool = False
    runout_mm: float | None = None
    wrenches_differ: bool = False
    cups_tried: bool | None = None
    step_mm: float = 0.01

    @property
    def handled(self) -> tuple[tuple[float, int], ...]:
        """Each shim of only one pack, and the sign that more of it gives the later play."""
        into = {(shim, self.sign) for shim in self.put_in}
        return tuple(sorted(into | {(shim, -self.sign) for shim in self.taken_out}))


@dataclass(frozen=True)
class PlaceApart:
    """One place of a series that reads otherwise than the rest; lengths in mm.

    `typed` are its two readings as they were written, in and out; `play_mm` what the others show.
    `shift_mm` is by how much the dial stood otherwise, pushed in, when it was read again. `reversed`:
    the needle went the other way there.
    """

    place: str
    typed: tuple[str, str]
    play_mm: float
    doubt_mm: float
    on_face: bool = False
    runout_mm: float | None = None
    shift_mm: float | None = None
    reversed: bool = False
    step_mm: float = 0.01

    @property
    def unexplained_mm(self) -> float:
        """The play that was read at the place over that of the others."""
        first, second = (float(parse(one, LENGTH)) for one in self.typed)
        return abs(second - first) - self.play_mm


@cache
def hypotheses() -> tuple[Hypothesis, ...]:
    """All of causes.toml."""
    return tuple(Hypothesis(**one) for one in data_file("methods", "shims", "causes")["hypothesis"])


@dataclass(frozen=True)
class _Weighed:
    of: Hypothesis
    weight: float
    because: str = field(default="")


def likely_causes(found: Disagreement | PlaceApart) -> tuple[Cause, ...]:
    """The causes by their share, together 1, the most likely first.

    Each is prior · chance of the size and sign that were seen · what the other evidence leaves of it.
    """
    of = "trials" if isinstance(found, Disagreement) else "place"
    weighed = [_weigh(one, found) for one in hypotheses() if one.of == of]
    whole = sum(one.weight for one in weighed)
    shares: dict[str, list[_Weighed]] = {}
    for one in weighed:
        shares.setdefault(one.of.cause, []).append(one)
    causes = [_cause(found, mine, whole) for mine in shares.values()]
    return tuple(sorted(causes, key=lambda cause: -cause.share))


def _cause(found: Disagreement | PlaceApart, mine: list[_Weighed], whole: float) -> Cause:
    best = max(mine, key=lambda one: one.weight)
    names = {"place": "", "earlier": 0}
    if isinstance(found, PlaceApart):
        names["place"] = found.place
    else:
        names["earlier"] = found.earlier
    text = best.of.text.format(**names)
    return Cause(
        key=best.of.cause,
        share=sum(one.weight for one in mine) / whole,
        text=text[0].upper() + text[1:],
        check=best.of.check.format(**names),
        minutes=best.of.minutes,
        then=best.of.then,
        because=best.because,
    )


def _weigh(one: Hypothesis, found: Disagreement | PlaceApart) -> _Weighed:
    chance, because = _chance_of_size(one, found)
    weight = one.prior * max(chance, _FLOOR) * _other_evidence(one, found)
    return _Weighed(one, weight, because)


def _other_evidence(one: Hypothesis, found: Disagreement | PlaceApart) -> float:
    """What is left of a hypothesis by everything but the size."""
    if one.needs == "on_face" and not found.on_face:
        return 0.0
    if isinstance(found, PlaceApart):
        return _zero(one, found)
    left = one.settled if found.settled else 1.0
    if one.cause == "torque" and found.wrenches_differ:
        left *= 6
    if one.cause == "not_home" and found.cups_tried is not None:
        left *= 0.5 if found.cups_tried else _UNTRIED
    return left


_UNTRIED = 4.0
"""How much likelier a ring is off its shoulder where it was pressed here and no blade was tried behind it."""


def _zero(one: Hypothesis, found: PlaceApart) -> float:
    """A stand that moved has lost its zero by as much; after any other slip the dial comes back."""
    if found.shift_mm is None:
        return 1.0
    lost = found.unexplained_mm if one.cause == "moved" else 0.0
    doubt = math.hypot(found.doubt_mm, found.step_mm)
    return max(_normal(found.shift_mm - lost, doubt), _FLOOR)


def _chance_of_size(one: Hypothesis, found: Disagreement | PlaceApart) -> tuple[float, str]:
    """The chance, per mm, of what was seen, and what points at it."""
    if one.size == "spread":
        return _spread(one, found), ""
    if one.size == "within":
        reach = found.runout_mm or _WOBBLE_MM
        return (0.5 / reach if abs(found.unexplained_mm) <= reach + found.doubt_mm else 0.0), ""
    if isinstance(found, PlaceApart):
        return _near(found, list(_place_slips(found)))
    if one.size != "slip" and not found.handled:
        return 0.0, ""
    sizes = {"shim": _shims, "units": _units, "slip": _ratios}[one.size]
    return _near(found, list(sizes(found)))


def _spread(one: Hypothesis, found: Disagreement | PlaceApart) -> float:
    """Few are tiny, few are huge: the gamma distribution of shape 2 with this mean."""
    size, scale = abs(found.unexplained_mm), one.mean_mm / 2
    chance = size * math.exp(-size / scale) / scale**2
    if isinstance(found, Disagreement) and found.at_least:
        chance = (1 + size / scale) * math.exp(-size / scale)
    sign = one.sign
    opens = found.sign if isinstance(found, Disagreement) else 1
    if opens < 0 and one.closes:
        sign = "either"
    if sign == "either":
        return chance / 2
    more = {"more": 1, "less": -1, "thicker": opens, "thinner": -opens}[sign]
    return chance if found.unexplained_mm * more > 0 else 0.0


@dataclass(frozen=True)
class _Meant:
    """By how much something would make a play unexplained, how often it is that, and in words."""

    off_mm: float
    share: float
    words: str


def _near(found: Disagreement | PlaceApart, meant: list[_Meant]) -> tuple[float, str]:
    """How well some sizes fit what was seen, and the one that fits best."""
    if not meant:
        return 0.0, ""
    chances = [one.share * _fits(found, one.off_mm) for one in meant]
    best = max(range(len(meant)), key=lambda index: chances[index])
    near = abs(found.unexplained_mm - meant[best].off_mm) <= 2 * found.doubt_mm
    return sum(chances), meant[best].words if near else ""


def _fits(found: Disagreement | PlaceApart, off_mm: float) -> float:
    if isinstance(found, Disagreement) and found.at_least:
        way = math.copysign(1, found.unexplained_mm)
        beyond = way * (off_mm - found.unexplained_mm)
        return statistics.NormalDist(0, found.doubt_mm).cdf(beyond)
    return _normal(found.unexplained_mm - off_mm, found.doubt_mm)


def _normal(x: float, deviation: float) -> float:
    return math.exp(-((x / deviation) ** 2) / 2) / (deviation * math.sqrt(2 * math.pi))


_STUCK, _LOST = 0.8, 0.2
"""Two shims stick together far oftener than one is on the list and nowhere else."""

_LEFT_WITH_IT, _STAYED = 0.5, 0.5
"""One that was taken out took another with it, or stayed behind, stuck to its neighbour."""

_HAS_NOT = 0.1
"""A shim is taken for one in the other unit where the shop has both; else hardly ever."""


def _shims(found: Disagreement) -> Iterator[_Meant]:
    """A shim stuck to one that was put in makes the later pack thicker; one taken out, the earlier."""
    off = mm(abs(found.unexplained_mm), found.step_mm)
    each = 1 / len(found.handled)
    for shim, now in found.handled:
        words = f"The {off} that is off is a {thickness(shim)} shim."
        more, less = (_STUCK, _LOST) if now == found.sign else (_LEFT_WITH_IT, _STAYED)
        yield _Meant(now * shim, more * each, words)
        yield _Meant(-now * shim, less * each, words)


def _units(found: Disagreement) -> Iterator[_Meant]:
    known = {round(one, 3) for one in found.known}
    each = 1 / len(found.handled)
    for shim, now in found.handled:
        for written, marked, truth in _mixed_up(shim):
            words = f"A shim marked {marked} and written as {written} would be off by as much."
            share = each if round(truth, 3) in known else each * _HAS_NOT
            yield _Meant(now * (truth - shim), share, words)


def _ratios(found: Disagreement) -> Iterator[_Meant]:
    if found.play_mm is None:
        return
    for ratio in _RATIOS:
        truth = found.play_mm / ratio
        words = f"{mm(found.play_mm, found.step_mm)} read for {mm(truth, found.step_mm)}?"
        yield _Meant(found.play_mm - truth, 1 / len(_RATIOS), words)


def _place_slips(found: PlaceApart) -> Iterator[_Meant]:
    first, second = (float(parse(one, LENGTH)) for one in found.typed)
    here = abs(second - first)
    if found.reversed:
        went_in, went_out = found.typed
        yield _Meant(0.0, 1.0, f"In and out exchanged: {went_in} in for {went_out} in?")
    every = [
        (typed, meant.typed, float(parse(meant.typed, LENGTH)), second if which == 0 else first)
        for which, typed in enumerate(found.typed)
        for meant in meanings(typed, LENGTH)
    ]
    for typed, text, value, other in every:
        words = f"{typed} read for {text}?"
        yield _Meant(here - abs(value - other), 1 / len(every), words)


def _mixed_up(shim_mm: float) -> list[tuple[str, str, float]]:
    """What a shim may be in truth: written as, marked, thickness. "4 thou" taken for 0.04 mm, say."""
    found = []
    thou, hundredths = shim_mm / MM_PER_THOU, shim_mm * 100
    if abs(thou - round(thou)) < _WHOLE:
        marked = round(thou) / 100
        found.append((f"{round(thou)} thou", f"{marked:.2f} mm", marked))
    if abs(hundredths - round(hundredths)) < _WHOLE:
        truth = round(hundredths) * MM_PER_THOU
        found.append((f"{shim_mm:.2f} mm", f"{round(hundredths)} thou", truth))
    return found
