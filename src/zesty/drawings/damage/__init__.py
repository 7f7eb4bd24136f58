"""What damage looks like: our own drawings, each with a sound one to compare; recognisable in grey."""

from collections.abc import Callable
from functools import cache

from zesty.drawings.damage import hubs, races, seals
from zesty.drawings.svg import drawing

PICTURES: dict[str, Callable[[], list[str]]] = {**races.PICTURES, **hubs.PICTURES, **seals.PICTURES}


@cache
def picture(name: str) -> str:
    """One drawing, 200 by 140; empty for a name that has none. The same every time: its stipple is seeded."""
    draw = PICTURES.get(name)
    if draw is None:
        return ""
    return drawing(200, 140, draw(), name.replace("_", " "))
