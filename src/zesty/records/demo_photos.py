"""Photographs for the demo, drawn by us: a nut on its spindle, a stack on the bench, a cone gone blue.

Round metal under a lamp is shading by angle; dirt and grain are seeded noise, so that each draws the same.
"""

import io
import math
import random
from collections.abc import Callable

from PIL import Image, ImageDraw, ImageFilter

_SIZE = (1200, 900)
_BENCH = (118, 104, 86)
_STEEL = (176, 178, 180)
_DARK = (44, 42, 40)
Colour = tuple[int, int, int]


def photograph(subject: str) -> bytes:
    """A JPEG of one of the subjects. Raises KeyError for one that nobody drew."""
    rng = random.Random(subject)  # noqa: S311  no secret: the same picture every time
    image = _bench(rng)
    _SUBJECTS[subject](ImageDraw.Draw(image), rng)
    image = _grain(image.filter(ImageFilter.GaussianBlur(1.6)), rng)
    out = io.BytesIO()
    image.save(out, "JPEG", quality=84)
    return out.getvalue()


def _bench(rng: random.Random) -> Image.Image:
    """A worn bench top, darker away from the lamp."""
    image = Image.new("RGB", _SIZE, _BENCH)
    draw = ImageDraw.Draw(image)
    for _ in range(260):
        x, y = rng.randrange(_SIZE[0]), rng.randrange(_SIZE[1])
        shade = rng.randrange(-16, 12)
        tone = tuple(max(0, one + shade) for one in _BENCH)
        draw.line(
            (x, y, x + rng.randrange(20, 260), y + rng.randrange(-4, 5)), tone, rng.randrange(1, 4)
        )
    return image.filter(ImageFilter.GaussianBlur(2.2))


def _grain(image: Image.Image, rng: random.Random) -> Image.Image:
    """Light that falls off to the corners, and the grain of a small camera."""
    noise = Image.frombytes("L", _SIZE, rng.randbytes(_SIZE[0] * _SIZE[1])).convert("RGB")
    lamp = Image.radial_gradient("L").resize(_SIZE).point(lambda v: int(v * 0.5))
    lit = Image.composite(Image.new("RGB", _SIZE, (20, 18, 16)), image, lamp)
    return Image.blend(lit, noise, 0.045)


def _ring(
    draw: ImageDraw.ImageDraw,
    at: tuple[float, float],
    outer: float,
    inner: float,
    colour: Colour,
    *,
    lamp: float = -2.2,
) -> None:
    """A turned face: bands of light run across it as they do over steel under a lamp."""
    steps = 180
    for index in range(steps):
        angle = 2 * math.pi * index / steps
        light = 0.62 + 0.3 * math.cos(2 * (angle - lamp)) ** 4 + 0.08 * math.cos(angle - lamp)
        tone = tuple(int(min(255, one * light)) for one in colour)
        ends = (360 * index / steps, 360 * (index + 1.6) / steps)
        draw.pieslice(_box(at, outer), *ends, fill=tone)
    draw.ellipse(_box(at, inner), fill=_DARK)
    draw.ellipse(_box(at, outer), outline=(30, 28, 26), width=4)
    draw.ellipse(_box(at, inner), outline=(24, 22, 20), width=4)


def _box(at: tuple[float, float], radius: float) -> tuple[float, float, float, float]:
    return at[0] - radius, at[1] - radius, at[0] + radius, at[1] + radius


def _blots(
    draw: ImageDraw.ImageDraw, rng: random.Random, at: tuple[float, float], reach: tuple[float, float],
    colour: Colour, count: int, size: int,
) -> None:  # fmt: skip
    """Grease, rust or heat: soft blots between two radii."""
    for _ in range(count):
        angle, away = rng.uniform(0, 2 * math.pi), rng.uniform(*reach)
        x, y = at[0] + away * math.cos(angle), at[1] + away * math.sin(angle)
        wide, high = rng.randrange(4, size), rng.randrange(4, size)
        shade = rng.randrange(-18, 18)
        tone = tuple(max(0, min(255, one + shade)) for one in colour)
        draw.ellipse((x - wide, y - high, x + wide, y + high), fill=tone)


