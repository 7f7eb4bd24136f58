"""Two half shafts against one centre block; each side's bearing is held by its plate over its pack."""

from zesty.drawings.section.model import Part, Stack
from zesty.drawings.section.outline import box
from zesty.drawings.section.parts.bearings import Tapered, tapered
from zesty.drawings.section.parts.fixings import Bolt, bolt, slotted_nut, split_pin
from zesty.drawings.section.parts.seals import Between, lip_seal
from zesty.drawings.section.sheet import BESIDE, FAR, HOUSING, SPACER, Sheet

_FACE = 74.0
"""The housing's face, from the middle of the axle."""


def axle_pair(sheet: Sheet, stack: Stack) -> None:
    """Both ends, the left one mirrored, the centre block between them."""
    with sheet.mirrored():
        _end(sheet, stack, 0, "left")
    _end(sheet, stack, 1, "right")
    sheet.cut([(-11, 0), (-11, 17, 1.5), (11, 17, 1.5), (11, 0), (6, 0), (4.5, 6, 2), (-4.5, 6, 2), (-6, 0)],
              "housing", HOUSING, bare=(3, 7))  # fmt: skip
    sheet.label(stack.find("housing"), (0, 12), above=False)
    sheet.play_at = ((0, 44), "middle")


def _end(sheet: Sheet, stack: Stack, index: int, side: str) -> None:
    seat = stack.bore("cone", "shaft", 30.0)
    cup = stack.outside("cup", "shaft", 2 * seat + 32)
    wide = stack.width("cone", "shaft", 20.0)
    pack = stack.pack(index)
    plate_at = _FACE + sum(pack)
    bearing = Tapered(plate_at - 1.06 * wide, seat, cup, wide, True)
    hub = _hub_from(stack, plate_at) + 3
    _shaft(sheet, bearing, seat, hub)
    _tube(sheet, bearing, cup)
    if stack.has("seal", "inner") or stack.has("seal"):
        lip_seal(
            sheet, Between(bearing.x - 6, bearing.x - 16, seat * 0.93, cup * 0.86), "seal inner"
        )
    loaded = frozenset(
        {("in", "right"), ("out", "left")} if index else {("in", "left"), ("out", "right")}
    )
    tapered(sheet, bearing, "shaft_bearing", thrust=loaded)
    x = _FACE
    for one in pack:
        sheet.add(box(x, cup + 1.5, x + one, cup + 22), "shim", "shim")
        x += one
    _plates(sheet, stack, plate_at, cup, seat)
    _hub(sheet, stack, hub, seat, cup)
    sheet.face((hub + 46, seat * 0.5), side)
    _named(sheet, stack, bearing, plate_at, hub, side, pack)


def _hub_from(stack: Stack, plate_at: float) -> float:
    """Where the layers on the plate end, clear of the bolts' heads."""
    wide = plate_at + stack.width("plate", "", 7.0)
    return max(wide + 9, wide + (15 if stack.has("seal", "outer") else 0))


def _shaft(sheet: Sheet, bearing: Tapered, seat: float, hub: float) -> None:
    """The half shaft with its spline, its seal journal, the cone's shoulder and the taper."""
    x = bearing.x
    root = seat * 0.93
    shoulder = bearing.bore + 0.6 * (bearing.cone_back - bearing.bore)
    thread = hub + 24
    sheet.plain(
        [(11, 0), (11, 9.5), (16, 9.5), (16, 12), (34, 12), (34, 10.5), (x - 20, 10.5), (x - 18, root),
         (x - 5, root), (x - 3.5, shoulder, 1), (x, shoulder), (x, seat), (hub - 5, seat),
         (hub - 1, seat * 0.9), (thread - 1, seat * 0.72), (thread - 1, seat * 0.55),
         (thread + 21, seat * 0.55), (thread + 21, 0)],
        "shaft", bare=(17,),
    )  # fmt: skip
    for r in (10.6, 8.6, 6.2):
        sheet.line([(16, r), (34, r)], "fine")
    for at, r in (
        (16, 12),
        (34, 12),
        (x - 18, root),
        (x, seat),
        (hub - 5, seat),
        (thread - 1, seat * 0.7),
    ):
        sheet.line([(at, r), (at, 0)], "behind")


def _tube(sheet: Sheet, bearing: Tapered, cup: float) -> None:
    """The axle's tube and its end: seal's seat, bearing's bore, flange with the plate's face."""
    x = bearing.x
    seat = cup * 0.86
    outer = cup + 22
    sheet.cut(
        [(x - 34, seat * 0.8), (x - 34, cup + 6), (x - 14, cup + 7, 3), (x - 6, outer, 4), (_FACE, outer),
         (_FACE, cup),
         (x - 3, cup), (x - 3, seat), (x - 17, seat), (x - 17, seat * 0.8)],
        "tube", HOUSING, breaks=(0,),
    )  # fmt: skip


