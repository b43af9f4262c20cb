"""A leaf's pieces set out in space, drawn apart and cut open: what a picture from any side is painted from."""

from __future__ import annotations

import math
import random
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from enum import Enum
from functools import lru_cache
from itertools import pairwise
from typing import Any

import numpy as np

from oakmeasure.core.base.convex_cells import HAIR, ROUND, Facet, Point3, Segment, cells_of
from oakmeasure.core.base.geometry import Point, half_plane_part
from oakmeasure.core.base.painters_order import Item, Tree, far_to_near, normals_of, tree_of
from oakmeasure.core.base.prism_sums import corners_of, round_of
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.body.pieces import Body, Piece
from oakmeasure.core.body.taking_apart import TakenApart, taken_apart
from oakmeasure.core.document.roles import Role
from oakmeasure.core.document.species import Species, stuff
from oakmeasure.core.drawings.drawing import Layer
from oakmeasure.core.drawings.refs import part_ref
from oakmeasure.core.drawings.turned.covered import covered_sides
from oakmeasure.core.drawings.turned.curves import Prisms, drawn_prisms
from oakmeasure.core.drawings.turned.turn import CutWay, Turn
from oakmeasure.core.making.played import Played

GRAIN_FROM = 900.0  # mm² of a side that has grain drawn on it
GRAIN_EVERY = 42.0  # mm of width, of a line of grain
MOST_GRAIN = 4  # lines on one side
HATCH_EVERY = 7.0  # mm between the lines on wood that is cut open
LEAST_EDGE = 0.3  # mm of an edge that is drawn


@dataclass(frozen=True, slots=True)
class Shown:
    """A side that is seen: where its points stand among those of the view."""

    piece: int
    """Number of its piece."""
    corners: tuple[int, int]
    """First and last but one of its corners."""
    normal: Point3
    """Which way it faces."""
    is_cut: bool
    """Whether it is where the leaf is cut open."""
    size: float
    """Its area, mm²."""
    strokes: tuple[tuple[Layer, int, int], ...]
    """First and last but one of the points of each line on it, its grain and its edges."""


@dataclass(frozen=True, slots=True)
class SeenSides:
    """All sides that are seen from somewhere, the furthest first."""

    points: Any
    """Their points, a row each: across, up, in; mm."""
    shown: tuple[Shown, ...]
    """The sides."""


@dataclass(frozen=True, slots=True)
class Marks:
    """Which pieces of a picture are told from the others, by their numbers."""

    hatched: frozenset[int] = frozenset()
    """Those that are taken off: hatched, and only their outlines are ink."""
    pale: frozenset[int] = frozenset()
    """Those that nobody works at."""
    hatch_every: float = HATCH_EVERY
    """Between the lines of the hatching, mm."""
    has_grain: bool = True
    """Whether wood shows its grain."""


