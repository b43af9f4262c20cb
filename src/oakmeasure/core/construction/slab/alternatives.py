"""Where the glue of a slab goes, side by side."""

from __future__ import annotations

from oakmeasure.core.construction.alternatives import GLUE_COLUMNS
from oakmeasure.core.construction.slab.model import Slab, SlabGlue, SlabJoint
from oakmeasure.core.document.roles import Role
from oakmeasure.core.figures.check import Level, Remedy
from oakmeasure.core.fit.alternatives import Comparison, Option
from oakmeasure.core.fit.fit_result import Fit
from oakmeasure.core.leaf.leaf_context import Context
from oakmeasure.core.leaf.part import Build
from oakmeasure.core.timber.choice import Timber
from oakmeasure.core.timber.wood import change_of_width


def ways(ctx: Context, fit: Fit, build: Build, wood: Timber) -> tuple[Comparison, ...]:
    """Return where the glue may go, with what each way means.

    Args:
        ctx: The leaf's context: its choices are read, its figures and checks added to.
        fit: Size of the leaf and its gaps, mm.
        build: The leaf's parts and joints, in the finished leaf's coordinates.
        wood: Species, and moisture as made, at the driest and at the wettest.
    """
    choice = ctx.leaf.build
    assert isinstance(choice, Slab)
    return (_slab_glue(ctx, choice, fit, build, wood),)


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
    widths = [part.finished.width for part in build.parts if part.role is Role.STRIP]
    widest = max(widths, default=fit.width.value)
    whole, strip = sum(_moves(wood, fit.width.value)), sum(_moves(wood, widest))
    joint = _moves(wood, widest)[1]
    rows = (
        (SlabGlue.EDGES, whole, 0.0, "it moves as one; the battens let it"),
        (SlabGlue.MORTISES, whole, joint, "joints open when dry and close again; no dirt-tight face"),
        (SlabGlue.NOWHERE, strip, joint, "each strip for itself, held from behind in its middle"),
    )
    options = []
    for glue, moves, opens, means in rows:
        taken = glue is choice.glue
        cannot = glue is SlabGlue.MORTISES and choice.joint is SlabJoint.GLUED
        words = f"{means}; needs loose tenons or dowels" if cannot else means
        remedy = None if taken or cannot else Remedy("", "build.glue", glue)
        options.append(
            Option(
                (str(glue), ctx.fmt(moves), ctx.fmt(opens), words), Level.WARNING if cannot else Level.OK, remedy, taken
            )
        )
    about = f"{len(widths)} strips; from the driest to the wettest, and at the driest in one joint."
    return Comparison("Where the glue goes", about, GLUE_COLUMNS, tuple(options))
