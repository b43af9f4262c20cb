"""The swing in plan: what a square corner needs, the least bevel, the gap at the back.

Origin at the hinge edge on the opening face (where the knuckles show), x to the latch, y into the thickness;
the pin stands at (−setback, −knuckle).
"""

from __future__ import annotations

import math

from oakmeasure.core.base.errors import InputError


def square_corner_growth(*, width: float, thickness: float, knuckle: float, setback: float) -> float:
    """Return by how much the back corner of a square-edged leaf swings further out than its face, in mm.

    All mm, width and thickness > 0. Not rounded. Source: Pythagoras in plan.

    Args:
        width: Width of the leaf on the opening face, mm.
        thickness: Thickness of the leaf, mm.
        knuckle: From the opening face out to the pin's centre, mm.
        setback: From the hinge edge in to the pin's centre, mm.

    Raises:
        InputError: See the message.

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

    0 where a square edge passes. Not rounded. Sensitivity: a thicker leaf needs more, a wider one less. Source:
    the back corner on the circle of radius w + s + g − m.

    Args:
        width: Width of the leaf on the opening face, mm.
        thickness: Thickness of the leaf, mm.
        knuckle: How far the pin stands in front of the opening face, mm.
        setback: How far the pin stands in from the leaf's hinge edge, mm.
        gap: Gap at the latch on the opening face, mm.
        margin: What of the gap stays free as the corner passes, mm.

    Raises:
        InputError: Where no bevel does.

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
    """Return the gap at the back of a bevelled latch edge, in mm: the bevel takes t·tan β off the back face.

    Args:
        gap: Gap on the opening face, at the front of the edge, mm.
        thickness: Thickness of the leaf, mm.
        bevel_deg: Bevel of the latch edge, degrees.
    """
    return gap + thickness * math.tan(math.radians(bevel_deg))


def _check(width: float, thickness: float, knuckle: float) -> None:
    for field, value in (("width", width), ("thickness", thickness)):
        if not value > 0:
            raise InputError(field, value, "more than 0")
    if knuckle < 0:
        raise InputError("knuckle", knuckle, "0 or more")
