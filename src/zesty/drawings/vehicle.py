"""A vehicle from above, from its numbers; open work is pulled outboard on its stub, its job on the wheel."""

import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any
from xml.sax.saxutils import escape

from zesty.drawings.layout import spread
from zesty.drawings.section.outline import rounded
from zesty.drawings.svg import Point, circle, drawing, element, line, polygon, polyline, rect, text

_LENGTH, _WIDTH = 300.0, 190.0
_ROOM = 270.0, 104.0
"""How much of the page the vehicle itself may take; tyres and their names stand outside."""
_LEAST_TYRE = (26.0, 11.0)
_OPEN_TYRE = (40.0, 22.0)
_PULLED_OUT = 11.0
_BOGIE = 1200.0
_SPINDLE = 13.0
_TARGET = 48.0


@dataclass(frozen=True)
class WheelMark:
    """One wheel end on the drawing: where it leads, and the job standing on it (if any).

    Axle 0 is a mower's deck.
    """

    axle: int
    side: str
    href: str
    title: str
    job: str = ""
    state: str = ""
    short: str = ""


@dataclass(frozen=True)
class Frame:
    """From mm to the page: front to the left, the vehicle in the middle; `body` is half its height."""

    scale: float
    left: float
    middle: float
    body: float

    def __call__(self, x: float, y: float) -> Point:
        return self.left + x * self.scale, self.middle + y * self.scale


@cache
def _kinds() -> Mapping[str, Any]:
    return tomllib.loads(files("zesty.drawings").joinpath("vehicles.toml").read_text("utf-8"))


def kinds() -> frozenset[str]:
    """The kinds of vehicle that can be drawn."""
    return frozenset(_kinds())


def vehicle(kind: str, axles: int, wheels: tuple[WheelMark, ...], name: str) -> str:
    """The vehicle, front to the left, with its wheels as links."""
    data = _kinds().get(kind) or _kinds()["trailer"]
    places = _axle_places(data, axles)
    length = max(data["length"], places[-1] + 900 if places else 0)
    high = max(abs(p[1]) for shape in data["shapes"] for p in shape["points"])
    scale = min(_ROOM[0] / length, _ROOM[1] / (2 * high))
    frame = Frame(scale, (_LENGTH - length * scale) / 2, _WIDTH / 2, high * scale)
    places = _apart(places, frame)
    ends = [_Placed(data, places, wheel) for wheel in wheels if wheel.axle <= len(places)]
    parts = [
        line(frame(-150, 0), frame(length + 150, 0), "vehicle-axis"),
        *(_axle(data, frame, index, x) for index, x in enumerate(places)),
        *(mark for shape in data["shapes"] for mark in _shape(shape, frame)),
        *(_end(one, frame) for one in ends),
    ]
    return drawing(_LENGTH, _WIDTH, parts, f"{name} from above").replace(
        'role="img"', 'role="group"'
    )


def _axle_places(data: Mapping[str, Any], axles: int) -> list[float]:
    """Where each axle stands: those that are named, then more of them behind the last."""
    named = [float(x) for x in data["axles"]][:axles]
    bogie = float(data.get("bogie", _BOGIE))
    while len(named) < axles:
        named.append(named[-1] + bogie if named else float(data["length"]) / 2)
    return named


def _apart(places: Sequence[float], frame: Frame) -> list[float]:
    """The axles moved so far apart that a glove hits one wheel only: size by use, not by truth."""
    lefts = spread(
        [frame(x, 0)[0] for x in places], [_TARGET] * len(places), 2, _LENGTH - 2, gap=0.5
    )
    return [(left + _TARGET / 2 - frame.left) / frame.scale for left in lefts]


def _of(data: Mapping[str, Any], name: str, index: int) -> Any:
    """A figure of an axle; of those behind the last that is named, the last one's."""
    rows: Sequence[Any] = data[name]
    return rows[min(index, len(rows) - 1)]


