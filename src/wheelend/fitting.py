"""Planning a press fit: how tight it is, how warm it must be, and what this shed can do about it.

Sizes come from the card, or from the bore as it was measured; each has its doubt, and every way is
reckoned at the tightest that it may be. Lengths in mm, temperatures in °C, force in N.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from wheelend.card import Card, Part
from wheelend.card.model import FitOf
from wheelend.errors import BadInput
from wheelend.fit import ROOM_DEGC, Fit, Ring, Warmth, fit_in_housing, fit_on_shaft
from wheelend.wording import both

WayKey = Literal["both", "warm", "chill", "none"]
ORDER: tuple[WayKey, ...] = ("both", "warm", "chill", "none")


@dataclass(frozen=True)
class Shed:
    """What this shed can do: press force, how cold its freezer is, how hot its oven or plate gets."""

    press_N: float | None = None
    cold_degC: float | None = None
    hot_degC: float | None = None


@dataclass(frozen=True)
class Seat:
    """The least and the greatest diameter that a seat may have at 20 °C, and where that is known from."""

    low_mm: float
    high_mm: float
    measured: bool = False


@dataclass(frozen=True)
class Way:
    """One way to bring a ring home. `warm_degC` is what has to be warmed, to what; `why_not` says what
    speaks against it here, `cost` what it costs."""

    key: WayKey
    name: str
    cost: str
    warm_degC: float | None = None
    force_N: float | None = None
    why_not: str = ""

    @property
    def can(self) -> bool:
        """Whether it can be done here."""
        return not self.why_not


@dataclass(frozen=True)
class Plan:
    """A fit with what it takes. `loosest` and `tightest` bound the interference within what is known."""

    part: str
    fit: FitOf
    ring: Ring
    seat: Seat
    loosest_mm: float
    tightest_mm: float
    least: Fit | None
    most: Fit | None
    ways: tuple[Way, ...]

    @property
    def may_be_loose(self) -> bool:
        """Whether it may be no press fit at all, within what was measured."""
        return self.loosest_mm <= 0

    @property
    def first(self) -> Way | None:
        """The mildest way that can be done here."""
        return next((way for way in self.ways if way.can), None)

    @property
    def warnings(self) -> tuple[str, ...]:
        """What must be looked at before it goes in, a sentence each."""
        found = []
        if self.may_be_loose:
            found.append(
                f"Within what is known it may be loose: from {both(self.loosest_mm, 0.001)}. Measure seat and"
                " ring before it goes in; a loose ring turns on its seat."
            )
        card = self.fit.seat_low
        if self.seat.measured and card and self.seat.low_mm < card.value:
            by = both(card.value - self.seat.low_mm, 0.001)
            found.append(
                f"By the seat as it was measured it may be {by} tighter than"
                " the card’s: it takes more play, and more force. Look for a burr or rust, and measure again."
            )
        if self.first is None:
            found.append(
                "No way can be done here as it stands: see what speaks against each, and what it would take."
            )
        return tuple(found)

    def way(self, key: str) -> Way | None:
        """A way by its key; None where this ring has it not."""
        return next((way for way in self.ways if way.key == key), None)


def plans(
    card: Card, seats: dict[str, Seat] | None = None, shed: Shed | None = None
) -> tuple[Plan, ...]:
    """A plan for every fit of the card that can be reckoned. `seats` are measured ones, by part."""
    found = (plan(card, one, (seats or {}).get(one.part), shed or Shed()) for one in card.fits)
    return tuple(one for one in found if one)


def plan(card: Card, fit: FitOf, measured: Seat | None, shed: Shed) -> Plan | None:
    """The plan of one fit; None where ring or seat has no size to reckon with."""
    part = next((one for one in card.stack if one.name == fit.part), None)
    seat = measured or _card_seat(fit)
    ring = _ring(part, fit) if part else None
    if seat is None or ring is None:
        return None
    inward = fit.on == "housing"
    loosest = ring.seat_mm - seat.high_mm if inward else seat.low_mm - ring.seat_mm
    tightest = ring.seat_mm - seat.low_mm if inward else seat.high_mm - ring.seat_mm
    try:
        running = card.lubricant.running
        heat = Warmth(service=running.value) if running else None
        angle = card.hands.contact_angle.value if card.hands else None
        least = _reckoned(fit, ring, loosest, heat, angle) if loosest > 0 else None
        most = _reckoned(fit, ring, tightest, heat, angle) if tightest > 0 else None
        ways = tuple(_ways(card, fit, ring, tightest, shed))
    except BadInput:
        return None
    return Plan(fit.part, fit, ring, seat, loosest, tightest, least, most, ways)


def warm_enough(found: Plan, ring_degC: float | None) -> float:
    """How warm the housing must be at its tightest, the ring being so cold; of a ring on a shaft, the ring."""
    warmth = Warmth(ring=ring_degC) if found.fit.on == "housing" else Warmth(other=ring_degC)
    return _reckoned(found.fit, found.ring, max(found.tightest_mm, 0.0), warmth).needed_degC


def gap_mm(found: Plan, ring_degC: float, other_degC: float) -> float:
    """The gap at the tightest, by two temperatures."""
    warmth = Warmth(ring=ring_degC, other=other_degC)
    gap = _reckoned(found.fit, found.ring, max(found.tightest_mm, 0.0), warmth).gap_mm
    return gap or 0.0


def _card_seat(fit: FitOf) -> Seat | None:
    if fit.seat_low is None or fit.seat_high is None:
        return None
    return Seat(fit.seat_low.value, fit.seat_high.value)


def _ring(part: Part, fit: FitOf) -> Ring | None:
    size = part.outside if fit.on == "housing" else part.bore
    if size is None or fit.race is None or part.width is None:
        return None
    return Ring(size.value, fit.race.value, part.width.value)


def _reckoned(
    fit: FitOf,
    ring: Ring,
    interference_mm: float,
    warmth: Warmth | None = None,
    angle_deg: float | None = None,
) -> Fit:
    more: Any = {"warmth": warmth, "contact_angle_deg": angle_deg}
    if fit.on == "housing":
        around = fit.around.value if fit.around else ring.seat_mm * 1.6
        return fit_in_housing(ring, around, fit.material, interference_mm, **more)
    hollow = fit.hollow.value if fit.hollow else 0.0
    return fit_on_shaft(ring, fit.material, interference_mm, hollow_mm=hollow, **more)


_NAMES: dict[WayKey, str] = {
    "both": "housing warm, ring chilled",
    "warm": "{} warm only",
    "chill": "ring chilled only",
    "none": "pressed cold",
}
_COSTS: dict[WayKey, str] = {
    "both": "freezer beforehand; minutes to do it in",
    "warm": "oven or plate, a thermometer; hotter than both together",
    "chill": "freezer beforehand; frost wiped off and oiled",
    "none": "press, support and a driver; a cold press scores the seat",
}


def _way(key: WayKey, what: str, why_not: str, **more: float) -> Way:
    return Way(key, _NAMES[key].format(what), _COSTS[key], why_not=why_not, **more)


def _ways(card: Card, fit: FitOf, ring: Ring, tightest: float, shed: Shed) -> Iterator[Way]:
    inward = fit.on == "housing"
    what = "housing" if inward else "ring"
    limit = card.heat_limits.housing if inward else card.heat_limits.ring
    most = limit.value if limit else None
    tight = max(tightest, 0.0)
    if inward:
        yield from _cold_ways(fit, ring, tight, shed, most)
    warm = _reckoned(fit, ring, tight)
    hot = _too_hot(warm.needed_degC, most, shed, what)
    yield _way("warm", what, hot, warm_degC=warm.needed_degC)
    yield _way("none", what, _too_much(warm.force_N, shed), force_N=warm.force_N)


def _cold_ways(
    fit: FitOf, ring: Ring, tight: float, shed: Shed, limit: float | None
) -> Iterator[Way]:
    if shed.cold_degC is None:
        for key in ("both", "chill"):
            yield _way(key, "housing", "no freezer is written down")
        return
    both = _reckoned(fit, ring, tight, Warmth(ring=shed.cold_degC))
    needed = both.needed_degC
    yield _way("both", "housing", _too_hot(needed, limit, shed, "housing"), warm_degC=needed)
    why = f"not enough alone: the housing must be at {needed:.0f} °C as well"
    yield _way("chill", "housing", "" if needed <= ROOM_DEGC else why)


def _too_hot(needed: float, limit: float | None, shed: Shed, what: str) -> str:
    if limit is not None and needed > limit:
        return f"needs {needed:.0f} °C; the card allows the {what} {limit:.0f} °C"
    if shed.hot_degC is not None and needed > shed.hot_degC:
        return f"needs {needed:.0f} °C; the hottest here gives {shed.hot_degC:.0f} °C"
    return ""


def _too_much(force_N: float, shed: Shed) -> str:
    if shed.press_N is None:
        return "no press is written down"
    if force_N > shed.press_N:
        return f"needs {force_N / 1000:.1f} kN; the strongest press here gives {shed.press_N / 1000:.1f} kN"
    return ""
