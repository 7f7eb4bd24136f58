"""Tapered pairs on a spindle: set by the nut, by a locking nut system, by a spacer, by shims."""

from dataclasses import dataclass

from zesty.drawings.section.model import Stack
from zesty.drawings.section.outline import Corner, Mm, box
from zesty.drawings.section.parts.bearings import Tapered, tapered
from zesty.drawings.section.parts.fixings import (
    Bolt,
    bolt,
    cap,
    nut,
    shaft,
    slotted_nut,
    split_pin,
)
from zesty.drawings.section.parts.seals import Between, lip_seal
from zesty.drawings.section.sheet import BESIDE, FAR, HOUSING, RING, SPACER, THIN, Sheet

_PUSHED_IN = frozenset({("in", "")})
_PULLED_OUT = frozenset({("out", "")})


@dataclass(frozen=True)
class Pair:
    """Where everything of a pair stands: bearings, the collar before them, what lies between."""

    inner: Tapered
    outer: Tapered
    collar: float
    between: float

    @property
    def nut_from(self) -> float:
        """Where what clamps the outer cone begins."""
        return self.outer.end


def _pair(stack: Stack, between: float, collar: float = 0.0) -> Pair:
    r1 = stack.bore("cone", "inner", 40.0)
    r2 = stack.bore("cone", "outer", 2 * r1 * 0.8)
    big = stack.outside("cup", "inner", 2 * r1 + 34)
    small = stack.outside("cup", "outer", 2 * r2 + 30)
    wide1 = stack.width("cone", "inner", 0.95 * (big - r1))
    wide2 = stack.width("cone", "outer", 0.95 * (small - r2))
    inner = Tapered(collar, r1, big, wide1, True, stack.width("cup", "inner", 0.8 * wide1))
    outer = Tapered(
        collar + wide1 + between, r2, small, wide2, False, stack.width("cup", "outer", 0.8 * wide2)
    )
    return Pair(inner, outer, collar, between)


@dataclass(frozen=True)
class Barrel:
    """The hub of a pair: its ends, the seal's bore and the bore outside the outer cup."""

    start: float
    end: float
    seal_bore: float
    seal_end: float
    cap_bore: float
    flange_at: float


def _barrel(stack: Stack, pair: Pair, end: float) -> Barrel:
    inner, outer = pair.inner, pair.outer
    seal_bore = max(stack.outside("seal", "", 0.0), inner.outside + 1.2)
    wide = stack.width("seal", "", 11.0)
    mouth = inner.mouth - 0.10 * inner.cone_width
    return Barrel(
        start=mouth - wide - 1.5,
        end=end,
        seal_bore=seal_bore,
        seal_end=mouth,
        cap_bore=outer.outside + 2.0,
        flange_at=inner.back + 0.12 * pair.between,
    )


def _hub(sheet: Sheet, pair: Pair, hub: Barrel, *, studded: bool = True) -> None:
    """The hub: barrel, broken flange with its stud, both cup seats and the waist between them."""
    inner, outer = pair.inner, pair.outer
    waist1 = (inner.outside + inner.race_at_back) / 2
    waist2 = (outer.outside + outer.race_at_back) / 2
    wall = 0.42 * (inner.outside - inner.bore)
    top = hub.seal_bore + wall
    flange, wide = hub.flange_at, 0.62 * inner.cone_width
    high = top + 1.35 * inner.height + 6
    low_end = hub.cap_bore + 0.9 * wall
    corners: list[Corner] = [
        (hub.start, hub.seal_bore), (hub.start, top, 1.5), (flange, top, 3), (flange, high),
        (flange + wide, high),
        (flange + wide, top + 0.2 * wall, 4), (flange + wide + 0.9 * inner.height, low_end + 0.35 * wall, 3),
        (hub.end, low_end, 1.5), (hub.end, hub.cap_bore), (outer.mouth + 0.1, hub.cap_bore),
        (outer.mouth + 0.1, outer.outside), (outer.back, outer.outside), (outer.back, waist2),
        (inner.back, waist1), (inner.back, inner.outside), (hub.seal_end, inner.outside),
        (hub.seal_end, hub.seal_bore),
    ]  # fmt: skip
    for x, r in (
        (hub.start, hub.seal_bore),
        (hub.end, hub.cap_bore),
        (inner.back, waist1),
        (outer.back, waist2),
    ):
        sheet.line([(x, r), (x, 0)], "behind")
    sheet.cut(corners, "hub", HOUSING, breaks=(3,))
    if studded:
        thick = 0.24 * inner.height + 2.6
        bolt(sheet, Bolt(flange, top + 0.62 * (high - top), 1.9 * wide + thick, thick), "stud")
    sheet.face((flange + wide, high - 2))
    sheet.play_at = ((hub.start - 4, high * 0.86), "end")


