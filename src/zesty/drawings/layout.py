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


def settle(
    wanted: Sequence[float], widths: Sequence[float], low: float, high: float, gap: float
) -> list[float]:
    """Left edges as near as can be to those that are wanted, by least squares, in the given order.

    Pools what would overlap (adjacent violators), then moves the row inside [low, high].
    """
    offsets = [sum(widths[:index]) + gap * index for index in range(len(widths))]
    blocks: list[list[float]] = []
    for want, offset in zip(wanted, offsets, strict=True):
        blocks.append([want - offset, 1])
        while len(blocks) > 1 and blocks[-2][0] > blocks[-1][0]:
            mean, count = blocks.pop()
            before, many = blocks[-1]
            blocks[-1] = [(before * many + mean * count) / (many + count), many + count]
    lefts: list[float] = []
    for mean, count in blocks:
        lefts += [mean + offsets[len(lefts) + step] for step in range(int(count))]
    return spread(
        [left + width / 2 for left, width in zip(lefts, widths, strict=True)],
        widths,
        low,
        high,
        gap,
    )