@dataclass(frozen=True)
class _Placed:
    """A wheel end with what it is drawn from."""

    data: Mapping[str, Any]
    places: Sequence[float]
    wheel: WheelMark

    @property
    def at(self) -> tuple[float, float]:
        """Its middle, in mm; the driver's left is below on the page."""
        if self.wheel.axle == 0:
            deck = self.data.get("deck") or {"centre": [self.data["length"] / 2, 0]}
            x, y = deck.get(self.wheel.side, deck["centre"])
            return float(x), float(y)
        index = self.wheel.axle - 1
        half = _of(self.data, "tracks", index) / 2
        side = {"left": 1, "right": -1}.get(self.wheel.side, 0)
        return self.places[index], side * half

    @property
    def tyre(self) -> tuple[float, float]:
        """Diameter and width of its tyre, mm."""
        long, wide = _of(self.data, "tyres", self.wheel.axle - 1)
        return float(long), float(wide)

    @property
    def dual(self) -> bool:
        """Whether two tyres stand side by side."""
        return "dual" in self.data and bool(_of(self.data, "dual", self.wheel.axle - 1))


def _axle(data: Mapping[str, Any], frame: Frame, index: int, x: float) -> str:
    half = _of(data, "tracks", index) / 2
    return line(frame(x, -half), frame(x, half), "axle")


def _shape(shape: Mapping[str, Any], frame: Frame) -> Iterator[str]:
    look = shape["look"]
    if look == "ring":
        yield circle(frame(*shape["points"][0]), max(shape["radius"] * frame.scale, 3.0), "body")
        return
    if look in ("line", "boom"):
        yield polyline(
            [frame(*p) for p in shape["points"]], "boom" if look == "boom" else "faint-line"
        )
        return
    points, _ = rounded([tuple(p) for p in shape["points"]])
    name = {"open": "body open", "frame": "frame", "deck": "body open"}.get(look, look)
    yield polygon([frame(*p) for p in points], name)


def _end(one: _Placed, frame: Frame) -> str:
    wheel = one.wheel
    draw = _spindle if wheel.axle == 0 else _wheel
    content = element("title", escape(wheel.title)) + "".join(draw(one, frame))
    if not wheel.href:
        return element("g", content)
    return element("a", content, href=wheel.href, class_="wheel-link", aria_label=wheel.title)


def _spindle(one: _Placed, frame: Frame) -> Iterator[str]:
    x, y = frame(*one.at)
    state = one.wheel.state
    yield rect(x - 17, y - 17, 34, 34, "target")
    yield circle((x, y), _SPINDLE, f"spindle {state}".strip())
    words = one.wheel.job or one.wheel.short
    yield text(
        (x, y + 4.5), words, "wheel-job" if one.wheel.job else "label", 12, text_anchor="middle"
    )


def _wheel(one: _Placed, frame: Frame) -> Iterator[str]:
    x, y = frame(*one.at)
    open_work = "open-work" in one.wheel.state
    side = 1 if y > frame.middle else -1
    if open_work and abs(y - frame.middle) > 1:
        yield line((x, y), (x, y + side * _PULLED_OUT), "stub")
        y += side * _PULLED_OUT
    long, wide = (max(a * frame.scale, b) for a, b in zip(one.tyre, _LEAST_TYRE, strict=True))
    if one.wheel.job:
        long, wide = max(long, _OPEN_TYRE[0]), max(wide, _OPEN_TYRE[1])
    reach = max(abs(y - frame.middle), _TARGET / 2 + 0.5) if abs(y - frame.middle) > 1 else 0.0
    yield rect(
        x - _TARGET / 2, frame.middle + side * reach - _TARGET / 2, _TARGET, _TARGET, "target"
    )
    state = f"wheel {one.wheel.state}".strip()
    if one.dual and not one.wheel.job:
        yield rect(x - long / 2, y - side * (wide + 2) - wide / 2, long, wide, state, rx=3)
    yield rect(x - long / 2, y - wide / 2, long, wide, state, rx=4)
    if one.wheel.job:
        yield text((x, y + 5), one.wheel.job, "wheel-job", 14, text_anchor="middle")
    if one.wheel.short:
        # Clear of the tyre, and of the body where the tyre stands inside it.
        edge = max(abs(y - frame.middle) + wide / 2, frame.body)
        out = frame.middle + side * (edge + (12 if side > 0 else 4))
        yield text((x, out), one.wheel.short, "label faint", 11, text_anchor="middle")
