"""An axle bearing held by a retainer plate: what stands out of the housing is what the plate clamps."""

from zesty.drawings.section.model import Stack
from zesty.drawings.section.outline import box
from zesty.drawings.section.parts.bearings import Ball, ball
from zesty.drawings.section.parts.fixings import Bolt, bolt
from zesty.drawings.section.parts.seals import Between, lip_seal
from zesty.drawings.section.sheet import FAR, HOUSING, SPACER, THIN, Sheet


def plate_bearing(sheet: Sheet, stack: Stack) -> None:
    """Tube with inner seal and spacer ring, collar, bearing, bracket, plate with its seal, shaft flange."""
    seat = stack.bore("ball_bearing", "", 40.0)
    outside = stack.outside("ball_bearing", "", 2 * seat + 44)
    wide = stack.width("ball_bearing", "", 21.0)
    seal, ring = stack.width("seal", "inner", 11.0), stack.width("spacer", "", 18.0)
    bearing = Ball(seal + ring, seat, outside, wide, shields=False)
    bracket = stack.thin(stack.width("bracket", "", 8.0))
    # What stands out: at least so much that it can be seen.
    out = max(1.2, 6 * sheet.px)
    face = bearing.end - out - bracket
    shoulder = (seat + bearing.pitch - 0.58 * bearing.ball) / 2 + 1
    _shaft(sheet, bearing, seat, shoulder)
    _tube(sheet, face, outside, seat)
    lip_seal(sheet, Between(seal, 0.4, seat * 0.94, outside - 0.1), "seal inner")
    sheet.cut(
        box(seal, outside - 0.42 * (outside - seat), bearing.x, outside - 0.1), "spacer", SPACER
    )
    collar = stack.width("collar", "", 14.0)
    sheet.cut(box(bearing.x - collar, seat, bearing.x, shoulder + 1), "collar", THIN)
    ball(sheet, bearing, "ball_bearing")
    top = outside + 26
    sheet.cut(box(face, outside + 0.6, face + bracket, top + 8), "bracket", FAR)
    _plate(sheet, stack, bearing, shoulder, top)
    thick = 5.4
    bolt(sheet, Bolt(bearing.end + 8, outside + 14, bearing.end + 8 - face + 18, thick, -1), "bolt")
    sheet.spans.append((face + bracket, bearing.end, top + 4, "stand-out"))
    _name(sheet, stack, bearing, seat, shoulder, face, bracket)


def _shaft(sheet: Sheet, bearing: Ball, seat: float, shoulder: float) -> None:
    end = bearing.end
    high = bearing.outside + 34
    sheet.plain(
        [(-34, 0), (-34, seat * 0.78), (-12, seat * 0.82), (-10, seat * 0.94),
         (bearing.x - 16, seat * 0.94), (bearing.x - 16, seat),
         (end, seat), (end, shoulder), (end + 22, shoulder), (end + 32, shoulder + 8, 4),
         (end + 32, high, 1.5),
         (end + 44, high, 1.5), (end + 44, seat, 2), (end + 50, seat * 0.9, 1), (end + 50, 0)],
        "shaft", breaks=(0,), bare=(14,),
    )  # fmt: skip
    for x, r in ((-10, seat * 0.82), (bearing.x - 16, seat * 0.94), (end, seat), (end + 44, seat)):
        sheet.line([(x, r), (x, 0)], "behind")
    bolt(sheet, Bolt(end + 32, high - 9, 30, 5.4), "stud")


def _tube(sheet: Sheet, face: float, outside: float, seat: float) -> None:
    """The axle's tube with its flange: the seal's seat, the spacer's and the bearing's bore."""
    top = outside + 26
    sheet.cut(
        [(-34, outside - 0.5 * (outside - seat)), (-34, outside + 7), (face - 26, outside + 9, 4),
         (face - 16, top, 3), (face, top, 1.5),
         (face, outside), (0, outside), (0, outside - 0.5 * (outside - seat))],
        "housing", HOUSING, breaks=(0,),
    )  # fmt: skip


def _plate(sheet: Sheet, stack: Stack, bearing: Ball, shoulder: float, top: float) -> None:
    """The plate against the outer ring, the seal in its bore, the dust cover behind it."""
    at, wide = bearing.end, 8.0
    inner = bearing.pitch + 0.75 * bearing.ball
    seal = stack.width("seal", "outer", 10.0)
    end = at + 3.5 + seal
    bore = inner
    sheet.cut(
        [(at, inner), (at, top - 2, 1), (at + wide, top - 2, 1), (at + wide, bearing.outside + 1, 3),
         (end, bore + 5, 1), (end, bore)],
        "plate", FAR,
    )  # fmt: skip
    lip_seal(sheet, Between(end - 0.4, at + 3.0, shoulder, bore), "seal outer")
    if stack.has("dust_shield"):
        sheet.line([(end + 1.2, shoulder + 0.4), (end + 1.2, bore + 7), (end + 3.4, bore + 10),
        (end + 3.4, top - 8)],
                   "sheet", "dust_shield")  # fmt: skip


def _name(
    sheet: Sheet,
    stack: Stack,
    bearing: Ball,
    seat: float,
    shoulder: float,
    face: float,
    bracket: float,
) -> None:
    outside, end = bearing.outside, bearing.end
    sheet.label(stack.find("housing"), (-18, outside + 2), above=True)
    sheet.label(stack.find("seal", "inner"), (6, outside - 2), above=True)
    sheet.label(stack.find("spacer"), (bearing.x - 8, outside - 3), above=True)
    sheet.label(stack.find("bracket"), (face + bracket / 2, outside + 30), above=True)
    sheet.label(stack.find("dust_shield"), (end + 14.8, shoulder + 2.2), above=False)
    sheet.label(stack.find("collar"), (bearing.x - 8, (seat + shoulder) / 2), above=False)
    sheet.label(stack.find("ball_bearing"), (bearing.x + 2.5, seat + 3), above=False)
    sheet.label(stack.find("plate"), (end + 2.4, bearing.pitch + 0.9 * bearing.ball), above=False)
    sheet.label(stack.find("seal", "outer"), (end + 9.5, shoulder + 3.5), above=False)
    sheet.label(stack.find("shaft"), (end + 38, seat * 0.7), above=False)
