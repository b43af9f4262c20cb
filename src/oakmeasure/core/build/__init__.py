"""Constructions, each a module that turns the fitted leaf into a `Build`.

To add one: write `build/<kind>.py` with `build(ctx, fit, timber) -> Build` and `inputs(ctx)`, give it a model with
that `kind` in build_choices.py, add its line to CONSTRUCTIONS and a test that works one leaf by hand.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.core.build.shape import Build
    from oakmeasure.core.context import Context
    from oakmeasure.core.fit.shape import Fit
    from oakmeasure.core.timber.choice import Timber

# kind -> (the trade's name, the module); a module is imported when the first leaf of its kind is solved.
CONSTRUCTIONS = {
    "framed": ("framed and panelled", "oakmeasure.core.build.framed"),
    "boarded": ("boarded", "oakmeasure.core.build.boarded"),
    "slab": ("solid slab", "oakmeasure.core.build.slab"),
    "layered": ("layered from sheet", "oakmeasure.core.build.layered"),
    "light": ("light face frame", "oakmeasure.core.build.light"),
    "veneered": ("veneered, built up", "oakmeasure.core.build.veneered"),
    "existing": ("a leaf that exists", "oakmeasure.core.build.existing"),
}


def build_leaf(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the leaf of its construction, cut to its outline; then what its module does with that, if anything."""
    from oakmeasure.core.build.shaped import shape_to

    module = import_module(CONSTRUCTIONS[ctx.leaf.build.kind][1])
    built: Build = shape_to(ctx, fit, module.build(ctx, fit, wood))
    return module.after(ctx, fit, wood, built) if hasattr(module, "after") else built


def inputs(ctx: Context) -> None:
    """Add what other stages need of the leaf before it is built: how thick it is."""
    import_module(CONSTRUCTIONS[ctx.leaf.build.kind][1]).inputs(ctx)
