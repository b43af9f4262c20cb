"""Which side of the opening each tick belongs to.

The points are taken in order round their middle and cut into as many runs as there are sides, so that the runs are
as straight as can be (the head as round as can be, where it is curved): dynamic programming over the cuts. Wrong ticks
stay in their run; the fit of the side deals with them. Where some ticks name their side, the others go by those.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.base.matrices import solved
from oakmeasure.core.survey.ticks import Curve, fit_side

MOST_SORTED = 72  # points that are sorted by their runs; of more, so many are taken and the others join the nearest


def grouped(
    points: Sequence[Point], *, sides: int, curved_head: bool, tick_sigma: float, named: Sequence[int | None] = ()
) -> tuple[int, ...]:
    """Return the side, 1 to `sides`, of every point.

    1 the floor, then round anticlockwise, the last the hinge side.

    Args:
        points: Mm, from around the whole opening, x to the latch, y up.
        sides: How many sides the opening has.
        curved_head: Whether the side after the latch side is part of a circle (four sides).
        tick_sigma: Standard deviation of a tick, mm.
        named: The side of a point, where it is known.

    Raises:
        InputError: Where there are too few points.
    """
    named = list(named) or [None] * len(points)
    need = 2 * sides + curved_head
    if len(points) < need:
        raise InputError("ticks", f"{len(points)} ticks", f"at least {need} ticks, or the side of each by name")
    chosen = _spread(points)
    runs = _runs([points[at] for at in chosen], sides, 3 if curved_head else None)
    side_of: dict[int, int] = dict(zip(chosen, runs, strict=True))
    if len(chosen) < len(points):
        side_of = _nearest(points, side_of, sides, curved_head, tick_sigma)
    return tuple(each if each is not None else side_of[at] for at, each in enumerate(named))


def _round_the_middle(points: Sequence[Point]) -> list[int]:
    """Return indices in order round the middle of their box, from its lower left, anticlockwise."""
    xs, ys = [x for x, _ in points], [y for _, y in points]
    cx, cy = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
    wide, tall = max(max(xs) - min(xs), 1e-9), max(max(ys) - min(ys), 1e-9)

    def turn(at: int) -> float:
        x, y = points[at]
        return (math.atan2((y - cy) / tall, (x - cx) / wide) + 0.75 * math.pi) % (2 * math.pi)

    return sorted(range(len(points)), key=turn)


def _spread(points: Sequence[Point]) -> list[int]:
    if len(points) <= MOST_SORTED:
        return list(range(len(points)))
    order = _round_the_middle(points)
    step = len(order) / MOST_SORTED
    return [order[int(at * step)] for at in range(MOST_SORTED)]


class _Moments:
    """Sums over a run of points, from which the squares that a line or a circle leaves follow at once."""

    def __init__(self, points: Sequence[Point]) -> None:
        n = len(points)
        mx, my = sum(x for x, _ in points) / n, sum(y for _, y in points) / n
        size = max(max(abs(x - mx), abs(y - my)) for x, y in points) or 1.0
        self.sums = [[0.0] * 9]
        for px, py in [*points, *points]:  # twice round, so that a run may pass the start
            x, y = (px - mx) / size, (py - my) / size
            z = x * x + y * y
            each = (1.0, x, y, x * x, y * y, x * y, x * z, y * z, z * z)
            self.sums.append([a + b for a, b in zip(self.sums[-1], each, strict=True)])

    def _of(self, start: int, end: int) -> list[float]:
        return [b - a for a, b in zip(self.sums[start], self.sums[end], strict=True)]

    def line(self, start: int, end: int) -> float:
        """Return the squares of distances to the best line: the smaller eigenvalue of the scatter."""
        n, x, y, xx, yy, xy, *_ = self._of(start, end)
        a, b, c = xx - x * x / n, yy - y * y / n, xy - x * y / n
        return max((a + b) / 2 - math.hypot((a - b) / 2, c), 0.0)

    def circle(self, start: int, end: int) -> float:
        """Return about the squares of distances to the best circle, by the algebraic fit."""
        n, x, y, xx, yy, xy, xz, yz, zz = self._of(start, end)
        try:
            p, q, r = solved([[xx, xy, x], [xy, yy, y], [x, y, n]], [xz, yz, xx + yy])
        except ZeroDivisionError:
            return self.line(start, end)
        square = r + (p * p + q * q) / 4
        if square <= 1e-12:
            return self.line(start, end)
        algebraic = zz - p * xz - q * yz - r * (xx + yy)
        return min(max(algebraic, 0.0) / (4 * square), self.line(start, end))


def _runs(points: Sequence[Point], sides: int, round_side: int | None) -> list[int]:
    order = _round_the_middle(points)
    around = [points[at] for at in order]
    n = len(around)
    moments = _Moments(around)
    best_cost, best_cuts = math.inf, [0]
    # The floor's first point lies near the lower left; a quarter of the round either way is room enough.
    for start in sorted({at % n for at in range(-(n // sides), n // sides + 1)}):
        cost, cuts = _cut(moments, n, start, sides, round_side)
        if cost < best_cost - 1e-12:
            best_cost, best_cuts = cost, cuts
    result = [0] * n
    for run in range(sides):
        for at in range(best_cuts[run], best_cuts[run + 1]):
            result[order[at % n]] = run + 1
    return result


def _cut(moments: _Moments, n: int, start: int, sides: int, round_side: int | None) -> tuple[float, list[int]]:
    """Return the least cost of cutting n points from `start` on into runs, and where the cuts are."""
    cost = {0: (0.0, [start])}
    for run in range(1, sides + 1):
        curved = run == round_side
        least = 3 if curved else 2
        left = 2 * (sides - run) + (round_side is not None and run < round_side)
        measure = moments.circle if curved else moments.line
        reached: dict[int, tuple[float, list[int]]] = {}
        for begun, (so_far, cuts) in cost.items():
            ends = range(begun + least, n - left + 1) if run < sides else (n,)
            for end in ends:
                if end - begun < least:
                    continue
                total = so_far + measure(start + begun, start + end)
                if end not in reached or total < reached[end][0]:
                    reached[end] = (total, [*cuts, start + end])
        cost = reached
    return cost.get(n, (math.inf, [0] * (sides + 1)))


def _nearest(
    points: Sequence[Point], side_of: dict[int, int], sides: int, curved_head: bool, tick_sigma: float
) -> dict[int, int]:
    curves: list[Curve] = []
    for side in range(1, sides + 1):
        own = [points[at] for at, each in side_of.items() if each == side]
        curves.append(fit_side(own, tick_sigma=tick_sigma, curved=curved_head and side == 3).curve)
    return {
        at: min(range(sides), key=lambda side: abs(curves[side].miss(point))) + 1 for at, point in enumerate(points)
    }
