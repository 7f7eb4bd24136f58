"""Drawings: well-formed, nothing over anything else, and true to the numbers."""

import itertools
import re
from xml.etree import ElementTree as ET

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wheelend.arrangements import PART_KINDS
from wheelend.methods import Measured
from wheelend.verdict import Limits
from zesty.drawings.boltcircle import bolt_circle
from zesty.drawings.chart import TrialChart, TrialPoint, chart
from zesty.drawings.clock import ClockPlace, nut_clock
from zesty.drawings.decades import decades
from zesty.drawings.face import FacePlace, face
from zesty.drawings.gate import GateReading, gate
from zesty.drawings.layout import spread
from zesty.drawings.packs import pack_bar, pack_scale
from zesty.drawings.section import Part, SectionView, section
from zesty.drawings.section.drawing import laid_out
from zesty.drawings.section.sheet import Shape
from zesty.drawings.strip import strip
from zesty.drawings.svg import text_width
from zesty.drawings.vehicle import WheelMark, kinds, vehicle
from zesty.fleet.models import Kind

NS = "{http://www.w3.org/2000/svg}"
LIMITS = Limits(0.05, 0.15)
STACK = tuple(
    Part(kind.split("/")[0], name, way_round=way, counts=kind not in ("seal", "pin"), seat=kind.partition("/")[2])
    for kind, name, way in (
        ("collar", "collar", "chamfer to the shoulder"), ("seal", "seal", ""),
        ("cone/inner", "inner bearing", "wide end inboard"), ("spacer", "spacer", "chamfer inboard"),
        ("shim", "shims", ""), ("cone/outer", "outer bearing", "wide end outboard"),
        ("washer", "keyed washer", ""), ("nut", "slotted nut", ""), ("pin", "pin", ""),
    )
)  # fmt: skip


THROUGH = tuple(
    Part(kind, PART_KINDS[kind].name, way_round="drain down" if kind == "plate" else "")
    for kind in ("housing", "cone", "shim", "plate", "hub", "nut", "pin")
)


def boxes(drawing: str) -> list[tuple[float, float, float, float, str]]:
    """Every label's box: left, top, right, bottom, words."""
    found = []
    for text in ET.fromstring(drawing).iter(f"{NS}text"):  # noqa: S314  our own drawing
        size, words = float(text.get("font-size", "13")), text.text or ""
        wide = text_width(words, size)
        x, y = float(text.get("x", "0")), float(text.get("y", "0"))
        left = x - {"middle": wide / 2, "end": wide}.get(text.get("text-anchor", ""), 0)
        found.append((left, y - 0.75 * size, left + wide, y + 0.2 * size, words))
    return found


def overlapping(drawing: str) -> list[tuple[str, str]]:
    return [
        (a[4], b[4])
        for a, b in itertools.combinations(boxes(drawing), 2)
        if a[0] < b[2] - 1 and b[0] < a[2] - 1 and a[1] < b[3] - 1 and b[1] < a[3] - 1
    ]


def crossing(drawing: str) -> int:
    """How many pairs of leaders cross."""
    lines = [
        tuple(float(n) for n in f"{a},{b}".split(","))
        for line in ET.fromstring(drawing).iter(f"{NS}polyline")  # noqa: S314
        if "leader" in line.get("class", "").split()
        for a, b in itertools.pairwise(line.get("points", "").split())
    ]

    def side(a: tuple[float, ...], px: float, py: float) -> float:
        return (a[2] - a[0]) * (py - a[1]) - (a[3] - a[1]) * (px - a[0])

    return sum(
        side(a, b[0], b[1]) * side(a, b[2], b[3]) < 0
        and side(b, a[0], a[1]) * side(b, a[2], a[3]) < 0
        for a, b in itertools.combinations(lines, 2)
    )


sizes = st.floats(2, 60)


