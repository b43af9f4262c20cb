"""Under a raked head a leaf has two tops: a cut says from which of them it is measured."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.hardware.boring import Boring, CutSide, Datum


def from_edge_tops(borings: Iterable[Boring], tops: tuple[float, float]) -> tuple[Boring, ...]:
    """Return the cuts with the edge named from whose top they are measured, where the leaf's two edges differ.

    Args:
        borings: What is cut for hardware.
        tops: Upper ends of the hinge edge and of the latch edge, mm.
    """
    if abs(tops[0] - tops[1]) < HAIR:
        return tuple(borings)
    return tuple(replace(each, datum=datum) if (datum := _edge_datum(each)) is not None else each for each in borings)


def _edge_datum(boring: Boring) -> Datum | None:
    if boring.datum is not Datum.LEAF_TOP:
        return None
    if boring.side.is_measured_from_hinge:
        return Datum.HINGE_EDGE_TOP
    is_latch = boring.side.is_measured_from_latch or boring.side is CutSide.MEETING_EDGE
    return Datum.LATCH_EDGE_TOP if is_latch else None
