"""Plane geometry that more than one room needs: areas, middles, and what lies on one side of a line."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import pairwise

Point = tuple[float, float]


def signed_area(corners: Sequence[Point]) -> float:
    """Return the area inside corners, mm²: positive where they go round anticlockwise.

    Source: Gauss's trapezia.

    Args:
        corners: Corners, anticlockwise, mm.

    >>> signed_area([(0, 0), (4, 0), (4, 3), (0, 3)])
    12.0
    """
    after = [*corners[1:], corners[0]]
    return sum(ax * by - bx * ay for (ax, ay), (bx, by) in zip(corners, after, strict=True)) / 2


def area(corners: Sequence[Point]) -> float:
    """Return the area of a polygon, mm², whichever way its corners go round.

    Args:
        corners: Corners, anticlockwise, mm.
    """
    return abs(signed_area(corners))


def centroid(corners: Sequence[Point]) -> Point:
    """Return the middle of a polygon's area.

    Args:
        corners: Corners, anticlockwise, mm.

    Raises:
        nothing: One without area gives the mean of its corners.

    >>> centroid([(0, 0), (6, 0), (0, 3)])
    (2.0, 1.0)
    """
    twice = x = y = 0.0
    for (ax, ay), (bx, by) in zip(corners, [*corners[1:], corners[0]], strict=True):
        cross = ax * by - bx * ay
        twice, x, y = twice + cross, x + (ax + bx) * cross, y + (ay + by) * cross
    if abs(twice) < 1e-9:
        return sum(each for each, _ in corners) / len(corners), sum(each for _, each in corners) / len(corners)
    return x / (3 * twice), y / (3 * twice)


def half_plane_part(corners: Sequence[Point], off: Callable[[Point], float]) -> list[Point]:
    """Return what of a polygon lies where `off` is not more than 0; [] where nothing does.

    Source: one step of Sutherland and Hodgman's clipping.

    Args:
        corners: Corners, anticlockwise, mm.
        off: How far a point lies beyond a straight line, in any measure that grows evenly.

    >>> half_plane_part([(0, 0), (4, 0), (4, 4), (0, 4)], lambda point: point[0] - 3)
    [(0, 0), (3.0, 0.0), (3.0, 4.0), (0, 4)]
    """
    found: list[Point] = []
    for at, point in enumerate(corners):
        before = corners[at - 1]
        here, was = off(point), off(before)
        if (here > 0) != (was > 0):
            share = was / (was - here)
            found.append((before[0] + share * (point[0] - before[0]), before[1] + share * (point[1] - before[1])))
        if here <= 0:
            found.append(point)
    return found


def left_of(start: Point, end: Point) -> Callable[[Point], float]:
    """Return how far to the left of the line from start to end a point lies, times the line's length.

    Args:
        start: Where it begins, mm.
        end: Where it ends, mm.
    """

    def off(point: Point) -> float:
        return (end[0] - start[0]) * (point[1] - start[1]) - (end[1] - start[1]) * (point[0] - start[0])

    return off


def clipped(shape: Sequence[Point], outline: Sequence[Point]) -> tuple[Point, ...]:
    """Return what of a shape lies inside a convex outline that goes round anticlockwise.

    Source: Sutherland, Hodgman.

    Args:
        shape: Corners of the shape, mm.
        outline: Corners of the leaf's outline, anticlockwise, mm.

    >>> clipped([(0, 0), (4, 0), (4, 4), (0, 4)], [(1, 1), (3, 1), (3, 3), (1, 3)])
    ((1.0, 3.0), (1.0, 1.0), (3.0, 1.0), (3.0, 3.0))
    """
    points = [(float(x), float(y)) for x, y in shape]
    for at, corner in enumerate(outline):
        points = half_plane_part(points, left_of(outline[(at + 1) % len(outline)], corner))
        if not points:
            return ()
    return tuple(points)


def field_grown(corners: Sequence[Point], aside: float, along: float) -> tuple[Point, ...]:
    """Return a field made larger all round: its sides are upright, its foot is level, its head may run as it likes.

    The head moves square to itself and goes on as straight beyond its ends. Source: lines parallel to its own.

    Args:
        corners: Corners of the field, anticlockwise, mm.
        aside: How far each side moves out, mm; less than 0: in.
        along: How far foot and head move out, mm; less than 0: in.

    >>> field_grown([(0, 0), (10, 0), (10, 20), (0, 20)], 1, 2)
    ((-1, -2), (11, -2), (11, 22.0), (-1, 22.0))
    """
    x0, x1, y0 = min(x for x, _ in corners), max(x for x, _ in corners), min(y for _, y in corners)
    if aside < 0:  # its sides move in: they cut the head off where it then ends
        high = max(y for _, y in corners) + abs(along) + 1.0
        left, right = x0 - aside, x1 + aside
        frame = ((left, y0 - along), (right, y0 - along), (right, high), (left, high))
        return clipped(field_grown(corners, 0.0, along), frame)
    head = sorted((x, y) for x, y in corners if y > y0 + 1e-9)
    if len(head) < 2 or head[-1][0] - head[0][0] < 1e-9:
        return tuple(corners)
    lines = []
    for (ax, ay), (bx, by) in pairwise(head):
        if bx - ax > 1e-9:
            slope = (by - ay) / (bx - ax)
            lines.append((slope, ay - slope * ax + along * math.hypot(1.0, slope), bx))
    xs = [x0 - aside]
    for (slope, up, end), (after, rises, _) in pairwise(lines):
        xs.append(end if abs(slope - after) < 1e-9 else (rises - up) / (slope - after))
    above = [(x, slope * x + up) for x, (slope, up, _) in zip(xs, lines, strict=True)]
    right = x1 + aside
    above.append((right, lines[-1][0] * right + lines[-1][1]))
    return (x0 - aside, y0 - along), (right, y0 - along), *reversed(above)


def circle(x: float, y: float, radius: float, *, steps: int = 24) -> list[Point]:
    """Return a circle as a closed line of so many straight pieces.

    Args:
        x: Of the centre, across, mm.
        y: Of the centre, up, mm.
        radius: Radius, mm.
        steps: In how many straight pieces a curve is drawn.

    >>> [(round(a), round(b)) for a, b in circle(0, 0, 5, steps=4)]
    [(5, 0), (0, 5), (-5, 0), (0, -5), (5, 0)]
    """
    turns = [2 * math.pi * at / steps for at in range(steps + 1)]
    return [(x + radius * math.cos(turn), y + radius * math.sin(turn)) for turn in turns]