@given(
    st.lists(st.sampled_from([0.05, 0.1, 0.1016, 0.5, 1.0]), max_size=8).map(tuple),
    st.booleans(),
    sizes, sizes, st.floats(0.5, 3),
)  # fmt: skip
def test_no_label_lies_over_another_and_no_leader_crosses(
    shims: tuple[float, ...], narrow: bool, spacer: float, bearing: float, shape: float
) -> None:
    parts = tuple(
        Part(part.kind, part.name, {"spacer": spacer, "inner_bearing": bearing}.get(part.role),
             bore_mm=bearing * shape if part.role == "inner_bearing" else None,
             way_round=part.way_round, counts=part.counts, seat=part.seat)
        for part in STACK
    )  # fmt: skip
    view = SectionView(
        parts, shims_mm=shims, play="0.12 mm", play_other="4.9 thou", nut="61 N·m (45 lbf·ft)"
    )
    width = 358 if narrow else 780
    drawn = section(view, width=width, narrow=narrow)
    assert overlapping(drawn) == []
    assert crossing(drawn) == 0
    assert all(left >= -1 and right <= width + 1 for left, _, right, _, _ in boxes(drawn))


def reach(
    sheet_parts: tuple[Part, ...], name: str, shims: tuple[float, ...] = ()
) -> tuple[float, float]:
    """From where to where a part of a section reaches along the axis, in mm."""
    sheet, _ = laid_out(SectionView(sheet_parts, shims_mm=shims), width=780, narrow=False)
    points = [
        x
        for one in sheet.drawn
        if isinstance(one, Shape) and one.name == name
        for x, _ in one.outline
    ]
    return min(points), max(points)


def test_known_sizes_are_drawn_in_proportion_and_what_does_not_count_takes_no_room() -> None:
    parts = (Part("collar", "c", 9), Part("seal", "s", 10, counts=False), Part("cone", "b", 20, seat="inner"),
             Part("spacer", "p", 40), Part("shim", "shims"), Part("cone", "o", 18, seat="outer"))  # fmt: skip
    assert reach(parts, "collar") == pytest.approx((0, 9))
    assert reach(parts, "inner_bearing cone") == pytest.approx((9, 29))
    assert reach(parts, "spacer") == pytest.approx((29, 69))
    # Shims too thin to see are drawn wider, and the outer cone stands after them.
    start, end = reach(parts, "shim", (0.1, 0.2))
    assert start == pytest.approx(69)
    assert end - start > 0.3
    assert reach(parts, "outer_bearing cone", (0.1, 0.2))[0] == pytest.approx(end)


def test_every_kind_of_part_can_be_drawn_and_is_named() -> None:
    drawn = section(SectionView(STACK, shims_mm=(0.5,)))
    for part in STACK:
        assert part.name.split()[-1] in drawn
    assert {part.kind for part in (*STACK, *THROUGH)} <= set(PART_KINDS)


@pytest.mark.parametrize(("push", "loaded"), [("in", 1), ("out", 1), ("", 0)])
def test_the_bearing_that_takes_the_force_is_lit(push: str, loaded: int) -> None:
    assert section(SectionView(STACK, push=push)).count("roller loaded") == loaded


def test_words_cannot_break_out_of_a_drawing() -> None:
    evil = "<script>\"&'</script>"
    parts = tuple(Part(p.kind, evil, way_round=evil) for p in STACK)
    marks = (WheelMark(1, "left", '/x?"<', evil, evil),)
    for drawn in (section(SectionView(parts, play=evil)), vehicle("van", 2, marks, evil)):
        assert "<script" not in drawn
        ET.fromstring(drawn)  # noqa: S314


@given(st.lists(st.floats(0, 700), min_size=1, max_size=5).map(sorted))
def test_spread_labels_keep_their_order_and_their_distance(anchors: list[float]) -> None:
    widths = [90.0] * len(anchors)
    lefts = spread(anchors, widths, 0, 700)
    for left, after in itertools.pairwise(lefts):
        assert after - left >= 90 + 14 - 1e-6
    assert lefts[-1] + 90 <= 700 + 1e-6


def mark_x(drawn: str) -> float:
    points = re.search(r'<polygon points="([\d.,\- ]+)" class="gate-mark"', drawn)
    assert points
    return float(points[1].split()[0].split(",")[0])


