"""The sheet that a section is drawn on: shapes in mm, in the order in which they cover each other."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from itertools import groupby
from typing import Literal

from zesty.drawings.section.model import Part
from zesty.drawings.section.outline import Corner, Mm, Outline, rounded, run_of, wavy

Look = Literal["cut", "plain", "roller", "bolt", "solid", "rubber", "light", "shim"]


@dataclass(frozen=True)
class Hatch:
    """Which way the lines lean, and how far apart they are in px."""

    way: int
    gap: float


HOUSING = Hatch(1, 7.4)
RING = Hatch(-1, 5.0)
SPACER = Hatch(1, 5.0)
THIN = Hatch(-1, 3.3)
BESIDE = Hatch(1, 3.3)
"""A thin part beside one that leans the other way."""
FAR = Hatch(-1, 7.4)
"""A large part beside a housing."""


@dataclass(frozen=True)
class Shape:
    """One closed shape: what it is of, how it looks, and which runs of its edge are drawn how."""

    outline: Outline
    look: Look
    name: str = ""
    hatch: Hatch | None = None
    runs: tuple[tuple[Outline, str], ...] = ()
    thrust: frozenset[tuple[str, str]] = frozenset()


@dataclass(frozen=True)
class Mark:
    """A line that is no part: an edge behind the cut, an axis, a thread; `closed` for a circle."""

    points: Outline
    look: str
    name: str = ""


@dataclass(frozen=True)
class Note:
    """What a label is about, where its dot stands, and in which row its words."""

    part: Part
    at: Mm
    above: bool
    words: str = ""
    more: str = ""


@dataclass
class Sheet:
    """Shapes, marks and labels of one section. `px` is how many mm one px is."""

    px: float
    drawn: list[Shape | Mark] = field(default_factory=list)
    notes: list[Note] = field(default_factory=list)
    forces: list[tuple[Mm, Mm]] = field(default_factory=list)
    faces: dict[str, Mm] = field(default_factory=dict)
    spans: list[tuple[float, float, float, str]] = field(default_factory=list)
    play_at: tuple[Mm, str] | None = None
    detail: Mm | None = None
    mirror: float | None = None

    @contextmanager
    def mirrored(self, about: float = 0.0) -> Iterator[None]:
        """What is drawn meanwhile stands mirrored: before it is hatched, so that the hatch leans right."""
        self.mirror = about
        try:
            yield
        finally:
            self.mirror = None

    def _at(self, point: Mm) -> Mm:
        return point if self.mirror is None else (2 * self.mirror - point[0], point[1])

    def add(
        self,
        corners: Sequence[Corner],
        look: Look,
        name: str = "",
        hatch: Hatch | None = None,
        *,
        breaks: Sequence[int] = (),
        bare: Sequence[int] = (),
        thrust: frozenset[tuple[str, str]] = frozenset(),
    ) -> None:
        """A shape; `breaks` and `bare` name the edges, by the corner that they begin at, that are
        broken off or not drawn at all."""
        points, owner = rounded(corners)
        edges: list[tuple[str, Outline]] = []
        outline: Outline = []
        last = len(points)
        for index, point in enumerate(points):
            after = points[(index + 1) % last]
            leaves = owner[index] != owner[(index + 1) % last]
            kind = "edge"
            run = [point, after]
            if leaves and owner[index] in breaks:
                kind, run = "break", [point, *wavy(point, after, 2.4 * self.px), after]
            elif leaves and owner[index] in bare:
                kind = ""
            edges.append((kind, run))
            outline += run[:-1]
        self.drawn.append(
            Shape(
                [self._at(one) for one in outline], look, name, hatch,
                tuple((self._all(run), kind) for kind, run in _runs(edges)), thrust,
            )
        )  # fmt: skip

    def _all(self, points: Outline) -> Outline:
        return [self._at(one) for one in points]

    def cut(
        self, corners: Sequence[Corner], name: str, hatch: Hatch, **more: Sequence[int]
    ) -> None:
        """A part that is cut through."""
        self.add(corners, "cut", name, hatch, **more)  # type: ignore[arg-type]

    def plain(self, corners: Sequence[Corner], name: str, **more: Sequence[int]) -> None:
        """A part that is drawn in view: shafts, nuts, pins."""
        self.add(corners, "plain", name, **more)  # type: ignore[arg-type]

    def line(self, points: Sequence[Corner], look: str = "behind", name: str = "") -> None:
        """A line that bounds no shape."""
        self.drawn.append(Mark(self._all(run_of(points)), look, name))

    def label(
        self, part: Part | None, at: Mm, *, above: bool, words: str = "", more: str = ""
    ) -> None:
        """Name a part; nothing where the stack has it not."""
        if part is not None:
            self.notes.append(Note(part, self._at(at), above, words, more))

    def force(self, start: Mm, end: Mm) -> None:
        """A force on a ring."""
        self.forces.append((self._at(start), self._at(end)))

    def face(self, point: Mm, end: str = "") -> None:
        """Where the hub is pushed, pulled and read."""
        self.faces[end] = self._at(point)

    @property
    def box(self) -> tuple[float, float, float]:
        """From where to where the drawing reaches along the axis, and how high."""
        points = [point for one in self.drawn if isinstance(one, Shape) for point in one.outline]
        xs = [x for x, _ in points]
        return min(xs), max(xs), max(r for _, r in points)


def _runs(edges: Sequence[tuple[str, Outline]]) -> list[tuple[str, Outline]]:
    """Neighbouring edges that are drawn alike, as one run each."""
    turn = next((i for i, (kind, _) in enumerate(edges) if kind != edges[i - 1][0]), 0)
    found = []
    for kind, same in groupby([*edges[turn:], *edges[:turn]], key=lambda one: one[0]):
        run: Outline = []
        for _, points in same:
            run += points if not run else points[1:]
        if kind:
            found.append((kind, run))
    return found
