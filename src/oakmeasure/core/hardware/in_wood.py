"""No cut is listed that its wood cannot hold: one beyond the leaf is left out, and said where nothing says it yet."""

from __future__ import annotations

from collections.abc import Sequence

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.body.pieces import Body, meets
from oakmeasure.core.figures.check import Grounds, Level, Remedy, Stage
from oakmeasure.core.hardware.boring import Boring, Device
from oakmeasure.core.leaf.leaf_context import Context


def in_wood(ctx: Context, body: Body, borings: Sequence[Boring]) -> tuple[Boring, ...]:
    """Return the cuts that lie in the leaf's wood, and those in what carries it.

    What asks for the others, a bore wider than the edge or a lock beyond the leaf's end, is told by a check of its
    own; a stop is added where none of the hardware's stands.

    Args:
        ctx: The leaf's context: its checks are added to.
        body: The leaf's pieces in place.
        borings: What is to be cut for hardware.
    """
    gone = [each for each in borings if not _lies_in(body, each)]
    devices = {_device(each) for each in gone}
    if gone and not any(c.level is Level.STOP and c.stage is Stage.HARDWARE for c in ctx.checks_so_far.items):
        named = ", ".join(dict.fromkeys(each.name for each in gone))
        ctx.stop(
            "cut-outside",
            "There is no wood where something is to be cut",
            f"Beyond the leaf, or wider than it is thick: {named}.",
            Remedy("Smaller hardware, or further in from the leaf's ends"),
            grounds=Grounds("thickness", gone[0].ref),
        )
    return tuple(each for each in borings if _device(each) not in devices)


def _device(boring: Boring) -> tuple[Device, int]:
    """Return what a cut is for: of a device that cannot be let in, nothing is cut at all."""
    device = boring.kind.device
    return (Device.CUP if device is Device.PLATE else device), boring.number


def _lies_in(body: Body, boring: Boring) -> bool:
    solid = boring.solid
    if solid is None:
        return True
    x0, y0, x1, y1 = solid.box
    faces = body.over_all if boring.side.surface.is_face else body.along("hinge")
    return (
        min(x0, y0) >= -HAIR
        and x1 <= body.width + HAIR
        and y1 <= body.height + HAIR
        and solid.depth[0] >= faces[0] - HAIR
        and solid.depth[1] <= faces[1] + HAIR
        and any(meets(piece, solid) for piece in body.pieces)
    )
