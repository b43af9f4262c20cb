"""What stands between wall and leaf of a sliding door: track, stand-off, leaf."""

from __future__ import annotations

import math

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.document.readings import Side
from oakmeasure.core.document.sliding_gear import LEAST_BACKING
from oakmeasure.core.figures.check import Grounds, Remedy
from oakmeasure.core.figures.figure import Figure, fixed, given, plus
from oakmeasure.core.figures.names import figure_name
from oakmeasure.core.fit.bypass_sums import missing_backing
from oakmeasure.core.fit.gear import from_set
from oakmeasure.core.leaf.leaf_context import Context


def stack_up(ctx: Context, leaves: int) -> None:
    """From the wall outward: what stands out, air, leaf, air, second leaf.

    Against the track and against the wish.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        leaves: How many leaves slide.
    """
    choice, f = ctx.leaf.slide, ctx.figures
    outs = [
        f[figure_name(f"in_the_way_{at}")]
        for at, each in enumerate(ctx.leaf.in_the_way, start=1)
        if each.stands_out.value > 0 and each.where is not Side.FLOOR
    ]
    air = f.given(
        "slide_air", "air between leaf and what it passes", choice.running_clearance, fixed("slide.running_clearance")
    )
    most = max(outs, key=lambda each: each.value, default=None)
    terms = [plus(air)] if most is None else [plus(most), plus(air)]
    back = f.total("back_off", "wall to the leaf's back, at the least", *terms)
    thick = f.get("thickness_over") or f["thickness"]
    off = _stand_off(ctx)
    # A track holds its leaf further out than it need be; where it lacks something, a backing board will.
    held = off if off is not None and off.value > back.value else back
    out = f.total(
        "stands_out",
        "stands out of the wall",
        plus(held),
        plus(thick),
        *([plus(air), plus(thick)] if leaves == 2 else []),
    )
    if off is not None:
        _backing(ctx, back, off, most.label.partition(",")[0] if most is not None else "wall", air)
    if choice.projection is not None:
        wish = f.given("projection", "wished: stands out no more than", choice.projection, fixed("slide.projection"))
        over = out.value - wish.value
        if over > HAIR:
            thinner = thick.value - over / leaves
            words = (
                f"What stands behind it takes {ctx.fmt(back)}"
                if most is not None and held is back
                else "Wall and air take their part"
                if held is back
                else f"Its track holds it {ctx.fmt(held)} off the wall"
            )
            ctx.warn(
                "projection",
                "It stands out more than was wished",
                f"{ctx.fmt(out)}, {ctx.fmt(over)} over the wish of {ctx.fmt(wish)}. {words}.",
                *([ctx.thickness_remedy(f"Leaves of {ctx.fmt(thinner)}", thinner)] if thinner >= 16 else []),
                Remedy(f"Or give the wish up: {ctx.fmt(out)}", "slide.projection", out.value),
                Remedy("Or move what stands behind"),
                grounds=Grounds("stands_out", rule="a wish, with its price"),
            )


def _backing(ctx: Context, back: Figure, off: Figure, behind: str, air: Figure) -> None:
    """Judge the track's stand-off against what the leaf must pass; behind: what stands out most there."""
    f = ctx.figures
    wall = ctx.leaf.hardware.wall
    missing = missing_backing(needed=back.value, stand_off=off.value)
    f.derived(
        "backing",
        "backing board that is missing",
        missing,
        back,
        off,
        formula="what the leaf must pass less the track's stand-off",
    )
    if missing > 0:
        board = f.derived(
            "backing_board",
            "backing board, at the least",
            _board(wall.backing + missing),
            f["backing"],
            *([f["wall_backing"]] if "wall_backing" in f else []),
            formula=f"what is missing and what is there, in whole mm, {ctx.fmt(LEAST_BACKING)} at the least",
        )
        ctx.warn(
            "backing",
            "The leaf would rub on what stands out",
            f"The {behind} and air need {ctx.fmt(back)}; the track stands {ctx.fmt(off)} off.",
            Remedy(f"A backing board of {ctx.fmt(board)}", "hardware.wall.backing", board.value),
            Remedy(f"Or a set with {ctx.fmt(back)} of stand-off", "slide.stand_off", back.value),
            grounds=Grounds("backing", rule=f"{ctx.fmt(air)} of air"),
        )
    else:
        ctx.fine(
            "backing",
            "The leaf clears what stands out",
            f"{ctx.fmt(off)} of stand-off, {ctx.fmt(back)} needed.",
            grounds=Grounds("back_off"),
        )


def _stand_off(ctx: Context) -> Figure | None:
    """Add how far the track holds the leaf off the wall, its backing board with it; None where nobody says."""
    off, wall = from_set(ctx, "stand_off") if ctx.leaf.hanging.slides else None, ctx.leaf.hardware.wall
    if off is None or not wall.backing:
        return off
    behind = given("wall_backing", "backing board behind the track", wall.backing, fixed("hardware.wall.backing"))
    return ctx.figures.total(
        "stand_off_whole", "stand-off with the backing board", plus(off), plus(ctx.figures.add(behind))
    )


def _board(missing: float) -> float:
    """Return the thickness of a backing board that makes up what is missing and holds a screw, in whole mm."""
    return float(max(math.ceil(missing - 1e-9), LEAST_BACKING))