def test_the_gate_puts_the_reading_where_it_is() -> None:
    def x(value: float) -> float:
        return mark_x(gate(LIMITS, 0.1, 0.01, GateReading(value, 0.01)))

    assert x(0.10) == pytest.approx(170)
    assert x(0.05) < x(0.10) < x(0.15)
    assert x(5.0) == x(50.0) <= 340
    assert "no reading yet" in gate(LIMITS, 0.1, 0.01, None)


@given(st.floats(0.05, 0.15))
def test_the_gates_numbers_never_lie_over_each_other(aim: float) -> None:
    assert overlapping(gate(LIMITS, aim, 0.01, GateReading(0.1, 0.01))) == []


def test_the_chart_marks_what_stands_out() -> None:
    points = (TrialPoint(1, 0.5, None, odd=False), TrialPoint(2, 0.6, 0.3, odd=True),
              TrialPoint(3, 0.7, 0.12, odd=True))  # fmt: skip
    drawn = chart(TrialChart(LIMITS, 0.01, points, -0.58, 1, 0.68))
    ET.fromstring(drawn)  # noqa: S314
    assert (drawn.count("trial-odd"), drawn.count("off-line"), drawn.count("next-mark")) == (
        2,
        1,
        1,
    )
    assert "trial 1: pack 0.50 mm, no play" in drawn
    assert drawn.count('class="demanded"') == 1


def test_the_chart_without_any_play_has_no_line() -> None:
    drawn = chart(TrialChart(LIMITS, 0.01, (TrialPoint(1, 0.5, None, odd=False),), None, 1, 0.7))
    assert 'class="demanded"' not in drawn


def test_the_face_says_what_was_read() -> None:
    places = (
        FacePlace("12", "0.19", due=False, read=True),
        FacePlace("4:30", "", due=True, read=False),
    )
    drawn = face(places)
    assert "12 o'clock 0.19, 4:30 o'clock not read" in drawn
    assert (drawn.count('face-due"'), drawn.count('face-read"')) == (1, 1)


@given(st.lists(st.lists(st.floats(0.02, 1.5), max_size=8), min_size=1, max_size=4))
def test_packs_share_a_scale_and_fit(packs: list[list[float]]) -> None:
    scale = pack_scale(packs, 150)
    for shims in packs:
        if all(shim * scale > 3 for shim in shims):
            drawn = re.findall(r'<rect x="([\d.]+)" y="3" width="([\d.]+)"', pack_bar(shims, scale))
            assert len(drawn) == len(shims)
            assert all(float(x) + float(wide) <= 151.1 for x, wide in drawn)
    assert "no shims" in pack_bar([], scale)


@pytest.mark.parametrize("kind", sorted(kinds() - {"motorcycle"}))
@pytest.mark.parametrize("axles", [1, 2, 3, 4])
def test_wheels_are_apart_and_can_be_hit_with_a_glove(kind: str, axles: int) -> None:
    marks = tuple(
        WheelMark(axle, side, f"/{axle}{side}", "wheel")
        for axle in range(1, axles + 1)
        for side in ("left", "right")
    )
    targets = [
        (float(box.get("x", "0")), float(box.get("y", "0")), float(box.get("width", "0")))
        for box in ET.fromstring(vehicle(kind, axles, marks, "v")).iter(f"{NS}rect")  # noqa: S314
        if box.get("class") == "target"
    ]
    assert len(targets) == 2 * axles
    for (ax, ay, size), (bx, by, _) in itertools.combinations(targets, 2):
        assert abs(ax - bx) >= size or abs(ay - by) >= size
    assert all(x >= 0 and x + size <= 300 and size >= 48 for x, _, size in targets)


def test_every_kind_of_vehicle_can_be_drawn_and_a_deck_has_its_spindles() -> None:
    assert set(Kind.values) == kinds()
    deck = tuple(
        WheelMark(0, side, "/", "spindle", short="D") for side in ("left", "centre", "right")
    )
    assert vehicle("mower", 2, deck, "m").count('class="spindle"') == 3
    assert vehicle("motorcycle", 2, (WheelMark(1, "centre", "/", "front", "7", "open-work"),), "m")


