"""Labels in a row, none over another, and their leaders uncrossed."""

from collections.abc import Sequence


def spread(
    anchors: Sequence[float], widths: Sequence[float], low: float, high: float, gap: float = 14
) -> list[float]:
    """Left edges for labels whose middles would like to be at `anchors`, in the given order.

    Anchors must ascend; the labels keep that order, so straight leaders do not cross. Labels are
    pushed right where they would overlap, then the row is pushed back inside [low, high].
    """
    lefts: list[float] = []
    edge = low
    for anchor, width in zip(anchors, widths, strict=True):
        edge = max(edge, anchor - width / 2)
        lefts.append(edge)
        edge += width + gap
    edge = high
    for index in range(len(lefts) - 1, -1, -1):
        lefts[index] = min(lefts[index], edge - widths[index])
        edge = lefts[index] - gap
    return lefts
