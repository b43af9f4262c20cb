"""Segmental arches: the points of one, what lies under it, how high it stands at a place."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from oakmeasure.core.base.arcs import segmental_radius
from oakmeasure.core.base.geometry import Point, area

STEPS = 48  # straight pieces that an arch is drawn and cut as; 0.05 off the circle at the most, 900 wide


def height_at(*, span: float, rise: float, across: float) -> float:
    """Return how high a segment stands over its springing line, mm, `across` from its one end.

    Source: the circle through both ends and the crown.

    Args:
        span: From springing to springing, mm.
        rise: Height of the crown over the springing, mm.
        across: From one end of the span, mm.

    >>> height_at(span=1200.0, rise=200.0, across=600.0)
    200.0
    """
    radius = segmental_radius(span=span, rise=rise)
    off = across - span / 2
    return math.sqrt(max(radius * radius - off * off, 0.0)) - (radius - rise)


def arch_points(*, x0: float, x1: float, springing: float, rise: float) -> tuple[Point, ...]:
    """Return points along a segment from (x0, springing) over its crown to (x1, springing).

    Args:
        x0: Where it begins, across, mm.
        x1: Where it ends, across, mm.
        springing: Height of the springing line, mm.
        rise: Height of the crown over the springing, mm.
    """
    span = x1 - x0
    return tuple(
        (x0 + span * at / STEPS, springing + height_at(span=span, rise=rise, across=span * at / STEPS))
        for at in range(STEPS + 1)
    )


def segment_area(points: Sequence[Point]) -> float:
    """Return the area between an arch and its springing line, mm²; 0 for no points.

    Args:
        points: Points, mm.
    """
    return area(points) if points else 0.0


def under(points: Sequence[Point], x0: float, x1: float) -> list[Point]:
    """Return the arch between two places, from the right one to the left one, both ends worked in.

    Args:
        points: Points, mm.
        x0: Where it begins, across, mm.
        x1: Where it ends, across, mm.
    """

    def at(x: float) -> Point:
        for (ax, ay), (bx, by) in pairwise(points):
            if ax <= x <= bx:
                return x, ay + (by - ay) * (x - ax) / (bx - ax)
        return x, points[0][1]

    inner = [each for each in points if x0 < each[0] < x1]
    return [at(x1), *reversed(inner), at(x0)]
