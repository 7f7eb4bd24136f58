"""Bearings set by what stands between their rings: the pack with sleeves, and the ground spacer."""

from zesty.drawings.section.model import Stack
from zesty.drawings.section.outline import box
from zesty.drawings.section.parts.bearings import Ball, Tapered, ball, contact, tapered
from zesty.drawings.section.parts.fixings import Bolt, bolt, nut, slotted_nut, split_pin
from zesty.drawings.section.parts.seals import Between, clip_seal, lip_seal
from zesty.drawings.section.sheet import BESIDE, FAR, HOUSING, SPACER, Sheet


def sleeve_pack(sheet: Sheet, stack: Stack) -> None:
    """Two cones on one axle, inner and outer spacer and a shim between, a sleeve at either end."""
    seat = stack.bore("cone", "left", 25.0)
    cup = stack.outside("cup", "left", 2 * seat + 27)
    wide = stack.width("cone", "left", 15.0)
    pack = stack.pack() or (stack.thin(stack.width("shim", "", 0.3)),)
    spacer = stack.width("spacer", "cones", 45.0)
    sleeve = stack.width("sleeve", "left", 20.0)
    left = Tapered(0, seat, cup, wide, True)
    right = Tapered(wide + spacer + sum(pack), seat, cup, wide, False)
    high = seat + 0.36 * left.height
    _pack_axle(sheet, seat, -sleeve, right.end + sleeve)
    _pack_hub(sheet, stack, left, right, cup)
    for seat_name, x in (("left", -sleeve), ("right", right.end)):
        sheet.cut(
            [(x, seat), (x, high, 1), (x + sleeve, high, 1), (x + sleeve, seat)],
            f"sleeve {seat_name}",
            SPACER,
        )
    sheet.cut(box(wide, seat, wide + spacer, seat + 0.3 * left.height), "spacer cones", SPACER)
    x = wide + spacer
    for one in pack:
        sheet.add(box(x, seat, x + one, seat + 0.32 * left.height), "shim", "shim")
        x += one
    sheet.cut(box(left.back, cup - 0.3 * left.height, right.back, cup), "spacer cups", SPACER)
    for one, name in ((left, "left_bearing"), (right, "right_bearing")):
        tapered(sheet, one, name)
    seal = stack.width("seal", "left", 8.0)
    bore = cup + 0.5
    lip_seal(sheet, Between(-4 - seal, -4, high, bore), "seal left")
    lip_seal(sheet, Between(right.end + 4 + seal, right.end + 4, high, bore), "seal right")
    _pack_names(sheet, stack, left, right, (seat, high, cup, sleeve, spacer, sum(pack)))


def _pack_axle(sheet: Sheet, seat: float, start: float, end: float) -> None:
    """The axle with its head, its nut and a washer; where the fork stands is a neighbour."""
    fork = 9.0
    sheet.plain(
        [(start - fork - 9, 0), (start - fork - 9, seat + 4, 1), (start - fork, seat + 4, 1),
         (start - fork, seat), (end + fork + 3, seat),
         (end + fork + 3, seat * 0.82), (end + fork + 19, seat * 0.82), (end + fork + 19, 0)],
        "shaft", bare=(7,),
    )  # fmt: skip
    sheet.line([(start - fork, seat), (start - fork, 0)], "behind")
    sheet.line([(end + fork + 3, seat), (end + fork + 3, 0)], "behind")
    for x in (start - fork, start - 1, end + 1, end + fork):
        sheet.line([(x, seat + 1), (x, seat + 30)], "neighbour")
    sheet.cut(box(end + fork, seat + 0.2, end + fork + 2.5, seat + 6), "washer", BESIDE)
    nut(sheet, end + fork + 2.5, 11, seat + 4)


