"""Heads that are not level: radii from span and rise, and the line that the head follows."""

from __future__ import annotations

import math

from oakmeasure.core.base.arcs import segmental_radius, two_centred_radius
from oakmeasure.core.base.geometry import Point
from oakmeasure.core.document.readings import HeadKind

ARC_STEPS = 24  # straight pieces that stand for an arch; the leaf inside it loses under 0.3 mm on a 1 m span


def head_line(start: Point, end: Point, kind: HeadKind, rise: float, *, steps: int = ARC_STEPS) -> tuple[Point, ...]:
    """Return points along the head from where it springs at the hinge side to where it springs at the latch side.

    Args:
        start: Where it begins, mm.
        end: Where it ends, mm.
        kind: Shape of the head.
        rise: Of a curved head above the middle of that line, square to it, mm.
        steps: In how many straight pieces a curve is drawn.

    Raises:
        InputError: As the radii do.
    """
    if not kind.is_curved:
        return (start, end)
    span = math.dist(start, end)
    ux, uy = (end[0] - start[0]) / span, (end[1] - start[1]) / span
    local = _pointed(span, rise, steps) if kind is HeadKind.TWO_CENTRED else _round(span, rise, steps)
    return tuple((start[0] + x * ux - y * uy, start[1] + x * uy + y * ux) for x, y in local)


def _round(span: float, rise: float, steps: int) -> list[Point]:
    radius = segmental_radius(span=span, rise=rise)
    half = math.asin(min(span / 2 / radius, 1.0)) if rise < span / 2 else math.pi / 2
    down = radius - rise
    angles = [-half + 2 * half * at / steps for at in range(steps + 1)]
    return [(span / 2 + radius * math.sin(each), radius * math.cos(each) - down) for each in angles]


def _pointed(span: float, rise: float, steps: int) -> list[Point]:
    radius = two_centred_radius(span=span, rise=rise)
    turn = math.atan2(rise, radius - span / 2)  # from the springing to the point, about the centre of the near arc
    half = [math.pi - turn * at / (steps // 2) for at in range(steps // 2 + 1)]
    near = [(radius + radius * math.cos(each), radius * math.sin(each)) for each in half]
    near[-1] = (span / 2, rise)
    return near + [(span - x, y) for x, y in reversed(near[:-1])]
