"""Mower-deck spindles: a sealed ball pair with its centre spacer, and a tapered pair between two seals."""

from zesty.drawings.section.model import Stack
from zesty.drawings.section.outline import box
from zesty.drawings.section.parts.bearings import Ball, Tapered, ball, tapered
from zesty.drawings.section.parts.fixings import Bolt, bolt, nut, snap_ring
from zesty.drawings.section.parts.seals import Between, lip_seal
from zesty.drawings.section.sheet import BESIDE, FAR, HOUSING, RING, SPACER, THIN, Sheet


def ball_pair(sheet: Sheet, stack: Stack) -> None:
    """Blade, shaft, lower bearing, centre spacer, upper bearing, collar, pulley, washer, nut."""
    seat = stack.bore("ball_bearing", "inner", 25.0)
    outside = stack.outside("ball_bearing", "inner", 2 * seat + 27)
    wide = stack.width("ball_bearing", "inner", 15.0)
    spacer = stack.width("spacer", "", 57.0)
    lower = Ball(0, seat, outside, wide)
    upper = Ball(wide + spacer, seat, outside, wide)
    collar = stack.width("collar", "", 7.0) if stack.has("collar") else 0.0
    pulley = stack.width("pulley", "", 22.0) if stack.has("pulley") else 0.0
    washer = stack.thin(stack.width("washer", "", 4.0)) if stack.has("washer") else 0.0
    end = upper.end + collar + pulley + washer
    _deck_shaft(sheet, stack, seat, -1.0, end)
    _ball_housing(sheet, lower, upper)
    if stack.has("spacer"):
        sheet.cut(box(wide, seat, upper.x, seat + 0.36 * (outside - seat)), "spacer", SPACER)
    ball(sheet, lower, "ball_bearing inner")
    ball(sheet, upper, "ball_bearing outer")
    x = upper.end
    if collar:
        sheet.cut(box(x, seat, x + collar, seat + 4.5), "collar", BESIDE)
    if pulley:
        _pulley(sheet, x + collar, pulley, seat, outside + 12)
    if washer:
        sheet.cut(box(end - washer, seat * 0.98, end, seat + 8), "washer", THIN)
    nut(sheet, end, 15, seat + 3)
    inner = seat + 0.18 * (outside - seat)
    sheet.label(stack.find("blade"), (-30, outside + 8), above=True)
    sheet.label(stack.find("housing"), (9, outside + 10), above=True)
    sheet.label(stack.find("ball_bearing", "outer"), (upper.x + 11, outside - 2), above=True)
    sheet.label(stack.find("pulley"), (x + collar + pulley * 0.32, outside + 8), above=True)
    sheet.label(stack.find("shaft"), (-10, seat * 0.6), above=False)
    sheet.label(stack.find("ball_bearing", "inner"), (4, seat + 2), above=False)
    sheet.label(stack.find("spacer"), (wide + spacer / 2, inner), above=False)
    sheet.label(stack.find("collar"), (x + collar / 2, seat + 2), above=False)
    sheet.label(stack.find("washer"), (end - washer / 2, seat + 4), above=False)
    sheet.label(stack.find("nut"), (end + 7, seat * 0.6), above=False)


def _deck_shaft(sheet: Sheet, stack: Stack, seat: float, shoulder: float, end: float) -> None:
    """The blade's shaft: its bolt, the blade, the collar that the lower bearing stands on, the thread."""
    big = seat + 5.5
    sheet.plain(
        [(-26, 0), (-26, big + 3, 1), (-14, big + 3, 1), (-14, big), (shoulder, big), (shoulder, seat),
         (end, seat), (end, seat * 0.9), (end + 22, seat * 0.9),
         (end + 24, seat * 0.78), (end + 24, 0)],
        "shaft", bare=(10,),
    )  # fmt: skip
    for x, r in ((-14, big), (shoulder, seat), (end, seat * 0.9)):
        sheet.line([(x, r), (x, 0)], "behind")
    if stack.has("blade"):
        sheet.cut(
            [(-34, seat * 0.5), (-34, big + 36), (-26, big + 36), (-26, seat * 0.5)],
            "blade",
            FAR,
            breaks=(1,),
        )
        sheet.cut(box(-38, seat * 0.5, -34, big + 1), "blade washer", THIN)
        sheet.plain(
            [(-50, 0), (-50, seat * 0.8, 2), (-38, seat * 0.8), (-38, 0)], "bolt", bare=(3,)
        )