def _plates(sheet: Sheet, stack: Stack, at: float, cup: float, seat: float) -> None:
    """Retainer plate over the cup, then brake plate, gasket and seal carrier, and a bolt through all."""
    outer, wide = cup + 22, stack.width("plate", "", 7.0)
    sheet.cut(
        [(at, seat + 6), (at, outer), (at + wide, outer), (at + wide, seat + 6)], "plate", FAR
    )
    x = at + wide
    if stack.has("bracket"):
        thick = stack.thin(stack.width("bracket", "", 2.5))
        sheet.cut([(x, seat + 9), (x, outer + 12), (x + thick, outer + 12), (x + thick, seat + 9)], "bracket",
                  BESIDE, breaks=(1,))  # fmt: skip
        x += thick
    if stack.has("gasket"):
        thick = stack.thin(stack.width("gasket", "", 0.5)) * 0.6
        sheet.add(box(x, seat + 11, x + thick, outer - 2), "solid", "gasket")
        x += thick
    head = x
    if stack.has("seal", "outer"):
        bore = seat + 9.5
        end = at + wide + 13
        sheet.cut(
            [(x, bore + 0.2), (x, outer - 2), (x + 4, outer - 2), (x + 4, bore + 6, 2), (end, bore + 4, 1),
             (end, bore + 0.2)],
            "carrier", SPACER,
        )  # fmt: skip
        lip_seal(sheet, Between(end - 0.5, x + 1.0, seat, bore), "seal outer")
        head = x + 4
    bolt(sheet, Bolt(head, cup + 15, head - _FACE + 14, 4.6, -1), "bolt")


def _hub(sheet: Sheet, stack: Stack, at: float, seat: float, cup: float) -> None:
    """The keyed hub on its taper: key, washer, slotted nut, pin."""
    far = at + 24
    low0, low1 = seat * 0.9, seat * 0.72
    if stack.has("hub"):
        flange = cup + 26
        sheet.cut(
            [(at, low0), (at, seat + 9, 1), (at + 4, seat + 11, 3), (at + 6, flange), (at + 13, flange),
             (at + 14, seat + 9, 4),
             (far, seat + 4, 2), (far, low1)],
            "hub", HOUSING, breaks=(3,),
        )  # fmt: skip
        bolt(sheet, Bolt(at + 6, cup + 16, 19, 4.2), "stud")
    if stack.has("key"):
        sheet.plain(
            [
                (at + 3, low0 - 4),
                (at + 3, low0 - 0.5),
                (far - 3, low1 + 0.6),
                (far - 3, low1 - 2.5),
            ],
            "key",
        )
    sheet.cut(box(far, seat * 0.55, far + 3, seat + 2), "washer", BESIDE)
    slotted_nut(sheet, far + 3, 13, seat * 0.55, seat * 0.98)
    if stack.has("pin"):
        split_pin(sheet, far + 3 + 10.4, seat * 0.9, 7)


def _named(
    sheet: Sheet,
    stack: Stack,
    bearing: Tapered,
    plate_at: float,
    hub: float,
    side: str,
    pack: tuple[float, ...],
) -> None:
    """Each part is named once, on the side where there is room for it."""
    cup, seat = bearing.outside, bearing.bore
    shim = stack.find("shim")
    if shim:
        named = Part("shim", shim.name, seat=side, spot=shim.spot)
        sheet.label(named, (_FACE + sum(pack) / 2 if pack else _FACE, cup + 7), above=True)
    if side == "left":
        sheet.label(stack.find("hub"), (hub + 9.5, cup + 4), above=True)
        sheet.label(stack.find("bracket"), (plate_at + 8.2, cup + 28), above=True)
        sheet.label(stack.find("nut"), (hub + 30, seat * 0.6), above=False)
        sheet.label(stack.find("key"), (hub + 12, seat * 0.62), above=False)
        sheet.label(
            stack.find("cone"), (bearing.x + 0.3 * bearing.cone_width, seat + 1.6), above=False
        )
        sheet.label(stack.find("shaft"), (40, 5), above=False)
    else:
        sheet.label(stack.find("plate"), (plate_at + 3.5, seat + 8.5), above=False)
        sheet.label(stack.find("cup"), (bearing.back - 3, cup - 2), above=False)
        sheet.label(
            stack.find("seal", "inner") or stack.find("seal"),
            (bearing.x - 13, cup * 0.8),
            above=True,
        )
        sheet.label(stack.find("seal", "outer"), (plate_at + 16, seat + 8.8), above=True)
        sheet.label(stack.find("pin"), (hub + 44.5, seat * 0.6), above=False)
