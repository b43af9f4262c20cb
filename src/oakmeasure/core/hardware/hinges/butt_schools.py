"""How many butts a leaf wants, and where each school of the trade sets them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.document.rules import ButtSchool

TWO_UP_TO_HEIGHT = 1500.0
TWO_UP_TO_MASS = 20.0
THREE_UP_TO_HEIGHT = 2290.0
ONE_MORE_PER = 760.0
SEVEN_INCHES = 177.8
ELEVEN_INCHES = 279.4


def butt_count(*, height: float, mass: float) -> int:
    """Return how many butts a leaf needs by height and weight.

    Two to 1500 high and 20 kg, three to 2290, one more for each further 760. Source: common practice, no
    source.

    Args:
        height: Of the leaf, mm.
        mass: Of the leaf, kg.

    Raises:
        InputError: For a height or mass that is not positive.

    >>> butt_count(height=2016, mass=31)
    3
    """
    if height <= 0 or mass < 0:
        raise InputError("height" if height <= 0 else "mass", height if height <= 0 else mass, "more than 0")
    if height <= TWO_UP_TO_HEIGHT and mass <= TWO_UP_TO_MASS:
        return 2
    return 3 + max(0, math.ceil((height - THREE_UP_TO_HEIGHT) / ONE_MORE_PER))


@dataclass(frozen=True, slots=True, kw_only=True)
class ButtEnds:
    """How far butts are from the leaf's ends, mm."""

    from_top: float
    """From the leaf's top to the near end of the top butt."""
    from_bottom: float
    """From the leaf's foot to the near end of the bottom butt."""
    third_below: float
    """Gap between the top butt and the one under it, for the school that sets it so."""


def places_by_school(
    *, school: ButtSchool, count: int, height: float, length: float, ends: ButtEnds
) -> tuple[float, ...]:
    """Return the upper end of each butt, mm down from the leaf's top, from the top one down.

    Source: common practice, no source.

    Args:
        school: Whose rule decides how many and where.
        count: How many there are.
        height: Height, mm.
        length: Length of a butt, mm.
        ends: How far they are from the leaf's ends.

    Raises:
        InputError: Where they would not fit one above the other.

    >>> ends = ButtEnds(from_top=150, from_bottom=225, third_below=200)
    >>> places_by_school(school=ButtSchool.THIRD_CENTRED, count=3, height=2000, length=100, ends=ends)
    (150, 912.5, 1675)
    """
    from_top, from_bottom = ends.from_top, ends.from_bottom
    if school is ButtSchool.SEVEN_ELEVEN:
        from_top, from_bottom = SEVEN_INCHES, ELEVEN_INCHES
    first, last = from_top, height - from_bottom - length
    start, inner = first, count - 1
    tops: list[float] = [first]
    if school is ButtSchool.THIRD_HIGH and count > 2:
        start = first + length + ends.third_below
        tops.append(start)
        inner = count - 2
    tops += [start + (last - start) / inner * at for at in range(1, inner)]
    tops.append(last)
    if first < 0 or any(below - above < length for above, below in pairwise(tops)):
        raise InputError("height", height, f"room for {count} butts between its ends")
    return tuple(tops)
