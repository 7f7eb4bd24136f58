"""Tapered, ball and angular-contact bearings from bore, outside and width."""

import math
from dataclasses import dataclass

from zesty.drawings.section.outline import Corner, Mm, Outline, arc
from zesty.drawings.section.sheet import RING, Hatch, Sheet

_MEAN_RADIUS = 0.235
"""A roller's mean radius over the section's height."""
_CUP_ANGLE = 14.5
_BALL = 0.29
_SHOULDER = 0.58


@dataclass(frozen=True)
class Tapered:
    """One tapered bearing: where it stands, its radii, and whether its wide end looks inboard."""

    x: float
    bore: float
    outside: float
    cone_width: float
    wide_inboard: bool
    cup_width: float = 0.0

    @property
    def end(self) -> float:
        """The other face of its cone."""
        return self.x + self.cone_width

    @property
    def long(self) -> float:
        """From the cone's back to the cup's back."""
        return self.cone_width * 1.06

    @property
    def cup(self) -> tuple[float, float]:
        """From where to where its cup stands."""
        wide = self.cup_width or self.cone_width * 0.8
        return self._span(self.long - wide, self.long)

    @property
    def back(self) -> float:
        """The cup's back face: what stands against its shoulder."""
        return self.cup[1] if self.wide_inboard else self.cup[0]

    @property
    def mouth(self) -> float:
        """The cup's wide mouth."""
        return self.cup[0] if self.wide_inboard else self.cup[1]

    def _span(self, low: float, high: float) -> tuple[float, float]:
        if self.wide_inboard:
            return self.x + low, self.x + high
        return self.end - high, self.end - low

    @property
    def height(self) -> float:
        """Of its section."""
        return self.outside - self.bore

    @property
    def race_at_back(self) -> float:
        """The radius of the cup's race at its back face: what a shoulder stands clear of."""
        geometry = _Rolling(self)
        return geometry.race(self.long)

    @property
    def cone_front(self) -> float:
        """The radius of the cone's small rib."""
        return _Rolling(self).small_rib

    @property
    def cone_back(self) -> float:
        """The radius of the cone's large rib: what its shoulder reaches to at the most."""
        return _Rolling(self).large_rib


class _Rolling:
    """The roller between its races: all three meet on the axis. Worked with the wide end at x = 0."""

    def __init__(self, one: Tapered) -> None:
        self.one = one
        height = one.height
        self.centre = (one.cone_width * 0.5, one.bore + height * 0.505)
        angle = math.radians(_CUP_ANGLE)
        spread = math.asin(
            min(_MEAN_RADIUS * height * math.sin(angle) / self.centre[1] * 1.02, 0.2)
        )
        self.lean, self.spread = angle - spread, spread
        self.far = self.centre[1] / math.sin(self.lean)
        self.apex = self.centre[0] + self.centre[1] / math.tan(self.lean)
        self.half = min(one.cone_width * 0.33, height * 0.52)

    def at(self, reach: float, aside: float) -> Mm:
        """A point at a distance from the apex along the roller's axis, and one across it."""
        cos, sin = math.cos(self.lean), math.sin(self.lean)
        return self.apex - reach * cos + aside * sin, reach * sin + aside * cos

    def race(self, x: float) -> float:
        """The radius of the cup's race."""
        return (self.apex - x) * math.tan(self.lean + self.spread)

    @property
    def ends(self) -> tuple[float, float]:
        """The distances of the roller's large and small end from the apex."""
        return self.far + self.half, self.far - self.half

    def across(self, reach: float) -> float:
        return reach * math.tan(self.spread)

    @property
    def large_rib(self) -> float:
        large, _ = self.ends
        return self.at(large, -0.2 * self.across(large))[1]

    @property
    def small_rib(self) -> float:
        _, small = self.ends
        return self.at(small, -0.6 * self.across(small))[1]

    def roller(self) -> Outline:
        (large, small) = self.ends
        a, b = self.across(large), self.across(small)
        return [self.at(large, a), self.at(small, b), self.at(small, -b), self.at(large, -a)]

    def cone(self) -> list[Corner]:
        (large, small) = self.ends
        a, b = self.across(large), self.across(small)
        gap = 0.02 * self.one.height
        rib, groove = self.at(large + gap, -0.2 * a), self.at(large + gap, -a)
        low, little = self.at(small - gap, -b), self.at(small - gap, -0.6 * b)
        soft = 0.05 * self.one.height
        bore, end = self.one.bore, self.one.cone_width
        return [
            (0, bore + soft), (0, rib[1], soft), rib, groove, low, little, (end, little[1], soft),
            (end, bore + soft), (end - soft, bore), (soft, bore),
        ]  # fmt: skip

    def cup(self) -> list[Corner]:
        wide = self.one.cup_width or self.one.cone_width * 0.8
        front, back = self.one.long - wide, self.one.long
        top, soft = self.one.outside, 0.05 * self.one.height
        return [
            (front, self.race(front)),
            (front, top, soft),
            (back, top, soft),
            (back, self.race(back)),
        ]

    def cage(self) -> list[Outline]:
        (large, small) = self.ends
        b = self.across(small)
        out = 0.05 * self.one.height
        return [
            [self.at(large + out, 0.3 * b), self.at(large + out, 1.15 * self.across(large))],
            [
                self.at(small, 0.25 * b),
                self.at(small - 2 * out, 0.25 * b),
                self.at(small - 2 * out, -0.5 * b),
            ],
        ]

    def axis(self) -> Outline:
        (large, small) = self.ends
        out = 0.12 * self.one.height
        return [self.at(large + out, 0), self.at(small - out, 0)]


