"""An even gap as the aim: the leaf is left full and hung, its hinges make a gap, the other sides are planed to it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.document.hanging import EvenGap, Hanging
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin, Term, derived, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context


def strokes(off: float, *, shaving: float) -> int:
    """Return how many strokes of the plane take `off` mm away, each a shaving thick.

    0 where nothing is to come off.

    Args:
        off: What is to come off, mm.
        shaving: Thickness of one shaving, mm.

    Raises:
        InputError: For a shaving of no thickness.

    >>> strokes(1.1, shaving=0.1)
    11
    """
    if shaving <= 0:
        raise InputError("shaving", shaving, "more than 0")
    return max(0, math.ceil(off / shaving - 1e-9))


def is_the_aim(leaf: Leaf) -> bool:
    """Return whether the leaf is left full and sized to the gap that its hinges make.

    Args:
        leaf: The leaf, as the document holds it.
    """
    return leaf.fit.even is not None and leaf.hanging in (Hanging.LINING, Hanging.INSET_BUTTS)


def add_made_gaps(ctx: Context) -> None:
    """Add the gap that the hinges made, and the same at every other side; over a floor the chosen one stays.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
    """
    choice = ctx.leaf.fit.even
    assert choice is not None
    made = _made(ctx, choice)
    label = "gap that the hinges were let in for"
    ctx.chosen("gap_wanted", label, ctx.leaf.fit.gap_hinge, "fit.gap_hinge", rule="gap_hinge")
    edges = [("hinge", "at the hinges"), ("latch", "at the latch"), ("head", "at the head")]
    if ctx.leaf.hanging.is_cabinet:
        edges.append(("floor", "at the foot"))
    for edge, where in edges:
        ctx.figures.total(
            figure_name(f"gap_{edge}"), f"gap {where}", plus(made), source="even with the one at the hinges"
        )
    if not ctx.leaf.hanging.is_cabinet:
        ctx.chosen("gap_floor", "gap over the floor", ctx.leaf.fit.gap_floor, "fit.gap_floor")


def _made(ctx: Context, choice: EvenGap) -> Figure:
    """Add the gap at the hinges: by a feeler, by its shims, or, before the leaf is hung, as the rules have it."""
    label = "gap that the hinges made"
    if choice.gap is not None:
        return ctx.reading("gap_made", label, choice.gap, "fit.even.gap", source="read with a feeler")
    terms: list[Term] = []
    for at, each in enumerate(choice.shims, start=1):
        name, edit = f"shim of {ctx.show.length(each.thickness)}", f"fit.even.shims.{at - 1}.thickness"
        shim = ctx.figures.given(figure_name(f"shim_{at}"), name, each.thickness, Origin(edit=edit))
        terms.append(plus(shim, each.count))
    if terms:
        return ctx.figures.total("gap_made", label, *terms, source="the stack that just fills it")
    made = ctx.chosen("gap_made", label, None, "fit.even.gap", rule="gap_hinge")
    ctx.warn(
        "not-hung",
        "Hang it full, then read the gap",
        f"The other sides are sized to the gap that the hinges make; until it is read, {ctx.fmt(made)} is taken.",
        Remedy("Fill the gap with shims and enter them"),
        grounds=Grounds("gap_made"),
    )
    return made


@dataclass(frozen=True, slots=True)
class Planing:
    """What comes off one edge of a leaf that was left full."""

    edge: str
    """Which edge is planed."""
    off: Figure
    """What comes off it at the most, mm."""
    strokes: Figure
    """How many strokes of the plane that is."""


def plane_to(ctx: Context, width: Figure, height: Figure) -> tuple[Planing, ...]:
    """Add what is planed off the leaf that hangs full: all of the width at the latch, the height at head and foot.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        width: Width, mm.
        height: Height, mm.
    """
    choice, f = ctx.leaf.fit.even, ctx.figures
    assert choice is not None
    full_width = (
        ctx.reading("full_width", "leaf as it hangs, width", choice.full_width, "fit.even.full_width")
        if choice.full_width is not None
        else f["glued_width"]
    )
    full_height = (
        ctx.reading("full_height", "leaf as it hangs, height", choice.full_height, "fit.even.full_height")
        if choice.full_height is not None
        else f["glued_height"]
    )
    shaving = ctx.rule("shaving", "one stroke of the plane takes")
    sums = {
        "latch edge": (plus(full_width), minus(width)),
        "top": (plus(full_height, 0.5), minus(height, 0.5)),
        "foot": (plus(full_height, 0.5), minus(height, 0.5)),
    }
    planed = tuple(_planing(ctx, edge, terms, shaving) for edge, terms in sums.items())
    _judge(ctx, planed)
    return planed


def _planing(ctx: Context, edge: str, terms: tuple[Term, ...], shaving: Figure) -> Planing:
    slug = edge.replace(" ", "_")
    off = ctx.figures.total(figure_name(f"plane_{slug}"), f"to plane off the {edge}", *terms)
    count = strokes(off.value, shaving=shaving.value)
    how = "what comes off ÷ a shaving, rounded up"
    counted = derived(
        figure_name(f"strokes_{slug}"), f"strokes along the {edge}", count, off, shaving, formula=how, unit=Unit.COUNT
    )
    return Planing(edge, off, ctx.figures.add(counted))


def _judge(ctx: Context, planed: tuple[Planing, ...]) -> None:
    made = ctx.figures["gap_made"]
    missing = [each for each in planed if each.off.value < -HAIR]
    if missing:
        words = "; ".join(f"{ctx.fmt(-each.off.value)} at the {each.edge}" for each in missing)
        ctx.stop(
            "not-full",
            "The leaf was not left full enough",
            f"To an even gap of {ctx.fmt(made)} wood is missing: {words}.",
            Remedy("Let the hinges in deeper, or take a wider gap"),
            grounds=Grounds(missing[0].off.name),
        )
        return
    words = ", ".join(f"{ctx.fmt(each.off)} off the {each.edge} ({each.strokes.value:.0f} strokes)" for each in planed)
    ctx.fine(
        "even-gap",
        f"Even gap of {ctx.fmt(made)}",
        f"The hinges made it; the other sides follow: {words}.",
        Remedy("Plane to the line; count the strokes to keep the edge straight"),
        grounds=Grounds("plane_latch_edge"),
    )