def _ball_housing(sheet: Sheet, lower: Ball, upper: Ball) -> None:
    """The housing: a shoulder for either outer ring, its flange bolted to the deck."""
    outside = lower.outside
    lip = outside - 0.2 * (outside - lower.bore)
    top, start, end = outside + 7, lower.x - 3.5, upper.end + 3.5
    flange = outside + 40
    sheet.cut(
        [(start, outside), (start, top + 2, 2), (17, top + 12, 5), (20, flange), (31, flange),
         (31, top + 17, 3), (38, top + 11, 4), (56, top, 6), (end, top, 2), (end, outside),
         (upper.x, outside), (upper.x, lip), (lower.end, lip), (lower.end, outside)],
        "housing", HOUSING, breaks=(3,),
    )  # fmt: skip
    for x in (lower.end, upper.x):
        sheet.line([(x, lip), (x, 0)], "behind")
    sheet.cut(
        [(31, top + 21), (31, flange), (36, flange), (36, top + 21)], "deck", FAR, breaks=(1,)
    )
    bolt(sheet, Bolt(20, flange - 11, 32, 6.0, nut=16.5), "bolt")
    sheet.face((36, flange - 3))
    sheet.play_at = ((-40, outside + 26), "end")


def _pulley(sheet: Sheet, x: float, wide: float, seat: float, top: float) -> None:
    """The pulley: hub, web and the belt's groove."""
    middle = x + wide * 0.45
    sheet.cut(
        [(x, seat), (x, seat + 7, 1.5), (middle - 3, seat + 8, 2), (middle - 3, top - 6, 1.5),
         (middle - 11, top - 2, 1.5), (middle - 11, top + 14),
         (middle - 8.5, top + 14), (middle - 3.5, top + 3), (middle + 3.5, top + 3),
         (middle + 8.5, top + 14), (middle + 11, top + 14),
         (middle + 11, top - 2, 1.5), (middle + 3, top - 6, 1.5), (middle + 3, seat + 8, 2),
         (x + wide, seat + 7, 1.5), (x + wide, seat)],
        "pulley", RING,
    )  # fmt: skip


def deck_pair(sheet: Sheet, stack: Stack) -> None:
    """Cups against a spacer and a snap ring, inner spacer and loose ring, two seals that are not alike."""
    seat = stack.bore("cone", "inner", 25.0)
    cup = stack.outside("cup", "inner", 2 * seat + 26)
    wide = stack.width("cone", "inner", 15.0)
    inner, loose = (
        stack.width("spacer", "cones", 39.7),
        stack.thin(stack.width("washer", "loose", 2.5)),
    )
    low_bush = stack.width("sleeve", "inner", 17.0)
    high_bush = stack.width("sleeve", "outer", 21.0)
    lower = Tapered(0, seat, cup, wide, True)
    upper = Tapered(wide + inner + loose, seat, cup, wide, False)
    end = upper.end + high_bush
    pulley = 20.0
    _deck_shaft(sheet, stack, seat, -low_bush, end + pulley)
    snap = max(2.0, 4 * sheet.px)
    _deck_housing(sheet, lower, upper, snap)
    high, track = seat + 0.4 * lower.height, seat + 0.36 * lower.height
    sheet.cut(box(-low_bush, seat, 0, high), "sleeve inner", SPACER)
    sheet.cut(box(wide, seat, wide + inner, seat + 0.3 * lower.height), "spacer cones", SPACER)
    sheet.cut(box(wide + inner, seat, upper.x, seat + 0.3 * lower.height), "washer loose", THIN)
    sheet.cut(
        box(lower.back, cup - 0.26 * lower.height, upper.back - snap, cup),
        "spacer cups",
        BESIDE.__class__(1, 4.2),
    )
    snap_ring(sheet, upper.back - snap, snap, cup - 0.34 * lower.height, cup + 2.2)
    tapered(sheet, lower, "inner_bearing")
    tapered(sheet, upper, "outer_bearing")
    sheet.cut(box(upper.end, seat, end, track), "sleeve outer", SPACER)
    lip_seal(sheet, Between(-low_bush + 4, -1.5, high, cup + 0.5), "seal inner")
    lip_seal(sheet, Between(upper.end + 13, upper.end + 3, track, cup + 0.5), "seal outer")
    _disc(sheet, end, pulley, seat, cup + 10)
    sheet.cut(box(end + pulley - 4, seat * 0.98, end + pulley, seat + 8), "pulley washer", THIN)
    nut(sheet, end + pulley, 15, seat + 3)
    _fitting(sheet, (lower.back + upper.back) / 2, cup)
    _deck_names(
        sheet,
        stack,
        lower,
        upper,
        (seat, high, cup, low_bush, inner, loose, high_bush, end, pulley, snap),
    )


