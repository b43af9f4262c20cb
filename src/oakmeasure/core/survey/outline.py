"""The opening's outline, side by side, and the largest leaf inside it.

Sides go round anticlockwise from the foot of the hinge side: floor, latch side, head (one or more), hinge side.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.geometry import Point, half_plane_part
from oakmeasure.core.document.readings import Side

STEEP = 0.12  # a side that leans more than this is no door side: the leaf is then the rectangle of most area
SEARCH_STEPS = 38


@dataclass(frozen=True, slots=True)
class Edge:
    """One side: its line from corner to corner, and the standard error of where it lies, mm."""

    side: Side
    """The side that it belongs to."""
    points: tuple[Point, ...]
    """The points, mm."""
    sigma: float = 0.0
    """Standard uncertainty, mm."""


@dataclass(frozen=True, slots=True)
class Box:
    """An upright, plumb rectangle."""

    x0: float
    """Left edge, mm."""
    y0: float
    """Lower edge, mm."""
    x1: float
    """Right edge, mm."""
    y1: float
    """Upper edge, mm."""


@dataclass(frozen=True, slots=True)
class Outline:
    """All sides, the floor first."""

    edges: tuple[Edge, ...]
    """Its edges, from the floor anticlockwise."""

    @property
    def points(self) -> tuple[Point, ...]:
        """Every point once, round from the hinge side's foot."""
        return tuple(point for edge in self.edges for point in edge.points[:-1])

    def of(self, side: Side) -> list[Point]:
        """Return the points of all edges that belong to a side.

        Args:
            side: The side.
        """
        return [point for edge in self.edges if edge.side is side for point in edge.points]

    @property
    def is_upright(self) -> bool:
        """Whether it has two sides that are near enough plumb for a leaf to stand between them."""
        for side in (Side.HINGE, Side.LATCH):
            points = self.of(side)
            if not points or abs(points[-1][0] - points[0][0]) > STEEP * abs(points[-1][1] - points[0][1]):
                return False
        return True