def _spindle(sheet: Sheet, pair: Pair, hub: Barrel, end: float, *, hollow: float = 0.0) -> None:
    """The spindle under it all: shoulder, inner seat, taper, outer seat, thread."""
    inner, outer = pair.inner, pair.outer
    # The shoulder reaches below the cone's large rib; the seal's journal is a little above the seat.
    shoulder = inner.bore + 0.62 * (inner.cone_back - inner.bore)
    far = hub.start - 1.1 * inner.cone_width
    root = shoulder if pair.collar else max(shoulder, inner.bore * 1.12)
    steps: list[Mm] = [
        (far, root * 1.16),
        (hub.start - 3, root * 1.16),
        (hub.start - 3, root),
        (0, root),
        (0, inner.bore),
    ]
    steps += [(inner.end, inner.bore)]
    if outer.bore < inner.bore - 0.2:
        neck = inner.end + 0.05 * pair.between
        steps += [
            (neck, inner.bore),
            (outer.x - 0.06 * pair.between, outer.bore),
            (outer.x, outer.bore),
        ]
    # The seat ends inside the cone, so that one sees the nut clamp it.
    screw = outer.bore * 0.94
    steps += [(outer.end - 1.2, outer.bore), (outer.end - 1.2, screw), (end, screw)]
    shaft(sheet, steps, hollow=hollow, hatch=FAR if hollow else None)


def _bearings(sheet: Sheet, pair: Pair) -> None:
    tapered(sheet, pair.inner, "inner_bearing", thrust=_PUSHED_IN)
    tapered(sheet, pair.outer, "outer_bearing", thrust=_PULLED_OUT)


def _seal(sheet: Sheet, stack: Stack, hub: Barrel, track: float) -> Between:
    wide = stack.width("seal", "", 11.0)
    where = Between(hub.start + 0.6, hub.start + 0.6 + wide, track, hub.seal_bore)
    if stack.has("seal"):
        lip_seal(sheet, where)
    return where


def _name(sheet: Sheet, stack: Stack, pair: Pair, hub: Barrel, where: Between) -> None:
    """Labels that every pair has: seal, bearings and hub above, spindle below."""
    sheet.label(stack.find("seal"), where.at(0.05, 0.8), above=True)
    for seat, one in (("inner", pair.inner), ("outer", pair.outer)):
        middle = (one.cup[0] + one.cup[1]) / 2
        at = (middle, one.outside - 0.09 * one.height)
        sheet.label(stack.find("cone", seat), at, above=True, words=f"{seat} bearing")
    sheet.label(
        stack.find("hub"), (pair.inner.back + 0.55 * pair.between, hub.seal_bore + 1), above=True
    )
    sheet.label(
        stack.find("spindle"), (-0.35 * pair.inner.cone_width, 0.55 * pair.inner.bore), above=False
    )


def nut_pair(sheet: Sheet, stack: Stack) -> None:
    """Set by the nut: slotted nut and pin, dust cap."""
    pair = _pair(stack, 1.5 * stack.width("cone", "inner", 22.0))
    x = pair.nut_from
    washer, wide = _washer(stack), stack.width("nut", "", 17.0)
    end = x + washer + wide
    hub = _barrel(stack, pair, x + 0.45 * washer + 0.5 * wide)
    _hub(sheet, pair, hub)
    _spindle(sheet, pair, hub, end + 7)
    where = _seal(sheet, stack, hub, max(pair.inner.bore * 1.12, _root(pair)))
    _bearings(sheet, pair)
    _slotted_end(sheet, stack, pair, hub, x, washer, wide)
    _name(sheet, stack, pair, hub, where)


