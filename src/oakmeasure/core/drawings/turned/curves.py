"""A leaf's prisms as a picture needs them: curves of no more short lines than the eye tells apart."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid
from oakmeasure.core.body.pieces import Body

OFF = 0.4  # mm that a line may lie beside the curve that it stands for
SMOOTH = math.cos(math.radians(8))  # sides that meet flatter than this are a curve's
CURVED_FROM = 12  # corners of an outline that may hold a curve

Prisms = tuple[tuple[Solid, ...], tuple[Solid, ...]]


def drawn_prisms(body: Body, off: float = OFF) -> list[Prisms]:
    """Return each piece's prisms and what is cut out of it, with fewer corners on their curves.

    Where two pieces meet along a curve both keep the same corners of it: else they would reach into one another.

    Args:
        body: The leaf's body.
        off: How far a line may lie beside the curve that it stands for, mm.
    """
    kept: dict[Point, bool] = {}
    return [
        (
            tuple(_fewer(each, kept, off) for each in piece.solids),
            tuple(_fewer(each.solid, kept, off) for each in piece.cuts),
        )
        for piece in body.pieces
    ]


def _fewer(solid: Solid, kept: dict[Point, bool], off: float) -> Solid:
    """Return a prism with the corners that are kept; `kept` learns of those that it did not know."""
    points = solid.points
    if len(points) < CURVED_FROM:
        return solid
    found = tuple(_kept_of(points, kept, off))
    return replace(solid, points=found) if 2 < len(found) < len(points) else solid


def _kept_of(points: Sequence[Point], kept: dict[Point, bool], off: float) -> Iterator[Point]:
    """Yield the corners of an outline that are kept, its first corner that is none of a curve first."""
    count = len(points)
    bends = [not _is_smooth(points[at - 1], points[at], points[(at + 1) % count]) for at in range(count)]
    first = bends.index(True) if any(bends) else 0
    start, between = points[first], list[Point]()
    yield start
    for step in range(1, count):
        at = (first + step) % count
        point, after = points[at], points[(at + 1) % count]
        key = (round(point[0], 2), round(point[1], 2))
        if bends[at] or kept.get(key, _lies_off(start, [*between, point], after, off)):
            kept[key] = True
            yield point
            start, between = point, []
        else:
            kept[key] = False
            between.append(point)


def _is_smooth(a: Point, b: Point, c: Point) -> bool:
    ux, uy, vx, vy = b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]
    return ux * vx + uy * vy > SMOOTH * math.hypot(ux, uy) * math.hypot(vx, vy)


def _lies_off(start: Point, between: Sequence[Point], end: Point, off: float) -> bool:
    """Return whether one of the corners between two lies too far beside the line from the one to the other."""
    ux, uy = end[0] - start[0], end[1] - start[1]
    most = off * math.hypot(ux, uy)
    return any(abs(ux * (y - start[1]) - uy * (x - start[0])) > most for x, y in between)
