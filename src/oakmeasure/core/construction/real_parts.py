"""Parts that come to nothing are no parts: they are left out, and what is missing is said where nothing says it yet."""

from __future__ import annotations

from dataclasses import replace

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.figures.check import Grounds, Level, Remedy
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build, Part

NAMED = 3  # so many missing parts are called by their names


def least_size(part: Part) -> float:
    """Return the least of a part's sizes, sawn, glued and hung, mm.

    Args:
        part: The part.
    """
    sizes = (part.finished, part.planed, part.rough)
    return min(min(each.length, each.width, each.thickness) for each in sizes)


def real_parts(ctx: Context, build: Build) -> Build:
    """Return a leaf without the parts that have no size, nor what holds them; numbered anew.

    What leaves no room for them, rails that meet or a brace wider than its field, is told by a check of its own; a
    stop is added where no other of the leaf stands.

    Args:
        ctx: The leaf's context: its checks are added to.
        build: The leaf as it was set out.
    """
    gone = [each for each in build.parts if least_size(each) <= HAIR]
    if not gone:
        return build
    if not any(each.level is Level.STOP and each.stage is ctx.stage for each in ctx.checks_so_far.items):
        named = ", ".join(each.name for each in gone[:NAMED]) + (", …" if len(gone) > NAMED else "")
        ctx.stop(
            "part-gone",
            "No wood is left for a part",
            f"There is no room for {named}.",
            Remedy("A larger leaf, narrower members, or less off its edges"),
            grounds=Grounds("leaf_width"),
        )
    names = {each.name for each in gone}
    kept = [each for each in build.parts if each.name not in names or least_size(each) > HAIR]
    left = {each.name for each in kept}
    return replace(
        build,
        parts=tuple(replace(each, mark=str(at)) for at, each in enumerate(kept, start=1)),
        tenons=tuple(each for each in build.tenons if each.member in left),
        fixings=tuple(each for each in build.fixings if each.ref.removeprefix("part:") not in names - left),
    )
