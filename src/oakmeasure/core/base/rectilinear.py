"""The outline of rectangles that lie side by side: one ring about each patch, one about each hole in it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from itertools import pairwise

from oakmeasure.core.base.geometry import Point, signed_area

Box = tuple[float, float, float, float]
DIGITS = 4  # of mm, to which two sides are the same line
_Edge = tuple[Point, Point]


def rings_of(boxes: Sequence[Box]) -> list[list[Point]]:
    """Return the rings about rectangles that do not overlap: those about wood anticlockwise, the larger first.

    Args:
        boxes: Least x and y, most x and y of each, mm.

    >>> [len(ring) for ring in rings_of([(0, 0, 2, 1), (0, 1, 1, 2)])]
    [6]
    """
    edges = list(_outer(boxes))
    starts: dict[Point, list[Point]] = defaultdict(list)
    for a, b in edges:
        starts[a].append(b)
    rings = []
    while starts:
        first = next(iter(starts))
        ring = [first]
        at = _after(starts, first, None)
        while at != first:
            ring.append(at)
            at = _after(starts, at, ring[-2])
        rings.append(_corners(ring))
    return sorted(rings, key=lambda ring: -signed_area(ring))


def _outer(boxes: Sequence[Box]) -> Iterator[_Edge]:
    """Yield what of the sides of rectangles is no side of another one, each with the wood on its left."""
    upright: dict[float, list[tuple[float, float, int]]] = defaultdict(list)
    level: dict[float, list[tuple[float, float, int]]] = defaultdict(list)
    for box in boxes:
        x0, y0, x1, y1 = (round(each, DIGITS) for each in box)
        if x0 < x1 and y0 < y1:
            upright[x1].append((y0, y1, 1))
            upright[x0].append((y0, y1, -1))
            level[y0].append((x0, x1, 1))
            level[y1].append((x0, x1, -1))
    for x, sides in upright.items():
        for a, b in _left_over(sides):
            yield (x, a), (x, b)
    for y, sides in level.items():
        for a, b in _left_over(sides):
            yield (a, y), (b, y)


def _left_over(sides: Sequence[tuple[float, float, int]]) -> Iterator[tuple[float, float]]:
    """Yield the stretches of a line on which only one side runs, in the direction in which it does."""
    ends = sorted({end for low, high, _ in sides for end in (low, high)})
    for low, high in pairwise(ends):
        way = sum(each for a, b, each in sides if a <= low and b >= high)
        if way:
            yield (low, high) if way > 0 else (high, low)


def _after(starts: dict[Point, list[Point]], at: Point, before: Point | None) -> Point:
    """Return where the ring goes on; where two patches touch at a corner it turns left, so that each has its own."""
    ways = starts[at]
    if before is not None and len(ways) > 1:
        dx, dy = at[0] - before[0], at[1] - before[1]
        ways.sort(key=lambda to: dx * (to[1] - at[1]) - dy * (to[0] - at[0]))
    found = ways.pop()
    if not ways:
        del starts[at]
    return found


def _corners(ring: Sequence[Point]) -> list[Point]:
    """Return a ring without the points at which it goes straight on."""
    return [
        b
        for a, b, c in zip((ring[-1], *ring[:-1]), ring, (*ring[1:], ring[0]), strict=True)
        if (a[0] == b[0]) is not (b[0] == c[0])
    ]