@dataclass(slots=True)
class Scene:
    """A leaf's pieces in space."""

    body: Body
    """The leaf."""
    prisms: list[Prisms]
    """What each piece is drawn from."""
    apart: TakenApart | None
    """How it comes apart; None where its pieces lie as a step of its making has them."""
    setting: tuple[float, CutWay, float, bool]
    """How far it is apart, which way it is cut and where, and whether what is under the cut stays."""
    offsets: list[Point3]
    """How far each piece is from its place, mm."""
    tints: list[str]
    """Colour of each piece."""
    ways: list[Point3 | None]
    """Which way the grain of each piece runs; None of a sheet."""
    tree: Tree | None
    """The order of its cells."""
    low: Point3
    """Least corner of all that is shown, mm."""
    high: Point3
    """Its most, mm."""
    covered: frozenset[tuple[int, int]]
    """Sides that lie on a side of another piece: its number and the side's id."""
    marks: Marks
    """Which of the pieces are told from the others."""
    _directions: tuple[Point3, ...] = ()
    _known: dict[tuple[bool, ...], SeenSides] = field(default_factory=dict)

    def is_for(self, body: Body, turn: Turn) -> bool:
        """Return whether it still shows a leaf as it is asked for, seen from wherever.

        Args:
            body: The leaf's body.
            turn: The view.
        """
        return self.body is body and self.setting == setting_of(turn)

    def ref(self, at: int) -> str:
        """Return what a piece is pointed at by.

        Args:
            at: Its number in the body.
        """
        return part_ref(self.body.pieces[at].name)

    def seen(self, turn: Turn) -> SeenSides:
        """Return what is seen of it: the same until one turns past one of its sides.

        Args:
            turn: The view.
        """
        away = np.array(turn.away)
        if self.tree is None:
            return SeenSides(np.zeros((0, 3)), ())
        key = tuple((np.array(self._directions) @ away > 0).tolist())
        if key not in self._known:
            if len(self._known) > 24:
                self._known.clear()
            self._known[key] = self._made(turn.away)
        return self._known[key]

    def _made(self, away: Point3) -> SeenSides:
        assert self.tree is not None
        points: list[Point3] = []
        shown: list[Shown] = []
        plane = _cut_plane(self.body, self.setting)
        for item in far_to_near(self.tree, away):
            for facet in item.cells[0].faces:
                if (item.of, id(facet)) in self.covered:
                    continue
                if sum(a * b for a, b in zip(facet.normal, away, strict=True)) < -1e-9:
                    shown.append(self._shown(item, facet, plane, points))
        return SeenSides(np.array(points).reshape(-1, 3), tuple(shown))

    def _shown(self, item: Item, facet: Facet, plane: tuple[int, float] | None, points: list[Point3]) -> Shown:
        ox, oy, oz = item.offset

        def put(line: Sequence[Point3]) -> tuple[int, int]:
            first = len(points)
            points.extend((x + ox, y + oy, z + oz) for x, y, z in line)
            return first, len(points)

        is_cut = (
            plane is not None
            and abs(facet.normal[plane[0]]) > 0.999
            and all(abs(corner[plane[0]] - plane[1]) < HAIR * 10 for corner in facet.corners)
        )
        corners = put(facet.corners)
        piece = self.body.pieces[item.of]
        is_hatched = is_cut or item.of in self.marks.hatched
        grain: list[list[Point3]] = []
        if is_hatched:
            grain = _hatch(facet, self.marks.hatch_every)
        elif self.marks.has_grain:
            grain = _grain(facet, self.ways[item.of], piece.name)
        layer = Layer.PENCIL if item.of in self.marks.hatched else Layer.GRAIN
        strokes = [(layer, *put(line)) for line in grain]
        strokes += [(Layer.OUTLINE, *put(line)) for line in _chains(facet.edges)]
        return Shown(item.of, corners, facet.normal, is_cut, facet.size, tuple(strokes))


def setting_of(turn: Turn) -> tuple[float, CutWay, float, bool]:
    """Return all of a view that moves or cuts a piece, and nothing that only turns.

    Args:
        turn: The view.
    """
    stays_low = turn.cut is not CutWay.NONE and turn.away[turn.cut.axis] < 0
    return turn.apart, turn.cut, turn.cut_at if turn.cut is not CutWay.NONE else 0.0, stays_low


def scene_of(body: Body, turn: Turn, before: Scene | None = None) -> Scene:
    """Return a leaf's pieces in space.

    Args:
        body: The leaf's body.
        turn: How far it is taken apart, and where it is cut open; from where it is seen does not matter.
        before: The scene before it, whose work is taken over where it is the same leaf's.
    """
    if before is not None and before.body is body:
        prisms, apart = before.prisms, before.apart
    else:
        prisms, apart = drawn_prisms(body), None
    apart = apart or taken_apart(body)
    return _set_out(body, prisms, apart, apart.offsets(turn.apart), turn, Marks())


class Detail(Enum):
    """How large the pieces of a step are drawn: mm beside a curve, mm between lines of hatching, whether with grain."""

    CLOSE = (0.4, 7.0, True)
    WHOLE = (1.2, 28.0, True)
    SMALL = (8.0, 49.0, False)


