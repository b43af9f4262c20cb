"""The least of a linear aim under linear limits, by HiGHS; several aims one after the other, each kept for the next."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.linear_programme import Programme

KEEP = 1e-6
Bounds = Sequence[tuple[float | None, float | None]]


@dataclass(frozen=True, slots=True)
class Least:
    """Answer of a lexicographic linear programme."""

    x: tuple[float, ...]
    """Each column."""
    value: float
    """What the last aim comes to."""


def least(aim: Sequence[float], rows: Sequence[Sequence[float]], most: Sequence[float], bounds: Bounds) -> Least | None:
    """Return the x with the least aim · x, rows · x ≤ most and x within its bounds (None: none); None without one.

    Args:
        aim: Coefficients of what is made least.
        rows: Coefficients of each row, one for each column.
        most: The most of each row.
        bounds: The least and the most of each column; None for no limit.
    """
    programme = Programme([-math.inf] * len(rows), list(most))
    for n, cost in enumerate(aim):
        column = programme.add(cost, {at: row[n] for at, row in enumerate(rows) if row[n]})
        low, high = bounds[n]
        programme.hold(column, -math.inf if low is None else low, math.inf if high is None else high)
    found = programme.solve()
    return None if found is None else Least(tuple(float(each) for each in found.x), float(found.value))


def in_turn(
    aims: Sequence[Sequence[float]], rows: Sequence[Sequence[float]], most: Sequence[float], bounds: Bounds
) -> Least | None:
    """Return the least of the last aim among all that have the least of those before it; None without any.

    Args:
        aims: Coefficients of each aim, one for each column; the first counts most.
        rows: Coefficients of each row, one for each column.
        most: The most of each row.
        bounds: The least and the most of each column; None for no limit.
    """
    best = None
    limits, values = [list(row) for row in rows], list(most)
    for aim in aims:
        found = least(aim, limits, values, bounds)
        if found is None:
            return best
        best = found
        limits, values = [*limits, list(aim)], [*values, found.value + KEEP]
    return best