def _pack_hub(sheet: Sheet, stack: Stack, left: Tapered, right: Tapered, cup: float) -> None:
    """The hub that grips the cups, with the seal's seat on the left and the bolted cover on the right."""
    seal = stack.width("seal", "left", 8.0)
    gasket = max(0.6, 2.4 * sheet.px)
    start, face = -4 - seal, right.end + 1.5
    bore = cup + 0.5
    wall, web = 7.0, 24.0
    sheet.cut(
        [(start, bore), (start, cup + wall, 1.5), (8, cup + wall + 3, 3), (12, cup + web), (22, cup + web),
         (26, cup + wall, 4),
         (right.x - 12, cup + wall, 4), (right.x - 8, cup + web), (right.x + 2, cup + web),
         (right.x + 6, cup + wall + 8, 3),
         (face, cup + wall + 7, 1), (face, cup), (left.mouth + 0.1, cup), (left.mouth + 0.1, bore)],
        "hub", HOUSING, breaks=(3, 7),
    )  # fmt: skip
    sheet.add(box(face, cup + 0.5, face + gasket, cup + wall + 6), "solid", "gasket")
    cover = face + gasket
    end = right.end + 4 + stack.width("seal", "right", 8.0)
    sheet.cut(
        [(cover, cup), (cover, cup + wall + 6, 1), (cover + 6, cup + wall + 6, 1), (cover + 6, cup + 5, 2),
         (end + 0.5, cup + 4, 1),
         (end + 0.5, bore), (cover + 1.5, bore), (cover + 1.5, cup)],
        "plate", FAR,
    )  # fmt: skip
    bolt(sheet, Bolt(cover + 6, cup + wall + 0.8, 17, 3.0, -1), "screw")


def _pack_names(
    sheet: Sheet,
    stack: Stack,
    left: Tapered,
    right: Tapered,
    sizes: tuple[float, float, float, float, float, float],
) -> None:
    seat, high, cup, sleeve, spacer, pack = sizes
    middle = left.end + spacer / 2
    sheet.label(stack.find("seal", "left"), (-8, cup - 0.5), above=True)
    sheet.label(stack.find("cone", "left"), (left.back - 4, cup - 1.5), above=True, words="bearing")
    sheet.label(stack.find("spacer", "cups"), (middle, cup - 0.15 * left.height), above=True)
    sheet.label(stack.find("hub"), (right.x - 2, cup + 10), above=True)
    sheet.label(stack.find("plate"), (right.end + 5.5, cup + 9), above=True)
    sheet.label(stack.find("seal", "right"), (right.end + 9, cup - 0.5), above=True)
    sheet.label(stack.find("shaft"), (-sleeve - 13, seat * 0.5), above=False)
    sheet.label(stack.find("sleeve", "left"), (-sleeve * 0.62, (seat + high) / 2), above=False)
    sheet.label(stack.find("spacer", "cones"), (middle, seat + 0.15 * left.height), above=False)
    sheet.label(stack.find("shim"), (right.x - pack / 2, seat + 0.16 * left.height), above=False)
    sheet.label(
        stack.find("sleeve", "right"), (right.end + sleeve * 0.62, (seat + high) / 2), above=False
    )
    sheet.label(stack.find("nut"), (right.end + sleeve + 17, seat * 0.6), above=False)


def upright_pair(sheet: Sheet, stack: Stack) -> None:
    """Angular-contact bearings back to back, the ground spacer between their inner rings."""
    seat = stack.bore("ball_bearing", "inner", 40.0)
    outside = stack.outside("ball_bearing", "inner", 2 * seat + 27)
    wide = stack.width("ball_bearing", "inner", 15.0)
    spacer, collar = stack.width("spacer", "", 20.0), stack.width("collar", "", 14.0)
    inner = Ball(0, seat, outside, wide, open_to=1, shields=False)
    outer = Ball(wide + spacer, seat, outside, wide, open_to=-1, shields=False)
    high = seat + 0.33 * (outside - seat)
    end, nut_wide = outer.end, stack.width("nut", "", 18.0)
    _race_hub(sheet, seat, high, -collar - nut_wide, end, outside)
    _upright(sheet, inner, outer, outside)
    sheet.cut(
        [(-collar, seat), (-collar, high + 1, 1), (0, high + 1, 1), (0, seat)], "collar", BESIDE
    )
    ball(sheet, inner, "ball_bearing inner")
    ball(sheet, outer, "ball_bearing outer")
    sheet.cut(box(wide, seat, outer.x, high), "spacer", SPACER)
    contact(sheet, inner, -1)
    contact(sheet, outer, 1)
    for seal, at, way in (("inner", -6.0, -1), ("outer", end + 6.0, 1)):
        if stack.has("seal", seal):
            clip_seal(
                sheet,
                Between(at, at - way * 3, high + (1 if way < 0 else 0), outside + 1.5),
                f"seal {seal}",
            )
    slotted_nut(sheet, -collar, -nut_wide, seat * 0.9, high + 3)
    split_pin(sheet, -collar - 0.8 * nut_wide, high + 2, 0.55 * nut_wide, -1)
    sheet.force((-collar * 0.75, (seat + high) / 2), (-1, (seat + high) / 2))
    sheet.force((end + collar * 0.9, (seat + high) / 2), (end + 1.5, (seat + high) / 2))
    _race_names(sheet, stack, inner, outer, (seat, high, collar, nut_wide))


