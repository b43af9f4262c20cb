"""How an old panelled leaf is made narrower, side by side."""

from __future__ import annotations

from oakmeasure.core.base.units import HAIR
from oakmeasure.core.construction.existing.model import Existing, Inside, ReduceBy
from oakmeasure.core.construction.existing.narrowing import (
    TENON_COVER,
    Reduction,
    distinct,
    panel_words,
    rows_of,
    ways_of,
)
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.fit.alternatives import Alternative, Comparison, Option
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.timber.choice import Timber

WEAK_SHARE = 0.75  # of a stile's width; less is weaker than its rails need: common practice, no source


def ways(ctx: Context, _fit: Fit, _build: Build, _wood: Timber) -> tuple[Comparison, ...]:
    """Return how it may be made narrower; nothing where it has no panels.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        _fit: Not asked: the choice alone decides.
        _build: Not asked: the choice alone decides.
        _wood: Not asked: the choice alone decides.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Existing)
    return _reduce_ways(ctx, choice) if choice.inside is Inside.PANELLED else ()


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
    options = [_reduction(ctx, choice, each) for each in distinct(found, choice.reduce_by)]
    options.sort(key=lambda each: (each.level is not Level.OK, float(each.cells[1])))
    about = f"{ctx.fmt(over)} too wide; whole panels, sight lines alike; hours at {ctx.rules.hour_price.value:g}."
    return (Comparison("Ways to make it narrower", about, REDUCE_COLUMNS, tuple(options)),)


def _reduction(ctx: Context, choice: Existing, each: Reduction) -> Option:
    strong, level = _strength(ctx, choice, each)
    counted = Alternative(each.key, size=2 * each.stile_off).costed(ctx)
    panels = panel_words(each.panels, ctx.show) if each.is_apart else "none"
    taken = each.by is choice.reduce_by
    cells = (
        counted.cells[0],
        counted.cells[1],
        counted.cells[2],
        ctx.fmt(each.stile_off),
        panels,
        f"{strong}; {_looks(ctx, choice, each)}",
    )
    remedy = None if taken or level is Level.STOP else Remedy("", "build.reduce_by", each.by)
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
    return words, Level.WARNING if weak else Level.OK


def _looks(ctx: Context, choice: Existing, each: Reduction) -> str:
    left = choice.stile - each.stile_off
    apart = max((max(row) - min(row) for row in each.panels), default=0.0)
    words = [f"panels {ctx.fmt(apart)} apart" if apart > HAIR else "panels alike"]
    if abs(left - choice.top_rail) > 8:
        words.append(f"stiles {ctx.fmt(left)} beside a top rail of {ctx.fmt(choice.top_rail)}")
    return "; ".join(words)
