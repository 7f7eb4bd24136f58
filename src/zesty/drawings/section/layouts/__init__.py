"""How each arrangement lies on the sheet, by the name that its data file gives its drawing."""

from collections.abc import Callable

from zesty.drawings.section.layouts.axle import axle_pair
from zesty.drawings.section.layouts.cartridge import cartridge
from zesty.drawings.section.layouts.decks import ball_pair, deck_pair
from zesty.drawings.section.layouts.packs import sleeve_pack, upright_pair
from zesty.drawings.section.layouts.pairs import lock_pair, nut_pair, preset_pair, spindle_pair
from zesty.drawings.section.layouts.pivots import pivot
from zesty.drawings.section.layouts.planetary import planetary
from zesty.drawings.section.layouts.plates import plate_bearing
from zesty.drawings.section.model import Stack
from zesty.drawings.section.sheet import Sheet

Layout = Callable[[Sheet, Stack], None]

LAYOUTS: dict[str, Layout] = {
    "nut_pair": nut_pair,
    "lock_pair": lock_pair,
    "preset_pair": preset_pair,
    "spindle_pair": spindle_pair,
    "axle_pair": axle_pair,
    "plate_bearing": plate_bearing,
    "sleeve_pack": sleeve_pack,
    "upright_pair": upright_pair,
    "cartridge": cartridge,
    "ball_pair": ball_pair,
    "deck_pair": deck_pair,
    "planetary": planetary,
    "pivot": pivot,
}
