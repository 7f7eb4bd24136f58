"""Photographs: read, turned upright, made smaller, and rid of everything that is not the picture."""

import io
from dataclasses import dataclass

from PIL import Image, ImageOps, UnidentifiedImageError

from zesty.elements.refused import Refused

MOST_BYTES = 20_000_000
MOST_PIXELS = 50_000_000
_LARGE, _SMALL = 1600, 320
_KINDS = ("JPEG", "PNG", "WEBP", "TIFF", "BMP", "GIF")


@dataclass(frozen=True)
class Picture:
    """A photograph as it is kept: JPEG bytes, large and small, and the large one's size in px."""

    large: bytes
    small: bytes
    width: int
    height: int


def picture_of(data: bytes) -> Picture:
    """Read an image file. Raises Refused, in one sentence, for one that is too large or no image.

    Nothing of its metadata (place, camera, time) is kept: only the pixels are written anew.
    """
    if len(data) > MOST_BYTES:
        raise Refused(
            f"The photo has {len(data) / 1e6:.0f} MB; give one of at most {MOST_BYTES // 10**6} MB.",
            "photo",
        )
    Image.init()
    try:
        image = Image.open(io.BytesIO(data), formats=_KINDS)
        _check_size(image)
        image.draft("RGB", (_LARGE, _LARGE))
        upright = ImageOps.exif_transpose(image).convert("RGB")
    except Refused:
        raise
    except (
        UnidentifiedImageError,
        OSError,
        ValueError,
        SyntaxError,
        Image.DecompressionBombError,
    ) as error:
        raise Refused(
            "That file is no photo that can be read; give a JPEG or PNG.", "photo"
        ) from error
    large, small = _fitted(upright, _LARGE), _fitted(upright, _SMALL)
    return Picture(_written(large, 82), _written(small, 76), large.width, large.height)


def _check_size(image: Image.Image) -> None:
    pixels = image.width * image.height
    if pixels > MOST_PIXELS or not pixels:
        raise Refused(
            f"The photo has {pixels / 1e6:.0f} megapixels; give one of at most {MOST_PIXELS // 10**6}.",
            "photo",
        )


def _fitted(image: Image.Image, most: int) -> Image.Image:
    copy = image.copy()
    copy.thumbnail((most, most))
    return copy


def _written(image: Image.Image, quality: int) -> bytes:
    out = io.BytesIO()
    image.save(out, "JPEG", quality=quality, optimize=True)
    return out.getvalue()