def scene_played(played: Played, turn: Turn, detail: Detail = Detail.WHOLE) -> Scene:
    """Return the pieces as they lie after a step of their making, and what the step takes off them.

    Args:
        played: The pieces after the step.
        turn: Where they are cut open; from where they are seen, and how far apart, does not matter.
        detail: How large they are drawn.
    """
    prisms = drawn_prisms(played.body, detail.value[0])
    return _set_out(played.body, prisms, None, list(played.offsets), turn, marks_of(played, detail))


def marks_of(played: Played, detail: Detail = Detail.WHOLE) -> Marks:
    """Return which of the pieces of a step are told from the others.

    Args:
        played: The pieces after the step.
        detail: How large they are drawn.
    """
    pale = frozenset(at for at, piece in enumerate(played.body.pieces) if piece.name not in played.at_hand)
    _, hatch_every, has_grain = detail.value
    return Marks(played.taken_off, pale, hatch_every, has_grain)


def _set_out(
    body: Body, prisms: list[Prisms], apart: TakenApart | None, offsets: list[Point3], turn: Turn, marks: Marks
) -> Scene:
    setting = setting_of(turn)
    plane = _cut_plane(body, setting)
    items = []
    for at, (solids, cuts) in enumerate(prisms):
        if plane is not None:
            solids = tuple(each for solid in solids for each in kept_of(solid, *plane, stays_low=setting[3]))
        if solids:
            cells = cells_of(solids, cuts)
            if cells:
                items.append(Item(at, cells, offsets[at]))
    tree = tree_of(items)
    tints = [stuff(piece.material).tint if piece.material else "" for piece in body.pieces]
    boxes = [each.box for each in items] or [((0.0, 0.0, 0.0), (1.0, 1.0, 1.0))]
    low, high = (_corner([box[end] for box in boxes], most) for end, most in enumerate((min, max)))
    ways = set() if tree is None else normals_of(tree)
    ways |= {facet.normal for item in items for cell in item.cells for facet in cell.faces}
    grain = list(map(_along_grain, body.pieces))
    return Scene(
        body, prisms, apart, setting, offsets, tints, grain, tree, low, high, covered_sides(items), marks, tuple(ways)
    )


def _corner(corners: Sequence[Point3], most: Callable[[Iterable[float]], float]) -> Point3:
    x, y, z = (most(corner[axis] for corner in corners) for axis in range(3))
    return x, y, z


# --- cut open -----------------------------------------------------------------------------------------------------


def _cut_plane(body: Body, setting: tuple[float, CutWay, float, bool]) -> tuple[int, float] | None:
    """Return the axis that the cut is square to and where it lies on it, mm."""
    _, way, share, _ = setting
    if way is CutWay.NONE:
        return None
    front, back = body.over_all
    low, high = ((0.0, body.width), (0.0, body.height), (front, back))[way.axis]
    return way.axis, round(low + (high - low) * share, 4)


def kept_of(solid: Solid, axis: int, at: float, *, stays_low: bool) -> Iterator[Solid]:
    """Yield what of a prism lies on the side of a plane that stays.

    Args:
        solid: The prism.
        axis: That the plane is square to: 0 across, 1 up, 2 in from the opening face.
        at: Where it stands on it, mm.
        stays_low: Whether what lies before it stays, or what lies beyond.
    """
    side = 1.0 if stays_low else -1.0
    if axis == 2:
        a, b = solid.depth
        span = (a, min(b, at)) if stays_low else (max(a, at), b)
        if span[1] - span[0] > HAIR:
            yield Solid(solid.points, span, solid.radius)
        return
    outline: Sequence[Point] = corners_of(solid)
    if len(solid.points) == 1:
        ((x, y),) = solid.points
        outline = [(x + solid.radius * a, y + solid.radius * b) for a, b in round_of(ROUND)]
    left = half_plane_part(outline, lambda point: side * (point[axis] - at))
    if len(left) > 2:
        yield Solid(tuple(left), solid.depth)


# --- lines on the sides -------------------------------------------------------------------------------------------


