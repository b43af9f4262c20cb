"""An opening with its crookedness exaggerated: every departure from the true rectangle shown so many times its size."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import Matrix
from oakmeasure.core.base.uncertainty import root_sum_square
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.document.readings import HeadKind, Side
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.solution import LeafSolution
from oakmeasure.core.survey.outline import Edge, Outline


@dataclass(frozen=True, slots=True)
class Crooked:
    """An opening as drawn, its crookedness exaggerated, mm."""

    corners: tuple[Point, ...]
    """As drawn, round from the hinge side's foot, 0 0 where the clear rectangle has its foot."""
    outline: Outline
    """Its outline."""
    times: float
    """How many times the crookedness is drawn."""
    width: float
    """Width of the clear rectangle, mm."""
    height: float
    """Height of the clear rectangle, mm."""

    def line(self, at: int) -> tuple[Point, ...]:
        """Return the line of a side as drawn: its ends moved, its bows exaggerated, an arch in its true shape.

        Args:
            at: Number of the side, from 0, the floor.
        """
        edge = self.outline.edges[at]
        start, end = self.corners[at], self.corners[(at + 1) % len(self.corners)]
        arch = edge.side is Side.HEAD and len(edge.points) > 8
        return tuple(_moved(point, edge, start, end, 1.0 if arch else self.times) for point in edge.points)

    @property
    def points(self) -> list[Point]:
        """Return the whole outline as drawn."""
        return [point for at in range(len(self.outline.edges)) for point in self.line(at)[:-1]]

    def band(self, at: int, sigmas: tuple[float, float]) -> list[Point]:
        """Return a strip along a side, two standard errors to either side, exaggerated as the side is.

        Args:
            at: Number of the side, from 0, the floor.
            sigmas: Standard deviation at both ends of the side, mm.
        """
        line = self.line(at)
        (ax, ay), (bx, by) = line[0], line[-1]
        length = math.dist((ax, ay), (bx, by)) or 1.0
        nx, ny = (by - ay) / length, -(bx - ax) / length
        one, other = [], []
        for place, (x, y) in enumerate(line):
            share = place / (len(line) - 1)
            reach = 2 * self.times * (sigmas[0] + share * (sigmas[1] - sigmas[0]))
            one.append((x + nx * reach, y + ny * reach))
            other.append((x - nx * reach, y - ny * reach))
        return [*one, *reversed(other)]


def _moved(point: Point, edge: Edge, start: Point, end: Point, times: float) -> Point:
    (ax, ay), (bx, by) = edge.points[0], edge.points[-1]
    square = (bx - ax) ** 2 + (by - ay) ** 2 or 1.0
    share = ((point[0] - ax) * (bx - ax) + (point[1] - ay) * (by - ay)) / square
    off = (point[0] - ax - share * (bx - ax), point[1] - ay - share * (by - ay))
    return (
        start[0] + share * (end[0] - start[0]) + times * off[0],
        start[1] + share * (end[1] - start[1]) + times * off[1],
    )


def can_exaggerate(leaf: LeafSolution) -> bool:
    """Whether there is a true rectangle that the opening departs from.

    Args:
        leaf: The leaf, worked out to the end.
    """
    taken = leaf.opening.taken
    return len(taken.corners) == 4 and taken.outline.is_upright


def crooked(leaf: LeafSolution, times: float) -> Crooked:
    """Return the opening as taken, `times` as crooked; of a shape that is no rectangle, as it is.

    Args:
        leaf: The leaf, worked out to the end.
        times: How many times crookedness is drawn.
    """
    taken, f = leaf.opening.taken, leaf.figures
    rough = leaf.opening.taken_as
    x0, y0 = f[figure_name(f"{rough}hinge_side_in")].value, f[figure_name(f"{rough}floor_high")].value
    w, h = f[figure_name(f"{rough}clear_width")].value, f[figure_name(f"{rough}clear_height")].value
    if not can_exaggerate(leaf):
        return Crooked(tuple((x - x0, y - y0) for x, y in taken.corners), taken.outline, 1.0, w, h)
    nominal = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)]
    if _is_raked(leaf.leaf):
        # The rake is meant: only what departs from it is crookedness, and two ends define it.
        nominal[2], nominal[3] = (w, taken.latch_head[1] - y0), (0.0, taken.hinge_head[1] - y0)
    corners = tuple(
        (nx + times * (x - x0 - nx), ny + times * (y - y0 - ny))
        for (x, y), (nx, ny) in zip(taken.corners, nominal, strict=True)
    )
    return Crooked(corners, taken.outline, times, w, h)


def _is_raked(leaf: Leaf) -> bool:
    return leaf.head.kind is HeadKind.RAKED


def side_sigmas(corners: tuple[Point, ...], covariance: Matrix, at: int) -> tuple[float, float]:
    """Return the standard errors, mm, of both ends of a side across it.

    Those of the first corner are 0: it is the datum.

    Args:
        corners: Corners, anticlockwise, mm.
        covariance: Covariance of the corners' coordinates, mm².
        at: Number of the side, from 0, the floor.
    """
    ends = (at, (at + 1) % len(corners))
    (ax, ay), (bx, by) = corners[ends[0]], corners[ends[1]]
    length = math.dist((ax, ay), (bx, by)) or 1.0
    across = ((by - ay) / length, -(bx - ax) / length)
    found = []
    for corner in ends:
        row = [0.0] * len(covariance)
        if corner > 0:
            row[2 * corner - 2], row[2 * corner - 1] = across
        found.append(root_sum_square(row, covariance))
    return found[0], found[1]
