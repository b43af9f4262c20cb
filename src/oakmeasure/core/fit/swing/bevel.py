"""The swing in plan: what a square corner needs, the least bevel, the gap at the back.

Origin at the hinge edge on the opening face (where the knuckles show), x to the latch, y into the thickness;
the pin stands at (−setback, −knuckle).
"""

from __future__ import annotations

import math

from oakmeasure.core.base.errors import InputError


def square_corner_growth(*, width: float, thickness: float, knuckle: float, setback: float) -> float:
    """Return by how much the back corner of a square-edged leaf swings further out than its face, in mm.

    width: of the leaf on the opening face. thickness: of the leaf. knuckle: pin centre out from the opening
    face. setback: pin centre back from the hinge edge. All mm, width and thickness > 0. Not rounded.
    Raises InputError. Source: Pythagoras in plan.

    >>> round(square_corner_growth(width=762, thickness=35, knuckle=6, setback=1), 3)
    1.077
    """
    _check(width, thickness, knuckle)
    reach = width + setback
    return math.sqrt(reach**2 + thickness**2 + 2 * thickness * knuckle) - reach


def least_bevel_deg(
    *, width: float, thickness: float, knuckle: float, setback: float, gap: float, margin: float
) -> float:
    """Return the least bevel of the latch edge, in degrees, that leaves `margin` of `gap` as the corner passes.

    width: on the opening face; gap: at the latch; margin: of the gap, stays free; all mm. 0 where a square
    edge passes. Not rounded. Sensitivity: a thicker leaf needs more, a wider one less.
    Raises InputError where no bevel does. Source: the back corner on the circle of radius w + s + g − m.

    >>> round(least_bevel_deg(width=450, thickness=44, knuckle=8, setback=1, gap=2, margin=1), 2)
    2.51
    """
    _check(width, thickness, knuckle)
    reach = width + setback
    inside = (reach + gap - margin) ** 2 - thickness**2 - 2 * thickness * knuckle
    if inside <= 0:
        raise InputError("thickness", thickness, "a leaf wider than it is thick")
    return max(0.0, math.degrees(math.atan((reach - math.sqrt(inside)) / thickness)))


def back_gap(*, gap: float, thickness: float, bevel_deg: float) -> float:
    """Return the gap at the back of a bevelled latch edge, in mm: the bevel takes t·tan β off the back face."""
    return gap + thickness * math.tan(math.radians(bevel_deg))


def _check(width: float, thickness: float, knuckle: float) -> None:
    for field, value in (("width", width), ("thickness", thickness)):
        if not value > 0:
            raise InputError(field, value, "more than 0")
    if knuckle < 0:
        raise InputError("knuckle", knuckle, "0 or more")
