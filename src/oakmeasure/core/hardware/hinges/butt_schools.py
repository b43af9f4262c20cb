"""How many butts a leaf wants, and where each school of the trade sets them."""

from __future__ import annotations

import math
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


def places_by_school(
    *,
    school: ButtSchool,
    count: int,
    height: float,
    length: float,
    from_top: float,
    from_bottom: float,
    third_below: float,
) -> tuple[float, ...]:
    """Return the upper end of each butt, mm down from the leaf's top, from the top one down.

    Source: common practice, no source.

    Args:
        school: Whose rule decides how many and where.
        count: How many there are.
        height: Height, mm.
        length: Length of a butt, mm.
        from_top: From the leaf's top to the near end of the top butt, mm.
        from_bottom: From the leaf's foot to the near end of the bottom butt, mm.
        third_below: Gap between the top butt and the one under it, mm, for the school that sets it so.

    Raises:
        InputError: Where they would not fit one above the other.

    >>> places_by_school(school=ButtSchool.THIRD_CENTRED, count=3, height=2000, length=100, from_top=150,
    ...                  from_bottom=225, third_below=200)
    (150, 912.5, 1675)
    """
    if school is ButtSchool.SEVEN_ELEVEN:
        from_top, from_bottom = SEVEN_INCHES, ELEVEN_INCHES
    first, last = from_top, height - from_bottom - length
    start, inner = first, count - 1
    tops: list[float] = [first]
    if school is ButtSchool.THIRD_HIGH and count > 2:
        start = first + length + third_below
        tops.append(start)
        inner = count - 2
    tops += [start + (last - start) / inner * at for at in range(1, inner)]
    tops.append(last)
    if first < 0 or any(below - above < length for above, below in pairwise(tops)):
        raise InputError("height", height, f"room for {count} butts between its ends")
    return tuple(tops)
