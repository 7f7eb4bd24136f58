"""Neighbours of the wheel end: the seal in the axle's tube, and the pivot on its kingpin."""

from zesty.drawings.section.model import Stack
from zesty.drawings.section.parts.bearings import Tapered, tapered
from zesty.drawings.section.parts.fixings import Bolt, bolt
from zesty.drawings.section.parts.seals import Between, lip_seal
from zesty.drawings.section.sheet import FAR, HOUSING, Sheet

_PIVOT = 96.0
"""Where the pivot's own section begins: along the kingpin, beside the one along the axle."""


def pivot(sheet: Sheet, stack: Stack) -> None:
    """Left along the axle, right along the kingpin: two cuts on one sheet."""
    _tube(sheet, stack)
    _kingpin(sheet, stack)


def _tube(sheet: Sheet, stack: Stack) -> None:
    """The tube with its seal, the shaft past it, the yoke that it ends in."""
    bore, track = stack.outside("seal", "tube", 52.0), 0.58 * stack.outside("seal", "tube", 52.0)
    wide = stack.width("seal", "tube", 12.0)
    sheet.plain(
        [(-6, 0), (-6, track * 0.82), (34, track * 0.84), (38, track), (72, track), (78, track * 1.3, 3),
         (88, track * 1.3), (88, 0)],
        "shaft", breaks=(0, 6), bare=(7,),
    )  # fmt: skip
    sheet.line([(38, track), (38, 0)], "behind")
    sheet.cut(
        [(0, bore - 4), (0, bore + 9), (62, bore + 9, 1), (62, bore), (62 - wide - 4, bore),
         (62 - wide - 4, bore - 4)],
        "housing", HOUSING, breaks=(0,),
    )  # fmt: skip
    sheet.cut(
        [(30, bore + 9), (34, bore + 16, 4), (42, bore + 44), (62, bore + 44), (62, bore + 9)],
        "yoke",
        FAR,
        breaks=(2,),
    )
    lip_seal(sheet, Between(60, 60 - wide, track, bore), "seal tube")
    sheet.label(stack.find("housing"), (14, bore + 4), above=True)
    sheet.label(stack.find("seal", "tube"), (58, bore - 1), above=False)
    sheet.label(stack.find("shaft"), (16, track * 0.4), above=False)


def _kingpin(sheet: Sheet, stack: Stack) -> None:
    """The pivot's bore with its cap, cup and cone, the seal, and the pin bolted to the knuckle."""
    seat = stack.bore("cone", "pivot", 25.0)
    cup = stack.outside("cup", "pivot", 2 * seat + 27)
    wide = stack.width("cone", "pivot", 15.0)
    x = _PIVOT + 24
    bearing = Tapered(x, seat, cup, wide, False)
    seal = stack.width("seal", "pivot", 8.0)
    face = bearing.mouth + seal + 3
    track = max(bearing.cone_back - 1, seat + 0.5 * bearing.height)
    top = cup + 26
    sheet.cut(
        [(_PIVOT, cup - 7), (_PIVOT, top), (face, top, 5), (face, cup + 1), (bearing.mouth, cup + 1),
         (bearing.mouth, cup), (bearing.back - 2.4, cup), (bearing.back - 2.4, cup - 7)],
        "yoke pivot", HOUSING, breaks=(0,),
    )  # fmt: skip
    knuckle = face + 4
    end = knuckle + 14
    sheet.plain(
        [(x - 2, 0), (x - 2, seat - 2, 1), (x, seat), (bearing.end, seat), (bearing.end, track),
         (knuckle, track), (knuckle, track + 0.2), (end, track + 0.2), (end, track + 22, 1),
         (end + 9, track + 22, 1),
         (end + 9, 0)],
        "pin", bare=(10,),
    )  # fmt: skip
    for at, r in ((bearing.end, seat), (end, track)):
        sheet.line([(at, r), (at, 0)], "behind")
    sheet.cut(
        [(knuckle, track + 0.2), (knuckle, top + 6), (end, top + 6), (end, track + 0.2)],
        "knuckle",
        FAR,
        breaks=(1,),
    )
    bolt(sheet, Bolt(end + 9, track + 13, 20, 6.5, -1), "pin bolt")
    tapered(sheet, bearing, "pivot_bearing")
    lip_seal(
        sheet, Between(bearing.mouth + 1 + seal, bearing.mouth + 1, track, cup + 1), "seal pivot"
    )
    if stack.has("cap"):
        at = bearing.back - 1.2
        sheet.line(
            [
                (at + 6, cup - 8.2),
                (at - 4, cup - 8),
                (at - 6, cup - 12),
                (at - 3, cup * 0.45),
                (at - 2.4, 0),
            ],
            "sheet",
            "cap",
        )
    sheet.label(
        stack.find("cup", "pivot"), ((bearing.cup[0] + bearing.cup[1]) / 2, cup - 1.4), above=True
    )
    sheet.label(stack.find("seal", "pivot"), (bearing.mouth + 4, cup - 0.5), above=True)
    sheet.label(stack.find("knuckle"), (knuckle + 7, cup + 18), above=True)
    sheet.label(stack.find("cap"), (bearing.back - 4, cup * 0.42), above=False)
    sheet.label(stack.find("cone", "pivot"), (bearing.end - 4, seat + 1.2), above=False)
    sheet.label(stack.find("pin"), (end + 4, seat * 0.6), above=False)