def _race_hub(
    sheet: Sheet, seat: float, high: float, start: float, end: float, outside: float
) -> None:
    """The hub is the shaft: thread, seat, shoulder, seal track, wheel flange."""
    flange = outside + 22
    sheet.plain(
        [(start - 4, 0), (start - 4, seat * 0.9), (start + 17, seat * 0.9), (start + 17, seat),
         (end, seat), (end, high), (end + 16, high),
         (end + 24, high + 6, 4), (end + 24, flange, 1.5), (end + 35, flange, 1.5),
         (end + 35, seat * 1.3, 3), (end + 44, seat * 1.15, 1),
         (end + 44, 0)],
        "hub", bare=(12,),
    )  # fmt: skip
    for x, r in ((start + 17, seat * 0.9), (end, seat), (end + 24, high), (end + 35, seat)):
        sheet.line([(x, r), (x, 0)], "behind")
    sheet.line([(end + 22, flange - 9), (end + 38, flange - 9)], "fine-axis")
    for side in (-4, 4):
        sheet.line([(end + 24, flange - 9 + side), (end + 35, flange - 9 + side)], "behind")


def _upright(sheet: Sheet, inner: Ball, outer: Ball, outside: float) -> None:
    """The upright: a shoulder between the outer rings, a seal's groove at either end."""
    lip = outside - 0.18 * (outside - inner.bore)
    start, end = inner.x - 11, outer.end + 11
    top = outside + 9
    middle = (inner.end + outer.x) / 2
    sheet.cut(
        [(start, outside), (start, top, 3), (middle - 26, top + 2, 5), (middle - 17, top + 20),
         (middle + 17, top + 20), (middle + 26, top + 2, 5),
         (end, top, 3), (end, outside), *_groove(outer.end + 6, outside), (outer.x, outside),
         (outer.x, lip), (inner.end, lip), (inner.end, outside),
         *_groove(inner.x - 3, outside)],
        "knuckle", HOUSING, breaks=(3,),
    )  # fmt: skip
    for x in (inner.end, outer.x):
        sheet.line([(x, lip), (x, inner.bore)], "behind")


def _groove(x: float, r: float) -> list[tuple[float, float]]:
    """A clipped seal's groove, from its outboard side to its inboard one."""
    return [(x, r), (x, r + 1.6), (x - 3, r + 1.6), (x - 3, r)]


def _race_names(
    sheet: Sheet, stack: Stack, inner: Ball, outer: Ball, sizes: tuple[float, float, float, float]
) -> None:
    seat, high, collar, wide = sizes
    outside = inner.outside
    middle = (inner.end + outer.x) / 2
    sheet.label(stack.find("seal", "inner"), (-4.5, outside - 0.6), above=True)
    sheet.label(stack.find("ball_bearing", "inner"), (inner.x + 11, outside - 1.6), above=True)
    sheet.label(stack.find("knuckle"), (middle, outside + 8), above=True)
    sheet.label(stack.find("ball_bearing", "outer"), (outer.x + 4, outside - 1.6), above=True)
    sheet.label(stack.find("seal", "outer"), (outer.end + 4.5, outside - 0.6), above=True)
    sheet.label(stack.find("pin"), (-collar - 1.15 * wide, high * 0.7), above=False)
    sheet.label(stack.find("nut"), (-collar - 0.35 * wide, high * 0.5), above=False)
    sheet.label(stack.find("collar"), (-collar * 0.4, (seat + high) / 2 + 2), above=False)
    sheet.label(stack.find("spacer"), (middle, (seat + high) / 2), above=False)
    sheet.label(stack.find("hub"), (outer.end + 30, seat * 0.7), above=False)
