"""Splices: new wood on an old stile, halved with ends that fall outwards, or a long scarf; lengths and how they look.

Coordinates are the leaf's, mm. Sources: common practice of the trade: halved 70 and more, staggered by 20 and more,
ends at 30° so that water runs out; 1 in 8 where the joint is loaded.
"""

from __future__ import annotations

import math

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.construction.existing.model import Splice
from oakmeasure.core.leaf.part import Rect

SCARF_SLOPE = 8.0
END_DEG = 30.0
HALVED_LEAST = 70.0
STAGGER_LEAST = 20.0


def splice_length(*, splice: Splice, lap: float, thickness: float) -> float:
    """Return how far a splice reaches into the old stile, mm: as set, or 8 × the thickness of a scarf.

    Args:
        splice: How the splice is made.
        lap: Length of the halving, mm; None for the rule's.
        thickness: Thickness of the leaf, mm.

    >>> splice_length(splice=Splice.SCARF, lap=75, thickness=40)
    320.0
    """
    return SCARF_SLOPE * thickness if splice is Splice.SCARF else lap


def spliced_stile(x: float, width: float, y0: float, y1: float, more: float, *, at_foot: bool) -> Rect:
    """Return what is seen of a new piece: what is added; its halving lies behind the old wood.

    Args:
        x: Where the stile's left edge is, mm from the hinge edge.
        width: Width of the stile, mm.
        y0: Its lower end, mm.
        y1: Its upper end, mm.
        more: How much further this splice reaches than the other one, mm.
        at_foot: Whether it is added at the foot, else at the head.
    """
    return Rect(x, y0, x + width, y1 + more) if at_foot else Rect(x, y0 - more, x + width, y1)


def splice_ends(
    across: tuple[float, float], start: float, lap: float, thickness: float, *, upward: bool
) -> list[tuple[Point, ...]]:
    """Return the lines of a splice on the face.

    They are the near and the far end of the halving, each falling outwards.

    Args:
        across: The stile's edges, mm from the hinge edge.
        start: Up to where the new wood is whole, mm from the foot.
        lap: Length of the halving, mm.
        thickness: Thickness of the leaf, mm.
        upward: Whether the halving runs up from there, as of a piece at the foot, else down.
    """
    x0, x1 = across
    drop = min(thickness / 2 * math.tan(math.radians(END_DEG)), lap / 2)
    far = start + lap if upward else start - lap
    return [((x0, end - drop / 2), (x1, end + drop / 2)) for end in (start, far)]
