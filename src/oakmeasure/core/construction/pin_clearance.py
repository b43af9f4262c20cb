"""Pins and screws that would meet the lock or the hinges: refused before they are driven.

Sources: common practice of the trade.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from oakmeasure.core.base.prisms import Solid, apart_in_depth
from oakmeasure.core.base.units import Unit, counted
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import fixed
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Fixing

DEPTH_CLEAR = 2.0  # under or over a pin's point: common practice, no source


def keep_clear(ctx: Context, build: Build, outs: Mapping[str, Solid]) -> Build:
    """Return a layered build without the pins that would meet what is cut or driven, and say which those are.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        outs: What it is and the block that it needs.
    """
    if not build.layered or not build.fixings:
        return build
    kept: list[Fixing] = []
    refused: list[Fixing] = []
    names: list[str] = []
    for each in build.fixings:
        met = [name for name, out in outs.items() if _meets(each, out)]
        (refused if met else kept).append(each)
        names += met
    what = build.fixings[0].what
    count = ctx.figures.given(
        "pins_count", f"{what}, a face", len(kept), fixed(source="as set out, less those refused"), unit=Unit.COUNT
    )
    if refused:
        listed = ", ".join(dict.fromkeys(names))
        ctx.fine(
            "pins-refused",
            f"{counted(len(refused), what.removesuffix('s'))} left out",
            f"They would meet {listed}; {ctx.fmt(count)} are driven. Those left out are marked on the drawing.",
            Remedy("Clamp there until the glue has set"),
            grounds=Grounds("pins_count", rule="none where anything will be cut or bored"),
        )
    return replace(build, fixings=tuple(kept), refused=tuple(refused))


def _meets(pin: Fixing, out: Solid) -> bool:
    x0, y0, x1, y1 = out.box
    return x0 <= pin.x <= x1 and y0 <= pin.y <= y1 and apart_in_depth(pin.depth, out.depth) < DEPTH_CLEAR
