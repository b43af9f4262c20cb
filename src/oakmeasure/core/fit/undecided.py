"""An opening that is measured before anybody has decided how the leaf hangs."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.context import Context
from oakmeasure.core.fit.shape import Fit, finished, square_edge
from oakmeasure.core.hang_choices import Hanging
from oakmeasure.core.survey.opening import Opening
from oakmeasure.core.verdicts import Level, Remedy, Stage
from oakmeasure.core.working import minus, plus, total


def fit_open(ctx: Context, opening: Opening) -> Fit:
    """Return the largest leaf that would stand in the opening, to be seen and not to be made."""
    f, add = ctx.figures, ctx.figures.add
    width = add(
        total("leaf_width", "leaf width", plus(opening.clear_width), minus(f["gap_hinge"]), minus(f["gap_latch"]))
    )
    height = add(
        total("leaf_height", "leaf height", plus(opening.clear_height), minus(f["gap_head"]), minus(f["gap_floor"]))
    )
    ctx.say(
        "hanging-open",
        Level.LOOK,
        Stage.FIT,
        "How it hangs is not decided",
        f"The opening is known: {ctx.show.size(opening.clear_width.value, opening.clear_height.value)} clear. "
        "The leaf follows from the way of hanging.",
        Remedy(f"Hang it {Hanging.LINING}", "hanging", Hanging.LINING),
        figure="clear_width",
    )
    at = (opening.hinge_in.value + f["gap_hinge"].value, opening.floor_high.value + f["gap_floor"].value)
    return replace(finished(ctx, width, height, square_edge(ctx), at=at), possible=False)
