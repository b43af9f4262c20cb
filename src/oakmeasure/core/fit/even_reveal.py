"""An even gap as the aim: the leaf is left full and hung, its hinges make a gap, the other sides are planed to it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from oakmeasure.core.base.errors import InputError
from oakmeasure.core.base.units import HAIR, Unit
from oakmeasure.core.document.hanging import EvenGap, Hanging
from oakmeasure.core.document.job import Leaf
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, Origin, Term, derived, fixed, minus, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.leaf.leaf_context import Context

CARD = 0.5  # mm that a leaf left full has at an edge to go in by: common practice, no source
WORTH = 0.05  # mm left on, from which it is worth a step


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
    label = "gap that the hinges were let in for"
    ctx.chosen("gap_wanted", label, ctx.leaf.fit.gap_hinge, "fit.gap_hinge", rule="gap_hinge")
    made = _made(ctx, choice)
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
    origin = fixed("fit.even.gap", source="as the hinges are let in for, until it is read")
    made = ctx.figures.given("gap_made", label, ctx.figures["gap_wanted"].value, origin)
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
    full_width, full_height = _full(ctx, width, height)
    shaving = ctx.rule("shaving", "one stroke of the plane takes")
    sums = {
        "latch edge": (plus(full_width), minus(width)),
        "top": (plus(full_height, 0.5), minus(height, 0.5)),
        "foot": (plus(full_height, 0.5), minus(height, 0.5)),
    }
    planed = tuple(_planing(ctx, edge, terms, shaving) for edge, terms in sums.items())
    _judge(ctx, planed)
    return planed


def _full(ctx: Context, width: Figure, height: Figure) -> tuple[Figure, Figure]:
    """Add width and height of the leaf as it is hung full: as read, else as it goes in by a card at each edge.

    The hinge edge is true already. Neither depends on the gap that came: the leaf was planed before it.
    """
    choice, f = ctx.leaf.fit.even, ctx.figures
    assert choice is not None
    wanted, made = f["gap_wanted"], f["gap_made"]
    how = f"what is left on to trim; no more than leaves {ctx.fmt(CARD)} to go in by"
    side = max(0.0, min(f["trim_side"].value, wanted.value - CARD))
    left_side = f.derived(
        "left_full_side", "left on at the latch edge for hanging", side, f["trim_side"], wanted, formula=how
    )
    end = max(0.0, min(f["trim_height"].value, wanted.value - CARD))
    left_end = f.derived(
        "left_full_end", "left on at head and foot each for hanging", end, f["trim_height"], wanted, formula=how
    )
    sides = 2 if ctx.leaf.hanging.is_cabinet else 1
    full_width = (
        ctx.reading("full_width", "leaf as it hangs, width", choice.full_width, "fit.even.full_width")
        if choice.full_width is not None
        else f.total(
            "full_width", "leaf as it hangs, width", plus(width), plus(made, 2), minus(wanted, 2), plus(left_side)
        )
    )
    full_height = (
        ctx.reading("full_height", "leaf as it hangs, height", choice.full_height, "fit.even.full_height")
        if choice.full_height is not None
        else f.total(
            "full_height",
            "leaf as it hangs, height",
            plus(height),
            plus(made, sides),
            minus(wanted, sides),
            plus(left_end, 2),
        )
    )
    if choice.full_width is None and side < WORTH:
        least = max(CARD, round(wanted.value - CARD, 1))
        ctx.warn(
            "none-left-full",
            "Nothing is left on to plane once it hangs",
            f"{ctx.fmt(f['trim_side'])} a side is left on to trim and the hinges are let in for {ctx.fmt(wanted)}: "
            "the latch edge cannot follow a gap that comes out less.",
            *(
                [Remedy(f"Leave {ctx.fmt(least)} a side to trim", "fit.trim_side", least)]
                if f["trim_side"].value < least < wanted.value
                else [Remedy("Take a wider gap at the hinges")]
            ),
            grounds=Grounds("left_full_side"),
        )
    return full_width, full_height


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
            Remedy("Pack the hinges by half of what is missing, and read the gap again"),
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
