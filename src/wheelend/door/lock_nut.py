"""The `lock-nut` case."""

from dataclasses import asdict
from fractions import Fraction
from typing import Any

from wheelend.door.verdict import limits_of
from wheelend.errors import BadInput, echo
from wheelend.locknut import Lock, LockPlan, Nut, Position, lock_positions, slotted
from wheelend.quantity import ANGLE, LENGTH, TORQUE, TORQUE_PER_DEG
from wheelend.readers import Either, Exact, Flag, Json, Reader, Record, Whole, Word
from wheelend.verdict import Limits

_MIDDLE = ("middle",)


class _Threads:
    """Threads per inch, as a plain number above 0."""

    def read(self, value: object, path: str) -> Fraction:
        plain = isinstance(value, int | float) and not isinstance(value, bool)
        if not plain or not 0 < value < 1e6:  # type: ignore[operator]
            raise BadInput(path, echo(value), "is not a number of threads per inch; give e.g. 16")
        return Fraction(repr(value))

    def schema(self) -> Json:
        return {"type": "number", "exclusiveMinimum": 0}


def threads() -> Reader:
    """The reader of threads per inch."""
    return _Threads()


_CASE = Record(
    {
        "to_next": Exact(ANGLE, least=0),
        "policy": Word(("advance_only", "loosen_to_next", "nearest_within", "torque_window")),
    },
    {
        "pitch": Exact(LENGTH, above=0),
        "threads_per_inch": threads(),
        "slots": Whole(1),
        "openings": Whole(1),
        "through": Flag(),
        "positions": Whole(1),
        "flip": Flag(),
        "play": Exact(LENGTH),
        "limits": limits_of(LENGTH),
        "aim": Either(lambda value: value == "middle", Word(_MIDDLE), Exact(LENGTH)),
        "torque": Exact(TORQUE, least=0),
        "torque_per_deg": Exact(TORQUE_PER_DEG, above=0),
        "torque_limits": limits_of(TORQUE),
    },
)


def calculate(value: object) -> Json:
    """Read a lock-nut case and answer it."""
    case = _CASE.read(value, "")
    nut = Nut(
        pitch_mm=pitch_of(case),
        policy=case["policy"],
        play_mm=case.get("play"),
        limits=_limits(case, "limits"),
        aim_mm=None if case.get("aim", "middle") == "middle" else case["aim"],
        torque_N_m=case.get("torque"),
        torque_per_deg=case.get("torque_per_deg"),
        torque_limits=_limits(case, "torque_limits"),
    )
    return _answer(lock_positions(Lock(_per_turn(case), case["to_next"]), nut))


def pitch_of(case: dict[str, Any]) -> Fraction:
    """The pitch that a case names, in mm; one from threads per inch is not rounded."""
    if ("pitch" in case) == ("threads_per_inch" in case):
        raise BadInput("pitch", "", "give either pitch or threads_per_inch")
    pitch: Fraction = (
        case["pitch"] if "pitch" in case else Fraction("25.4") / case["threads_per_inch"]
    )
    return pitch


def _per_turn(case: dict[str, Any]) -> int:
    slots = "slots" in case or "openings" in case
    if slots == ("positions" in case):
        raise BadInput("slots", "", "give either slots with openings, or positions")
    if not slots:
        return int(case["positions"]) * (2 if case.get("flip") else 1)
    for name in ("slots", "openings"):
        if name not in case:
            raise BadInput(name, "", "is missing; give slots and openings together")
    through, flip = case.get("through", False), case.get("flip", False)
    return slotted(case["slots"], case["openings"], through=through, flip=flip)


def _limits(case: dict[str, Any], name: str) -> Limits | None:
    if name not in case:
        return None
    try:
        return Limits(case[name].get("low"), case[name].get("high"))
    except BadInput as bad:
        raise BadInput(name, bad.given, bad.need) from None


def _position(position: Position) -> Json:
    shown: Json = {"angle_deg": position.angle_deg, "allowed": position.why_not is None}
    if position.play_mm is not None:
        shown["play_mm"] = position.play_mm
    if position.torque_N_m is not None:
        shown["torque_N_m"] = position.torque_N_m
    if position.why_not:
        shown["why_not"] = position.why_not
    return shown


def _answer(found: LockPlan) -> Json:
    answer: Json = {
        "step_deg": found.step_deg,
        "per_turn": found.per_turn,
        "positions": [_position(position) for position in found.positions],
        "chosen": found.chosen,
    }
    if found.chosen is not None:
        chosen = _position(found.positions[found.chosen])
        for name in ("angle_deg", "play_mm", "torque_N_m"):
            if name in chosen:
                answer[f"chosen_{name}"] = chosen[name]
    if found.washer:
        answer["washer"] = asdict(found.washer)
    return answer


def schema() -> Json:
    """The JSON schema of a lock-nut case."""
    return _CASE.schema()
