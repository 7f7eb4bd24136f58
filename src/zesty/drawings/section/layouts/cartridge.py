"""A cartridge in its knuckle: outer ring to the knuckle, inner rings between shaft and hub."""

from zesty.drawings.section.model import Stack
from zesty.drawings.section.outline import arc, box
from zesty.drawings.section.parts.fixings import Bolt, bolt, nut, snap_ring
from zesty.drawings.section.sheet import HOUSING, RING, SPACER, Hatch, Sheet


def cartridge(sheet: Sheet, stack: Stack) -> None:
    """The unit with two rows of balls, its snap ring, the hub pressed into it, the shaft through that."""
    seat = stack.bore("cartridge", "", 40.0)
    outside = stack.outside("cartridge", "", 2 * seat + 36)
    wide = stack.width("cartridge", "", 39.0)
    splined = 0.64 * seat
    _drive_shaft(sheet, stack, seat, splined, wide)
    _hub(sheet, stack, seat, splined, outside, wide)
    _knuckle(sheet, outside, wide)
    _unit(sheet, seat, outside, wide)
    if stack.has("encoder"):
        sheet.add(
            box(
                -max(2.2, 3.2 * sheet.px),
                seat + 0.35 * (outside - seat),
                0,
                seat + 0.72 * (outside - seat),
            ),
            "cut",
            "encoder",
        )
    if stack.has("snap_ring"):
        snap_ring(sheet, wide, max(1.8, 3 * sheet.px), outside - 3.2, outside + 2.6)
    _sensor(sheet, seat, outside)
    if stack.has("dust_shield"):
        x = wide + 7.8
        sheet.line(
            [
                (x, outside + 0.5),
                (x, outside + 14),
                (x - 2, outside + 19, 3),
                (x - 3, outside + 33),
            ],
            "sheet",
            "dust_shield",
        )
    nut(sheet, wide + 14, stack.width("nut", "", 14.0), seat * 0.92)
    _names(sheet, stack, seat, outside, wide, splined)


def _unit(sheet: Sheet, seat: float, outside: float, wide: float) -> None:
    pitch, radius = (seat + outside) / 2, 0.29 * (outside - seat)
    rise = 0.58 * radius
    rows = (0.29 * wide, 0.71 * wide)
    sheet.cut(
        [(0.5, pitch + rise), (0.5, outside - 0.1, 1), (wide, outside - 0.1, 1), (wide, pitch + rise),
         *[p for x in reversed(rows) for p in _groove((x, pitch), radius * 1.04, upper=True)]],
        "cartridge", RING,
    )  # fmt: skip
    middle = wide / 2
    for x, a, b, hatch in ((rows[0], 0.0, middle, RING), (rows[1], middle, wide, Hatch(-1, 3.4))):
        sheet.cut(
            [(a, seat), (a, pitch - rise, 0.6), *_groove((x, pitch), radius * 1.04, upper=False),
             (b, pitch - rise, 0.6), (b, seat)],
            "cartridge", hatch,
        )  # fmt: skip
        sheet.add(arc((x, pitch), radius, 0, 345, 23), "roller", "cartridge")
    for x in (1.6, wide - 1.6):
        sheet.add(
            box(x - 0.8, pitch - rise + 0.3, x + 0.8, pitch + rise - 0.3), "rubber", "cartridge"
        )


def _groove(
    centre: tuple[float, float], radius: float, *, upper: bool
) -> list[tuple[float, float]]:
    """The groove's arc: from right to left above a ball, from left to right under it."""
    return arc(centre, radius, 34, 146, 10) if upper else arc(centre, radius, 214, 326, 10)


