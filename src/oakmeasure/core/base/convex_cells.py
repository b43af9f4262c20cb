"""What is left of prisms as convex cells with the faces that are seen of them: what a picture from any side needs.

A cell is a convex outline on the face and a span of depth. Coordinates are x across, y up, z in from the opening face;
mm. Exact for straight outlines; a bore is a polygon.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise

from oakmeasure.core.base.geometry import Point, signed_area
from oakmeasure.core.base.prism_sums import corners_of, round_of
from oakmeasure.core.base.prisms import Solid, Span

Point3 = tuple[float, float, float]
Segment = tuple[Point3, Point3]

HAIR = 1e-4  # mm: nearer than this is the same place
LEAST = 1e-3  # mm² below which a cell is none
ROUND = 16  # sides of the polygon that stands for a round hole in a picture
BENT_FROM = math.cos(math.radians(25))  # two sides that meet flatter than this are one curve: no line between them


@dataclass(frozen=True, eq=False)
class Facet:
    """A flat, convex piece of a surface; what is known of it once is kept with it."""

    corners: tuple[Point3, ...]
    """Its corners in order, mm."""
    normal: Point3
    """Of length 1, away from the wood."""
    edges: tuple[Segment, ...]
    """What of its outline is an edge: the rest goes on in a face beside it."""

    @cached_property
    def size(self) -> float:
        """Its area, mm²."""
        return face_area(self.corners, self.normal)


@dataclass(frozen=True, eq=False)
class Cell:
    """A convex prism of wood; what is known of it once is kept with it."""

    outline: tuple[Point, ...]
    """Its corners on the face, anticlockwise, mm."""
    depth: Span
    """From where to where it lies, mm."""
    faces: tuple[Facet, ...]
    """What is seen of it: where it touches another cell of the same piece it has none."""

    @cached_property
    def box(self) -> tuple[Point3, Point3]:
        """The block about it: its least corner and its most, mm."""
        xs, ys = [x for x, _ in self.outline], [y for _, y in self.outline]
        return (min(xs), min(ys), self.depth[0]), (max(xs), max(ys), self.depth[1])


@dataclass(frozen=True, slots=True)
class _Strip:
    """What an upright strip of a plane holds between two lines: at its left end and at its right."""

    x: Span
    low: Span
    high: Span

    @property
    def corners(self) -> tuple[Point, ...]:
        (x0, x1), (a0, a1), (b0, b1) = self.x, self.low, self.high
        right = [(x1, a1), (x1, b1)] if b1 - a1 > HAIR else [(x1, (a1 + b1) / 2)]
        left = [(x0, b0), (x0, a0)] if b0 - a0 > HAIR else [(x0, (a0 + b0) / 2)]
        return (left[-1], *right, *left[:-1])

    def meets(self, other: _Strip) -> bool:
        """Return whether the upright rectangles about the two share an area."""
        return (
            self.x[0] < other.x[1]
            and other.x[0] < self.x[1]
            and min(self.low) < max(other.high)
            and min(other.low) < max(self.high)
        )

    @property
    def size(self) -> float:
        return (self.x[1] - self.x[0]) * (self.high[0] - self.low[0] + self.high[1] - self.low[1]) / 2


@lru_cache(maxsize=2000)
def cells_of(solids: tuple[Solid, ...], cuts: tuple[Solid, ...] = ()) -> tuple[Cell, ...]:
    """Return what is left of prisms once others are taken out, as convex cells; what two of them share counts once.

    Args:
        solids: What there is, mm.
        cuts: What is taken out, mm.

    >>> len(cells_of((Solid(((0, 0), (4, 0), (4, 3), (0, 3)), (0, 2)),)))
    1
    """
    there = [(_outline(each), _span(each)) for each in solids]
    out = [(_outline(each), _span(each)) for each in cuts]
    depths = sorted({z for _, span in (*there, *out) for z in span})
    slabs: list[tuple[Span, list[_Strip]]] = []
    for z0, z1 in pairwise(depths):
        middle = (z0 + z1) / 2
        here = [points for points, span in there if span[0] < middle < span[1]]
        if here:
            gone = [points for points, span in out if span[0] < middle < span[1]]
            slabs.append(((z0, z1), _strips(here, gone)))
    return _faced(_joined(slabs))


def _outline(solid: Solid) -> tuple[Point, ...]:
    points = corners_of(solid)
    if len(solid.points) == 1:
        ((x, y),), r = solid.points, solid.radius
        points = tuple((x + r * a, y + r * b) for a, b in round_of(ROUND))
    return tuple((round(x, 4), round(y, 4)) for x, y in points)


def _span(solid: Solid) -> Span:
    return round(solid.depth[0], 4), round(solid.depth[1], 4)


# --- a plane figure in upright strips ----------------------------------------------------------------------------


def _strips(there: Sequence[Sequence[Point]], out: Sequence[Sequence[Point]]) -> list[_Strip]:
    """Return what is left of outlines when others are taken out, as upright strips, as wide as they go straight on."""
    low, high = min(x for each in there for x, _ in each), max(x for each in there for x, _ in each)
    out = [each for each in out if any(_touch(each, one) for one in there)]
    xs = sorted({x for each in (*there, *out) for x, _ in each if low <= x <= high} | set(_crossings([*there, *out])))
    xs = [x for at, x in enumerate(xs) if at == 0 or x - xs[at - 1] > HAIR]
    found: list[_Strip] = []
    growing: list[_Strip] = []
    for x0, x1 in pairwise(xs):
        new = [_Strip((x0, x1), *each) for each in _between(there, out, x0, x1)]
        joined = [_longer(growing, each) for each in new]
        found += [each for each in growing if all(each.x[0] != one.x[0] or not _begins(each, one) for one in joined)]
        growing = joined
    return [each for each in (*found, *growing) if each.size > LEAST]


def _begins(one: _Strip, whole: _Strip) -> bool:
    return abs(one.low[0] - whole.low[0]) < HAIR and abs(one.high[0] - whole.high[0]) < HAIR


def _longer(growing: list[_Strip], new: _Strip) -> _Strip:
    """Return a strip with the one before it, where that goes straight on into it."""
    for old in growing:
        if abs(old.low[1] - new.low[0]) < HAIR and abs(old.high[1] - new.high[0]) < HAIR:
            wide, more = old.x[1] - old.x[0], new.x[1] - new.x[0]
            lower = old.low[1] + (old.low[1] - old.low[0]) * more / wide
            upper = old.high[1] + (old.high[1] - old.high[0]) * more / wide
            if abs(lower - new.low[1]) < HAIR and abs(upper - new.high[1]) < HAIR:
                return _Strip((old.x[0], new.x[1]), (old.low[0], new.low[1]), (old.high[0], new.high[1]))
    return new


_Bound = tuple[float, float, float]  # of a line across a strip: its middle, its left end, its right end


def _between(
    there: Sequence[Sequence[Point]], out: Sequence[Sequence[Point]], x0: float, x1: float
) -> list[tuple[Span, Span]]:
    """Return the spans of a strip that are left: each by the lines under and over it."""
    left: list[tuple[_Bound, _Bound]] = []
    for low, high in sorted(span for each in there for span in _crossed(each, x0, x1)):
        if left and low[0] <= left[-1][1][0] + HAIR:
            left[-1] = (left[-1][0], max(left[-1][1], high))
        else:
            left.append((low, high))
    for each in out:
        for low, high in _crossed(each, x0, x1):
            left = [
                (a, b)
                for one, other in left
                for a, b in ((one, min(other, low)), (max(one, high), other))
                if b[0] - a[0] > HAIR
            ]
    return [((a[1], a[2]), (b[1], b[2])) for a, b in left]


def _crossed(points: Sequence[Point], x0: float, x1: float) -> list[tuple[_Bound, _Bound]]:
    """Return where an outline lies in a strip, in which no two of its sides cross."""
    middle = (x0 + x1) / 2
    met: list[_Bound] = []
    for (ax, ay), (bx, by) in zip(points, (*points[1:], points[0]), strict=True):
        if (ax > middle) != (bx > middle):
            slope = (by - ay) / (bx - ax)
            met.append((ay + slope * (middle - ax), ay + slope * (x0 - ax), ay + slope * (x1 - ax)))
    met.sort()
    return list(zip(met[::2], met[1::2], strict=False))


def _crossings(outlines: Sequence[Sequence[Point]]) -> Iterable[float]:
    """Return where across sides of two outlines cross, when one of them is neither upright nor level."""
    sides = [
        [(a, b) for a, b in zip(each, (*each[1:], each[0]), strict=True) if abs(a[0] - b[0]) > HAIR]
        for each in outlines
    ]
    slanted = [any(abs(a[1] - b[1]) > HAIR for a, b in each) for each in sides]
    for at, one in enumerate(outlines):
        for more, other in enumerate(outlines[at + 1 :], start=at + 1):
            if (slanted[at] or slanted[more]) and _touch(one, other):
                yield from (x for a, b in sides[at] for c, d in sides[more] if (x := _crossing(a, b, c, d)) is not None)


def _crossing(a: Point, b: Point, c: Point, d: Point) -> float | None:
    (p, q), (r, s) = (a[0], b[0]) if a[0] < b[0] else (b[0], a[0]), (c[0], d[0]) if c[0] < d[0] else (d[0], c[0])
    low, high = r if r > p else p, s if s < q else q
    if high - low < HAIR:
        return None
    one, other = (b[1] - a[1]) / (b[0] - a[0]), (d[1] - c[1]) / (d[0] - c[0])
    if abs(one - other) < 1e-9:
        return None
    x = (c[1] - a[1] + one * a[0] - other * c[0]) / (one - other)
    return round(x, 4) if low < x < high else None


def _touch(one: Sequence[Point], other: Sequence[Point]) -> bool:
    a, b = _box(tuple(one)), _box(tuple(other))
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


@lru_cache(maxsize=4000)
def _box(outline: tuple[Point, ...]) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    return min(xs), min(ys), max(xs), max(ys)


# --- cells and their faces --------------------------------------------------------------------------------------


def _joined(slabs: Sequence[tuple[Span, list[_Strip]]]) -> list[tuple[Span, _Strip]]:
    """Return the strips of all slabs, those that go on alike from one slab to the next as one."""
    found: list[tuple[Span, _Strip]] = []
    growing: dict[_Strip, Span] = {}
    for depth, strips in slabs:
        goes_on = {each: span for each, span in growing.items() if abs(span[1] - depth[0]) < HAIR and each in strips}
        found += [(span, each) for each, span in growing.items() if each not in goes_on]
        growing = {each: (goes_on.get(each, depth)[0], depth[1]) for each in strips}
    return [*found, *((span, each) for each, span in growing.items())]


_Seen = tuple[int, tuple[Point3, ...], Point3]  # of which cell, its corners, its normal


def _faced(strips: Sequence[tuple[Span, _Strip]]) -> tuple[Cell, ...]:
    seen = [each for at in range(len(strips)) for each in _faces(strips, at)]
    edges = _edges(seen)
    faces: dict[int, list[Facet]] = defaultdict(list)
    for (at, corners, normal), drawn in zip(seen, edges, strict=True):
        faces[at].append(Facet(corners, normal, tuple(drawn)))
    return tuple(Cell(strip.corners, span, tuple(faces[at])) for at, (span, strip) in enumerate(strips))


def _faces(strips: Sequence[tuple[Span, _Strip]], at: int) -> Iterable[_Seen]:
    """Return what of a cell's six sides no other cell touches."""
    (z0, z1), strip = strips[at]
    for z, side in ((z0, -1.0), (z1, 1.0)):
        on_it = [
            each.corners
            for span, each in strips
            if abs((span[1] if side < 0 else span[0]) - z) < HAIR and each.meets(strip)
        ]
        for left in _strips([strip.corners], on_it) if on_it else [strip]:
            corners = tuple((x, y, z) for x, y in left.corners)
            yield at, corners if side > 0 else corners[::-1], (0.0, 0.0, side)
    for x, ends, side in (
        (strip.x[0], (strip.low[0], strip.high[0]), -1.0),
        (strip.x[1], (strip.low[1], strip.high[1]), 1.0),
    ):
        beside = [
            ((span[0], span[1]), (each.low[1], each.high[1]) if side < 0 else (each.low[0], each.high[0]))
            for span, each in strips
            if abs((each.x[1] if side < 0 else each.x[0]) - x) < HAIR
        ]
        for (a, b), (low, high) in rectangles_left(((z0, z1), ends), beside):
            corners4 = ((x, low, a), (x, high, a), (x, high, b), (x, low, b))
            yield at, corners4 if side > 0 else corners4[::-1], (side, 0.0, 0.0)
    for (y0, y1), side in ((strip.low, -1.0), (strip.high, 1.0)):  # over and under it there is none: strips are whole
        x0, x1 = strip.x
        long = math.hypot(x1 - x0, y1 - y0)
        corners = ((x0, y0, z0), (x1, y1, z0), (x1, y1, z1), (x0, y0, z1))
        yield at, corners if side < 0 else corners[::-1], (-side * (y1 - y0) / long, side * (x1 - x0) / long, 0.0)


