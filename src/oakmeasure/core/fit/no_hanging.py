"""An opening that is measured before anybody has decided how the leaf hangs."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.document.hanging import Hanging
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.fit.fit_result import Fit, finished, size_inside, square_edge
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.survey.clear_opening import Opening


def fit_open(ctx: Context, opening: Opening) -> Fit:
    """Return the largest leaf that would stand in the opening, to be seen and not to be made.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
    """
    width, height, at = size_inside(ctx, opening)
    ctx.warn(
        "hanging-open",
        "How it hangs is not decided",
        f"The opening is known: {ctx.show.size(opening.clear_width.value, opening.clear_height.value)} clear. "
        "The leaf follows from the way of hanging.",
        Remedy(f"Hang it {Hanging.LINING}", "hanging", Hanging.LINING),
        grounds=Grounds("clear_width"),
    )
    return replace(finished(ctx, width, height, square_edge(ctx), at=at), possible=False)
