"""A frame with a rebate, measured between its stops: the leaf lies in the rebate, wider and higher than what is seen.

Clear in the rebate = between the stops + a rebate at each side and at the head. Common practice, no source.
"""

from __future__ import annotations

from oakmeasure.core.base.geometry import Point
from oakmeasure.core.figures.check import Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.survey_result import Taken


def is_rebated(ctx: Context, taken: Taken) -> bool:
    """Return whether the readings are those between the stops of a rebate; say so where its shape forbids that.

    Args:
        ctx: The leaf's context: its choices are read, its checks added to.
        taken: The opening as it was taken.
    """
    if ctx.leaf.old_frame.rebate_side is None:
        return False
    if len(taken.corners) == 4 and taken.outline.is_upright and all(len(e.points) == 2 for e in taken.outline.edges):
        return True
    ctx.warn(
        "rebate-shape",
        "This frame has to be measured in its rebate",
        "Only of four straight sides what is between the stops tells what is between the rebates.",
        Remedy("Measure in the rebate, and leave its width empty", "old_frame.rebate_side", None),
    )
    return False


def between_rebates(
    ctx: Context, taken: Taken, sight: dict[str, Figure]
) -> tuple[dict[str, Figure], tuple[Point, Point, Point, Point]]:
    """Add the clear size in the rebate; return its figures and its corners.

    Args:
        ctx: The leaf's context: its choices are read, its figures added to.
        taken: The opening as it was taken, between the stops.
        sight: Figures of what is clear there.
    """
    frame, f = ctx.leaf.old_frame, ctx.figures
    assert frame.rebate_side is not None
    side = f.given(
        "frame_rebate", "rebate, the stop stands in at each side", frame.rebate_side, fixed("old_frame.rebate_side")
    )
    head = side
    if frame.rebate_head is not None:
        head = f.given(
            "frame_rebate_head",
            "rebate, the stop stands down at the head",
            frame.rebate_head,
            fixed("old_frame.rebate_head"),
        )
    found = {
        "hinge_side_in": f.total("hinge_side_in", "hinge side, furthest in", plus(sight["hinge_side_in"]), minus(side)),
        "latch_side_in": f.total("latch_side_in", "latch side, furthest in", plus(sight["latch_side_in"]), plus(side)),
        "head_low": f.total("head_low", "head, lowest", plus(sight["head_low"]), plus(head)),
        "floor_high": f.total("floor_high", "floor, highest under the leaf", plus(sight["floor_high"])),
        "clear_width": f.total(
            "clear_width", "clear width between the rebates", plus(sight["clear_width"]), plus(side, 2)
        ),
        "clear_height": f.total(
            "clear_height", "clear height under the rebate", plus(sight["clear_height"]), plus(head)
        ),
    }
    out, up = side.value, head.value
    corners = (
        (taken.hinge_foot[0] - out, taken.hinge_foot[1]),
        (taken.latch_foot[0] + out, taken.latch_foot[1]),
        (taken.latch_head[0] + out, taken.latch_head[1] + up),
        (taken.hinge_head[0] - out, taken.hinge_head[1] + up),
    )
    return found, corners
