"""Labels of a section: with leaders on a wide page, as numbered balloons on a phone."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from zesty.drawings.layout import settle, spread
from zesty.drawings.svg import Point, circle, element, polyline, rect, text, text_width

SIZE, MORE = 13.0, 11.5
_ROW = 15.0
_GAP = 15.0
_ELBOW = 30.0
_SHORTEST = 5
ABOVE, BELOW = 64.0, 78.0
"""Room for a row of labels with its leaders, above the drawing and below its axis."""


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
        return max(text_width(self.words, _size(self)), text_width(self.more, MORE))


def _size(label: Label) -> float:
    return SIZE + 1.5 if label.lit else SIZE


def row_of(labels: Sequence[Label], width: float) -> tuple[list[Label], list[float]]:
    """A row in the order of its dots, and each label's left edge: as near its dot as the order lets it.

    Where a row is too wide, second lines are left out, then words are shortened, the longest first.
    """
    row = sorted(labels, key=lambda one: one.anchor[0])
    while _long(row) > width - 16 and any(one.more for one in row):
        index = max(range(len(row)), key=lambda i: (bool(row[i].more), row[i].width))
        row[index] = replace(row[index], more="")
    while _long(row) > width - 16 and any(len(one.words) > _SHORTEST for one in row):
        index = max(range(len(row)), key=lambda i: row[i].width)
        row[index] = replace(row[index], words=row[index].words.rstrip("…")[:-1].rstrip() + "…")
    lefts = settle([one.anchor[0] - one.width / 2 for one in row], [one.width for one in row],
                   8.0, width - 8, _GAP)  # fmt: skip
    return row, lefts


def _long(row: Sequence[Label]) -> float:
    return sum(one.width for one in row) + _GAP * (len(row) - 1)


def leaders(labels: Sequence[Label], width: float, axis: float) -> tuple[list[str], float]:
    """Words in a row above and a row below, each with a leader; also the drawing's height."""
    drawn: list[str] = []
    for above in (True, False):
        row, lefts = row_of([one for one in labels if one.above is above], width)
        for label, left in zip(row, lefts, strict=True):
            drawn += _leader(label, left, axis)
    return drawn, axis + BELOW


def path_of(label: Label, left: float, axis: float) -> list[Point]:
    """A leader: straight from its dot to the common elbow, then slanting to its words."""
    near, elbow = (34.0, 34.0 + _ELBOW) if label.above else (axis + 38, axis + 10)
    x = min(max(label.anchor[0], left + 8), left + label.width - 8)
    return [(x, near), (label.anchor[0], elbow), label.anchor]


def _leader(label: Label, left: float, axis: float) -> list[str]:
    top = 16.0 if label.above else axis + 52.0
    shade = " lit" if label.lit else ""
    drawn = [
        polyline(path_of(label, left, axis), f"leader{shade}"),
        *_dot(label.anchor, 2.5, shade),
        _linked(
            label,
            text((left, top), label.words, f"label{' strong' if label.lit else ''}{shade}", _size(label)),
            (left - 6, top - 24),
        ),
    ]  # fmt: skip
    if label.more:
        drawn.append(text((left, top + _ROW), label.more, "label faint", MORE))
    return drawn


def _dot(at: Point, radius: float, shade: str) -> list[str]:
    return [circle(at, radius + 1.1, "dot-ring"), circle(at, radius, f"leader-dot{shade}")]


def _linked(label: Label, words: str, corner: Point) -> str:
    """The words as a link to the part's own fields, large enough for a glove."""
    if not label.href:
        return words
    target = rect(*corner, label.width + 12, 44, "target")
    return element("a", target + words, href=label.href, class_="part-link", aria_label=label.words)


def balloons(labels: Sequence[Label], width: float, axis: float) -> tuple[list[str], float]:
    """Numbers on leaders, and what they mean listed below; also the drawing's height."""
    ordered = sorted(labels, key=lambda l: l.anchor[0])
    numbers = {id(label): index + 1 for index, label in enumerate(ordered)}
    drawn: list[str] = []
    for above in (True, False):
        row = [label for label in ordered if label.above is above]
        lefts = spread([l.anchor[0] for l in row], [24.0] * len(row), 2, width - 2, gap=7)
        for label, left in zip(row, lefts, strict=True):
            centre = (left + 12, 16.0 if above else axis + 30.0)
            edge = (centre[0], centre[1] + (12 if above else -12))
            elbow = (label.anchor[0], edge[1] + (10 if above else -8))
            shade = " lit" if label.lit else ""
            drawn += [
                polyline([edge, elbow, label.anchor], f"leader{shade}"),
                *_dot(label.anchor, 2, shade),
                circle(centre, 12, f"balloon{shade}"),
                text((centre[0], centre[1] + 4.5), str(numbers[id(label)]), f"label{shade}", 13,
                     text_anchor="middle"),
            ]  # fmt: skip
    listed, bottom = _listed(ordered, width, axis + 64)
    return drawn + listed, bottom


def _listed(labels: Sequence[Label], width: float, top: float) -> tuple[list[str], float]:
    """One line a part; the second words move to their own line where the first leave no room."""
    drawn: list[str] = []
    y = top
    for index, label in enumerate(labels):
        words = f"{index + 1:>2} {label.words}"
        shade = " lit strong" if label.lit else ""
        shown = text((4, y), words, f"label{shade}", SIZE, **{"xml:space": "preserve"})
        drawn.append(_linked(label, shown, (0, y - 24)))
        if label.more:
            left = 4 + text_width(words, SIZE) + 10
            if left + text_width(label.more, MORE) > width - 4:
                y += _ROW
                left = 4 + text_width("00 ", SIZE)
            drawn.append(text((left, y), label.more, "label faint", MORE))
        y += _ROW + 3
    return drawn, y
