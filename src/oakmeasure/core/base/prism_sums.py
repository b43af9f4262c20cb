"""What is left of prisms when others are taken out of them: its volume, its middle, and its spans along a line.

Of blocks whose sides are upright and level it is exact and quick; of any other outline the areas are Shapely's.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Any

import numpy as np

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.prisms import Solid, Span, is_block

ROUND_SIDES = 48  # of the polygon that stands for a round hole; its area is the circle's
GRID = 1e-6  # mm, to which outlines are laid over one another: without it edges a hair apart lose whole areas


@dataclass(frozen=True, slots=True)
class Net:
    """What is left of some prisms."""

    volume: float
    """mm³."""
    middle: tuple[float, float, float]
    """Centre of its volume: across, up, and in from the opening face, mm; the origin where nothing is left."""


NOTHING = Net(0.0, (0.0, 0.0, 0.0))


def net(solids: Sequence[Solid], cuts: Sequence[Solid]) -> Net:
    """Return what is left of prisms once others are taken out; what two of them share counts once.

    Source: sums over the slabs between the depths at which something begins or ends.

    Args:
        solids: What there is, mm.
        cuts: What is taken out, mm.

    >>> round(net([Solid(((0, 0), (4, 0), (4, 3), (0, 3)), (0, 2))], []).volume, 6)
    24.0
    """
    if all(map(is_block, solids)) and all(map(is_block, cuts)):
        return _of_blocks(solids, cuts)
    return _of_slabs(solids, cuts)


def _of_blocks(solids: Sequence[Solid], cuts: Sequence[Solid]) -> Net:
    if len(solids) == 1 and not cuts:
        (x0, y0, x1, y1), (z0, z1) = solids[0].box, solids[0].depth
        return Net((x1 - x0) * (y1 - y0) * (z1 - z0), ((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2))
    corners = np.array([(*each.box, *each.depth) for each in (*solids, *cuts)], dtype=float)
    axes = [np.unique(corners[:, pair]) for pair in ([0, 2], [1, 3], [4, 5])]
    places = [
        np.searchsorted(axis, corners[:, pair]) for axis, pair in zip(axes, ([0, 2], [1, 3], [4, 5]), strict=True)
    ]
    filled = np.zeros(tuple(len(axis) - 1 for axis in axes), dtype=bool)
    for at in range(len(corners)):
        where = tuple(slice(*place[at]) for place in places)
        filled[where] = at < len(solids)
    sizes = [np.diff(axis) for axis in axes]
    middles = [(axis[:-1] + axis[1:]) / 2 for axis in axes]
    cells = filled * sizes[0][:, None, None] * sizes[1][None, :, None] * sizes[2][None, None, :]
    volume = float(cells.sum())
    if volume <= 0:
        return NOTHING
    x, y, z = (
        float((cells.sum(axis=tuple(other for other in range(3) if other != at)) * middles[at]).sum()) / volume
        for at in range(3)
    )
    return Net(volume, (x, y, z))


def _of_slabs(solids: Sequence[Solid], cuts: Sequence[Solid]) -> Net:
    import shapely  # here, so that a start with square leaves alone does not pay for it

    depths = sorted({depth for each in (*solids, *cuts) for depth in each.depth})
    volume = x = y = z = 0.0
    known: dict[tuple[int, ...], tuple[float, float, float]] = {}
    for z0, z1 in pairwise(depths):
        middle = (z0 + z1) / 2
        here = [at for at, each in enumerate((*solids, *cuts)) if each.depth[0] < middle < each.depth[1]]
        if not here or here[0] >= len(solids):
            continue
        key = tuple(here)
        if key not in known:
            there = [solids[at] for at in here if at < len(solids)]
            whole = _together(there)
            out = [cuts[at - len(solids)] for at in here if at >= len(solids)]
            out = [each for each in out if any(_touch(each, one) for one in there)]
            left = shapely.difference(whole, _together(out), grid_size=GRID) if out else whole
            at = shapely.centroid(left)
            known[key] = (float(left.area), float(at.x), float(at.y)) if left.area else (0.0, 0.0, 0.0)
        size, cx, cy = known[key]
        part = size * (z1 - z0)
        volume, x, y, z = volume + part, x + part * cx, y + part * cy, z + part * middle
    return Net(volume, (x / volume, y / volume, z / volume)) if volume > 0 else NOTHING


def _touch(one: Solid, other: Solid) -> bool:
    a, b = one.box, other.box
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


def _together(solids: Sequence[Solid]) -> Any:
    import shapely

    return flat(solids[0]) if len(solids) == 1 else shapely.union_all([flat(each) for each in solids], grid_size=GRID)


@lru_cache(maxsize=512)
def flat(solid: Solid) -> Any:
    """Return a prism's outline on the face as a Shapely polygon; of a round hole one with the circle's area.

    Args:
        solid: The prism.
    """
    import shapely

    made = shapely.Polygon(corners_of(solid))
    if made.is_valid:
        return made
    areas = [each for each in shapely.get_parts(shapely.make_valid(made)) if each.area > 0]
    return shapely.union_all(areas, grid_size=GRID)  # without the lines that corners on one another leave


@lru_cache(maxsize=4)
def round_of(sides: int) -> tuple[Point, ...]:
    """Return a polygon of the unit circle's area about its middle.

    Args:
        sides: How many sides it has.
    """
    out = math.sqrt(2 * math.pi / (sides * math.sin(2 * math.pi / sides)))
    turns = [2 * math.pi * at / sides for at in range(sides)]
    return tuple((out * math.cos(turn), out * math.sin(turn)) for turn in turns)


def corners_of(solid: Solid) -> tuple[Point, ...]:
    """Return the corners of a prism's outline: of a bore a polygon of its area, of a rod in the plane its oblong.

    Args:
        solid: The prism.
    """
    points, r = solid.points, solid.radius
    if len(points) == 1:
        ((x, y),) = points
        return tuple((x + r * a, y + r * b) for a, b in round_of(ROUND_SIDES))
    if len(points) == 2:
        (ax, ay), (bx, by) = points
        long = math.hypot(bx - ax, by - ay) or 1.0
        nx, ny = -(by - ay) / long * r, (bx - ax) / long * r
        return (ax - nx, ay - ny), (bx - nx, by - ny), (bx + nx, by + ny), (ax + nx, ay + ny)
    return points


def holds(solid: Solid, x: float, y: float) -> bool:
    """Return whether a place of the face lies in a prism's outline.

    Args:
        solid: The prism.
        x: Across, mm.
        y: Up, mm.
    """
    x0, y0, x1, y1 = solid.box
    if not (x0 <= x <= x1 and y0 <= y <= y1):
        return False
    return is_block(solid) or inside(corners_of(solid), x, y)


def inside(corners: Sequence[Point], x: float, y: float) -> bool:
    """Return whether a place lies in a polygon.

    Args:
        corners: Its corners in order, mm.
        x: Across, mm.
        y: Up, mm.

    >>> inside([(0, 0), (4, 0), (0, 4)], 1, 1), inside([(0, 0), (4, 0), (0, 4)], 3, 3)
    (True, False)
    """
    is_inside = False
    for (ax, ay), (bx, by) in zip(corners, (*corners[1:], corners[0]), strict=True):
        if (ay > y) != (by > y) and x < ax + (bx - ax) * (y - ay) / (by - ay):
            is_inside = not is_inside
    return is_inside


def less(spans: Iterable[Span], cuts: Iterable[Span]) -> list[Span]:
    """Return what of spans is left when others are taken out, in order, those that touch as one.

    Args:
        spans: What there is, mm.
        cuts: What is taken out, mm.

    >>> less([(0, 10), (10, 12)], [(3, 4)])
    [(0, 3), (4, 12)]
    """
    left: list[Span] = []
    for a, b in sorted(each for each in spans if each[1] - each[0] > 1e-9):
        if left and a <= left[-1][1] + 1e-9:
            left[-1] = (left[-1][0], max(left[-1][1], b))
        else:
            left.append((a, b))
    for c, d in cuts:
        left = (
            [(low, high) for a, b in left for low, high in ((a, min(b, c)), (max(a, d), b)) if high - low > 1e-9]
            if d > c
            else left
        )
    return left


def crossed(solid: Solid, at: float, *, upright: bool) -> list[Span]:
    """Return where a straight line over the face lies in a prism's outline: spans up it, or across it; mm.

    Args:
        solid: The prism.
        at: Where the line stands across, or how far up it lies, mm.
        upright: Whether the line is upright.
    """
    x0, y0, x1, y1 = solid.box
    if not (x0 < at < x1 if upright else y0 < at < y1):
        return []
    if is_block(solid):
        return [(y0, y1)] if upright else [(x0, x1)]
    corners = corners_of(solid)
    met = []
    for a, b in zip(corners, (*corners[1:], corners[0]), strict=True):
        (ap, aq), (bp, bq) = (a, b) if upright else (a[::-1], b[::-1])
        if (ap > at) != (bp > at):
            met.append(aq + (bq - aq) * (at - ap) / (bp - ap))
    met.sort()
    return list(zip(met[::2], met[1::2], strict=False))
