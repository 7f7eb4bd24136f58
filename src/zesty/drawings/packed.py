"""A bearing cut between two rollers, as full of grease as it was weighed; and the share on its gate."""

from zesty.drawings.svg import drawing, line, polygon, rect, text

_W, _H = 520.0, 190.0
_LEFT, _RIGHT = 210.0, 496.0
_VOIDS, _PACKED = 0.6, 0.9


def packed_view(name: str, share: float | None) -> str:
    """The bearing and the gate; without a weighing only what is wanted."""
    parts = [*_bearing(share), *_gate(share), text((20, 24), name, "label strong", 14)]
    said = (
        "not weighed yet" if share is None else f"{share * 100:.0f} % of its free space is grease"
    )
    return drawing(_W, _H, parts, f"{name}: {said}")


def _bearing(share: float | None) -> list[str]:
    """Cup above, cone below, grease between them; a hollow in the middle as large as what is missing."""
    drawn = [
        polygon([(24, 44), (160, 44), (160, 66), (24, 84)], "part ring-cut"),
        polygon([(24, 124), (160, 112), (160, 152), (24, 152)], "part ring-cut"),
    ]
    if share is None:
        return drawn
    drawn.append(polygon([(24, 84), (160, 66), (160, 112), (24, 124)], "grease"))
    missing = min(max(1 - share, 0.0), 1.0)
    if missing > 1 - _PACKED:
        half = 62 * missing**0.5
        drawn.append(
            polygon(
                [(92 - half, 98), (92, 98 - half * 0.36), (92 + half, 92), (92, 96 + half * 0.36)],
                "hollow",
            )
        )
    return drawn


def _gate(share: float | None) -> list[str]:
    axis = 96.0

    def x(part: float) -> float:
        return _LEFT + min(max(part, 0.0), 1.15) / 1.15 * (_RIGHT - _LEFT)

    drawn = [
        rect(x(_PACKED), axis - 9, x(1.15) - x(_PACKED), 9, "gate-window"),
        line((_LEFT, axis), (_RIGHT, axis), "gate-axis"),
    ]
    for part, words in ((_VOIDS, "hollow"), (_PACKED, "packed")):
        drawn += [
            rect(x(part) - 3, axis - 26, 6, 28, "gate-post"),
            text((x(part), axis + 26), f"{part * 100:.0f} %", "label", 13, text_anchor="middle"),
            text((x(part) + 8, axis - 32), f"{words} →", "label faint", 12),
        ]
    if share is not None:
        at = x(share)
        drawn += [
            polygon(
                [(at, axis - 20), (at + 8, axis - 11), (at, axis - 2), (at - 8, axis - 11)],
                "gate-mark",
            ),
            text((at, axis + 46), f"{share * 100:.0f} %", "label strong", 18, text_anchor="middle"),
        ]
    return drawn
