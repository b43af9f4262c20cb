"""A figure read at the bench that is far from what was foretold: it is asked about before it is taken."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from oakmeasure.core.base.units import Show
from oakmeasure.core.document.production import LIMITS, ReadingKind, unit_of
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.timber.place import rests_at

if TYPE_CHECKING:
    from oakmeasure.core.design import LeafDesign

# How far a reading may be from what is foretold, in its unit and as a share of it, whichever is more: ours. Wider than
# wood and hands stray, narrower than a slip of the pen: a digit turned, a comma lost, the wrong kind taken.
STRAYS: dict[ReadingKind, tuple[float, float]] = {
    ReadingKind.THICKNESS: (2.5, 0.12),
    ReadingKind.BOARD_WIDTH: (20.0, 0.3),
    ReadingKind.LAST_RIP: (20.0, 0.3),
    ReadingKind.MOISTURE: (8.0, 0.0),
    ReadingKind.RISING: (12.0, 0.0),
    ReadingKind.FALLING: (12.0, 0.0),
    ReadingKind.SPREAD: (4.0, 0.0),
    ReadingKind.TWIST: (20.0, 0.0),
    ReadingKind.MASS: (3.0, 0.35),
}


def foretold(leaf: LeafDesign, kind: ReadingKind, part: str = "") -> float | None:
    """Return what a reading should come to by what is known of the leaf.

    Args:
        leaf: The leaf, set out with its hardware.
        kind: What is read.
        part: Name of the part, of a reading of a part.

    Returns:
        In the reading's unit; None where nothing foretells it.
    """
    if kind is ReadingKind.MOISTURE:
        return rests_at(leaf.leaf.timber)
    if kind in (ReadingKind.SPREAD, ReadingKind.TWIST):
        return 0.0
    if kind in (ReadingKind.BOARD_WIDTH, ReadingKind.LAST_RIP):
        parts = leaf.build.parts if leaf.build is not None else ()
        return next((each.planed.width for each in parts if each.name == part), None)
    if kind in (ReadingKind.RISING, ReadingKind.FALLING):
        sides = [each for name in ("glued_width", "glued_height") if (each := _value(leaf, name)) is not None]
        return math.hypot(*sides) if len(sides) == 2 else None
    names = ("thickness_set_out", "thickness") if kind is ReadingKind.THICKNESS else ("mass_reckoned", "mass")
    return next((each for name in names if (each := _value(leaf, name)) is not None), None)


def _value(leaf: LeafDesign, name: str) -> float | None:
    figure = leaf.figures.get(figure_name(name))
    return figure.value if figure is not None else None


def asked_about(leaf: LeafDesign, kind: ReadingKind, value: float, part: str, show: Show) -> str:
    """Return what is asked about a reading that is far from what is foretold; "" where it is near, or nothing is.

    Args:
        leaf: The leaf, set out with its hardware.
        kind: What is read.
        value: The reading, in its unit.
        part: Name of the part; "" for the leaf as a whole.
        show: How lengths and other quantities are written.
    """
    known = foretold(leaf, kind, part)
    low, high = LIMITS[kind]
    if known is None or not low <= value <= high:  # what no such reading can be is refused, not asked about
        return ""
    least, share = STRAYS[kind]
    if abs(value - known) <= max(least, share * known):
        return ""
    unit = unit_of(kind)
    return f"{show.value(value, unit)} is far from {show.value(known, unit)}, as it was reckoned: is it so?"
