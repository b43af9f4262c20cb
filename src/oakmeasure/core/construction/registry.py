"""Constructions, each a module that turns the fitted leaf into a `Build`.

To add one: write `construction/<kind>/build.py` with `build(ctx, fit, timber) -> Build` and
`inputs(ctx)`, give it a model with that `kind` in core/document/constructions.py,
add its line to CONSTRUCTIONS and a test that works one leaf by hand.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.core.fit.fit_result import Fit
    from oakmeasure.core.leaf.leaf_context import Context
    from oakmeasure.core.leaf.part import Build
    from oakmeasure.core.timber.choice import Timber

# kind -> (the trade's name, the module); a module is imported when the first leaf of its kind is solved.
CONSTRUCTIONS = {
    "framed": ("framed and panelled", "oakmeasure.core.construction.framed.build"),
    "boarded": ("boarded", "oakmeasure.core.construction.boarded.build"),
    "slab": ("solid slab", "oakmeasure.core.construction.slab.build"),
    "layered": ("layered from sheet", "oakmeasure.core.construction.layered.build"),
    "light": ("light face frame", "oakmeasure.core.construction.light.build"),
    "veneered": ("veneered, built up", "oakmeasure.core.construction.veneered.build"),
    "existing": ("a leaf that exists", "oakmeasure.core.construction.existing.build"),
}


def build_leaf(ctx: Context, fit: Fit, wood: Timber) -> Build:
    """Return the leaf of its construction, cut to its outline; then what its module does with that, if anything."""
    from oakmeasure.core.construction.clip_to_outline import shape_to

    module = import_module(CONSTRUCTIONS[ctx.leaf.build.kind][1])
    built: Build = shape_to(ctx, fit, module.build(ctx, fit, wood))
    return module.after(ctx, fit, wood, built) if hasattr(module, "after") else built


def inputs(ctx: Context) -> None:
    """Add what other stages need of the leaf before it is built: how thick it is."""
    import_module(CONSTRUCTIONS[ctx.leaf.build.kind][1]).inputs(ctx)