def _root(pair: Pair) -> float:
    inner = pair.inner
    return inner.bore + 0.62 * (inner.cone_back - inner.bore)


def _washer(stack: Stack) -> float:
    return stack.thin(stack.width("washer", "", 4.0)) if stack.has("washer") else 0.0


def _slotted_end(
    sheet: Sheet, stack: Stack, pair: Pair, hub: Barrel, x: float, washer: float, wide: float
) -> None:
    """Washer, slotted nut, pin and cap, with their labels."""
    outer = pair.outer
    high = outer.bore + 0.42 * outer.height
    if washer:
        low = outer.bore * 0.96
        sheet.cut(box(x, low, x + washer, outer.bore + 0.5 * outer.height), "washer", BESIDE)
        sheet.label(stack.find("washer"), (x + washer / 2, low + 0.12 * outer.height), above=False)
    if stack.has("nut"):
        slotted_nut(sheet, x + washer, wide, outer.bore, high)
        sheet.label(stack.find("nut"), (x + washer + 0.3 * wide, high * 0.72), above=False)
    pin_at = x + washer + 0.8 * wide
    if stack.has("pin"):
        split_pin(sheet, pin_at, high * 0.92, 0.62 * wide)
        sheet.label(stack.find("pin"), (pin_at + 0.38 * wide, high * 0.45), above=False)
    if stack.has("cap"):
        reach = x + washer + wide + 14 - hub.end
        cap(sheet, outer.mouth + 0.55 * (hub.end - outer.mouth), hub.cap_bore, reach, hub.end)
        sheet.label(stack.find("cap"), (hub.end + 0.5 * reach, hub.cap_bore * 0.94), above=True)


def spindle_pair(sheet: Sheet, stack: Stack) -> None:
    """Spacer and shims between the cones: the pack makes the play."""
    spacer = stack.width("spacer", "", 43.0) if stack.has("spacer") else 20.0
    pack = stack.pack()
    collar = stack.width("collar", "", 12.0) if stack.has("collar") else 0.0
    pair = _pair(stack, spacer + sum(pack), collar)
    x = pair.nut_from
    washer, wide = _washer(stack), stack.width("nut", "", 17.0)
    hub = _barrel(stack, pair, x + washer + 0.5 * wide)
    _hub(sheet, pair, hub)
    _spindle(sheet, pair, hub, x + washer + wide + 7)
    track = _root(pair) if not collar else pair.inner.bore + 0.5 * pair.inner.height
    if collar:
        sheet.cut(box(0, pair.inner.bore, collar, track), "collar", RING.__class__(1, 3.4))
        sheet.label(stack.find("collar"), (collar / 2, (pair.inner.bore + track) / 2), above=False)
    where = _seal(sheet, stack, hub, track)
    _bearings(sheet, pair)
    if stack.has("spacer"):
        _spacer(sheet, stack, pair, spacer)
    _shims(sheet, stack, pair, pair.inner.end + spacer, pack)
    _slotted_end(sheet, stack, pair, hub, x, washer, wide)
    _name(sheet, stack, pair, hub, where)


def _spacer(sheet: Sheet, stack: Stack, pair: Pair, wide: float) -> None:
    """A spacer between the cones, stepped where the seats differ; it stands on the small ribs."""
    inner, outer = pair.inner, pair.outer
    x0, x1 = inner.end, inner.end + wide
    low1, low2 = inner.bore + 0.2, outer.bore + 0.2
    high1 = (inner.bore + inner.cone_front) / 2 + 0.6
    high2 = (outer.bore + outer.cone_front) / 2 + 0.6
    if abs(low1 - low2) < 0.6:
        sheet.cut(box(x0, low1, x1, max(high1, high2)), "spacer", SPACER)
        at = (x0 + 0.45 * wide, (low1 + high1) / 2)
    else:
        bend, far = x0 + 0.22 * wide, x0 + 0.36 * wide
        sheet.cut(
            [(x0, low1), (x0, high1), (bend, high1), (far, high2), (x1, high2), (x1, low2), (far, low2),
             (bend, low1)],
            "spacer", SPACER,
        )  # fmt: skip
        at = (x0 + 0.62 * wide, (low2 + high2) / 2)
    sheet.label(stack.find("spacer"), at, above=False)


