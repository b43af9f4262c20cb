"""Which sides of a leaf's pieces lie on one another: nobody sees them, wherever he stands."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from oakmeasure.core.base.convex_cells import HAIR, Facet, rectangles_left
from oakmeasure.core.base.painters_order import Item

IN_PLANE = np.array([(1, 2), (0, 2), (0, 1)])  # the two axes of a plane square to each axis
SQUARE, FULL, TOGETHER = 0.9999, 0.9999, 0.999


@dataclass(frozen=True, slots=True)
class _Flat:
    """All sides where they are moved to, each seen along its normal; a row for each."""

    boxes: Any
    """From and to one way, from and to the other, of the upright rectangle about it, mm."""
    sizes: Any
    """Its area, mm²."""
    is_rectangle: Any
    """Whether it fills the rectangle about it."""
    planes: dict[tuple[int, float], tuple[list[int], list[int]]]
    """By axis and place the sides that face down that axis, and those that face up it."""


def covered_sides(items: Sequence[Item]) -> frozenset[tuple[int, int]]:
    """Return the sides that lie wholly on sides of other pieces, as the piece's number and the side's id.

    Args:
        items: The pieces where they are moved to.
    """
    sides = [(item, facet) for item in items for cell in item.cells for facet in cell.faces]
    if not sides:
        return frozenset()
    flat = _flat(sides)
    found: set[tuple[int, int]] = set()
    for down, up in flat.planes.values():
        if down and up:
            for ones, others in ((down, up), (up, down)):
                for at in _covered(flat, np.array(ones), np.array(others)):
                    item, facet = sides[at]
                    found.add((item.of, id(facet)))
    return frozenset(found)


def _flat(sides: Sequence[tuple[Item, Facet]]) -> _Flat:
    counts = np.array([len(facet.corners) for _, facet in sides], dtype=np.intp)
    points = np.array([corner for _, facet in sides for corner in facet.corners])
    points += np.repeat(np.array([item.offset for item, _ in sides]), counts, axis=0)
    normals = np.array([facet.normal for _, facet in sides])
    ends: Any = np.cumsum(counts)
    firsts, after = ends - counts, np.arange(1, len(points) + 1)
    after[ends - 1] = firsts
    low, high = np.minimum.reduceat(points, firsts, axis=0), np.maximum.reduceat(points, firsts, axis=0)
    sizes = abs((np.add.reduceat(np.cross(points, points[after]), firsts, axis=0) * normals).sum(axis=1)) / 2
    axes = abs(normals).argmax(axis=1)
    rows = np.arange(len(sides))
    one, other = IN_PLANE[axes].T
    boxes = np.column_stack([low[rows, one], high[rows, one], low[rows, other], high[rows, other]])
    whole = (boxes[:, 1] - boxes[:, 0]) * (boxes[:, 3] - boxes[:, 2])
    facing, places = normals[rows, axes], low[rows, axes].round(2)
    planes: dict[tuple[int, float], tuple[list[int], list[int]]] = defaultdict(lambda: ([], []))
    for at in np.flatnonzero(abs(facing) > SQUARE).tolist():
        planes[int(axes[at]), float(places[at])][int(facing[at] > 0)].append(at)
    return _Flat(boxes, sizes, sizes > FULL * whole, planes)


def _covered(flat: _Flat, ones: Any, others: Any) -> list[int]:
    """Return those of the sides of a plane that lie on the others."""
    covers, shaped = others[flat.is_rectangle[others]], others[~flat.is_rectangle[others]]
    alike = {_key(flat, at) for at in shaped.tolist()}
    found = [at for at in ones.tolist() if _key(flat, at) in alike] if alike else []
    if not len(covers):
        return found
    a, b = flat.boxes[ones], flat.boxes[covers]
    wide, high = (
        np.minimum(a[:, None, at + 1], b[None, :, at + 1]) - np.maximum(a[:, None, at], b[None, :, at]) for at in (0, 2)
    )
    shared = np.where((wide > HAIR) & (high > HAIR), wide * high, 0.0)
    whole = (a[:, 1] - a[:, 0]) * (a[:, 3] - a[:, 2])
    by_one, together = shared.max(axis=1) > FULL * whole, shared.sum(axis=1) > TOGETHER * whole
    found += ones[by_one].tolist()
    for row in np.flatnonzero(together & ~by_one).tolist():
        over = [_spans(box) for box in b[shared[row].nonzero()[0]].tolist()]
        if not rectangles_left(_spans(a[row].tolist()), over):
            found.append(int(ones[row]))
    return found


def _spans(box: Sequence[float]) -> tuple[tuple[float, float], tuple[float, float]]:
    return (box[0], box[1]), (box[2], box[3])


def _key(flat: _Flat, at: int) -> tuple[float, ...]:
    """Return what two sides have in common that lie on one another all over."""
    return (*flat.boxes[at].round(2).tolist(), round(float(flat.sizes[at]), 1))
