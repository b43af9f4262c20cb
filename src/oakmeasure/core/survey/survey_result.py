"""What each way of taking an opening gives: an outline with its corners, and how sure they are."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import Matrix
from oakmeasure.core.document.readings import Side, SideOffset
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.survey.adjust import Adjustment
from oakmeasure.core.survey.outline import Edge, Outline
from oakmeasure.core.survey.tick_board import TemplateFit


@dataclass(frozen=True, slots=True)
class Taken:
    """An opening as taken, mm from the hinge side's foot, x to the latch, y up."""

    outline: Outline
    """Its outline."""
    corners: tuple[Point, ...]
    """Round from the hinge side's foot."""
    covariance: Matrix
    """Of the corners after the first."""
    inputs: tuple[Figure, ...]
    """The figures that it rests on."""
    how: str
    """The way it was worked out, for the working."""
    source: str
    """How it was taken, in words."""
    adjustment: Adjustment[Any] | None = None
    """Readings of the tape, adjusted; None for other takings."""
    template: TemplateFit | None = None
    """The sides through the ticks; None for other takings."""
    bow_width: Figure | None = None
    """What a middle reading of the width alone takes off, mm."""
    bow_height: Figure | None = None
    """What a middle reading of the height alone takes off, mm."""

    @property
    def hinge_foot(self) -> Point:
        """Corner at the foot of the hinge side, mm."""
        return self.corners[0]

    @property
    def latch_foot(self) -> Point:
        """Corner at the foot of the latch side, mm."""
        return self.corners[1]

    @property
    def latch_head(self) -> Point:
        """Corner at the head of the latch side, mm."""
        return self.corners[2]

    @property
    def hinge_head(self) -> Point:
        """Corner at the head of the hinge side, mm."""
        return self.corners[-1]


def outline_of(
    corners: Sequence[Point],
    *,
    head: Sequence[Point] = (),
    bows: Sequence[SideOffset] = (),
    sigmas: Sequence[float] = (),
) -> Outline:
    """Return the outline through corners, round from the hinge side's foot.

    Args:
        corners: Corners, anticlockwise, mm.
        head: The line of a curved head from the hinge side to the latch side; four corners only.
        bows: Offsets of sides off their chords.
        sigmas: Standard uncertainty of each side, mm, the floor first.
    """
    count = len(corners)
    edges = []
    for at in range(count):
        side = Side.FLOOR if at == 0 else Side.LATCH if at == 1 else Side.HINGE if at == count - 1 else Side.HEAD
        start, end = corners[at], corners[(at + 1) % count]
        points = tuple(reversed(head)) if side is Side.HEAD and head else (start, end)
        if not (side is Side.HEAD and head):
            points = _bowed(start, end, side, [each for each in bows if each.side is side])
        edges.append(Edge(side, points, sigmas[at] if sigmas else 0.0))
    return Outline(tuple(edges))


def _bowed(start: Point, end: Point, side: Side, bows: Sequence[SideOffset]) -> tuple[Point, ...]:
    """Return the side's line with its offsets; `at` counts from the foot, or from the hinge end of head and floor."""
    length = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    if not bows or length < 1e-9:
        return (start, end)
    ux, uy = (end[0] - start[0]) / length, (end[1] - start[1]) / length
    turned = side in (Side.HINGE, Side.HEAD)  # these run down, and from latch to hinge, round the opening
    inner = []
    for each in bows:
        along = length - each.at if turned else each.at
        if 0 < along < length:
            into = each.into.value
            inner.append((along, (start[0] + along * ux - into * uy, start[1] + along * uy + into * ux)))
    return (start, *(point for _, point in sorted(inner)), end)


def bow_at(bows: Sequence[SideOffset], side: Side, at: float, length: float) -> float:
    """Return how far a side bulges in at a place, between its offsets, mm.

    Args:
        bows: How far the side is off a straight line, and where.
        side: The side.
        at: How far along the side, mm.
        length: Length, mm.
    """
    stations = sorted([(0.0, 0.0), *((each.at, each.into.value) for each in bows if each.side is side), (length, 0.0)])
    for (a, va), (b, vb) in pairwise(stations):
        if a <= at <= b and b > a:
            return va + (vb - va) * (at - a) / (b - a)
    return 0.0
