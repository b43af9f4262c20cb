"""Out of square from diagonals, for one corner or for both."""

from __future__ import annotations

import math

from oakmeasure.core.base.errors import InputError


def skew_from_diagonal(*, width: float, height: float, diagonal: float) -> float:
    """Return how far a side of `height` leans away at its far end, in mm; positive when the diagonal is long.

    Not rounded. Sensitivity: an error of the diagonal is magnified by diagonal/width; two diagonals are better.
    Source: law of cosines.

    Args:
        width: The side at the corner opposite the diagonal, mm, > 0.
        height: The side that leans, mm, > 0.
        diagonal: The diagonal, mm.

    Raises:
        InputError: Where no triangle has these sides.

    >>> round(skew_from_diagonal(width=762, height=1981, diagonal=2125), 2)
    6.97
    """
    _triangle(width, height, diagonal)
    return (diagonal**2 - width**2 - height**2) / (2 * width)


def corner_angle_deg(*, width: float, height: float, diagonal: float) -> float:
    """Return the angle of the corner opposite the diagonal, in degrees; 90 is square.

    Source: law of cosines.

    Args:
        width: Width, mm.
        height: Height, mm.
        diagonal: Diagonal, mm.

    Raises:
        InputError: Where no triangle has these sides.
    """
    _triangle(width, height, diagonal)
    return math.degrees(math.acos((width**2 + height**2 - diagonal**2) / (2 * width * height)))


def skew_from_both(*, width: float, first: float, second: float) -> float:
    """Return how far the sides lean over their height, in mm; positive when the first diagonal is the long one.

    Not rounded. Source: difference of two laws of cosines; common errors of the two cancel.

    Args:
        width: Between the sides, mm, > 0.
        first: The one diagonal, mm.
        second: The other diagonal, mm.

    >>> round(skew_from_both(width=762, first=2125, second=2120), 2)
    6.96
    """
    if width <= 0:
        raise InputError("width", width, "more than 0")
    return (first**2 - second**2) / (4 * width)


def _triangle(width: float, height: float, diagonal: float) -> None:
    if min(width, height) <= 0:
        raise InputError("width" if width <= 0 else "height", min(width, height), "more than 0")
    if not abs(width - height) < diagonal < width + height:
        raise InputError(
            "diagonal", diagonal, f"more than {abs(width - height):g} mm and less than {width + height:g} mm"
        )
