"""The gap along every edge of a square leaf that stands in its opening."""

from __future__ import annotations

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
        "hinge side": (("at the foot", x0 - opening.hinge_foot[0]), ("at the head", x0 - opening.hinge_head[0])),
        "latch side": (("at the foot", opening.latch_foot[0] - x1), ("at the head", opening.latch_head[0] - x1)),
        "head": (("at the hinges", opening.hinge_head[1] - y1), ("at the latch", opening.latch_head[1] - y1)),
        "floor": (("at the hinges", y0 - opening.hinge_foot[1]), ("at the latch", y0 - opening.latch_foot[1])),
    }
    uneven = False
    for edge, ((first, one), (second, other)) in ends.items():
        if is_scribed:
            asked = ctx.figures[figure_name(f"gap_{edge.split()[0]}")].value
            one = other = asked
        for where, value in ((first, one), (second, other)):
            name = f"gap_{edge.split()[0]}_{where.split()[-1]}"
            ctx.figures.derived(
                figure_name(name),
                f"gap, {edge}, {where}",
                value,
                opening.clear_width,
                width,
                formula="from the adjusted corner to the square leaf",
            )
        if abs(one - other) > UNEVEN:
            uneven = True
            ctx.warn(
                f"uneven-{edge.split()[0]}",
                f"The gap along the {edge} is uneven",
                f"A square leaf leaves {ctx.fmt(one)} {first} and {ctx.fmt(other)} {second}.",
                Remedy("Pack the lining, or scribe that edge out of the trimming allowance"),
                grounds=Grounds(
                    f"gap_{edge.split()[0]}_{first.split()[-1]}",
                    f"edge:{edge.split()[0]}",
                    rule=f"a difference over {ctx.fmt(UNEVEN)} shows",
                ),
            )
    if not uneven and not is_scribed:
        ctx.fine(
            "even",
            "The gaps are even",
            f"A square leaf keeps every gap within {ctx.fmt(UNEVEN)} along its edge.",
            grounds=Grounds("leaf_width"),
        )
