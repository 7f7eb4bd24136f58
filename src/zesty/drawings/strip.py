"""A claim's number between its limits, small enough for a line of a list."""

from wheelend.methods import Measured
from zesty.drawings.layout import spread
from zesty.drawings.svg import drawing, line, polygon, rect, text, text_width

_WIDTH, _HEIGHT, _AXIS, _MARGIN = 190.0, 46.0, 26.0, 22.0


def strip(measured: Measured, *, proven: bool, css: str = "") -> str:
    """The limits as posts, the value with its doubt: filled where it is proven, hollow where not."""
    known = [one for one in (measured.low, measured.high) if one is not None]
    reach = [measured.value - measured.doubt, measured.value + measured.doubt, *known]
    left, right = min(reach), max(reach)
    room = (right - left) * 0.12 or 1.0
    left, right = left - room, right + room

    def at(value: float) -> float:
        return _MARGIN + (value - left) / (right - left) * (_WIDTH - 2 * _MARGIN)

    low = _MARGIN if measured.low is None else at(measured.low)
    high = _WIDTH - _MARGIN if measured.high is None else at(measured.high)
    parts = [
        rect(low, _AXIS - 9, high - low, 9, "gate-window"),
        line((_MARGIN, _AXIS), (_WIDTH - _MARGIN, _AXIS), "gate-axis"),
        *(rect(at(one) - 2.5, _AXIS - 20, 5, 21, "gate-post") for one in known),
        *_posts(known, [at(one) for one in known]),
        *_mark(at(measured.value), at(measured.value + measured.doubt), proven),
    ]
    limits = " to ".join(f"{one:g}" for one in known)
    title = f"{measured.value:.4g} ± {measured.doubt:.2g}; limits {limits}"
    return drawing(_WIDTH, _HEIGHT, parts, title, css)


def _posts(known: list[float], at: list[float]) -> list[str]:
    """The limits' numbers under their posts, apart from each other and on the page."""
    words = [f"{one:g}" for one in known]
    lefts = spread(at, [text_width(one, 12) for one in words], 0.0, _WIDTH, gap=8)
    return [text((x, _AXIS + 15), one, "label", 12) for x, one in zip(lefts, words, strict=True)]


def _mark(x: float, end: float, proven: bool) -> list[str]:
    y, doubt = _AXIS - 13, end - x
    kind = "trial-mark" if proven else "trial-odd thin"
    return [
        line((x - doubt, y), (x + doubt, y), "doubt"),
        line((x - doubt, y - 5), (x - doubt, y + 5), "doubt"),
        line((x + doubt, y - 5), (x + doubt, y + 5), "doubt"),
        polygon([(x, y - 7), (x + 7, y), (x, y + 7), (x - 7, y)], kind),
    ]
