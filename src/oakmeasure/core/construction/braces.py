"""Braces between ledges: their angle, their edges, the blank that each is cut from.

A field b wide and h high between two ledges; the brace rises from the lower ledge at the hinge side to the upper one
at the latch side. Angles in degrees from the level. Source: trigonometry of a strip in a rectangle.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.geometry import Point, clipped, half_plane_part, left_of, signed_area
from oakmeasure.core.base.prisms import Solid, Span


@dataclass(frozen=True, slots=True)
class Brace:
    """A brace as it is cut."""

    angle_deg: float
    """From the level, degrees."""
    edge: float
    """Length of each long edge, mm."""
    blank: float
    """Length of the board that it is cut from, mm."""


def corner_brace(*, base: float, height: float, width: float) -> Brace:
    """Return a brace whose ends lie flat on the ledges, its long edges through the corners of the field.

    Domain: width less than the field's diagonal and than `base`. b·sin α − h·cos α = width; each long edge
    h/sin α; blank h/sin α + width/tan α. Not rounded. Source: see above.

    Args:
        base: Width of the clear field, mm.
        height: Height of the clear field, mm.
        width: Width of the brace, mm.

    Raises:
        InputError: See the message.

    >>> round(corner_brace(base=600, height=700, width=100).angle_deg, 3)
    55.626
    """
    _check(base, height, width)
    turn = math.atan2(height, base) + math.asin(width / math.hypot(base, height))
    if turn >= math.pi / 2:
        raise InputError("width", width, f"less than the field, {base:g} mm")
    return Brace(math.degrees(turn), height / math.sin(turn), height / math.sin(turn) + width / math.tan(turn))


def stile_brace(*, base: float, height: float, width: float) -> Brace:
    """Return a brace whose ends lie on the stiles, as in a framed leaf.

    h·cos α − b·sin α = width; each long edge b/cos α; blank b/cos α + width·tan α. As `corner_brace`.

    Args:
        base: Width of the field that the brace crosses, mm.
        height: Height, mm.
        width: Width, mm.

    >>> round(stile_brace(base=600, height=700, width=100).edge, 1)
    822.7
    """
    _check(base, height, width)
    turn = math.atan2(height, base) - math.asin(width / math.hypot(base, height))
    if turn <= 0:
        raise InputError("width", width, f"less than the field, {height:g} mm")
    return Brace(math.degrees(turn), base / math.cos(turn), base / math.cos(turn) + width * math.tan(turn))


def pointed_brace(*, base: float, height: float) -> Brace:
    """Return a brace whose centre line runs from corner to corner, two cuts at each end; edge and blank tip to tip.

    Args:
        base: Width of the field that the brace crosses, mm.
        height: Height, mm.

    >>> round(pointed_brace(base=600, height=700).blank, 2)
    921.95
    """
    _check(base, height, 1e-9)
    reach = math.hypot(base, height)
    return Brace(math.degrees(math.atan2(height, base)), reach, reach)


def height_for_corner(*, base: float, width: float, angle_deg: float) -> float:
    """Return how high the field must be for a corner brace to stand at an angle: (b·sin α − width)/cos α, mm.

    Args:
        base: Width of the field that the brace crosses, mm.
        width: Width, mm.
        angle_deg: Angle of the brace to the ledge, degrees.
    """
    turn = math.radians(angle_deg)
    return (base * math.sin(turn) - width) / math.cos(turn)


def height_for_stile(*, base: float, width: float, angle_deg: float) -> float:
    """Return the same for a brace whose ends lie on the stiles: (width + b·sin α)/cos α, mm.

    Args:
        base: Width of the field that the brace crosses, mm.
        width: Width, mm.
        angle_deg: Angle of the brace to the ledge, degrees.
    """
    turn = math.radians(angle_deg)
    return (width + base * math.sin(turn)) / math.cos(turn)


def height_for_pointed(*, base: float, angle_deg: float) -> float:
    """Return the same for a pointed brace: b·tan α, mm.

    Args:
        base: Width of the field that the brace crosses, mm.
        angle_deg: Angle of the brace to the ledge, degrees.
    """
    return base * math.tan(math.radians(angle_deg))


def _check(base: float, height: float, width: float) -> None:
    for field, value in (("base", base), ("height", height), ("width", width)):
        if not value > 0:
            raise InputError(field, value, "more than 0")
    if width >= math.hypot(base, height):
        raise InputError("width", width, "less than the field's diagonal")


def corner_shape(x0: float, y0: float, x1: float, y1: float, width: float) -> tuple[Point, ...]:
    """Return the corners of a corner brace in a field, foot at (x0, y0), anticlockwise.

    Args:
        x0: Where it begins, across, mm.
        y0: Its lower end, mm.
        x1: Where it ends, across, mm.
        y1: Its upper end, mm.
        width: Width, mm.
    """
    along = width / math.sin(math.radians(corner_brace(base=x1 - x0, height=y1 - y0, width=width).angle_deg))
    return (x0, y0), (x0 + along, y0), (x1, y1), (x1 - along, y1)


def stile_shape(x0: float, y0: float, x1: float, y1: float, width: float) -> tuple[Point, ...]:
    """Return the corners of a brace between two stiles, foot at (x0, y0), anticlockwise.

    Args:
        x0: Where it begins, across, mm.
        y0: Its lower end, mm.
        x1: Where it ends, across, mm.
        y1: Its upper end, mm.
        width: Width, mm.
    """
    up = width / math.cos(math.radians(stile_brace(base=x1 - x0, height=y1 - y0, width=width).angle_deg))
    return (x0, y0), (x1, y1 - up), (x1, y1), (x0, y0 + up)


def pointed_shape(x0: float, y0: float, x1: float, y1: float, width: float) -> tuple[Point, ...]:
    """Return the corners of a pointed brace in a field, foot at (x0, y0), anticlockwise.

    Args:
        x0: Where it begins, across, mm.
        y0: Its lower end, mm.
        x1: Where it ends, across, mm.
        y1: Its upper end, mm.
        width: Width, mm.

    Raises:
        InputError: Where its two cuts would reach over the middle of the field's sides.
    """
    base, height = x1 - x0, y1 - y0
    reach = math.hypot(base, height)
    level, upright = width / 2 * reach / height, width / 2 * reach / base
    if level > base / 2 or upright > height / 2:
        raise InputError("width", width, f"less, in a field {base:g} mm × {height:g} mm")
    return ((x0, y0), (x0 + level, y0), (x1, y1 - upright), (x1, y1), (x1 - level, y1), (x0, y0 + upright))


def turned_over(shape: tuple[Point, ...], x0: float, x1: float) -> tuple[Point, ...]:
    """Return a shape mirrored in its field, anticlockwise again.

    Args:
        shape: Corners of its face, mm; () where that is an upright rectangle.
        x0: Where it begins, across, mm.
        x1: Where it ends, across, mm.
    """
    return tuple((x0 + x1 - x, y) for x, y in reversed(shape))


def halves(shape: tuple[Point, ...], first: tuple[Point, ...]) -> list[tuple[Point, ...]]:
    """Return the two pieces of a pointed brace that are left beside another one that crosses it whole.

    The long edges of `first` cut it.

    Args:
        shape: The brace that crosses it, turned over.
        first: The brace that is crossed, as `pointed_shape` gives it.
    """
    long_edges = (first[1], first[2]), (first[4], first[5])  # the lower one, the upper one
    return [tuple(half_plane_part(shape, left_of(*each))) for each in long_edges]


def lapped(one: Sequence[Point], other: Sequence[Point], depth: Span) -> tuple[tuple[Solid, ...], tuple[Solid, ...]]:
    """Return what is cut out of two braces where they cross, half-lapped: the back of the one, the front of the other.

    Args:
        one: Corners of the one, mm.
        other: Corners of the other, mm.
        depth: From where to where both lie, in from the opening face, mm.
    """
    turned = tuple(other) if signed_area(other) > 0 else tuple(reversed(other))
    crossing = clipped(one, turned)
    if len(crossing) < 3:
        return (), ()
    middle = (depth[0] + depth[1]) / 2
    return (Solid(crossing, (middle, depth[1])),), (Solid(crossing, (depth[0], middle)),)
