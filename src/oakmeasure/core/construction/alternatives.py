"""What can be chosen between for the leaf in hand, side by side: where the glue goes, how an old leaf is reduced."""

from __future__ import annotations

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.existing.narrowing import (
    TENON_COVER,
    Reduction,
    distinct,
    panel_words,
    rows_of,
    ways_of,
)
from oakmeasure.core.construction.light.checks import HELD_MOVES
from oakmeasure.core.document.constructions import Slab, SlabGlue, SlabJoint
from oakmeasure.core.document.layer_constructions import Existing, Inside, Light, LightGlue, ReduceBy
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.fit.alternatives import Comparison, Option, way
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.wood import change_of_width

WEAK_SHARE = 0.75  # of a stile's width; less is weaker than its rails need: common practice, no source


def leaf_ways(ctx: Context, fit: Fit, build: Build, wood: Timber) -> tuple[Comparison, ...]:
    """Return everything that can be compared about how the leaf is made."""
    choice = ctx.leaf.build
    if isinstance(choice, Slab):
        return (_slab_glue(ctx, choice, fit, build, wood),)
    if isinstance(choice, Light) and choice.fill.is_boards:
        return (_light_glue(ctx, choice),)
    if isinstance(choice, Existing) and choice.inside is Inside.PANELLED:
        return _reduce_ways(ctx, choice)
    return ()


# --- where the glue goes -----------------------------------------------------------------------------------

GLUE_COLUMNS = ("glue", "moves", "opens", "what it means")


def _moves(wood: Timber, width: float) -> tuple[float, float]:
    """Return by how much a width grows at the wettest and shrinks at the driest, mm, neither less than 0."""
    grow, shrink = (
        change_of_width(
            width=width, coefficient=wood.coefficient.value, from_moisture=wood.made.value, to_moisture=air.value
        )
        for air in (wood.wet, wood.dry)
    )
    return max(grow, 0.0), max(-shrink, 0.0)


def _slab_glue(ctx: Context, choice: Slab, fit: Fit, build: Build, wood: Timber) -> Comparison:
    widths = [part.finished.width for part in build.parts if part.name.startswith("strip ")]
    widest = max(widths, default=fit.width.value)
    whole, one = sum(_moves(wood, fit.width.value)), _moves(wood, widest)[1]
    rows = (
        (SlabGlue.EDGES, whole, 0.0, "it moves as one; the battens let it"),
        (SlabGlue.MORTISES, whole, one, "joints open when dry and close again; no dirt-tight face"),
        (SlabGlue.NOWHERE, one, one, "each strip for itself, held from behind in its middle"),
    )
    options = []
    for glue, moves, opens, means in rows:
        taken = glue is choice.glue
        cannot = glue is SlabGlue.MORTISES and choice.joint is SlabJoint.GLUED
        words = f"{means}; needs loose tenons or dowels" if cannot else means
        remedy = None if taken or cannot else Remedy("", "build.glue", glue)
        options.append(
            Option(
                (str(glue), ctx.fmt(moves), ctx.fmt(opens), words), Level.LOOK if cannot else Level.FINE, remedy, taken
            )
        )
    about = f"{len(widths)} strips; from the driest to the wettest, and at the driest in one joint."
    return Comparison("Where the glue goes", about, GLUE_COLUMNS, tuple(options))


def _light_glue(ctx: Context, choice: Light) -> Comparison:
    moves, each = ctx.figures["boards_move"], ctx.figures["boards_count"]
    one = moves.value / max(each.value, 1.0)
    rows = (
        (LightGlue.JOINTS, one, one, "each board for itself, in slots; the frame stays square", Level.FINE),
        (
            LightGlue.OVER,
            0.0,
            0.0,
            f"{ctx.fmt(moves)} of movement is held back: split boards or a bowed frame",
            Level.FINE if moves.value <= HELD_MOVES else Level.LOOK,
        ),
    )
    options = tuple(
        Option(
            (str(glue), ctx.fmt(move), ctx.fmt(opens), means),
            level,
            None if glue is choice.glue else Remedy("", "build.glue", glue),
            glue is choice.glue,
        )
        for glue, move, opens, means, level in rows
    )
    about = f"{each.value:.0f} boards; how much one moves on the frame, and what a joint opens."
    return Comparison("Where the glue goes", about, GLUE_COLUMNS, options)


# --- an old leaf made narrower -----------------------------------------------------------------------------

REDUCE_COLUMNS = ("way", "cost", "hours", "off each stile", "off the panels", "strength and looks")


def _reduce_ways(ctx: Context, choice: Existing) -> tuple[Comparison, ...]:
    over = ctx.figures["old_over"].value
    if over <= HAIR:
        return ()
    found = ways_of(choice, over, ctx.rules.joint_step.value)
    if len(found) < 2:  # what cannot be done so is shown too, with what it would cost
        found.setdefault(
            ReduceBy.STILES,
            Reduction(
                ReduceBy.STILES,
                over / 2,
                tuple((0,) * n for n in rows_of(choice)),
                choice.stile - over / 2 - choice.tenon,
            ),
        )
    elif ReduceBy.STILES not in found and over / 2 < choice.stile - 30:
        found[ReduceBy.STILES] = Reduction(
            ReduceBy.STILES, over / 2, tuple((0,) * n for n in rows_of(choice)), choice.stile - over / 2 - choice.tenon
        )
    options = [_reduction(ctx, choice, each) for each in distinct(found, choice.by)]
    options.sort(key=lambda each: (each.level is not Level.FINE, float(each.cells[1])))
    about = f"{ctx.fmt(over)} too wide; whole panels, sight lines alike; hours at {ctx.rules.hour_price.value:g}."
    return (Comparison("Ways to make it narrower", about, REDUCE_COLUMNS, tuple(options)),)


def _reduction(ctx: Context, choice: Existing, each: Reduction) -> Option:
    strong, level = _strength(ctx, choice, each)
    counted = way(ctx, each.key, size=2 * each.stile_off)
    panels = panel_words(each.panels, ctx.show) if each.is_apart else "none"
    taken = each.by is choice.by
    cells = (
        counted.cells[0],
        counted.cells[1],
        counted.cells[2],
        ctx.fmt(each.stile_off),
        panels,
        f"{strong}; {_looks(ctx, choice, each)}",
    )
    remedy = None if taken or level is Level.STOP else Remedy("", "build.by", each.by)
    return Option(cells, level, remedy, taken)


def _strength(ctx: Context, choice: Existing, each: Reduction) -> tuple[str, Level]:
    left = choice.stile - each.stile_off
    if not choice.through and each.tenon_cover < 0:
        return f"tenons stand out by {ctx.fmt(-each.tenon_cover)}: they must be cut", Level.STOP
    words = f"stile {ctx.fmt(left)}"
    if not choice.through:
        words += f", {ctx.fmt(each.tenon_cover)} outside its tenons"
    if each.is_apart:
        words += "; shoulders cut anew"
    weak = left < WEAK_SHARE * choice.stile or (not choice.through and each.tenon_cover < TENON_COVER - 0.1)
    return words, Level.LOOK if weak else Level.FINE


def _looks(ctx: Context, choice: Existing, each: Reduction) -> str:
    left = choice.stile - each.stile_off
    apart = max((max(row) - min(row) for row in each.panels), default=0.0)
    words = [f"panels {ctx.fmt(apart)} apart" if apart > HAIR else "panels alike"]
    if abs(left - choice.top_rail) > 8:
        words.append(f"stiles {ctx.fmt(left)} beside a top rail of {ctx.fmt(choice.top_rail)}")
    return "; ".join(words)