def _inward(edge: Edge) -> float:
    """Return how far an edge bulges into the opening off its chord, mm; 0 for one that is straight or bows out."""
    (ax, ay), (bx, by) = edge.points[0], edge.points[-1]
    length = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5
    return max(0.0, *(((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / length for x, y in edge.points))


@dataclass(frozen=True, slots=True)
class HalfPlane:
    """All points with a·x + b·y ≤ c, (a, b) the unit normal that points out of the opening."""

    a: float
    """Of a·x + b·y ≤ c, the normal's x."""
    b: float
    """Of a·x + b·y ≤ c, the normal's y."""
    c: float
    """Of a·x + b·y ≤ c, mm."""

    def beyond(self, point: Point) -> float:
        """Return how far a point lies beyond it, mm; less than 0 inside.

        Args:
            point: The point, mm.
        """
        return self.a * point[0] + self.b * point[1] - self.c


def half_planes(outline: Outline, gaps: dict[Side, float] | None = None) -> list[HalfPlane]:
    """Return what a leaf must keep within: each side, moved inward by its gap.

    A side that bows in is replaced by its inner chord, so that the region is convex.

    Args:
        outline: The clear opening's corners and head.
        gaps: The gap at each side, mm; None for none.
    """
    planes = []
    for edge in outline.edges:
        gap = (gaps or {}).get(edge.side, 0.0)
        bulge = _inward(edge)
        pieces = [(edge.points[0], edge.points[-1])] if bulge > 1e-9 else list(pairwise(edge.points))
        for (ax, ay), (bx, by) in pieces:
            length = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5
            if length < 1e-9:
                continue
            a, b = (by - ay) / length, -(bx - ax) / length
            planes.append(HalfPlane(a, b, a * ax + b * ay - gap - bulge))
    return planes


def scribed(outline: Outline, gaps: dict[Side, float]) -> tuple[Point, ...]:
    """Return the outline of the largest leaf that is scribed to the opening, every gap kept; () when none is left.

    Args:
        outline: The clear opening's corners and head.
        gaps: The gap at each side, mm; None for none.
    """
    points: list[Point] = list(outline.points)
    for plane in half_planes(outline, gaps):
        points = half_plane_part(points, plane.beyond)
        if not points:
            return ()
    return tuple(points)


def plumb_box(outline: Outline) -> Box:
    """Return the plumb rectangle between the sides' furthest points in: width first, then height.

    Args:
        outline: The clear opening's corners and head.
    """
    lowest_head = min((y for _, y in outline.of(Side.HEAD)), default=0.0)
    return Box(
        max(x for x, _ in outline.of(Side.HINGE)),
        max(y for _, y in outline.of(Side.FLOOR)),
        min(x for x, _ in outline.of(Side.LATCH)),
        lowest_head,
    )


def largest_box(planes: Sequence[HalfPlane], *, width_counts: float | None = None) -> Box:
    """Return the upright rectangle of most area inside all half-planes, or of the greatest weighed size.

    Width over foot and head is concave, and so are that sum and the log of the area: a ternary search within a
    ternary search. An empty region gives a box whose width is not positive.

    Args:
        planes: The half-planes.
        width_counts: Share of the width in k·width + (1 − k)·height, 0 to 1; None: the area.
    """
    level = [each for each in planes if abs(each.a) < 1e-9]
    low = max((-each.c for each in level if each.b < 0), default=-1e4)
    high = min((each.c for each in level if each.b > 0), default=1e4)
    sloping = [each for each in planes if abs(each.a) >= 1e-9]

    def sides(y0: float, y1: float) -> tuple[float, float]:
        x0, x1 = -1e9, 1e9
        for each in sloping:
            for y in (y0, y1):
                x = (each.c - each.b * y) / each.a
                if each.a > 0:
                    x1 = min(x1, x)
                else:
                    x0 = max(x0, x)
        return x0, x1

    def worth(y0: float, y1: float) -> float:
        x0, x1 = sides(y0, y1)
        wide, tall = x1 - x0, y1 - y0
        if wide <= 0 or tall <= 0:
            return min(wide, 0.0) + min(tall, 0.0)
        return wide * tall if width_counts is None else width_counts * wide + (1 - width_counts) * tall

    def best_head(y0: float) -> float:
        return _highest(lambda y1: worth(y0, y1), y0, high)

    if high == 1e4 or low == -1e4:
        low, high = _reach(sloping, low, high)
    foot = _highest(lambda y0: worth(y0, best_head(y0)), low, high)
    head = best_head(foot)
    x0, x1 = sides(foot, head)
    return Box(x0, foot, x1, head)


def _reach(planes: Sequence[HalfPlane], low: float, high: float) -> tuple[float, float]:
    """Return the lowest and the highest level at which the region is still open, where no level side bounds it."""
    levels = [low, high]
    for at, one in enumerate(planes):
        for other in planes[at + 1 :]:
            cross = one.a * other.b - other.a * one.b
            if abs(cross) > 1e-9:
                x = (one.c * other.b - other.c * one.b) / cross
                y = (one.a * other.c - other.a * one.c) / cross
                if low - 1e-6 <= y <= high + 1e-6 and all(p.a * x + p.b * y <= p.c + 1e-6 for p in planes):
                    levels.append(y)
    inner = [each for each in levels if abs(each) < 1e4]
    return (min(inner), max(inner)) if len(inner) > 1 else (low, high)


def _highest(value: Callable[[float], float], low: float, high: float) -> float:
    """Return where a function with one top is highest between low and high, by golden section."""
    ratio = 0.6180339887498949
    a, b = low, high
    c, d = b - ratio * (b - a), a + ratio * (b - a)
    at_c, at_d = value(c), value(d)
    for _ in range(SEARCH_STEPS):
        if at_c < at_d:
            a, c, at_c = c, d, at_d
            d = a + ratio * (b - a)
            at_d = value(d)
        else:
            b, d, at_d = d, c, at_c
            c = b - ratio * (b - a)
            at_c = value(c)
        if b - a < 1e-4:
            break
    ends = [(value(each), each) for each in (low, (a + b) / 2, high)]
    return max(ends)[1]
