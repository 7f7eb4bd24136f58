"""Labels of a section: with leaders on a wide page, as numbered balloons on a phone."""

from collections.abc import Sequence
from dataclasses import dataclass

from zesty.drawings.layout import spread
from zesty.drawings.svg import Point, circle, element, line, rect, text, text_width

_SIZE = 13.0
_ROW = 16.0
_DETAIL_ROOM = 130.0
_SLANT = 14.0


@dataclass(frozen=True)
class Label:
    """What a part is called, a second line, the point it is about, and on which side it stands."""

    anchor: Point
    words: str
    more: str
    above: bool
    lit: bool = False
    href: str = ""

    @property
    def width(self) -> float:
        """How much room its words take."""
        return max(text_width(self.words, _size(self)), text_width(self.more, _SIZE - 1))


def _size(label: Label) -> float:
    return _SIZE + 3 if label.lit else _SIZE


def leaders(labels: Sequence[Label], width: float, axis: float) -> tuple[list[str], float]:
    """Words in a row above and a row below, each with a leader; also the drawing's height."""
    drawn: list[str] = []
    for above in (True, False):
        row = sorted((label for label in labels if label.above is above), key=lambda l: l.anchor[0])
        low = 10.0 if above else _DETAIL_ROOM
        lefts = spread([l.anchor[0] for l in row], [l.width for l in row], low, width - 10)
        for label, left in zip(row, lefts, strict=True):
            drawn += _leader(label, left, axis)
    return drawn, axis + 100


def _leader(label: Label, left: float, axis: float) -> list[str]:
    top = 20.0 if label.above else axis + 64.0
    near = (top + _ROW + 6 if label.more else top + 6) if label.above else top - _ROW
    start = (min(max(label.anchor[0], left + 6), left + label.width - 6), near)
    shade = " lit" if label.lit else ""
    drawn = [
        *_bent(start, label, near + _SLANT if label.above else near - _SLANT),
        circle(label.anchor, 2.4, f"leader-dot{shade}"),
        _linked(
            label,
            text(
                (left, top),
                label.words,
                f"label{' strong' if label.lit else ''}{shade}",
                _size(label),
            ),
            (left - 6, top - 24),
        ),
    ]
    if label.more:
        drawn.append(text((left, top + _ROW), label.more, "label faint", _SIZE - 1))
    return drawn


def _linked(label: Label, words: str, corner: Point) -> str:
    """The words as a link to the part's own fields, large enough for a glove."""
    if not label.href:
        return words
    target = rect(*corner, label.width + 12, 44, "target")
    return element("a", target + words, href=label.href, class_="part-link", aria_label=label.words)


def _bent(start: Point, label: Label, shelf: float) -> list[str]:
    """A leader that slants only between its label and a shelf, so that no two ever cross."""
    shade = "leader lit" if label.lit else "leader"
    bend = (label.anchor[0], shelf)
    return [line(start, bend, shade), line(bend, label.anchor, shade)]


def balloons(labels: Sequence[Label], width: float, axis: float) -> tuple[list[str], float]:
    """Numbers on leaders, and what they mean listed below; also the drawing's height."""
    ordered = sorted(labels, key=lambda l: l.anchor[0])
    numbers = {id(label): index + 1 for index, label in enumerate(ordered)}
    drawn: list[str] = []
    for above in (True, False):
        row = [label for label in ordered if label.above is above]
        lefts = spread([l.anchor[0] for l in row], [22.0] * len(row), 4, width - 4, gap=8)
        for label, left in zip(row, lefts, strict=True):
            centre = (left + 11, 16.0 if above else axis + 26.0)
            edge = (centre[0], centre[1] + (11 if above else -11))
            shade = " lit" if label.lit else ""
            drawn += [
                *_bent(edge, label, edge[1] + (_SLANT if above else -_SLANT) / 2),
                circle(label.anchor, 2, f"leader-dot{shade}"),
                circle(centre, 11, f"balloon{shade}"),
                text((centre[0], centre[1] + 4.5), str(numbers[id(label)]), f"label{shade}", 13,
                     text_anchor="middle"),
            ]  # fmt: skip
    listed, bottom = _listed(ordered, width, axis + 58)
    return drawn + listed, bottom


def _listed(labels: Sequence[Label], width: float, top: float) -> tuple[list[str], float]:
    """One line a part; the second words move to their own line where the first leave no room."""
    drawn: list[str] = []
    y = top
    for index, label in enumerate(labels):
        words = f"{index + 1:>2} {label.words}"
        shade = " lit strong" if label.lit else ""
        shown = text((4, y), words, f"label{shade}", _SIZE, **{"xml:space": "preserve"})
        drawn.append(_linked(label, shown, (0, y - 24)))
        if label.more:
            left = 4 + text_width(words, _SIZE) + 10
            if left + text_width(label.more, _SIZE - 1) > width - 4:
                y += _ROW
                left = 4 + text_width("00 ", _SIZE)
            drawn.append(text((left, y), label.more, "label faint", _SIZE - 1))
        y += _ROW + 2
    return drawn, y
