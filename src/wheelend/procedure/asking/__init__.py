"""How each kind of step is answered: when it is complete, what is due next, how it reads.

One module a kind; `ASKING` finds it by the step's `entry`.
"""

from wheelend.procedure.asking.band import BandAsked
from wheelend.procedure.asking.bolts import BoltsAsked
from wheelend.procedure.asking.checks import ChecksAsked
from wheelend.procedure.asking.frame import Asked, At, Line, Slot
from wheelend.procedure.asking.level import LevelAsked
from wheelend.procedure.asking.listed import ListedAsked
from wheelend.procedure.asking.measured import MeasuredAsked
from wheelend.procedure.asking.readings import ReadingsAsked, Series
from wheelend.procedure.asking.seat import SeatAsked
from wheelend.procedure.asking.simple import (
    DialAsked,
    PackAsked,
    PhotoAsked,
    PickAsked,
    SimpleAsked,
)
from wheelend.procedure.asking.standing import StandOutAsked
from wheelend.procedure.asking.torque import PlaceAsked, TorqueAsked
from wheelend.procedure.asking.turns import TurnsAsked
from wheelend.procedure.asking.warmth import WarmthAsked

ASKING: dict[str, Asked] = {
    "text": SimpleAsked("text"),
    "usage": SimpleAsked("value"),
    "tick": SimpleAsked("done"),
    "pick": PickAsked(),
    "opening": PickAsked(),
    "second": PickAsked(),
    "sign": SimpleAsked("done"),
    "dial": DialAsked(),
    "pack": PackAsked(),
    "refit": PackAsked(),
    "torque": TorqueAsked(),
    "place": PlaceAsked(),
    "series": ReadingsAsked(),
    "seat": SeatAsked(),
    "bolts": BoltsAsked(),
    "checks": ChecksAsked(),
    "list": ListedAsked(),
    "photo": PhotoAsked(),
    "measure": MeasuredAsked(),
    "warmth": WarmthAsked(),
    "level": LevelAsked(),
    "band": BandAsked(),
    "stand_out": StandOutAsked(),
    "turns": TurnsAsked(),
}

__all__ = ["ASKING", "Asked", "At", "Line", "Series", "Slot"]
