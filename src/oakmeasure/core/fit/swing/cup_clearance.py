"""The way of a cup-hinged leaf's front corner: how far it swings out beyond the leaf's edge as the leaf opens.

The linkage of a cup hinge turns about a point that wanders. It is taken as one pin, behind the opening face, so far in
from the edge that the corner swings out by what the hinge's own table of least reveals says.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.document.cup_hinges import CupHinge, RevealRow

PIN_DEEP = 6.0  # behind the opening face, mm: common practice, no source
PIN_IN = 9.0  # from the leaf's edge, for a hinge without a table: common practice, no source
PIN_IN_MOST = 30.0  # a corner that hardly swings out says no more of its pin than that


def least_reveal(rows: Sequence[RevealRow], *, thickness: float, boring: float) -> float | None:
    """Return the least reveal by the hinge's own table, mm, worked between its nearest rows; None without a table.

    Weighted by how near the rows are (inverse square): a table of a few points on no grid. At a row it is that
    row.

    Args:
        rows: The hinge's table: thickness, boring and the reveal that they need, mm.
        thickness: Thickness of the leaf, mm.
        boring: From the leaf's edge to the cup's edge, mm.
    """
    if not rows:
        return None
    weights = []
    for row in rows:
        apart = math.hypot(row.thickness - thickness, row.boring - boring)
        if apart < 1e-9:
            return row.reveal
        weights.append((1 / apart**2, row.reveal))
    near = sorted(weights, reverse=True)[:4]
    return sum(weight * reveal for weight, reveal in near) / sum(weight for weight, _ in near)


def pin_for(*, reveal: float, deep: float) -> float:
    """Return how far in from the leaf's edge a hinge seems to turn, mm, when its corner swings out by a reveal.

    A pin `deep` behind the face and p in from the edge swings the front corner out by √(p² + deep²) − p; solved
    for p.

    Args:
        reveal: How far the corner swings out past the leaf's shut edge, mm.
        deep: How far the pin lies behind the opening face, mm.

    >>> round(pin_for(reveal=2.1, deep=6.0), 2)
    7.52
    """
    return (deep**2 - reveal**2) / (2 * reveal) if reveal > 1e-6 else math.inf


def cup_pin(hinge: CupHinge, *, thickness: float, boring: float) -> Point:
    """Return the pin of a cup hinge: in from the leaf's edge, and behind its opening face, mm.

    Args:
        hinge: The cup hinge.
        thickness: Thickness of the leaf, mm.
        boring: From the leaf's edge to the cup's edge, mm.

    >>> tuple(round(each, 2) for each in cup_pin(CupHinge(), thickness=20.0, boring=4.5))  # a hinge without a table
    (9.0, 6.0)
    """
    reveal = least_reveal(hinge.reveal, thickness=thickness, boring=boring)
    if reveal is None:
        return PIN_IN, PIN_DEEP
    deep = max(PIN_DEEP, reveal)  # no pin in front of its own edge
    return min(max(pin_for(reveal=reveal, deep=deep), 0.0), PIN_IN_MOST), deep


def corner_way(pin: Point, *, degrees: float, steps: int = 24) -> list[Point]:
    """Return the way of the front corner as the leaf opens, mm.

    X in from the leaf's edge, y behind the opening face.

    Source: a circle about the pin.

    Args:
        pin: As `cup_pin` gives it.
        degrees: How far the leaf is open, degrees from shut.
        steps: In how many straight pieces a curve is drawn.
    """
    pin_in, deep = pin
    radius, start = math.hypot(pin_in, deep), math.atan2(deep, pin_in)
    turns = [start - math.radians(degrees) * at / steps for at in range(steps + 1)]  # outwards, then before the face
    return [(pin_in - radius * math.cos(each), deep - radius * math.sin(each)) for each in turns]