@given(st.integers(1, 36), st.floats(0, 1), st.booleans())
def test_the_nut_clock_keeps_its_labels_apart_and_on_the_page(
    per_turn: int, share: float, chosen: bool
) -> None:
    step = 360 / per_turn
    places = tuple(
        ClockPlace(share * step + k * step, k % 2 == 0, chosen and k == 0)
        for k in range(-per_turn, per_turn + 1)
    )
    drawn = nut_clock(places)
    if per_turn <= 14:
        assert all(left >= 0 and right <= 300 for left, _, right, _, _ in boxes(drawn))
    assert drawn.count("face-due") == int(chosen and share * step <= 180)


def test_the_bolt_circle_lights_the_bolt_that_is_next() -> None:
    drawn = bolt_circle(5, (1, 3, 5, 2, 4), {1, 3})
    assert "next 5" in drawn
    assert drawn.count('class="face-read"') == 2
    assert "next none" in bolt_circle(4, (1, 3, 2, 4), {1, 2, 3, 4})


packs = st.lists(st.sampled_from([0.05, 0.1, 0.1016, 0.5]), max_size=6).map(tuple)


@given(
    packs,
    packs,
    st.booleans(),
    st.sampled_from(["in", "out", ""]),
    st.sampled_from(["left", "right"]),
)
def test_a_through_axle_shows_both_packs_with_nothing_over_anything(
    left: tuple[float, ...], right: tuple[float, ...], narrow: bool, push: str, end: str
) -> None:
    view = SectionView(THROUGH, "axle_pair", left, right_mm=right, push=push, end=end, play="0.12 mm",
                       nut="98 N·m (72 lbf·ft)")  # fmt: skip
    width = 358 if narrow else 780
    drawn = section(view, width=width, narrow=narrow)
    assert overlapping(drawn) == []
    assert crossing(drawn) == 0
    assert all(
        left_edge >= -1 and right_edge <= width + 1
        for left_edge, _, right_edge, _, _ in boxes(drawn)
    )
    assert drawn.count('class="s-shim') == len(left) + len(right)
    assert drawn.count("roller loaded") == (1 if push else 0)


meant = st.floats(0.001, 9000)


@given(meant, st.sampled_from([0.1, 0.01, 10, 1.356]), meant, st.floats(1, 20))
def test_the_meanings_of_a_slip_stand_apart_and_on_the_page(
    value: float, factor: float, low: float, window: float
) -> None:
    meanings = [(one, f"{one:.6g} mm") for one in (value * factor, value / 7, value)]
    drawn = decades(meanings, low, low * window, "mm", "where")
    assert overlapping(drawn) == []
    assert all(left >= -1 and right <= 741 for left, _, right, _, _ in boxes(drawn))
    marks = re.findall(r'<polygon points="([\d.]+),', drawn)
    order = [
        one for _, one in sorted(zip([v for v, _ in meanings], map(float, marks), strict=True))
    ]
    assert order == sorted(order)


@given(st.floats(0.001, 200), st.floats(0, 20), st.floats(0.001, 100), st.floats(0.001, 100))
def test_a_claims_number_stands_between_its_limits_as_it_does_in_truth(
    value: float, doubt: float, low: float, window: float
) -> None:
    drawn = strip(Measured(value, doubt, low, low + window), proven=True)
    assert overlapping(drawn) == []
    assert all(left >= -1 and right <= 191 for left, _, right, _, _ in boxes(drawn))
    mark = float(re.findall(r'<polygon points="([\d.]+),', drawn)[0])
    posts = [float(x) + 2.5 for x in re.findall(r'x="([\d.]+)" y="6"', drawn)]
    assert (value < low) == (mark < posts[0]) or abs(mark - posts[0]) < 0.1
    assert (value > low + window) == (mark > posts[1]) or abs(mark - posts[1]) < 0.1


def test_what_is_not_proven_has_a_hollow_mark_and_one_limit_is_enough() -> None:
    assert "trial-odd" in strip(Measured(61, 2.4, 58, None), proven=False)
    assert "limits 0.3" in strip(Measured(0.1, 0.01, None, 0.3), proven=True)
