"""From opening to leaf: each way of hanging is a module that turns an opening into a `Fit`.

To add one: a member of `Hanging` in core/document/hanging.py, with what is chosen for it; a function
`(ctx, opening) -> Fit`; its line in `fit`.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.core.fit.fit_result import Fit
    from oakmeasure.core.leaf.leaf_context import Context
    from oakmeasure.core.survey.clear_opening import Opening


def fit(ctx: Context, opening: Opening) -> Fit:
    """Return the leaf that hangs in the opening the way that is chosen, judged.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        opening: The clear opening.
    """
    from oakmeasure.core.document.hanging import Hanging
    from oakmeasure.core.fit import cabinet, even_reveal, hung, no_hanging, slide

    hanging = ctx.leaf.hanging
    if hanging is Hanging.OPEN:
        return no_hanging.fit_open(ctx, opening)
    if hanging.covers:
        return slide.fit_slide(ctx, opening)
    if hanging.lies_on:
        return cabinet.fit_overlay(ctx, opening)
    if hanging is Hanging.INSET:
        return cabinet.fit_inset(ctx, opening)
    fitted = hung.fit_hung(ctx, opening)
    if fitted.possible and even_reveal.is_the_aim(ctx.leaf):
        even_reveal.plane_to(ctx, fitted.width, fitted.height)
    return fitted