def rectangles_left(whole: tuple[Span, Span], out: Sequence[tuple[Span, Span]]) -> list[tuple[Span, Span]]:
    """Return what is left of a rectangle, from and to both ways, when others are taken out of it.

    Args:
        whole: The rectangle, mm.
        out: What is taken out, mm.

    >>> rectangles_left(((0, 4), (0, 4)), [((0, 4), (1, 4))])
    [((0, 4), (0, 1))]
    """
    left = [whole]
    for (a, b), (c, d) in out:
        after = []
        for (p, q), (r, s) in left:
            if min(b, q) - max(a, p) < HAIR or min(d, s) - max(c, r) < HAIR:
                after.append(((p, q), (r, s)))
                continue
            after += [((p, a), (r, s))] if a - p > HAIR else []
            after += [((b, q), (r, s))] if q - b > HAIR else []
            inner = (max(a, p), min(b, q))
            after += [(inner, (r, c))] if c - r > HAIR else []
            after += [(inner, (d, s))] if s - d > HAIR else []
        left = after
    return [((p, q), (r, s)) for (p, q), (r, s) in left if q - p > HAIR and s - r > HAIR]


# --- which of the lines about the faces are edges -----------------------------------------------------------------


def _edges(seen: Sequence[_Seen]) -> list[list[Segment]]:
    """Return of each face what of its outline no face in the same plane goes on over, and no curve."""
    found: list[list[Segment]] = [[] for _ in seen]
    deep: dict[tuple[float, ...], list[tuple[int, Segment]]] = defaultdict(list)
    for sides in _in_line(seen):
        forth = [each for each in sides if each.is_forth]
        back = [each for each in sides if not each.is_forth] if len(forth) < len(sides) else []
        for one, other in ((forth, back), (back, forth)):
            for side in one:
                for a, b in side.without(other):
                    if side.axis == 2:
                        deep[(*_near(a)[:2], round(min(a[2], b[2]), 3), round(max(a[2], b[2]), 3))].append(
                            (side.face, (a, b))
                        )
                    else:
                        found[side.face].append((a, b))
    for pair in deep.values():
        if len(pair) == 2 and _dot(seen[pair[0][0]][2], seen[pair[1][0]][2]) > BENT_FROM:
            continue
        for at, segment in pair:
            found[at].append(segment)
    return found