def _shims(sheet: Sheet, stack: Stack, pair: Pair, x: float, pack: tuple[float, ...]) -> None:
    outer = pair.outer
    low, high = outer.bore + 0.2, (outer.bore + outer.cone_front) / 2 + 0.6
    for wide in pack:
        sheet.add(box(x, low, x + wide, high), "shim", "shim")
        x += wide
    middle = x - sum(pack) / 2
    sheet.detail = (middle, (low + high) / 2)
    sheet.label(stack.find("shim"), (middle, (low + high) / 2), above=False)


def preset_pair(sheet: Sheet, stack: Stack) -> None:
    """A spacer fixes the setting: one-piece nut, oil cap with its screws."""
    spacer = stack.width("spacer", "", 49.0)
    pair = _pair(stack, spacer)
    x = pair.nut_from
    washer, wide = _washer(stack), stack.width("nut", "", 20.0)
    hub = _barrel(stack, pair, x + washer + 0.55 * wide)
    _hub(sheet, pair, hub)
    _spindle(sheet, pair, hub, x + washer + wide + 6)
    where = _seal(sheet, stack, hub, max(pair.inner.bore * 1.12, _root(pair)))
    _bearings(sheet, pair)
    if stack.has("spacer"):
        _spacer(sheet, stack, pair, spacer)
    outer = pair.outer
    if washer:
        sheet.cut(
            box(x, outer.bore * 0.96, x + washer, outer.bore + 0.5 * outer.height), "washer", BESIDE
        )
        sheet.label(stack.find("washer"), (x + washer / 2, outer.bore), above=False)
    high = outer.bore + 0.4 * outer.height
    nut(sheet, x + washer, wide, high)
    sheet.label(stack.find("nut"), (x + washer + 0.45 * wide, 0.6 * high), above=False)
    _oil_cap(sheet, stack, hub, x + washer + wide + 9)
    _name(sheet, stack, pair, hub, where)


def _oil_cap(sheet: Sheet, stack: Stack, hub: Barrel, end: float) -> None:
    """A cast cap on the hub's face with its gasket and a screw."""
    if not stack.has("cap"):
        return
    gasket = max(1.0, 2.4 * sheet.px)
    top = hub.cap_bore + 0.42 * (hub.seal_bore - hub.cap_bore) + 7
    thick = 0.09 * top + 2
    face = hub.end + gasket
    sheet.add(box(hub.end, hub.cap_bore + 0.5, hub.end + gasket, top - 1), "solid", "gasket")
    sheet.cut(
        [(face, hub.cap_bore), (face, top, 1), (face + thick, top, 1), (face + thick, hub.cap_bore + 1.5, 2),
         (end, hub.cap_bore * 0.62, 4), (end + thick * 0.4, 0), (end + thick * 1.2, 0),
         (end + thick, hub.cap_bore * 0.66, 4), (face + thick * 0.2, hub.cap_bore - thick * 0.6, 1)],
        "cap", FAR, bare=(5,),
    )  # fmt: skip
    screw = (hub.cap_bore + top) / 2 + 1
    bolt(sheet, Bolt(face + thick, screw, thick + 9, 3.2, -1), "screw")
    sheet.label(stack.find("cap"), (end + thick * 0.5, hub.cap_bore * 0.4), above=True)