def _chains(edges: Sequence[Segment]) -> Iterator[list[Point3]]:
    """Yield edges, those that go on from one to the next as one line."""
    chain: list[Point3] = []
    for a, b in edges:
        if chain and chain[-1] == a:
            chain.append(b)
            continue
        if chain:
            yield chain
        chain = [a, b]
    if chain:
        yield chain


def _along_grain(piece: Piece) -> Point3 | None:
    """Return the way a piece's grain runs; None of a sheet."""
    if piece.material and not isinstance(stuff(piece.material), Species):
        return None
    part = piece.part
    if part is None:
        x0, y0, _, x1, y1, _ = piece.box
        return (1.0, 0.0, 0.0) if x1 - x0 > y1 - y0 else (0.0, 1.0, 0.0)
    if part.shape and (part.is_raked or part.role is Role.BRACE):
        (ax, ay), (bx, by) = max(
            pairwise((*part.corners, part.corners[0])), key=lambda side: math.dist(side[0], side[1])
        )
        long = math.dist((ax, ay), (bx, by))
        return (bx - ax) / long, (by - ay) / long, 0.0
    return (0.0, 1.0, 0.0) if part.grain_upright else (1.0, 0.0, 0.0)


@lru_cache(maxsize=4000)
def _grain(facet: Facet, way: Point3 | None, name: str) -> list[list[Point3]]:
    """Return a few lines along the grain of a side; on end grain short ones askew."""
    if way is None or facet.size < GRAIN_FROM:
        return []
    if abs(_dot(way, facet.normal)) > 0.7:
        return _hatch(facet, 2.0 * HATCH_EVERY)
    side = _cross(facet.normal, way)
    us = [_dot(corner, side) for corner in facet.corners]
    wide = max(us) - min(us)
    source = random.Random(f"{name} {facet.normal} {facet.corners[0]}")
    count = min(MOST_GRAIN, int(wide / GRAIN_EVERY + source.random()))  # a narrow side may have none
    lines = []
    for at in range(count):
        u = min(us) + wide * (at + source.uniform(0.25, 0.75)) / count
        line = _inside(facet.corners, way, side, u)
        if line is not None:
            start, end = sorted((source.uniform(0.0, 0.35), source.uniform(0.55, 1.0)))
            lines.append([_between(*line, start), _between(*line, end)])
    return lines


def _hatch(facet: Facet, every: float = HATCH_EVERY) -> list[list[Point3]]:
    """Return lines at 45° over a side: wood that is cut."""
    nx, ny, nz = map(abs, facet.normal)
    slant: Point3 = (1.0, 1.0, 0.0) if nz > max(nx, ny) else (0.0, 1.0, 1.0) if nx > ny else (1.0, 0.0, 1.0)
    flat = tuple(a - _dot(slant, facet.normal) * b for a, b in zip(slant, facet.normal, strict=True))
    long = math.sqrt(sum(each * each for each in flat))
    way: Point3 = (flat[0] / long, flat[1] / long, flat[2] / long)
    side = _cross(facet.normal, way)
    us = [_dot(corner, side) for corner in facet.corners]
    first = math.ceil(min(us) / every)
    last = min(math.floor(max(us) / every), first + 400)
    found = (_inside(facet.corners, way, side, at * every) for at in range(first, last + 1))
    return [list(line) for line in found if line is not None]


def _inside(corners: Sequence[Point3], way: Point3, side: Point3, u: float) -> Segment | None:
    """Return the line along `way`, `u` to the side, as far as it lies in a convex polygon."""
    met: list[Point3] = []
    for a, b in pairwise((*corners, corners[0])):
        p, q = _dot(a, side) - u, _dot(b, side) - u
        if (p > 0) != (q > 0):
            met.append(_between(a, b, p / (p - q)))
    if len(met) != 2 or math.dist(*met) < LEAST_EDGE:
        return None
    one, other = sorted(met, key=lambda point: _dot(point, way))
    return one, other


def _between(a: Point3, b: Point3, share: float) -> Point3:
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share)


def _dot(a: Point3, b: Point3) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def _cross(a: Point3, b: Point3) -> Point3:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]