def tapered(
    sheet: Sheet,
    one: Tapered,
    name: str,
    *,
    thrust: frozenset[tuple[str, str]] = frozenset(),
    hatch: Hatch = RING,
    cup_hatch: Hatch | None = None,
) -> None:
    """A tapered bearing: cup, roller and cone, as it stands."""
    rolling = _Rolling(one)

    def placed(points: list[Corner] | Outline) -> list[Corner]:
        if one.wide_inboard:
            return [(one.x + p[0], *p[1:]) for p in points]  # type: ignore[misc]
        return [(one.end - p[0], *p[1:]) for p in points]  # type: ignore[misc]

    cup = cup_hatch or hatch
    sheet.cut(placed(rolling.cup()), f"{name} cup", cup)
    sheet.cut(placed(rolling.cone()), f"{name} cone", hatch)
    for run in rolling.cage():
        sheet.line([(p[0], p[1]) for p in placed(run)], "fine")
    sheet.add(placed(rolling.roller()), "roller", name, thrust=thrust)
    sheet.line([(p[0], p[1]) for p in placed(rolling.axis())], "fine-axis")


@dataclass(frozen=True)
class Ball:
    """One ball bearing: where it stands and its radii; `open_to` is where a shoulder is cut away."""

    x: float
    bore: float
    outside: float
    width: float
    open_to: int = 0
    shields: bool = True

    @property
    def end(self) -> float:
        """Its other face."""
        return self.x + self.width

    @property
    def pitch(self) -> float:
        """The radius on which its balls run."""
        return (self.bore + self.outside) / 2

    @property
    def ball(self) -> float:
        """A ball's radius."""
        return _BALL * (self.outside - self.bore)


def ball(sheet: Sheet, one: Ball, name: str, hatch: Hatch = RING) -> None:
    """A ball bearing with its rings, the ball, and shields where it is sealed."""
    middle = one.x + one.width / 2
    centre = (middle, one.pitch)
    groove = 1.04 * one.ball
    rise = _SHOULDER * one.ball
    for inner in (True, False):
        sheet.cut(
            _race(one, centre, groove, rise, inner=inner),
            f"{name} {'inner' if inner else 'outer'}",
            hatch,
        )
    if one.shields:
        for x in (one.x + 0.07 * one.width, one.end - 0.07 * one.width):
            sheet.add(
                [(x - 0.03 * one.width, one.pitch - rise), (x - 0.03 * one.width, one.pitch + rise),
                 (x + 0.03 * one.width, one.pitch + rise), (x + 0.03 * one.width, one.pitch - rise)],
                "rubber", name,
            )  # fmt: skip
    sheet.add(arc(centre, one.ball, 0, 345, 23), "roller", name)
    reach = 0.45 * one.ball
    sheet.line([(middle - reach, one.pitch), (middle + reach, one.pitch)], "fine")
    sheet.line([(middle, one.pitch - reach), (middle, one.pitch + reach)], "fine")


def _race(one: Ball, centre: Mm, groove: float, rise: float, *, inner: bool) -> list[Corner]:
    """A ring with its groove; at an angular contact one shoulder of it is cut away."""
    side = -1 if inner else 1
    face = one.bore if inner else one.outside
    soft = 0.06 * (one.outside - one.bore)
    shoulder = one.pitch + side * rise
    away = one.pitch + side * groove * 0.97
    reach = math.degrees(math.acos(min(rise / groove, 1.0)))
    start, end = 90 * side - reach * side, 90 * side + reach * side
    bed: list[Corner] = list(arc(centre, groove, end, start, 10))
    if bed[0][0] > bed[-1][0]:
        bed.reverse()
    # The inner ring is open on the other side than the outer one.
    lower = one.open_to * (-side)
    left: float = shoulder
    right: float = shoulder
    if lower < 0:
        left = away
        bed = [p for p in bed if p[0] >= centre[0] - 0.1 * groove]
    elif lower > 0:
        right = away
        bed = [p for p in bed if p[0] <= centre[0] + 0.1 * groove]
    return [
        (one.x, face, soft),
        (one.x, left, soft / 2),
        *bed,
        (one.end, right, soft / 2),
        (one.end, face, soft),
    ]


def contact(sheet: Sheet, one: Ball, toward: float) -> None:
    """The line of contact of an angular bearing, from its ball down to the axis."""
    middle = one.x + one.width / 2
    reach = one.ball * 1.3
    lean = math.radians(25)
    up = (middle - toward * reach * math.sin(lean), one.pitch + reach * math.cos(lean))
    down = (middle + toward * math.tan(lean) * one.pitch, 0.0)
    sheet.line([up, down], "contact")