def _nut(draw: ImageDraw.ImageDraw, rng: random.Random) -> None:
    """A slotted nut on its spindle, a paint mark across both."""
    at = (600.0, 450.0)
    _ring(draw, at, 400, 330, (120, 118, 112))
    _blots(draw, rng, at, (330, 395), (96, 62, 34), 160, 16)
    _ring(draw, at, 320, 215, (150, 150, 148), lamp=-1.8)
    hexagon = [
        (at[0] + 205 * math.cos(math.radians(a)), at[1] + 205 * math.sin(math.radians(a)))
        for a in range(12, 372, 60)
    ]
    draw.polygon(hexagon, fill=(168, 168, 166), outline=(30, 28, 26))
    for a in range(42, 402, 60):
        turn = math.radians(a)
        near, far = 96, 176
        draw.line(
            (at[0] + near * math.cos(turn), at[1] + near * math.sin(turn), at[0] + far * math.cos(turn),
             at[1] + far * math.sin(turn)), fill=(52, 50, 48), width=40,
        )  # fmt: skip
    _ring(draw, at, 98, 12, (140, 138, 134), lamp=-0.6)
    draw.line((at[0] - 30, at[1] - 8, at[0] - 250, at[1] - 74), fill=(236, 226, 208), width=14)
    _blots(draw, rng, at, (210, 320), (70, 52, 34), 90, 22)


def _stack(draw: ImageDraw.ImageDraw, rng: random.Random) -> None:
    """What came off, laid out in its order: seal, bearing, spacer, bearing, washer, nut."""
    x = 24.0
    for outer, inner, colour in (
        (104, 68, (52, 50, 48)), (116, 56, _STEEL), (76, 54, (150, 146, 138)), (102, 50, _STEEL),
        (60, 34, (128, 122, 110)), (72, 36, (160, 158, 152)),
    ):  # fmt: skip
        x += outer + 12
        y = 470 + rng.uniform(-14, 14)
        draw.ellipse(
            (x - outer + 14, y - outer + 22, x + outer + 14, y + outer + 22), fill=(70, 60, 50)
        )
        _ring(draw, (x, y), outer, inner, colour)
        if colour == _STEEL:
            _ring(draw, (x, y), (outer + inner) / 2 + 8, inner + 18, (120, 118, 116), lamp=0.4)
            for index in range(14):
                turn = 2 * math.pi * index / 14
                middle = (outer + inner) / 2 + 8
                spot = (x + middle * math.cos(turn), y + middle * math.sin(turn))
                draw.ellipse(_box(spot, 11), fill=(206, 206, 204), outline=(40, 38, 36))
            _blots(draw, rng, (x, y), (inner + 6, outer), (84, 64, 40), 26, 12)
        x += outer


def _blued(draw: ImageDraw.ImageDraw, rng: random.Random) -> None:
    """A cone from its wide end: straw, brown and blue where it ran hot."""
    at = (600.0, 450.0)
    _ring(draw, at, 380, 210, _STEEL)
    for outer, inner, colour in (
        (374, 338, (206, 180, 120)),
        (338, 296, (150, 104, 76)),
        (296, 240, (74, 88, 142)),
    ):
        _ring(draw, at, outer, inner, colour)
    _ring(draw, at, 240, 210, (120, 120, 130))
    _blots(draw, rng, at, (236, 372), (60, 50, 46), 60, 9)
    for index in range(18):
        turn = 2 * math.pi * index / 18
        spot = (at[0] + 318 * math.cos(turn), at[1] + 318 * math.sin(turn))
        draw.ellipse(_box(spot, 36), fill=(96, 98, 116), outline=(28, 26, 30), width=4)
        draw.ellipse(_box((spot[0] - 8, spot[1] - 10), 12), fill=(196, 196, 204))
    draw.ellipse(_box(at, 208), fill=(38, 36, 34))
    draw.ellipse(_box(at, 208), outline=(92, 84, 96), width=10)


_SUBJECTS: dict[str, Callable[[ImageDraw.ImageDraw, random.Random], None]] = {
    "nut": _nut,
    "stack": _stack,
    "blued": _blued,
}