def _knuckle(sheet: Sheet, outside: float, wide: float) -> None:
    """The knuckle: the unit's bore with its shoulder inboard and the snap ring's groove outboard."""
    top = outside + 34
    lip = outside - 5
    groove = max(1.8, 3 * sheet.px)
    sheet.cut(
        [(-15, lip), (-15, outside + 14, 2), (-4, outside + 15, 2), (3, top), (wide - 7, top),
         (wide, outside + 14, 3), (wide + 7, outside + 12, 2),
         (wide + 7, outside), (wide + groove, outside), (wide + groove, outside + 2.8),
         (wide, outside + 2.8), (wide, outside), (0, outside), (0, lip)],
        "knuckle", HOUSING, breaks=(3,),
    )  # fmt: skip


def _hub(
    sheet: Sheet, stack: Stack, seat: float, splined: float, outside: float, wide: float
) -> None:
    """The hub pressed into the inner rings, its flange with a stud."""
    if not stack.has("hub"):
        return
    flange = outside + 30
    sheet.cut(
        [(3, splined), (3, seat - 0.1), (wide, seat - 0.1), (wide, seat + 7), (wide + 12, outside - 3, 4),
         (wide + 17, outside + 4), (wide + 17, flange),
         (wide + 27, flange), (wide + 28, outside + 2, 3), (wide + 34, outside - 2, 1.5),
         (wide + 34, seat + 8, 1.5), (wide + 28, seat + 7), (wide + 28, seat * 0.98),
         (wide + 14, seat * 0.98), (wide + 14, splined)],
        "hub", SPACER.__class__(1, 5.9), breaks=(6,),
    )  # fmt: skip
    bolt(sheet, Bolt(wide + 17, outside + 17, 30, 6.5), "stud")
    sheet.face((wide + 27, flange - 2))
    sheet.play_at = ((-18, outside + 22), "end")


def _drive_shaft(sheet: Sheet, stack: Stack, seat: float, splined: float, wide: float) -> None:
    """The joint's stem: its face on the inner ring, its spline in the hub, its thread for the nut."""
    if not stack.has("shaft"):
        return
    sheet.plain(
        [(-34, 0), (-34, seat * 1.55), (-24, seat * 1.55, 3), (-10, seat * 1.18, 2), (0, seat * 1.16),
         (0, splined), (wide + 12, splined),
         (wide + 12, splined * 0.88), (wide + 38, splined * 0.88), (wide + 38, 0)],
        "shaft", breaks=(0,), bare=(9,),
    )  # fmt: skip
    for share in (0.9, 0.72, 0.5):
        sheet.line([(4, splined * share), (wide + 10, splined * share)], "fine")
    for x, r in ((-10, seat * 1.18), (0, seat), (wide + 12, splined * 0.88)):
        sheet.line([(x, r), (x, 0)], "behind")


def _sensor(sheet: Sheet, seat: float, outside: float) -> None:
    """The wheel-speed sensor through the knuckle, its tip before the encoder."""
    low, top = seat + 0.3 * (outside - seat), outside + 22
    sheet.add(
        [
            (-13, low),
            (-13, top - 8),
            (-18, top - 8, 1),
            (-18, top, 1),
            (-5, top, 1),
            (-5, top - 8),
            (-5, low),
        ],
        "light",
        "sensor",
    )


def _names(
    sheet: Sheet, stack: Stack, seat: float, outside: float, wide: float, splined: float
) -> None:
    sheet.label(stack.find("knuckle"), (wide * 0.3, outside + 16), above=True)
    sheet.label(stack.find("cartridge"), (wide * 0.62, outside - 2), above=True)
    sheet.label(stack.find("snap_ring"), (wide + 1, outside + 1), above=True)
    sheet.label(stack.find("dust_shield"), (wide + 7.8, outside + 9), above=True)
    sheet.label(stack.find("hub"), (wide + 22, outside + 3), above=True)
    sheet.label(stack.find("shaft"), (-18, seat * 0.7), above=False)
    sheet.label(stack.find("encoder"), (-1.2, seat + 0.45 * (outside - seat)), above=False)
    sheet.label(stack.find("nut"), (wide + 20, splined * 0.7), above=False)
