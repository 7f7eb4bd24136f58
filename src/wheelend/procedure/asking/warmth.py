"""Warm hub, cold ring: temperatures as they are read, the curve through them, and whether it dropped in.

Places: `air`, `ring` where it is chilled, then `hub 1`, `hub 2` … as often as it is read. It ends with how
it went: dropped in, gripped half way, or pressed cold after all.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from wheelend.cooling import Cooling, cooling
from wheelend.errors import BadInput
from wheelend.fitting import Plan, plans, warm_enough
from wheelend.procedure.asking.frame import At, Line, Slot, titled
from wheelend.procedure.bores import measured_seats
from wheelend.procedure.log import Written

ENDS = {
    "dropped": "It dropped in",
    "gripped": "It gripped half way",
    "cold": "Pressed cold after all",
}
CURE = (
    "Stop: don’t strike a ring that grips. While it is still warm, draw it out, or press it on at once and"
    " square, by its tight ring; grown cold, out with it, warm the housing again within its limit, and look"
    " at the ring before it goes in again."
)
MOST_HUB = 30


@dataclass(frozen=True)
class Warmed:
    """How warm everything is. `until` is the temperature that the housing must still have."""

    air: float | None
    ring: float | None
    hub: tuple[Written, ...]
    until: float | None
    limit: float | None
    curve: Cooling | None
    plans: tuple[Plan, ...]
    why: str = ""

    @property
    def is_over(self) -> bool:
        """Whether the housing was read above what the card allows."""
        last = self.hub[-1].value if self.hub else None
        return last is not None and self.limit is not None and last > self.limit

    def left_s(self, now_s: float) -> float | None:
        """Seconds from `now_s` in which it still drops in; None where there is no curve."""
        if self.curve is None or self.curve.left_s is None or not self.hub:
            return None
        return self.curve.left_s - (now_s - self.hub[-1].at_s)


def chills(at: At) -> bool:
    """Whether the ring is chilled here: one that goes on a shaft is warmed."""
    inward = any(one.on == "housing" for one in at.card.fits)
    return inward and at.chosen("temperature") in ("both", "chill")


def warms(at: At) -> str:
    """What is warmed: the housing, or the ring that goes on its shaft."""
    return "hub" if any(one.on == "housing" for one in at.card.fits) else "on_shaft"


def current(at: At) -> Mapping[str, Written]:
    """What stands at each place in the round that lasts."""
    last = round_of(at)
    return {row.place: row for row in at.entries if row.kind == "value" and row.round == last}


def round_of(at: At) -> int:
    """The try that lasts: each grip begins another."""
    gripped = sum(row.kind == "pick" and row.typed == "gripped" for row in at.entries)
    return max(1, at.gone + 1) + gripped


def warmed(at: At) -> Warmed:
    """Everything that was read, the temperature that is needed, and the curve where there is one."""
    said = current(at)
    air, ring = (said[one].value if one in said else None for one in ("air", "ring"))
    hub = tuple(said[f"hub {n}"] for n in range(1, MOST_HUB + 1) if f"hub {n}" in said)
    mine = plans(at.card, measured_seats(at))
    heat = at.card.heat_limits
    limit = heat.housing if warms(at) == "hub" else heat.ring
    until = max((warm_enough(one, ring) for one in mine), default=None)
    curve, why = None, ""
    if len(hub) > 1 and air is not None and until is not None:
        readings = [(row.at_s - hub[0].at_s, float(row.value or 0)) for row in hub]
        try:
            curve = cooling(readings, air, until)
        except BadInput as bad:
            why = f"These {bad.need}." if bad.need.startswith("do ") else f"{bad.given} {bad.need}."
    return Warmed(air, ring, hub, until, limit.value if limit else None, curve, mine, why)


class WarmthAsked:
    """Temperatures until it is in."""

    def complete(self, at: At) -> bool:
        ends = [row for row in at.entries if row.kind == "pick"]
        done = any(row.kind == "done" for row in at.entries)
        return done or (bool(ends) and ends[-1].typed != "gripped")

    def slot(self, at: At) -> Slot:
        said = current(at)
        first = ("air", "ring") if chills(at) else ("air",)
        place = next((one for one in first if one not in said), "")
        if not place:
            hubs = sum(one.startswith("hub ") for one in said)
            place = f"hub {min(hubs + 1, MOST_HUB)}"
        return Slot(place, round_of(at), words=words(at, place))

    def lines(self, at: At) -> tuple[Line, ...]:
        rows = [row for row in at.entries if row.kind in ("value", "pick")]
        found = tuple(
            Line(words(at, row.place), row.typed, (row,))
            if row.kind == "value"
            else Line(at.step.says, ENDS[row.typed].lower(), (row,))
            for row in rows
        )
        return (*found, Line(titled(at), "", (), due=True)) if not self.complete(at) else found


def places() -> tuple[str, ...]:
    """Every place that may be read, and that of how it ended."""
    return ("", "air", "ring", *(f"hub {n}" for n in range(1, MOST_HUB + 1)))


def words(at: At, place: str) -> str:
    """A place in words."""
    name = place.partition(" ")[0]
    return _WORDS[warms(at) if name == "hub" else name]


_WORDS = {
    "air": "The air round it",
    "ring": "The chilled ring",
    "hub": "The housing, at its bore",
    "on_shaft": "The ring, in its bore",
}
