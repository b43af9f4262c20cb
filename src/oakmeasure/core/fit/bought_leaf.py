"""Make, alter or buy: the slab of a common size that comes nearest, and what altering it would take off or put on."""

from __future__ import annotations

from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, minus, plus
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.data import table

# Less is a cupboard's leaf: nobody sells slabs for it
DOOR_WIDTH = 450.0
DOOR_HEIGHT = 1700.0
FAR = 120.0  # a slab that is this much too large is another door


@dataclass(frozen=True, slots=True)
class Alteration:
    """A bought slab against the leaf that is wanted, mm."""

    width: float
    """What comes off its width, mm."""
    height: float
    """What comes off its height, mm."""
    off_width: float
    """What is to come off its width, mm."""
    off_height: float
    """What is to come off its height, mm."""

    @property
    def each_edge(self) -> float:
        """What comes off each upright edge, mm."""
        return self.off_width / 2


def left_after(*, depth: float, off: float) -> float:
    """Return what is left of a groove, or of a solid edge, after so much is taken off its edge, mm.

    Args:
        depth: Depth of the groove, or of the solid edge, mm.
        off: What is taken off the edge, mm.

    Raises:
        InputError: Where more comes off than there is: it is gone.

    >>> left_after(depth=20, off=5)
    15
    """
    if off > depth:
        raise InputError("off", off, f"at most {depth:g} mm: nothing of it would be left")
    return depth - off


def nearest_slab(*, width: float, height: float, sizes: list[tuple[float, float]]) -> Alteration | None:
    """Return the slab from which least wood comes off; None where every one is too small or far off.

    Source: the areas taken off, compared.

    Args:
        width: Of the leaf that is wanted, mm.
        height: Of the leaf that is wanted, mm.
        sizes: Width, height and thickness of the slabs that are sold, mm.

    >>> nearest_slab(width=703, height=2032, sizes=[(762, 1981), (709, 2040)]).each_edge
    3.0
    """
    fitting = [
        Alteration(w, h, w - width, h - height)
        for w, h in sizes
        if 0 <= w - width + 1e-9 <= FAR and 0 <= h - height + 1e-9 <= FAR
    ]
    return min(fitting, key=lambda each: each.width * each.height, default=None)


def slab_sizes() -> list[tuple[float, float]]:
    """Return the widths and heights in which slabs are commonly sold, mm."""
    return [(float(w), float(h)) for w, h in table("stock_sizes")["site"]["sizes"]]


def buy_or_make(ctx: Context, width: Figure, height: Figure) -> None:
    """Say which slab could be bought for the leaf, and whether its solid edge would take the trimming.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        width: Width, mm.
        height: Height, mm.
    """
    if width.value < DOOR_WIDTH or height.value < DOOR_HEIGHT or ctx.leaf.slide.size_height is not None:
        return
    found = nearest_slab(width=width.value, height=height.value, sizes=slab_sizes())
    if found is None:
        ctx.fine(
            "stock",
            "To be made: no common slab will do",
            f"None is as large as {ctx.show.size(width.value, height.value)} and near it.",
            grounds=Grounds("leaf_width", rule="common sizes of slabs"),
        )
        return
    f = ctx.figures
    slab_width = f.given("slab_width", "nearest slab, width", found.width, fixed(source="common sizes of slabs"))
    slab_height = f.given("slab_height", "nearest slab, height", found.height, fixed(source="common sizes of slabs"))
    solid = ctx.rule("solid_edge", "solid edge of a bought slab")
    off = f.total("slab_off", "off each upright edge of the slab", plus(slab_width, 0.5), minus(width, 0.5))
    f.total("slab_off_height", "off its height", plus(slab_height), minus(height))
    size = ctx.show.size(found.width, found.height)
    words = f"{ctx.fmt(off)} off each edge and {ctx.fmt(found.off_height)} off the height."
    if off.value > solid.value:
        ctx.fine(
            "stock",
            "To be made: the nearest slab has too little edge",
            f"{size}: {words} Its solid edge is {ctx.fmt(solid)}.",
            Remedy("Or line the opening for the slab"),
            grounds=Grounds("slab_off", rule="no more off than is solid"),
        )
        return
    rest = f.derived(
        "slab_edge_left",
        "solid edge left on the slab",
        left_after(depth=solid.value, off=off.value),
        solid,
        off,
        formula="solid edge − what comes off",
    )
    ctx.fine(
        "stock",
        f"A slab of {size} could be altered",
        f"{words} {ctx.fmt(rest)} of its solid edge is left; seal what is cut.",
        grounds=Grounds("slab_off", rule="common sizes of slabs"),
    )
