"""The proof that nothing clashes: all that lies in a leaf in one map, pins kept clear of it before they are driven."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from oakmeasure.core.construction.pin_clearance import keep_clear
from oakmeasure.core.figures.check import Stage
from oakmeasure.core.hardware.boring import Boring
from oakmeasure.core.hardware.clash.bodies import hardware_things, leaf_things, slow_leaf_things
from oakmeasure.core.hardware.clash.moves import movers
from oakmeasure.core.hardware.clash.search import ClashMap, judge_clashes, keep_out
from oakmeasure.core.hardware.hinges.butt_places import Butts
from oakmeasure.core.hardware.hinges.cups import Cups
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build

PIN_CLEAR = 8.0  # round what will be cut or driven, where no pin may go: common practice, no source


def check_clashes(
    ctx: Context, build: Build, borings: Sequence[Boring], butts: Butts | None, cups: Cups | None
) -> tuple[Build, ClashMap]:
    """Return the build without pins that would meet hardware, and the map of the leaf with every clash judged.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        borings: What is cut for hardware, in the leaf and in what carries it.
        butts: The leaf's butts; None where it hangs on something else.
        cups: The leaf's cup hinges; None where it hangs on something else.
    """
    hardware = hardware_things(ctx, borings, butts)
    build = keep_clear(ctx.at(Stage.LEAF), build, keep_out(hardware, PIN_CLEAR))
    inside = leaf_things(ctx, build)
    can_move = movers(ctx, butts, cups)
    known = _judged_already(ctx, butts)
    made = judge_clashes(ctx, [*hardware, *inside], can_move, known=known)
    slow = slow_leaf_things(borings)
    if slow:  # a second leaf: what is cut there lies beside the same joints, and nowhere near the lock's case
        other = judge_clashes(ctx, [*slow, *inside], can_move, known=known)
        made = replace(made, things=(*made.things, *slow), clashes=(*made.clashes, *other.clashes))
    return build, made


def _judged_already(ctx: Context, butts: Butts | None) -> set[str]:
    """Return what is judged against joints where it is set out, with a remedy of its own."""
    known = {"lock"} if ctx.leaf.build.judges_its_lock else set()
    for place in butts.places if butts else ():
        if ctx.checks_so_far.has(f"butt-{place.number}-wedge"):
            known.add(f"butt {place.number}")
    return known
