"""In which order convex cells are painted so that what is nearer hides what is further, seen from far away.

Cells are set apart by planes, again and again, until each is alone; a cell that no plane spares is cut in two. Seen
from afar the order at each plane follows from its direction alone: one tree serves every side.
Source: binary space partition, with whole cells at its ends.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np

from oakmeasure.core.base.convex_cells import HAIR, Cell, Facet, Point3, Segment
from oakmeasure.core.base.geometry import Point

Box3 = tuple[Point3, Point3]
AXES: tuple[Point3, ...] = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
LEAST_SIDE = 1e-3  # mm by which a cell must stand out on a side of a plane to lie there
TINY = 1e-9
CUT_COSTS = 8  # cells out of balance that one cell more to paint is worth


@dataclass(frozen=True, slots=True)
class Item:
    """Cells that move together: a piece, or one cell of it."""

    of: int
    """Number of the piece."""
    cells: tuple[Cell, ...]
    """Its cells, where the piece lies in the leaf, mm."""
    offset: Point3
    """How far it is moved from there, mm."""

    @property
    def box(self) -> Box3:
        """The block about it where it is moved to: its least corner and its most, mm."""
        x, y, z = self.offset
        (x0, y0, z0), (x1, y1, z1) = self.cells[0].box
        for cell in self.cells[1:]:
            (a0, b0, c0), (a1, b1, c1) = cell.box
            x0, y0, z0 = min(x0, a0), min(y0, b0), min(z0, c0)
            x1, y1, z1 = max(x1, a1), max(y1, b1), max(z1, c1)
        return (x0 + x, y0 + y, z0 + z), (x1 + x, y1 + y, z1 + z)


@dataclass(frozen=True, slots=True)
class Apart:
    """Items that planes of one direction set apart."""

    normal: Point3
    """Direction of the planes."""
    parts: tuple[Tree, ...]
    """What lies between them, in that direction."""


Tree = Item | Apart


def tree_of(items: Sequence[Item]) -> Tree | None:
    """Return items set apart by planes; None of none.

    Args:
        items: The pieces; where two share room, one of them is shown there.
    """
    kept = [each for each in items if each.cells]
    return _apart([(each, each.box) for each in kept]) if kept else None


def far_to_near(tree: Tree, away: Point3) -> Iterator[Item]:
    """Yield the cells of a tree in the order in which they are painted.

    Args:
        tree: The tree.
        away: The direction in which one looks.
    """
    if isinstance(tree, Item):
        yield tree
        return
    towards = sum(a * b for a, b in zip(tree.normal, away, strict=True)) > 0
    for each in reversed(tree.parts) if towards else tree.parts:
        yield from far_to_near(each, away)


def normals_of(tree: Tree) -> set[Point3]:
    """Return the directions of all planes of a tree.

    Args:
        tree: The tree.
    """
    if isinstance(tree, Item):
        return set()
    return {tree.normal}.union(*(normals_of(each) for each in tree.parts))


_Boxed = tuple[Item, Box3]


def _apart(items: list[_Boxed]) -> Tree:
    if len(items) == 1 and len(items[0][0].cells) == 1:
        return items[0][0]
    if len(items) > 1:
        groups = min((_along_axis(items, axis) for axis in range(3)), key=lambda found: max(map(len, found[1])))
        if len(groups[1]) > 1:
            return Apart(AXES[groups[0]], tuple(_apart(each) for each in groups[1]))
    if any(len(each.cells) > 1 for each, _ in items):
        return _apart([(one, one.box) for each, _ in items for one in _opened(each)])
    return _by_plane([each for each, _ in items])


def _opened(item: Item) -> list[Item]:
    return [Item(item.of, (cell,), item.offset) for cell in item.cells]


def _along_axis(items: list[_Boxed], axis: int) -> tuple[int, list[list[_Boxed]]]:
    """Return the items in groups that planes square to an axis set apart."""
    in_order = sorted(items, key=lambda each: each[1][0][axis])
    groups = [[in_order[0]]]
    end = in_order[0][1][1][axis]
    for each in in_order[1:]:
        low, high = each[1][0][axis], each[1][1][axis]
        if low >= end - HAIR:
            groups.append([each])
        else:
            groups[-1].append(each)
        end = max(end, high)
    return axis, groups


# --- planes that cut ----------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class _Plane:
    """Where `normal` times a place is `at`; level with the face, or square to it."""

    normal: Point3
    at: float


def _by_plane(items: list[Item]) -> Tree:
    """Set single cells apart by the plane of one of their sides that cuts the fewest of them."""
    planes, least, most = _reaches(items)
    under, over = most <= LEAST_SIDE, least >= -LEAST_SIDE  # by plane and cell
    below, above = under.sum(axis=1), over.sum(axis=1)
    cut = len(items) - below - above
    cost = np.where((cut > 0) | ((below > 0) & (above > 0)), CUT_COSTS * cut + abs(below - above), np.inf)
    at = int(cost.argmin())
    if not np.isfinite(cost[at]):
        return max(items, key=lambda each: each.of)  # all of them the same
    plane = planes[at]
    low: list[Item] = []
    high: list[Item] = []
    for each, is_under, is_over in zip(items, under[at], over[at], strict=True):
        if is_under:
            low.append(each)
        elif is_over:
            high.append(each)
        else:
            low.append(Item(each.of, (_side(each, plane, -1.0),), each.offset))
            high.append(Item(each.of, (_side(each, plane, 1.0),), each.offset))
    parts = tuple(_apart([(each, each.box) for each in side]) for side in (low, high) if side)
    return Apart(plane.normal, parts)


def _reaches(items: list[Item]) -> tuple[list[_Plane], Any, Any]:
    """Return the planes of all sides, each once, and by plane and cell how far that reaches to either side of it."""
    starts: list[Point] = []
    ends: list[Point] = []
    firsts: list[int] = []
    for each in items:
        (cell,), (ox, oy, _) = each.cells, each.offset
        firsts.append(len(starts))
        moved = [(x + ox, y + oy) for x, y in cell.outline]
        starts += moved
        ends += [*moved[1:], moved[0]]
    depths = np.array([[z + each.offset[2] for z in each.cells[0].depth] for each in items])
    levels = np.unique(depths.round(3))
    points = np.array(starts)
    ways = np.array(ends) - points
    long = np.hypot(ways[:, 0], ways[:, 1])
    is_side = long > HAIR
    normals = np.column_stack([ways[is_side, 1], -ways[is_side, 0]]) / long[is_side, None]
    back = (normals[:, 0] < -TINY) | ((abs(normals[:, 0]) <= TINY) & (normals[:, 1] < 0))
    normals[back] *= -1
    places = (normals * points[is_side]).sum(axis=1)
    _, once = np.unique(np.column_stack([normals.round(5), places.round(3)]), axis=0, return_index=True)
    normals, places = normals[once] + 0.0, places[once]
    upright = normals @ points.T
    low = np.vstack([np.tile(depths[:, 0], (len(levels), 1)), np.minimum.reduceat(upright, firsts, axis=1)])
    high = np.vstack([np.tile(depths[:, 1], (len(levels), 1)), np.maximum.reduceat(upright, firsts, axis=1)])
    ats = np.concatenate([levels, places])[:, None]
    planes = [_Plane(AXES[2], at) for at in levels.tolist()]
    planes += [_Plane((nx, ny, 0.0), at) for (nx, ny), at in zip(normals.tolist(), places.tolist(), strict=True)]
    return planes, low - ats, high - ats


def _side(item: Item, plane: _Plane, side: float) -> Cell:
    """Return the part of a cell on one side of a plane; where it is cut it has no face: the other part is there."""
    (cell,), (ox, oy, oz) = item.cells, item.offset
    nx, ny, nz = plane.normal
    at = plane.at - nx * ox - ny * oy - nz * oz

    def off(point: Point3) -> float:
        return side * (nx * point[0] + ny * point[1] + nz * point[2] - at)

    outline, (z0, z1) = cell.outline, cell.depth
    if nz:
        z0, z1 = (z0, min(z1, at)) if side < 0 else (max(z0, at), z1)
    else:
        outline = _flat_part(outline, off)
    faces = (_part_of(each, off) for each in cell.faces)
    return Cell(outline, (z0, z1), tuple(each for each in faces if len(each.corners) > 2))


def _flat_part(outline: Sequence[Point], off: Callable[[Point3], float]) -> tuple[Point, ...]:
    return tuple((x, y) for x, y, _ in _clipped([(x, y, 0.0) for x, y in outline], off))


def _part_of(face: Facet, off: Callable[[Point3], float]) -> Facet:
    edges = (_piece(each, off) for each in face.edges)
    return Facet(tuple(_clipped(face.corners, off)), face.normal, tuple(each for each in edges if each is not None))


def _clipped(corners: Sequence[Point3], off: Callable[[Point3], float]) -> list[Point3]:
    """Return what of a flat convex polygon lies where `off` is not less than 0."""
    kept: list[Point3] = []
    for a, b in pairwise((*corners, corners[0])):
        one, other = off(a), off(b)
        if one >= 0:
            kept.append(a)
        if (one > 0 > other) or (one < 0 < other):
            kept.append(_between(a, b, one / (one - other)))
    return kept if any(off(each) > HAIR for each in kept) else []


def _piece(edge: Segment, off: Callable[[Point3], float]) -> Segment | None:
    (a, b), one, other = edge, off(edge[0]), off(edge[1])
    if max(one, other) <= HAIR:
        return None if min(one, other) < -HAIR or max(one, other) < -HAIR else edge
    if one < 0:
        a = _between(a, b, one / (one - other))
    elif other < 0:
        b = _between(a, b, one / (one - other))
    return a, b


def _between(a: Point3, b: Point3, share: float) -> Point3:
    x, y, z = (p + (q - p) * share for p, q in zip(a, b, strict=True))
    return x, y, z