def lock_pair(sheet: Sheet, stack: Stack) -> None:
    """Keyed washer, inner nut, lock ring and jam nut on a hollow spindle, the drive shaft through it."""
    pair = _pair(stack, 1.5 * stack.width("cone", "inner", 24.0))
    outer, inner = pair.outer, pair.inner
    washer = _washer(stack)
    wide, ring = stack.width("nut", "", 12.0), stack.thin(stack.width("lock_ring", "", 4.0))
    jam = stack.width("jam_nut", "", 11.0)
    x = pair.nut_from
    end = x + washer + wide + ring + jam
    hub = _barrel(stack, pair, end + 3)
    flange_r = hub.cap_bore + 0.5 * (inner.outside - inner.bore)
    hollow = 0.52 * outer.bore
    _drive_shaft(sheet, stack, hub, hollow, flange_r, inner.cone_width)
    _hub(sheet, pair, hub)
    _spindle(sheet, pair, hub, end + 3, hollow=hollow)
    sleeve = inner.bore * 1.12
    if stack.has("wear_sleeve"):
        thick = max(1.2, 3 * sheet.px)
        low, end_at = _root_of(inner), min(hub.start + stack.width("seal", "", 11.0) + 2, -0.4)
        sheet.cut(box(hub.start - 1, low, end_at, low + thick), "wear_sleeve", THIN)
        sleeve = low + thick
        sheet.label(stack.find("wear_sleeve"), (end_at - 1.5, low + thick / 2), above=False)
    where = _seal(sheet, stack, hub, sleeve)
    _bearings(sheet, pair)
    high = outer.bore + 0.46 * outer.height
    low = outer.bore * 0.94
    sheet.cut(box(x, low, x + washer, high + 2), "washer", BESIDE)
    x += washer
    _ring_nut(sheet, x, wide, low, high, "nut")
    sheet.cut(box(x + wide, low, x + wide + ring, high), "lock_ring", THIN)
    sheet.plain(box(x + wide - 1.6, high - 4, x + wide + ring, high - 1.6), "lock_ring")
    _ring_nut(sheet, x + wide + ring, jam, low, high, "jam_nut")
    for kind, at in (("washer", x - washer / 2), ("nut", x + wide / 2), ("lock_ring", x + wide + ring * 0.6),
                     ("jam_nut", x + wide + ring + jam / 2)):  # fmt: skip
        sheet.label(stack.find(kind), (at, low + 0.25 * (high - low)), above=False)
    _name(sheet, stack, pair, hub, where)


def _root_of(inner: Tapered) -> float:
    return max(inner.bore * 1.12, inner.bore + 0.62 * (inner.cone_back - inner.bore))


def _ring_nut(sheet: Sheet, x: float, wide: float, low: float, high: float, name: str) -> None:
    sheet.plain([(x, low), (x, high, 1.4), (x + wide, high, 1.4), (x + wide, low)], name)


def _drive_shaft(
    sheet: Sheet, stack: Stack, hub: Barrel, hollow: float, flange_r: float, wide: float
) -> None:
    """The drive shaft inside, its flange and gasket on the hub's end, a bolt through both."""
    if not stack.has("shaft"):
        return
    radius, gasket = 0.8 * hollow, max(0.8, 2.4 * sheet.px)
    face, thick = hub.end + gasket, 0.3 * wide
    top = flange_r + 3
    sheet.plain(
        [(hub.start - 1.1 * wide, 0), (hub.start - 1.1 * wide, radius), (hub.end - 0.5 * wide, radius, 6),
         (face, hub.cap_bore * 0.7, 4), (face, top, 1), (face + thick, top, 1), (face + thick, 0)],
        "shaft", breaks=(0,), bare=(6,),
    )  # fmt: skip
    sheet.add(box(hub.end, hub.cap_bore + 0.5, face, top - 1), "solid", "gasket")
    bolt(
        sheet,
        Bolt(face + thick, (hub.cap_bore + top) / 2 + 1, thick + gasket + 11, 4.0, -1),
        "screw",
    )
    sheet.label(stack.find("shaft"), (hub.start + 0.1 * wide, 0.5 * radius), above=False)
    sheet.label(stack.find("gasket"), (hub.end + gasket / 2, hub.cap_bore + 2), above=True)
