"""The gap along every edge of a square leaf that stands in its opening."""

from __future__ import annotations

from oakmeasure.core.document.readings import Side
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening

UNEVEN = 3.0  # a gap that varies by more than this shows: common practice, no source


def gaps_along(
    ctx: Context, opening: Opening, width: Figure, height: Figure, at: tuple[float, float], *, is_scribed: bool = False
) -> None:
    """Add the gap at both ends of every edge; say where a square leaf leaves an uneven one.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
        width: Width, mm.
        height: Height, mm.
        at: Hinge edge and foot of the leaf, mm in the opening's coordinates.
        is_scribed: Whether the leaf is scribed; each gap is then what was asked.
    """
    x0, y0 = at
    x1, y1 = x0 + width.value, y0 + height.value
    ends = {
        Side.HINGE: (("foot", x0 - opening.hinge_foot[0]), ("head", x0 - opening.hinge_head[0])),
        Side.LATCH: (("foot", opening.latch_foot[0] - x1), ("head", opening.latch_head[0] - x1)),
        Side.HEAD: (("hinges", opening.hinge_head[1] - y1), ("latch", opening.latch_head[1] - y1)),
        Side.FLOOR: (("hinges", y0 - opening.hinge_foot[1]), ("latch", y0 - opening.latch_foot[1])),
    }
    uneven = False
    for side, ((first, one), (second, other)) in ends.items():
        if is_scribed:
            one = other = ctx.figures[figure_name(f"gap_{side.slug}")].value
        for where, value in ((first, one), (second, other)):
            ctx.figures.derived(
                figure_name(f"gap_{side.slug}_{where}"),
                f"gap, {side}, at the {where}",
                value,
                opening.clear_width,
                width,
                formula="from the adjusted corner to the square leaf",
            )
        if abs(one - other) > UNEVEN:
            uneven = True
            ctx.warn(
                f"uneven-{side.slug}",
                f"The gap along the {side} is uneven",
                f"A square leaf leaves {ctx.fmt(one)} at the {first} and {ctx.fmt(other)} at the {second}.",
                Remedy("Pack the lining, or scribe that edge out of the trimming allowance"),
                grounds=Grounds(
                    f"gap_{side.slug}_{first}", f"edge:{side.slug}", rule=f"a difference over {ctx.fmt(UNEVEN)} shows"
                ),
            )
    if not uneven and not is_scribed:
        ctx.fine(
            "even",
            "The gaps are even",
            f"A square leaf keeps every gap within {ctx.fmt(UNEVEN)} along its edge.",
            grounds=Grounds("leaf_width"),
        )