def _deck_housing(sheet: Sheet, lower: Tapered, upper: Tapered, snap: float) -> None:
    """The deck's housing, open at both ends, one groove for the snap ring."""
    cup = lower.outside
    top, start, end = cup + 7, -14.0, upper.end + 19
    flange = cup + 38
    bore, groove = cup + 0.5, cup + 2.4
    sheet.cut(
        [(start, bore), (start, top + 1, 2), (0, top + 6, 4), (6, flange), (17, flange), (17, top + 12, 3),
         (24, top + 7, 4), (40, top + 1, 6), (end, top, 2), (end, bore),
         (upper.back + 0.1, bore), (upper.back + 0.1, cup), (upper.back, groove),
         (upper.back - snap, groove), (upper.back - snap, cup), (lower.mouth, cup), (lower.mouth, bore)],
        "housing", HOUSING, breaks=(3,),
    )  # fmt: skip
    sheet.cut(
        [(17, top + 15), (17, flange), (22, flange), (22, top + 15)], "deck", FAR, breaks=(1,)
    )
    bolt(sheet, Bolt(6, flange - 10, 32, 6.0, nut=16.5), "bolt")
    sheet.face((22, flange - 3))
    sheet.play_at = ((-50, cup + 24), "end")


def _fitting(sheet: Sheet, x: float, cup: float) -> None:
    """A grease fitting through the housing's wall."""
    sheet.add([(x - 1.3, cup - 4), (x - 1.3, cup + 7.5), (x - 4, cup + 7.5), (x - 4, cup + 12),
    (x - 2, cup + 13, 0.5), (x - 2, cup + 15),
               (x - 3.2, cup + 16.5, 1), (x - 1.4, cup + 20, 1), (x + 1.4, cup + 20, 1),
               (x + 3.2, cup + 16.5, 1), (x + 2, cup + 15), (x + 2, cup + 13, 0.5),
               (x + 4, cup + 12), (x + 4, cup + 7.5), (x + 1.3, cup + 7.5),
               (x + 1.3, cup - 4)], "light", "fitting")  # fmt: skip


def _disc(sheet: Sheet, x: float, wide: float, seat: float, top: float) -> None:
    """A flat pulley's hub and web."""
    sheet.cut(
        [(x, seat), (x, seat + 5, 1), (x + 6, seat + 6, 2), (x + 6, top + 12), (x + 10, top + 12),
         (x + 10, seat + 6, 2), (x + wide - 4, seat + 5, 1), (x + wide - 4, seat)],
        "pulley", RING,
    )  # fmt: skip


def _deck_names(
    sheet: Sheet, stack: Stack, lower: Tapered, upper: Tapered, sizes: tuple[float, ...]
) -> None:
    seat, high, cup, low_bush, inner, loose, high_bush, end, pulley, snap = sizes
    wide = lower.cone_width
    sheet.label(stack.find("blade"), (-30, cup + 10), above=True)
    sheet.label(stack.find("seal", "inner"), (-8, cup - 0.5), above=True)
    sheet.label(stack.find("housing"), (4, cup + 9), above=True)
    sheet.label(
        stack.find("spacer", "cups"), (lower.back + 9, cup - 0.12 * lower.height), above=True
    )
    sheet.label(stack.find("snap_ring"), (upper.back - snap / 2, cup + 0.5), above=True)
    sheet.label(stack.find("seal", "outer"), (upper.end + 10, cup - 0.3), above=True)
    sheet.label(stack.find("pulley"), (end + 8, cup + 12), above=True)
    sheet.label(stack.find("shaft"), (-low_bush - 6, seat * 0.6), above=False)
    sheet.label(stack.find("sleeve", "inner"), (-low_bush * 0.45, (seat + high) / 2), above=False)
    sheet.label(stack.find("cone", "inner"), (wide * 0.35, seat + 1.5), above=False)
    sheet.label(
        stack.find("spacer", "cones"), (wide + inner * 0.4, seat + 0.15 * lower.height), above=False
    )
    sheet.label(
        stack.find("washer", "loose"),
        (wide + inner + loose / 2, seat + 0.15 * lower.height),
        above=False,
    )
    sheet.label(
        stack.find("sleeve", "outer"), (upper.end + high_bush * 0.6, (seat + high) / 2), above=False
    )
    sheet.label(stack.find("nut"), (end + pulley + 7, seat * 0.6), above=False)
