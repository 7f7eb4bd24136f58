"""A planetary hub: a ring of bolts pulls the outer cone on by its plate, the planets in the cover."""

from zesty.drawings.section.model import Stack
from zesty.drawings.section.outline import box
from zesty.drawings.section.parts.bearings import Tapered, tapered
from zesty.drawings.section.parts.fixings import Bolt, bolt
from zesty.drawings.section.parts.seals import Between, cassette, lip_seal
from zesty.drawings.section.sheet import FAR, HOUSING, RING, SPACER, THIN, Sheet


def planetary(sheet: Sheet, stack: Stack) -> None:
    """Spindle, cassette seal, both bearings, hub, plate with ring gear and its bolts, cover."""
    seat = stack.bore("cone", "inner", 120.0)
    cup = stack.outside("cup", "inner", 2 * seat + 70)
    wide = stack.width("cone", "inner", 38.0)
    seat2 = stack.bore("cone", "outer", 2 * seat - 8)
    cup2 = stack.outside("cup", "outer", 2 * seat2 + 60)
    wide2 = stack.width("cone", "outer", 34.0)
    gap = 1.15 * wide
    inner = Tapered(0, seat, cup, wide, True)
    outer = Tapered(wide + gap, seat2, cup2, wide2, False)
    seal = stack.width("cassette_seal", "", 24.0)
    hollow = 0.6 * seat2
    _spindle(sheet, inner, outer, seal, hollow)
    _hub(sheet, inner, outer, seal)
    track = seat * 1.1
    where = Between(-seal - 3, -3, track, cup + 3)
    (cassette if stack.has("cassette_seal") else lip_seal)(sheet, where)
    tapered(sheet, inner, "inner_bearing")
    tapered(sheet, outer, "outer_bearing")
    _plate(sheet, outer, hollow)
    _cover(sheet, stack, outer, cup2, hollow)
    _sun(sheet, stack, outer, hollow)
    _names(sheet, stack, inner, outer, where, hollow)


def _spindle(sheet: Sheet, inner: Tapered, outer: Tapered, seal: float, hollow: float) -> None:
    """The hollow spindle, bolted to its axle."""
    root = inner.bore * 1.1
    start = -seal - 34
    back = inner.outside + 40
    sheet.cut(
        [(start, hollow), (start, back, 2), (start + 16, back, 2), (start + 16, inner.outside - 4, 6),
         (-seal - 8, root, 3), (0, root), (0, inner.bore), (inner.end, inner.bore),
         (outer.x - 6, outer.bore, 4), (outer.end - 1, outer.bore), (outer.end - 1, hollow)],
        "spindle", FAR,
    )  # fmt: skip
    bolt(sheet, Bolt(start + 16, back - 10, 38, 8, -1), "bolt")


def _hub(sheet: Sheet, inner: Tapered, outer: Tapered, seal: float) -> None:
    waist1, waist2 = (
        (inner.outside + inner.race_at_back) / 2,
        (outer.outside + outer.race_at_back) / 2,
    )
    start, end = -seal - 6, outer.end + 20
    bore, top = inner.outside + 3, inner.outside + 20
    high = top + 34
    flange = inner.back + 2
    mouth = outer.mouth + 0.2
    cover_bore = outer.outside + 12
    sheet.cut(
        [(start, bore), (start, top, 3), (flange, top + 4, 6), (flange + 2, high), (flange + 22, high),
         (flange + 24, top + 4, 6), (outer.back, outer.outside + 30, 4),
         (end, outer.outside + 28, 2), (end, cover_bore), (mouth, cover_bore), (mouth, outer.outside),
         (outer.back, outer.outside), (outer.back, waist2), (inner.back, waist1),
         (inner.back, inner.outside), (inner.mouth - 1, inner.outside), (inner.mouth - 1, bore)],
        "hub", HOUSING, breaks=(3,),
    )  # fmt: skip
    sheet.face((flange + 22, high - 4))
    sheet.play_at = ((start - 46, top + 20), "end")


