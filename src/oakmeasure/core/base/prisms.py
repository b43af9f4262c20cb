"""Everything that is cut, bored or driven in a leaf as a prism: an outline on its face, and from where to where in it.

Coordinates are the leaf's: x from the hinge edge, y up from the foot, depth from the opening face; mm.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from oakmeasure.core.base.geometry import Point

Span = tuple[float, float]
Box = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class Solid:
    """A prism."""

    points: tuple[Point, ...]
    """Corners of an outline, anticlockwise; the ends of a line; or one centre."""
    depth: Span
    """From and to."""
    radius: float = 0.0
    """How far it stands out beyond its points, mm: a bore is its centre, a screw in the plane its line."""

    box: Box = field(init=False, compare=False, repr=False)
    """The upright rectangle about it: least x and y, most x and y."""

    def __post_init__(self) -> None:
        """Work out the rectangle about it once: it is asked for more often than anything else."""
        xs, ys, r = [x for x, _ in self.points], [y for _, y in self.points], self.radius
        object.__setattr__(self, "box", (min(xs) - r, min(ys) - r, max(xs) + r, max(ys) + r))

    def moved(self, dx: float, dy: float) -> Solid:
        """Return the same, moved on the face.

        Args:
            dx: Across, away from the hinge edge, mm.
            dy: Up, mm.
        """
        return replace(self, points=tuple((x + dx, y + dy) for x, y in self.points))


def block(x0: float, y0: float, x1: float, y1: float, depth: Span) -> Solid:
    """Return an upright block, its ends in any order: a leaf that contradicts itself is judged elsewhere.

    Args:
        x0: Where it begins, across, mm.
        y0: Its lower end, mm.
        x1: Where it ends, across, mm.
        y1: Its upper end, mm.
        depth: From where to where it lies, in from the opening face, mm.
    """
    (x0, x1), (y0, y1) = sorted((x0, x1)), sorted((y0, y1))
    return Solid(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), (min(depth), max(depth)))


def bore(x: float, y: float, diameter: float, depth: Span) -> Solid:
    """Return a hole square to the face.

    Args:
        x: Across, away from the hinge edge, mm.
        y: Up, from the foot, mm.
        diameter: Of the hole or the screw, mm.
        depth: From where to where it lies, in from the opening face, mm.
    """
    return Solid(((x, y),), depth, diameter / 2)


def rod(start: Point, end: Point, diameter: float, at: float) -> Solid:
    """Return what lies along the face: a screw or a dowel in an edge.

    Args:
        start: Where it begins, mm.
        end: Where it ends, mm.
        diameter: Of the hole or the screw, mm.
        at: Its middle, in from the opening face, mm.
    """
    return Solid((start, end), (at - diameter / 2, at + diameter / 2), diameter / 2)


def apart_in_depth(one: Span, other: Span) -> float:
    """Return the distance of two spans, mm; less than 0: by how much they share.

    Args:
        one: From where to where the one lies, mm.
        other: From where to where the other lies, mm.
    """
    return max(one[0], other[0]) - min(one[1], other[1])


def distances(pairs: Sequence[tuple[Solid, Solid]]) -> list[float]:
    """Return how far apart the solids of each pair are, mm.

    Less than 0 where they overlap on the face and in depth.

    Two prisms are √(face² + depth²) apart, each taken as 0 where they share. Of overlapping ones it is the
    depth that they share or the width of their common outline, whichever is less: an estimate, good to tell
    worse from bad.

    Args:
        pairs: The solids, two by two.
    """
    if all(is_block(a) and is_block(b) for a, b in pairs):
        return [_of_blocks(a, b) for a, b in pairs]
    import shapely  # here, so that a start without a near pair does not pay for it

    def outline(solid: Solid) -> object:
        points = solid.points
        if len(points) == 1:
            return shapely.Point(points[0])
        return shapely.LineString(points) if len(points) == 2 else shapely.Polygon(points)

    made: dict[int, object] = {}
    for pair in pairs:
        for each in pair:
            made.setdefault(id(each), outline(each))
    on_face = shapely.distance([made[id(a)] for a, _ in pairs], [made[id(b)] for _, b in pairs])
    found = []
    for (a, b), face in zip(pairs, on_face, strict=True):
        across, deep = float(face) - a.radius - b.radius, apart_in_depth(a.depth, b.depth)
        if face == 0.0 and deep < 0 and len(a.points) > 2 and len(b.points) > 2:
            x0, y0, x1, y1 = shapely.intersection(made[id(a)], made[id(b)]).bounds
            across = -min(x1 - x0, y1 - y0)
        if across < 0 and deep < 0:
            found.append(max(across, deep))
        else:
            found.append(math.hypot(max(across, 0.0), max(deep, 0.0)))
    return found


def is_block(solid: Solid) -> bool:
    """Return whether a solid is a block with its sides upright and level: then its box is all of it.

    Args:
        solid: The prism.
    """
    x0, y0, x1, y1 = solid.box
    return not solid.radius and solid.points == ((x0, y0), (x1, y0), (x1, y1), (x0, y1))


def _of_blocks(one: Solid, other: Solid) -> float:
    a, b = one.box, other.box
    x, y = max(a[0] - b[2], b[0] - a[2]), max(a[1] - b[3], b[1] - a[3])
    deep = apart_in_depth(one.depth, other.depth)
    if x < 0 and y < 0 and deep < 0:
        return max(x, y, deep)
    return math.hypot(max(x, 0.0), max(y, 0.0), max(deep, 0.0))


def nearest_free(blocked: Sequence[Span], *, at: float, low: float, high: float) -> float | None:
    """Return the place nearest to `at` between low and high that lies in none of the blocked spans.

    None without one.

    All mm. A place on the end of a blocked span is free.

    Args:
        blocked: Spans in which no place may lie, mm.
        at: The place that is wished for, mm.
        low: The lowest place that is allowed, mm.
        high: The highest place that is allowed, mm.

    >>> nearest_free([(0.0, 10.0), (8.0, 20.0)], at=9.0, low=-50.0, high=50.0)
    0.0
    """
    if low > high:
        return None
    tries = [min(max(at, low), high), *(each for span in blocked for each in span if low <= each <= high)]
    free = [each for each in tries if not any(a + 1e-9 < each < b - 1e-9 for a, b in blocked)]
    return min(free, key=lambda each: (abs(each - at), each), default=None)
