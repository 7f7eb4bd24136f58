"""Nuts, pins, studs, bolts, snap rings and caps."""

from dataclasses import dataclass

from zesty.drawings.section.outline import Corner, Mm, box
from zesty.drawings.section.sheet import Hatch, Sheet


@dataclass(frozen=True)
class Bolt:
    """A bolt along the axis: its head's face, which way it goes in, its radius on the sheet, sizes."""

    x: float
    r: float
    long: float
    thick: float
    way: int = 1
    nut: float = 0.0


def bolt(sheet: Sheet, one: Bolt, name: str = "bolt") -> None:
    """Head, shank and thread, with its centre line; a nut on its end where it has one."""
    head, half = 1.3 * one.thick, one.thick / 2
    wide = 0.95 * one.thick
    at = one.x - one.way * head
    end = one.x + one.way * one.long

    def across(a: float, b: float, half: float, soft: float = 0.0) -> list[Corner]:
        return [
            (a, one.r - half, soft),
            (a, one.r + half, soft),
            (b, one.r + half),
            (b, one.r - half),
        ]

    sheet.add(across(one.x, end, half), "bolt", name)
    sheet.add(across(at, one.x, wide, 0.25 * half), "bolt", name)
    thread = one.x + one.way * one.long * 0.45
    for side in (-0.62, 0.62):
        sheet.line([(thread, one.r + side * half), (end, one.r + side * half)], "fine")
    sheet.line([(thread, one.r - half), (thread, one.r + half)], "fine")
    if one.nut:
        sheet.add(across(one.x + one.way * one.nut, one.x + one.way * (one.nut + 1.1 * one.thick), wide),
                  "bolt", name)  # fmt: skip
    sheet.line([(at - one.way * 3, one.r), (end + one.way * 3, one.r)], "fine-axis")


def nut(sheet: Sheet, x: float, wide: float, outside: float, name: str = "nut") -> None:
    """A hexagon nut in view, down to the axis; its crown's chamfer as an arc."""
    soft = 0.12 * wide
    sheet.plain(
        [(x, 0), (x, outside, soft), (x + wide, outside, soft), (x + wide, 0)], name, bare=(3,)
    )
    sheet.line(
        [
            (x + wide * 0.86, 0),
            (x + wide * 0.97, outside * 0.35),
            (x + wide * 0.9, outside * 0.7),
            (x + wide * 0.8, outside),
        ],
        "fine",
    )


def slotted_nut(sheet: Sheet, x: float, wide: float, bore: float, outside: float) -> None:
    """A slotted nut: body and crown, its slot, and the pin through both."""
    crown = x + wide * 0.58
    soft = 0.07 * wide
    sheet.plain([(x, 0), (x, outside, soft), (crown, outside, soft), (crown, 0)], "nut", bare=(3,))
    top = outside * 0.9
    sheet.plain([(crown, 0), (crown, top), (x + wide, top, soft), (x + wide, 0)], "nut", bare=(3,))
    slot = (bore * 0.42, bore * 0.66)
    sheet.add(
        [(crown, slot[0], 0.4 * (slot[1] - slot[0])), (crown, slot[1], 0.4 * (slot[1] - slot[0])),
         (x + wide, slot[1]), (x + wide, slot[0])],
        "light", "nut",
    )  # fmt: skip


def split_pin(sheet: Sheet, x: float, top: float, reach: float, way: int = 1) -> None:
    """A split pin in the plane: dashed where hidden, both ends bent; `way` is where the nut's face looks."""
    for side in (-0.7, 0.7):
        sheet.line([(x + side * reach * 0.12, 0), (x + side * reach * 0.12, top)], "hidden")
    sheet.line(
        [(x - way * reach * 0.9, top + reach * 0.42),
         (x - way * reach * 0.2, top + reach * 0.42, 0.3 * reach),
         (x, top + reach * 0.1, 0.2 * reach), (x, top - reach * 0.15)],
        "pin", "pin",
    )  # fmt: skip
    sheet.line(
        [(x, top - reach * 0.1), (x + way * reach * 0.1, top + reach * 0.32, 0.2 * reach),
         (x + way * reach * 0.6, top + reach * 0.3, 0.3 * reach),
         (x + way * reach * 0.62, top - reach * 0.9)],
        "pin", "pin",
    )  # fmt: skip


def cap(sheet: Sheet, x: float, bore: float, reach: float, hub_end: float) -> None:
    """A dust cap: its plug in the hub's bore, its bead at the face, its dome over nut and pin."""
    sheet.line(
        [
            (x, bore - 0.6 * sheet.px), (hub_end, bore - 0.6 * sheet.px, 1),
            (hub_end + 0.06 * reach, bore + 0.16 * reach, 2),
            (hub_end + 0.15 * reach, bore - 0.04 * reach, 2),
            (hub_end + 0.78 * reach, bore - 0.06 * reach, 0.3 * reach),
            (hub_end + reach, bore * 0.62, 0.3 * reach), (hub_end + reach, 0),
        ],
        "sheet", "cap",
    )  # fmt: skip


def snap_ring(sheet: Sheet, x: float, wide: float, r0: float, r1: float) -> None:
    """A snap ring in its groove, blacked in."""
    sheet.add(box(x, r0, x + wide, r1), "solid", "snap_ring")


def shaft(sheet: Sheet, steps: list[Mm], name: str = "spindle", *, left: bool = True, right: bool = False,
          hollow: float = 0.0, hatch: Hatch | None = None) -> None:  # fmt: skip
    """A shaft in view from its profile, with an edge at every shoulder down to the axis.

    `left` and `right`: broken off there.
    """
    start, end = steps[0][0], steps[-1][0]
    corners: list[Corner] = [(start, hollow), *steps, (end, hollow)]
    last = len(corners) - 1
    breaks = [0] if left else []
    breaks += [last - 1] if right else []
    if hollow and hatch is not None:
        sheet.cut(corners, name, hatch, breaks=breaks)
        return
    sheet.plain(corners, name, breaks=breaks, bare=(last,))
    for index in range(1, len(steps) - 1):
        (x0, r0), (x1, r1), (x2, r2) = steps[index - 1], steps[index], steps[index + 1]
        if (x1 == x2 and r1 != r2) or (x0 != x1 and r0 != r1 and x1 != x2):
            sheet.line([(x1, min(r1, r2)), (x1, hollow)], "behind")