def _plate(sheet: Sheet, outer: Tapered, hollow: float) -> None:
    """The preload plate against the outer cone and home on the spindle, its bolts, the ring gear on it."""
    x = outer.end
    low, rib = hollow + 1, outer.cone_back - 2
    gear = outer.outside + 2
    sheet.cut(
        [(x, low), (x, rib), (x + 3, rib), (x + 5, gear, 3), (x + 50, gear, 2), (x + 50, gear - 7),
         (x + 17, gear - 7, 2), (x + 17, low)],
        "plate", SPACER,
    )  # fmt: skip
    bolt(sheet, Bolt(x + 17, (hollow + outer.bore) / 2, 46, 8, -1), "bolt")
    planet = gear - 7.5
    sheet.cut(box(x + 30, planet - 19, x + 47, planet), "gear", THIN)
    sheet.plain(box(x + 29, planet - 46, x + 58, planet - 19), "planet pin")
    sheet.cut(box(x + 30, planet - 65, x + 47, planet - 46), "gear", THIN)
    for r in (planet - 4, planet - 61):
        sheet.line([(x + 30, r), (x + 47, r)], "fine")
    sheet.line([(x + 25, planet - 32.5), (x + 62, planet - 32.5)], "fine-axis")


def _cover(sheet: Sheet, stack: Stack, outer: Tapered, cup: float, hollow: float) -> None:
    """The cover: its spigot with the O-ring in the hub, its flange snug by screws, the thrust washer."""
    end = outer.end + 20
    bore, top = cup + 12, cup + 27
    far = outer.end + 76
    gear = outer.outside + 2
    sheet.cut(
        [(end - 15, bore - 6), (end - 15, bore - 0.4), (end, bore - 0.4), (end, top, 1),
         (end + 12, top, 1), (end + 13, bore + 4, 3),
         (far - 8, gear + 10, 10), (far, gear - 14, 8), (far, 0), (far - 12, 0), (far - 12, gear + 1, 5),
         (end + 6, bore - 6, 3)],
        "cap", RING.__class__(-1, 5.8), bare=(8,),
    )  # fmt: skip
    bolt(sheet, Bolt(end + 12, (bore + top) / 2 + 1, 34, 5.5, -1), "screw")
    if stack.has("o_ring"):
        sheet.add(box(end - 10, bore - 4.6, end - 5, bore - 0.2), "solid", "o_ring")
    if stack.has("thrust_washer"):
        thick = max(4.0, 5 * sheet.px)
        sheet.cut(box(far - 12 - thick, 6, far - 12, hollow * 0.62), "thrust_washer", THIN)


def _sun(sheet: Sheet, stack: Stack, outer: Tapered, hollow: float) -> None:
    """The sun shaft through the spindle."""
    if not stack.has("shaft"):
        return
    start, x = -58.0, outer.end
    sheet.plain(
        [(start, 0), (start, hollow * 0.52), (x + 14, hollow * 0.52), (x + 18, hollow * 0.66),
         (x + 48, hollow * 0.66), (x + 48, 0)],
        "shaft", breaks=(0,), bare=(5,),
    )  # fmt: skip
    sheet.line([(x + 18, hollow * 0.66), (x + 18, 0)], "behind")


def _names(
    sheet: Sheet, stack: Stack, inner: Tapered, outer: Tapered, where: Between, hollow: float
) -> None:
    end = outer.end
    sheet.label(stack.find("cassette_seal"), where.at(0.7, 0.97), above=True)
    for seat, one in (("inner", inner), ("outer", outer)):
        sheet.label(stack.find("cone", seat), ((one.cup[0] + one.cup[1]) / 2, one.outside - 2.5), above=True,
                    words=f"{seat} bearing")  # fmt: skip
    sheet.label(stack.find("hub"), (inner.back + 16, inner.outside + 8), above=True)
    sheet.label(stack.find("o_ring"), (end + 12.5, outer.outside + 9.6), above=True)
    sheet.label(stack.find("cap"), (end + 56, outer.outside + 5), above=True)
    sheet.label(stack.find("spindle"), (-30, (inner.bore + hollow) / 2), above=False)
    sheet.label(stack.find("shaft"), (14, hollow * 0.25), above=False)
    sheet.label(stack.find("plate"), (end + 9, outer.bore + 12), above=False)
    sheet.label(stack.find("bolt"), (end + 24, (hollow + outer.bore) / 2), above=False)
    sheet.label(stack.find("thrust_washer"), (end + 62, hollow * 0.4), above=False)
