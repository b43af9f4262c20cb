"""Heads that are not level: radii from span and rise, and the line that the head follows."""

from __future__ import annotations

import math

from oakmeasure.core.errors import InputError
from oakmeasure.core.readings import HeadKind

Point = tuple[float, float]
ARC_STEPS = 24  # straight pieces that stand for an arch; the leaf inside it loses under 0.3 mm on a 1 m span


def segmental_radius(*, span: float, rise: float) -> float:
    """Return the radius of a segmental head, mm: s²/(8h) + h/2.

    span: clear chord where the arch springs, mm. rise: crown above that chord, mm; 0 < rise ≤ span/2.
    Not rounded. Sensitivity: 1 mm more rise shortens the radius by about radius/rise − 1 mm.
    Raises InputError naming the field outside. Source: intersecting chords, Euclid III.35.

    >>> round(segmental_radius(span=800, rise=120), 3)
    726.667
    """
    _span(span)
    if not 0 < rise <= span / 2:
        raise InputError("rise", rise, limits=(0.0, span / 2), unit="mm")
    return span**2 / (8 * rise) + rise / 2


def two_centred_radius(*, span: float, rise: float) -> float:
    """Return the radius of both arcs of a pointed head whose centres lie on the springing line, mm: h²/s + s/4.

    span: clear chord where it springs, mm. rise: point above that chord, mm; ≥ span/2 (equal is a half-round).
    Raises InputError naming the field outside. Source: each arc springs square to the line of the centres.

    >>> two_centred_radius(span=800, rise=800)
    1000.0
    """
    _span(span)
    if rise < span / 2:
        raise InputError("rise", rise, f"at least half the span, {span / 2:g}; less is a segmental head")
    return rise**2 / span + span / 4


def half_round_rise(*, span: float) -> float:
    """Return the rise of a half-round head, half its span, mm. Raises InputError for a span that is none."""
    _span(span)
    return span / 2


def _span(span: float) -> None:
    if span <= 0:
        raise InputError("span", span, "more than 0")


def head_line(start: Point, end: Point, kind: HeadKind, rise: float, *, steps: int = ARC_STEPS) -> tuple[Point, ...]:
    """Return points along the head from where it springs at the hinge side to where it springs at the latch side.

    rise: of a curved head above the middle of that line, square to it, mm. Raises InputError as the radii do.
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
    turn = math.atan2(rise, span / 2 - (span - radius))  # of the point, seen from the centre of the near arc
    half = [math.pi - (math.pi - (math.pi - turn)) * at / (steps // 2) for at in range(steps // 2 + 1)]
    near = [(radius + radius * math.cos(each), radius * math.sin(each)) for each in half]
    near[-1] = (span / 2, rise)
    return near + [(span - x, y) for x, y in reversed(near[:-1])]
