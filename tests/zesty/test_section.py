"""The section of every arrangement keeps the rules of a drawing office."""

import itertools
from collections.abc import Iterator
from functools import cache
from xml.etree import ElementTree

import pytest

from wheelend.arrangements import KEYS, arrangement
from zesty.drawings.section import Part, SectionView, section
from zesty.drawings.section.drawing import labels_of, laid_out
from zesty.drawings.section.hatching import crossings
from zesty.drawings.section.labels import MORE, SIZE, Label, path_of, row_of
from zesty.drawings.section.rendering import Frame
from zesty.drawings.section.sheet import Mark, Shape, Sheet
from zesty.drawings.svg import Point, text_width

WIDTHS = (620.0, 780.0, 1250.0)
_CUT = ("cut", "shim")
_TOUCH = 0.35
"""How far two parts may reach into each other, in mm: an edge line's own width."""


def view(key: str) -> SectionView:
    """The usual stack of an arrangement, with packs where it has them."""
    family = arrangement(key)
    parts = tuple(
        Part(kind=one.part, name=one.name, seat=one.seat, counts=one.counts, spot=f"stack.{index}")
        for index, one in enumerate(family.stack)
    )
    packs = family.method == "shims"
    return SectionView(
        parts, shape=family.drawing, has_packs=packs, shims_mm=(0.5, 0.15) if packs else (),
        right_mm=(0.3,) if len(family.stations) > 1 and packs else (),
    )  # fmt: skip


@cache
def drawn(key: str, width: float, *, narrow: bool = False) -> tuple[Sheet, Frame]:
    return laid_out(view(key), width=width, narrow=narrow)


def shapes(sheet: Sheet) -> list[Shape]:
    return [one for one in sheet.drawn if isinstance(one, Shape)]


def spans(shape: Shape, level: float) -> list[tuple[float, float]]:
    """Where a line square to the axis... at a radius crosses a shape: pairs of x."""
    cuts = crossings(shape.outline, level)
    return list(zip(cuts[::2], cuts[1::2], strict=False))


def levels(sheet: Sheet) -> Iterator[float]:
    high = sheet.box[2]
    return (high * (step + 0.37) / 160 for step in range(160))


@pytest.mark.parametrize("key", KEYS)
def test_no_two_cut_parts_overlap(key: str) -> None:
    sheet, _ = drawn(key, 780.0)
    cut = [one for one in shapes(sheet) if one.look in _CUT]
    for level in levels(sheet):
        across = [(span, one) for one in cut for span in spans(one, level)]
        for ((a, b), one), ((c, d), other) in itertools.combinations(across, 2):
            reach = min(b, d) - max(a, c)
            assert reach <= _TOUCH, (
                f"{one.name} and {other.name} at r {level:.1f}, x {max(a, c):.1f}"
            )


@pytest.mark.parametrize("key", KEYS)
def test_neighbours_never_have_the_same_hatch(key: str) -> None:
    sheet, _ = drawn(key, 780.0)
    hatched = [one for one in shapes(sheet) if one.hatch]
    for level in levels(sheet):
        across = sorted(
            ((span, one) for one in hatched for span in spans(one, level)), key=lambda at: at[0][0]
        )
        for ((_, b), one), ((c, _), other) in itertools.pairwise(across):
            if abs(c - b) > 0.5 or one is other:
                continue
            same = one.hatch.way == other.hatch.way and abs(one.hatch.gap - other.hatch.gap) < 1.5
            assert not same, f"{one.name} beside {other.name} at r {level:.1f}, x {b:.1f}"


@pytest.mark.parametrize("key", KEYS)
def test_no_part_floats(key: str) -> None:
    sheet, _ = drawn(key, 780.0)
    every = shapes(sheet)
    lines = [point for one in sheet.drawn if isinstance(one, Mark) for point in one.points]
    for shape in every:
        if shape.look in ("light", "roller"):
            continue
        assert any(_touch(shape, other) for other in every if other is not shape) or any(
            _near(shape, point) for point in lines
        ), shape.name


def _touch(one: Shape, other: Shape) -> bool:
    return any(_near(other, point) for point in one.outline) or any(
        _near(one, point) for point in other.outline
    )


def _near(shape: Shape, point: Point, reach: float = 0.8) -> bool:
    inside = any(a - reach <= point[0] <= b + reach for a, b in spans(shape, point[1] + 1e-4))
    if inside:
        return True
    return any(
        _distance(point, a, b) <= reach
        for a, b in zip(shape.outline, [*shape.outline[1:], shape.outline[0]], strict=True)
    )