def _in_line(seen: Sequence[_Seen]) -> Iterable[list[_Side]]:
    """Return the sides of all faces, those together that lie in one plane and, but for slanted ones, on one line."""
    lines: dict[tuple[object, ...], list[_Side]] = defaultdict(list)
    near: dict[Point3, Point3] = {}
    for at, (_, corners, normal) in enumerate(seen):
        flat = near.get(normal) or near.setdefault(normal, _near(normal))
        for a, b in zip(corners, (*corners[1:], corners[0]), strict=True):
            x, y, z = near.get(a) or near.setdefault(a, _near(a))
            if abs(a[2] - b[2]) > HAIR:
                lines[flat, 2, x, y].append(_Side(at, a, b, 2))
            elif abs(a[0] - b[0]) > HAIR:
                lines[flat, 0, z].append(_Side(at, a, b, 0))
            else:
                lines[flat, 1, x, z].append(_Side(at, a, b, 1))
    return lines.values()


@dataclass(frozen=True, slots=True)
class _Side:
    """A side of a face, from a to b, by the axis that it runs along most plainly."""

    face: int
    a: Point3
    b: Point3
    axis: int

    @property
    def is_forth(self) -> bool:
        return self.b[self.axis] > self.a[self.axis]

    def without(self, others: Sequence[_Side]) -> Iterable[Segment]:
        """Return what of it no other side runs back along."""
        a, b, axis = self.a, self.b, self.axis
        start, end = a[axis], b[axis]
        whole = (start, end) if start < end else (end, start)
        left = [whole]
        for each in others:
            high, low = each.a[axis], each.b[axis]
            if low > high:
                low, high = high, low
            if low < whole[1] and high > whole[0] and self._is_in_line(each):
                left = [(p, q) for c, d in left for p, q in ((c, min(d, low)), (max(c, high), d)) if q - p > HAIR]
        if left == [whole]:
            yield a, b
            return
        for low, high in left:
            yield _along(a, b, (low - start) / (end - start)), _along(a, b, (high - start) / (end - start))

    def _is_in_line(self, other: _Side) -> bool:
        """Return whether another side lies on the same line; but for slanted ones both are told by the same key."""
        if self.axis != 0:
            return True
        (ax, ay, _), (bx, by, _) = self.a, self.b
        slope = (by - ay) / (bx - ax)
        return all(abs(ay + slope * (x - ax) - y) < 0.01 for x, y, _ in (other.a, other.b))


def _near(point: Point3) -> Point3:
    x, y, z = point
    return round(x, 3) + 0.0, round(y, 3) + 0.0, round(z, 3) + 0.0


def _along(a: Point3, b: Point3, share: float) -> Point3:
    return tuple(p + (q - p) * share for p, q in zip(a, b, strict=True))  # type: ignore[return-value]


def _dot(a: Point3, b: Point3) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def face_area(corners: Sequence[Point3], normal: Point3) -> float:
    """Return the area of a flat face, mm².

    Args:
        corners: Its corners in order, mm.
        normal: Of length 1.
    """
    nx, ny, nz = map(abs, normal)
    if nz >= nx and nz >= ny:
        return abs(signed_area([(x, y) for x, y, _ in corners])) / nz
    if nx >= ny:
        return abs(signed_area([(y, z) for _, y, z in corners])) / nx
    return abs(signed_area([(x, z) for x, _, z in corners])) / ny
