"""Constructions, each a module that turns the fitted leaf into a `Build`.

To add one: write `build/<kind>.py` with `build(ctx, fit, timber) -> Build` and `inputs(ctx)`, give it a model with
that `kind` in build_choices.py, add its line to CONSTRUCTIONS and a test that works one leaf by hand.
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from oakmeasure.core.build.shape import Build
    from oakmeasure.core.context import Context

# kind -> (the trade's name, the module); a module is imported when the first leaf of its kind is solved.
CONSTRUCTIONS = {
    "framed": ("framed and panelled", "oakmeasure.core.build.framed"),
    "boarded": ("boarded", "oakmeasure.core.build.boarded"),
    "slab": ("solid slab", "oakmeasure.core.build.slab"),
}


def builder(kind: str) -> Callable[..., Build]:
    """Return the function that builds leaves of `kind`; KeyError when there is none."""
    return import_module(CONSTRUCTIONS[kind][1]).build


def inputs(ctx: Context) -> None:
    """Add what other stages need of the leaf before it is built: how thick it is."""
    import_module(CONSTRUCTIONS[ctx.leaf.build.kind][1]).inputs(ctx)