def _distance(p: Point, a: Point, b: Point) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    long = dx * dx + dy * dy
    t = 0.0 if not long else max(0.0, min(1.0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / long))
    return float(((p[0] - a[0] - t * dx) ** 2 + (p[1] - a[1] - t * dy) ** 2) ** 0.5)


@pytest.mark.parametrize("key", KEYS)
def test_every_lip_stands_on_a_track(key: str) -> None:
    sheet, _ = drawn(key, 780.0)
    every = shapes(sheet)
    seals = [one for one in every if one.look == "rubber" and "seal" in one.name]
    assert seals or not any(
        part.part in ("seal", "cassette_seal") for part in arrangement(key).stack
    )
    for seal in seals:
        lip = min(seal.outline, key=lambda point: point[1])
        others = [one for one in every if one is not seal and one.look in ("cut", "plain", "solid")]
        assert any(_near(one, lip, 0.6) for one in others), seal.name


@pytest.mark.parametrize("key", KEYS)
@pytest.mark.parametrize("width", WIDTHS)
def test_label_rows_fit_and_no_leader_crosses_a_text_or_a_dot(key: str, width: float) -> None:
    sheet, frame = drawn(key, width)
    labels = labels_of(view(key), sheet, frame)
    assert labels
    texts: list[tuple[float, float, float, float]] = []
    paths: list[tuple[Label, list[Point]]] = []
    for above in (True, False):
        row, lefts = row_of([one for one in labels if one.above is above], width)
        for (label, left), (_, after) in itertools.pairwise(
            [*zip(row, lefts, strict=True), (None, width)]
        ):
            assert left >= 0
            assert left + label.width <= after, f"{label.words} runs into its neighbour"
            top = 16.0 if above else frame.axis + 52.0
            texts.append((left, top - SIZE, left + text_width(label.words, SIZE), top + MORE))
            paths.append((label, path_of(label, left, frame.axis)))
    for (one, path), (other, beside) in itertools.combinations(paths, 2):
        assert not _cross(path, beside), f"{one.words} crosses {other.words}"
    for (one, path), (_, beside) in itertools.permutations(paths, 2):
        for a, b in itertools.pairwise(path):
            assert _distance(beside[-1], a, b) > 2.4, f"{one.words} runs over a dot"


def _cross(one: list[Point], other: list[Point]) -> bool:
    return any(
        _meet(a, b, c, d) for a, b in itertools.pairwise(one) for c, d in itertools.pairwise(other)
    )


def _meet(a: Point, b: Point, c: Point, d: Point) -> bool:
    def side(p: Point, q: Point, r: Point) -> float:
        return (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])

    return side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0


@pytest.mark.parametrize("key", KEYS)
def test_bearings_are_large_enough_to_be_read(key: str) -> None:
    sheet, frame = drawn(key, 780.0)
    for shape in shapes(sheet):
        if shape.look == "roller":
            rs = [r for _, r in shape.outline]
            # A roller or ball is about half of its section's height.
            assert (max(rs) - min(rs)) * frame.scale >= 16, shape.name


@pytest.mark.parametrize("key", KEYS)
@pytest.mark.parametrize("narrow", [False, True])
def test_what_is_drawn_names_every_part_and_lights_the_one_in_hand(key: str, narrow: bool) -> None:
    family = arrangement(key)
    plain = section(view(key), width=358 if narrow else 780, narrow=narrow)
    root = ElementTree.fromstring(plain)  # noqa: S314  our own drawing
    words = " ".join(node.text or "" for node in root.iter() if node.tag.endswith("text"))
    missing = [
        one.name
        for one in family.stack
        if one.part not in ("cup", "cone", "shim", "ball_bearing", "gasket", "collar", "key", "pin")
        and one.name not in words
    ]
    assert not missing
    assert "NaN" not in plain
    for index, part in enumerate(family.stack):
        lit = section(SectionView(**{**view(key).__dict__, "lit": f"stack.{index}"}), width=780.0)
        assert ' lit"' in lit or part.part == "gasket", part.name


def test_a_lip_points_to_its_fluid() -> None:
    from zesty.drawings.section.parts.seals import Between, lip_seal  # noqa: PLC0415

    for air, fluid in ((0.0, 10.0), (10.0, 0.0)):
        sheet = Sheet(0.3)
        lip_seal(sheet, Between(air, fluid, 20.0, 30.0))
        rubber = next(one for one in shapes(sheet) if one.look == "rubber")
        lip = min(rubber.outline, key=lambda point: point[1])
        assert abs(lip[0] - fluid) < abs(lip[0] - air)
