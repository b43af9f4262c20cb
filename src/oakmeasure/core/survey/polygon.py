"""An opening of 3 to 8 straight sides, from lengths between its corners, and a level where there is one.

Corners are numbered from 1, the hinge side's foot, along the floor and round anticlockwise. A reading's key is
"2-4" for the length from corner 2 to corner 4, FLOOR_RISE or LEAN_HINGE for a reading by the level.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from itertools import combinations

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import Matrix
from oakmeasure.core.survey.adjust import (
    SILL_SIGMA,
    Adjustment,
    Assumption,
    Network,
    Observed,
    TooFewError,
    adjust_network,
)

FLOOR_RISE = "floor_rise"
LEAN_HINGE = "lean_hinge"


def span_key(start: int, end: int) -> str:
    """Return the key of the length between two corners, whichever is named first.

    Args:
        start: Number of the corner that it starts at, from 0.
        end: Number of the corner that it ends at, from 0.
    """
    return f"{min(start, end)}-{max(start, end)}"


def _ends(key: str) -> tuple[int, int]:
    start, _, end = key.partition("-")
    return int(start), int(end)


def network(corners: int, *, has_level: bool) -> Network[str]:
    """Return everything that can be read on a polygon of so many corners.

    Args:
        corners: How many corners it has.
        has_level: Whether there is a level, so that sides may lean.
    """
    unknowns = 2 * (corners - 1)

    def row(corner: int, axis: int) -> list[float]:
        return [float(at == 2 * (corner - 2) + axis) for at in range(unknowns)]

    def apart(start: int, end: int) -> Matrix:
        return [[b - a for a, b in zip(row(start, axis), row(end, axis), strict=True)] for axis in (0, 1)]

    matrices: dict[str, Matrix] = {span_key(a, b): apart(a, b) for a, b in combinations(range(1, corners + 1), 2)}
    matrices[FLOOR_RISE] = [row(2, 1)]
    matrices[LEAN_HINGE] = [row(corners, 0)]
    level = Assumption("the floor is level", tuple(row(2, 1)), SILL_SIGMA)
    return Network(matrices, () if has_level else (level,))


def adjust_polygon(corners: int, readings: Mapping[str, Observed]) -> Adjustment[str]:
    """Return the polygon that fits the readings best, each reading judged.

    Source: as `adjust`.

    Args:
        corners: How many corners it has.
        readings: Mm, by key.

    Raises:
        InputError: Where they fix no shape (it names a diagonal that would), or none that closes.
    """
    has_level = FLOOR_RISE in readings or LEAN_HINGE in readings
    net = network(corners, has_level=has_level)
    try:
        return adjust_network(net, readings, lambda used: laid_out(corners, used))
    except TooFewError:
        raise InputError("polygon", "too few", f"one more length: {missing(corners, readings)}") from None


def missing(corners: int, readings: Mapping[str, Observed]) -> str:
    """Return, in words, a length that would help to fix the shape: a side that was not read, or a diagonal.

    Args:
        corners: How many corners it has.
        readings: What was read, by its name.
    """
    for start in range(1, corners + 1):
        end = start % corners + 1
        if span_key(start, end) not in readings:
            return f"the side from corner {start} to corner {end}"
    for end in (*range(3, corners), *(each for each in range(1, corners + 1))):
        for start in range(1, corners + 1):
            if start != end and span_key(start, end) not in readings:
                return f"the diagonal from corner {min(start, end)} to corner {max(start, end)}"
    return "none is left to take; look for a misread"


def laid_out(corners: int, readings: Mapping[str, Observed]) -> list[float]:
    """Return coordinates of corners 2, 3 … found one after the other from two lengths each, as on the bench.

    Corners are taken to lie outside of one another (a convex opening); the adjustment mends what is not quite
    so.

    Args:
        corners: How many corners it has.
        readings: What was read, by its name.
    """
    lengths = {key: each.value for key, each in readings.items() if "-" in key}
    if not lengths:
        raise InputError("polygon", "nothing", "the lengths of its sides")
    first = span_key(1, 2) if span_key(1, 2) in lengths else next(iter(lengths))
    a, b = _ends(first)
    placed: dict[int, Point] = {a: (0.0, 0.0), b: (lengths[first], 0.0)}
    while len(placed) < corners:
        found = _next_corner(corners, placed, lengths)
        if found is None:
            raise TooFewError("polygon")
        placed[found[0]] = found[1]
    (ox, oy), (px, py) = placed[1], placed[2]
    turn = math.hypot(px - ox, py - oy)
    ux, uy = (px - ox) / turn, (py - oy) / turn
    moved = [(placed[at][0] - ox, placed[at][1] - oy) for at in range(2, corners + 1)]
    return [each for x, y in moved for each in (x * ux + y * uy, -x * uy + y * ux)]


def _next_corner(corners: int, placed: dict[int, Point], lengths: Mapping[str, float]) -> tuple[int, Point] | None:
    for corner in range(1, corners + 1):
        known = [each for each in placed if span_key(each, corner) in lengths]
        if corner in placed or len(known) < 2:
            continue
        one, other = max(combinations(sorted(known), 2), key=lambda pair: math.dist(placed[pair[0]], placed[pair[1]]))
        radii = (lengths[span_key(one, corner)], lengths[span_key(other, corner)])
        left = one < corner < other  # going round anticlockwise, a corner between the two lies to their right
        return corner, _from_two(placed[one], placed[other], radii, -1.0 if left else 1.0)
    return None


def _from_two(a: Point, b: Point, radii: Sequence[float], side: float) -> Point:
    """Return the point at two distances from a and b, left of a→b for side 1; where they do not meet, on the line."""
    apart = math.dist(a, b)
    along = (radii[0] ** 2 - radii[1] ** 2 + apart**2) / (2 * apart)
    away = side * math.sqrt(max(radii[0] ** 2 - along**2, 0.0))
    ux, uy = (b[0] - a[0]) / apart, (b[1] - a[1]) / apart
    return a[0] + along * ux - away * uy, a[1] + along * uy + away * ux
